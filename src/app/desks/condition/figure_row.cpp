#include "app/desks/condition/figure_row.h"

#include "app/theme/theme.h"

#include <QPainter>

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
    const double wide = static_cast<double>(width()) / static_cast<double>(figures_.size());
    for (std::size_t i = 0; i < figures_.size(); ++i) {
        const double left = wide * static_cast<double>(i);
        if (i > 0) {
            painter.setPen(QPen(inks.rule, 1));
            painter.drawLine(QPointF(left, 6), QPointF(left, height() - 6));
        }
        const QRectF room(left + (i > 0 ? 14 : 0), 4, wide - 18, 28);
        painter.setPen(inks.ink);
        painter.setFont(Theme::text(20));
        painter.drawText(room, Qt::AlignLeft | Qt::AlignVCenter, figures_[i].value);
        painter.setPen(inks.quiet);
        painter.setFont(Theme::text(12));
        painter.drawText(room.translated(0, 26), Qt::AlignLeft | Qt::AlignVCenter, figures_[i].word);
    }
}

} // namespace sober::app
