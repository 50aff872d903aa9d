#pragma once

#include "app/lists/columns.h"

#include <QAbstractTableModel>

namespace sober::app {

/// A table over rows that are all at hand: for lists that stay short.
template <typename Row>
class RowListModel : public QAbstractTableModel {
  public:
    RowListModel(std::vector<Column<Row>> columns, QObject* parent)
        : QAbstractTableModel(parent), columns_(std::move(columns)) {}

    /// New rows; where their number stays, so does the selection.
    void setRows(std::vector<Row> rows) {
        if (rows.size() == rows_.size() && !rows.empty()) {
            rows_ = std::move(rows);
            emit dataChanged(index(0, 0), index(rowCount({}) - 1, columnCount({}) - 1));
            return;
        }
        beginResetModel();
        rows_ = std::move(rows);
        endResetModel();
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
    std::vector<Row> rows_;
};

} // namespace sober::app
