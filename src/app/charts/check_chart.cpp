#include "app/charts/check_chart.h"

#include "app/theme/marks.h"
#include "app/theme/theme.h"
#include "app/words.h"

#include <QPainter>

#include <algorithm>

namespace sober::app {
namespace {

constexpr int weeks = 26;
constexpr Nanoseconds week = 7LL * 86'400 * 1'000'000'000;
constexpr double names = 92;
constexpr double words = 190; // pixels at the right
constexpr double axis = 20;
constexpr std::size_t volumesShown = 5;

} // namespace

CheckChart::CheckChart(QWidget* parent) : Chart(tr("Verifications of each volume by weeks"), 190, parent) {}

void CheckChart::setRows(std::vector<Row> rows, Nanoseconds now) {
    rows_ = std::move(rows);
    rows_.resize(std::min(rows_.size(), volumesShown));
    now_ = now;
    update();
}

double CheckChart::xOf(Nanoseconds time) const {
    const double share = static_cast<double>(now_ - time) / static_cast<double>(weeks * week);
    return names + (width() - names - words) * (1 - share);
}

QRectF CheckChart::rowRoom(std::size_t row) const {
    const double tall = (height() - axis) / static_cast<double>(std::max<std::size_t>(rows_.size(), 3));
    return {0, tall * static_cast<double>(row), static_cast<double>(width()), tall};
}

void CheckChart::draw(QPainter& painter) {
    const auto& inks = Theme::inks();
    painter.setRenderHint(QPainter::Antialiasing);
    if (rows_.empty()) {
        painter.setPen(inks.quiet);
        painter.drawText(rect(), Qt::AlignCenter,
                         tr("No volume yet: survey one, and its baseline is recorded."));
        return;
    }
    const double right = width() - words;
    // As many weeks are named as have room.
    const double asWide = painter.fontMetrics().horizontalAdvance(tr("%1 weeks ago").arg(weeks)) + 10;
    const int everyWeeks = asWide > (right - names) * 4 / weeks ? 8 : 4;
    for (int at = 0; at <= weeks; ++at) {
        const double x = names + (right - names) * at / weeks;
        painter.setPen(QPen(inks.rule, at % 4 == weeks % 4 ? 1 : 0.4));
        painter.drawLine(QPointF(x, 0), QPointF(x, height() - axis));
        if ((weeks - at) % everyWeeks == 0) {
            const int ago = weeks - at;
            painter.setPen(inks.quiet);
            painter.drawText(QRectF(x - 60, height() - axis + 2, 120, axis - 2),
                             Qt::AlignHCenter | Qt::AlignTop,
                             ago == 0 ? tr("now") : tr("%1 weeks ago").arg(ago));
        }
    }
    for (std::size_t at = 0; at < rows_.size(); ++at) {
        const auto& row = rows_[at];
        const auto room = rowRoom(at);
        painter.setFont(Theme::strong(12));
        painter.setPen(inks.ink);
        drawCut(painter, QRectF(0, room.top(), names - 8, room.height()), Qt::AlignVCenter | Qt::AlignLeft,
                row.volume);
        painter.setFont(Theme::text(12));
        painter.setPen(QPen(inks.rule, 1));
        painter.drawLine(QPointF(names, room.bottom()), QPointF(right, room.bottom()));
        for (const auto& check : row.checks) {
            const double x = xOf(check.began);
            if (x < names) {
                continue;
            }
            const double share =
                row.holdings == 0
                    ? 0
                    : std::min(1.0, static_cast<double>(check.checked) / static_cast<double>(row.holdings));
            painter.setPen(QPen(check.ended == 0 ? inks.quiet : inks.accent, 3));
            painter.drawLine(QPointF(x, room.bottom()),
                             QPointF(x, room.bottom() - (room.height() - 20) * share));
            const bool good = check.drifted == 0 && check.unreadable == 0;
            paintMark(painter, QRectF(x - 7, room.top() + 2, 14, 14), good ? Mark::sound : Mark::damaged);
        }
        painter.setPen(row.due > 0 ? inks.doubtful : inks.quiet);
        const QString last = row.checks.empty() ? tr("never verified")
                                                : tr("last %1").arg(told(localDay(row.checks.front().began)));
        painter.drawText(QRectF(right + 12, room.top(), words - 12, room.height()),
                         Qt::AlignVCenter | Qt::AlignLeft,
                         row.due > 0 ? tr("%1, %2 due").arg(last, told(humanCount(row.due))) : last);
    }
}

QString CheckChart::valueAt(const QPointF& point) const {
    for (std::size_t at = 0; at < rows_.size(); ++at) {
        if (!rowRoom(at).contains(point)) {
            continue;
        }
        for (const auto& check : rows_[at].checks) {
            if (std::abs(xOf(check.began) - point.x()) < 7) {
                return tr("%1, %2: %3 read (%4), %5 not as recorded, %6 not readable%7")
                    .arg(rows_[at].volume, told(localMinute(check.began)),
                         told(counted(check.checked, "holding")), told(humanBytes(check.bytes)),
                         told(humanCount(check.drifted)), told(humanCount(check.unreadable)),
                         check.ended == 0 ? tr("; stopped before its end") : QString());
            }
        }
    }
    return {};
}

} // namespace sober::app
