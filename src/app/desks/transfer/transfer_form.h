#pragma once

#include "core/transfer/plan.h"

#include <QWidget>

class QComboBox;
class QFormLayout;
class QLabel;
class QLineEdit;
class QPushButton;

namespace sober::app {

/// Where a transfer goes and how: the folder, whose rules, the mode, the order with a preview on what comes,
/// the lists.
class TransferForm : public QWidget {
    Q_OBJECT

  public:
    explicit TransferForm(QWidget* parent);
    /// Everything but what comes along.
    TransferRequest request() const;
    bool hasPlace() const;
    /// What the plan knows of the place, and some of what comes, for the preview.
    void setPlan(const TransferPlan* plan);
    void setTarget(const BytePath& folder);

  signals:
    void changed();

  protected:
    void resizeEvent(QResizeEvent* event) override;

  private:
    void buildWhere(QFormLayout& form);
    void buildHow(QFormLayout& form);
    void addFieldMenu();
    QString layoutText() const;
    void preview();
    void askForCharacters();
    void showCosts(const TransferPlan& plan);
    void followLayout();

    QLineEdit* folder_;
    QComboBox* rules_;
    QLineEdit* room_;
    QLineEdit* longest_;
    QComboBox* mode_;
    QComboBox* layout_;
    QLineEdit* order_;
    QPushButton* fields_;
    QLabel* preview_;
    QComboBox* lists_;
    QComboBox* forms_;
    BytePath chosen_; ///< the folder's bytes, as long as its text is theirs
    NameReplacements replacements_ = usualReplacements();
    std::vector<Holding> sample_;
    const TargetRules* targetRules_ = nullptr;
};

} // namespace sober::app
