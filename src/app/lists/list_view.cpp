#include "app/lists/list_view.h"

#include "app/lists/cell_painter.h"
#include "app/lists/dragged.h"
#include "app/theme/theme.h"
#include "app/words.h"

#include <QHeaderView>
#include <QPainter>
#include <QTimer>

#include <algorithm>

namespace sober::app {
ListView::ListView(const QString& accessibleName, QWidget* parent)
    : QTableView(parent), fitting_(new QTimer(this)) {
    fitting_->setSingleShot(true);
    fitting_->setInterval(0);
    connect(fitting_, &QTimer::timeout, this, &ListView::fitColumns);
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
    stretched_ = stretched;
    fitColumns();
}

void ListView::setModel(QAbstractItemModel* model) {
    QTableView::setModel(model);
    connect(model, &QAbstractItemModel::modelReset, fitting_, qOverload<>(&QTimer::start));
    connect(model, &QAbstractItemModel::layoutChanged, fitting_, qOverload<>(&QTimer::start));
    connect(model, &QAbstractItemModel::dataChanged, fitting_, qOverload<>(&QTimer::start));
}

int ListView::headingNeeds(int column) const {
    const auto heading = model()->headerData(column, Qt::Horizontal).toString();
    return horizontalHeader()->fontMetrics().horizontalAdvance(heading) + 2 * CellPainter::padding + 4;
}

int ListView::neededBy(int column) const {
    constexpr int aScreen = 40; // rows that are looked at
    constexpr int mostWords = 300;
    constexpr int room = 2 * CellPainter::padding + 4;
    int needed = headingNeeds(column);
    const QFontMetrics metrics(Theme::text());
    const int first = std::max(0, rowAt(0));
    for (int row = first; row < std::min(first + aScreen, model()->rowCount()); ++row) {
        const auto index = model()->index(row, column);
        const bool hasMark = index.data(markRole).toInt() != static_cast<int>(Mark::none);
        const auto alignment = static_cast<Qt::Alignment>(index.data(Qt::TextAlignmentRole).toInt());
        if (!index.data(bytesRole).toBool() && (hasMark || alignment.testFlag(Qt::AlignRight))) {
            needed = std::max(needed, std::min(mostWords, metrics.horizontalAdvance(index.data().toString()) +
                                                              room + (hasMark ? CellPainter::markWidth : 0)));
        }
    }
    return needed;
}

void ListView::fitColumns() {
    if (model() == nullptr || stretched_ < 0) {
        return;
    }
    for (int column = 0; column < model()->columnCount(); ++column) {
        if (column != stretched_ && !isColumnHidden(column)) {
            setColumnWidth(column, std::max(columnWidth(column), neededBy(column)));
        }
    }
    giveTheRest();
}

void ListView::giveTheRest() {
    if (model() == nullptr || stretched_ < 0 || stretched_ >= model()->columnCount()) {
        return;
    }
    constexpr int someWords = 96;
    int others = 0;
    for (int column = 0; column < model()->columnCount(); ++column) {
        others += column == stretched_ ? 0 : columnWidth(column);
    }
    const int least = std::max(someWords, headingNeeds(stretched_));
    const bool fits = viewport()->width() - others >= least;
    horizontalHeader()->setSectionResizeMode(stretched_,
                                             fits ? QHeaderView::Stretch : QHeaderView::Interactive);
    if (!fits) {
        setColumnWidth(stretched_, least);
    }
}

void ListView::resizeEvent(QResizeEvent* event) {
    QTableView::resizeEvent(event);
    giveTheRest();
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
                 told(counted(static_cast<std::uint64_t>(rows.size()), "holding")), actions);
    }
}

} // namespace sober::app
