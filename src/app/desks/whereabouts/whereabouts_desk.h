#pragma once

#include "app/desks/desk.h"

class QButtonGroup;
class QStackedWidget;

namespace sober::app {

class MissingPanel;
class ReferencePanel;
class RelinkPanel;

/// Where did it go? Broken references of players, missing holdings, and references that will break.
class WhereaboutsDesk : public Desk {
    Q_OBJECT

  public:
    explicit WhereaboutsDesk(Workbench& workbench);

  protected:
    void reload() override;
    void reloadDecisions() override;

  private:
    void addPage(QWidget* page, const QString& name, int key);
    void showPage(int page);

    QButtonGroup* pages_;
    QStackedWidget* stack_;
    RelinkPanel* relinking_;
    MissingPanel* missing_;
    ReferencePanel* references_;
    bool isChosen_ = false; ///< the page, by the custodian
};

} // namespace sober::app
