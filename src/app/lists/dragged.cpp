#include "app/lists/dragged.h"

#include "app/theme/theme.h"

#include <QDataStream>
#include <QDrag>
#include <QIODevice>
#include <QPainter>
#include <QPixmap>

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

void dragTold(QWidget* from, QMimeData* data, const QString& words, Qt::DropActions actions) {
    const auto& inks = Theme::inks();
    const QFontMetrics metrics(Theme::text());
    const QSize size(metrics.horizontalAdvance(words) + 16, 24);
    const double ratio = from->devicePixelRatioF();
    QPixmap picture(size * ratio);
    picture.setDevicePixelRatio(ratio);
    picture.fill(inks.sheet);
    QPainter painter(&picture);
    painter.setPen(inks.accent);
    painter.drawRect(0, 0, size.width() - 1, size.height() - 1);
    painter.setPen(inks.ink);
    painter.setFont(Theme::text());
    painter.drawText(QRect(QPoint(0, 0), size), Qt::AlignCenter, words);
    painter.end();
    auto* drag = new QDrag(from);
    drag->setMimeData(data);
    drag->setPixmap(picture);
    drag->setHotSpot({-14, -10}); // below the pointer
    drag->exec(actions);
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
