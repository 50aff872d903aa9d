#include "app/charts/trace_chart.h"

#include "app/charts/axes.h"
#include "app/theme/theme.h"
#include "app/words.h"

#include <QPainter>

#include <algorithm>
#include <cmath>

namespace sober::app {

QString codecName(const std::string& codec) {
    static constexpr std::array<std::pair<const char*, const char*>, 6> names{{{"mp3", "MP3"},
                                                                               {"aac", "AAC"},
                                                                               {"vorbis", "Vorbis"},
                                                                               {"opus", "Opus"},
                                                                               {"ac3", "AC-3"},
                                                                               {"wma", "WMA"}}};
    const auto* const found =
        std::ranges::find_if(names, [&](const auto& each) { return codec == each.first; });
    return found != names.end() ? QString::fromLatin1(found->second) : shown(codec).toUpper();
}

TraceChart::TraceChart(QWidget* parent)
    : Chart(tr("Trace of an earlier encoder's block grid"), 104, parent) {}

void TraceChart::setTrace(const CodecTrace& trace) {
    earlier_ = trace.first.has_value();
    hit_ = trace.first || trace.last;
    peak_ = trace.first ? trace.first : trace.last ? trace.last : trace.highest;
    update();
}

QRectF TraceChart::plot() const {
    return {40, 18, width() - 46.0, height() - 18.0 - 20};
}

void TraceChart::draw(QPainter& painter) {
    const auto& inks = Theme::inks();
    const auto room = plot();
    painter.setFont(Theme::text(11));
    painter.fillRect(room, inks.sheet);
    painter.setPen(inks.rule);
    painter.drawRect(room);
    painter.setPen(inks.quiet);
    if (!peak_ || peak_->excess.empty() || peak_->strength <= 0) {
        painter.drawText(room, Qt::AlignCenter, tr("No position of any encoder's grid stands out."));
        return;
    }
    const auto& excess = peak_->excess;
    const double most = static_cast<double>(*std::ranges::max_element(excess));
    const double unit = most / std::max(1e-9, peak_->strength); // one times chance
    const double top = std::max(peak_->strength, 10.0) * 1.08;
    const double bottom = -0.12 * top;
    const auto yOf = [&](double times) {
        return room.bottom() - (std::clamp(times, bottom, top) - bottom) / (top - bottom) * room.height();
    };
    const auto xOf = [&](double position) {
        return room.left() + (position + 0.5) / static_cast<double>(excess.size()) * room.width();
    };
    drawLevelTick(painter, room, yOf(0), QStringLiteral("0"));
    const double step = top > 200 ? 200 : top > 60 ? 50 : top > 25 ? 20 : 8;
    drawLevelTick(painter, room, yOf(step), tr("%1 ×").arg(step));
    for (std::size_t position = 0; position <= excess.size(); position += excess.size() / 4) {
        drawBaseTick(painter, room, xOf(static_cast<double>(position) - 0.5), QString::number(position));
    }
    painter.setRenderHint(QPainter::Antialiasing);
    painter.setPen(QPen(inks.accent, 1));
    for (std::size_t position = 0; position < excess.size(); ++position) {
        const double x = xOf(static_cast<double>(position));
        painter.drawLine(QPointF(x, yOf(0)), QPointF(x, yOf(static_cast<double>(excess[position]) / unit)));
    }
    const double x = std::round(xOf(static_cast<double>(peak_->offset))); // a line of two pixels stays sharp
    painter.setPen(QPen(hit_ ? inks.damaged : inks.quiet, 2));
    painter.drawLine(QPointF(x, yOf(0)), QPointF(x, yOf(peak_->strength)));
    painter.setPen(hit_ ? inks.ink : inks.quiet);
    const QString grid = earlier_ ? tr("Earlier %1 grid").arg(codecName(peak_->codec))
                         : hit_   ? tr("%1 grid").arg(codecName(peak_->codec))
                                  : tr("Nothing above chance; the most, as %1").arg(codecName(peak_->codec));
    drawCut(painter, QRectF(0, 0, width(), 16), Qt::AlignLeft | Qt::AlignVCenter,
            tr("%1: position %2 of %3, %4 × chance")
                .arg(grid)
                .arg(peak_->offset)
                .arg(peak_->period)
                .arg(figure(peak_->strength, peak_->strength < 10 ? 1 : 0)));
}

QString TraceChart::valueAt(const QPointF& point) const {
    if (!peak_ || peak_->excess.empty() || !plot().contains(point)) {
        return {};
    }
    const double share = (point.x() - plot().left()) / plot().width();
    const auto position =
        std::min(static_cast<std::size_t>(share * static_cast<double>(peak_->excess.size())),
                 peak_->excess.size() - 1);
    return tr("position %1: %2 more coefficients near zero than at its neighbours")
        .arg(position)
        .arg(figure(static_cast<double>(peak_->excess[position]), 0));
}

} // namespace sober::app
