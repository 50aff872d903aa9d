#pragma once

#include "app/workbench.h"

#include <QDialog>

class QCheckBox;
class QLabel;
class QPushButton;

namespace sober::app {

class TakeoverForm;

/// What is to replace a holding, and which tags the new file shall have: read through before it goes on the
/// docket.
class ReplaceWindow : public QDialog {
    Q_OBJECT

  public:
    ReplaceWindow(Workbench& workbench, const WantedRow& row, const Candidate& candidate, QWidget* parent);

  signals:
    void agreed(const sober::ReplaceRequest& request);

  private:
    void readTags(Workbench& workbench);

    ReplaceRequest request_;
    TakeoverForm* form_ = nullptr;  ///< of a file that is at hand
    QCheckBox* takeTags_ = nullptr; ///< of an offer, whose tags are not known yet
    QLabel* explanation_;
    QLabel* tagsSay_ = nullptr;
    QPushButton* put_;
};

/// What putting it on the docket would mean, step by step.
QStringList stepsFor(const WantedRow& row, const Candidate& candidate);

} // namespace sober::app
