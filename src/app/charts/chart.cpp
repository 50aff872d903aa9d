#include "app/charts/chart.h"

#include "app/charts/chart_accessible.h"
#include "app/theme/theme.h"

#include <QAccessible>
#include <QCoreApplication>
#include <QHash>
#include <QMouseEvent>
#include <QPainter>
#include <QToolTip>

#include <algorithm>

namespace sober::app {
namespace {

constexpr int finelyAcross = 6; // pixels from one look to the next
constexpr int finelyDown = 8;
constexpr int coarsely = 40;          // looks from side to side where nobody points by keys
constexpr std::size_t mostWords = 40; ///< values that are told

} // namespace

Chart::Chart(const QString& accessibleName, int height, QWidget* parent) : QWidget(parent) {
    tellOfCharts();
    setAccessibleName(accessibleName);
    setMouseTracking(true);
    setFixedHeight(height);
}

void Chart::letKeysPoint() {
    setFocusPolicy(Qt::TabFocus);
}

void Chart::paintEvent(QPaintEvent* /*event*/) {
    QPainter painter(this);
    // Time and frequency run from left to right in whatever direction the words are written.
    painter.setLayoutDirection(Qt::LeftToRight);
    painter.setFont(Theme::text(12));
    draw(painter);
    if (hasFocus() && focusPolicy() == Qt::TabFocus) {
        const auto& inks = Theme::inks();
        painter.setRenderHint(QPainter::Antialiasing, false);
        painter.setBrush(Qt::NoBrush);
        painter.setPen(QPen(inks.accent, 1));
        painter.drawRect(rect().adjusted(0, 0, -1, -1));
        if (!spots_.empty()) {
            painter.setRenderHint(QPainter::Antialiasing);
            painter.setPen(QPen(inks.paper, 4));
            painter.drawEllipse(spots_[pointed_].at, 7, 7);
            painter.setPen(QPen(inks.ink, 2));
            painter.drawEllipse(spots_[pointed_].at, 7, 7);
        }
    }
}

void Chart::mouseMoveEvent(QMouseEvent* event) {
    const QString value = valueAt(event->position());
    if (value.isEmpty()) {
        QToolTip::hideText();
    } else {
        QToolTip::showText(event->globalPosition().toPoint(), value, this);
    }
}

void Chart::leaveEvent(QEvent* /*event*/) {
    QToolTip::hideText();
}

void Chart::focusOutEvent(QFocusEvent* event) {
    spots_.clear();
    QToolTip::hideText();
    QWidget::focusOutEvent(event);
    update();
}

std::vector<Chart::Spot> Chart::spots() const {
    struct Met {
        QPointF sum;
        int times = 0;
        std::vector<QPointF> points;
    };
    std::vector<std::pair<QString, Met>> met;
    QHash<QString, std::size_t> known; // into `met`
    // Of points without number, each look at which may take long, some have to do.
    const bool isFine = focusPolicy() == Qt::TabFocus;
    const int across = isFine ? finelyAcross : std::max(finelyAcross, width() / coarsely);
    const int down = isFine ? finelyDown : std::max(finelyDown, 3 * height() / coarsely);
    for (int y = down / 2; y < height(); y += down) {
        for (int x = across / 2; x < width(); x += across) {
            const QPointF point(x, y);
            const auto value = valueAt(point);
            if (value.isEmpty()) {
                continue;
            }
            const auto place = known.constFind(value);
            if (place == known.cend()) {
                known.insert(value, met.size());
                met.emplace_back(value, Met{});
            }
            auto& said = met[place == known.cend() ? met.size() - 1 : *place].second;
            said.sum += point;
            ++said.times;
            said.points.push_back(point);
        }
    }
    std::vector<Spot> all;
    for (const auto& [value, place] : met) {
        // Of the points that say so the one nearest to their middle: the middle itself may lie outside.
        const auto middle = place.sum / place.times;
        all.push_back({value, *std::ranges::min_element(place.points, {}, [&](const QPointF& point) {
                           const auto apart = point - middle;
                           return QPointF::dotProduct(apart, apart);
                       })});
    }
    return all;
}

QString Chart::inWords() const {
    const auto all = spots();
    QStringList values;
    const auto told = std::min(all.size(), mostWords);
    for (std::size_t i = 0; i < told; ++i) {
        values << all[i * all.size() / told].words;
    }
    return values.join(QStringLiteral("; ")).replace(QLatin1Char('\n'), QLatin1Char(' '));
}

void Chart::keyPressEvent(QKeyEvent* event) {
    const auto key = event->key();
    const bool isBack = key == Qt::Key_Left || key == Qt::Key_Up;
    const bool isOn = key == Qt::Key_Right || key == Qt::Key_Down;
    const bool isEnd = key == Qt::Key_Home || key == Qt::Key_End;
    const bool isClick = key == Qt::Key_Return || key == Qt::Key_Enter || key == Qt::Key_Space;
    if (focusPolicy() != Qt::TabFocus || (!isBack && !isOn && !isEnd && !isClick)) {
        QWidget::keyPressEvent(event);
        return;
    }
    const bool isFresh = spots_.empty() || valueAt(spots_[pointed_].at) != spots_[pointed_].words;
    if (isFresh) { // the first key, or the picture has changed
        spots_ = spots();
        pointed_ = std::min(pointed_, spots_.empty() ? 0 : spots_.size() - 1);
    }
    if (spots_.empty()) {
        return;
    }
    if (isClick && !isFresh) {
        const auto at = spots_[pointed_].at;
        for (const auto type : {QEvent::MouseButtonPress, QEvent::MouseButtonRelease}) {
            QMouseEvent click(type, at, mapToGlobal(at), Qt::LeftButton,
                              type == QEvent::MouseButtonPress ? Qt::LeftButton : Qt::NoButton,
                              event->modifiers());
            QCoreApplication::sendEvent(this, &click);
        }
        return;
    }
    const auto last = spots_.size() - 1;
    pointAt(key == Qt::Key_Home  ? 0
            : key == Qt::Key_End ? last
            : isFresh || isClick ? pointed_
            : isBack             ? pointed_ - std::min<std::size_t>(pointed_, 1)
                                 : std::min(pointed_ + 1, last));
}

void Chart::pointAt(std::size_t spot) {
    pointed_ = spot;
    const auto& pointed = spots_[pointed_];
    QToolTip::showText(mapToGlobal(pointed.at.toPoint() + QPoint(8, 12)), pointed.words, this);
    QAccessibleValueChangeEvent told(this, pointed.words);
    QAccessible::updateAccessibility(&told);
    update();
}

void Chart::drawCut(QPainter& painter, const QRectF& room, int alignment, const QString& text,
                    Qt::TextElideMode mode) {
    painter.drawText(room, alignment,
                     painter.fontMetrics().elidedText(text, mode, static_cast<int>(room.width())));
}

} // namespace sober::app
