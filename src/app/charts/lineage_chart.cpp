#include "app/charts/lineage_chart.h"

#include "app/desks/copies/set_words.h"
#include "app/theme/marks.h"
#include "app/theme/theme.h"
#include "app/words.h"

#include <QMouseEvent>
#include <QPainter>
#include <QPainterPath>

#include <algorithm>

namespace sober::app {
namespace {

constexpr double spotReach = 10;
constexpr double step = 30; ///< pixels from one generation to the next
constexpr double nameWidth = 150;
constexpr std::size_t mostRows = 9;

} // namespace

LineageChart::LineageChart(QWidget* parent)
    : Chart(tr("Which member of the copy set is made from which"), 208, parent) {
    letKeysPoint();
}

void LineageChart::setDetail(std::optional<SetDetail> detail) {
    detail_ = std::move(detail);
    layOut();
    update();
}

void LineageChart::setCurrent(HoldingId holding) {
    current_ = holding;
    update();
}

/// Depth first, so that what hangs on a member stands right below it.
void LineageChart::layOut() {
    rows_.clear();
    if (!detail_) {
        return;
    }
    const auto keeper = std::ranges::find(detail_->advice, Advice::keep, &MemberAdvice::advice);
    const auto preferred =
        keeper != detail_->advice.end() ? static_cast<std::size_t>(keeper - detail_->advice.begin()) : 0;
    const auto tree = lineageOf(detail_->members, detail_->known, preferred);
    std::vector<Node> nodes;
    std::vector<std::size_t> nodeOf(detail_->members.size(), 0);
    for (const auto& descent : tree) {
        if (descent.from && descent.sameness == Sameness::bytes) {
            nodeOf[descent.member] = nodeOf[*descent.from];
            nodes[nodeOf[descent.member]].alike.push_back(descent.member);
            continue;
        }
        nodeOf[descent.member] = nodes.size();
        nodes.push_back({descent, {descent.member}, 0, 0});
    }
    const auto hang = [&](const auto& self, std::size_t node, std::size_t depth, std::size_t parent) -> void {
        const std::size_t row = rows_.size();
        rows_.push_back(nodes[node]);
        rows_.back().depth = depth;
        rows_.back().parent = depth == 0 ? row : parent;
        for (std::size_t other = 0; other < nodes.size(); ++other) {
            if (other != node && nodes[other].descent.from && nodeOf[*nodes[other].descent.from] == node) {
                self(self, other, depth + 1, row);
            }
        }
    };
    for (std::size_t node = 0; node < nodes.size(); ++node) {
        if (!nodes[node].descent.from) {
            hang(hang, node, 0, 0);
        }
    }
}

double LineageChart::rowHeight() const {
    const auto shownRows = std::min(rows_.size(), mostRows) + (rows_.size() > mostRows ? 1 : 0);
    return std::min(28.0, height() / static_cast<double>(std::max<std::size_t>(shownRows, 1)));
}

QPointF LineageChart::centreOf(std::size_t row) const {
    return {spotReach + 4 + step * static_cast<double>(rows_[row].depth),
            rowHeight() * (static_cast<double>(row) + 0.5)};
}

std::optional<std::size_t> LineageChart::rowAt(const QPointF& point) const {
    const auto row = static_cast<std::size_t>(std::max(0.0, point.y()) / rowHeight());
    return row < std::min(rows_.size(), mostRows) ? std::optional(row) : std::nullopt;
}

void LineageChart::draw(QPainter& painter) {
    const auto& inks = Theme::inks();
    painter.setRenderHint(QPainter::Antialiasing);
    const std::size_t shownRows = std::min(rows_.size(), mostRows);
    for (std::size_t row = 0; row < shownRows; ++row) {
        const auto& node = rows_[row];
        if (node.depth == 0) {
            continue;
        }
        const auto from = centreOf(node.parent);
        const auto to = centreOf(row);
        QPainterPath path(from + QPointF(0, spotReach));
        path.lineTo(from.x(), to.y() - 6);
        path.quadTo(QPointF(from.x(), to.y()), QPointF(from.x() + 6, to.y()));
        path.lineTo(to.x() - spotReach, to.y());
        const bool weak = node.descent.sameness >= Sameness::otherMaster;
        painter.setPen(QPen(weak ? inks.quiet : inks.accent, node.descent.told ? 2 : 1,
                            weak ? Qt::DashLine : Qt::SolidLine));
        painter.setBrush(Qt::NoBrush);
        painter.drawPath(path);
    }
    for (std::size_t row = 0; row < shownRows; ++row) {
        const auto& node = rows_[row];
        const auto& member = detail_->members[node.descent.member];
        const bool current = std::ranges::any_of(
            node.alike, [&](std::size_t at) { return detail_->members[at].id == current_; });
        const auto centre = centreOf(row);
        const QRectF box(centre.x() - spotReach, centre.y() - spotReach, 2 * spotReach, 2 * spotReach);
        if (current) {
            painter.fillRect(QRectF(box.left() - 2, centre.y() - rowHeight() / 2 + 1,
                                    width() - box.left() + 2, rowHeight() - 2),
                             inks.wash);
        }
        painter.setPen(Qt::NoPen);
        painter.setBrush(current ? inks.wash : inks.paper);
        painter.drawEllipse(box);
        paintMark(painter, box, markFor(*detail_, node.descent.member));
        const double left = box.right() + 6;
        painter.setFont(Theme::text(12));
        painter.setPen(inks.ink);
        QString name = shownPath(BytePath(nameOf(member.path)));
        if (node.alike.size() > 1) {
            name += tr(" × %1").arg(node.alike.size());
        }
        const double line = painter.fontMetrics().height();
        drawCut(painter, QRectF(left, centre.y() - line / 2, nameWidth, line), Qt::AlignVCenter, name,
                Qt::ElideMiddle);
        painter.setPen(inks.quiet);
        const double words = std::max(left + nameWidth + 8, spotReach * 2 + 4 + 2 * step + nameWidth + 8);
        drawCut(painter, QRectF(words, centre.y() - line / 2, width() - words - 4, line), Qt::AlignVCenter,
                told(node.descent.words));
    }
    if (rows_.size() > mostRows) {
        painter.setPen(inks.quiet);
        painter.drawText(QRectF(spotReach, rowHeight() * static_cast<double>(mostRows), width(), rowHeight()),
                         Qt::AlignVCenter, tr("and %1 more, listed below").arg(rows_.size() - mostRows));
    }
}

QString LineageChart::valueAt(const QPointF& point) const {
    const auto row = rowAt(point);
    if (!row) {
        return {};
    }
    const auto& node = rows_[*row];
    QStringList lines;
    for (const auto member : node.alike) {
        lines << shownPath(detail_->members[member].path);
    }
    lines << told(node.descent.words);
    if (node.descent.from) {
        lines << told(samenessWords(node.descent.sameness)) +
                     (node.descent.told ? tr("; its own evidence names this source") : QString());
    }
    return lines.join(QLatin1Char('\n'));
}

void LineageChart::mousePressEvent(QMouseEvent* event) {
    if (const auto row = rowAt(event->position())) {
        emit memberChosen(detail_->members[rows_[*row].descent.member].id);
    }
}

} // namespace sober::app
