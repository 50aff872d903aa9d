#include "app/desks/intake/intake_desk.h"

#include "app/ask_path.h"
#include "app/charts/arrival_chart.h"
#include "app/desks/ask_window.h"
#include "app/desks/intake/arrival_rows.h"
#include "app/desks/intake/intake_window.h"
#include "app/desks/intake/replace_window.h"
#include "app/desks/tags/tag_table_window.h"
#include "app/hand_focus_on.h"
#include "app/listening/listening_bar.h"
#include "app/words.h"
#include "app/wrap_row.h"
#include "core/audit/sameness.h"
#include "core/catalogue/docket_store.h"
#include "core/transfer/layout.h"
#include "core/work/latest_list.h"
#include "core/work/take_finds.h"

#include <QCheckBox>
#include <QDirIterator>
#include <QFile>
#include <QFileInfo>
#include <QFileSystemWatcher>
#include <QHBoxLayout>
#include <QLabel>
#include <QPushButton>
#include <QTimer>
#include <QVBoxLayout>

#include <algorithm>

namespace sober::app {
namespace {

constexpr int restsAfterMilliseconds = 12'000; // a little more than a file has to rest

} // namespace

IntakeDesk::IntakeDesk(Workbench& workbench)
    : Desk(workbench, tr("Intake"), tr("What came, and is it better than what I have?")),
      chart_(new ArrivalChart(tr("How far the bandwidth reaches: each arrival (filled) beside the best that "
                                 "is held of it (ring)"),
                              this)),
      watcher_(new QFileSystemWatcher(this)),
      rests_(new QTimer(this)) {
    buildHeading();
    body()->addWidget(chart_);
    buildRows();
    buildEvidence();
    rests_->setSingleShot(true);
    rests_->setInterval(restsAfterMilliseconds);
    connect(watcher_, &QFileSystemWatcher::directoryChanged, this, [this] { rests_->start(); });
    connect(rests_, &QTimer::timeout, this, [this] {
        if (this->workbench().isBusy()) {
            rests_->start(); // later
        } else {
            look();
        }
    });
    connect(chart_, &ArrivalChart::rowClicked, this, [this](int row) { list_->selectRow(row); });
    connect(&this->workbench(), &Workbench::arrivalsSeen, this,
            [this](const std::shared_ptr<const std::vector<Arrival>>& arrivals) {
                show(*arrivals);
                if (std::ranges::any_of(*arrivals, &Arrival::isArriving)) {
                    rests_->start(); // it is looked at again once it rests
                }
            });
    connect(&this->workbench(), &Workbench::tookIn, this, [this](const CarriedOut& result) {
        auto text = tr("%1 carried out.").arg(told(counted(result.done, "action was", "actions were")));
        if (!result.refused.empty()) {
            text += tr(" Refused: %1. %2")
                        .arg(told(humanCount(result.refused.size())), told(result.refused.front().sentence));
        }
        emit this->workbench().failed(text);
        look();
    });
    connect(&this->workbench(), &Workbench::contentChanged, this, [this] {
        this->workbench().ask<std::vector<Inbox>>(
            this, [](const Catalogue& catalogue) { return InboxStore(catalogue).all(); },
            [this](const std::vector<Inbox>& inboxes) { watch(inboxes); });
    });
}

void IntakeDesk::buildHeading() {
    auto* look = keyButton(tr("Look"), QKeySequence(Qt::Key_L), this);
    look->setToolTip(tr("Survey the inboxes and judge what lies there"));
    auto* name = keyButton(tr("Name an inbox…"), QKeySequence(Qt::Key_N), this);
    name->setToolTip(tr("A folder where new audio lands, and where its arrivals are filed"));
    auto* remove = keyButton(tr("No inbox any more"), QKeySequence(Qt::Key_Delete), this);
    remove->setToolTip(tr("The inbox of the selected arrival, or the only one; nothing of it changes"));
    auto* better = keyButton(tr("Could be better"), QKeySequence(Qt::Key_B), this);
    better->setToolTip(tr("What is held that could be better, and where a better one is to be had"));
    connect(better, &QPushButton::clicked, this, &IntakeDesk::replacementWanted);
    auto* disc = keyButton(tr("Disc"), QKeySequence(Qt::Key_D), this);
    disc->setToolTip(tr("An audio disc: what is on it, and reading it"));
    connect(disc, &QPushButton::clicked, this, &IntakeDesk::discWanted);
    for (auto* button : {look, name, remove, better, disc}) {
        heading()->addWidget(button);
    }
    connect(look, &QPushButton::clicked, this, &IntakeDesk::look);
    connect(name, &QPushButton::clicked, this, &IntakeDesk::askForInbox);
    connect(remove, &QPushButton::clicked, this, &IntakeDesk::removeInbox);
}

void IntakeDesk::buildRows() {
    auto* take = keyButton(tr("Take in…"), QKeySequence(Qt::Key_T), this);
    take->setToolTip(tr(
        "Do with the selected what stands beside them: file, replace, let go of what is held; what is to be "
        "looked at is filed"));
    auto* retire = keyButton(tr("Retire"), QKeySequence(Qt::Key_R), this);
    retire->setToolTip(tr("Put the selected on the docket, to go to the trash whatever is advised"));
    connect(retire, &QPushButton::clicked, this, &IntakeDesk::retire);
    auto* replace = keyButton(tr("Replace…"), QKeySequence(Qt::Key_W), this);
    replace->setToolTip(tr("What is held of the chosen one by it: at its place, with its tags and lists"));
    connect(replace, &QPushButton::clicked, this, &IntakeDesk::replaceHeld);
    auto* leave = keyButton(tr("Leave"), QKeySequence(Qt::Key_A), this);
    leave->setToolTip(tr("Do not show the selected any more, until the program is started again"));
    auto* tags = keyButton(tr("Tags…"), QKeySequence(Qt::Key_G), this);
    tags->setToolTip(tr("Edit the tags of the selected, or of all, in a table"));
    connect(tags, &QPushButton::clicked, this, &IntakeDesk::editTags);
    mend_ = new QCheckBox(tr("Mend tags"), this);
    mend_->setToolTip(tr("As proposed, before they are filed"));
    mend_->setChecked(true);
    auto* above = new WrapRow;
    above->setSpacing(8);
    above->addStretch(1);
    above->addWidget(mend_);
    above->addWidget(tags);
    above->addWidget(take);
    above->addWidget(replace);
    above->addWidget(retire);
    above->addWidget(leave);
    body()->addLayout(above);
    arrivals_ = new RowListModel<Arrival>(
        arrivalColumns(), [](const Arrival& arrival) { return arrival.path; }, this);
    list_ = new ListView(tr("Arrivals"), this);
    list_->setModel(arrivals_);
    list_->setEmptyText(
        tr("Nothing has arrived. N names a folder where new audio lands; L looks at what lies there now."));
    list_->setWidths({176, 250, 130, 110, 76, 280}, 5);
    body()->addWidget(list_, 1);
    handFocusOn(this, list_);
    connect(take, &QPushButton::clicked, this, &IntakeDesk::take);
    connect(leave, &QPushButton::clicked, this, &IntakeDesk::leave);
    connect(list_->selectionModel(), &QItemSelectionModel::selectionChanged, this, &IntakeDesk::showChosen);
    connect(arrivals_, &QAbstractItemModel::dataChanged, this, &IntakeDesk::showChosen);
}

void IntakeDesk::buildEvidence() {
    title_ = strongLabel({}, this);
    title_->setTextFormat(Qt::PlainText);
    title_->setAccessibleName(tr("The chosen arrival"));
    reasons_ = paragraph(tr("Why"), this);
    held_ = paragraph(tr("What is held of it"), this);
    proposals_ = paragraph(tr("Proposals for its tags"), this);
    listening_ = new ListeningBar(this);
    auto* first = new QVBoxLayout;
    first->setSpacing(4);
    first->addWidget(title_);
    first->addWidget(reasons_);
    first->addWidget(held_);
    first->addWidget(listening_);
    first->addStretch(1);
    auto* second = new QVBoxLayout;
    second->setSpacing(4);
    second->addWidget(quietLabel(tr("Proposals for its tags"), this));
    second->addWidget(proposals_);
    second->addStretch(1);
    auto* frame = new QWidget(this);
    auto* row = new QHBoxLayout(frame);
    row->setContentsMargins(0, 4, 0, 0);
    row->setSpacing(20);
    row->addLayout(first, 5);
    row->addLayout(second, 5);
    frame->setFixedHeight(148); // so that the list stays as it is
    body()->addWidget(frame);
    showChosen();
}

void IntakeDesk::reload() {
    if (!hasLooked_ && !inboxes_.empty() && !workbench().isBusy()) {
        look(); // at what landed while the program was not there
        return;
    }
    workbench().look<std::shared_ptr<std::vector<Arrival>>>(
        this,
        [path = workbench().cataloguePath()](
            RunControl& control) -> Result<std::shared_ptr<std::vector<Arrival>>> {
            const auto catalogue = Catalogue::openForReading(path);
            auto arrivals = catalogue ? lookAtArrivals(*catalogue, control)
                                      : Result<std::vector<Arrival>>(catalogue.error());
            RETURN_IF_FAILED(arrivals);
            return std::make_shared<std::vector<Arrival>>(std::move(*arrivals));
        },
        [this](const std::shared_ptr<std::vector<Arrival>>& arrivals) { show(*arrivals); });
}

void IntakeDesk::show(const std::vector<Arrival>& arrivals) {
    std::vector<Arrival> shownOnes;
    std::ranges::copy_if(arrivals, std::back_inserter(shownOnes),
                         [&](const Arrival& arrival) { return !left_.contains(arrival.path); });
    std::vector<ArrivalChart::Row> rows;
    for (const auto& arrival : shownOnes) {
        const bool isHeld = !arrival.held.empty();
        rows.push_back({shownPath(BytePath(nameOf(arrival.path))), markOf(arrival.advice),
                        adviceWords(arrival.advice), arrival.cutoff,
                        isHeld ? arrival.held.front().cutoff : std::nullopt, isHeld});
    }
    chart_->setRows(std::move(rows));
    arrivals_->setRows(std::move(shownOnes));
    if (list_->selectionModel()->selectedRows().isEmpty() && !arrivals_->rows().empty()) {
        list_->selectRow(0);
    }
    showChosen();
}

void IntakeDesk::watch(const std::vector<Inbox>& inboxes) {
    inboxes_ = inboxes;
    if (!watcher_->directories().isEmpty()) {
        watcher_->removePaths(watcher_->directories());
    }
    // What lands comes in folders of its own as often as not.
    constexpr int mostWatched = 1'000;
    QStringList folders;
    for (const auto& inbox : inboxes_) {
        const auto folder = QFile::decodeName(QByteArray::fromStdString(inbox.folder));
        if (QFileInfo::exists(folder)) {
            folders << folder;
        }
        QDirIterator below(folder, QDir::Dirs | QDir::NoDotAndDotDot, QDirIterator::Subdirectories);
        while (below.hasNext() && folders.size() < mostWatched) {
            folders << below.next();
        }
    }
    if (!folders.isEmpty()) {
        watcher_->addPaths(folders);
    }
    if (!hasLooked_ && !inboxes_.empty() && isVisible()) {
        reload();
    }
}

void IntakeDesk::look() {
    hasLooked_ = true;
    workbench().lookAtInboxes();
}

void IntakeDesk::askForInbox() {
    askForFolder(this, tr("Where new audio lands"), [this](const BytePath& folder) {
        askForFolder(this, tr("Where its arrivals are filed"), [this, folder](const BytePath& into) {
            auto* window = new AskWindow(
                {tr("In which folders, under which names"),
                 tr("Fields and quoted text, “/” between folders; “|” says what stands in for a field that "
                    "is empty."),
                 tr("Name the inbox"),
                 {QString::fromLatin1(usualLayout), QStringLiteral("genre / artist / title|name"),
                  QStringLiteral("artist / title|name"), QStringLiteral("keep")},
                 QString::fromLatin1(usualLayout)},
                this);
            connect(window, &AskWindow::answered, this, [this, folder, into](const QString& layout) {
                askForLatest({0, folder, into, layout.toStdString()});
            });
            window->open();
        });
    });
}

void IntakeDesk::askForLatest(const Inbox& inbox) {
    auto* window = new AskWindow({tr("A list of the latest arrivals"),
                                  tr("A file that a player reads, ending in .m3u8, .xspf or .pls: the "
                                     "hundred that were filed last, renewed "
                                     "whenever something is taken in. Empty for none."),
                                  tr("Name the inbox"),
                                  {shownPath(joinPath(inbox.into, "Latest arrivals.m3u8"))},
                                  QString(),
                                  true},
                                 this);
    connect(window, &AskWindow::answered, this, [this, inbox](const QString& latest) {
        workbench().lookAtInboxes([named = inbox, latest = latest.trimmed().toStdString()](
                                      const Catalogue& catalogue) mutable -> Outcome {
            const auto parsed = Layout::named(named.layout);
            RETURN_IF_FAILED(parsed);
            if (!latest.empty() && !isListPath(latest)) {
                return Error{Cause::invalid, latest,
                             "A list of the latest arrivals ends in .m3u8, .xspf or .pls."};
            }
            named.latest = latest;
            return InboxStore(catalogue).keep(named);
        });
    });
    window->open();
}

void IntakeDesk::removeInbox() {
    const auto chosen = selected();
    const auto folder = !chosen.empty()        ? chosen.front()->inbox.folder
                        : inboxes_.size() == 1 ? inboxes_.front().folder
                                               : BytePath();
    if (folder.empty()) {
        emit workbench().failed(tr("Choose an arrival of the inbox first."));
        return;
    }
    workbench().lookAtInboxes(
        [folder](const Catalogue& catalogue) { return InboxStore(catalogue).remove(folder); });
}

void IntakeDesk::take() {
    const auto chosen = selected();
    if (chosen.empty()) {
        return;
    }
    IntakeRequest request;
    request.withProposals = mend_->isChecked();
    for (const auto* arrival : chosen) {
        request.arrivals.push_back(arrival->path);
    }
    auto* window = new IntakeWindow(chosen, mend_->isChecked(), this);
    connect(window, &IntakeWindow::agreed, this, [this, request] { workbench().takeArrivals(request); });
    window->open();
}

void IntakeDesk::retire() {
    std::vector<DocketAction> actions;
    for (const auto* arrival : selected()) {
        DocketAction action;
        action.kind = ActionKind::retire;
        action.holding = arrival->holding.id;
        action.reason = arrival->reasons.empty() ? "not taken in" : arrival->reasons.front();
        action.added = timeNow();
        actions.push_back(std::move(action));
    }
    if (!actions.empty()) {
        workbench().decide(
            [actions](const Catalogue& catalogue) { return DocketStore(catalogue).add(actions); });
    }
}

void IntakeDesk::replaceHeld() {
    const auto chosen = selected();
    const auto* arrival = chosen.empty() ? nullptr : chosen.front();
    const auto held = arrival == nullptr ? std::vector<HeldOfIt>::const_iterator()
                                         : std::ranges::find_if(arrival->held, &HeldOfIt::atHand);
    if (arrival == nullptr || held == arrival->held.end()) {
        emit workbench().failed(tr("Nothing at hand is held of it."));
        return;
    }
    WantedRow row;
    row.wanted.path = held->path;
    row.wanted.atHand = true;
    Candidate candidate;
    candidate.source = CandidateSource::file;
    candidate.holding = arrival->holding.id;
    candidate.path = arrival->path;
    auto* window = new ReplaceWindow(workbench(), row, candidate, this);
    connect(window, &ReplaceWindow::agreed, this,
            [this](const ReplaceRequest& request) { workbench().planReplacement(request); });
    window->open();
}

void IntakeDesk::editTags() {
    TagTableWindow::Files files;
    const auto chosen = selected();
    if (chosen.size() > 1) {
        for (const auto* arrival : chosen) {
            files.emplace_back(arrival->holding.id, arrival->path);
        }
    } else {
        for (const auto& arrival : arrivals_->rows()) {
            if (arrival.advice != IntakeAdvice::retire) {
                files.emplace_back(arrival.holding.id, arrival.path);
            }
        }
    }
    if (!files.empty()) {
        (new TagTableWindow(workbench(), std::move(files), this))->open();
    }
}

void IntakeDesk::leave() {
    for (const auto* arrival : selected()) {
        left_.insert(arrival->path);
    }
    show(arrivals_->rows());
}

std::vector<const Arrival*> IntakeDesk::selected() const {
    std::vector<const Arrival*> chosen;
    for (const auto& index : list_->selectionModel()->selectedRows()) {
        chosen.push_back(&arrivals_->rows()[static_cast<std::size_t>(index.row())]);
    }
    return chosen;
}

void IntakeDesk::showChosen() {
    const auto chosen = list_ != nullptr ? selected() : std::vector<const Arrival*>{};
    if (title_ == nullptr) {
        return;
    }
    if (chosen.empty()) {
        title_->setText(tr("Choose an arrival to see what is held of it and what is proposed."));
        for (auto* label : {reasons_, held_, proposals_}) {
            label->clear();
        }
        listening_->setFile({}, tr("nothing is chosen"));
        return;
    }
    const auto& arrival = *chosen.front();
    chart_->setChosen(static_cast<int>(&arrival - arrivals_->rows().data()));
    title_->setText(shownPath(BytePath(nameOf(arrival.path))));
    QStringList lines;
    for (const auto& reason : arrival.reasons) {
        lines << told(reason);
    }
    reasons_->setText(lines.join(QLatin1Char(' ')));
    lines.clear();
    for (const auto& held : arrival.held) {
        lines << heldWords(held);
    }
    held_->setText(lines.isEmpty() ? tr("It would be filed at %1.").arg(shownPath(arrival.target))
                                   : lines.join(QLatin1Char('\n')));
    lines.clear();
    for (const auto& proposal : arrival.proposals) {
        lines << tr("%1: %2 → %3. %4")
                     .arg(shown(proposal.field),
                          proposal.now.empty() ? tr("missing") : shown(repairedUtf8(proposal.now)),
                          proposal.shall.empty() ? tr("nothing") : shown(proposal.shall), told(proposal.why));
    }
    proposals_->setText(lines.isEmpty() ? tr("None: they are as they should be.")
                                        : lines.join(QLatin1Char('\n')));
    listening_->setFile(arrival.path);
}

} // namespace sober::app
