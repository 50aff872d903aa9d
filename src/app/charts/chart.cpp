#include "app/charts/chart.h"

#include "app/theme/theme.h"

#include <QMouseEvent>
#include <QPainter>
#include <QToolTip>

namespace sober::app {

Chart::Chart(const QString& accessibleName, int height, QWidget* parent) : QWidget(parent) {
    setAccessibleName(accessibleName);
    setMouseTracking(true);
    setFixedHeight(height);
}

void Chart::paintEvent(QPaintEvent* /*event*/) {
    QPainter painter(this);
    painter.setFont(Theme::text(12));
    draw(painter);
}

void Chart::mouseMoveEvent(QMouseEvent* event) {
    const QString value = valueAt(event->position());
    if (value.isEmpty()) {
        QToolTip::hideText();
    } else {
        QToolTip::showText(event->globalPosition().toPoint(), value, this);
    }
}

void Chart::leaveEvent(QEvent* /*event*/) {
    QToolTip::hideText();
}

void Chart::drawCut(QPainter& painter, const QRectF& room, int alignment, const QString& text,
                    Qt::TextElideMode mode) {
    painter.drawText(room, alignment,
                     painter.fontMetrics().elidedText(text, mode, static_cast<int>(room.width())));
}

} // namespace sober::app
