#include "app/desks/tags/tag_table_model.h"

#include "app/lists/list_view.h"
#include "app/theme/marks.h"
#include "app/theme/theme.h"
#include "app/words.h"

#include <QFont>

#include <algorithm>

namespace sober::app {
namespace {

QString fieldHeading(std::size_t field) {
    const QString headings[]{TagTableModel::tr("Title"),    TagTableModel::tr("Artist"),
                             TagTableModel::tr("Album"),    TagTableModel::tr("Album artist"),
                             TagTableModel::tr("Track"),    TagTableModel::tr("Disc"),
                             TagTableModel::tr("Date"),     TagTableModel::tr("Genre"),
                             TagTableModel::tr("Composer"), TagTableModel::tr("Comment")};
    return headings[field];
}

} // namespace

TagTable::Cell TagTableModel::cellAt(const QModelIndex& index) {
    return {static_cast<std::size_t>(index.row()), static_cast<std::size_t>(index.column() - 1)};
}

int TagTableModel::rowCount(const QModelIndex& parent) const {
    return parent.isValid() ? 0 : static_cast<int>(table_.rows());
}

int TagTableModel::columnCount(const QModelIndex& parent) const {
    return parent.isValid() ? 0 : static_cast<int>(TagTable::fields.size()) + 1;
}

QVariant TagTableModel::headerData(int section, Qt::Orientation orientation, int role) const {
    if (orientation != Qt::Horizontal || role != Qt::DisplayRole) {
        return QAbstractTableModel::headerData(section, orientation, role);
    }
    return section == 0 ? tr("File") : fieldHeading(static_cast<std::size_t>(section) - 1);
}

QVariant TagTableModel::data(const QModelIndex& index, int role) const {
    const auto& inks = Theme::inks();
    if (!isField(index)) {
        const auto& path = table_.pathOf(static_cast<std::size_t>(index.row()));
        return role == Qt::DisplayRole      ? QVariant(shownPath(BytePath(nameOf(path))))
               : role == Qt::ToolTipRole    ? QVariant(shownPath(path))
               : role == Qt::ForegroundRole ? QVariant(inks.quiet)
                                            : QVariant();
    }
    const auto cell = cellAt(index);
    const auto* proposal = table_.proposalFor(cell);
    switch (role) {
    case Qt::DisplayRole:
    case Qt::EditRole:
        return shown(table_.textAt(cell));
    case Qt::ForegroundRole:
        return table_.isChanged(cell) ? QVariant(inks.accent) : QVariant(inks.ink);
    case proposalRole:
        return proposal != nullptr ? QVariant(shown(proposal->shall)) : QVariant();
    case markRole:
        return static_cast<int>(proposal != nullptr ? Mark::retag : Mark::none);
    case Qt::FontRole: {
        QFont font = Theme::text();
        font.setWeight(table_.isChanged(cell) ? QFont::DemiBold : QFont::Normal);
        return font;
    }
    case Qt::ToolTipRole:
        return proposal != nullptr
                   ? QVariant(tr("Proposed: %1. %2")
                                  .arg(proposal->shall.empty() ? tr("nothing") : shown(proposal->shall),
                                       told(proposal->why)))
               : table_.isChanged(cell) ? QVariant(tr("Was: %1").arg(shown(table_.textBefore(cell))))
                                        : QVariant();
    default:
        return {};
    }
}

Qt::ItemFlags TagTableModel::flags(const QModelIndex& index) const {
    return QAbstractTableModel::flags(index) | (isField(index) ? Qt::ItemIsEditable : Qt::NoItemFlags);
}

bool TagTableModel::setData(const QModelIndex& index, const QVariant& value, int role) {
    if (role != Qt::EditRole || !isField(index)) {
        return false;
    }
    const auto cell = cellAt(index);
    std::vector<TagTable::Cell> cells;
    const bool isAmongMany = std::ranges::find(selected_, cell) != selected_.end();
    std::ranges::copy_if(selected_, std::back_inserter(cells),
                         [&](const TagTable::Cell& each) { return isAmongMany && each.field == cell.field; });
    if (cells.empty()) {
        cells.push_back(cell);
    }
    change([&](TagTable& table) { table.set(cells, value.toString().toStdString()); });
    return true;
}

} // namespace sober::app
