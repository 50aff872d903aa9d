#include "app/desks/condition/condition_desk.h"

#include "app/desks/condition/figure_row.h"
#include "app/hand_focus_on.h"
#include "app/theme/theme.h"
#include "app/words.h"
#include "app/words_button.h"
#include "app/wrap_row.h"
#include "core/catalogue/evidence_store.h"
#include "core/catalogue/holdings.h"
#include "core/catalogue/standing_lists.h"

#include <QComboBox>
#include <QHBoxLayout>
#include <QHeaderView>
#include <QLabel>
#include <QPushButton>
#include <QScrollArea>
#include <QVBoxLayout>

#include <algorithm>

namespace sober::app {
namespace {

constexpr std::size_t foldersInBand = 60;

/// The folders that a band shows: a folder that holds most of the volume is opened into those below
/// it, and of very many the largest are shown, the rest taken together.
Result<std::vector<FolderFigures>> foldersFor(const Findings& findings, VolumeId volume) {
    constexpr std::uint64_t largeShare = 3; // more than a third of the volume
    auto folders = findings.folderFigures(volume, 1);
    if (!folders) {
        return folders;
    }
    std::uint64_t all = 0;
    for (const auto& folder : *folders) {
        all += folder.holdings;
    }
    std::vector<FolderFigures> opened;
    for (const auto& folder : *folders) {
        if (folder.path.empty() || folder.holdings * largeShare <= all) {
            opened.push_back(folder);
            continue;
        }
        const auto below = findings.folderFigures(volume, 2, folder.path);
        RETURN_IF_FAILED(below);
        opened.insert(opened.end(), below->begin(), below->end());
    }
    *folders = std::move(opened);
    if (folders->size() > foldersInBand) {
        std::ranges::nth_element(*folders, folders->begin() + foldersInBand, std::greater{},
                                 &FolderFigures::holdings);
        FolderFigures rest = (*folders)[foldersInBand];
        rest.path = "(further folders)";
        for (std::size_t i = foldersInBand + 1; i < folders->size(); ++i) {
            const auto& folder = (*folders)[i];
            rest.holdings += folder.holdings;
            rest.bytes += folder.bytes;
            rest.inSets += folder.inSets;
            rest.missing += folder.missing;
            rest.troubled += folder.troubled;
        }
        folders->resize(foldersInBand);
        std::ranges::sort(*folders, {}, &FolderFigures::path);
        folders->push_back(rest);
    }
    return folders;
}

QScrollArea* scrolling(QWidget* inner) {
    auto* area = new QScrollArea(inner->parentWidget());
    area->setFrameShape(QFrame::NoFrame);
    area->setWidgetResizable(true);
    area->setHorizontalScrollBarPolicy(Qt::ScrollBarAlwaysOff);
    area->setFocusPolicy(Qt::NoFocus);
    area->setWidget(inner);
    inner->setAutoFillBackground(false);
    area->viewport()->setAutoFillBackground(false);
    return area;
}

void empty(QLayout& layout) {
    while (auto* item = layout.takeAt(0)) {
        delete item->widget();
        delete item;
    }
}

} // namespace

ConditionDesk::ConditionDesk(Workbench& workbench)
    : Desk(workbench, tr("Condition"), tr("How is the collection, and what comes first?")),
      bands_(new BandChart(this)),
      figures_(new FigureRow(this)),
      steps_(new QVBoxLayout),
      lists_(new QVBoxLayout),
      noteKind_(new QComboBox(this)) {
    body()->addSpacing(4);
    bandArea_ = scrolling(bands_);
    body()->addWidget(bandArea_);
    body()->addWidget(figures_);

    auto* lower = new QHBoxLayout;
    lower->setSpacing(24);
    // However many steps and lists there are, the window fits its screen.
    auto* column = new QWidget(this);
    auto* left = new QVBoxLayout(column);
    left->setContentsMargins(0, 0, 8, 0);
    left->setSpacing(8);
    left->addWidget(strongLabel(tr("Next steps"), this));
    steps_->setSpacing(8);
    left->addLayout(steps_);
    left->addSpacing(8);
    left->addWidget(strongLabel(tr("Standing lists"), this));
    lists_->setSpacing(8);
    left->addLayout(lists_);
    left->addStretch(1);
    lower->addWidget(scrolling(column), 2);

    auto* right = new QVBoxLayout;
    right->setSpacing(8);
    auto* rightHead = new WrapRow;
    rightHead->addWidget(strongLabel(tr("What the last surveys met"), this));
    rightHead->addStretch(1);
    noteKind_->setSizeAdjustPolicy(QComboBox::AdjustToContents);
    noteKind_->setAccessibleName(tr("Which notes to show"));
    rightHead->addWidget(noteKind_);
    right->addLayout(rightHead);
    std::vector<Column<Note>> columns{{tr("What"),
                                       [](const Note& note) {
                                           return Cell{told(note.kind), markOfNote(note), false, false, {}};
                                       }},
                                      {tr("Which"), [](const Note& note) {
                                           return Cell{shownPath(note.path), Mark::none, true, false,
                                                       note.sentence.empty() ? shownPath(note.path)
                                                                             : told(note.sentence)};
                                       }}};
    notes_ = new RowListModel<Note>(
        std::move(columns), [](const Note& note) { return note.kind + note.path + note.sentence; }, this);
    noteList_ = new ListView(tr("Changes and errors of the last surveys"), this);
    noteList_->setModel(notes_);
    noteList_->setWidths({150, 300}, 1);
    right->addWidget(noteList_, 1);
    lower->addLayout(right, 3);
    body()->addLayout(lower, 1);
    handFocusOn(this, noteList_);
    connect(noteKind_, &QComboBox::currentIndexChanged, this, [this] { showNotes(); });
    connect(bands_, &BandChart::folderChosen, this,
            [this](const QString&, const QString& folder) { emit copiesWanted(folder); });
}

Mark ConditionDesk::markOfNote(const Note& note) {
    if (!note.sentence.empty()) {
        return Mark::damaged;
    }
    if (note.kind == "missing") {
        return Mark::missing;
    }
    return note.kind == "moved" ? Mark::moved : note.kind == "changed" ? Mark::doubtful : Mark::sound;
}

void ConditionDesk::reload() {
    workbench().ask<Seen>(this, &ConditionDesk::look, [this](const Seen& seen) { show(seen); });
}

Result<ConditionDesk::Seen> ConditionDesk::look(const Catalogue& catalogue) {
    auto condition = conditionOf(catalogue);
    RETURN_IF_FAILED(condition);
    Seen seen;
    const Findings findings(catalogue);
    for (std::size_t i = 0; i < condition->volumes.size(); ++i) {
        const auto& volume = condition->volumes[i];
        auto folders = foldersFor(findings, volume.id);
        RETURN_IF_FAILED(folders);
        seen.bands.push_back({volumeName(volume), volume.atHand, condition->figures[i].holdings,
                              condition->figures[i].bytes, std::move(*folders)});
    }
    seen.condition = std::move(*condition);
    const auto lists = StandingLists(catalogue).all();
    RETURN_IF_FAILED(lists);
    for (const auto& list : *lists) {
        const auto count = EvidenceStore(catalogue).count(list.filter);
        RETURN_IF_FAILED(count);
        seen.lists.emplace_back(list.name, *count);
    }
    const auto errors = findings.surveyErrors();
    const auto changes = findings.surveyChanges();
    if (!errors || !changes) {
        return errors ? changes.error() : errors.error();
    }
    for (const auto& error : *errors) {
        seen.notes.push_back({tr("could not be read").toStdString(), error.sentence, error.path});
    }
    std::vector<HoldingId> ids;
    std::ranges::transform(*changes, std::back_inserter(ids), &SurveyChange::holding);
    const auto holdings = Holdings(catalogue).byIds(ids);
    RETURN_IF_FAILED(holdings);
    for (std::size_t i = 0; i < holdings->size(); ++i) {
        const auto& holding = (*holdings)[i];
        const auto volume = std::ranges::find(seen.condition.volumes, holding.volume, &Volume::id);
        const BytePath path =
            volume != seen.condition.volumes.end() ? joinPath(volume->label, holding.path) : holding.path;
        seen.notes.push_back({(*changes)[i].kind, {}, path});
    }
    return seen;
}

void ConditionDesk::show(const Seen& seen) {
    bands_->setBands(seen.bands);
    constexpr int mostHeight = 252; // four volumes; more are scrolled to
    bandArea_->setFixedHeight(std::min(bands_->height(), mostHeight));
    noteList_->setEmptyText(seen.bands.empty()
                                ? tr("What a survey could not read, and what has changed since the one "
                                     "before, is listed here.")
                                : tr("Nothing has changed and everything could be read."));
    const auto& total = seen.condition.total;
    figures_->setFigures(
        {{told(humanCount(total.holdings)), tr("holdings"),
          tr("Audio files that were there when their volume was surveyed last, on volumes at hand and "
             "away.")},
         {told(humanSeconds(total.duration)), tr("of audio"),
          tr("How long all of them play, one after the other, by what they state.")},
         {told(humanBytes(total.bytes)), tr("on all volumes"), tr("Their size together, copies included.")},
         {told(humanCount(total.heldOnce)), tr("held once only"),
          tr("Of these no other copy is known: if the one file is lost, so is what it holds.")},
         {told(humanCount(seen.condition.copySets)), tr("sets of copies"),
          tr("Recordings that are held more than once; Copies shows them.")},
         {told(humanCount(total.missing)), tr("missing"),
          tr("Were there at an earlier survey and not at the last one; Whereabouts shows them.")},
         {told(humanCount(seen.condition.errors)), tr("unreadable"),
          tr("Files that the last surveys could not read, or not as audio; listed below with the reason.")}});
    showSteps(seen.condition);
    showLists(seen);
    allNotes_ = seen.notes;
    std::map<std::string, std::size_t> kinds;
    for (const auto& note : allNotes_) {
        ++kinds[note.kind];
    }
    const QString before = noteKind_->currentData().toString();
    const QSignalBlocker quiet(noteKind_);
    noteKind_->clear();
    noteKind_->addItem(tr("everything (%1)").arg(told(humanCount(allNotes_.size()))), QString());
    for (const auto& [kind, count] : kinds) {
        noteKind_->addItem(QStringLiteral("%1 (%2)").arg(told(kind), told(humanCount(count))), shown(kind));
    }
    noteKind_->setCurrentIndex(std::max(0, noteKind_->findData(before)));
    showNotes();
}

void ConditionDesk::showNotes() {
    const std::string kind = noteKind_->currentData().toString().toStdString();
    std::vector<Note> rows;
    std::ranges::copy_if(allNotes_, std::back_inserter(rows),
                         [&](const Note& note) { return kind.empty() || note.kind == kind; });
    notes_->setRows(std::move(rows));
}

void ConditionDesk::showLists(const Seen& seen) {
    empty(*lists_);
    for (const auto& [name, count] : seen.lists) {
        auto* button = leftButton(tr("%1: %2").arg(listName(name), told(counted(count, "holding"))));
        connect(button, &QPushButton::clicked, this, [this, list = shown(name)] { emit claimsWanted(list); });
        lists_->addWidget(button);
    }
}

QPushButton* ConditionDesk::leftButton(const QString& text) {
    return new WordsButton(text, this);
}

void ConditionDesk::showSteps(const Condition& condition) {
    empty(*steps_);
    for (const auto& step : condition.nextSteps) {
        QString text;
        auto* button = leftButton({});
        switch (step.kind) {
        case NextStep::Kind::survey:
            text = tr("Survey a folder or a drive");
            connect(button, &QPushButton::clicked, this, &ConditionDesk::surveyWanted);
            break;
        case NextStep::Kind::retireCopies:
            text = tr("Decide on %1 of identical copies: frees up to %2")
                       .arg(told(counted(step.count, "set")), told(humanBytes(step.bytes)));
            connect(button, &QPushButton::clicked, this, [this] { emit copiesWanted({}); });
            break;
        case NextStep::Kind::findMissing:
            text = tr("Track down %1").arg(told(counted(step.count, "missing holding")));
            connect(button, &QPushButton::clicked, this, &ConditionDesk::whereaboutsWanted);
            break;
        case NextStep::Kind::relink:
            text = tr("Find where %1 of players should lead now")
                       .arg(told(counted(step.count, "broken reference")));
            connect(button, &QPushButton::clicked, this, &ConditionDesk::whereaboutsWanted);
            break;
        case NextStep::Kind::lookAtDrift:
            text = step.count == 1 ? tr("Look at 1 holding that is no longer what was recorded")
                                   : tr("Look at %1 that are no longer what was recorded")
                                         .arg(told(counted(step.count, "holding")));
            connect(button, &QPushButton::clicked, this, &ConditionDesk::fixityWanted);
            break;
        case NextStep::Kind::lookAtClaims:
            text = tr("Look at %1 that may not be what they say").arg(told(counted(step.count, "holding")));
            connect(button, &QPushButton::clicked, this, [this] { emit claimsWanted({}); });
            break;
        case NextStep::Kind::replaceLow:
            text = tr("Replace %1 of which a better copy is known").arg(told(counted(step.count, "holding")));
            connect(button, &QPushButton::clicked, this, &ConditionDesk::replacementWanted);
            break;
        case NextStep::Kind::examine:
            text = tr("Examine %1 by decoding them: a survey at full effort")
                       .arg(told(counted(step.count, "holding")));
            connect(button, &QPushButton::clicked, this, &ConditionDesk::examinationWanted);
            break;
        case NextStep::Kind::lookAtErrors:
            text = tr("Look at %1 that could not be read").arg(told(counted(step.count, "file")));
            connect(button, &QPushButton::clicked, this, [this] {
                noteKind_->setCurrentIndex(std::max(0, noteKind_->findData(tr("could not be read"))));
                noteList_->setFocus();
            });
            break;
        }
        button->setText(text);
        steps_->addWidget(button);
    }
    if (condition.nextSteps.empty()) {
        steps_->addWidget(
            quietLabel(tr("Nothing is waiting. Survey again when something has changed."), this));
    }
}

} // namespace sober::app
