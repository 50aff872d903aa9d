#pragma once

#include "app/charts/block_map.h"
#include "app/charts/check_chart.h"
#include "app/desks/claims/soundness_list.h"
#include "app/desks/desk.h"
#include "app/desks/fixity/period_box.h"
#include "app/lists/list_view.h"
#include "app/lists/row_list_model.h"
#include "core/evidence/byte_difference.h"
#include "core/remedy/actions/mending.h"

class QComboBox;
class QPushButton;

namespace sober::app {

/// Has anything changed on its own?
class FixityDesk : public Desk {
    Q_OBJECT

  public:
    explicit FixityDesk(Workbench& workbench);

  protected:
    void reload() override;
    void reloadDecisions() override { reload(); }

  private:
    struct DriftRow {
        Holding holding;
        Drift drift;
        std::string volume;
        BytePath path; ///< absolute
        bool atHand = true;
        std::vector<Checksum128> blocks; ///< as they are now
        std::vector<BytePath> healthy;   ///< absolute
        bool canBeAssembled = false;
        std::optional<ActionKind> waiting; ///< the kind of action that stands on the docket
    };
    struct Seen {
        std::vector<DriftRow> drift;
        std::vector<HoldingId> flawed;
    };
    static Result<Seen> look(const Catalogue& catalogue);
    /// When each volume was read again, and is to be.
    struct History {
        std::vector<CheckChart::Row> checks;
        std::vector<PeriodBox::Period> periods;
    };
    static Result<History> lookBack(const Catalogue& catalogue);
    void buildList();
    void buildButtons();
    void show(const Seen& seen);
    const DriftRow* current() const;
    std::vector<HoldingId> selected() const;
    void showEvidence();
    void showBytes(const DriftRow& row);
    void accept();
    void mend();
    void seek();
    bool showsUnsound() const;
    void chooseList();
    void put(const std::vector<HoldingId>& ids, ActionKind kind, const std::string& reason);

    CheckChart* history_;
    RowListModel<DriftRow>* rows_;
    ListView* list_;
    QComboBox* which_;
    SoundnessList* unsound_;
    QLabel* words_;
    BlockMap* blocks_;
    QLabel* bytes_;
    QPushButton* accept_;
    PeriodBox* period_;
    unsigned bytesAsked_ = 0;
};

} // namespace sober::app
