#include "app/hand_focus_on.h"

#include <QEvent>
#include <QPointer>
#include <QWidget>

namespace sober::app {
namespace {

class FocusHander final : public QObject {
  public:
    explicit FocusHander(QWidget* part) : QObject(part) {
        setObjectName(name());
        part->installEventFilter(this);
    }
    static QString name() { return QStringLiteral("hands the focus on"); }

    QPointer<QWidget> to;

  protected:
    bool eventFilter(QObject* part, QEvent* event) override {
        if (event->type() == QEvent::FocusIn && to && part == parent()) {
            to->setFocus();
        }
        return false;
    }
};

} // namespace

void handFocusOn(QWidget* part, QWidget* to) {
    auto* hander =
        static_cast<FocusHander*>(part->findChild<QObject*>(FocusHander::name(), Qt::FindDirectChildrenOnly));
    if (hander == nullptr) {
        hander = new FocusHander(part); // NOLINT: its parent owns it
    }
    hander->to = to;
}

} // namespace sober::app
