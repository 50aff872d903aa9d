#pragma once

#include "app/lists/columns.h"

#include <QAbstractTableModel>

#include <algorithm>
#include <functional>
#include <map>
#include <string>

namespace sober::app {

/// A table over rows that are all at hand: for lists that stay short.
template <typename Row>
class RowListModel : public QAbstractTableModel {
  public:
    /// What a row is told by from another, whatever else of it changes.
    using Key = std::function<std::string(const Row&)>;

    RowListModel(std::vector<Column<Row>> columns, Key key, QObject* parent)
        : QAbstractTableModel(parent), columns_(std::move(columns)), key_(std::move(key)) {}

    /// New rows; where there are as many as before, what is selected stays selected wherever it stands now.
    void setRows(std::vector<Row> rows) {
        std::vector<std::string> keys;
        std::ranges::transform(rows, std::back_inserter(keys), key_);
        if (keys.size() != keys_.size() || keys.empty()) {
            beginResetModel();
            rows_ = std::move(rows);
            keys_ = std::move(keys);
            endResetModel();
            return;
        }
        const bool moved = keys != keys_;
        if (moved) {
            emit layoutAboutToBeChanged();
            std::map<std::string_view, int> places;
            for (std::size_t at = 0; at < keys.size(); ++at) {
                places.emplace(keys[at], static_cast<int>(at));
            }
            const auto from = persistentIndexList();
            QModelIndexList to;
            for (const auto& before : from) {
                const auto place = places.find(keys_[static_cast<std::size_t>(before.row())]);
                to << (place != places.end() ? index(place->second, before.column()) : QModelIndex());
            }
            changePersistentIndexList(from, to);
        }
        rows_ = std::move(rows);
        keys_ = std::move(keys);
        if (moved) {
            emit layoutChanged();
        }
        emit dataChanged(index(0, 0), index(rowCount({}) - 1, columnCount({}) - 1));
    }
    const std::vector<Row>& rows() const { return rows_; }

    int rowCount(const QModelIndex& parent) const override {
        return parent.isValid() ? 0 : static_cast<int>(rows_.size());
    }
    int columnCount(const QModelIndex& /*parent*/) const override {
        return static_cast<int>(columns_.size());
    }
    QVariant data(const QModelIndex& index, int role) const override {
        const auto& column = columns_[static_cast<std::size_t>(index.column())];
        return cellData(column.cell(rows_[static_cast<std::size_t>(index.row())]), column.right, role);
    }
    QVariant headerData(int section, Qt::Orientation orientation, int role) const override {
        const auto at = static_cast<std::size_t>(section);
        return orientation == Qt::Horizontal
                   ? sober::app::headerData(columns_[at].title, columns_[at].right, role)
                   : QVariant();
    }

  private:
    std::vector<Column<Row>> columns_;
    Key key_;
    std::vector<Row> rows_;
    std::vector<std::string> keys_;
};

} // namespace sober::app
