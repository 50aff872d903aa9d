#pragma once

#include "app/workbench.h"
#include "core/work/carry_along.h"

#include <QDialog>

class QCheckBox;
class QLabel;
class QPushButton;

namespace sober::app {

/// Where the catalogue is to be carried along, and whether the program goes with it.
class CarryWindow : public QDialog {
    Q_OBJECT

  public:
    CarryWindow(Workbench& workbench, QWidget* parent);

  private:
    void showChosen();
    void showSize();
    void carry();

    Workbench& workbench_;
    BytePath place_;
    std::optional<BytePath> package_;
    std::optional<CarryingNeeds> needs_; ///< none until they were found out
    QLabel* size_;
    QCheckBox* program_;
    QLabel* placeText_;
    QLabel* packageText_;
    QPushButton* go_;
};

} // namespace sober::app
