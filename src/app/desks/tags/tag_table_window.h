#pragma once

#include "app/workbench.h"
#include "core/intake/tag_table.h"

#include <QDialog>

class QLabel;
class QPushButton;
class QTableView;
class QVBoxLayout;

namespace sober::app {

class TagTableModel;

/// The tags of many files as a table: many cells are edited at once, filled down, counted, pasted and taken
/// back; proposals stand in it with their evidence. What was edited goes on the docket.
class TagTableWindow : public QDialog {
    Q_OBJECT

  public:
    using Files = std::vector<std::pair<HoldingId, BytePath>>; ///< absolute
    TagTableWindow(Workbench& workbench, Files files, QWidget* parent);
    /// A table that is no file's yet; `agreed` takes what it says in the end. `takes` is on the button.
    TagTableWindow(Workbench& workbench, const TagTable& table, const QString& takes,
                   std::function<void(const TagTable&)> agreed, QWidget* parent);

  private:
    void build(const QString& takes);
    void buildKeys(QVBoxLayout& layout);
    void putOnDocket();
    void show(const TagTable& table);
    void follow();
    void copy();
    void paste();
    std::vector<TagTable::Cell> selectedCells() const;
    std::vector<std::size_t> selectedRows() const;
    template <typename Work>
    void edit(Work work);

    Workbench& workbench_;
    Files files_;
    TagTableModel* model_ = nullptr;
    QTableView* view_;
    QLabel* evidence_;
    QLabel* outcome_;
    QPushButton* put_ = nullptr;
    bool isOfFiles_ = true;
};

} // namespace sober::app
