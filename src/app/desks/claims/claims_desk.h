#pragma once

#include "app/charts/claims_map.h"
#include "app/desks/claims/limits_window.h"
#include "app/desks/desk.h"
#include "app/desks/evidence_panel.h"
#include "app/lists/id_list_model.h"
#include "app/lists/list_view.h"
#include "core/catalogue/findings.h"

class QCheckBox;
class QComboBox;
class QLineEdit;

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
    struct ClaimRow {
        Holding holding;
        std::string volume;
        BytePath root;
        bool atHand = false;
        std::optional<Evidence> evidence;
        bool accepted = false;
        bool onDocket = false;
        bool better = false;
    };
    struct Seen {
        std::vector<ClaimPoint> points;
        std::vector<HoldingId> ids;
        std::vector<Volume> volumes;
        std::vector<std::string> codecs;
        std::vector<FolderFigures> folders;
    };
    static Result<Seen> look(const Catalogue& catalogue, const HoldingFilter& filter);
    static Result<std::vector<ClaimRow>> fetchRows(const Catalogue& catalogue,
                                                   std::span<const HoldingId> ids);
    void buildFilters();
    void buildLists();
    void buildButtons();
    HoldingFilter filter() const;
    void setFilter(const HoldingFilter& filter);
    void take(const Seen& seen);
    void fillBoxes(const Seen& seen);
    void showRows();
    void askDetail();
    std::vector<HoldingId> selected() const;
    void accept();
    void withdraw();
    void keepList();
    void forgetList();
    void openLimits();

    QLineEdit* text_;
    QComboBox* volume_;
    QComboBox* folder_;
    QComboBox* codec_;
    QComboBox* verdict_;
    QComboBox* which_;
    QCheckBox* acceptedToo_;
    StandingListBox* lists_;
    ClaimsMap* map_;
    QLabel* count_;
    IdListModel<ClaimRow>* rows_;
    ListView* list_;
    EvidencePanel* panel_;
    std::vector<HoldingId> ids_; ///< that the filter means, the worst first
    std::optional<HoldingFilter> wanted_;
    HoldingFilter beside_; ///< of the chosen standing list: what no box here shows goes on being asked for
    HoldingId shown_ = 0;  ///< in the panel
    bool filling_ = false;
    Latest asked_;
    unsigned detailAsked_ = 0;
};

} // namespace sober::app
