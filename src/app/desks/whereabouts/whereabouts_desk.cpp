#include "app/desks/whereabouts/whereabouts_desk.h"

#include "app/desks/whereabouts/missing_panel.h"
#include "app/desks/whereabouts/reference_panel.h"
#include "app/desks/whereabouts/relink_panel.h"
#include "app/hand_focus_on.h"

#include <QButtonGroup>
#include <QHBoxLayout>
#include <QPushButton>
#include <QStackedWidget>
#include <QVBoxLayout>

namespace sober::app {
namespace {

/// As a layout it would ask for the height that its pages like to have, not for what they need.
class PageStack : public QStackedWidget {
  public:
    using QStackedWidget::QStackedWidget;
    bool hasHeightForWidth() const override { return false; }
};

} // namespace

WhereaboutsDesk::WhereaboutsDesk(Workbench& workbench)
    : Desk(workbench, tr("Whereabouts"), tr("Where did it go?")),
      pages_(new QButtonGroup(this)),
      stack_(new PageStack(this)),
      relinking_(new RelinkPanel(workbench, stack_)),
      missing_(new MissingPanel(workbench, stack_)),
      references_(new ReferencePanel(workbench, stack_)) {
    addPage(relinking_, tr("Broken references"), Qt::Key_1);
    addPage(missing_, tr("Missing"), Qt::Key_2);
    addPage(references_, tr("References to look at"), Qt::Key_3);
    body()->addWidget(stack_, 1);
    pages_->button(0)->setChecked(true);
    connect(relinking_, &RelinkPanel::nothingKnown, this, [this] {
        if (!isChosen_ && stack_->currentIndex() == 0) {
            pages_->button(1)->setChecked(true);
            showPage(1);
        }
    });
    handFocusOn(this, stack_);
    handFocusOn(stack_, relinking_);
}

void WhereaboutsDesk::addPage(QWidget* page, const QString& name, int key) {
    const int number = stack_->addWidget(page);
    auto* button = keyButton(name, QKeySequence(key), this);
    button->setCheckable(true);
    pages_->addButton(button, number);
    heading()->addWidget(button);
    connect(button, &QPushButton::clicked, this, [this, number] {
        isChosen_ = true;
        showPage(number);
    });
}

void WhereaboutsDesk::showPage(int page) {
    stack_->setCurrentIndex(page);
    handFocusOn(stack_, stack_->currentWidget());
    stack_->currentWidget()->setFocus();
    reload();
}

/// Only what is shown is asked for.
void WhereaboutsDesk::reload() {
    switch (stack_->currentIndex()) {
    case 0:
        relinking_->reload();
        break;
    case 1:
        missing_->reload();
        break;
    default:
        references_->reload();
    }
}

void WhereaboutsDesk::reloadDecisions() {
    switch (stack_->currentIndex()) {
    case 0:
        relinking_->reloadDecisions();
        break;
    case 1:
        missing_->reloadDecisions();
        break;
    default:
        references_->reloadDecisions();
    }
}

} // namespace sober::app
