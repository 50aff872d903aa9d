#include "app/desks/whereabouts/missing_panel.h"

#include "app/desks/file_manager.h"
#include "app/desks/standing_list_box.h"
#include "app/hand_focus_on.h"
#include "app/words.h"
#include "app/wrap_row.h"
#include "core/catalogue/docket_store.h"
#include "core/catalogue/fixity_store.h"
#include "core/catalogue/volumes.h"
#include "core/remedy/docket/review.h"

#include <QHBoxLayout>
#include <QHeaderView>
#include <QLabel>
#include <QLineEdit>
#include <QPushButton>
#include <QTimer>
#include <QVBoxLayout>

#include <algorithm>

namespace sober::app {
namespace {

const Volume* volumeOf(const std::vector<Volume>& volumes, VolumeId id) {
    const auto found = std::ranges::find(volumes, id, &Volume::id);
    return found != volumes.end() ? &*found : nullptr;
}

QString folderText(const std::vector<Volume>& volumes, VolumeId volume, const BytePath& folder) {
    const auto* found = volumeOf(volumes, volume);
    return (found != nullptr ? shown(found->label) : QString()) + QStringLiteral("/") + shownPath(folder);
}

} // namespace

MissingPanel::MissingPanel(Workbench& workbench, QWidget* parent)
    : QWidget(parent),
      workbench_(workbench),
      ribbons_(new RibbonChart({tr("Missing holdings from remembered folders to where their content is now"),
                                tr("last seen in"), tr("the same bytes are now in"),
                                tr("no volume that is catalogued"), tr("Nothing is missing."),
                                tr("%1 missing from %2")},
                               this)),
      text_(new QLineEdit(this)),
      lists_(new StandingListBox(workbench, this)) {
    auto* layout = new QVBoxLayout(this);
    layout->setContentsMargins(0, 0, 0, 0);
    layout->setSpacing(8);
    layout->addWidget(ribbons_);
    text_->setPlaceholderText(tr("Part of a path"));
    text_->setAccessibleName(tr("Filter the missing by path"));
    text_->setFixedWidth(320);
    auto* row = new WrapRow;
    row->setSpacing(8);
    row->addWidget(text_);
    row->addWidget(lists_);
    row->addStretch(1);
    auto* off = keyButton(tr("Write off"), QKeySequence(Qt::Key_W), this);
    off->setToolTip(tr("Accept that the selected are gone: they are not shown as missing again"));
    auto* wait = keyButton(tr("Wait"), QKeySequence(Qt::Key_A), this);
    wait->setToolTip(tr("Take the selected off the docket: they stay missing until they are found"));
    auto* back = keyButton(tr("Bring back"), QKeySequence(Qt::Key_R), this);
    back->setToolTip(tr("Copy the same bytes from where they are to the place where they were"));
    row->addWidget(back);
    row->addWidget(off);
    row->addWidget(wait);
    layout->addLayout(row);

    std::vector<Column<MissingRow>> columns{
        {tr("State"),
         [](const MissingRow& missing) {
             return missing.waiting == ActionKind::restore
                        ? Cell{tr("to bring back"), Mark::sound, false, false, {}}
                    : missing.waiting ? Cell{tr("to write off"), Mark::writeOff, false, false, {}}
                                      : Cell{tr("missing"), Mark::missing, false, false, {}};
         }},
        {tr("Title"),
         [](const MissingRow& missing) {
             const auto& title = missing.holding.tags.title;
             return Cell{title.empty() ? shownPath(BytePath(nameOf(missing.holding.path))) : shown(title),
                         Mark::none,
                         false,
                         false,
                         {}};
         }},
        {tr("Volume"),
         [](const MissingRow& missing) {
             return Cell{shown(missing.volume), Mark::none, false, false, {}};
         }},
        {tr("Last place"),
         [](const MissingRow& missing) {
             return Cell{shownPath(missing.holding.path), Mark::none, true, false,
                         shownPath(joinPath(missing.root, missing.holding.path))};
         }},
        {tr("Last seen"),
         [](const MissingRow& missing) {
             return Cell{missing.holding.lastSeen != 0 ? told(localMinute(missing.holding.lastSeen))
                                                       : QString(),
                         Mark::none,
                         false,
                         false,
                         {}};
         }},
        {tr("Same bytes at"), [](const MissingRow& missing) {
             return missing.elsewhere.empty()
                        ? Cell{tr("nowhere known"), Mark::none, false, true, {}}
                        : Cell{shownPath(missing.elsewhere), Mark::moved, true, false, {}};
         }}};
    missing_ = new IdListModel<MissingRow>(workbench, std::move(columns), &MissingPanel::fetchRows, this);
    list_ = new ListView(tr("Missing holdings"), this);
    list_->setModel(missing_);
    list_->setContextMenuPolicy(Qt::CustomContextMenu);
    list_->setEmptyText(tr("Nothing is missing. What a survey no longer finds is listed here; what lies on a "
                           "volume that is away is not."));
    list_->setWidths({136, 176, 100, 288, 136, 230}, 3);
    layout->addWidget(list_, 1);
    handFocusOn(this, list_);

    auto* typing = new QTimer(this);
    typing->setSingleShot(true);
    typing->setInterval(250);
    connect(text_, &QLineEdit::textChanged, typing, qOverload<>(&QTimer::start));
    connect(typing, &QTimer::timeout, this, [this] { askIds(); });
    connect(lists_, &StandingListBox::listChanged, this, [this] { askIds(); });
    connect(back, &QPushButton::clicked, this, [this] { bringBack(); });
    connect(off, &QPushButton::clicked, this,
            [this] { put(selected(), ActionKind::writeOff, "not missed"); });
    connect(wait, &QPushButton::clicked, this, [this] { this->wait(); });
    connect(list_, &QWidget::customContextMenuRequested, this, [this](const QPoint& at) { listMenu(at); });
}

void MissingPanel::reload() {
    lists_->reload();
    askIds();
    workbench_.askLatest<std::vector<Ribbon>>(
        foldersAsked_, this, &MissingPanel::lookAtFolders,
        [this](const std::vector<Ribbon>& ribbons) { ribbons_->setRibbons(ribbons); });
}

void MissingPanel::askIds() {
    workbench_.askLatest<std::vector<HoldingId>>(
        idsAsked_, this,
        [filter = text_->text().toStdString(), list = lists_->filter()](const Catalogue& catalogue) {
            return Holdings(catalogue).missing(filter, list);
        },
        [this](const std::vector<HoldingId>& ids) {
            const int row = list_->currentRow();
            missing_->setIds(ids);
            if (!ids.empty()) {
                list_->selectRow(std::clamp(row, 0, static_cast<int>(ids.size()) - 1));
            }
        });
}

Result<std::vector<Ribbon>> MissingPanel::lookAtFolders(const Catalogue& catalogue) {
    const auto folders = Holdings(catalogue).missingFolders();
    const auto volumes = Volumes(catalogue).all();
    if (!folders || !volumes) {
        return folders ? volumes.error() : folders.error();
    }
    std::vector<Ribbon> ribbons;
    for (const auto& folder : *folders) {
        ribbons.push_back(
            {folderText(*volumes, folder.volume, folder.folder),
             folder.foundVolume ? folderText(*volumes, *folder.foundVolume, folder.foundFolder) : QString(),
             folder.count});
    }
    return ribbons;
}

Result<std::vector<MissingPanel::MissingRow>> MissingPanel::fetchRows(const Catalogue& catalogue,
                                                                      std::span<const HoldingId> ids) {
    const Holdings holdings(catalogue);
    auto found = holdings.byIds(ids);
    const auto volumes = Volumes(catalogue).all();
    const auto restored = DocketStore(catalogue).standing(ids, ActionKind::restore);
    const auto writtenOff = DocketStore(catalogue).standing(ids, ActionKind::writeOff);
    if (!found || !volumes) {
        return !found ? found.error() : volumes.error();
    }
    if (!restored || !writtenOff) {
        return restored ? writtenOff.error() : restored.error();
    }
    std::vector<MissingRow> rows;
    for (auto& holding : *found) {
        MissingRow row;
        if (const auto* volume = volumeOf(*volumes, holding.volume)) {
            row.volume = numberedLabel(*volume);
            row.atHand = volume->atHand;
            row.root = volume->root;
        }
        const auto copies = holdings.carrying(holding.checksum);
        RETURN_IF_FAILED(copies);
        const auto outside = FixityStore(catalogue).outsideCopiesOf(holding.checksum);
        RETURN_IF_FAILED(outside);
        if (copies->empty() && !outside->empty()) {
            row.elsewhere = outside->front();
        }
        if (!copies->empty()) {
            const auto* where = volumeOf(*volumes, copies->front().volume);
            row.elsewhere = joinPath(where != nullptr ? where->label : std::string(), copies->front().path);
        }
        const auto stands = [&](const std::vector<HoldingId>& among) {
            return std::ranges::find(among, holding.id) != among.end();
        };
        row.waiting = stands(*restored)     ? std::optional(ActionKind::restore)
                      : stands(*writtenOff) ? std::optional(ActionKind::writeOff)
                                            : std::nullopt;
        row.holding = std::move(holding);
        rows.push_back(std::move(row));
    }
    return rows;
}

std::vector<HoldingId> MissingPanel::selected() const {
    std::vector<HoldingId> ids;
    for (const auto& index : list_->selectionModel()->selectedRows()) {
        ids.push_back(missing_->ids()[static_cast<std::size_t>(index.row())]);
    }
    return ids;
}

/// Those of which the same bytes are somewhere.
void MissingPanel::bringBack() {
    std::vector<HoldingId> ids;
    for (const auto& index : list_->selectionModel()->selectedRows()) {
        const auto* row = missing_->row(index.row());
        if (row != nullptr && !row->elsewhere.empty()) {
            ids.push_back(row->holding.id);
        }
    }
    if (ids.empty()) {
        emit workbench_.failed(
            tr("Of the selected no copy is known. If a backup may have one, look in it from Fixity "
               "(Alt+4, then L)."));
    }
    put(ids, ActionKind::restore, "brought back from a copy");
}

void MissingPanel::put(const std::vector<HoldingId>& ids, ActionKind kind, const std::string& reason) {
    std::vector<DocketAction> actions;
    for (const auto id : ids) {
        actions.push_back({0, kind, id, reason, timeNow()});
    }
    if (!actions.empty()) {
        workbench_.decide(
            [actions](const Catalogue& catalogue) { return DocketStore(catalogue).add(actions); });
    }
}

void MissingPanel::wait() {
    workbench_.decide(
        [ids = selected()](const Catalogue& catalogue) { return DocketStore(catalogue).remove(ids); });
}

void MissingPanel::listMenu(const QPoint& at) {
    const int row = list_->rowAt(at.y());
    const auto* missing = row >= 0 ? missing_->row(row) : nullptr;
    if (missing != nullptr) {
        showFileMenu(*this, joinPath(missing->root, missing->holding.path),
                     list_->viewport()->mapToGlobal(at));
    }
}

} // namespace sober::app
