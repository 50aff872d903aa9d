#include "app/charts/chart_inks.h"

#include <QColor>
#include <QPainter>

namespace sober::app {

void hatch(QPainter& painter, const QRectF& room, const QColor& ink, double gap) {
    painter.save();
    painter.setClipRect(room);
    painter.setPen(ink);
    for (double x = room.left() - room.height(); x < room.right(); x += gap) {
        painter.drawLine(QPointF(x, room.bottom()), QPointF(x + room.height(), room.top()));
    }
    painter.restore();
}

} // namespace sober::app
