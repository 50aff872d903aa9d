#pragma once

#include "app/workbench.h"
#include "core/audit/set_choice.h"
#include "core/catalogue/policies.h"

#include <QDialog>

class QCheckBox;
class QComboBox;
class QLabel;
class QLineEdit;
class QPushButton;

namespace sober::app {

class WrapLabel;

class PreferenceList;

/// Decides many copy sets by a policy: made, named and kept here, and shown what it would do before it is
/// taken.
class PolicyWindow : public QDialog {
    Q_OBJECT

  public:
    PolicyWindow(Workbench& workbench, std::vector<SetId> shown, std::vector<SetId> chosen,
                 std::vector<Volume> volumes, QWidget* parent);
    ~PolicyWindow() override;

  private:
    void buildPolicy(class QVBoxLayout& layout);
    void askPolicies(const QString& choose);
    void takePolicies(std::vector<Policy> policies, const QString& choose);
    void showPolicy(const Policy& policy);
    Policy policyNow() const;
    void keepPolicy();
    void removePolicy();
    void changed();
    void askPreview();
    void takePreview(const PolicyPreview& preview);

    Workbench& workbench_;
    std::vector<SetId> shown_;
    std::vector<SetId> chosen_;
    std::vector<Volume> volumes_;
    std::vector<Policy> policies_;
    QComboBox* policy_;
    QLineEdit* name_;
    QPushButton* keep_;
    QPushButton* remove_;
    PreferenceList* preferences_;
    QComboBox* weakest_;
    QCheckBox* onlyWhereMet_;
    QComboBox* scope_;
    WrapLabel* outcome_;
    QPushButton* put_;
    std::shared_ptr<RunControl> control_;
    std::shared_ptr<const PolicyPreview> preview_;
};

} // namespace sober::app
