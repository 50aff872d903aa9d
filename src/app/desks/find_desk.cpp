#include "app/desks/find_desk.h"

#include "app/charts/claims_map.h"
#include "app/charts/trace_chart.h"
#include "app/desks/ask_window.h"
#include "app/desks/file_manager.h"
#include "app/desks/move_window.h"
#include "app/desks/standing_list_box.h"
#include "app/listening/listening_bar.h"
#include "app/words.h"
#include "core/audit/plan_places.h"
#include "core/catalogue/docket_store.h"
#include "core/catalogue/holdings.h"
#include "core/catalogue/span_text.h"
#include "core/catalogue/volumes.h"

#include <QComboBox>
#include <QHBoxLayout>
#include <QKeyEvent>
#include <QLabel>
#include <QLineEdit>
#include <QPushButton>
#include <QScopedValueRollback>
#include <QSettings>
#include <QShortcut>
#include <QSplitter>
#include <QTimer>
#include <QVBoxLayout>

#include <algorithm>

namespace sober::app {
namespace {

constexpr int typingPause = 80; // milliseconds after the last key

std::string typed(const QLineEdit* line) {
    return line->text().toStdString();
}

/// Where a place is now, whether it is at hand or not.
Result<BytePath> absolutePlace(const Catalogue& catalogue, const Place& place) {
    const auto volumes = Volumes(catalogue).all();
    if (!volumes) {
        return volumes.error();
    }
    const auto volume = std::ranges::find(*volumes, place.volume.value_or(0), &Volume::id);
    if (volume == volumes->end()) {
        return Error{Cause::notFound, place.folder, "This volume is not catalogued any more."};
    }
    return joinPath(volume->root, place.folder);
}

} // namespace

FindDesk::FindDesk(Workbench& workbench)
    : Desk(workbench, tr("Find"), tr("Where is it, and what is there?")),
      words_(new QLineEdit(this)),
      codec_(new QComboBox(this)),
      verdict_(new QComboBox(this)),
      listed_(new QComboBox(this)),
      bitrate_(new QLineEdit(this)),
      length_(new QLineEdit(this)),
      years_(new QLineEdit(this)),
      lists_(new StandingListBox(workbench, this)),
      tree_(new PlaceTree(workbench, this)),
      hits_(new HitsChart(this)),
      count_(quietLabel({}, this)),
      panel_(new FoundPanel(this)) {
    buildWords();
    buildLists();
    buildButtons();
    connect(&workbench, &Workbench::searchBegan, this, &FindDesk::takeFirst);
    connect(&workbench, &Workbench::searched, this, &FindDesk::take);
    setFocusProxy(words_);
}

void FindDesk::beginTyping() {
    words_->setFocus();
    words_->selectAll();
}

void FindDesk::buildWords() {
    words_->setPlaceholderText(tr("Words, or parts of words, in titles, names, folders and lists"));
    words_->setAccessibleName(tr("Words to find"));
    words_->setClearButtonEnabled(false);
    codec_->setAccessibleName(tr("Only of a codec"));
    verdict_->setAccessibleName(tr("Only with a verdict"));
    listed_->setAccessibleName(tr("Only in a list or in none"));
    verdict_->addItem(tr("any verdict"));
    using enum VerdictClass;
    for (const auto verdict : {genuine, doubtful, transcoded, undetermined}) {
        verdict_->addItem(verdictWord(verdict), static_cast<int>(verdict));
    }
    listed_->addItem(tr("in lists or not"), static_cast<int>(HoldingFilter::Listed::any));
    listed_->addItem(tr("in a list"), static_cast<int>(HoldingFilter::Listed::inAList));
    listed_->addItem(tr("in no list"), static_cast<int>(HoldingFilter::Listed::inNoList));
    codec_->addItem(tr("all codecs"), QString());
    auto* row = new QHBoxLayout;
    row->setSpacing(8);
    row->addWidget(words_, 1);
    for (auto* box : {codec_, verdict_, listed_}) {
        box->setSizeAdjustPolicy(QComboBox::AdjustToMinimumContentsLengthWithIcon);
        box->setMinimumContentsLength(9);
        row->addWidget(box);
        connect(box, &QComboBox::currentIndexChanged, this, [this] { search(); });
    }
    auto* typing = new QTimer(this);
    typing->setSingleShot(true);
    typing->setInterval(typingPause);
    connect(typing, &QTimer::timeout, this, [this] { search(); });
    connect(words_, &QLineEdit::textChanged, typing, qOverload<>(&QTimer::start));
    for (const auto& [line, name, example] : {std::tuple(bitrate_, tr("kbit/s"), tr("96-160")),
                                              {length_, tr("length"), tr("2:00-5:00")},
                                              {years_, tr("years"), tr("1970-1979")}}) {
        line->setAccessibleName(tr("Only within: %1").arg(name));
        line->setPlaceholderText(name);
        line->setToolTip(tr("From and to, either may be left out, as %1").arg(example));
        line->setFixedWidth(84);
        row->addWidget(line);
        connect(line, &QLineEdit::textChanged, typing, qOverload<>(&QTimer::start));
    }
    body()->addLayout(row);
    // Down goes from the words into what was found.
    auto* down = new QShortcut(QKeySequence(Qt::Key_Down), words_);
    down->setContext(Qt::WidgetShortcut);
    connect(down, &QShortcut::activated, this, [this] { list_->setFocus(); });
}

std::vector<Column<FindDesk::FoundRow>> FindDesk::columns() {
    return {{tr("State"),
             [](const FoundRow& row) {
                 return row.waiting == ActionKind::retire
                            ? Cell{tr("to retire"), Mark::retire, false, false, {}}
                        : row.waiting == ActionKind::move
                            ? Cell{tr("to move"), Mark::moved, false, false, {}}
                            : Cell{conditionWords(row.found),
                                   markOf(row.found),
                                   false,
                                   row.found.holding.state != HoldingState::present,
                                   {}};
             }},
            {tr("Title"),
             [](const FoundRow& row) {
                 const auto& holding = row.found.holding;
                 return Cell{holding.tags.title.empty() ? shownPath(BytePath(nameOf(holding.path)))
                                                        : shown(holding.tags.title),
                             Mark::none, false, !row.found.reachable, shown(holding.tags.artist)};
             }},
            {tr("Volume"),
             [](const FoundRow& row) {
                 const auto& volume = row.found.volume;
                 return Cell{shown(volume.label), volume.atHand ? Mark::none : Mark::away, false,
                             !volume.atHand, shown(reachWords(row.found))};
             }},
            {tr("Folder"),
             [](const FoundRow& row) {
                 return Cell{shownPath(BytePath(parentOf(row.found.holding.path))), Mark::none, true,
                             !row.found.reachable, shownPath(row.found.path)};
             }},
            {tr("Claims"),
             [](const FoundRow& row) {
                 return Cell{claimWords(row.found.holding.claims), Mark::none, false, false, {}};
             }},
            {tr("Length"),
             [](const FoundRow& row) {
                 return Cell{
                     shown(humanSeconds(row.found.holding.claims.duration)), Mark::none, false, false, {}};
             },
             true},
            {tr("Copies"),
             [](const FoundRow& row) {
                 return row.found.copies > 0 ? Cell{shown(humanCount(row.found.copies)), Mark::copies, false,
                                                    false, tr("Others that carry this recording")}
                                             : Cell{};
             }},
            {tr("Lists"), [](const FoundRow& row) {
                 return Cell{row.found.lists.empty() ? QString() : shown(humanCount(row.found.lists.size())),
                             Mark::none,
                             false,
                             false,
                             {}};
             }}};
}

void FindDesk::buildLists() {
    rows_ = new IdListModel<FoundRow>(workbench(), columns(), &FindDesk::fetchRows, this);
    list_ = new ListView(tr("What was found"), this);
    list_->setModel(rows_);
    list_->setWidths({112, 156, 78, 180, 104, 66, 58, 46}, 3);
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
        "Move the selected, or the folder where that has the cursor; or drag them onto a volume or folder"));
    auto* withdraw = keyButton(tr("Take back"), QKeySequence(Qt::Key_U), this);
    withdraw->setToolTip(tr("Take the selected off the docket again"));
    auto* keep = new QPushButton(tr("Keep as list…"), this);
    keep->setToolTip(tr("Keep what is asked for now as a standing list that is always current"));
    heading()->addWidget(lists_, 0, Qt::AlignBottom);
    heading()->addWidget(keep, 0, Qt::AlignBottom);
    auto* row = new QHBoxLayout;
    row->setSpacing(8);
    row->addWidget(folder);
    row->addWidget(retire);
    row->addWidget(move);
    row->addWidget(withdraw);
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
            emit workbench().failed(
                tr("Its folder cannot be shown: %1.").arg(shown(reachWords(here->found))));
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

/// A standing list's filter, and what is asked for beside it.
std::optional<HoldingFilter> FindDesk::filter() const {
    auto filter = lists_->filter().value_or(HoldingFilter{});
    const auto bitrate = wholeSpanFrom<std::int64_t>(typed(bitrate_), 1000);
    const auto seconds = spanFrom(typed(length_));
    const auto years = wholeSpanFrom<int>(typed(years_));
    if (!bitrate || !seconds || !years) {
        return std::nullopt;
    }
    filter.text += (filter.text.empty() ? "" : " ") + typed(words_);
    if (const auto& place = tree_->chosen(); place.volume) {
        filter.volume = place.volume;
        filter.folder = place.folder;
    }
    if (const auto codec = codec_->currentData().toString(); !codec.isEmpty()) {
        filter.codec = codec.toStdString();
    }
    if (const auto verdict = verdict_->currentData(); verdict.isValid()) {
        filter.verdicts = {static_cast<VerdictClass>(verdict.toInt())};
        filter.acceptedToo = true;
    }
    const auto listed = static_cast<HoldingFilter::Listed>(listed_->currentData().toInt());
    filter.listed = listed != HoldingFilter::Listed::any ? listed : filter.listed;
    filter.bitrate = bitrate->isOpen() ? filter.bitrate : *bitrate;
    filter.seconds = seconds->isOpen() ? filter.seconds : *seconds;
    filter.years = years->isOpen() ? filter.years : *years;
    return filter;
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
        if (!folders) {
            return folders.error();
        }
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
        const QScopedValueRollback filling(filling_, true);
        const auto before = codec_->currentData();
        codec_->clear();
        codec_->addItem(tr("all codecs"), QString());
        for (const auto& codec : ground_.codecs) {
            codec_->addItem(codecName(codec), shown(codec));
        }
        codec_->setCurrentIndex(std::max(0, codec_->findData(before)));
        drawHits();
    });
    search();
}

void FindDesk::reloadDecisions() {
    lists_->reload();
    rows_->refresh();
}

void FindDesk::search() {
    if (filling_ || !workbench().isOpen()) {
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
        count_->setText(tr("searching… the first %1").arg(shown(humanCount(first.size()))));
        showIds(first);
    }
}

void FindDesk::take(std::shared_ptr<const SearchResult> result) {
    result_ = std::move(result);
    const auto gone = result_->ids.size() - result_->present;
    const QString present = shown(counted(result_->present, "holding")) + tree_->chosenWords();
    count_->setText(gone == 0 ? present : tr("%1; %2 no longer there").arg(present, shown(humanCount(gone))));
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
        HitsChart::Line line{volume.id, shown(volume.label), volume.atHand, {}};
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

Result<std::vector<FindDesk::FoundRow>> FindDesk::fetchRows(const Catalogue& catalogue,
                                                            std::span<const HoldingId> ids) {
    auto found = foundHoldings(catalogue, ids);
    const auto retired = DocketStore(catalogue).standing(ids, ActionKind::retire);
    const auto moved = DocketStore(catalogue).standing(ids, ActionKind::move);
    if (!found) {
        return found.error();
    }
    if (!retired || !moved) {
        return retired ? moved.error() : retired.error();
    }
    std::vector<FoundRow> rows;
    for (auto& each : *found) {
        const auto stands = [&](const std::vector<HoldingId>& among) {
            return std::ranges::find(among, each.holding.id) != among.end();
        };
        const auto waiting = stands(*retired) ? std::optional(ActionKind::retire)
                             : stands(*moved) ? std::optional(ActionKind::move)
                                              : std::nullopt;
        rows.push_back({std::move(each), waiting});
    }
    return rows;
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
                {place.volume, BytePath(parentOf(place.folder))}};
    } else if (row != nullptr && !ids.empty()) {
        const BytePath& path = row->found.holding.path;
        const bool one = ids.size() == 1;
        what = {one ? shownPath(BytePath(nameOf(path))) : shown(counted(ids.size(), "holding")),
                one ? std::optional(BytePath(nameOf(path))) : std::nullopt,
                {row->found.holding.volume, BytePath(parentOf(path))}};
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
        if (!folder) {
            return folder.error();
        }
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
        return planMoveAs(catalogue, *from, joinPath(*target, name.value_or(BytePath(nameOf(folder.folder)))),
                          "moved by hand");
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
         chosen ? shown(chosen->name) : words_->text()},
        this);
    connect(window, &AskWindow::answered, this, [this, filter = *asked](const QString& name) {
        workbench().decide([filter, name = name.toStdString()](const Catalogue& catalogue) {
            return StandingLists(catalogue).keep(name, filter);
        });
    });
    window->open();
}

} // namespace sober::app
