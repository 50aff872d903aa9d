#include "app/desks/tags/tag_cell.h"

#include "app/desks/tags/tag_table_model.h"
#include "app/lists/list_view.h"
#include "app/theme/marks.h"
#include "app/theme/theme.h"

#include <QPainter>

namespace sober::app {
namespace {

constexpr int tagMark = 16; // pixels
constexpr int tagMargin = 8;

} // namespace

void TagCell::paint(QPainter* painter, const QStyleOptionViewItem& option, const QModelIndex& index) const {
    const auto& inks = Theme::inks();
    painter->save();
    painter->fillRect(option.rect, option.state.testFlag(QStyle::State_Selected) ? inks.wash : inks.sheet);
    auto room = QRectF(option.rect).adjusted(tagMargin, 0, -tagMargin / 2.0, 0);
    const auto mark = static_cast<Mark>(index.data(markRole).toInt());
    if (mark != Mark::none) {
        const QRectF box(room.left(), room.center().y() - tagMark / 2.0, tagMark, tagMark);
        paintMark(*painter, box, mark);
        room.setLeft(box.right() + tagMargin / 2.0);
    }
    const auto font = index.data(Qt::FontRole);
    painter->setFont(font.isValid() ? font.value<QFont>() : Theme::text());
    painter->setPen(index.data(Qt::ForegroundRole).value<QColor>());
    auto words = index.data().toString();
    if (words.isEmpty()) { // what might stand there
        words = index.data(proposalRole).toString();
        painter->setPen(inks.quiet);
    }
    const auto text =
        painter->fontMetrics().elidedText(words, Qt::ElideRight, static_cast<int>(room.width()));
    painter->drawText(room, Qt::AlignLeft | Qt::AlignVCenter, text);
    if (option.state.testFlag(QStyle::State_HasFocus)) {
        painter->setPen(inks.accent);
        painter->drawRect(option.rect.adjusted(0, 0, -1, -1));
    }
    painter->restore();
}

} // namespace sober::app
