#pragma once

#include "app/workbench.h"
#include "core/remedy/scheduled_check.h"

#include <QDialog>

class QComboBox;
class QLabel;
class QPlainTextEdit;
class QPushButton;

namespace sober::app {

/// Shows the check that systemd can carry out on a schedule, as the files that would be written, and installs
/// or removes it.
class ScheduleWindow : public QDialog {
    Q_OBJECT

  public:
    /// `program` is the headless command.
    ScheduleWindow(Workbench& workbench, BytePath program, QWidget* parent);

  private:
    CheckEvery every() const;
    void showState();
    void act();

    Workbench& workbench_;
    BytePath program_;
    BytePath catalogue_;
    QComboBox* every_;
    QPlainTextEdit* files_;
    QLabel* state_;
    QPushButton* act_;
};

} // namespace sober::app
