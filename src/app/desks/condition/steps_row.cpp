#include "app/desks/condition/steps_row.h"

#include "app/theme/marks.h"
#include "app/theme/theme.h"

#include <QFontMetrics>
#include <QPainter>

namespace sober::app {
namespace {

constexpr int markWidth = 20;
constexpr int stepGap = 14;
constexpr int stepHeight = 28;

} // namespace

StepsRow::StepsRow(QStringList steps, const QString& accessibleName, QWidget* parent)
    : QWidget(parent), steps_(std::move(steps)) {
    setAccessibleName(accessibleName);
    setDone(0);
}

void StepsRow::setDone(int count) {
    done_ = count;
    setAccessibleDescription(count > 0 ? steps_.mid(0, count).join(QStringLiteral(", ")) : tr("not begun"));
    update();
}

QSize StepsRow::sizeHint() const {
    const QFontMetrics metrics(Theme::strong());
    int wide = 0;
    for (const auto& step : steps_) {
        wide += markWidth + metrics.horizontalAdvance(step) + stepGap;
    }
    return {wide, stepHeight};
}

void StepsRow::paintEvent(QPaintEvent* /*event*/) {
    QPainter painter(this);
    painter.setRenderHint(QPainter::Antialiasing);
    const auto& inks = Theme::inks();
    const QFontMetrics metrics(Theme::strong());
    int left = 0;
    for (int i = 0; i < steps_.size(); ++i) {
        const bool isDone = i < done_;
        if (isDone) {
            paintMark(painter, QRectF(left, 0, markWidth - 4, height()), Mark::sound);
        }
        const int wide = metrics.horizontalAdvance(steps_[i]);
        painter.setFont(isDone ? Theme::strong() : Theme::text());
        painter.setPen(isDone ? inks.ink : inks.quiet);
        painter.drawText(QRect(left + markWidth, 0, wide + 4, height()), Qt::AlignLeft | Qt::AlignVCenter,
                         steps_[i]);
        left += markWidth + wide + stepGap;
    }
}

} // namespace sober::app
