#include "app/charts/spectrum_scale.h"

#include "app/charts/axes.h"
#include "app/theme/theme.h"

#include <QCoreApplication>
#include <QPainter>

#include <algorithm>

namespace sober::app {
namespace {

constexpr double lowestLevel = -10;
constexpr double highestLevel = 116;

} // namespace

double SpectrumScale::xOf(double hertz) const {
    return plot.left() + hertz / highest * plot.width();
}

double SpectrumScale::yOf(double level) const {
    const double share =
        (std::clamp(level, lowestLevel, highestLevel) - lowestLevel) / (highestLevel - lowestLevel);
    return plot.bottom() - share * plot.height();
}

double SpectrumScale::hertzAt(double x) const {
    return (x - plot.left()) / plot.width() * highest;
}

void SpectrumScale::drawGround(QPainter& painter) const {
    painter.fillRect(plot, Theme::inks().sheet);
    for (const int below : {0, -40, -80}) {
        drawLevelTick(painter, plot, yOf(fullScale + below),
                      below == 0 ? QCoreApplication::translate("Spectrum", "%1 dB").arg(below)
                                 : QString::number(below));
    }
    const double step = highest > 30'000 ? 10'000 : 5000;
    for (double hertz = step; hertz < highest; hertz += step) {
        drawBaseTick(painter, plot, xOf(hertz),
                     hertz + step < highest
                         ? QString::number(hertz / 1000)
                         : QCoreApplication::translate("Spectrum", "%1 kHz").arg(hertz / 1000));
    }
    painter.setPen(Theme::inks().rule);
    painter.drawRect(plot);
}

} // namespace sober::app
