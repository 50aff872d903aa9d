#pragma once

#include "app/lists/list_view.h"
#include "app/lists/row_list_model.h"
#include "app/workbench.h"
#include "core/remedy/docket.h"

#include <QDialog>

class QLabel;
class QPushButton;

namespace sober::app {

/// The docket, read through before it is carried out: every file, what is freed where, what is
/// refused and why.
class DocketWindow : public QDialog {
    Q_OBJECT

  public:
    DocketWindow(Workbench& workbench, QWidget* parent);

  private:
    void reload();
    void show(const DocketReview& review);
    void followWork();
    void showResult(const CarriedOut& result);
    void takeOff();

    Workbench& workbench_;
    QLabel* summary_;
    QLabel* result_;
    RowListModel<PlannedAction>* actions_;
    ListView* list_;
    QPushButton* takeOff_;
    QPushButton* carryOut_;
    QPushButton* stop_;
    std::size_t waiting_ = 0;
    std::size_t willRun_ = 0;
};

} // namespace sober::app
