#include "app/charts/ribbon_chart.h"

#include "app/theme/marks.h"
#include "app/theme/theme.h"
#include "app/words.h"

#include <QPainter>
#include <QPainterPath>

#include <map>

namespace sober::app {
namespace {

constexpr std::size_t mostRibbons = 8;
constexpr double top = 26;
constexpr double laneLeast = 22;

double leftEnd(int width) {
    return width * 0.40;
}
double rightEnd(int width) {
    return width * 0.62;
}

} // namespace

RibbonChart::RibbonChart(QWidget* parent)
    : Chart(tr("Missing holdings from remembered folders to where their content is now"), 80, parent) {}

void RibbonChart::setRibbons(std::vector<Ribbon> ribbons) {
    rest_ = 0;
    for (std::size_t i = mostRibbons; i < ribbons.size(); ++i) {
        rest_ += ribbons[i].count;
    }
    ribbons.resize(std::min(ribbons.size(), mostRibbons));
    ribbons_ = std::move(ribbons);
    setFixedHeight(static_cast<int>(
        top + static_cast<double>(std::max<std::size_t>(ribbons_.size(), 2)) * 26 + (rest_ > 0 ? 20 : 4)));
    update();
}

std::vector<RibbonChart::Drawn> RibbonChart::layOut() const {
    std::uint64_t most = 1;
    for (const auto& ribbon : ribbons_) {
        most = std::max(most, ribbon.count);
    }
    std::map<QString, double> targets;
    std::vector<Drawn> drawn;
    double at = top + laneLeast / 2;
    double targetAt = at;
    for (std::size_t i = 0; i < ribbons_.size(); ++i) {
        const auto [target, isNew] = targets.emplace(ribbons_[i].to, targetAt);
        if (isNew) {
            targetAt += laneLeast + 4;
        }
        const double thick =
            std::max(2.0, 18.0 * static_cast<double>(ribbons_[i].count) / static_cast<double>(most));
        drawn.push_back({i, at, target->second, thick});
        at += laneLeast + 4;
    }
    return drawn;
}

void RibbonChart::draw(QPainter& painter) {
    const auto& inks = Theme::inks();
    painter.setRenderHint(QPainter::Antialiasing);
    painter.setPen(inks.quiet);
    if (ribbons_.empty()) {
        painter.drawText(rect(), Qt::AlignCenter, tr("Nothing is missing."));
        return;
    }
    const double left = leftEnd(width());
    const double right = rightEnd(width());
    painter.drawText(QRectF(0, 0, left - 8, 20), Qt::AlignRight | Qt::AlignVCenter, tr("last seen in"));
    painter.drawText(QRectF(right + 8, 0, width() - right - 8, 20), Qt::AlignLeft | Qt::AlignVCenter,
                     tr("the same bytes are now in"));
    for (const auto& ribbon : layOut()) {
        const auto& flow = ribbons_[ribbon.ribbon];
        const bool found = !flow.to.isEmpty();
        QColor fill = found ? inks.accent : inks.missing;
        fill.setAlphaF(found ? 0.35F : 0.22F);
        const double half = ribbon.thick / 2;
        QPainterPath path(QPointF(left, ribbon.left - half));
        const double mid = (left + right) / 2;
        path.cubicTo(mid, ribbon.left - half, mid, ribbon.right - half, right, ribbon.right - half);
        path.lineTo(right, ribbon.right + half);
        path.cubicTo(mid, ribbon.right + half, mid, ribbon.left + half, left, ribbon.left + half);
        painter.fillPath(path, fill);
        painter.setPen(inks.ink);
        drawCut(painter, QRectF(0, ribbon.left - 10, left - 8, 20), Qt::AlignRight | Qt::AlignVCenter,
                QStringLiteral("%1   %2").arg(flow.from, shown(humanCount(flow.count))), Qt::ElideMiddle);
        painter.setPen(found ? inks.ink : inks.missing);
        paintMark(painter, QRectF(right + 6, ribbon.right - 10, 20, 20), found ? Mark::moved : Mark::missing);
        drawCut(painter, QRectF(right + 28, ribbon.right - 10, width() - right - 28, 20),
                Qt::AlignLeft | Qt::AlignVCenter, found ? flow.to : tr("no volume that is catalogued"),
                Qt::ElideMiddle);
    }
    if (rest_ > 0) {
        painter.setPen(inks.quiet);
        painter.drawText(QRectF(0, height() - 20, left - 8, 20), Qt::AlignRight | Qt::AlignVCenter,
                         tr("and %1 in further folders").arg(shown(humanCount(rest_))));
    }
}

QString RibbonChart::valueAt(const QPointF& point) const {
    for (const auto& ribbon : layOut()) {
        const auto& flow = ribbons_[ribbon.ribbon];
        const bool atLeft = point.x() < leftEnd(width()) && std::abs(point.y() - ribbon.left) < 12;
        const bool atRight = point.x() > rightEnd(width()) && std::abs(point.y() - ribbon.right) < 12;
        if (atLeft || atRight) {
            return tr("%1 missing from %2\n%3")
                .arg(shown(humanCount(flow.count)), flow.from,
                     flow.to.isEmpty() ? tr("no other copy is known")
                                       : tr("the same bytes are in %1").arg(flow.to));
        }
    }
    return {};
}

} // namespace sober::app
