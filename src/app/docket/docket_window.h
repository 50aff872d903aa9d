#pragma once

#include "app/lists/list_view.h"
#include "app/lists/row_list_model.h"
#include "app/workbench.h"
#include "core/remedy/docket/list_differences.h"
#include "core/remedy/docket/review.h"

#include <QDialog>

class QLabel;
class QPushButton;

namespace sober::app {

/// The docket, read through before it is carried out: every file, what is freed where, what is
/// refused and why, and the lines of players' lists that change.
class DocketWindow : public QDialog {
    Q_OBJECT

  public:
    DocketWindow(Workbench& workbench, QWidget* parent);

  private:
    /// One line of a player's list, before and after.
    struct LineRow {
        std::string list;
        std::string players;
        std::size_t line = 0;
        std::string before;
        std::string after; ///< "" where it cannot be changed: then `before` says why
        BytePath path;     ///< of the list
    };
    void showLines(const std::vector<ListDifference>& differences);
    void reload();
    void show(const DocketReview& review, std::vector<PlannedAction> rows);
    void followWork();
    void showResult(const CarriedOut& result);
    void takeOff();
    const PlannedAction* lineThatNeedsConsent() const;
    void consent();

    Workbench& workbench_;
    QLabel* summary_;
    QLabel* result_;
    RowListModel<PlannedAction>* actions_;
    RowListModel<LineRow>* lines_;
    ListView* lineList_;
    QLabel* lineTitle_;
    ListView* list_;
    QPushButton* takeOff_;
    QPushButton* consent_;
    QPushButton* carryOut_;
    QPushButton* stop_;
    std::size_t waiting_ = 0;
    std::size_t willRun_ = 0;
};

} // namespace sober::app
