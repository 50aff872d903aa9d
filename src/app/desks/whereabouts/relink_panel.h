#pragma once

#include "app/charts/ribbon_chart.h"
#include "app/desks/desk.h"
#include "app/lists/list_view.h"
#include "app/lists/row_list_model.h"
#include "core/audit/relink.h"
#include "core/catalogue/volumes.h"

#include <map>

class QLabel;

namespace sober::app {

class WrapLabel;
class ListeningBar;

/// What the players' broken references should lead to: rules as ribbons, the places below, and for the one
/// that is selected its candidates side by side.
class RelinkPanel : public QWidget {
    Q_OBJECT

  public:
    RelinkPanel(Workbench& workbench, QWidget* parent);

    void reload();
    void reloadDecisions();

  signals:
    /// No player's lists are known, so that there is nothing to show.
    void nothingKnown();

  private:
    /// What is known of one lost place.
    struct PlaceRow {
        std::size_t lost = 0;
        std::optional<std::size_t> link;   ///< into Relinking::links
        std::optional<std::size_t> choice; ///< into Relinking::ambiguous
        BytePath path;
        BytePath target;
        double confidence = 0;
        std::uint64_t references = 0;
        std::string players;
        std::string reason;                ///< why nothing was found
        std::optional<ActionKind> waiting; ///< the kind of action that stands on the docket
        bool lookedFor = false;            ///< the search is not through yet
    };
    struct CandidateRow {
        RelinkCandidate file;
        Judgement judged;
    };
    /// What the catalogue says of players, beside what was found out about their references.
    struct Known {
        std::vector<Volume> volumes;
        std::vector<Player> players;
        std::vector<PlayerFigures> figures;
        std::map<ListFileId, std::vector<std::string>> owners; ///< by list: players' names
        std::map<BytePath, ActionKind> waiting;                ///< by place: the kind of action
    };

    QWidget* makeButtons();
    QWidget* makeDetail();
    static Result<Known> ask(const Catalogue& catalogue);
    void search();
    void show(const std::shared_ptr<const Relinking>& found);
    void showFirst();
    void showRibbons();
    void showPlaces();
    void showFigures();
    void showDetail();
    void showCandidate();
    std::string playersOf(std::size_t lost) const;
    const PlaceRow* current() const;
    std::vector<PlaceRow> selected() const;
    void switchRule();
    void example();
    void chooseCandidate();
    /// A path for the eye: below a volume its label stands for the root.
    QString placeText(const BytePath& path) const;
    void putLinks();
    void writeOff();
    void wait();

    Workbench& workbench_;
    QLabel* figures_;
    RibbonChart* ribbons_;
    QLabel* shown_;
    RowListModel<PlaceRow>* places_;
    ListView* placeList_;
    WrapLabel* detail_;
    RowListModel<CandidateRow>* candidates_;
    ListView* candidateList_;
    QLabel* judged_;
    ListeningBar* listening_;
    QPushButton* off_;
    QPushButton* put_;
    QPushButton* choose_;
    std::shared_ptr<const Relinking> found_;
    bool isThrough_ = false; ///< `found_` says where the lost are, not only what is lost
    Known known_;
    RelinkRequest request_;
    std::vector<int> ribbonRules_; ///< by ribbon: a rule's number, or below
};

} // namespace sober::app
