#pragma once

#include "app/workbench.h"
#include "core/audit/set_choice.h"

#include <QDialog>

class QComboBox;
class QLabel;
class QPushButton;

namespace sober::app {

/// Decides many copy sets by one preference, and shows what that would do before it is taken.
class PreferenceWindow : public QDialog {
    Q_OBJECT

  public:
    PreferenceWindow(Workbench& workbench, std::vector<SetId> shown, std::vector<SetId> chosen,
                     std::vector<Volume> volumes, QWidget* parent);
    ~PreferenceWindow() override;

  private:
    void askPreview();
    void takePreview(const PreferencePreview& preview);

    Workbench& workbench_;
    std::vector<SetId> shown_;
    std::vector<SetId> chosen_;
    std::vector<Volume> volumes_;
    QComboBox* preference_;
    QComboBox* scope_;
    QLabel* outcome_;
    QPushButton* put_;
    std::shared_ptr<RunControl> control_;
    std::shared_ptr<const PreferencePreview> preview_;
};

} // namespace sober::app
