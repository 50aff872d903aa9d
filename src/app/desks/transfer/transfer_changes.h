#pragma once

#include "app/lists/list_view.h"
#include "app/lists/row_list_model.h"
#include "core/catalogue/transfer_store.h"

#include <QWidget>

#include <array>
#include <memory>

class QButtonGroup;
class QPushButton;

namespace sober::app {

/// Everything of a transfer that is looked through before and after it.
struct TransferParts {
    BytePath folder; ///< absolute
    std::vector<TransferItem> items;
    std::vector<NotComing> left;
    std::vector<TransferList> lists;
    std::vector<BytePath> emptied = {}; ///< folders in which no file is left, absolute
};

/// What a transfer changes, in pages: names that are altered, what does not come, what failed, lists,
/// folders that are left empty, everything.
class TransferChanges : public QWidget {
    Q_OBJECT

  public:
    explicit TransferChanges(QWidget* parent);
    void setParts(std::shared_ptr<const TransferParts> parts);

  private:
    enum class Page { altered, left, failed, lists, emptied, all };
    static constexpr std::size_t pageCount = 6;
    struct Row {
        std::shared_ptr<const TransferParts> parts;
        Page page = Page::all;
        std::size_t at = 0;
    };
    static Cell whatCell(const Row& row);
    static Cell whyCell(const Row& row);
    std::vector<std::size_t> rowsOf(Page page) const;
    void showPage();

    std::shared_ptr<const TransferParts> parts_;
    std::array<QPushButton*, pageCount> pages_{};
    Page page_ = Page::altered;
    RowListModel<Row>* rows_;
    ListView* list_;
};

} // namespace sober::app
