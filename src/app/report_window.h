#pragma once

#include "core/report/report_forms.h"

#include <QDialog>

class QCheckBox;
class QComboBox;
class QPushButton;

namespace sober::app {

/// What is to stand in a report, in which form, and whether it may name places.
class ReportWindow : public QDialog {
    Q_OBJECT

  public:
    explicit ReportWindow(QWidget* parent);

  signals:
    void wanted(const sober::ReportChoices& choices, sober::ReportForm form);

  private:
    ReportChoices choices() const;
    void showWhetherAnything();

    std::vector<std::pair<ReportPart, QCheckBox*>> parts_;
    QCheckBox* leaveOut_;
    QComboBox* form_;
    QPushButton* write_;
};

/// What a file of a report is called unless somebody says otherwise.
QString reportFileName(ReportForm form);

} // namespace sober::app
