#include "app/charts/set_chart.h"

#include "app/desks/copies/set_words.h"
#include "app/theme/marks.h"
#include "app/theme/theme.h"
#include "app/words.h"

#include <QMouseEvent>
#include <QPainter>

#include <algorithm>
#include <numeric>

namespace sober::app {
namespace {

constexpr double labelWidth = 128;
constexpr double axisHeight = 22;
constexpr double spotReach = 11;
constexpr double nameWidth = 220;

bool isSameFile(const Holding& a, const Holding& b) {
    return a.links > 1 && a.volume == b.volume && a.inode == b.inode;
}

} // namespace

SetChart::SetChart(QWidget* parent)
    : Chart(tr("The members of the copy set by volume and time"), 148, parent) {
    letKeysPoint();
}

void SetChart::setDetail(std::optional<SetDetail> detail, std::vector<Volume> volumes) {
    detail_ = std::move(detail);
    volumes_ = std::move(volumes);
    update();
}

void SetChart::setCurrent(HoldingId holding) {
    current_ = holding;
    update();
}

std::vector<const Volume*> SetChart::lanes() const {
    std::vector<const Volume*> used;
    if (!detail_) {
        return used;
    }
    for (const auto& volume : volumes_) {
        if (std::ranges::any_of(detail_->members,
                                [&](const Holding& member) { return member.volume == volume.id; })) {
            used.push_back(&volume);
        }
    }
    return used;
}

/// Members in order of time; one whose label would run into an earlier one of its volume takes a row
/// of its own below, so that a volume's lane is as high as it has rows.
SetChart::Layout SetChart::layOut() const {
    Layout layout;
    if (!detail_ || detail_->members.empty()) {
        return layout;
    }
    const auto used = lanes();
    const auto [first, last] = std::ranges::minmax_element(detail_->members, {}, &Holding::mtime);
    const auto span = static_cast<double>(std::max<Nanoseconds>(last->mtime - first->mtime, 1));
    const double room = width() - labelWidth - spotReach * 3 - nameWidth;
    std::vector<std::size_t> order(detail_->members.size());
    std::iota(order.begin(), order.end(), std::size_t{0});
    std::ranges::stable_sort(order, {}, [&](std::size_t i) { return detail_->members[i].mtime; });
    std::vector<std::vector<double>> rowEnds(used.size());
    for (const auto i : order) {
        const auto& member = detail_->members[i];
        const auto lane =
            std::ranges::find(used, member.volume, [](const Volume* volume) { return volume->id; });
        if (lane == used.end()) {
            continue;
        }
        const auto at = static_cast<std::size_t>(lane - used.begin());
        const double x =
            labelWidth + spotReach * 2 + room * static_cast<double>(member.mtime - first->mtime) / span;
        auto& ends = rowEnds[at];
        auto row = std::ranges::find_if(ends, [&](double end) { return end < x - spotReach; });
        if (row == ends.end()) {
            row = ends.insert(ends.end(), 0);
        }
        *row = x + spotReach + nameWidth;
        layout.spots.push_back({i, QPointF(x, 0), at, static_cast<std::size_t>(row - ends.begin())});
    }
    std::size_t rows = 0;
    for (const auto& ends : rowEnds) {
        layout.laneStart.push_back(rows);
        rows += std::max<std::size_t>(ends.size(), 1);
    }
    layout.laneStart.push_back(rows);
    layout.rowHeight = (height() - axisHeight) / static_cast<double>(std::max<std::size_t>(rows, 1));
    for (auto& spot : layout.spots) {
        spot.centre.setY(layout.rowHeight *
                         (static_cast<double>(layout.laneStart[spot.lane] + spot.row) + 0.5));
    }
    return layout;
}

void SetChart::draw(QPainter& painter) {
    const auto& inks = Theme::inks();
    painter.setRenderHint(QPainter::Antialiasing);
    if (!detail_ || detail_->members.empty()) {
        painter.setPen(inks.quiet);
        painter.drawText(rect(), Qt::AlignCenter, tr("Choose a set below to see where its copies lie."));
        return;
    }
    const auto used = lanes();
    const auto layout = layOut();
    for (std::size_t lane = 0; lane < used.size(); ++lane) {
        const double top = layout.rowHeight * static_cast<double>(layout.laneStart[lane]);
        const double laneHeight = layout.rowHeight * static_cast<double>(layout.laneStart[lane + 1]) - top;
        painter.setPen(QPen(inks.rule, 1));
        if (lane > 0) {
            painter.drawLine(QPointF(0, top), QPointF(width(), top));
        }
        painter.setFont(Theme::strong(12));
        painter.setPen(used[lane]->atHand ? inks.ink : inks.quiet);
        drawCut(painter, QRectF(0, top, labelWidth - 8, laneHeight), Qt::AlignLeft | Qt::AlignVCenter,
                shown(used[lane]->label) + (used[lane]->atHand ? QString() : tr(" (away)")));
    }
    const auto& spots = layout.spots;
    painter.setFont(Theme::text(12));
    const auto keeper = std::ranges::find_if(
        spots, [&](const Spot& spot) { return markFor(*detail_, spot.member) == Mark::keep; });
    for (const auto& spot : spots) {
        if (keeper == spots.end() || spot.member == keeper->member) {
            continue;
        }
        painter.setPen(QPen(inks.accent, 1, Qt::SolidLine));
        if (isSameFile(detail_->members[spot.member], detail_->members[keeper->member])) {
            const QPointF apart(1.5, 1.5);
            painter.drawLine(keeper->centre - apart, spot.centre - apart);
            painter.drawLine(keeper->centre + apart, spot.centre + apart);
        } else {
            painter.drawLine(keeper->centre, spot.centre);
        }
    }
    for (const auto& spot : spots) {
        const auto& member = detail_->members[spot.member];
        const QRectF box(spot.centre.x() - spotReach, spot.centre.y() - spotReach, 2 * spotReach,
                         2 * spotReach);
        painter.setPen(Qt::NoPen);
        painter.setBrush(member.id == current_ ? inks.wash : inks.paper);
        painter.drawEllipse(box);
        paintMark(painter, box, markFor(*detail_, spot.member));
        painter.setPen(member.id == current_ ? inks.ink : inks.quiet);
        const QRectF room(box.right() + 2, spot.centre.y() - 10, nameWidth - 8, 20);
        const QString name =
            shownPath(BytePath(nameOf(member.path))) + (member.links > 1 ? tr(" · hard link") : QString());
        const double wide = std::min<double>(room.width(), painter.fontMetrics().horizontalAdvance(name));
        painter.fillRect(QRectF(box.right() - 1, room.top() + 2, wide + 3, 16), inks.paper);
        drawCut(painter, room, Qt::AlignLeft | Qt::AlignVCenter, name, Qt::ElideMiddle);
    }
    const auto [first, last] = std::ranges::minmax_element(detail_->members, {}, &Holding::mtime);
    painter.setPen(inks.quiet);
    const QRectF axis(labelWidth, height() - axisHeight, width() - labelWidth - nameWidth, axisHeight);
    painter.drawText(axis, Qt::AlignLeft | Qt::AlignVCenter,
                     tr("written %1").arg(told(localMinute(first->mtime))));
    if (last->mtime != first->mtime) {
        painter.drawText(axis, Qt::AlignRight | Qt::AlignVCenter, told(localMinute(last->mtime)));
    }
}

QString SetChart::valueAt(const QPointF& point) const {
    for (const auto& spot : layOut().spots) {
        if (QLineF(spot.centre, point).length() <= spotReach) {
            const auto& member = detail_->members[spot.member];
            return shownPath(member.path) + QStringLiteral("\n") + wordFor(markFor(*detail_, spot.member)) +
                   QStringLiteral("\n") + tr("written %1").arg(told(localMinute(member.mtime)));
        }
    }
    return {};
}

void SetChart::mousePressEvent(QMouseEvent* event) {
    for (const auto& spot : layOut().spots) {
        if (QLineF(spot.centre, event->position()).length() <= spotReach) {
            emit memberChosen(detail_->members[spot.member].id);
        }
    }
}

} // namespace sober::app
