#include "app/desks/find/find_desk.h"

#include "app/desks/ask_window.h"
#include "app/desks/file_manager.h"
#include "app/desks/find/move_window.h"
#include "app/desks/standing_list_box.h"
#include "app/desks/tags/tag_table_window.h"
#include "app/hand_focus_on.h"
#include "app/listening/listening_bar.h"
#include "app/words.h"
#include "app/wrap_row.h"
#include "core/audit/plan_places.h"
#include "core/base/inner_path.h"
#include "core/catalogue/docket_store.h"
#include "core/catalogue/holdings.h"
#include "core/catalogue/volumes.h"

#include <QHBoxLayout>
#include <QLabel>
#include <QPushButton>
#include <QSettings>
#include <QShortcut>
#include <QSplitter>
#include <QVBoxLayout>

#include <algorithm>

namespace sober::app {
namespace {

/// Where a place is now, whether it is at hand or not.
Result<BytePath> absolutePlace(const Catalogue& catalogue, const Place& place) {
    const auto volumes = Volumes(catalogue).all();
    RETURN_IF_FAILED(volumes);
    const auto volume = std::ranges::find(*volumes, place.volume.value_or(0), &Volume::id);
    if (volume == volumes->end()) {
        return Error{Cause::notFound, place.folder, "This volume is not catalogued any more."};
    }
    return joinPath(volume->root, place.folder);
}

} // namespace

FindDesk::FindDesk(Workbench& workbench)
    : Desk(workbench, tr("Find"), tr("Where is it, and what is there?")),
      asked_(new NarrowingRow(this)),
      lists_(new StandingListBox(workbench, this)),
      tree_(new PlaceTree(workbench, this)),
      hits_(new HitsChart(this)),
      count_(quietLabel({}, this)),
      panel_(new FoundPanel(workbench, this)) {
    body()->addWidget(asked_);
    connect(asked_, &NarrowingRow::changed, this, [this] { search(); });
    connect(asked_, &NarrowingRow::downPressed, this, [this] { list_->setFocus(); });
    buildLists();
    buildButtons();
    connect(&workbench, &Workbench::searchBegan, this, &FindDesk::takeFirst);
    connect(&workbench, &Workbench::searched, this, &FindDesk::take);
    handFocusOn(this, asked_);
}

void FindDesk::buildLists() {
    rows_ = new IdListModel<FoundRow>(workbench(), foundColumns(), &fetchFoundRows, this);
    list_ = new ListView(tr("What was found"), this);
    list_->setModel(rows_);
    list_->setWidths({108, 150, 98, 180, 104, 66, 58, 46}, 3);
    list_->setContextMenuPolicy(Qt::CustomContextMenu);
    list_->setEmptyText(
        tr("Nothing that is catalogued has all these words. Fewer words or less narrowing find more."));
    count_->setAccessibleName(tr("How many were found"));

    auto* right = new QWidget(this);
    auto* rightLayout = new QVBoxLayout(right);
    rightLayout->setContentsMargins(0, 0, 0, 0);
    rightLayout->setSpacing(6);
    rightLayout->addWidget(hits_);
    rightLayout->addWidget(count_);
    rightLayout->addWidget(list_, 1);
    rightLayout->addWidget(panel_);
    auto* split = new QSplitter(Qt::Horizontal, this);
    split->setChildrenCollapsible(false);
    split->addWidget(tree_);
    split->addWidget(right);
    split->setStretchFactor(1, 1);
    split->setSizes({270, 770});
    split->restoreState(QSettings().value(QStringLiteral("find/split")).toByteArray());
    connect(split, &QSplitter::splitterMoved, this,
            [split] { QSettings().setValue(QStringLiteral("find/split"), split->saveState()); });
    body()->addWidget(split, 1);
    connect(tree_, &PlaceTree::placeChosen, this, [this] { search(); });
    connect(hits_, &HitsChart::folderChosen, this, [this](qlonglong volume, const QByteArray& folder) {
        tree_->choose({volume, folder.toStdString()});
    });
    connect(list_->selectionModel(), &QItemSelectionModel::currentRowChanged, this, [this] { askDetail(); });
    connect(list_, &QWidget::customContextMenuRequested, this, [this](const QPoint& at) {
        const int row = list_->rowAt(at.y());
        if (const auto* here = row >= 0 ? rows_->row(row) : nullptr) {
            showFileMenu(*this, here->found.path, list_->viewport()->mapToGlobal(at));
        }
    });
}

void FindDesk::buildButtons() {
    auto* folder = keyButton(tr("Show in its folder"), QKeySequence(Qt::Key_O), this);
    folder->setToolTip(tr("Open the folder of the chosen one in the file manager"));
    auto* retire = keyButton(tr("Retire"), QKeySequence(Qt::Key_R), this);
    retire->setToolTip(tr("Put the selected on the docket, to be retired into the trash"));
    auto* move = keyButton(tr("Move…"), QKeySequence(Qt::Key_M), this);
    move->setToolTip(tr(
        "Move the selected, or the folder where that has the cursor; or drag them onto a volume or folder. "
        "What lies inside an archive is copied out of it"));
    auto* tags = keyButton(tr("Tags…"), QKeySequence(Qt::Key_G), this);
    tags->setToolTip(tr("Edit the tags of the selected in a table"));
    connect(tags, &QPushButton::clicked, this, &FindDesk::editTags);
    auto* withdraw = keyButton(tr("Take back"), QKeySequence(Qt::Key_U), this);
    withdraw->setToolTip(tr("Take the selected off the docket again"));
    auto* keep = new QPushButton(tr("Keep as list…"), this);
    keep->setToolTip(tr("Keep what is asked for now as a standing list that is always current"));
    auto* bring = keyButton(tr("Bring along…"), QKeySequence(Qt::Key_B), this);
    bring->setToolTip(tr("Have what is asked for now come along in a transfer to another place"));
    connect(bring, &QPushButton::clicked, this, [this] {
        if (const auto asked = filter()) {
            const auto words = asked_->words();
            emit transferWanted(words.isEmpty() ? tr("what was found") : tr("found: %1").arg(words), *asked);
        }
    });
    heading()->addWidget(lists_, 0, Qt::AlignBottom);
    heading()->addWidget(keep, 0, Qt::AlignBottom);
    auto* row = new WrapRow;
    row->setSpacing(8);
    row->addWidget(folder);
    row->addWidget(retire);
    row->addWidget(move);
    row->addWidget(tags);
    row->addWidget(withdraw);
    row->addWidget(bring);
    row->addStretch(1);
    row->addWidget(quietLabel(tr("P listens · a word between quotes keeps its spaces"), this));
    body()->addLayout(row);
    auto* play = new QShortcut(QKeySequence(Qt::Key_P), this);
    play->setContext(Qt::WidgetWithChildrenShortcut);
    connect(play, &QShortcut::activated, this, [this] { panel_->listening().toggle(); });
    connect(folder, &QPushButton::clicked, this, [this] {
        const auto* here = list_->currentRow() >= 0 ? rows_->row(list_->currentRow()) : nullptr;
        if (here != nullptr && here->found.reachable) {
            openFolderOf(here->found.path);
        } else if (here != nullptr) {
            emit workbench().failed(tr("Its folder cannot be shown: %1.").arg(told(reachWords(here->found))));
        }
    });
    connect(retire, &QPushButton::clicked, this, [this] { this->retire(); });
    connect(move, &QPushButton::clicked, this, [this] { this->move(); });
    buildDragging();
    connect(withdraw, &QPushButton::clicked, this, [this] {
        workbench().decide(
            [ids = selected()](const Catalogue& catalogue) { return DocketStore(catalogue).remove(ids); });
    });
    connect(keep, &QPushButton::clicked, this, [this] { keepList(); });
    connect(lists_, &StandingListBox::listChanged, this, [this] { search(); });
}

void FindDesk::buildDragging() {
    list_->setDragEnabled(true);
    list_->setDragDropMode(QAbstractItemView::DragOnly);
    connect(tree_, &PlaceTree::holdingsDropped, this,
            [this](const std::vector<HoldingId>& ids, const Place& into) { planMoves(ids, into, {}); });
    connect(tree_, &PlaceTree::folderDropped, this,
            [this](const Place& dragged, const Place& into) { planFolderMove(dragged, into, {}); });
}

/// A standing list's filter, the chosen place, and what is asked for beside them.
std::optional<HoldingFilter> FindDesk::filter() const {
    auto filter = lists_->filter().value_or(HoldingFilter{});
    if (const auto& place = tree_->chosen(); place.volume) {
        filter.volume = place.volume;
        filter.folder = place.folder;
    }
    return asked_->narrowed(std::move(filter));
}

Result<FindDesk::Ground> FindDesk::look(const Catalogue& catalogue) {
    auto volumes = Volumes(catalogue).all();
    auto codecs = Holdings(catalogue).codecs();
    if (!volumes || !codecs) {
        return volumes ? codecs.error() : volumes.error();
    }
    Ground ground{std::move(*volumes), {}, std::move(*codecs)};
    for (const auto& volume : ground.volumes) {
        auto folders = Findings(catalogue).folderFigures(volume.id, 1);
        RETURN_IF_FAILED(folders);
        ground.folders.emplace_back(volume.id, std::move(*folders));
    }
    return ground;
}

void FindDesk::reload() {
    lists_->reload();
    tree_->reload();
    workbench().ask<Ground>(this, &FindDesk::look, [this, asked = ++groundAsked_](const Ground& ground) {
        if (asked != groundAsked_) {
            return;
        }
        ground_ = ground;
        asked_->setCodecs(ground_.codecs);
        drawHits();
    });
    search();
}

void FindDesk::reloadDecisions() {
    lists_->reload();
    rows_->refresh();
}

void FindDesk::search() {
    if (!workbench().isOpen()) {
        return;
    }
    if (const auto asked = filter()) {
        workbench().search(*asked);
    } else {
        count_->setText(tr("A span is FROM-TO, either of which may be left out, as 96-160."));
    }
}

void FindDesk::takeFirst(const std::vector<HoldingId>& first) {
    if (isVisible()) {
        count_->setText(tr("searching… the first %1").arg(told(humanCount(first.size()))));
        showIds(first);
    }
}

void FindDesk::take(std::shared_ptr<const SearchResult> result) {
    result_ = std::move(result);
    const auto gone = result_->ids.size() - result_->present;
    const QString present = told(counted(result_->present, "holding")) + tree_->chosenWords();
    count_->setText(gone == 0 ? present : tr("%1; %2 no longer there").arg(present, told(humanCount(gone))));
    showIds(result_->ids);
    drawHits();
}

void FindDesk::showIds(const std::vector<HoldingId>& ids) {
    if (ids == rows_->ids()) {
        rows_->refresh();
        askDetail();
        return;
    }
    rows_->setIds(ids);
    const auto still = std::ranges::find(ids, shown_);
    if (ids.empty()) {
        askDetail();
    } else {
        list_->selectRow(still != ids.end() ? static_cast<int>(still - ids.begin()) : 0);
    }
}

void FindDesk::drawHits() {
    std::vector<HitsChart::Line> lines;
    for (const auto& volume : ground_.volumes) {
        HitsChart::Line line{volume.id, volumeName(volume), volume.atHand, {}};
        const auto folders =
            std::ranges::find(ground_.folders, volume.id, [](const auto& each) { return each.first; });
        for (const auto& folder : folders->second) {
            HitsChart::Folder drawn{folder.path, folder.holdings + folder.missing, 0};
            if (result_) {
                const auto hits = result_->folders.find({volume.id, folder.path});
                drawn.hits = hits != result_->folders.end() ? hits->second : 0;
            }
            line.folders.push_back(drawn);
        }
        lines.push_back(std::move(line));
    }
    hits_->setLines(std::move(lines));
}

void FindDesk::askDetail() {
    const int row = list_->currentRow();
    if (row < 0 || row >= static_cast<int>(rows_->ids().size())) {
        shown_ = 0;
        ++detailAsked_;
        panel_->setDetail(std::nullopt);
        return;
    }
    shown_ = rows_->ids()[static_cast<std::size_t>(row)];
    workbench().ask<std::optional<FoundDetail>>(
        this, [holding = shown_](const Catalogue& catalogue) { return detailOfFound(catalogue, holding); },
        [this, asked = ++detailAsked_](const std::optional<FoundDetail>& detail) {
            if (asked == detailAsked_) {
                panel_->setDetail(detail);
            }
        });
}

void FindDesk::editTags() {
    workbench().ask<std::vector<FoundHolding>>(
        this, [ids = selected()](const Catalogue& catalogue) { return foundHoldings(catalogue, ids); },
        [this](const std::vector<FoundHolding>& found) {
            TagTableWindow::Files files;
            for (const auto& each : found) {
                if (each.reachable) {
                    files.emplace_back(each.holding.id, each.path);
                }
            }
            if (files.empty()) {
                emit workbench().failed(tr("Choose holdings that are at hand first."));
            } else {
                (new TagTableWindow(workbench(), std::move(files), this))->open();
            }
        });
}

std::vector<HoldingId> FindDesk::selected() const {
    std::vector<HoldingId> ids;
    for (const auto& index : list_->selectionModel()->selectedRows()) {
        ids.push_back(rows_->ids()[static_cast<std::size_t>(index.row())]);
    }
    return ids;
}

void FindDesk::retire() {
    std::vector<DocketAction> actions;
    for (const auto& index : list_->selectionModel()->selectedRows()) {
        const auto* row = rows_->row(index.row());
        if (row == nullptr || row->found.holding.state == HoldingState::present) {
            actions.push_back({0, ActionKind::retire, rows_->ids()[static_cast<std::size_t>(index.row())],
                               "found and not wanted", timeNow()});
        }
    }
    if (actions.empty()) {
        emit workbench().failed(tr("Nothing of what is selected is there to be retired."));
        return;
    }
    workbench().decide([actions](const Catalogue& catalogue) { return DocketStore(catalogue).add(actions); });
}

void FindDesk::move() {
    const auto& place = tree_->chosen();
    const bool ofFolder = tree_->hasFocus() && place.volume && !place.folder.empty();
    const auto ids = selected();
    const auto* row = list_->currentRow() >= 0 ? rows_->row(list_->currentRow()) : nullptr;
    MoveWindow::What what;
    if (ofFolder) {
        what = {tr("the folder %1").arg(shownPath(place.folder)),
                BytePath(nameOf(place.folder)),
                {place.volume, BytePath(parentOf(place.folder))},
                isInsideArchive(place.folder + "/")};
    } else if (row != nullptr && !ids.empty()) {
        const BytePath& path = row->found.holding.path;
        const auto inner = innerPathOf(path);
        const bool one = ids.size() == 1;
        what = {one ? shownPath(BytePath(nameOf(path))) : told(counted(ids.size(), "holding")),
                one ? std::optional(BytePath(nameOf(path))) : std::nullopt,
                {row->found.holding.volume, BytePath(parentOf(inner ? inner->archive : path))},
                inner.has_value()};
    } else {
        return;
    }
    auto* window = new MoveWindow(workbench(), what, this);
    connect(window, &MoveWindow::chosen, this,
            [this, ofFolder, place, ids](const Place& into, const std::optional<BytePath>& name) {
                ofFolder ? planFolderMove(place, into, name) : planMoves(ids, into, name);
            });
    window->open();
}

void FindDesk::planMoves(const std::vector<HoldingId>& holdings, const Place& into,
                         const std::optional<BytePath>& name) {
    workbench().decide([holdings, into, name](const Catalogue& catalogue) -> Outcome {
        const auto folder = absolutePlace(catalogue, into);
        RETURN_IF_FAILED(folder);
        return name
                   ? planMovesTo(catalogue, std::array{std::pair(holdings.front(), joinPath(*folder, *name))},
                                 "moved by hand")
                   : planMoveInto(catalogue, holdings, *folder, "moved by hand");
    });
}

void FindDesk::planFolderMove(const Place& folder, const Place& into, const std::optional<BytePath>& name) {
    workbench().decide([folder, into, name](const Catalogue& catalogue) -> Outcome {
        const auto from = absolutePlace(catalogue, folder);
        const auto target = absolutePlace(catalogue, into);
        if (!from || !target) {
            return from ? target.error() : from.error();
        }
        const auto kind = isInsideArchive(folder.folder + "/") ? ActionKind::copy : ActionKind::move;
        return planMoveAs(catalogue, *from, joinPath(*target, name.value_or(BytePath(nameOf(folder.folder)))),
                          "moved by hand", kind);
    });
}

void FindDesk::keepList() {
    const auto asked = filter();
    if (!asked) {
        return;
    }
    const auto chosen = lists_->chosen();
    auto* window = new AskWindow(
        {tr("Keep as a standing list"),
         tr("What is asked for now is kept by this name. The list is looked up anew whenever it "
            "is used, on every desk that has it."),
         tr("Keep"),
         {},
         chosen ? shown(chosen->name) : asked_->words()},
        this);
    connect(window, &AskWindow::answered, this, [this, filter = *asked](const QString& name) {
        workbench().decide([filter, name = name.toStdString()](const Catalogue& catalogue) {
            return StandingLists(catalogue).keep(name, filter);
        });
    });
    window->open();
}

} // namespace sober::app
