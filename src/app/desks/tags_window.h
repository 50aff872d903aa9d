#pragma once

#include "app/workbench.h"
#include "core/audit/tag_takeover.h"

#include <QDialog>

class QComboBox;
class QGridLayout;
class QLabel;
class QPushButton;

namespace sober::app {

/// What the other copies know that the one that stays does not: field by field, to be taken over.
class TagsWindow : public QDialog {
    Q_OBJECT

  public:
    TagsWindow(Workbench& workbench, std::shared_ptr<const SetDetail> detail, std::size_t keeper,
               std::vector<Volume> volumes, QWidget* parent);

  private:
    void show(const SetTags& tags);
    void addField(QGridLayout& grid, const FieldOffer& offer);
    void addPictures(QGridLayout& grid);
    QString nameOfOther(std::size_t other) const;
    QString namesOf(const std::vector<std::size_t>& others) const;
    TagChange chosen() const;
    std::string chosenFrom() const;
    void follow();

    Workbench& workbench_;
    std::shared_ptr<const SetDetail> detail_;
    std::vector<Volume> volumes_;
    std::size_t keeper_;
    SetTags tags_;
    std::vector<QComboBox*> fields_; ///< in the order of the takeover's fields
    QComboBox* picture_ = nullptr;
    QLabel* explanation_;
    QWidget* rows_;
    QLabel* outcome_;
    QPushButton* put_;
};

} // namespace sober::app
