#include "app/desks/claims/claims_desk.h"

#include "app/charts/trace_chart.h"
#include "app/desks/ask_window.h"
#include "app/desks/file_manager.h"
#include "app/desks/standing_list_box.h"
#include "app/hand_focus_on.h"
#include "app/listening/listening_bar.h"
#include "app/words.h"
#include "app/wrap_row.h"
#include "core/catalogue/docket_store.h"
#include "core/catalogue/volumes.h"
#include "core/remedy/docket/review.h"

#include <QHBoxLayout>
#include <QLabel>
#include <QPushButton>
#include <QScrollArea>
#include <QSettings>
#include <QShortcut>
#include <QSplitter>
#include <QVBoxLayout>

#include <algorithm>

namespace sober::app {
namespace {

constexpr std::size_t mostFolders = 300;

} // namespace

ClaimsDesk::ClaimsDesk(Workbench& workbench)
    : Desk(workbench, tr("Claims"), tr("What is not what it says?")),
      filters_(new ClaimFilters(this)),
      lists_(new StandingListBox(workbench, this)),
      map_(new ClaimsMap(this)),
      count_(quietLabel({}, this)),
      panel_(new EvidencePanel(workbench)) {
    body()->addWidget(filters_);
    connect(filters_, &ClaimFilters::changed, this, [this] { reload(); });
    buildLists();
    buildButtons();
}

void ClaimsDesk::buildLists() {
    rows_ = new IdListModel<ClaimRow>(workbench(), claimColumns(), &fetchClaimRows, this);
    list_ = new ListView(tr("Holdings by their evidence, the worst first"), this);
    list_->setModel(rows_);
    list_->setWidths({116, 120, 104, 70, 72, 76, 88}, 1);
    list_->setContextMenuPolicy(Qt::CustomContextMenu);
    list_->setEmptyText(
        tr("Nothing here. What a survey at full effort has examined is listed, the worst first."));

    auto* left = new QWidget(this);
    auto* leftLayout = new QVBoxLayout(left);
    leftLayout->setContentsMargins(0, 0, 0, 0);
    leftLayout->setSpacing(4);
    auto* parted = new QSplitter(Qt::Vertical, left);
    parted->setChildrenCollapsible(false);
    auto* lower = new QWidget(parted);
    auto* lowerLayout = new QVBoxLayout(lower);
    lowerLayout->setContentsMargins(0, 0, 0, 0);
    lowerLayout->setSpacing(4);
    count_->setAccessibleName(tr("How many are shown"));
    lowerLayout->addWidget(count_);
    lowerLayout->addWidget(list_, 1);
    parted->addWidget(map_);
    parted->addWidget(lower);
    parted->setSizes({300, 280});
    leftLayout->addWidget(parted);

    auto* scroll = new QScrollArea(this);
    scroll->setWidgetResizable(true);
    scroll->setHorizontalScrollBarPolicy(Qt::ScrollBarAlwaysOff);
    panel_->setObjectName(QStringLiteral("desk"));
    scroll->setWidget(panel_);
    auto* split = new QSplitter(Qt::Horizontal, this);
    split->setChildrenCollapsible(false);
    split->addWidget(left);
    split->addWidget(scroll);
    split->setStretchFactor(0, 1);
    split->setSizes({690, 350});
    split->restoreState(QSettings().value(QStringLiteral("claims/split")).toByteArray());
    connect(split, &QSplitter::splitterMoved, this,
            [split] { QSettings().setValue(QStringLiteral("claims/split"), split->saveState()); });
    body()->addWidget(split, 1);
    handFocusOn(this, list_);
    connect(map_, &ClaimsMap::selectionChanged, this, [this] { showRows(); });
    connect(map_, &ClaimsMap::chosen, this, [this](HoldingId holding) {
        const auto at = std::ranges::find(rows_->ids(), holding);
        if (at == rows_->ids().end()) {
            map_->clearSelection();
        }
        const auto found = std::ranges::find(rows_->ids(), holding);
        if (found != rows_->ids().end()) {
            list_->selectRow(static_cast<int>(found - rows_->ids().begin()));
        }
    });
    connect(list_->selectionModel(), &QItemSelectionModel::currentRowChanged, this, [this] { askDetail(); });
    connect(list_, &QWidget::customContextMenuRequested, this, [this](const QPoint& at) {
        const int row = list_->rowAt(at.y());
        if (const auto* here = row >= 0 ? rows_->row(row) : nullptr) {
            showFileMenu(*this, joinPath(here->root, here->holding.path), list_->viewport()->mapToGlobal(at));
        }
    });
}

void ClaimsDesk::buildButtons() {
    auto* accept = keyButton(tr("Accept…"), QKeySequence(Qt::Key_A), this);
    accept->setToolTip(
        tr("Keep the selected as they are, with a reason: they are not called in question again"));
    auto* withdraw = keyButton(tr("Take back"), QKeySequence(Qt::Key_U), this);
    withdraw->setToolTip(tr("Take the selected off the docket again"));
    auto* better = keyButton(tr("Look for a better one"), QKeySequence(Qt::Key_B), this);
    better->setToolTip(tr("What could take the place of the selected, among all holdings and on offer"));
    connect(better, &QPushButton::clicked, this, [this] {
        const auto* here = rows_->row(list_->currentRow());
        emit replacementWanted(here != nullptr
                                   ? QLatin1Char('"') + shownPath(BytePath(nameOf(here->holding.path))) +
                                         QLatin1Char('"')
                                   : QString());
    });
    auto* limits = new QPushButton(tr("Limits…"), this);
    limits->setToolTip(tr("The bitrate under which a lossy file counts as low, for each codec"));
    auto* keep = new QPushButton(tr("Keep as list…"), this);
    keep->setToolTip(tr("Keep what is shown now as a standing list that is always current"));
    auto* forget = new QPushButton(tr("Forget list"), this);
    heading()->addWidget(lists_, 0, Qt::AlignBottom);
    heading()->addWidget(keep, 0, Qt::AlignBottom);
    heading()->addWidget(forget, 0, Qt::AlignBottom);
    heading()->addWidget(limits, 0, Qt::AlignBottom);
    auto* row = new WrapRow;
    row->setSpacing(8);
    row->addWidget(accept);
    row->addWidget(withdraw);
    row->addWidget(better);
    row->addStretch(1);
    row->addWidget(quietLabel(
        tr("In the picture: drag to select, wheel to come nearer, Shift and drag to move, Esc for all"),
        this));
    body()->addLayout(row);
    forget->setEnabled(false);
    auto* play = new QShortcut(QKeySequence(Qt::Key_P), this);
    play->setContext(Qt::WidgetWithChildrenShortcut);
    connect(play, &QShortcut::activated, this, [this] { panel_->listening().toggle(); });
    connect(accept, &QPushButton::clicked, this, [this] { this->accept(); });
    connect(withdraw, &QPushButton::clicked, this, [this] { this->withdraw(); });
    connect(limits, &QPushButton::clicked, this, [this] { openLimits(); });
    connect(keep, &QPushButton::clicked, this, [this] { keepList(); });
    connect(forget, &QPushButton::clicked, this, [this] { forgetList(); });
    connect(lists_, &StandingListBox::listChanged, this, [this, forget] {
        const auto list = lists_->filter();
        forget->setEnabled(list.has_value());
        filters_->setFilter(list.value_or(HoldingFilter{}));
    });
}

void ClaimsDesk::showList(const QString& name) {
    lists_->choose(name);
}

void ClaimsDesk::reload() {
    lists_->reload();
    workbench().askLatest<Seen>(
        asked_, this,
        [asking = filters_->filter()](const Catalogue& catalogue) { return look(catalogue, asking); },
        [this](const Seen& seen) { take(seen); });
}

void ClaimsDesk::reloadDecisions() {
    reload();
}

Result<ClaimsDesk::Seen> ClaimsDesk::look(const Catalogue& catalogue, const HoldingFilter& filter) {
    const EvidenceStore store(catalogue);
    auto points = store.points(filter);
    auto volumes = Volumes(catalogue).all();
    auto codecs = store.codecs();
    if (!points || !volumes || !codecs) {
        return !points ? points.error() : !volumes ? volumes.error() : codecs.error();
    }
    Seen seen{std::move(*points), {}, {std::move(*volumes), std::move(*codecs), {}}};
    std::unordered_set<HoldingId> examined;
    for (const auto& point : seen.points) {
        seen.ids.push_back(point.holding);
        examined.insert(point.holding);
    }
    // What states less than its limit needs no examination to be found.
    if (filter.underLimit) {
        const auto meant = store.meant(filter);
        RETURN_IF_FAILED(meant);
        std::ranges::copy_if(*meant, std::back_inserter(seen.ids),
                             [&](HoldingId holding) { return !examined.contains(holding); });
    }
    if (filter.volume) {
        for (const int depth : {1, 2}) {
            auto folders = Findings(catalogue).folderFigures(*filter.volume, depth);
            RETURN_IF_FAILED(folders);
            seen.choices.folders.insert(seen.choices.folders.end(), folders->begin(), folders->end());
        }
        std::ranges::sort(seen.choices.folders, {}, &FolderFigures::path);
        seen.choices.folders.resize(std::min(seen.choices.folders.size(), mostFolders));
    }
    return seen;
}

void ClaimsDesk::take(const Seen& seen) {
    filters_->fill(seen.choices);
    ids_ = seen.ids;
    map_->setPoints(seen.points);
    showRows();
}

void ClaimsDesk::showRows() {
    const auto& selection = map_->selection();
    std::vector<HoldingId> ids;
    if (selection.empty()) {
        ids = ids_;
    } else {
        std::ranges::copy_if(ids_, std::back_inserter(ids),
                             [&](HoldingId holding) { return selection.contains(holding); });
    }
    count_->setText(selection.empty()
                        ? tr("%1, the worst first").arg(told(counted(ids.size(), "holding")))
                        : tr("%1 of %2 selected in the picture, the worst first")
                              .arg(told(humanCount(ids.size())), told(humanCount(ids_.size()))));
    const int row = list_->currentRow();
    if (ids == rows_->ids()) {
        rows_->refresh();
        askDetail();
        return;
    }
    rows_->setIds(ids);
    if (ids.empty()) {
        askDetail();
        return;
    }
    const auto still = std::ranges::find(ids, shown_);
    list_->selectRow(still != ids.end() ? static_cast<int>(still - ids.begin())
                                        : std::clamp(row, 0, static_cast<int>(ids.size()) - 1));
}

void ClaimsDesk::askDetail() {
    const int row = list_->currentRow();
    if (row < 0 || row >= static_cast<int>(rows_->ids().size())) {
        shown_ = 0;
        ++detailAsked_;
        map_->setChosen(0);
        panel_->setDetail(std::nullopt);
        return;
    }
    shown_ = rows_->ids()[static_cast<std::size_t>(row)];
    map_->setChosen(shown_);
    workbench().ask<HoldingDetail>(
        this, [holding = shown_](const Catalogue& catalogue) { return detailOfHolding(catalogue, holding); },
        [this, asked = ++detailAsked_](const HoldingDetail& detail) {
            if (asked == detailAsked_) {
                panel_->setDetail(detail);
            }
        });
}

std::vector<HoldingId> ClaimsDesk::selected() const {
    std::vector<HoldingId> ids;
    for (const auto& index : list_->selectionModel()->selectedRows()) {
        ids.push_back(rows_->ids()[static_cast<std::size_t>(index.row())]);
    }
    return ids;
}

void ClaimsDesk::accept() {
    const auto ids = selected();
    if (ids.empty()) {
        return;
    }
    auto* window =
        new AskWindow({tr("Accept as it is"),
                       tr("%1 will stand on the docket. Once carried out, the recording is kept with your "
                          "reason, wherever it moves, "
                          "and is not called in question again. No file changes.")
                           .arg(told(counted(ids.size(), "acceptance"))),
                       tr("Put on the docket"),
                       {tr("a transfer from vinyl"), tr("a transfer from tape"), tr("a radio recording"),
                        tr("nothing better exists"), tr("bought like this")},
                       tr("nothing better exists")},
                      this);
    connect(window, &AskWindow::answered, this, [this, ids](const QString& reason) {
        std::vector<DocketAction> actions;
        for (const auto id : ids) {
            actions.push_back({0, ActionKind::accept, id, reason.toStdString(), 0});
        }
        workbench().decide(
            [actions](const Catalogue& catalogue) { return DocketStore(catalogue).add(actions); });
    });
    window->open();
}

void ClaimsDesk::withdraw() {
    workbench().decide(
        [ids = selected()](const Catalogue& catalogue) { return DocketStore(catalogue).remove(ids); });
}

void ClaimsDesk::keepList() {
    const auto chosen = lists_->chosen();
    auto* window = new AskWindow(
        {tr("Keep as a standing list"),
         tr("What the filters mean now is kept by this name. The list is looked up anew whenever it is "
            "used, on every desk that has it."),
         tr("Keep"),
         {},
         chosen ? shown(chosen->name) : QString()},
        this);
    connect(window, &AskWindow::answered, this, [this, filter = filters_->filter()](const QString& name) {
        workbench().decide([filter, name = name.toStdString()](const Catalogue& catalogue) {
            return StandingLists(catalogue).keep(name, filter);
        });
        showList(name);
    });
    window->open();
}

void ClaimsDesk::forgetList() {
    if (const auto list = lists_->chosen()) {
        workbench().decide(
            [id = list->id](const Catalogue& catalogue) { return StandingLists(catalogue).remove(id); });
    }
}

void ClaimsDesk::openLimits() {
    workbench().ask<LimitsWindow::Limits>(
        this, [](const Catalogue& catalogue) { return EvidenceStore(catalogue).bitrateLimits(); },
        [this](const LimitsWindow::Limits& limits) {
            (new LimitsWindow(workbench(), limits, this))->open();
        });
}

} // namespace sober::app
