#include "app/lists/list_view.h"

#include "app/theme/theme.h"

#include <QHeaderView>
#include <QPainter>
#include <QStyledItemDelegate>

namespace sober::app {
namespace {

constexpr int heightOfRow = 28;
constexpr int markWidth = 20;
constexpr int padding = 8;

class CellPainter : public QStyledItemDelegate {
  public:
    using QStyledItemDelegate::QStyledItemDelegate;

    void paint(QPainter* painter, const QStyleOptionViewItem& option,
               const QModelIndex& index) const override {
        const auto& inks = Theme::inks();
        painter->save();
        if (option.state.testFlag(QStyle::State_Selected)) {
            painter->fillRect(option.rect, inks.wash);
        }
        QRect room = option.rect.adjusted(padding, 0, -padding, 0);
        const auto mark = static_cast<Mark>(index.data(markRole).toInt());
        if (mark != Mark::none) {
            paintMark(*painter, QRectF(room.left() - 3, room.top(), markWidth, room.height()), mark);
            room.setLeft(room.left() + markWidth);
        }
        const bool isBytes = index.data(bytesRole).toBool();
        painter->setFont(isBytes ? Theme::bytes() : Theme::text());
        painter->setPen(index.data(quietRole).toBool() ? inks.quiet : inks.ink);
        const auto alignment = static_cast<Qt::Alignment>(index.data(Qt::TextAlignmentRole).toInt());
        const QString text = painter->fontMetrics().elidedText(
            index.data().toString(), isBytes ? Qt::ElideMiddle : Qt::ElideRight, room.width());
        painter->drawText(
            room, Qt::AlignVCenter | (alignment.testFlag(Qt::AlignRight) ? Qt::AlignRight : Qt::AlignLeft),
            text);
        if (option.state.testFlag(QStyle::State_HasFocus)) {
            painter->setPen(inks.accent);
            painter->drawLine(option.rect.bottomLeft(), option.rect.bottomRight());
        }
        painter->restore();
    }
};

} // namespace

ListView::ListView(const QString& accessibleName, QWidget* parent) : QTableView(parent) {
    setAccessibleName(accessibleName);
    setItemDelegate(new CellPainter(this));
    setSelectionBehavior(SelectRows);
    setSelectionMode(ExtendedSelection);
    setEditTriggers(NoEditTriggers);
    setShowGrid(false);
    setWordWrap(false);
    setTabKeyNavigation(false);
    setCornerButtonEnabled(false);
    setHorizontalScrollMode(ScrollPerPixel);
    verticalHeader()->hide();
    verticalHeader()->setSectionResizeMode(QHeaderView::Fixed);
    verticalHeader()->setDefaultSectionSize(heightOfRow);
    horizontalHeader()->setHighlightSections(false);
    horizontalHeader()->setDefaultAlignment(Qt::AlignLeft | Qt::AlignVCenter);
    horizontalHeader()->setStretchLastSection(true);
    horizontalHeader()->setMinimumSectionSize(32);
}

void ListView::setWidths(std::initializer_list<int> widths, int stretched) {
    horizontalHeader()->setStretchLastSection(false);
    int column = 0;
    for (const int width : widths) {
        setColumnWidth(column++, width);
    }
    horizontalHeader()->setSectionResizeMode(stretched, QHeaderView::Stretch);
}

void ListView::setEmptyText(const QString& text) {
    emptyText_ = text;
    viewport()->update();
}

void ListView::paintEvent(QPaintEvent* event) {
    QTableView::paintEvent(event);
    if (model() != nullptr && model()->rowCount() == 0 && !emptyText_.isEmpty()) {
        QPainter painter(viewport());
        painter.setPen(Theme::inks().quiet);
        painter.setFont(Theme::text());
        painter.drawText(viewport()->rect().adjusted(24, 8, -24, -8), Qt::AlignCenter | Qt::TextWordWrap,
                         emptyText_);
    }
}

} // namespace sober::app
