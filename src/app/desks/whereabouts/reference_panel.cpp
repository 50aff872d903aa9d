#include "app/desks/whereabouts/reference_panel.h"

#include "app/desks/ask_window.h"
#include "app/hand_focus_on.h"
#include "app/words.h"
#include "app/wrap_row.h"
#include "core/audit/plan_places.h"
#include "core/catalogue/docket_store.h"
#include "core/catalogue/volumes.h"
#include "core/remedy/docket/review.h"

#include <QHBoxLayout>
#include <QLabel>
#include <QPushButton>
#include <QVBoxLayout>

#include <algorithm>

namespace sober::app {
namespace {

Cell troubleCell(ReferenceTrouble trouble) {
    switch (trouble) {
    case ReferenceTrouble::passing:
        return {ReferencePanel::tr("will not last"), Mark::doubtful, false, false, {}};
    case ReferenceTrouble::loosely:
        return {ReferencePanel::tr("spelled otherwise"), Mark::doubtful, false, false, {}};
    case ReferenceTrouble::notKeeper:
        return {ReferencePanel::tr("not the one to keep"), Mark::copies, false, false, {}};
    case ReferenceTrouble::twice:
        break;
    }
    return {ReferencePanel::tr("twice in its list"), Mark::copies, false, false, {}};
}

} // namespace

ReferencePanel::ReferencePanel(Workbench& workbench, QWidget* parent)
    : QWidget(parent), workbench_(workbench), count_(quietLabel({}, this)) {
    auto* layout = new QVBoxLayout(this);
    layout->setContentsMargins(0, 0, 0, 0);
    layout->setSpacing(8);
    auto* top = new WrapRow;
    top->setSpacing(8);
    top->addWidget(strongLabel(tr("References that work today"), this));
    top->addStretch(1);
    auto* places = keyButton(tr("Places that do not last…"), QKeySequence(Qt::Key_P), this);
    auto* repoint = keyButton(tr("Repoint"), QKeySequence(Qt::Key_R), this);
    repoint->setToolTip(tr("Let the selected lead to the copy that is to keep, or to the file's exact name"));
    top->addWidget(places);
    top->addWidget(repoint);
    layout->addLayout(top);
    std::vector<Column<Row>> columns{
        {tr("What about it"),
         [](const Row& row) {
             return row.waits ? Cell{tr("to repoint"), Mark::moved, false, false, {}}
                              : troubleCell(row.troubled.trouble);
         }},
        {tr("Leads to"),
         [](const Row& row) {
             return Cell{shownPath(row.troubled.reference.path), Mark::none, true, false,
                         shownPath(row.troubled.reference.path)};
         }},
        {tr("List"),
         [](const Row& row) {
             return Cell{shown(row.list), Mark::none, false, false, {}};
         }},
        {tr("Why"), [](const Row& row) {
             return Cell{told(row.troubled.why), Mark::none, false, false, told(row.troubled.why)};
         }}};
    troubled_ = new RowListModel<Row>(
        std::move(columns),
        [](const Row& row) {
            const auto& reference = row.troubled.reference;
            return std::to_string(reference.list) + "/" + std::to_string(reference.entry) + "/" +
                   std::to_string(static_cast<int>(row.troubled.trouble));
        },
        this);
    troubledList_ = new ListView(tr("References that work today and should be looked at"), this);
    troubledList_->setModel(troubled_);
    troubledList_->setWidths({160, 330, 150, 330}, 1);
    troubledList_->setEmptyText(tr("Nothing to look at: no reference leads to a place that does not last."));
    layout->addWidget(troubledList_, 3);

    auto* below = new WrapRow;
    below->addWidget(strongLabel(tr("Holdings in no list"), this));
    below->addWidget(count_, 1);
    layout->addLayout(below);
    std::vector<Column<Unheard>> unheardColumns{
        {tr("Title"),
         [](const Unheard& row) {
             const auto& title = row.holding.tags.title;
             return Cell{title.empty() ? shownPath(BytePath(nameOf(row.holding.path))) : shown(title),
                         Mark::none,
                         false,
                         false,
                         {}};
         }},
        {tr("Volume"),
         [](const Unheard& row) {
             return Cell{shown(row.volume), Mark::none, false, false, {}};
         }},
        {tr("File"), [](const Unheard& row) {
             return Cell{shownPath(row.holding.path), Mark::none, true, false,
                         shownPath(joinPath(row.root, row.holding.path))};
         }}};
    unheard_ = new IdListModel<Unheard>(workbench, std::move(unheardColumns), &ReferencePanel::fetch, this);
    unheardList_ = new ListView(tr("Holdings that no player's list points at"), this);
    unheardList_->setModel(unheard_);
    unheardList_->setWidths({260, 104, 500}, 2);
    unheardList_->setEmptyText(tr("Every holding is in some list, or no player is known yet."));
    layout->addWidget(unheardList_, 2);
    handFocusOn(this, troubledList_);
    connect(repoint, &QPushButton::clicked, this, [this] { this->repoint(); });
    connect(places, &QPushButton::clicked, this, [this] { editPlaces(); });
}

void ReferencePanel::reload() {
    workbench_.ask<Seen>(this, &ReferencePanel::look, [this](const Seen& seen) {
        troubled_->setRows(seen.rows);
        unheard_->setIds(seen.unheard);
        count_->setText(seen.unheard.empty() ? QString()
                                             : tr("%1: a migration by lists alone would forget them")
                                                   .arg(told(counted(seen.unheard.size(), "holding"))));
    });
}

Result<ReferencePanel::Seen> ReferencePanel::look(const Catalogue& catalogue) {
    const PlayerStore store(catalogue);
    auto troubled = referenceFindings(catalogue);
    const auto lists = store.lists();
    const auto players = store.all();
    const auto actions = DocketStore(catalogue).aboutPlaces();
    auto unheard = store.inNoList();
    if (!troubled || !lists || !players) {
        return !troubled ? troubled.error() : !lists ? lists.error() : players.error();
    }
    if (!actions || !unheard) {
        return actions ? unheard.error() : actions.error();
    }
    Seen seen;
    for (auto& each : *troubled) {
        Row row;
        const auto list = std::ranges::find(*lists, each.reference.list, &ListFile::id);
        row.list = list != lists->end() ? displayPath(nameOf(list->path)) : std::string();
        row.waits = std::ranges::find(*actions, each.reference.path, &DocketAction::place) != actions->end();
        row.troubled = std::move(each);
        seen.rows.push_back(std::move(row));
    }
    if (!players->empty()) {
        seen.unheard = std::move(*unheard);
    }
    return seen;
}

Result<std::vector<ReferencePanel::Unheard>> ReferencePanel::fetch(const Catalogue& catalogue,
                                                                   std::span<const HoldingId> ids) {
    auto holdings = Holdings(catalogue).byIds(ids);
    const auto volumes = Volumes(catalogue).all();
    if (!holdings || !volumes) {
        return holdings ? volumes.error() : holdings.error();
    }
    std::vector<Unheard> rows;
    for (auto& holding : *holdings) {
        const auto volume = std::ranges::find(*volumes, holding.volume, &Volume::id);
        const bool known = volume != volumes->end();
        rows.push_back({std::move(holding), known ? numberedLabel(*volume) : std::string(),
                        known ? volume->root : BytePath()});
    }
    return rows;
}

void ReferencePanel::repoint() {
    std::vector<std::pair<BytePath, BytePath>> pairs;
    for (const auto& index : troubledList_->selectionModel()->selectedRows()) {
        const auto& troubled = troubled_->rows()[static_cast<std::size_t>(index.row())].troubled;
        if (!troubled.instead.empty()) {
            pairs.emplace_back(troubled.reference.path, troubled.instead);
        }
    }
    if (pairs.empty()) {
        emit workbench_.failed(
            tr("Of the selected it is not known where they had better lead. Move the file (the "
               "docket takes its references along) or leave it."));
        return;
    }
    workbench_.decide([pairs](const Catalogue& catalogue) {
        for (const auto& [place, target] : pairs) {
            if (const auto planned = planRepoint(catalogue, place, target, "a better place"); !planned) {
                return planned;
            }
        }
        return done();
    });
}

void ReferencePanel::editPlaces() {
    workbench_.ask<std::vector<std::string>>(
        this, [](const Catalogue& catalogue) { return PlayerStore(catalogue).passingPlaces(); },
        [this](const std::vector<std::string>& patterns) {
            QStringList all;
            for (const auto& pattern : patterns) {
                all << shown(pattern);
            }
            auto* window =
                new AskWindow({tr("Places that do not last"),
                               tr("Shell patterns, parted by spaces, held against whole paths without regard "
                                  "to letter case; within a volume against what lies below its root."),
                               tr("Keep"),
                               {},
                               all.join(QLatin1Char(' '))},
                              this);
            connect(window, &AskWindow::answered, this, [this](const QString& text) {
                std::vector<std::string> kept;
                for (const auto& word : text.split(QLatin1Char(' '), Qt::SkipEmptyParts)) {
                    kept.push_back(word.toStdString());
                }
                workbench_.decide([kept](const Catalogue& catalogue) {
                    return PlayerStore(catalogue).setPassingPlaces(kept);
                });
            });
            window->open();
        });
}

} // namespace sober::app
