#pragma once

#include "core/intake/tag_table.h"

#include <QAbstractTableModel>

namespace sober::app {

/// The role under which a cell gives what is proposed in its place.
inline constexpr int proposalRole = Qt::UserRole + 20;

/// A TagTable as a view edits it. The first column is the file's name.
class TagTableModel : public QAbstractTableModel {
    Q_OBJECT

  public:
    TagTableModel(TagTable table, QObject* parent) : QAbstractTableModel(parent), table_(std::move(table)) {}

    const TagTable& table() const { return table_; }
    static TagTable::Cell cellAt(const QModelIndex& index);
    static bool isField(const QModelIndex& index) { return index.column() > 0; }
    /// What is changed together when one of them is: the selected cells.
    void setSelected(std::vector<TagTable::Cell> cells) { selected_ = std::move(cells); }

    /// Changes the table by whatever is done to it.
    template <typename Work>
    void change(Work work) {
        work(table_);
        emit dataChanged(index(0, 0), index(rowCount({}) - 1, columnCount({}) - 1));
    }

    int rowCount(const QModelIndex& parent) const override;
    int columnCount(const QModelIndex& parent) const override;
    QVariant data(const QModelIndex& index, int role) const override;
    QVariant headerData(int section, Qt::Orientation orientation, int role) const override;
    Qt::ItemFlags flags(const QModelIndex& index) const override;
    bool setData(const QModelIndex& index, const QVariant& value, int role) override;

  private:
    TagTable table_;
    std::vector<TagTable::Cell> selected_;
};

} // namespace sober::app
