#include "app/desks/find/place_tree.h"

#include "app/charts/worst.h"
#include "app/lists/cell_painter.h"
#include "app/lists/dragged.h"
#include "app/lists/list_view.h"
#include "app/words.h"
#include "core/catalogue/volumes.h"

#include <QDragMoveEvent>
#include <QHeaderView>
#include <QMimeData>
#include <QScopedValueRollback>
#include <QStandardItemModel>

#include <algorithm>

namespace sober::app {
namespace {

constexpr int placeRole = Qt::UserRole + 10;  ///< the folder's bytes
constexpr int volumeRole = Qt::UserRole + 11; ///< its volume; none for everything
constexpr int filledRole = Qt::UserRole + 12; ///< its folders have been looked up, or are being

Place placeOfItem(const QStandardItem& item) {
    const auto volume = item.data(volumeRole);
    return {volume.isValid() ? std::optional<VolumeId>(volume.toLongLong()) : std::nullopt,
            item.data(placeRole).toByteArray().toStdString()};
}

/// A length in as few letters as tell how much it is; the tip has it whole.
QString shortLength(double seconds) {
    return seconds >= 36'000
               ? PlaceTree::tr("%1 h").arg(told(humanCount(static_cast<std::uint64_t>(seconds / 3600 + 0.5))))
           : seconds >= 3600 ? PlaceTree::tr("%1 h").arg(figure(seconds / 3600, 1))
           : seconds >= 59.5 ? PlaceTree::tr("%1 min").arg(figure(seconds / 60, 0))
                             : PlaceTree::tr("%1 s").arg(figure(seconds, 0));
}

/// The cells of one row.
QList<QStandardItem*> rowOf(const Place& place, const QString& name, Mark mark, std::uint64_t holdings,
                            double seconds, bool quiet) {
    auto* first = new QStandardItem(name);
    auto* held = new QStandardItem(told(humanCount(holdings)));
    auto* length = new QStandardItem(shortLength(seconds));
    length->setToolTip(told(humanSeconds(seconds)));
    first->setData(QByteArray::fromStdString(place.folder), placeRole);
    if (place.volume) {
        first->setData(QVariant::fromValue<qlonglong>(*place.volume), volumeRole);
    }
    first->setData(static_cast<int>(mark), markRole);
    first->setData(mark == Mark::none ? name : QStringLiteral("%1, %2").arg(wordFor(mark), name),
                   Qt::AccessibleTextRole);
    first->setToolTip(place.folder.empty() ? name : shownPath(place.folder));
    for (auto* cell : {first, held, length}) {
        cell->setEditable(false);
        cell->setData(quiet, quietRole);
    }
    for (auto* figure : {held, length}) {
        figure->setTextAlignment(Qt::AlignRight | Qt::AlignVCenter);
    }
    return {first, held, length};
}

} // namespace

struct PlaceTree::Seen {
    std::vector<Volume> volumes;
    std::vector<VolumeFigures> figures;
};

PlaceTree::PlaceTree(Workbench& workbench, QWidget* parent)
    : QTreeView(parent), workbench_(workbench), model_(new QStandardItemModel(this)) {
    setAccessibleName(tr("Volumes and their folders"));
    setItemDelegate(new CellPainter(this));
    setModel(model_);
    setUniformRowHeights(true);
    setIndentation(14);
    setEditTriggers(NoEditTriggers);
    setHorizontalScrollMode(ScrollPerPixel);
    setDragDropMode(DragDrop);
    setAutoExpandDelay(600);
    model_->setHorizontalHeaderLabels({tr("Place"), tr("Held"), tr("Length")});
    header()->setStretchLastSection(false);
    header()->setSectionResizeMode(0, QHeaderView::Stretch);
    header()->setMinimumSectionSize(40);
    fitFigures();
    header()->setSectionsMovable(false);
    connect(this, &QTreeView::expanded, this, [this](const QModelIndex& index) {
        auto* item = model_->itemFromIndex(index.siblingAtColumn(0));
        const auto place = placeOfItem(*item);
        open_.insert(place);
        fill(item, place);
    });
    connect(this, &QTreeView::collapsed, this, [this](const QModelIndex& index) {
        open_.erase(placeOfItem(*model_->itemFromIndex(index.siblingAtColumn(0))));
    });
    connect(selectionModel(), &QItemSelectionModel::currentRowChanged, this,
            [this](const QModelIndex& index) {
                if (!filling_ && index.isValid() && index.siblingAtColumn(0).data(placeRole).isValid()) {
                    chosen_ = placeOfItem(*model_->itemFromIndex(index.siblingAtColumn(0)));
                    emit placeChosen();
                }
            });
}

/// The first row has the largest figures.
void PlaceTree::fitFigures() {
    for (const auto& [column, least] : {std::pair(1, 56), {2, 66}}) {
        const auto heading = model_->headerData(column, Qt::Horizontal).toString();
        const auto* first = model_->item(0, column);
        const auto figures = first != nullptr ? fontMetrics().horizontalAdvance(first->text()) : 0;
        header()->resizeSection(
            column, std::max({least, header()->fontMetrics().horizontalAdvance(heading) + 20, figures + 24}));
    }
}

Result<PlaceTree::Seen> PlaceTree::look(const Catalogue& catalogue) {
    auto volumes = Volumes(catalogue).all();
    auto figures = Findings(catalogue).volumeFigures();
    if (!volumes || !figures) {
        return volumes ? figures.error() : volumes.error();
    }
    return Seen{std::move(*volumes), std::move(*figures)};
}

void PlaceTree::reload() {
    workbench_.askLatest<Seen>(asked_, this, &PlaceTree::look, [this](const Seen& seen) { take(seen); });
}

void PlaceTree::take(const Seen& seen) {
    const QScopedValueRollback filling(filling_, true);
    const auto open = open_;
    model_->removeRows(0, model_->rowCount());
    std::uint64_t all = 0;
    double length = 0;
    for (const auto& figures : seen.figures) {
        all += figures.holdings;
        length += figures.duration;
    }
    model_->appendRow(rowOf({}, tr("everything"), Mark::none, all, length, false));
    fitFigures();
    for (const auto& volume : seen.volumes) {
        const auto found = std::ranges::find(seen.figures, volume.id, &VolumeFigures::volume);
        const auto figures = found != seen.figures.end() ? *found : VolumeFigures{.volume = volume.id};
        const Place place{volume.id, {}};
        labels_[volume.id] = volume.label;
        auto row = rowOf(place, volume.atHand ? volumeName(volume) : tr("%1, away").arg(volumeName(volume)),
                         volume.atHand ? markOf(worstOf(figures)) : Mark::away, figures.holdings,
                         figures.duration, !volume.atHand);
        // Something to open, until it is known what is in it.
        row.front()->appendRow(new QStandardItem(tr("…")));
        model_->appendRow(row);
        if (open.contains(place)) {
            expand(row.front()->index());
        }
    }
    open_ = open;
    showChosen();
    emit reloaded();
}

void PlaceTree::fill(QStandardItem* parent, const Place& place) {
    if (!place.volume || parent->data(filledRole).toBool()) {
        return;
    }
    parent->setData(true, filledRole);
    workbench_.ask<Browsed>(
        this, [place](const Catalogue& catalogue) { return browse(catalogue, *place.volume, place.folder); },
        [this, place](const Browsed& browsed) { takeFolders(place, browsed); });
}

void PlaceTree::takeFolders(const Place& place, const Browsed& browsed) {
    auto* parent = itemOf(place);
    if (parent == nullptr) {
        return;
    }
    const QScopedValueRollback filling(filling_, true);
    const bool quiet = parent->data(quietRole).toBool();
    parent->removeRows(0, parent->rowCount());
    const auto open = open_;
    for (const auto& folder : browsed.folders) {
        const auto& figures = folder.figures;
        const Place here{place.volume, figures.path};
        auto row = rowOf(here, shownPath(BytePath(nameOf(figures.path))), markOf(worstOf(figures)),
                         figures.holdings, folder.seconds, quiet);
        row.front()->appendRow(new QStandardItem(tr("…")));
        parent->appendRow(row);
        if (open.contains(here)) {
            expand(row.front()->index());
        }
    }
    showChosen();
}

QStandardItem* PlaceTree::itemOf(const Place& place) const {
    QList<QStandardItem*> left;
    for (int row = 0; row < model_->rowCount(); ++row) {
        left << model_->item(row);
    }
    while (!left.isEmpty()) {
        auto* item = left.takeFirst();
        if (item->data(placeRole).isNull()) {
            continue; // what only stands for folders that are not known yet
        }
        const auto here = placeOfItem(*item);
        if (here == place) {
            return item;
        }
        if (here.volume == place.volume && (here.folder.empty() || isWithin(place.folder, here.folder))) {
            for (int row = 0; row < item->rowCount(); ++row) {
                left << item->child(row);
            }
        }
    }
    return nullptr;
}

QString PlaceTree::chosenWords() const {
    if (!chosen_.volume) {
        return {};
    }
    const auto label = labels_.find(*chosen_.volume);
    return tr(" in %1").arg(shownPath(joinPath(label != labels_.end() ? label->second : "", chosen_.folder)));
}

void PlaceTree::choose(const Place& place) {
    chosen_ = place;
    const QScopedValueRollback filling(filling_, true);
    // All above it is opened, as its folders come in.
    for (auto above = place; above.volume && !above.folder.empty();) {
        above.folder = BytePath(parentOf(above.folder));
        open_.insert(above);
        if (auto* item = itemOf(above)) {
            expand(item->index());
        }
    }
    showChosen();
    emit placeChosen();
}

/// Puts the cursor where the chosen place stands, or on the nearest above it that the tree has open: without
/// a cursor the view would choose for itself.
void PlaceTree::showChosen() {
    const QScopedValueRollback filling(filling_, true);
    Place nearest = chosen_;
    const auto* item = itemOf(nearest);
    while (item == nullptr && !nearest.folder.empty()) {
        nearest.folder = BytePath(parentOf(nearest.folder));
        item = itemOf(nearest);
    }
    if (item != nullptr) {
        setCurrentIndex(item->index());
        scrollTo(item->index());
    }
}

std::optional<Place> PlaceTree::placeAt(const QPoint& point) const {
    const auto index = indexAt(point).siblingAtColumn(0);
    if (!index.isValid() || !index.data(volumeRole).isValid()) {
        return std::nullopt;
    }
    return placeOfItem(*model_->itemFromIndex(index));
}

void PlaceTree::startDrag(Qt::DropActions /*actions*/) {
    if (!chosen_.volume || chosen_.folder.empty()) {
        return; // a volume stays where it is
    }
    dragTold(this, mimeOfFolder(*chosen_.volume, chosen_.folder).release(),
             shownPath(BytePath(nameOf(chosen_.folder))), Qt::MoveAction);
}

void PlaceTree::dragEnterEvent(QDragEnterEvent* event) {
    if (event->mimeData()->hasFormat(idsMimeType) || event->mimeData()->hasFormat(folderMimeType)) {
        event->acceptProposedAction();
        setState(DraggingState); // so that folders that are lingered over open
    }
}

void PlaceTree::dragMoveEvent(QDragMoveEvent* event) {
    QTreeView::dragMoveEvent(event);
    event->setAccepted(placeAt(event->position().toPoint()).has_value());
}

void PlaceTree::dropEvent(QDropEvent* event) {
    setState(NoState);
    const auto into = placeAt(event->position().toPoint());
    if (!into) {
        return;
    }
    event->acceptProposedAction();
    if (const auto ids = idsOf(*event->mimeData()); !ids.empty()) {
        emit holdingsDropped(ids, *into);
    } else if (const auto [volume, folder] = folderOf(*event->mimeData()); volume) {
        emit folderDropped({volume, folder}, *into);
    }
}

} // namespace sober::app
