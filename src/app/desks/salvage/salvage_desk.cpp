#include "app/desks/salvage/salvage_desk.h"

#include "app/ask_path.h"
#include "app/desks/ask_window.h"
#include "app/desks/salvage/bytes_window.h"
#include "app/desks/salvage/find_evidence.h"
#include "app/desks/salvage/salvage_bands.h"
#include "app/desks/salvage/write_image_window.h"
#include "app/hand_focus_on.h"
#include "app/words.h"
#include "app/wrap_row.h"
#include "core/salvage/image_map.h"
#include "core/work/tidy_salvaged.h"
#include "core/work/waiting_finds.h"

#include <QCheckBox>
#include <QComboBox>
#include <QHBoxLayout>
#include <QHeaderView>
#include <QLabel>
#include <QMessageBox>
#include <QPushButton>
#include <QVBoxLayout>

#include <algorithm>
#include <set>

namespace sober::app {
SalvageDesk::SalvageDesk(Workbench& workbench)
    : Desk(workbench, tr("Salvage"), tr("What can I get back?")),
      sources_(new QComboBox(this)),
      kinds_(new QComboBox(this)),
      everywhere_(new QCheckBox(tr("Everywhere"), this)),
      strip_(new SalvageStrip(this)),
      standing_(new QComboBox(this)),
      whole_(new QComboBox(this)),
      format_(new QComboBox(this)),
      together_(new QCheckBox(tr("Fragments together"), this)),
      evidence_(new FindEvidence(this)) {
    buildHeading();
    body()->addWidget(strip_);
    buildTools();
    buildRows();
    body()->addWidget(evidence_);
    connect(strip_, &SalvageStrip::findClicked, this, [this](qint64 find) {
        const auto& ids = finds_->ids();
        const auto shownBy = shownBy_.find(find); // where it stands in the line of another
        const auto at = std::ranges::find(ids, shownBy == shownBy_.end() ? find : shownBy->second);
        if (at != ids.end()) {
            list_->selectRow(static_cast<int>(at - ids.begin()));
        }
    });
    connect(&this->workbench(), &Workbench::foundMore, this, [this] {
        if (isVisible()) {
            reload();
        }
    });
    connect(&this->workbench(), &Workbench::takePlanned, this, &SalvageDesk::sayTaken);
    connect(&this->workbench(), &Workbench::imaging, this, &SalvageDesk::showImaging);
    connect(&this->workbench(), &Workbench::imageWritten, this, [this](const WrittenImage& written) {
        emit this->workbench().failed(
            written.unread == 0
                ? tr("%1 were written, read back and compared.").arg(told(humanBytes(written.bytes)))
                : tr("%1 were written, read back and compared; %2 of them are zeros for what is not in the "
                     "image.")
                      .arg(told(humanBytes(written.bytes)), told(humanBytes(written.unread))));
    });
    connect(&this->workbench(), &Workbench::imaged, this, [this](const BytePath& image, const ImageMap& map) {
        const auto unread = map.unread();
        const auto lost = lengthOf(unread);
        emit this->workbench().failed(
            unread.empty()
                ? tr("All of it is in %1. Look again (L) looks through it.").arg(shownPath(image))
                : tr("%1 in %2 are not in %3 yet; name the same image again to try them again. "
                     "Look again (L) "
                     "looks through what is there.")
                      .arg(told(humanBytes(lost)), told(counted(unread.size(), "place")), shownPath(image)));
        showImaging(map);
    });
}

void SalvageDesk::buildHeading() {
    sources_->setAccessibleName(tr("What is looked through"));
    sources_->setMinimumWidth(200);
    auto* open = keyButton(tr("Image or drive…"), QKeySequence(Qt::Key_O), this);
    open->setToolTip(
        tr("Look through an image of a card, or a drive; nothing is changed there. Of a drive that fails "
           "make an image first: every reading may be its last."));
    forget_ = keyButton(tr("Forget"), QKeySequence(Qt::Key_Delete), this);
    forget_->setToolTip(tr("Forget what was found in this image; the image itself stays as it is"));
    connect(forget_, &QPushButton::clicked, this, &SalvageDesk::forget);
    heading()->addWidget(sources_);
    heading()->addWidget(open);
    heading()->addWidget(forget_);
    connect(open, &QPushButton::clicked, this, &SalvageDesk::askForImage);
    connect(sources_, &QComboBox::currentIndexChanged, this, [this] {
        if (!filling_) {
            image_ = sources_->currentData().toByteArray().toStdString();
            reload();
        }
    });
}

void SalvageDesk::buildTools() {
    kinds_->setAccessibleName(tr("Formats that are looked for"));
    kinds_->addItem(tr("Scan for all"), 0U);
    for (const auto kind : everyPieceKind) {
        PieceKinds one;
        one.add(kind);
        kinds_->addItem(tr("Scan for %1").arg(told(std::string(word(kind)))), one.bits());
    }
    kinds_->setToolTip(tr("What the next scan looks for: one format alone is found faster"));
    kinds_->setSizeAdjustPolicy(QComboBox::AdjustToContents);
    everywhere_->setToolTip(
        tr("Also where the file system of an image gives out files that can simply be read"));
    auto* make = keyButton(tr("Make an image…"), QKeySequence(Qt::Key_M), this);
    make->setToolTip(
        tr("Read a drive that fails, or any, into an image: what is sound first. Stopped, it goes on there "
           "when the same image is named again; what could not be read is tried again."));
    auto* again = keyButton(tr("Look again"), QKeySequence(Qt::Key_L), this);
    again->setToolTip(
        tr("Look at the trash again, or go on with the image; what was changed is looked through anew"));
    auto* write = keyButton(tr("Write one back…"), QKeySequence(Qt::Key_W), this);
    write->setToolTip(tr("Write this image over a drive that nobody uses, and compare it afterwards"));
    auto* bytes = keyButton(tr("Bytes"), QKeySequence(Qt::Key_B), this);
    bytes->setToolTip(tr("The bytes of the image where the selected find begins, and what they are"));
    connect(again, &QPushButton::clicked, this, &SalvageDesk::again);
    connect(make, &QPushButton::clicked, this, &SalvageDesk::askToMakeImage);
    connect(write, &QPushButton::clicked, this, &SalvageDesk::askToWriteImage);
    connect(bytes, &QPushButton::clicked, this, &SalvageDesk::showBytes);
    auto* tools = new WrapRow;
    tools->setSpacing(8);
    for (QWidget* widget : std::initializer_list<QWidget*>{kinds_, everywhere_, again}) {
        tools->addWidget(widget);
    }
    tools->addStretch(1);
    for (auto* button : {bytes, make, write}) {
        tools->addWidget(button);
    }
    body()->addLayout(tools);
}

void SalvageDesk::buildRows() {
    standing_->setAccessibleName(tr("Show by what it is to the collection"));
    standing_->addItems({tr("All finds"), tr("New"), tr("Missing here"), tr("Held"), tr("Retired")});
    whole_->setAccessibleName(tr("Show by how whole it is"));
    whole_->addItems({tr("Whole or not"), tr("Whole"), tr("Not whole")});
    format_->setAccessibleName(tr("Show by format"));
    format_->addItem(tr("Any format"), QString());
    for (auto* box : {standing_, whole_, format_}) {
        fitWords(*box);
        connect(box, &QComboBox::currentIndexChanged, this, [this] {
            if (!filling_) {
                reload();
            }
        });
    }
    together_->setChecked(true);
    together_->setToolTip(tr("What is new and sounds or is called the same is one line: the best of it"));
    connect(together_, &QCheckBox::toggled, this, &SalvageDesk::reload);
    auto* home = keyButton(tr("Put back"), QKeySequence(Qt::Key_H), this);
    home->setToolTip(tr("To the place of the missing holding that it is or, out of the trash, where it was"));
    auto* into = keyButton(tr("Take into…"), QKeySequence(Qt::Key_T), this);
    into->setToolTip(
        tr("Into a folder, named by what is known of it; what is not whole is kept apart there"));
    auto* tidy = keyButton(tr("Tidy up"), QKeySequence(Qt::Key_Y), this);
    tidy->setToolTip(
        tr("Put on the docket what was salvaged into a folder or lies in the trash, and is held elsewhere"));
    connect(tidy, &QPushButton::clicked, this, &SalvageDesk::tidy);
    auto* leave = keyButton(tr("Leave"), QKeySequence(Qt::Key_A), this);
    leave->setToolTip(tr("Take the selected off the docket"));
    auto* above = new WrapRow;
    above->setSpacing(8);
    for (QWidget* widget : std::initializer_list<QWidget*>{standing_, whole_, format_}) {
        above->addWidget(widget);
    }
    above->addWidget(together_);
    above->addStretch(1);
    for (auto* button : {home, into, leave, tidy}) {
        above->addWidget(button);
    }
    body()->addLayout(above);

    finds_ = new IdListModel<FindRow>(
        workbench(), findColumns([this](FindId find) { return alike_.contains(find) ? alike_.at(find) : 0; }),
        &fetchFindRows, this);
    list_ = new ListView(tr("Finds"), this);
    list_->setModel(finds_);
    list_->setEmptyText(
        tr("Nothing was found here yet. Look again (L) looks at the trash of every drive at hand; Image or "
           "drive… (O) looks through the image of a card that was wiped."));
    list_->setWidths({126, 220, 112, 70, 76, 80, 300}, 6);
    body()->addWidget(list_, 1);
    handFocusOn(this, list_);
    connect(home, &QPushButton::clicked, this, [this] { take(true); });
    connect(into, &QPushButton::clicked, this, [this] { take(false); });
    connect(leave, &QPushButton::clicked, this, &SalvageDesk::leave);
    connect(list_->selectionModel(), &QItemSelectionModel::selectionChanged, this, &SalvageDesk::showChosen);
    connect(finds_, &QAbstractItemModel::dataChanged, this, &SalvageDesk::showChosen);
}

FindNarrowing SalvageDesk::narrowing() const {
    return {standing_->currentIndex(), whole_->currentIndex(),
            format_->currentData().toString().toStdString(), together_->isChecked()};
}

void SalvageDesk::reload() {
    workbench().askLatest<SalvageSeen>(
        asked_, this,
        [image = image_, narrowing = narrowing()](const Catalogue& catalogue) {
            return lookAtSalvage(catalogue, image, narrowing);
        },
        [this](const SalvageSeen& seen) { show(seen); });
}

void SalvageDesk::show(const SalvageSeen& seen) {
    showSources(seen);
    near_ = seen.near;
    alike_ = seen.alike;
    shownBy_ = seen.shownBy;
    if (workbench().longWork() != LongWork::imaging) {
        strip_->setBand(seen.band);
    }
    if (finds_->ids() == seen.ids) {
        finds_->refresh();
        return;
    }
    const auto chosen = selected();
    finds_->setIds(seen.ids);
    const auto at = chosen.empty() ? seen.ids.begin() : std::ranges::find(seen.ids, chosen.front());
    if (!seen.ids.empty()) {
        list_->selectRow(at == seen.ids.end() ? 0 : static_cast<int>(at - seen.ids.begin()));
    } else {
        showChosen();
    }
}

void SalvageDesk::showSources(const SalvageSeen& seen) {
    filling_ = true;
    sources_->clear();
    sources_->addItem(tr("The trash"), QByteArray());
    for (const auto& image : seen.images) {
        sources_->addItem(shownPath(BytePath(nameOf(image.path))), QByteArray::fromStdString(image.path));
        sources_->setItemData(sources_->count() - 1, shownPath(image.path), Qt::ToolTipRole);
    }
    const int at = sources_->findData(QByteArray::fromStdString(image_));
    if (at < 0) {
        sources_->addItem(shownPath(BytePath(nameOf(image_))), QByteArray::fromStdString(image_));
    }
    sources_->setCurrentIndex(at < 0 ? sources_->count() - 1 : at);
    forget_->setEnabled(seen.source && !image_.empty());
    const auto format = format_->currentData();
    while (format_->count() > 1) {
        format_->removeItem(1);
    }
    for (const auto& each : seen.formats) {
        if (!each.empty()) {
            format_->addItem(shown(each), shown(each));
        }
    }
    format_->setCurrentIndex(std::max(0, format_->findData(format)));
    filling_ = false;
}

void SalvageDesk::askForImage() {
    askForFile(this, tr("An image of a card, or a drive"), near_,
               [this](const BytePath& image) { scan(image); });
}

void SalvageDesk::askToMakeImage() {
    askForFile(this, tr("The drive that an image is made of"), near_, [this](const BytePath& source) {
        // An image that was begun is gone on with.
        askWhereToWrite(
            this, tr("The image, on another drive"), near_, [this, source](const BytePath& image) {
                image_ =
                    joinPath(realPathOf(parentOf(image)).value_or(BytePath(parentOf(image))), nameOf(image));
                workbench().makeImage({source, image_});
            });
    });
}

void SalvageDesk::askToWriteImage() {
    if (image_.empty()) {
        emit workbench().failed(tr("Choose the image first that is to be written."));
        return;
    }
    askForFile(this, tr("The drive that the image is written over"), "/dev", [this](const BytePath& target) {
        workbench().ask<WriteTarget>(
            this, [target](const Catalogue& catalogue) { return lookAtTarget(catalogue, target); },
            [this](const WriteTarget& seen) {
                if (!seen.whyNot.empty()) {
                    emit workbench().failed(told(seen.whyNot));
                    return;
                }
                (new WriteImageWindow(workbench(), image_, seen, this))->open();
            });
    });
}

void SalvageDesk::showBytes() {
    if (image_.empty()) {
        emit workbench().failed(tr("What lies in the trash is a file: its bytes are where it lies."));
        return;
    }
    const auto rows = list_->selectionModel()->selectedRows();
    const auto* row = rows.isEmpty() ? nullptr : finds_->row(rows.front().row());
    (new BytesWindow(workbench(), image_, row == nullptr ? 0 : row->find.firstByte(), this))->show();
}

void SalvageDesk::showImaging(const ImageMap& map) {
    strip_->setBand(bandOf(map));
}

void SalvageDesk::scan(const BytePath& image) {
    if (workbench().isBusy()) {
        emit workbench().failed(tr("Something else is going on; wait for it, or stop it."));
        return;
    }
    image_ = realPathOf(image).value_or(image);
    warnOfDrive();
    const auto bits = kinds_->currentData().toUInt();
    workbench().scan(
        {image_, bits == 0 ? PieceKinds::all() : PieceKinds::ofBits(bits), everywhere_->isChecked(), false});
    reload();
}

/// Why a drive is better imaged first.
void SalvageDesk::warnOfDrive() {
    const auto drive = openDrive(image_);
    const auto use = drive && drive->isDevice ? useOf(image_) : Result<DriveUse>(Error{});
    if (use) {
        emit workbench().failed(use->isFree() ? tr("It is looked through as it is. Of a drive that fails "
                                                   "every reading may be the last: make an "
                                                   "image first (M).")
                                              : tr("It is in use (%1): what was deleted there may be written "
                                                   "over any moment. Make an image first "
                                                   "(M).")
                                                    .arg(told(wordsFor(*use))));
    }
}

void SalvageDesk::again() {
    if (image_.empty()) {
        workbench().lookAtTrash();
    } else {
        scan(image_);
    }
}

void SalvageDesk::take(bool home) {
    if (selected().empty()) {
        return;
    }
    if (home) {
        takeRequest_ = {selected(), true};
        workbench().planTake(takeRequest_);
    } else {
        askForFolder(this, tr("Take the selected into a folder"),
                     [this](const BytePath& folder) { askForLayout(folder); });
    }
}

void SalvageDesk::askForLayout(const BytePath& to) {
    auto* window = new AskWindow({tr("In which folders, under which names"),
                                  tr("Fields and quoted text, “/” between folders; “|” says what stands in "
                                     "for a field that is empty. What has no "
                                     "tags is named by where it was found."),
                                  tr("Put on the docket"),
                                  {QString::fromLatin1(usualLayout), QStringLiteral("artist / title|name"),
                                   QStringLiteral("name"), QStringLiteral("genre / artist / title|name")},
                                  QString::fromLatin1(usualLayout)},
                                 this);
    connect(window, &AskWindow::answered, this, [this, ids = selected(), to](const QString& layout) {
        takeRequest_ = {ids, false, to, layout.toStdString(), OnConflict::ask};
        workbench().planTake(takeRequest_);
    });
    window->open();
}

/// Names that are taken: the same again under others, or not at all.
void SalvageDesk::askAboutTaken(const std::vector<PlannedTake>& planned) {
    auto request = takeRequest_;
    request.finds.clear();
    for (const auto& each : planned) {
        if (each.isAsked) {
            request.finds.push_back(each.find);
        }
    }
    if (request.finds.empty()) {
        return;
    }
    request.onConflict = OnConflict::otherName;
    auto* box = new QMessageBox(QMessageBox::NoIcon, tr("Names that are taken"),
                                tr("The names of %1 are taken there. What stands there stays in any case.")
                                    .arg(told(counted(request.finds.size(), "find"))),
                                QMessageBox::NoButton, this);
    box->setAttribute(Qt::WA_DeleteOnClose);
    auto* other = box->addButton(tr("Take them under other names"), QMessageBox::AcceptRole);
    box->addButton(tr("Leave them"), QMessageBox::RejectRole);
    connect(other, &QAbstractButton::clicked, this, [this, request] { workbench().planTake(request); });
    box->open();
}

/// What was left, and why, of those that were selected.
void SalvageDesk::sayTaken(const std::vector<PlannedTake>& planned) {
    askAboutTaken(planned);
    std::set<std::string> whys;
    std::size_t left = 0;
    for (const auto& each : planned) {
        if (each.place.empty()) {
            ++left;
            whys.insert(each.why);
        }
    }
    if (left == 0) {
        return;
    }
    QString text = left == planned.size() ? tr("Nothing was put on the docket.")
                                          : tr("%1 of %2 were left.").arg(left).arg(planned.size());
    for (const auto& why : whys) {
        text += QLatin1Char(' ') + told(why);
    }
    emit workbench().failed(text);
}

void SalvageDesk::leave() {
    workbench().decide([ids = selected()](const Catalogue& catalogue) { return leaveFinds(catalogue, ids); });
}

void SalvageDesk::tidy() {
    workbench().decide([this](const Catalogue& catalogue) -> Outcome {
        const auto left = planTidying(catalogue);
        RETURN_IF_FAILED(left);
        QMetaObject::invokeMethod(this, [this, count = left->size()] {
            emit workbench().failed(
                count == 0 ? tr("Nothing that was salvaged is held elsewhere, and nothing in the trash is.")
                           : tr("%1 put on the docket: they are held elsewhere.")
                                 .arg(told(counted(count, "action was", "actions were"))));
        });
        return done();
    });
}

void SalvageDesk::forget() {
    if (image_.empty()) {
        return;
    }
    workbench().decide([image = std::exchange(image_, {})](const Catalogue& catalogue) {
        return forgetImage(catalogue, image);
    });
    reload();
}

std::vector<FindId> SalvageDesk::selected() const {
    std::vector<FindId> ids;
    for (const auto& index : list_->selectionModel()->selectedRows()) {
        ids.push_back(finds_->ids()[static_cast<std::size_t>(index.row())]);
    }
    return ids;
}

void SalvageDesk::showChosen() {
    const auto rows = list_->selectionModel()->selectedRows();
    const auto* row = rows.isEmpty() ? nullptr : finds_->row(rows.front().row());
    if (row == nullptr) {
        strip_->setChosen(0);
        evidence_->setFind(std::nullopt, {}, {});
        return;
    }
    strip_->setChosen(row->find.id);
    evidence_->setFind(row->find, row->known, image_);
}

} // namespace sober::app
