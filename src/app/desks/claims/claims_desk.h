#pragma once

#include "app/charts/claims_map.h"
#include "app/desks/claims/claim_filters.h"
#include "app/desks/claims/claim_rows.h"
#include "app/desks/claims/limits_window.h"
#include "app/desks/desk.h"
#include "app/desks/evidence_panel.h"
#include "app/lists/id_list_model.h"
#include "app/lists/list_view.h"

namespace sober::app {

class StandingListBox;

/// What is not what it says?
class ClaimsDesk : public Desk {
    Q_OBJECT

  public:
    explicit ClaimsDesk(Workbench& workbench);

    /// Shows what a standing list means.
    void showList(const QString& name);

  signals:
    void replacementWanted(const QString& text);

  protected:
    void reload() override;
    void reloadDecisions() override;

  private:
    struct Seen {
        std::vector<ClaimPoint> points;
        std::vector<HoldingId> ids;
        ClaimFilters::Choices choices;
    };
    static Result<Seen> look(const Catalogue& catalogue, const HoldingFilter& filter);
    void buildLists();
    void buildButtons();
    void take(const Seen& seen);
    void showRows();
    void askDetail();
    std::vector<HoldingId> selected() const;
    void accept();
    void withdraw();
    void keepList();
    void forgetList();
    void openLimits();

    ClaimFilters* filters_;
    StandingListBox* lists_;
    ClaimsMap* map_;
    QLabel* count_;
    IdListModel<ClaimRow>* rows_;
    ListView* list_;
    EvidencePanel* panel_;
    std::vector<HoldingId> ids_; ///< that the filter means, the worst first
    HoldingId shown_ = 0;        ///< in the panel
    Latest asked_;
    unsigned detailAsked_ = 0;
};

} // namespace sober::app
