#include "app/desks/ledger/ledger_desk.h"

#include "app/desks/ledger/ledger_words.h"
#include "app/hand_focus_on.h"
#include "app/words.h"

#include <QHBoxLayout>
#include <QHeaderView>
#include <QLabel>
#include <QPushButton>
#include <QSplitter>
#include <QVBoxLayout>

#include <algorithm>

namespace sober::app {
namespace {

Mark markOf(const LedgerAction& action) {
    switch (action.step) {
    case ActionStep::carriedOut:
        return markOfKind(action.kind);
    case ActionStep::undone:
        return Mark::sound;
    case ActionStep::refused:
    case ActionStep::started:
    case ActionStep::undoStarted:
    case ActionStep::takenBack:
        break;
    }
    return Mark::none;
}

} // namespace

LedgerDesk::LedgerDesk(Workbench& workbench)
    : Desk(workbench, tr("Ledger"), tr("What was done, and can I take it back?")),
      timeline_(new TimelineChart(this)),
      takeBack_(keyButton(tr("Take back"), QKeySequence(Qt::Key_T), this)),
      actionsTitle_(quietLabel({}, this)) {
    heading()->addWidget(takeBack_, 0, Qt::AlignBottom);
    body()->addWidget(timeline_);

    std::vector<Column<LedgerEntry>> columns{
        {tr("Entry"),
         [](const LedgerEntry& entry) {
             return Cell{QString::number(entry.id), Mark::none, false, true, {}};
         },
         true},
        {tr("When"),
         [](const LedgerEntry& entry) {
             return Cell{told(localMinute(entry.time)), Mark::none, false, false, {}};
         }},
        {tr("What"),
         [](const LedgerEntry& entry) {
             return Cell{kindText(entry), Mark::none, false, false, {}};
         }},
        {tr("Summary"), [](const LedgerEntry& entry) {
             return Cell{entryText(entry), Mark::none, false, wasTakenBack(entry), {}};
         }}};
    entries_ = new RowListModel<LedgerEntry>(
        std::move(columns), [](const LedgerEntry& entry) { return std::to_string(entry.id); }, this);
    entryList_ = new ListView(tr("Entries of the ledger"), this);
    entryList_->setModel(entries_);
    entryList_->setSelectionMode(QAbstractItemView::SingleSelection);
    entryList_->setWidths({60, 150, 140, 300}, 3);
    entryList_->setEmptyText(tr("Nothing has been observed or done yet."));

    std::vector<Column<LedgerAction>> actionColumns{
        {tr("Outcome"),
         [](const LedgerAction& action) {
             return Cell{outcomeText(action), markOf(action), false, false, {}};
         }},
        {tr("Action"),
         [](const LedgerAction& action) {
             return Cell{kindText(action.kind), Mark::none, false, false, {}};
         }},
        {tr("File"),
         [](const LedgerAction& action) {
             return Cell{shownPath(action.place), Mark::none, true, false, {}};
         }},
        {tr("Set aside at, or why not"), [](const LedgerAction& action) {
             const auto& sentence = action.waits.empty() ? action.sentence : action.waits;
             return sentence.empty() ? Cell{shownPath(action.aside),
                                            Mark::none,
                                            true,
                                            action.step == ActionStep::undone,
                                            {}}
                                     : Cell{told(sentence), Mark::none, false, false, {}};
         }}};
    actions_ = new RowListModel<LedgerAction>(
        std::move(actionColumns), [](const LedgerAction& action) { return std::to_string(action.id); }, this);
    actionList_ = new ListView(tr("Actions of the entry"), this);
    actionList_->setModel(actions_);
    actionList_->setWidths({156, 140, 380, 300}, 3);
    actionList_->setEmptyText(tr("This entry changed nothing on any volume."));

    auto* split = new QSplitter(Qt::Vertical, this);
    split->setChildrenCollapsible(false);
    split->addWidget(entryList_);
    auto* lower = new QWidget(split);
    auto* layout = new QVBoxLayout(lower);
    layout->setContentsMargins(0, 0, 0, 0);
    layout->setSpacing(4);
    layout->addWidget(actionsTitle_);
    layout->addWidget(actionList_, 1);
    split->addWidget(lower);
    split->setSizes({220, 200});
    body()->addWidget(split, 1);
    handFocusOn(this, entryList_);

    takeBack_->setEnabled(false);
    connect(entryList_->selectionModel(), &QItemSelectionModel::currentRowChanged, this,
            [this] { showActions(); });
    connect(timeline_, &TimelineChart::entryChosen, this, [this](EntryId id) { chooseEntry(id); });
    connect(takeBack_, &QPushButton::clicked, this, [this] {
        if (const auto* entry = current()) {
            this->workbench().undo(entry->id);
        }
    });
}

void LedgerDesk::reload() {
    workbench().ask<std::vector<LedgerEntry>>(
        this, [](const Catalogue& catalogue) { return LedgerStore(catalogue).entries(); },
        [this](const std::vector<LedgerEntry>& entries) {
            const auto* before = current();
            const EntryId chosen = before != nullptr ? before->id : 0;
            timeline_->setEntries(entries);
            entries_->setRows(entries);
            if (chosen != 0) {
                chooseEntry(chosen);
            } else if (!entries.empty()) {
                const auto deed = std::ranges::find_if(entries, canBeTakenBack);
                chooseEntry(deed != entries.end() ? deed->id : entries.front().id);
            }
            showActions();
        });
}

const LedgerEntry* LedgerDesk::current() const {
    const int row = entryList_->currentRow();
    return row >= 0 && row < static_cast<int>(entries_->rows().size())
               ? &entries_->rows()[static_cast<std::size_t>(row)]
               : nullptr;
}

void LedgerDesk::chooseEntry(EntryId id) {
    const auto found = std::ranges::find(entries_->rows(), id, &LedgerEntry::id);
    if (found != entries_->rows().end()) {
        entryList_->selectRow(static_cast<int>(found - entries_->rows().begin()));
    }
}

void LedgerDesk::showActions() {
    const auto* entry = current();
    takeBack_->setEnabled(entry != nullptr && canBeTakenBack(*entry));
    timeline_->setCurrent(entry != nullptr ? entry->id : 0);
    if (entry == nullptr) {
        actions_->setRows({});
        return;
    }
    actionsTitle_->setText(tr("Entry %1, %2").arg(entry->id).arg(told(localMinute(entry->time))));
    workbench().askLatest<std::vector<LedgerAction>>(
        asked_, this,
        [id = entry->undoes.value_or(entry->id)](const Catalogue& catalogue) {
            return LedgerStore(catalogue).actionsOf(id);
        },
        [this](const std::vector<LedgerAction>& actions) { actions_->setRows(actions); });
}

} // namespace sober::app
