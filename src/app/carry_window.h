#pragma once

#include "app/workbench.h"

#include <QDialog>

#include <optional>

class QLabel;
class QPushButton;

namespace sober::app {

/// Where the catalogue is to be carried along, and whether the program's package goes with it.
class CarryWindow : public QDialog {
    Q_OBJECT

  public:
    CarryWindow(Workbench& workbench, QWidget* parent);

  private:
    void showChosen();
    void carry();

    Workbench& workbench_;
    BytePath place_;
    std::optional<BytePath> package_;
    std::uint64_t needs_ = 0; ///< bytes, without the package
    QLabel* size_;
    QLabel* placeText_;
    QLabel* packageText_;
    QPushButton* go_;
};

} // namespace sober::app
