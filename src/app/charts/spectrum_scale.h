#pragma once

#include <QRectF>

class QPainter;

namespace sober::app {

/// Where a level and a frequency stand in a picture of spectra. Levels in dB relative to the square of one
/// 16-bit step.
struct SpectrumScale {
    static constexpr double fullScale = 90.3; ///< dB of noise at full scale

    QRectF plot;
    double highest = 22'050; ///< Hz at the right edge

    double xOf(double hertz) const;
    double yOf(double level) const;
    /// The frequency at a place.
    double hertzAt(double x) const;
    /// Paper, ticks with their figures, and the frame.
    void drawGround(QPainter& painter) const;
};

} // namespace sober::app
