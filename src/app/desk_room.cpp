#include "app/desk_room.h"

#include <QEvent>
#include <QLayout>

#include <algorithm>

namespace sober::app {

/// Needs what the desk that is shown needs, and not what the largest of all would.
class DeskRoom::OneAtATime : public QWidget {
  public:
    explicit OneAtATime(DeskRoom& room) : QWidget(&room), room_(room) {
        setObjectName(QStringLiteral("desk"));
    }

    void add(QWidget* desk) {
        desk->setParent(this);
        desk->hide();
        desk->installEventFilter(this);
    }
    void show(QWidget* desk) {
        if (shown_ == desk) {
            return;
        }
        auto* before = shown_;
        shown_ = desk;
        shown_->setGeometry(rect());
        shown_->show();
        if (before != nullptr) {
            before->hide();
        }
        updateGeometry();
    }
    QSize minimumSizeHint() const override {
        if (shown_ == nullptr) {
            return {};
        }
        auto least = shown_->minimumSizeHint();
        const int width = std::max(least.width(), room_.viewport()->width());
        if (const auto* layout = shown_->layout(); layout != nullptr && layout->hasHeightForWidth()) {
            least.setHeight(layout->minimumHeightForWidth(width));
        }
        return least;
    }
    QSize sizeHint() const override { return minimumSizeHint(); }

  protected:
    void resizeEvent(QResizeEvent*) override {
        if (shown_ != nullptr) {
            shown_->setGeometry(rect());
        }
    }
    /// What a desk needs has changed.
    bool eventFilter(QObject* watched, QEvent* event) override {
        if (watched == shown_ && event->type() == QEvent::LayoutRequest) {
            updateGeometry();
        }
        return QWidget::eventFilter(watched, event);
    }

  private:
    DeskRoom& room_;
    QWidget* shown_ = nullptr;
};

DeskRoom::DeskRoom(QWidget* parent) : QScrollArea(parent), desks_(new OneAtATime(*this)) {
    setWidgetResizable(true);
    setFrameShape(QFrame::NoFrame);
    setFocusPolicy(Qt::NoFocus);
    setWidget(desks_);
}

void DeskRoom::addWidget(QWidget* desk) {
    desks_->add(desk);
}

void DeskRoom::setCurrentWidget(QWidget* desk) {
    desks_->show(desk);
}

QSize DeskRoom::minimumSizeHint() const {
    return {360, 200};
}

} // namespace sober::app
