#pragma once

#include "app/lists/columns.h"
#include "app/lists/dragged.h"
#include "app/workbench.h"

#include <QAbstractTableModel>

#include <map>
#include <set>
#include <span>

namespace sober::app {

/// A table over any number of rows that are told by an id. Only the ids are kept (8 bytes a row);
/// rows are fetched a page at a time, off the interface thread, when a view shows them.
template <typename Row>
class IdListModel : public QAbstractTableModel {
  public:
    using Fetch = std::function<Result<std::vector<Row>>(const Catalogue&, std::span<const std::int64_t>)>;

    IdListModel(Workbench& workbench, std::vector<Column<Row>> columns, Fetch fetch, QObject* parent)
        : QAbstractTableModel(parent),
          workbench_(workbench),
          columns_(std::move(columns)),
          fetch_(std::move(fetch)) {}

    void setIds(std::vector<std::int64_t> ids) {
        beginResetModel();
        ids_ = std::move(ids);
        forget();
        endResetModel();
    }
    const std::vector<std::int64_t>& ids() const { return ids_; }

    /// Fetches the rows anew where they may have changed; ids stay, and so does the selection. Until
    /// the new ones come the old ones are shown.
    void refresh() {
        ++generation_;
        fresh_.clear();
        if (!ids_.empty()) {
            // Those in sight at once, before anything else that a change has to be asked for; others when
            // they are drawn.
            if (pages_.contains(lastDrawn_)) {
                request(lastDrawn_);
            }
            emit dataChanged(index(0, 0), index(rowCount({}) - 1, columnCount({}) - 1));
        }
    }

    /// The row, or nothing while it is being fetched.
    const Row* row(int at) const {
        const int page = at / pageSize;
        lastDrawn_ = page;
        const auto found = pages_.find(page);
        if (found != pages_.end()) {
            request(page);
            const auto offset = static_cast<std::size_t>(at % pageSize);
            return offset < found->second.size() ? &found->second[offset] : nullptr;
        }
        request(page);
        return nullptr;
    }

    int rowCount(const QModelIndex& parent) const override {
        return parent.isValid() ? 0 : static_cast<int>(ids_.size());
    }
    int columnCount(const QModelIndex& /*parent*/) const override {
        return static_cast<int>(columns_.size());
    }
    QVariant data(const QModelIndex& index, int role) const override {
        const auto& column = columns_[static_cast<std::size_t>(index.column())];
        const Row* shownRow = row(index.row());
        return cellData(shownRow != nullptr ? column.cell(*shownRow)
                                            : Cell{QStringLiteral("…"), Mark::none, false, true, {}},
                        column.right, role);
    }
    /// Rows that are dragged go as their ids.
    Qt::ItemFlags flags(const QModelIndex& index) const override {
        return QAbstractTableModel::flags(index) | Qt::ItemIsDragEnabled;
    }
    QStringList mimeTypes() const override { return {idsMimeType}; }
    QMimeData* mimeData(const QModelIndexList& indexes) const override {
        std::vector<std::int64_t> dragged;
        for (const auto& index : indexes) {
            if (index.column() == 0) {
                dragged.push_back(ids_[static_cast<std::size_t>(index.row())]);
            }
        }
        return mimeOfIds(dragged).release();
    }
    QVariant headerData(int section, Qt::Orientation orientation, int role) const override {
        const auto at = static_cast<std::size_t>(section);
        return orientation == Qt::Horizontal
                   ? sober::app::headerData(columns_[at].title, columns_[at].right, role)
                   : QVariant();
    }

  private:
    static constexpr int pageSize = 128;
    static constexpr std::size_t mostPages = 48;

    void forget() {
        ++generation_;
        pages_.clear();
        fresh_.clear();
    }

    void request(int page) const {
        if (!fresh_.insert(page).second) {
            return;
        }
        auto* self = const_cast<IdListModel*>(this);
        const auto first = static_cast<std::size_t>(page) * pageSize;
        const auto last = std::min(first + pageSize, ids_.size());
        std::vector<std::int64_t> wanted(ids_.begin() + static_cast<std::ptrdiff_t>(first),
                                         ids_.begin() + static_cast<std::ptrdiff_t>(last));
        workbench_.ask<std::vector<Row>>(
            self,
            [wanted = std::move(wanted), fetch = fetch_](const Catalogue& catalogue) {
                return fetch(catalogue, wanted);
            },
            [self, page, generation = generation_](const std::vector<Row>& rows) {
                self->take(page, generation, rows);
            });
    }

    void take(int page, unsigned generation, const std::vector<Row>& rows) {
        if (generation != generation_) {
            return;
        }
        if (pages_.size() >= mostPages) {
            // The page farthest from the one that came is the least likely to be seen next.
            const auto farthest = page - pages_.begin()->first > std::prev(pages_.end())->first - page
                                      ? pages_.begin()
                                      : std::prev(pages_.end());
            fresh_.erase(farthest->first);
            pages_.erase(farthest);
        }
        pages_[page] = rows;
        const int first = page * pageSize;
        const int last = std::min(first + pageSize, rowCount({})) - 1;
        if (last >= first) {
            emit dataChanged(index(first, 0), index(last, columnCount({}) - 1));
        }
    }

    Workbench& workbench_;
    std::vector<Column<Row>> columns_;
    Fetch fetch_;
    std::vector<std::int64_t> ids_;
    unsigned generation_ = 0;
    mutable int lastDrawn_ = -1; ///< a page
    mutable std::map<int, std::vector<Row>> pages_;
    mutable std::set<int> fresh_; ///< pages that are as they should be, or are on their way
};

} // namespace sober::app
