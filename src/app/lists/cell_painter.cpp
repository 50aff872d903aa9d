#include "app/lists/cell_painter.h"

#include "app/lists/list_view.h"
#include "app/theme/theme.h"

#include <QPainter>
#include <QStyle>

namespace sober::app {
void CellPainter::paint(QPainter* painter, const QStyleOptionViewItem& option,
                        const QModelIndex& index) const {
    const auto& inks = Theme::inks();
    painter->save();
    if (option.state.testFlag(QStyle::State_Selected)) {
        painter->fillRect(option.rect, inks.wash);
    }
    QRect room = option.rect.adjusted(padding, 0, -padding, 0);
    const auto mark = static_cast<Mark>(index.data(markRole).toInt());
    if (mark != Mark::none) {
        const QRect place(room.left() - 3, room.top(), markWidth, room.height());
        paintMark(*painter, QStyle::visualRect(option.direction, option.rect, place), mark);
        room.setLeft(room.left() + markWidth);
    }
    const bool isBytes = index.data(bytesRole).toBool();
    painter->setFont(isBytes ? Theme::bytes() : Theme::text());
    painter->setPen(index.data(quietRole).toBool() ? inks.quiet : inks.ink);
    const auto alignment = static_cast<Qt::Alignment>(index.data(Qt::TextAlignmentRole).toInt());
    const QString text = painter->fontMetrics().elidedText(
        index.data().toString(), isBytes ? Qt::ElideMiddle : Qt::ElideRight, room.width());
    // A path reads from its root on, in whatever direction the words are written.
    painter->setLayoutDirection(isBytes ? Qt::LeftToRight : option.direction);
    const auto side = alignment.testFlag(Qt::AlignRight) ? Qt::AlignRight : Qt::AlignLeft;
    painter->drawText(QStyle::visualRect(option.direction, option.rect, room),
                      static_cast<int>(Qt::AlignVCenter | QStyle::visualAlignment(option.direction, side)),
                      text);
    if (option.state.testFlag(QStyle::State_HasFocus)) {
        painter->setPen(inks.accent);
        painter->drawLine(option.rect.bottomLeft(), option.rect.bottomRight());
    }
    painter->restore();
}

QSize CellPainter::sizeHint(const QStyleOptionViewItem& option, const QModelIndex& index) const {
    return {QStyledItemDelegate::sizeHint(option, index).width(), heightOfRow};
}

} // namespace sober::app
