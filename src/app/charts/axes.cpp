#include "app/charts/axes.h"

#include "app/theme/theme.h"

#include <QPainter>

namespace sober::app {

void drawLevelTick(QPainter& painter, const QRectF& plot, double y, const QString& text) {
    const auto& inks = Theme::inks();
    const int line = painter.fontMetrics().height();
    painter.setPen(inks.rule);
    painter.drawLine(QPointF(plot.left(), y), QPointF(plot.right(), y));
    painter.setPen(inks.quiet);
    painter.drawText(QRectF(0, y - line / 2.0, plot.left() - 6, line), Qt::AlignRight | Qt::AlignVCenter,
                     text);
}

void drawBaseTick(QPainter& painter, const QRectF& plot, double x, const QString& text) {
    const int line = painter.fontMetrics().height();
    painter.setPen(Theme::inks().quiet);
    painter.drawLine(QPointF(x, plot.bottom()), QPointF(x, plot.bottom() + 3));
    const double width = painter.fontMetrics().horizontalAdvance(text) + 2.0;
    const double left = std::clamp(x - width / 2, 0.0, painter.viewport().width() - width);
    painter.drawText(QRectF(left, plot.bottom() + 3, width, line), Qt::AlignHCenter | Qt::AlignTop, text);
}

} // namespace sober::app
