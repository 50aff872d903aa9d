#pragma once

#include "app/charts/ribbon_chart.h"
#include "app/desks/desk.h"
#include "app/desks/whereabouts/lost_place_detail.h"
#include "app/lists/list_view.h"
#include "app/lists/row_list_model.h"
#include "core/audit/relink.h"

class QLabel;

namespace sober::app {

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
    QWidget* makeButtons();
    void search();
    void show(const std::shared_ptr<const Relinking>& found);
    void showFirst();
    void showRibbons();
    void showPlaces();
    void showFigures();
    void showDetail();
    const PlaceRow* current() const;
    std::vector<PlaceRow> selected() const;
    void switchRule();
    void example();
    void putLinks();
    void writeOff();
    void wait();

    Workbench& workbench_;
    QLabel* figures_;
    RibbonChart* ribbons_;
    QLabel* shown_;
    RowListModel<PlaceRow>* places_;
    ListView* placeList_;
    LostPlaceDetail* detail_;
    QPushButton* off_;
    QPushButton* put_;
    std::shared_ptr<const Relinking> found_;
    bool isThrough_ = false; ///< `found_` says where the lost are, not only what is lost
    RelinkKnown known_;
    RelinkRequest request_;
    std::vector<int> ribbonRules_; ///< by ribbon: a rule's number, or below
};

} // namespace sober::app
