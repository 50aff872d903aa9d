#include "app/desks/salvage_desk.h"

#include "app/ask_folder.h"
#include "app/desks/find_evidence.h"
#include "app/words.h"
#include "core/catalogue/docket_store.h"
#include "core/salvage/image_map.h"

#include <QCheckBox>
#include <QComboBox>
#include <QFileDialog>
#include <QHBoxLayout>
#include <QHeaderView>
#include <QLabel>
#include <QPushButton>
#include <QVBoxLayout>

#include <algorithm>
#include <set>

namespace sober::app {
namespace {

bool isWhole(const Find& find) {
    return find.examined && find.ends && find.sound != false && find.complete.value_or(1) >= 1;
}

Mark markOf(FindStanding standing) {
    switch (standing) {
    case FindStanding::missing:
        return Mark::missing;
    case FindStanding::held:
        return Mark::sound;
    case FindStanding::retired:
        return Mark::retire;
    case FindStanding::unknown:
        break;
    }
    return Mark::undetermined;
}

QString standingWords(FindStanding standing) {
    switch (standing) {
    case FindStanding::missing:
        return SalvageDesk::tr("missing here");
    case FindStanding::held:
        return SalvageDesk::tr("held");
    case FindStanding::retired:
        return SalvageDesk::tr("retired");
    case FindStanding::unknown:
        break;
    }
    return SalvageDesk::tr("new");
}

/// The finds of docket actions.
Result<std::set<FindId>> waitingFinds(const Catalogue& catalogue) {
    const auto actions = DocketStore(catalogue).all();
    if (!actions) {
        return actions.error();
    }
    std::set<FindId> ids;
    for (const auto& action : *actions) {
        const auto bytes = action.kind == ActionKind::salvage ? unpackFindBytes(action.change) : std::nullopt;
        if (bytes) {
            ids.insert(bytes->find);
        }
    }
    return ids;
}

/// The trash as a band: newest first, each as wide as it is large.
void layTrash(SalvageStrip::Band& band, const std::vector<Find>& finds) {
    std::uint64_t at = 0;
    for (std::size_t i = 0; i < finds.size(); ++i) {
        band.pieces[i].extents = {{at, at + finds[i].bytes}};
        at += finds[i].bytes;
    }
    band.size = at;
    band.reached = at;
    band.isTrash = true;
    const auto day = [](const Find& find) {
        return find.deleted != 0 ? shown(localDay(find.deleted)) : SalvageDesk::tr("nobody knows when");
    };
    band.caption = SalvageDesk::tr("What was thrown away, the newest first");
    band.first = finds.empty() ? QString() : day(finds.front());
    band.last = finds.empty() ? QString() : day(finds.back());
}

void layImage(SalvageStrip::Band& band, const SalvageSource& source) {
    band.size = source.size;
    band.reached = source.reached;
    band.first = QStringLiteral("0");
    band.last = shown(humanBytes(source.size));
    const auto systems = source.fileSystems.empty() ? SalvageDesk::tr("no file system that is known")
                                                    : shown(source.fileSystems);
    const auto state =
        source.state == SalvageState::done
            ? QString()
            : SalvageDesk::tr(", looked through as far as %1").arg(shown(humanBytes(source.reached)));
    band.caption =
        SalvageDesk::tr("%1: %2, %3%4")
            .arg(shownPath(BytePath(nameOf(source.path))), shown(humanBytes(source.size)), systems, state);
}

/// What is read, what was not tried yet, and what could not be read.
SalvageStrip::Band bandOf(const ImageMap& map) {
    SalvageStrip::Band band;
    band.size = map.bytes();
    band.reached = map.bytes();
    band.ahead = map.ranges(Reading::ahead);
    std::uint64_t failed = 0;
    for (const auto reading : {Reading::step, Reading::sector, Reading::bad}) {
        const auto ranges = map.ranges(reading);
        band.unread.insert(band.unread.end(), ranges.begin(), ranges.end());
        failed += map.count(reading);
    }
    band.caption = SalvageDesk::tr("Image of %1: %2 of %3 are read, %4 could not be read so far")
                       .arg(shownPath(map.sources.empty() ? BytePath() : map.sources.back()),
                            shown(humanBytes(map.count(Reading::read))), shown(humanBytes(map.bytes())),
                            shown(humanBytes(failed)));
    band.first = QStringLiteral("0");
    band.last = shown(humanBytes(map.bytes()));
    return band;
}

} // namespace

SalvageDesk::SalvageDesk(Workbench& workbench)
    : Desk(workbench, tr("Salvage"), tr("What can I get back?")),
      sources_(new QComboBox(this)),
      kinds_(new QComboBox(this)),
      everywhere_(new QCheckBox(tr("Everywhere"), this)),
      strip_(new SalvageStrip(this)),
      standing_(new QComboBox(this)),
      whole_(new QComboBox(this)),
      format_(new QComboBox(this)),
      evidence_(new FindEvidence(this)) {
    buildHeading();
    body()->addWidget(strip_);
    buildRows();
    body()->addWidget(evidence_);
    connect(strip_, &SalvageStrip::findClicked, this, [this](qint64 find) {
        const auto& ids = finds_->ids();
        const auto at = std::ranges::find(ids, find);
        if (at != ids.end()) {
            list_->selectRow(static_cast<int>(at - ids.begin()));
        }
    });
    connect(&this->workbench(), &Workbench::foundMore, this, [this] {
        if (isVisible()) {
            reload();
        }
    });
    connect(&this->workbench(), &Workbench::progressed, this, [this](const Progress& progress) {
        if (this->workbench().longWork() == LongWork::scan && progress.totalFiles == 0) {
            strip_->setReached(progress.bytes);
        }
    });
    connect(&this->workbench(), &Workbench::takePlanned, this, &SalvageDesk::sayTaken);
    connect(&this->workbench(), &Workbench::imaging, this, &SalvageDesk::showImaging);
    connect(&this->workbench(), &Workbench::imaged, this, [this](const BytePath& image, const ImageMap& map) {
        const auto unread = map.unread();
        std::uint64_t lost = 0;
        for (const auto& [first, past] : unread) {
            lost += past - first;
        }
        emit this->workbench().failed(
            unread.empty() ? tr("All of it is in %1. Look again (L) looks through it.").arg(shownPath(image))
                           : tr("%1 in %2 are not in %3 yet; name the same image again to try them again. "
                                "Look again (L) "
                                "looks through what is there.")
                                 .arg(shown(humanBytes(lost)), shown(counted(unread.size(), "place")),
                                      shownPath(image)));
        showImaging(map);
    });
}

void SalvageDesk::buildHeading() {
    sources_->setAccessibleName(tr("What is looked through"));
    sources_->setMinimumWidth(200);
    kinds_->setAccessibleName(tr("Formats that are looked for"));
    kinds_->addItem(tr("All formats"), 0U);
    for (const auto kind : everyPieceKind) {
        PieceKinds one;
        one.add(kind);
        kinds_->addItem(tr("Only %1").arg(shown(std::string(word(kind)))), one.bits());
    }
    kinds_->setToolTip(tr("What the next scan looks for: one format alone is found faster"));
    kinds_->setSizeAdjustPolicy(QComboBox::AdjustToMinimumContentsLengthWithIcon);
    kinds_->setMinimumContentsLength(10);
    everywhere_->setToolTip(
        tr("Also where the file system of an image gives out files that can simply be read"));
    auto* open = keyButton(tr("Image or drive…"), QKeySequence(Qt::Key_O), this);
    open->setToolTip(
        tr("Look through an image of a card, or a drive; nothing is changed there. Of a drive that fails "
           "make an image first: every reading may be its last."));
    auto* make = keyButton(tr("Make an image…"), QKeySequence(Qt::Key_M), this);
    make->setToolTip(
        tr("Read a drive that fails, or any, into an image: what is sound first. Stopped, it goes on there "
           "when the same image is named again; what could not be read is tried again."));
    auto* again = keyButton(tr("Look again"), QKeySequence(Qt::Key_L), this);
    again->setToolTip(
        tr("Look at the trash again, or go on with the image; what was changed is looked through anew"));
    heading()->addWidget(sources_);
    heading()->addWidget(again);
    heading()->addWidget(open);
    heading()->addWidget(make);
    connect(make, &QPushButton::clicked, this, &SalvageDesk::askToMakeImage);
    connect(open, &QPushButton::clicked, this, &SalvageDesk::askForImage);
    connect(again, &QPushButton::clicked, this, &SalvageDesk::again);
    connect(sources_, &QComboBox::currentIndexChanged, this, [this] {
        if (!filling_) {
            image_ = sources_->currentData().toByteArray().toStdString();
            reload();
        }
    });
}

void SalvageDesk::buildRows() {
    standing_->setAccessibleName(tr("Show by what it is to the collection"));
    standing_->addItems({tr("All finds"), tr("New"), tr("Missing here"), tr("Held"), tr("Retired")});
    whole_->setAccessibleName(tr("Show by how whole it is"));
    whole_->addItems({tr("Whole or not"), tr("Whole"), tr("Not whole")});
    format_->setAccessibleName(tr("Show by format"));
    format_->addItem(tr("Any format"), QString());
    for (auto* box : {standing_, whole_, format_}) {
        box->setSizeAdjustPolicy(QComboBox::AdjustToMinimumContentsLengthWithIcon);
        box->setMinimumContentsLength(9);
        connect(box, &QComboBox::currentIndexChanged, this, [this] {
            if (!filling_) {
                reload();
            }
        });
    }
    auto* home = keyButton(tr("Put back"), QKeySequence(Qt::Key_H), this);
    home->setToolTip(tr("To the place of the missing holding that it is or, out of the trash, where it was"));
    auto* into = keyButton(tr("Take into…"), QKeySequence(Qt::Key_T), this);
    into->setToolTip(
        tr("Into a folder, named by what is known of it; what is not whole is kept apart there"));
    auto* leave = keyButton(tr("Leave"), QKeySequence(Qt::Key_A), this);
    leave->setToolTip(tr("Take the selected off the docket"));
    auto* above = new QHBoxLayout;
    above->setSpacing(8);
    for (QWidget* widget : std::initializer_list<QWidget*>{standing_, whole_, format_}) {
        above->addWidget(widget);
    }
    above->addStretch(1);
    above->addWidget(kinds_);
    above->addWidget(everywhere_);
    above->addSpacing(12);
    for (auto* button : {home, into, leave}) {
        above->addWidget(button);
    }
    body()->addLayout(above);

    std::vector<Column<FindRow>> columns{
        {tr("It is"),
         [](const FindRow& row) {
             return row.waits ? Cell{tr("to be taken"), Mark::moved, false, false, {}}
                    : !row.find.taken.empty()
                        ? Cell{tr("taken"), Mark::keep, false, true, shownPath(row.find.taken)}
                        : Cell{standingWords(row.known.standing),
                               markOf(row.known.standing),
                               false,
                               false,
                               {}};
         }},
        {tr("Name"),
         [](const FindRow& row) {
             return Cell{findName(row.find, row.known), Mark::none, false, false, {}};
         }},
        {tr("How whole"),
         [](const FindRow& row) {
             return Cell{
                 wholeWords(row.find), isWhole(row.find) ? Mark::sound : Mark::damaged, false, false, {}};
         }},
        {tr("Format"),
         [](const FindRow& row) {
             return Cell{shown(row.find.format), Mark::none, false, false, {}};
         }},
        {tr("Length"),
         [](const FindRow& row) {
             return Cell{row.find.seconds > 0 ? shown(humanSeconds(row.find.seconds)) : QStringLiteral("–"),
                         Mark::none,
                         false,
                         false,
                         {}};
         },
         true},
        {tr("Size"),
         [](const FindRow& row) {
             return Cell{shown(humanBytes(row.find.bytes)), Mark::none, false, false, {}};
         },
         true},
        {tr("Its place"), [](const FindRow& row) {
             const auto& place =
                 row.known.standing != FindStanding::unknown ? row.known.place : row.find.from;
             return place.empty() ? Cell{tr("not known"), Mark::none, false, true, {}}
                                  : Cell{shownPath(place), Mark::none, true, false, shownPath(place)};
         }}};
    finds_ = new IdListModel<FindRow>(workbench(), std::move(columns), &SalvageDesk::fetchRows, this);
    list_ = new ListView(tr("Finds"), this);
    list_->setModel(finds_);
    list_->setEmptyText(
        tr("Nothing was found here yet. Look again (L) looks at the trash of every drive at hand; Image or "
           "drive… (O) looks through the image of a card that was wiped."));
    list_->setWidths({126, 220, 112, 70, 76, 80, 300}, 6);
    body()->addWidget(list_, 1);
    setFocusProxy(list_);
    connect(home, &QPushButton::clicked, this, [this] { take(true); });
    connect(into, &QPushButton::clicked, this, [this] { take(false); });
    connect(leave, &QPushButton::clicked, this, &SalvageDesk::leave);
    connect(list_->selectionModel(), &QItemSelectionModel::selectionChanged, this, &SalvageDesk::showChosen);
    connect(finds_, &QAbstractItemModel::dataChanged, this, &SalvageDesk::showChosen);
}

SalvageDesk::Narrowing SalvageDesk::narrowing() const {
    return {standing_->currentIndex(), whole_->currentIndex(),
            format_->currentData().toString().toStdString()};
}

void SalvageDesk::reload() {
    workbench().ask<Seen>(
        this,
        [image = image_, narrowing = narrowing()](const Catalogue& catalogue) {
            return look(catalogue, image, narrowing);
        },
        [this, asked = ++asked_](const Seen& seen) {
            if (asked == asked_) {
                show(seen);
            }
        });
}

Result<SalvageDesk::Seen> SalvageDesk::look(const Catalogue& catalogue, const BytePath& source,
                                            const Narrowing& narrowing) {
    const SalvageStore store(catalogue);
    auto images = store.images();
    const auto shownSource = store.sourceOf(source);
    if (!images || !shownSource) {
        return images ? shownSource.error() : images.error();
    }
    Seen seen;
    seen.images = std::move(*images);
    seen.source = *shownSource;
    auto finds = seen.source ? store.finds(seen.source->id) : Result(std::vector<Find>{});
    if (!finds) {
        return finds.error();
    }
    if (source.empty()) {
        std::ranges::stable_sort(*finds, std::ranges::greater{}, &Find::deleted);
    }
    const auto known = standingsOf(catalogue, *finds);
    if (!known) {
        return known.error();
    }
    std::set<std::string> formats;
    for (std::size_t i = 0; i < finds->size(); ++i) {
        const auto& find = (*finds)[i];
        const auto standing = (*known)[i].standing;
        formats.insert(find.format);
        seen.missing += standing == FindStanding::missing && find.taken.empty() ? 1 : 0;
        seen.band.pieces.push_back({find.id, findName(find, (*known)[i]), find.extents,
                                    standing == FindStanding::missing   ? SalvageStrip::Ink::missing
                                    : standing == FindStanding::unknown ? SalvageStrip::Ink::fresh
                                                                        : SalvageStrip::Ink::held,
                                    isWhole(find) || !find.examined});
        const bool fits = (narrowing.standing == 0 || narrowing.standing - 1 == static_cast<int>(standing)) &&
                          (narrowing.whole == 0 || (narrowing.whole == 1) == isWhole(find)) &&
                          (narrowing.format.empty() || narrowing.format == find.format);
        if (fits) {
            seen.ids.push_back(find.id);
        }
    }
    seen.formats.assign(formats.begin(), formats.end());
    if (source.empty()) {
        layTrash(seen.band, *finds);
    } else if (seen.source) {
        layImage(seen.band, *seen.source);
        if (const auto unread = unreadOf(source)) {
            seen.band.unread = *unread;
        }
    } else if (const auto map = mapOf(source); map && *map) {
        seen.band = bandOf(**map); // made, and not looked through yet
    }
    return seen;
}

Result<std::vector<SalvageDesk::FindRow>> SalvageDesk::fetchRows(const Catalogue& catalogue,
                                                                 std::span<const std::int64_t> ids) {
    auto finds = SalvageStore(catalogue).byIds(ids);
    auto known = finds ? standingsOf(catalogue, *finds) : Result<std::vector<KnownFind>>(finds.error());
    const auto waiting = known ? waitingFinds(catalogue) : Result<std::set<FindId>>(known.error());
    if (!waiting) {
        return waiting.error();
    }
    std::vector<FindRow> rows;
    for (std::size_t i = 0; i < finds->size(); ++i) {
        rows.push_back({(*finds)[i], (*known)[i], waiting->contains((*finds)[i].id)});
    }
    return rows;
}

void SalvageDesk::show(const Seen& seen) {
    showSources(seen);
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

void SalvageDesk::showSources(const Seen& seen) {
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
    auto* dialog = new QFileDialog(this, tr("An image of a card, or a drive"));
    dialog->setAttribute(Qt::WA_DeleteOnClose);
    dialog->setFileMode(QFileDialog::ExistingFile);
    dialog->setFilter(QDir::AllEntries | QDir::System);
    connect(dialog, &QFileDialog::fileSelected, this,
            [this](const QString& file) { scan(QFile::encodeName(file).toStdString()); });
    dialog->open();
}

void SalvageDesk::askToMakeImage() {
    auto* from = new QFileDialog(this, tr("The drive that an image is made of"));
    from->setAttribute(Qt::WA_DeleteOnClose);
    from->setFileMode(QFileDialog::ExistingFile);
    from->setFilter(QDir::AllEntries | QDir::System);
    connect(from, &QFileDialog::fileSelected, this, [this](const QString& source) {
        auto* to = new QFileDialog(this, tr("The image, on another drive"));
        to->setAttribute(Qt::WA_DeleteOnClose);
        to->setAcceptMode(QFileDialog::AcceptSave);
        to->setOption(QFileDialog::DontConfirmOverwrite); // an image that was begun is gone on with
        connect(to, &QFileDialog::fileSelected, this, [this, source](const QString& image) {
            const auto path = QFile::encodeName(image).toStdString();
            image_ = joinPath(realPathOf(parentOf(path)).value_or(BytePath(parentOf(path))), nameOf(path));
            workbench().makeImage({QFile::encodeName(source).toStdString(), image_});
        });
        to->open();
    });
    from->open();
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
    const auto bits = kinds_->currentData().toUInt();
    workbench().scan(
        {image_, bits == 0 ? PieceKinds::all() : PieceKinds::ofBits(bits), everywhere_->isChecked(), false});
    reload();
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
        planTake(true, {});
    } else {
        askForFolder(this, tr("Take the selected into a folder"),
                     [this](const BytePath& folder) { planTake(false, folder); });
    }
}

void SalvageDesk::planTake(bool home, const BytePath& to) {
    workbench().planTake({selected(), home, to});
}

/// What was left, and why, of those that were selected.
void SalvageDesk::sayTaken(const std::vector<PlannedTake>& planned) {
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
        text += QLatin1Char(' ') + shown(why);
    }
    emit workbench().failed(text);
}

void SalvageDesk::leave() {
    workbench().decide([ids = selected()](const Catalogue& catalogue) -> Outcome {
        const DocketStore docket(catalogue);
        const auto actions = docket.all();
        if (!actions) {
            return actions.error();
        }
        std::vector<ActionId> off;
        for (const auto& action : *actions) {
            const auto bytes =
                action.kind == ActionKind::salvage ? unpackFindBytes(action.change) : std::nullopt;
            if (bytes && std::ranges::find(ids, bytes->find) != ids.end()) {
                off.push_back(action.id);
            }
        }
        const auto removed = docket.removeActions(off);
        return removed ? done() : Outcome(removed.error());
    });
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
