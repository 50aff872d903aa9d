#pragma once

class QColor;
class QPainter;
class QRectF;

namespace sober::app {

/// Slanting lines over a place, so far apart.
void hatch(QPainter& painter, const QRectF& room, const QColor& ink, double gap);

} // namespace sober::app
