#include "app/desks/transfer/transfer_changes.h"

#include "app/hand_focus_on.h"
#include "app/words.h"
#include "app/wrap_row.h"

#include <QButtonGroup>
#include <QHBoxLayout>
#include <QPushButton>
#include <QVBoxLayout>

#include <fmt/format.h>

#include <numeric>

namespace sober::app {
namespace {

QString stateWords(const TransferItem& item) {
    switch (item.state) {
    case ItemState::waits:
        return TransferChanges::tr("waits");
    case ItemState::copied:
        return TransferChanges::tr("at its new place");
    case ItemState::there:
        return TransferChanges::tr("was there before");
    case ItemState::failed:
        return TransferChanges::tr("failed");
    }
    return {};
}

} // namespace

TransferChanges::TransferChanges(QWidget* parent)
    : QWidget(parent),
      rows_(new RowListModel<Row>(
          {{tr("At the new place"), &TransferChanges::whatCell},
           {tr("What and why"), &TransferChanges::whyCell}},
          [](const Row& row) { return fmt::format("{} {}", static_cast<int>(row.page), row.at); }, this)),
      list_(new ListView(tr("What the transfer changes"), this)) {
    auto* layout = new QVBoxLayout(this);
    layout->setContentsMargins(0, 0, 0, 0);
    layout->setSpacing(6);
    auto* row = new WrapRow;
    row->setSpacing(6);
    auto* group = new QButtonGroup(this);
    for (std::size_t i = 0; i < pageCount; ++i) {
        pages_[i] = new QPushButton(this);
        pages_[i]->setCheckable(true);
        group->addButton(pages_[i], static_cast<int>(i));
        row->addWidget(pages_[i]);
    }
    pages_[0]->setChecked(true);
    row->addStretch(1);
    layout->addLayout(row);
    list_->setModel(rows_);
    list_->setWidths({480, 400}, 0);
    layout->addWidget(list_, 1);
    handFocusOn(this, list_);
    connect(group, &QButtonGroup::idClicked, this, [this](int page) {
        page_ = static_cast<Page>(page);
        showPage();
    });
    setParts({});
}

std::vector<std::size_t> TransferChanges::rowsOf(Page page) const {
    std::vector<std::size_t> rows;
    if (!parts_) {
        return rows;
    }
    if (page == Page::left || page == Page::lists || page == Page::emptied) {
        rows.resize(page == Page::left    ? parts_->left.size()
                    : page == Page::lists ? parts_->lists.size()
                                          : parts_->emptied.size());
        std::iota(rows.begin(), rows.end(), std::size_t{0});
        return rows;
    }
    for (std::size_t i = 0; i < parts_->items.size(); ++i) {
        const auto& item = parts_->items[i];
        if (page == Page::all || (page == Page::altered && !item.altered.empty()) ||
            (page == Page::failed && item.state == ItemState::failed)) {
            rows.push_back(i);
        }
    }
    return rows;
}

Cell TransferChanges::whatCell(const Row& row) {
    const auto& parts = *row.parts;
    if (row.page == Page::emptied) {
        const auto folder = shownPath(parts.emptied[row.at]);
        return {folder, Mark::retire, true, false, folder};
    }
    const auto& path = row.page == Page::left    ? parts.left[row.at].reference
                       : row.page == Page::lists ? parts.lists[row.at].target
                                                 : parts.items[row.at].target;
    const auto mark = row.page == Page::left    ? Mark::missing
                      : row.page == Page::lists ? parts.lists[row.at].written ? Mark::sound : Mark::none
                      : parts.items[row.at].state == ItemState::failed ? Mark::damaged
                      : parts.items[row.at].state != ItemState::waits  ? Mark::sound
                                                                       : Mark::none;
    return {shownPath(path), mark, true, false,
            shownPath(row.page == Page::left ? path : joinPath(parts.folder, path))};
}

Cell TransferChanges::whyCell(const Row& row) {
    const auto& parts = *row.parts;
    QString text;
    if (row.page == Page::left) {
        text = tr("does not come: %1").arg(told(std::string(sentenceOf(parts.left[row.at].why))));
    } else if (row.page == Page::lists) {
        const auto& list = parts.lists[row.at];
        text = list.source.empty()
                   ? tr("made for the new place")
                   : tr("%1 of %2 come")
                         .arg(told(humanCount(list.coming)), told(counted(list.entries, "entry", "entries")));
    } else if (row.page == Page::emptied) {
        text = tr("no file is left in it: it goes to the trash");
    } else {
        const auto& item = parts.items[row.at];
        text = !item.error.empty()         ? told(displayPath(item.error))
               : row.page == Page::altered ? tr("another name: %1").arg(told(displayPath(item.altered)))
                                           : stateWords(item);
    }
    return {text, Mark::none, false, true, text};
}

void TransferChanges::setParts(std::shared_ptr<const TransferParts> parts) {
    parts_ = std::move(parts);
    const std::array names{tr("Names that change %1"),
                           tr("Does not come %1"),
                           tr("Failed %1"),
                           tr("Lists %1"),
                           tr("Folders left empty %1"),
                           tr("All %1")};
    for (std::size_t i = 0; i < pageCount; ++i) {
        pages_[i]->setText(names[i].arg(told(humanCount(rowsOf(static_cast<Page>(i)).size()))));
    }
    // A row without it has room for the rest.
    const bool anyEmptied = parts_ && !parts_->emptied.empty();
    pages_[static_cast<std::size_t>(Page::emptied)]->setVisible(anyEmptied);
    if (page_ == Page::emptied && !anyEmptied) {
        page_ = Page::altered;
        pages_[static_cast<std::size_t>(page_)]->setChecked(true);
    }
    showPage();
}

void TransferChanges::showPage() {
    const std::array empty{tr("Every name is as it was asked for."),
                           tr("Everything that was chosen comes along."),
                           tr("Nothing has failed."),
                           tr("No list comes along."),
                           QString(),
                           tr("Nothing is chosen yet.")};
    list_->setEmptyText(parts_ ? empty[static_cast<std::size_t>(page_)] : empty.back());
    std::vector<Row> rows;
    for (const auto at : rowsOf(page_)) {
        rows.push_back({parts_, page_, at});
    }
    rows_->setRows(std::move(rows));
}

} // namespace sober::app
