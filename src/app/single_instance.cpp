#include "app/single_instance.h"

#include "core/base/file_handle.h"
#include "core/base/text.h"
#include "core/evidence/checksums.h"

#include <QDataStream>
#include <QLocalSocket>
#include <QStandardPaths>

namespace sober::app {
namespace {

// Milliseconds: whoever can be connected to lives, and may be starting.
constexpr int patience = 2000;
constexpr int answerPatience = 15'000;
constexpr auto form = QDataStream::Qt_6_4;

} // namespace

SingleInstance::SingleInstance(const BytePath& catalogue, QObject* parent) : QObject(parent) {
    // By its folder's real path, as the file itself may not be there yet.
    const auto folder = realPathOf(BytePath(parentOf(catalogue)));
    const auto path = joinPath(folder ? *folder : BytePath(parentOf(catalogue)), nameOf(catalogue));
    const auto hash = checksumOf({reinterpret_cast<const std::uint8_t*>(path.data()), path.size()});
    const auto runtime = QStandardPaths::writableLocation(QStandardPaths::RuntimeLocation);
    name_ = runtime.isEmpty() ? QString()
                              : runtime + QStringLiteral("/sober-archivist-") +
                                    QString::fromStdString(hash.hex().substr(0, 16));
    server_.setSocketOptions(QLocalServer::UserAccessOption);
    connect(&server_, &QLocalServer::newConnection, this, [this] {
        while (auto* line = server_.nextPendingConnection()) {
            connect(line, &QLocalSocket::disconnected, line, &QObject::deleteLater);
            connect(line, &QLocalSocket::readyRead, this, [this, line] { hear(line); });
            hear(line);
        }
    });
}

bool SingleInstance::handOver(const std::vector<BytePath>& places) const {
    QLocalSocket line;
    line.connectToServer(name_);
    if (name_.isEmpty() || !line.waitForConnected(patience)) {
        return false;
    }
    QList<QByteArray> words;
    for (const auto& place : places) {
        words << QByteArray::fromStdString(place);
    }
    QDataStream stream(&line);
    stream.setVersion(form);
    stream << words;
    line.flush();
    return line.waitForReadyRead(answerPatience) && line.readAll() == "y";
}

bool SingleInstance::handOverOrListen(const std::vector<BytePath>& places) {
    if (handOver(places)) {
        return true;
    }
    if (name_.isEmpty() || server_.listen(name_)) {
        return false;
    }
    // Whoever has the name was killed, or has just taken it.
    if (handOver(places)) {
        return true;
    }
    QLocalServer::removeServer(name_);
    server_.listen(name_);
    return false;
}

void SingleInstance::hear(QLocalSocket* line) {
    QDataStream stream(line);
    stream.setVersion(form);
    QList<QByteArray> words;
    stream.startTransaction();
    stream >> words;
    if (!stream.commitTransaction()) {
        return; // the rest is still to come
    }
    line->write("y");
    line->flush();
    std::vector<BytePath> places;
    for (const auto& word : words) {
        places.push_back(word.toStdString());
    }
    emit asked(places);
}

} // namespace sober::app
