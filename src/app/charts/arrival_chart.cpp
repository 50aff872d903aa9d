#include "app/charts/arrival_chart.h"

#include "app/charts/axes.h"
#include "app/theme/theme.h"
#include "app/words.h"

#include <QMouseEvent>
#include <QPainter>

#include <algorithm>

namespace sober::app {
namespace {

constexpr double arrivalRow = 24;
constexpr int arrivalRows = 6;
constexpr double arrivalKey = 20;
constexpr double arrivalAxis = 22;
constexpr double arrivalNames = 260;
constexpr double arrivalAdvice = 190;
constexpr double highest = 24'000; // Hz
constexpr double pointSize = 5;    // radius

} // namespace

ArrivalChart::ArrivalChart(QString caption, QWidget* parent)
    : Chart(caption, static_cast<int>(arrivalKey + arrivalRow * arrivalRows + arrivalAxis), parent),
      caption_(std::move(caption)) {
    letKeysPoint();
}

void ArrivalChart::setRows(std::vector<Row> rows) {
    rows_ = std::move(rows);
    chosen_ = std::clamp(chosen_, 0, std::max(0, static_cast<int>(rows_.size()) - 1));
    update();
}

void ArrivalChart::setChosen(int row) {
    chosen_ = row;
    update();
}

QRectF ArrivalChart::plot() const {
    return {arrivalNames, arrivalKey, width() - arrivalNames - arrivalAdvice, arrivalRow * arrivalRows};
}

double ArrivalChart::xOf(double hertz) const {
    return plot().left() + plot().width() * std::clamp(hertz / highest, 0.0, 1.0);
}

int ArrivalChart::firstShown() const {
    const int last = std::max(0, static_cast<int>(rows_.size()) - arrivalRows);
    return std::clamp(chosen_ - arrivalRows / 2, 0, last);
}

int ArrivalChart::rowAt(const QPointF& point) const {
    const auto room = plot();
    const int row = firstShown() + static_cast<int>((point.y() - room.top()) / arrivalRow);
    return point.y() >= room.top() && point.y() < room.bottom() && row < static_cast<int>(rows_.size()) ? row
                                                                                                        : -1;
}

void ArrivalChart::draw(QPainter& painter) {
    const auto& inks = Theme::inks();
    const auto room = plot();
    painter.setPen(inks.quiet);
    painter.drawText(QRectF(0, 0, width(), arrivalKey), Qt::AlignLeft | Qt::AlignVCenter, caption_);
    painter.fillRect(room, inks.sheet);
    for (const int kilohertz : {0, 4, 8, 12, 16, 20, 24}) {
        drawBaseTick(painter, room, xOf(kilohertz * 1000.0), tr("%1 kHz").arg(kilohertz));
    }
    const int first = firstShown();
    for (int i = 0; i < arrivalRows && first + i < static_cast<int>(rows_.size()); ++i) {
        drawRow(painter, first + i, room.top() + i * arrivalRow);
    }
    painter.setPen(inks.rule);
    painter.setBrush(Qt::NoBrush);
    painter.drawRect(room.adjusted(0.5, 0.5, -0.5, -0.5));
}

void ArrivalChart::drawRow(QPainter& painter, int row, double top) const {
    const auto& inks = Theme::inks();
    const auto& each = rows_[static_cast<std::size_t>(row)];
    if (row == chosen_) {
        painter.fillRect(QRectF(0, top, width(), arrivalRow), inks.wash);
    }
    painter.setPen(inks.ink);
    drawCut(painter, QRectF(4, top, arrivalNames - 16, arrivalRow), Qt::AlignLeft | Qt::AlignVCenter,
            each.name, Qt::ElideMiddle);
    const double right = width() - arrivalAdvice + 8;
    paintMark(painter, QRectF(right, top + 4, 16, 16), each.mark);
    painter.setPen(inks.ink);
    drawCut(painter, QRectF(right + 22, top, arrivalAdvice - 34, arrivalRow),
            Qt::AlignLeft | Qt::AlignVCenter, each.advice);
    const double middle = top + arrivalRow / 2;
    if (each.arrival && each.held) {
        painter.setPen(QPen(inks.quiet, 1.5));
        painter.drawLine(QPointF(xOf(*each.arrival), middle), QPointF(xOf(*each.held), middle));
    }
    if (each.held) {
        painter.setPen(QPen(inks.ink, 1.5));
        painter.setBrush(inks.sheet);
        painter.drawEllipse(QPointF(xOf(*each.held), middle), pointSize + 1.5, pointSize + 1.5);
    }
    if (each.arrival) {
        painter.setPen(Qt::NoPen);
        painter.setBrush(inks.accent);
        painter.drawEllipse(QPointF(xOf(*each.arrival), middle), pointSize - 1, pointSize - 1);
    } else {
        painter.setPen(inks.quiet);
        painter.drawText(QRectF(plot().left() + 8, top, plot().width() - 16, arrivalRow),
                         Qt::AlignLeft | Qt::AlignVCenter,
                         each.without.isEmpty() ? tr("its bandwidth was not measured") : each.without);
    }
}

QString ArrivalChart::valueAt(const QPointF& point) const {
    const int row = rowAt(point);
    if (row < 0) {
        return {};
    }
    const auto& each = rows_[static_cast<std::size_t>(row)];
    const auto kilohertz = [](const std::optional<double>& hertz) {
        return hertz ? tr("%1 kHz").arg(figure(*hertz / 1000, 1)) : tr("not measured");
    };
    return tr("%1: %2; held: %3")
        .arg(each.name, kilohertz(each.arrival), each.isHeld ? kilohertz(each.held) : tr("nothing"));
}

void ArrivalChart::mousePressEvent(QMouseEvent* event) {
    if (const int row = rowAt(event->position()); row >= 0) {
        emit rowClicked(row);
    }
}

} // namespace sober::app
