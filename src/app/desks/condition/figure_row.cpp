#include "app/desks/condition/figure_row.h"

#include "app/theme/theme.h"

#include <QHelpEvent>
#include <QPainter>
#include <QToolTip>

#include <algorithm>
#include <cmath>

namespace sober::app {
namespace {

constexpr int heightOfFigures = 56;
constexpr double beside = 26; ///< pixels around a figure

} // namespace

FigureRow::FigureRow(QWidget* parent) : QWidget(parent) {
    setSizePolicy(QSizePolicy::Preferred, QSizePolicy::Fixed);
}

void FigureRow::setFigures(std::vector<Figure> figures) {
    figures_ = std::move(figures);
    QStringList words;
    QStringList meanings;
    for (const auto& figure : figures_) {
        words << figure.value + QLatin1Char(' ') + figure.word;
        meanings << figure.word + QStringLiteral(": ") + figure.meaning;
    }
    setAccessibleName(words.join(QStringLiteral(", ")));
    setAccessibleDescription(meanings.join(QLatin1Char('\n')));
    updateGeometry();
    update();
}

double FigureRow::widthOf(std::size_t figure) const {
    return beside + std::max(QFontMetricsF(Theme::text(20)).horizontalAdvance(figures_[figure].value),
                             QFontMetricsF(Theme::text(12)).horizontalAdvance(figures_[figure].word));
}

std::vector<std::size_t> FigureRow::linesIn(double width) const {
    std::vector<std::size_t> lines{0};
    double used = 0;
    for (std::size_t i = 0; i < figures_.size(); ++i) {
        if (lines.back() > 0 && used + widthOf(i) > width) {
            lines.push_back(0);
            used = 0;
        }
        ++lines.back();
        used += widthOf(i);
    }
    return lines;
}

QSize FigureRow::sizeHint() const {
    double width = 0;
    for (std::size_t i = 0; i < figures_.size(); ++i) {
        width += widthOf(i);
    }
    return {static_cast<int>(width), minimumSizeHint().height()};
}

QSize FigureRow::minimumSizeHint() const {
    return {200, heightIn(std::max(200, width()))};
}

int FigureRow::heightIn(int width) const {
    return heightOfFigures * static_cast<int>(linesIn(width).size());
}

void FigureRow::resizeEvent(QResizeEvent* event) {
    QWidget::resizeEvent(event);
    updateGeometry();
}

std::vector<QRectF> FigureRow::places() const {
    std::vector<QRectF> places;
    std::size_t first = 0;
    double top = 0;
    for (const auto inLine : linesIn(width())) {
        double needed = 0;
        for (std::size_t i = first; i < first + inLine; ++i) {
            needed += widthOf(i);
        }
        // Each has what it needs and its share of the rest.
        const double rest = inLine > 0 ? std::max(0.0, (width() - needed) / static_cast<double>(inLine)) : 0;
        double left = 0;
        for (std::size_t i = first; i < first + inLine; ++i) {
            places.emplace_back(left, top, widthOf(i) + rest, heightOfFigures);
            left += widthOf(i) + rest;
        }
        first += inLine;
        top += heightOfFigures;
    }
    return places;
}

bool FigureRow::event(QEvent* event) {
    if (event->type() != QEvent::ToolTip) {
        return QWidget::event(event);
    }
    const auto* help = static_cast<QHelpEvent*>(event);
    const auto all = places();
    const auto at =
        std::ranges::find_if(all, [&](const QRectF& place) { return place.contains(help->pos()); });
    QToolTip::showText(
        help->globalPos(),
        at != all.end() ? figures_[static_cast<std::size_t>(at - all.begin())].meaning : QString(), this);
    return true;
}

void FigureRow::paintEvent(QPaintEvent* /*event*/) {
    QPainter painter(this);
    const auto& inks = Theme::inks();
    const auto all = places();
    for (std::size_t i = 0; i < all.size(); ++i) {
        const bool isFirst = all[i].left() == 0;
        if (!isFirst) {
            painter.setPen(QPen(inks.rule, 1));
            painter.drawLine(all[i].topLeft() + QPointF(0, 6), all[i].bottomLeft() - QPointF(0, 6));
        }
        const QRectF room = all[i].adjusted(isFirst ? 0 : 14, 4, -4, -24);
        const auto draw = [&](const QRectF& place, const QString& text) {
            painter.drawText(place, Qt::AlignLeft | Qt::AlignVCenter,
                             painter.fontMetrics().elidedText(text, Qt::ElideRight,
                                                              static_cast<int>(std::ceil(place.width()))));
        };
        painter.setPen(inks.ink);
        painter.setFont(Theme::text(20));
        draw(room, figures_[i].value);
        painter.setPen(inks.quiet);
        painter.setFont(Theme::text(12));
        draw(room.translated(0, 26), figures_[i].word);
    }
}

} // namespace sober::app
