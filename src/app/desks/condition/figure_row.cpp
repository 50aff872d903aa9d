#include "app/desks/condition/figure_row.h"

#include "app/theme/theme.h"

#include <QPainter>

#include <numeric>

namespace sober::app {

FigureRow::FigureRow(QWidget* parent) : QWidget(parent) {
    setFixedHeight(56);
}

void FigureRow::setFigures(std::vector<Figure> figures) {
    figures_ = std::move(figures);
    QStringList words;
    for (const auto& figure : figures_) {
        words << figure.value + QLatin1Char(' ') + figure.word;
    }
    setAccessibleName(words.join(QStringLiteral(", ")));
    update();
}

void FigureRow::paintEvent(QPaintEvent* /*event*/) {
    if (figures_.empty()) {
        return;
    }
    QPainter painter(this);
    const auto& inks = Theme::inks();
    // Each has what it needs and its share of the rest; where that is not there, all are narrowed alike.
    constexpr double beside = 26;
    std::vector<double> wide;
    for (const auto& figure : figures_) {
        wide.push_back(beside + std::max(QFontMetricsF(Theme::text(20)).horizontalAdvance(figure.value),
                                         QFontMetricsF(Theme::text(12)).horizontalAdvance(figure.word)));
    }
    const double needed = std::accumulate(wide.begin(), wide.end(), 0.0);
    const double rest = (width() - needed) / static_cast<double>(figures_.size());
    double left = 0;
    for (std::size_t i = 0; i < figures_.size(); left += wide[i] + rest, ++i) {
        const auto cut = [&](const QString& text, double room) {
            return painter.fontMetrics().elidedText(text, Qt::ElideRight, static_cast<int>(room));
        };
        if (i > 0) {
            painter.setPen(QPen(inks.rule, 1));
            painter.drawLine(QPointF(left, 6), QPointF(left, height() - 6));
        }
        const QRectF room(left + (i > 0 ? 14 : 0), 4, wide[i] + rest - (i > 0 ? 18 : 4), 28);
        painter.setPen(inks.ink);
        painter.setFont(Theme::text(20));
        painter.drawText(room, Qt::AlignLeft | Qt::AlignVCenter, cut(figures_[i].value, room.width()));
        painter.setPen(inks.quiet);
        painter.setFont(Theme::text(12));
        painter.drawText(room.translated(0, 26), Qt::AlignLeft | Qt::AlignVCenter,
                         cut(figures_[i].word, room.width()));
    }
}

} // namespace sober::app
