#pragma once

#include "app/workbench.h"
#include "core/audit/tag_takeover.h"

#include <QDialog>

class QLabel;
class QPushButton;

namespace sober::app {

class TakeoverForm;

/// What the other copies know that the one that stays does not: field by field, to be taken over.
class TagsWindow : public QDialog {
    Q_OBJECT

  public:
    TagsWindow(Workbench& workbench, std::shared_ptr<const SetDetail> detail, std::size_t keeper,
               std::vector<Volume> volumes, QWidget* parent);

  private:
    void show(const SetTags& tags);
    QString nameOfOther(std::size_t other) const;
    std::string chosenFrom() const;
    void follow();

    Workbench& workbench_;
    std::shared_ptr<const SetDetail> detail_;
    std::vector<Volume> volumes_;
    std::size_t keeper_;
    SetTags tags_;
    QLabel* explanation_;
    TakeoverForm* form_;
    QLabel* outcome_;
    QPushButton* put_;
};

} // namespace sober::app
