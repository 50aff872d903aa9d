#include "app/charts/overlay_chart.h"

#include "app/charts/axes.h"
#include "app/theme/theme.h"
#include "app/words.h"

#include <QPainter>

#include <algorithm>
#include <cmath>

namespace sober::app {
namespace {

constexpr double deepest = -100; ///< dB of residual at the foot of its picture

} // namespace

OverlayChart::OverlayChart(QWidget* parent)
    : Chart(tr("Spectra of two members, and what is left after subtraction"), 208, parent) {}

void OverlayChart::setSides(std::optional<Side> keeper, std::optional<Side> other) {
    keeper_ = std::move(keeper);
    other_ = std::move(other);
    update();
}

void OverlayChart::setComparison(std::optional<DecodeComparison> comparison, const QString& whyNot) {
    comparison_ = std::move(comparison);
    whyNot_ = whyNot;
    update();
}

SpectrumScale OverlayChart::spectra() const {
    SpectrumScale scale{{40, 16, width() - 46.0, 92}};
    for (const auto* side : {&keeper_, &other_}) {
        if (*side) {
            scale.highest =
                std::max(scale.highest,
                         (*side)->spectrum.binWidth * static_cast<double>((*side)->spectrum.high.size() - 1));
        }
    }
    return scale;
}

QRectF OverlayChart::residual() const {
    return {40, 142, width() - 46.0, height() - 142.0 - 18};
}

void OverlayChart::draw(QPainter& painter) {
    painter.setFont(Theme::text(11));
    drawSpectra(painter);
    drawResidual(painter);
}

void OverlayChart::drawSpectra(QPainter& painter) {
    const auto& inks = Theme::inks();
    const auto scale = spectra();
    const auto& room = scale.plot;
    scale.drawGround(painter);
    painter.save();
    painter.setRenderHint(QPainter::Antialiasing);
    painter.setClipRect(room.adjusted(0, 0, 1, 1));
    const auto curve = [&](const Spectrum& spectrum) {
        QPolygonF line;
        for (std::size_t bin = 1; bin < spectrum.high.size(); ++bin) {
            line << QPointF(scale.xOf(static_cast<double>(bin) * spectrum.binWidth),
                            scale.yOf(static_cast<double>(spectrum.high[bin])));
        }
        return line;
    };
    if (keeper_) {
        QPolygonF under = curve(keeper_->spectrum);
        if (!under.empty()) {
            under << QPointF(under.last().x(), room.bottom()) << room.bottomLeft();
        }
        QColor fill = inks.accent;
        fill.setAlphaF(0.25F);
        painter.setPen(QPen(inks.accent, 1));
        painter.setBrush(fill);
        painter.drawPolygon(under);
    }
    if (other_) {
        painter.setBrush(Qt::NoBrush);
        painter.setPen(QPen(inks.ink, 1.4));
        painter.drawPolyline(curve(other_->spectrum));
    }
    painter.restore();
    // The names stand above, each with its line.
    const double half = room.width() / 2;
    const auto legend = [&](const std::optional<Side>& side, double left, const QColor& ink, bool filled) {
        if (!side) {
            return;
        }
        const QRectF swatch(left, 4, 14, filled ? 8 : 1.4);
        painter.fillRect(filled ? swatch : swatch.translated(0, 4), ink);
        painter.setPen(inks.quiet);
        drawCut(painter, QRectF(left + 18, 0, half - 24, 15), Qt::AlignVCenter, side->name, Qt::ElideMiddle);
    };
    QColor fill = inks.accent;
    fill.setAlphaF(0.4F);
    legend(keeper_, room.left(), fill, true);
    legend(other_, room.left() + half, inks.ink, false);
    if (!keeper_ && !other_) {
        painter.setPen(inks.quiet);
        painter.drawText(room, Qt::AlignCenter | Qt::TextWordWrap, tr("Not examined yet."));
    }
}

void OverlayChart::drawResidual(QPainter& painter) {
    const auto& inks = Theme::inks();
    const auto room = residual();
    painter.setPen(inks.quiet);
    drawCut(painter, QRectF(room.left(), room.top() - 17, room.width(), 15), Qt::AlignVCenter,
            tr("left after subtraction, over time"));
    painter.fillRect(room, inks.sheet);
    const auto yOf = [&](double level) {
        return room.top() + std::clamp(level, deepest, 0.0) / deepest * room.height();
    };
    for (const int level : {0, -50, -100}) {
        drawLevelTick(painter, room, yOf(level), level == 0 ? tr("0 dB") : QString::number(level));
    }
    painter.setPen(inks.rule);
    painter.drawRect(room);
    if (!comparison_ || comparison_->overTime.empty()) {
        painter.setPen(inks.quiet);
        painter.fillRect(room.adjusted(1, 1, -1, -1), inks.sheet);
        painter.drawText(room, Qt::AlignCenter | Qt::TextWordWrap, whyNot_);
        return;
    }
    const auto& over = comparison_->overTime;
    const double wide = room.width() / static_cast<double>(over.size());
    for (std::size_t at = 0; at < over.size(); ++at) {
        const double top = yOf(static_cast<double>(over[at]));
        painter.fillRect(QRectF(room.left() + wide * static_cast<double>(at), top, std::max(1.0, wide),
                                room.bottom() - top),
                         inks.accent);
    }
    const double seconds = comparison_->blockSeconds * static_cast<double>(over.size());
    drawBaseTick(painter, room, room.left(), QStringLiteral("0"));
    drawBaseTick(painter, room, room.right(), tr("%1 s").arg(figure(seconds, 0)));
}

QString OverlayChart::valueAt(const QPointF& point) const {
    if (spectra().plot.contains(point)) {
        const double hertz = spectra().hertzAt(point.x());
        QStringList lines{tr("%1 kHz, level in the loudest 5 % of the time:").arg(figure(hertz / 1000, 2))};
        for (const auto* side : {&keeper_, &other_}) {
            if (*side && !(*side)->spectrum.high.empty()) {
                const auto bin = std::min(static_cast<std::size_t>(hertz / (*side)->spectrum.binWidth),
                                          (*side)->spectrum.high.size() - 1);
                lines << tr("%1: %2 dB")
                             .arg((*side)->name)
                             .arg(figure(static_cast<double>((*side)->spectrum.high[bin]) -
                                             SpectrumScale::fullScale,
                                         0));
            }
        }
        return lines.join(QLatin1Char('\n'));
    }
    if (residual().contains(point) && comparison_ && !comparison_->overTime.empty()) {
        const auto& over = comparison_->overTime;
        const auto at =
            std::min(static_cast<std::size_t>((point.x() - residual().left()) / residual().width() *
                                              static_cast<double>(over.size())),
                     over.size() - 1);
        return tr("at %1 s: %2 dB is left")
            .arg(figure(comparison_->blockSeconds * static_cast<double>(at), 1))
            .arg(figure(static_cast<double>(over[at]), 0));
    }
    return {};
}

} // namespace sober::app
