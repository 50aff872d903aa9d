#pragma once

#include <QStyledItemDelegate>

namespace sober::app {

inline constexpr int heightOfRow = 28; ///< pixels

/// How a cell looks in every list and tree: its mark, then its text, cut where it has no room (list_view.h
/// has the roles).
class CellPainter : public QStyledItemDelegate {
  public:
    using QStyledItemDelegate::QStyledItemDelegate;

    static constexpr int markWidth = 20; ///< pixels before the text
    static constexpr int padding = 8;    ///< pixels at either side

    void paint(QPainter* painter, const QStyleOptionViewItem& option,
               const QModelIndex& index) const override;
    QSize sizeHint(const QStyleOptionViewItem& option, const QModelIndex& index) const override;
};

} // namespace sober::app
