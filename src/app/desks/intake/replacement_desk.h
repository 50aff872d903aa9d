#pragma once

#include "app/desks/desk.h"
#include "app/desks/intake/replacement_rows.h"
#include "app/lists/list_view.h"
#include "app/lists/row_list_model.h"

#include <map>
#include <set>

class QLabel;
class QLineEdit;

namespace sober::app {

class ArrivalChart;
class ListeningBar;

/// The standing list of what could be better: why, where a better one is to be had, and why others do not
/// fit. A page of Intake.
class ReplacementDesk : public Desk {
    Q_OBJECT

  public:
    explicit ReplacementDesk(Workbench& workbench);
    /// Shows what a text means alone: where another desk leads here.
    void showAlone(const QString& text);

  signals:
    void arrivalsWanted();

  protected:
    void reload() override;
    void reloadDecisions() override;

  private:
    void buildHeading();
    void buildRows();
    void buildEvidence();
    void show(std::vector<WantedRow> rows);
    void tellPlanned(const Candidate& candidate, const BytePath& target);
    void keepOffers(const std::vector<WantedRow>& rows);
    void showChosen();
    void showCandidate();
    void ask();
    void askForShelf();
    void replace();
    void replaceAll();
    void keepAsItIs();
    const WantedRow* chosen() const;
    const Candidate* chosenCandidate() const;

    ArrivalChart* chart_;
    QLineEdit* text_;
    RowListModel<WantedLine>* rows_ = nullptr;
    ListView* list_ = nullptr;
    RowListModel<Candidate>* candidates_ = nullptr;
    ListView* candidateList_ = nullptr;
    QLabel* title_ = nullptr;
    QLabel* why_ = nullptr;
    QLabel* reasons_ = nullptr;
    ListeningBar* listening_ = nullptr;
    std::set<HoldingId> waiting_;
    std::map<HoldingId, std::vector<Candidate>> offers_; ///< as last asked
};

} // namespace sober::app
