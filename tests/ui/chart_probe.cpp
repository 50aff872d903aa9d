#include "chart_probe.h"

#include "app/theme/theme.h"

#include <QApplication>
#include <QMouseEvent>
#include <QToolTip>

namespace sober::app {

QImage pixelsOf(QWidget& chart, int width) {
    Theme::apply(*qApp, Paper::light);
    chart.resize(width, chart.height());
    chart.show();
    QApplication::processEvents();
    return chart.grab().toImage();
}

QString tipAt(QWidget& chart, QPoint point) {
    // A tip that is taken away stays for a moment: one of our own tells whether another came.
    const QString none = QStringLiteral("(none)");
    QToolTip::showText(chart.mapToGlobal(point), none, &chart);
    QMouseEvent move(QEvent::MouseMove, point, chart.mapToGlobal(point), Qt::NoButton, Qt::NoButton,
                     Qt::NoModifier);
    QApplication::sendEvent(&chart, &move);
    return QToolTip::text() == none ? QString() : QToolTip::text();
}

} // namespace sober::app
