#include "app/lists/list_view.h"

#include "app/lists/cell_painter.h"
#include "app/lists/dragged.h"
#include "app/theme/theme.h"
#include "app/words.h"

#include <QHeaderView>
#include <QPainter>

namespace sober::app {
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

void ListView::startDrag(Qt::DropActions actions) {
    const auto rows = selectionModel()->selectedRows();
    if (!rows.isEmpty()) {
        dragTold(this, model()->mimeData(rows),
                 shown(counted(static_cast<std::uint64_t>(rows.size()), "holding")), actions);
    }
}

} // namespace sober::app
