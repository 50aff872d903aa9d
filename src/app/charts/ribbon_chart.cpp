#include "app/charts/ribbon_chart.h"

#include "app/theme/marks.h"
#include "app/theme/theme.h"
#include "app/words.h"

#include <QMouseEvent>
#include <QPainter>
#include <QPainterPath>
#include <QRegularExpression>

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

RibbonChart::RibbonChart(Words words, QWidget* parent)
    : Chart(words.name, 80, parent), words_(std::move(words)) {
    letKeysPoint();
}

void RibbonChart::setChosen(int ribbon) {
    chosen_ = ribbon;
    update();
}

int RibbonChart::ribbonAt(const QPointF& point) const {
    for (const auto& ribbon : layOut()) {
        const bool atLeft =
            point.x() < (leftEnd(width()) + rightEnd(width())) / 2 && std::abs(point.y() - ribbon.left) < 13;
        const bool atRight = point.x() >= (leftEnd(width()) + rightEnd(width())) / 2 &&
                             std::abs(point.y() - ribbon.right) < 13;
        if (atLeft || atRight) {
            return static_cast<int>(ribbon.ribbon);
        }
    }
    return -1;
}

void RibbonChart::mousePressEvent(QMouseEvent* event) {
    emit ribbonClicked(ribbonAt(event->position()));
}

void RibbonChart::setRibbons(std::vector<Ribbon> ribbons) {
    rest_ = 0;
    for (std::size_t i = mostRibbons; i < ribbons.size(); ++i) {
        rest_ += ribbons[i].count;
    }
    ribbons.resize(std::min(ribbons.size(), mostRibbons));
    // The choice stays with its ribbon.
    const auto at = static_cast<std::size_t>(std::max(chosen_, 0));
    const bool stays = chosen_ >= 0 && at < ribbons.size() && ribbons[at].from == ribbons_[at].from &&
                       ribbons[at].to == ribbons_[at].to;
    chosen_ = stays ? chosen_ : -1;
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
        const auto [target, isNew] = targets.emplace(
            ribbons_[i].to + (ribbons_[i].isOpen ? QStringLiteral("\n") : QString()), targetAt);
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
        painter.drawText(rect(), Qt::AlignCenter, words_.none);
        return;
    }
    const double left = leftEnd(width());
    const double right = rightEnd(width());
    painter.drawText(QRectF(0, 0, left - 8, 20), Qt::AlignRight | Qt::AlignVCenter, words_.left);
    painter.drawText(QRectF(right + 8, 0, width() - right - 8, 20), Qt::AlignLeft | Qt::AlignVCenter,
                     words_.right);
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
        path.closeSubpath();
        const bool isChosen = static_cast<int>(ribbon.ribbon) == chosen_;
        if (!flow.isOff) {
            painter.fillPath(path, fill);
        }
        if (flow.isOff || isChosen) {
            painter.setPen(QPen(flow.isOff ? inks.quiet : inks.accent, isChosen ? 2 : 1,
                                flow.isOff ? Qt::DashLine : Qt::SolidLine));
            painter.drawPath(path);
        }
        painter.setPen(flow.isOff ? inks.quiet : inks.ink);
        drawCut(painter, QRectF(0, ribbon.left - 10, left - 8, 20), Qt::AlignRight | Qt::AlignVCenter,
                QStringLiteral("%1   %2").arg(flow.from, told(humanCount(flow.count))), Qt::ElideMiddle);
        painter.setPen(flow.isOff ? inks.quiet : found ? inks.ink : inks.missing);
        paintMark(painter, QRectF(right + 6, ribbon.right - 10, 20, 20),
                  flow.isOpen ? Mark::doubtful
                  : found     ? Mark::moved
                              : Mark::missing);
        drawCut(painter, QRectF(right + 28, ribbon.right - 10, width() - right - 28, 20),
                Qt::AlignLeft | Qt::AlignVCenter, found ? flow.to : words_.nowhere, Qt::ElideMiddle);
    }
    if (rest_ > 0) {
        painter.setPen(inks.quiet);
        painter.drawText(QRectF(0, height() - 20, left - 8, 20), Qt::AlignRight | Qt::AlignVCenter,
                         tr("and %1 in further folders").arg(told(humanCount(rest_))));
    }
}

QString RibbonChart::valueAt(const QPointF& point) const {
    const int at = ribbonAt(point);
    if (at < 0) {
        return {};
    }
    const auto& flow = ribbons_[static_cast<std::size_t>(at)];
    const QStringList lines{
        words_.counted.arg(told(humanCount(flow.count)), flow.from),
        flow.to.isEmpty() ? words_.nowhere : QStringLiteral("%1 %2").arg(words_.right, flow.to), flow.note};
    return lines.filter(QRegularExpression(QStringLiteral("."))).join(QLatin1Char('\n'));
}

} // namespace sober::app
