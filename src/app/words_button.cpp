#include "app/words_button.h"

#include <QStyleOptionButton>
#include <QStylePainter>

namespace sober::app {
namespace {

constexpr int aside = 12;
constexpr int above = 5;
constexpr int wrapped = Qt::TextWordWrap | Qt::AlignVCenter;

} // namespace

WordsButton::WordsButton(const QString& text, QWidget* parent) : QPushButton(text, parent) {
    auto policy = sizePolicy();
    policy.setHorizontalPolicy(QSizePolicy::Preferred);
    policy.setVerticalPolicy(QSizePolicy::Minimum);
    policy.setHeightForWidth(true);
    setSizePolicy(policy);
}

QSize WordsButton::sizeHint() const {
    const int wide = fontMetrics().horizontalAdvance(text()) + 2 * aside + 2;
    return {wide, heightForWidth(wide)};
}

QSize WordsButton::minimumSizeHint() const {
    constexpr int someWords = 160;
    const int least = std::min(someWords, sizeHint().width());
    return {least, heightForWidth(std::max(least, width()))};
}

int WordsButton::heightForWidth(int width) const {
    const QRect room(0, 0, std::max(1, width - 2 * aside), 10000);
    return fontMetrics().boundingRect(room, wrapped, text()).height() + 2 * above;
}

void WordsButton::resizeEvent(QResizeEvent* event) {
    QPushButton::resizeEvent(event);
    updateGeometry();
}

void WordsButton::paintEvent(QPaintEvent*) {
    QStylePainter painter(this);
    QStyleOptionButton option;
    initStyleOption(&option);
    option.text.clear();
    painter.drawControl(QStyle::CE_PushButton, option);
    const auto role = isEnabled() ? QPalette::Active : QPalette::Disabled;
    painter.setPen(palette().color(role, QPalette::ButtonText));
    painter.drawText(rect().adjusted(aside, above, -aside, -above),
                     static_cast<int>(QStyle::visualAlignment(layoutDirection(), Qt::AlignLeft)) | wrapped,
                     text());
}

} // namespace sober::app
