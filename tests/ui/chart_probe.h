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

/// The one of its kind that is shown; nullptr where none is.
template <typename T>
T* visibleOf(const QWidget& window) {
    for (auto* each : window.findChildren<T*>()) {
        if (each->isVisible()) {
            return each;
        }
    }
    return nullptr;
}

} // namespace sober::app
