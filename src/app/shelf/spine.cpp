#include "app/shelf/spine.h"

#include "app/theme/theme.h"
#include "app/words.h"

#include <QAbstractButton>
#include <QButtonGroup>
#include <QPainter>
#include <QStyle>
#include <QVBoxLayout>

namespace sober::app {

class DeskButton : public QAbstractButton {
  public:
    DeskButton(const QString& name, int number, QWidget* parent)
        : QAbstractButton(parent), number_(number % 10) {
        setText(name);
        setCheckable(true);
        setMinimumHeight(18);
        setMaximumHeight(32);
        setFocusPolicy(Qt::TabFocus);
        setCursor(Qt::PointingHandCursor);
        setToolTip(QStringLiteral("Alt+%1").arg(number % 10));
        setCount(-1);
    }

    void setCount(qint64 count) {
        count_ = count;
        setAccessibleName(count < 0 ? text()
                                    : QStringLiteral("%1, %2").arg(
                                          text(), told(humanCount(static_cast<std::uint64_t>(count)))));
        update();
    }

    QSize sizeHint() const override {
        return {namesBegin + QFontMetrics(Theme::strong()).horizontalAdvance(text()) + countRoom, 32};
    }

  protected:
    void paintEvent(QPaintEvent* /*event*/) override {
        const auto& inks = Theme::inks();
        QPainter painter(this);
        const auto nearSide =
            static_cast<int>(QStyle::visualAlignment(layoutDirection(), Qt::AlignLeft) | Qt::AlignVCenter);
        const auto farSide =
            static_cast<int>(QStyle::visualAlignment(layoutDirection(), Qt::AlignRight) | Qt::AlignVCenter);
        if (isChecked()) {
            painter.fillRect(rect(), inks.wash);
            painter.fillRect(mirrored(QRect(0, 0, 3, height())), inks.accent);
        } else if (underMouse()) {
            painter.fillRect(rect(), inks.sheet);
        }
        if (hasFocus()) {
            painter.setPen(inks.accent);
            painter.drawRect(rect().adjusted(0, 0, -1, -1));
        }
        painter.setPen(inks.quiet);
        painter.setFont(Theme::text(11));
        painter.drawText(mirrored(QRect(12, 0, 14, height())), nearSide, QString::number(number_));
        painter.setPen(inks.ink);
        painter.setFont(isChecked() ? Theme::strong() : Theme::text());
        const QRect room(namesBegin, 0, width() - namesBegin - countRoom, height());
        painter.drawText(mirrored(room), nearSide, text());
        if (count_ >= 0) {
            painter.setPen(count_ > 0 ? inks.accent : inks.quiet);
            painter.setFont(Theme::text(12));
            painter.drawText(mirrored(QRect(width() - 84, 0, 74, height())), farSide,
                             told(humanCount(static_cast<std::uint64_t>(count_))));
        }
    }

  private:
    static constexpr int namesBegin = 28; ///< pixels
    static constexpr int countRoom = 44;

    QRect mirrored(const QRect& room) const { return QStyle::visualRect(layoutDirection(), rect(), room); }

    int number_;
    qint64 count_ = -1;
};

Spine::Spine(QWidget* parent)
    : QWidget(parent), layout_(new QVBoxLayout(this)), group_(new QButtonGroup(this)) {
    layout_->setContentsMargins(0, 0, 0, 0);
    layout_->setSpacing(0);
    group_->setExclusive(true);
    connect(group_, &QButtonGroup::idClicked, this, &Spine::deskChosen);
}

void Spine::addDesk(const QString& name) {
    const int id = static_cast<int>(group_->buttons().size());
    auto* button = new DeskButton(name, id + 1, this);
    group_->addButton(button, id);
    layout_->addWidget(button);
}

void Spine::setCurrent(int desk) {
    if (auto* button = group_->button(desk)) {
        button->setChecked(true);
    }
}

void Spine::setCount(int desk, qint64 count) {
    if (auto* button = static_cast<DeskButton*>(group_->button(desk))) {
        button->setCount(count);
    }
}

} // namespace sober::app
