#pragma once

#include "app/charts/timeline_chart.h"
#include "app/desks/desk.h"
#include "app/lists/list_view.h"
#include "app/lists/row_list_model.h"
#include "core/catalogue/ledger_store.h"

namespace sober::app {

/// What was done, can I take it back?
class LedgerDesk : public Desk {
    Q_OBJECT

  public:
    explicit LedgerDesk(Workbench& workbench);

  protected:
    void reload() override;

  private:
    void showActions();
    void chooseEntry(EntryId entry);
    const LedgerEntry* current() const;

    TimelineChart* timeline_;
    RowListModel<LedgerEntry>* entries_;
    ListView* entryList_;
    RowListModel<LedgerAction>* actions_;
    ListView* actionList_;
    QPushButton* takeBack_;
    QLabel* actionsTitle_;
    Latest asked_;
};

} // namespace sober::app
