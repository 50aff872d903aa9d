#include "app/lists/dragged.h"

#include <QDataStream>
#include <QIODevice>

namespace sober::app {

std::unique_ptr<QMimeData> mimeOfIds(const std::vector<HoldingId>& ids) {
    QByteArray bytes;
    QDataStream out(&bytes, QIODevice::WriteOnly);
    for (const auto id : ids) {
        out << static_cast<qint64>(id);
    }
    auto data = std::make_unique<QMimeData>();
    data->setData(idsMimeType, bytes);
    return data;
}

std::unique_ptr<QMimeData> mimeOfFolder(VolumeId volume, const BytePath& folder) {
    QByteArray bytes;
    QDataStream out(&bytes, QIODevice::WriteOnly);
    out << static_cast<qint64>(volume) << QByteArray::fromStdString(folder);
    auto data = std::make_unique<QMimeData>();
    data->setData(folderMimeType, bytes);
    return data;
}

std::vector<HoldingId> idsOf(const QMimeData& data) {
    const auto bytes = data.data(idsMimeType);
    QDataStream in(bytes);
    std::vector<HoldingId> ids;
    while (!in.atEnd()) {
        qint64 id = 0;
        in >> id;
        if (in.status() != QDataStream::Ok) {
            return {};
        }
        ids.push_back(id);
    }
    return ids;
}

std::pair<std::optional<VolumeId>, BytePath> folderOf(const QMimeData& data) {
    const auto bytes = data.data(folderMimeType);
    QDataStream in(bytes);
    qint64 volume = 0;
    QByteArray folder;
    in >> volume >> folder;
    return in.status() == QDataStream::Ok && !bytes.isEmpty()
               ? std::pair(std::optional<VolumeId>(volume), folder.toStdString())
               : std::pair(std::optional<VolumeId>(), BytePath());
}

} // namespace sober::app
