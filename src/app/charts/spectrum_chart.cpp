#include "app/charts/spectrum_chart.h"

#include "app/theme/theme.h"
#include "app/words.h"

#include <QPainter>
#include <QPainterPath>

#include <algorithm>
#include <cmath>

namespace sober::app {
namespace {

struct Guide {
    double hertz;
    const char* text;
    double beside; ///< pixels: two lie so near that their words would meet
};
/// Common practice among practitioners, no source; for the eye, not a rule.
constexpr std::array<Guide, 3> guides{{{16'000, "128", 0}, {19'000, "192", -8}, {20'000, "320", 8}}};

} // namespace

SpectrumChart::SpectrumChart(QWidget* parent) : Chart(tr("Level by frequency"), 142, parent) {}

void SpectrumChart::setSpectrum(std::optional<Spectrum> spectrum, std::optional<Bandwidth> bandwidth) {
    spectrum_ = std::move(spectrum);
    bandwidth_ = bandwidth;
    update();
}

QRectF SpectrumChart::plot() const {
    return {40, 18, width() - 46.0, height() - 18.0 - 20};
}

SpectrumScale SpectrumChart::scale() const {
    SpectrumScale scale{plot()};
    if (spectrum_) {
        scale.highest = spectrum_->binWidth * static_cast<double>(spectrum_->high.size() - 1);
    }
    return scale;
}

void SpectrumChart::draw(QPainter& painter) {
    const auto& inks = Theme::inks();
    const auto room = plot();
    painter.setFont(Theme::text(11));
    const auto scale = this->scale();
    scale.drawGround(painter);
    painter.setPen(inks.quiet);
    for (const auto& guide : guides) {
        const double x = scale.xOf(guide.hertz);
        if (x < room.right()) {
            painter.drawLine(QPointF(x, room.top() - 4), QPointF(x, room.top()));
            painter.drawText(QRectF(x + guide.beside - 20, 0, 40, room.top() - 4),
                             Qt::AlignHCenter | Qt::AlignBottom, QString::fromLatin1(guide.text));
        }
    }
    const double guideStart = scale.xOf(guides.front().hertz) - 16;
    drawCut(painter, QRectF(room.left(), 0, guideStart - room.left(), room.top() - 4),
            Qt::AlignRight | Qt::AlignBottom, tr("MP3 usually ends, by kbit/s:"));
    if (!spectrum_) {
        painter.drawText(room, Qt::AlignCenter, tr("Too short to measure."));
        return;
    }
    painter.setRenderHint(QPainter::Antialiasing);
    painter.setClipRect(room.adjusted(0, 0, 1, 1));
    const auto curve = [&](const std::vector<float>& levels) {
        QPolygonF line;
        for (std::size_t bin = 1; bin < levels.size(); ++bin) {
            line << QPointF(scale.xOf(static_cast<double>(bin) * spectrum_->binWidth),
                            scale.yOf(static_cast<double>(levels[bin])));
        }
        return line;
    };
    QPolygonF under = curve(spectrum_->high);
    under << room.bottomRight() << room.bottomLeft();
    painter.setPen(Qt::NoPen);
    QColor fill = inks.accent;
    fill.setAlphaF(0.22F);
    painter.setBrush(fill);
    painter.drawPolygon(under);
    painter.setBrush(Qt::NoBrush);
    painter.setPen(QPen(inks.accent, 1));
    painter.drawPolyline(curve(spectrum_->high));
    painter.setPen(QPen(inks.ink, 1));
    painter.drawPolyline(curve(spectrum_->mean));
    if (bandwidth_ && bandwidth_->cutoff > 0) {
        const double x = std::round(scale.xOf(bandwidth_->cutoff)); // a line of two pixels stays sharp
        const QColor ink = bandwidth_->brickwall ? inks.damaged : inks.ink;
        painter.setPen(QPen(ink, 2, bandwidth_->brickwall ? Qt::SolidLine : Qt::DashLine));
        painter.drawLine(QPointF(x, room.top()), QPointF(x, room.bottom()));
        const QString text = (bandwidth_->brickwall ? tr("stops dead at %1 kHz") : tr("reaches %1 kHz"))
                                 .arg(figure(bandwidth_->cutoff / 1000, 1));
        painter.setPen(ink);
        painter.drawText(QRectF(room.left(), room.top() + 2, x - room.left() - 5, 16),
                         Qt::AlignRight | Qt::AlignVCenter, text);
    }
}

QString SpectrumChart::valueAt(const QPointF& point) const {
    if (!spectrum_ || !plot().contains(point)) {
        return {};
    }
    const double hertz = scale().hertzAt(point.x());
    const auto bin =
        std::min(static_cast<std::size_t>(hertz / spectrum_->binWidth), spectrum_->high.size() - 1);
    return tr("%1 kHz: mean %2 dB, in 5 % of the time above %3 dB")
        .arg(figure(hertz / 1000, 2))
        .arg(figure(static_cast<double>(spectrum_->mean[bin]) - SpectrumScale::fullScale, 0))
        .arg(figure(static_cast<double>(spectrum_->high[bin]) - SpectrumScale::fullScale, 0));
}

} // namespace sober::app
