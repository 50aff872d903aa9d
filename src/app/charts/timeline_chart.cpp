#include "app/charts/timeline_chart.h"

#include "app/desks/ledger/ledger_words.h"
#include "app/theme/theme.h"
#include "app/words.h"

#include <QMouseEvent>
#include <QPainter>

#include <algorithm>
#include <cmath>

namespace sober::app {
namespace {

constexpr double margin = 28;
constexpr double line = 68;
constexpr double tallest = 44;

} // namespace

TimelineChart::TimelineChart(QWidget* parent)
    : Chart(tr("The ledger's entries on a line of time"), 128, parent) {
    letKeysPoint();
}

void TimelineChart::setEntries(std::vector<LedgerEntry> entries) {
    std::ranges::reverse(entries);
    entries_ = std::move(entries);
    update();
}

void TimelineChart::setCurrent(EntryId entry) {
    current_ = entry;
    update();
}

/// Entries keep their order and at least some pixels between them: half of the room is shared out by
/// time, half by order, so that a busy hour stays readable beside a quiet year.
std::vector<TimelineChart::Spot> TimelineChart::layOut() const {
    std::vector<Spot> spots;
    if (entries_.empty()) {
        return spots;
    }
    const auto first = entries_.front().time;
    const auto span = static_cast<double>(std::max<Nanoseconds>(entries_.back().time - first, 1));
    const double room = width() - 2 * margin;
    std::uint64_t most = 1;
    for (const auto& entry : entries_) {
        most = std::max(most, entry.actions);
    }
    for (std::size_t i = 0; i < entries_.size(); ++i) {
        const double byOrder =
            entries_.size() == 1 ? 0.5 : static_cast<double>(i) / static_cast<double>(entries_.size() - 1);
        const double byTime = static_cast<double>(entries_[i].time - first) / span;
        const auto& entry = entries_[i];
        const bool deed = isDeed(entry);
        const double height = deed ? 12 + (tallest - 12) * std::sqrt(static_cast<double>(entry.actions) /
                                                                     static_cast<double>(most))
                                   : -12;
        spots.push_back(
            {i, margin + room * (entries_.size() == 1 ? 0.5 : 0.5 * byOrder + 0.5 * byTime), height});
    }
    return spots;
}

void TimelineChart::draw(QPainter& painter) {
    const auto& inks = Theme::inks();
    painter.setRenderHint(QPainter::Antialiasing);
    painter.setPen(QPen(inks.rule, 1));
    if (!entries_.empty()) {
        painter.drawLine(QPointF(0, line), QPointF(width(), line));
    }
    painter.setPen(inks.quiet);
    if (entries_.empty()) {
        painter.drawText(rect(), Qt::AlignCenter, tr("Nothing has been observed or done yet."));
        return;
    }
    painter.drawText(QPointF(0, 14), tr("carried out"));
    painter.drawText(QPointF(0, line + 30), tr("observed"));
    const auto spots = layOut();
    for (const auto& spot : spots) {
        const auto& entry = entries_[spot.entry];
        const QPointF head(spot.x, line - spot.height);
        const QColor ink = !isDeed(entry) ? inks.quiet : entry.kind == "undo" ? inks.moved : inks.accent;
        if (entry.undoes) {
            const auto undone = std::ranges::find_if(
                spots, [&](const Spot& other) { return entries_[other.entry].id == *entry.undoes; });
            if (undone != spots.end()) {
                painter.setPen(QPen(inks.moved, 1, Qt::DotLine));
                painter.drawLine(head, QPointF(undone->x, line - undone->height));
            }
        }
        painter.setPen(QPen(ink, entry.id == current_ ? 2.5 : 1.4));
        painter.drawLine(QPointF(spot.x, line), head);
        painter.setBrush(wasTakenBack(entry) || entry.kind == "undo" ? inks.paper : ink);
        painter.drawEllipse(head, entry.id == current_ ? 6 : 4.5, entry.id == current_ ? 6 : 4.5);
    }
    painter.setPen(inks.quiet);
    const QRectF axis(0, height() - 20, width(), 20);
    painter.drawText(axis, Qt::AlignLeft | Qt::AlignVCenter, told(localMinute(entries_.front().time)));
    if (entries_.size() > 1) {
        painter.drawText(axis, Qt::AlignRight | Qt::AlignVCenter, told(localMinute(entries_.back().time)));
    }
}

const TimelineChart::Spot* TimelineChart::nearest(const std::vector<Spot>& spots,
                                                  const QPointF& point) const {
    const Spot* best = nullptr;
    double bestDistance = 12;
    for (const auto& spot : spots) {
        const double distance = QLineF(point, QPointF(spot.x, line - spot.height)).length();
        if (distance < bestDistance) {
            best = &spot;
            bestDistance = distance;
        }
    }
    return best;
}

QString TimelineChart::valueAt(const QPointF& point) const {
    const auto spots = layOut();
    const auto* spot = nearest(spots, point);
    if (spot == nullptr) {
        return {};
    }
    const auto& entry = entries_[spot->entry];
    return QStringLiteral("%1\n%2").arg(told(localMinute(entry.time)), entryText(entry));
}

void TimelineChart::mousePressEvent(QMouseEvent* event) {
    const auto spots = layOut();
    if (const auto* spot = nearest(spots, event->position())) {
        emit entryChosen(entries_[spot->entry].id);
    }
}

} // namespace sober::app
