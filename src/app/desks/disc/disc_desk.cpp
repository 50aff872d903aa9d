#include "app/desks/disc/disc_desk.h"

#include "app/ask_path.h"
#include "app/charts/disc_band.h"
#include "app/desks/disc/disc_services_window.h"
#include "app/desks/tags/tag_table_window.h"
#include "app/hand_focus_on.h"
#include "app/listening/listening_bar.h"
#include "app/words.h"
#include "app/wrap_row.h"
#include "core/base/http_exchange.h"
#include "core/base/presence.h"
#include "core/catalogue/inbox_store.h"
#include "core/catalogue/service_store.h"
#include "core/disc/disc_tags.h"
#include "core/remedy/disc_spool.h"

#include <QAction>
#include <QComboBox>
#include <QHBoxLayout>
#include <QLabel>
#include <QMenu>
#include <QPushButton>
#include <QVBoxLayout>

#include <fmt/format.h>

#include <algorithm>

namespace sober::app {
namespace {

QString namesWords(const DiscNames& names) {
    const auto artist =
        names.artist.empty() && names.isOfSeveral() ? QObject::tr("several") : shown(names.artist);
    return QObject::tr("%1%2%3 (from %4)")
        .arg(artist, artist.isEmpty() ? QString() : QStringLiteral(": "), shown(names.title),
             told(names.source));
}

BytePath waveOf(const Workbench& workbench, const std::string& id, int track) {
    return joinPath(joinPath(discsFolder(workbench.cataloguePath()), id), fmt::format("{:02}.wav", track));
}

} // namespace

DiscDesk::DiscDesk(Workbench& workbench)
    : Desk(workbench, tr("Disc"), tr("What is on this disc, and was it read rightly?")),
      band_(new DiscBand(this)) {
    buildHeading();
    about_ =
        quietLabel(tr("Choose a drive with an audio disc in it, or the cue sheet of a disc's image."), this);
    about_->setAccessibleName(tr("The disc"));
    about_->setSizePolicy(QSizePolicy::Ignored, QSizePolicy::Fixed);
    body()->addWidget(about_);
    body()->addWidget(band_);
    buildChoices();
    buildRows();
    buildEvidence();
    connect(band_, &DiscBand::trackClicked, this, [this](int track) {
        for (std::size_t i = 0; i < rows_->rows().size(); ++i) {
            if (rows_->rows()[i].track.number == track) {
                list_->selectRow(static_cast<int>(i));
            }
        }
    });
    connect(&this->workbench(), &Workbench::discSectors, band_, &DiscBand::setSectors);
    connect(&this->workbench(), &Workbench::discTrack, this, &DiscDesk::take);
    connect(&this->workbench(), &Workbench::discRead, this,
            [this](const std::shared_ptr<const DiscRead>& read) { ended(*read); });
}

void DiscDesk::buildHeading() {
    auto* choose = keyButton(tr("Choose a disc…"), QKeySequence(Qt::Key_O), this);
    choose->setToolTip(tr("A drive, as /dev/sr0, or the cue sheet of an image"));
    auto* services = keyButton(tr("Services…"), QKeySequence(Qt::Key_S), this);
    services->setToolTip(tr("A register that proves readings, and a lookup that names discs"));
    auto* arrivals = keyButton(tr("Arrivals"), QKeySequence(Qt::Key_B), this);
    arrivals->setToolTip(tr("Back to what lies in the inboxes"));
    for (auto* button : {choose, services, arrivals}) {
        heading()->addWidget(button);
    }
    connect(choose, &QPushButton::clicked, this, [this] {
        askForFile(this, tr("A drive, or the cue sheet of a disc's image"),
                   disc_.empty() ? BytePath() : BytePath(parentOf(disc_)),
                   [this](const BytePath& path) { setDisc(path); });
    });
    connect(services, &QPushButton::clicked, this, &DiscDesk::askForServices);
    connect(arrivals, &QPushButton::clicked, this, &DiscDesk::arrivalsWanted);
}

void DiscDesk::buildChoices() {
    names_ = new QComboBox(this);
    names_->setAccessibleName(tr("What it is called"));
    names_->setToolTip(tr("Taken when the disc is read; after another choice read again, which is quick"));
    names_->setSizeAdjustPolicy(QComboBox::AdjustToMinimumContentsLengthWithIcon);
    auto* edit = keyButton(tr("Names…"), QKeySequence(Qt::Key_N), this);
    edit->setToolTip(tr("Change what the disc and its tracks are called"));
    forms_ = keyButton(tr("Forms"), QKeySequence(Qt::Key_F), this);
    auto* menu = new QMenu(forms_);
    for (const auto& preset : discPresets) {
        auto* action = menu->addAction(
            tr("%1: %2 (%3)").arg(told(preset.name), told(preset.purpose), shown(preset.form)));
        action->setCheckable(true);
        action->setData(QString::fromUtf8(preset.name));
        connect(action, &QAction::toggled, this, &DiscDesk::sayForms);
        formActions_.push_back(action);
    }
    menu->addSeparator();
    oneFile_ = menu->addAction(tr("all tracks in one file, with the cue sheet in it"));
    plainTags_ = menu->addAction(tr("plain tags: title, artist, album and numbers alone"));
    for (auto* action : {oneFile_, plainTags_}) {
        action->setCheckable(true);
    }
    connect(forms_, &QPushButton::clicked, this,
            [this, menu] { menu->popup(forms_->mapToGlobal(QPoint(0, forms_->height()))); });
    into_ = keyButton(tr("Into…"), QKeySequence(Qt::Key_I), this);
    auto* read = keyButton(tr("Read"), QKeySequence(Qt::Key_R), this);
    read->setToolTip(
        tr("Until the readings agree, or go on with what was begun; the files go on the docket"));
    formNames_ = quietLabel({}, this);
    intoName_ = quietLabel({}, this);
    forms_->setToolTip(tr("In which forms the tracks are written, each by a name for what it is for"));
    auto* row = new WrapRow;
    row->setSpacing(8);
    row->addWidget(names_, 1);
    for (auto* each : std::initializer_list<QWidget*>{edit, forms_, formNames_, into_, intoName_, read}) {
        row->addWidget(each);
    }
    body()->addLayout(row);
    formActions_.front()->setChecked(true);
    setTarget({});
    connect(edit, &QPushButton::clicked, this, &DiscDesk::editNames);
    connect(into_, &QPushButton::clicked, this, [this] {
        askForFolder(this, tr("Into which folder"), [this](const BytePath& folder) { setTarget(folder); });
    });
    connect(read, &QPushButton::clicked, this, &DiscDesk::read);
    connect(names_, &QComboBox::activated, this, [this] {
        areNamesChosen_ = true;
        showNames();
    });
}

void DiscDesk::buildRows() {
    rows_ = new RowListModel<DiscLine>(
        discColumns(), [](const DiscLine& each) { return std::to_string(each.track.number); }, this);
    list_ = new ListView(tr("Tracks"), this);
    list_->setModel(rows_);
    list_->setEmptyText(tr("No disc was chosen."));
    list_->setWidths({56, 230, 150, 84, 150, 76, 170, 120}, 1);
    body()->addWidget(list_, 1);
    handFocusOn(this, list_);
    connect(list_->selectionModel(), &QItemSelectionModel::selectionChanged, this, &DiscDesk::showChosen);
    connect(rows_, &QAbstractItemModel::dataChanged, this, &DiscDesk::showChosen);
}

void DiscDesk::buildEvidence() {
    title_ = strongLabel({}, this);
    title_->setTextFormat(Qt::PlainText);
    title_->setAccessibleName(tr("The chosen track"));
    evidence_ = paragraph(tr("How the chosen track was read"), this);
    listening_ = new ListeningBar(this);
    auto* better = keyButton(tr("What could be better…"), QKeySequence(Qt::Key_W), this);
    better->setToolTip(
        tr("Which low copies of this disc the files could replace, once they are in their places"));
    auto* frame = new QWidget(this);
    auto* column = new QVBoxLayout(frame);
    column->setContentsMargins(0, 4, 0, 0);
    column->setSpacing(4);
    auto* top = new WrapRow;
    top->addWidget(title_, 1);
    top->addWidget(better);
    column->addLayout(top);
    column->addWidget(evidence_);
    column->addStretch(1);
    column->addWidget(listening_);
    frame->setFixedHeight(160);
    body()->addWidget(frame);
    connect(better, &QPushButton::clicked, this, [this] {
        const auto at = names_->currentIndex();
        emit replacementWanted(at >= 0 && look_ ? shown(choices_[static_cast<std::size_t>(at)].title)
                                                : QString());
    });
    showChosen();
}

void DiscDesk::setDisc(const BytePath& disc) {
    disc_ = disc;
    look();
}

void DiscDesk::setTarget(const BytePath& folder) {
    target_ = folder;
    into_->setToolTip(folder.empty()
                          ? tr("The folder into which the files go; it is asked for before reading")
                          : shownPath(folder));
    intoName_->setText(folder.empty() ? tr("no folder yet") : shownPath(BytePath(nameOf(folder))));
}

void DiscDesk::look() {
    about_->setText(tr("Looking at %1…").arg(shownPath(disc_)));
    workbench().look<std::shared_ptr<Look>>(
        this,
        [disc = disc_,
         path = workbench().cataloguePath()](RunControl& control) -> Result<std::shared_ptr<Look>> {
            const auto catalogue = Catalogue::openForReading(path);
            RETURN_IF_FAILED(catalogue);
            const ServiceStore services(*catalogue);
            const auto ripRegister = services.address(ServiceKind::ripRegister);
            const auto lookup = services.address(ServiceKind::discLookup);
            const auto inboxes = InboxStore(*catalogue).all();
            if (!ripRegister || !lookup || !inboxes) {
                return !ripRegister ? ripRegister.error() : !lookup ? lookup.error() : inboxes.error();
            }
            const auto tray = Tray::open(disc, control);
            auto looked = tray ? lookAtDisc(&*catalogue, *tray, lookup->value_or(""), control)
                               : Result<DiscLook>(tray.error());
            RETURN_IF_FAILED(looked);
            return std::make_shared<Look>(Look{std::move(*looked), ripRegister->value_or(""),
                                               lookup->value_or(""),
                                               inboxes->empty() ? BytePath() : inboxes->front().into});
        },
        [this](const std::shared_ptr<Look>& found) { show(*found); });
}

void DiscDesk::show(const Look& look) {
    look_ = look;
    areNamesChosen_ = false;
    const auto& contents = look.look.contents;
    auto words = tr("%1 · %2, %3")
                     .arg(shownPath(BytePath(nameOf(disc_))), told(counted(contents.tracks.size(), "track")),
                          told(humanSeconds(static_cast<double>(contents.leadOut) / sectorsPerSecond)));
    auto whole = tr("%1\nDisc %2").arg(shownPath(disc_), shown(look.look.id));
    if (!look.look.held.empty()) {
        const auto& folder = look.look.held.front().folder;
        words += tr(" · as long as what is held in %1").arg(shownPath(BytePath(nameOf(folder))));
        whole += tr("\nAs long as what is held in %1").arg(shownPath(folder));
    }
    about_->setToolTip(whole);
    if (target_.empty()) {
        setTarget(look.into);
    }
    about_->setText(words);
    if (!look.look.problem.empty()) {
        emit workbench().failed(told(look.look.problem));
    }
    band_->setDisc(contents);
    choices_ = look.look.names;
    if (choices_.empty()) {
        choices_.push_back(namesOnDisc(contents));
    }
    names_->clear();
    for (const auto& names : choices_) {
        names_->addItem(namesWords(names));
    }
    std::vector<DiscLine> lines;
    if (contents.hiddenSectors() > shortestTrack) {
        DiscTrack hidden;
        hidden.sectors = contents.hiddenSectors();
        lines.push_back({hidden, {tr("(hidden before the first)").toStdString(), {}}, {}});
    }
    for (const auto& track : contents.tracks) {
        lines.push_back({track, {}, {}});
    }
    rows_->setRows(std::move(lines));
    showNames();
    list_->selectRow(0);
}

void DiscDesk::showNames() {
    const auto at = names_->currentIndex();
    if (at < 0 || !look_) {
        return;
    }
    const auto& names = choices_[static_cast<std::size_t>(at)];
    auto lines = rows_->rows();
    for (auto& line : lines) {
        const auto place = audioPlace(look_->look.contents, line.track.number);
        if (line.track.number > 0) {
            line.name = place && *place < names.tracks.size() ? names.tracks[*place] : DiscNames::Track{};
        }
    }
    rows_->setRows(std::move(lines));
}

void DiscDesk::showChosen() {
    if (listening_ == nullptr) {
        return;
    }
    const auto selected = list_->selectionModel()->selectedRows();
    if (selected.isEmpty()) {
        title_->setText(tr("Choose a track to see how it was read."));
        evidence_->clear();
        listening_->setFile({}, tr("nothing is chosen"));
        band_->setChosen(-1);
        return;
    }
    const auto& line = rows_->rows()[static_cast<std::size_t>(selected.front().row())];
    band_->setChosen(line.track.number);
    title_->setText(line.name.title.empty()
                        ? tr("Track %1").arg(line.track.number)
                        : tr("%1: %2").arg(line.track.number).arg(shown(line.name.title)));
    evidence_->setText(evidenceOf(line));
    const auto wave = look_ ? waveOf(workbench(), look_->look.id, line.track.number) : BytePath();
    const bool canPlay = line.read && presenceOf(wave) == Presence::there;
    listening_->setFile(canPlay ? wave : BytePath(), line.read
                                                         ? tr("its files are in their places; listen there")
                                                         : tr("it was not read yet"));
}

void DiscDesk::take(const RippedTrack& track) {
    auto lines = rows_->rows();
    for (auto& line : lines) {
        if (line.track.number == track.number) {
            line.read = track;
        }
    }
    rows_->setRows(std::move(lines));
}

void DiscDesk::ended(const DiscRead& read) {
    for (const auto& track : read.disc.tracks) {
        take(track);
    }
    auto used = std::ranges::find(choices_, read.disc.names);
    if (used == choices_.end()) {
        used = choices_.insert(choices_.begin(), read.disc.names);
        names_->insertItem(0, namesWords(*used));
    }
    names_->setCurrentIndex(static_cast<int>(used - choices_.begin()));
    showNames();
    const auto doubtful =
        std::ranges::count_if(read.disc.tracks, [](const auto& track) { return !track.agreed(); });
    auto words =
        tr("%1 read; %2 on the docket.")
            .arg(told(counted(read.disc.tracks.size(), "track")), told(counted(read.places.size(), "file")));
    if (doubtful > 0) {
        words += tr(" Doubtful: %1.").arg(told(counted(static_cast<std::uint64_t>(doubtful), "track")));
    }
    if (read.disc.isOffsetProven) {
        words += tr(" The register proves an offset of %1.")
                     .arg(told(counted(static_cast<std::uint64_t>(std::abs(read.disc.offset)), "sample")));
    }
    for (const auto& problem :
         {read.disc.problem, read.failed.empty() ? std::string() : read.failed.front().sentence}) {
        words += problem.empty() ? QString() : QLatin1Char(' ') + told(problem);
    }
    emit workbench().failed(words);
}

std::vector<std::string> DiscDesk::chosenForms() const {
    std::vector<std::string> forms;
    for (const auto* action : formActions_) {
        if (action->isChecked()) {
            forms.push_back(action->data().toString().toStdString());
        }
    }
    return forms;
}

void DiscDesk::sayForms() {
    QStringList words;
    for (std::size_t i = 0; i < formActions_.size(); ++i) {
        if (formActions_[i]->isChecked()) {
            words << told(discPresets[i].form);
        }
    }
    formNames_->setText(words.isEmpty() ? tr("no form yet") : words.join(tr(", ")));
}

void DiscDesk::read() {
    if (!look_) {
        emit workbench().failed(tr("Choose a disc first."));
        return;
    }
    if (workbench().isBusy()) {
        emit workbench().failed(tr("Other work is going on; read the disc once it has ended."));
        return;
    }
    if (target_.empty()) {
        askForFolder(this, tr("Into which folder"), [this](const BytePath& folder) {
            setTarget(folder);
            read();
        });
        return;
    }
    DiscRequest request;
    request.disc = disc_;
    request.to = target_;
    request.forms = chosenForms();
    request.registerAddress = look_->ripRegister;
    request.oneFile = oneFile_->isChecked();
    request.plainTags = plainTags_->isChecked();
    request.lookup = look_->lookup;
    if (areNamesChosen_) { // else the first track shows whether what is held is this disc
        request.names = choices_[static_cast<std::size_t>(std::max(names_->currentIndex(), 0))];
    }
    if (request.forms.empty()) {
        emit workbench().failed(tr("Choose at least one form."));
        return;
    }
    workbench().readDisc(request);
}

void DiscDesk::askForServices() {
    using Addresses = std::pair<std::string, std::string>;
    workbench().ask<Addresses>(
        this,
        [](const Catalogue& catalogue) -> Result<Addresses> {
            const ServiceStore services(catalogue);
            const auto ripRegister = services.address(ServiceKind::ripRegister);
            const auto lookup = services.address(ServiceKind::discLookup);
            if (!ripRegister || !lookup) {
                return ripRegister ? lookup.error() : ripRegister.error();
            }
            return Addresses(ripRegister->value_or(""), lookup->value_or(""));
        },
        [this](const Addresses& now) {
            auto* window = new DiscServicesWindow(shown(now.first), shown(now.second), this);
            connect(window, &DiscServicesWindow::agreed, this,
                    [this](const QString& ripRegister, const QString& lookup) {
                        workbench().decide([ripRegister = ripRegister.toStdString(),
                                            lookup = lookup.toStdString()](const Catalogue& catalogue) {
                            auto fits = ripRegister.empty()
                                            ? done()
                                            : isServiceAddress({"rip register", ripRegister, {}});
                            fits = fits && !lookup.empty() ? isServiceAddress({"lookup", lookup, {}}) : fits;
                            const ServiceStore services(catalogue);
                            const auto set =
                                fits ? services.setAddress(ServiceKind::ripRegister, ripRegister) : fits;
                            return set ? services.setAddress(ServiceKind::discLookup, lookup) : set;
                        });
                        if (!disc_.empty()) {
                            look();
                        }
                    });
            window->open();
        });
}

void DiscDesk::editNames() {
    const auto at = names_->currentIndex();
    if (at < 0 || !look_) {
        emit workbench().failed(tr("Choose a disc first."));
        return;
    }
    RippedDisc disc;
    disc.id = look_->look.id;
    disc.contents = look_->look.contents;
    disc.names = choices_[static_cast<std::size_t>(at)];
    auto files = tableOfNames(disc);
    auto proposals = proposeTags(files, {}, {});
    for (auto& each : proposals) {
        // The names of these files say nothing that the table does not.
        std::erase_if(each, [](const TagProposal& proposal) { return proposal.now.empty(); });
    }
    auto* window = new TagTableWindow(
        workbench(), TagTable(std::move(files), std::move(proposals)), tr("Take these names"),
        [this, before = disc.names](const TagTable& table) {
            const auto names = namesFrom(table, before);
            choices_.insert(choices_.begin(), names);
            names_->insertItem(0, namesWords(names));
            names_->setCurrentIndex(0);
            areNamesChosen_ = true;
            showNames();
        },
        this);
    window->open();
}

} // namespace sober::app
