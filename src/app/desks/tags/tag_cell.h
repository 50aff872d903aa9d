#pragma once

#include <QStyledItemDelegate>

namespace sober::app {

/// A cell of the table of tags: plain, the mark of what is proposed before its text, the current one
/// outlined.
class TagCell : public QStyledItemDelegate {
    Q_OBJECT

  public:
    using QStyledItemDelegate::QStyledItemDelegate;
    void paint(QPainter* painter, const QStyleOptionViewItem& option,
               const QModelIndex& index) const override;
};

} // namespace sober::app
