#pragma once

#include <QImage>
#include <QPoint>
#include <QString>
#include <QWidget>

namespace sober::app {

/// Shows a chart on light paper at a width and gives its pixels.
QImage pixelsOf(QWidget& chart, int width);

/// What a chart tells under the pointer; empty if nothing.
QString tipAt(QWidget& chart, QPoint point);

} // namespace sober::app
