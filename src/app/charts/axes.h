#pragma once

#include <QRectF>

class QPainter;
class QString;

namespace sober::app {

/// A figure's place and its words at the left of a plot, with a hairline across.
void drawLevelTick(QPainter& painter, const QRectF& plot, double y, const QString& text);
/// A figure's place and its words below a plot.
void drawBaseTick(QPainter& painter, const QRectF& plot, double x, const QString& text);

} // namespace sober::app
