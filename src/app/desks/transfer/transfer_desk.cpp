#include "app/desks/transfer/transfer_desk.h"

#include "app/desks/file_manager.h"
#include "app/hand_focus_on.h"
#include "app/words.h"
#include "app/wrap_row.h"
#include "core/base/room.h"
#include "core/catalogue/findings.h"
#include "core/catalogue/holdings.h"
#include "core/catalogue/volumes.h"
#include "core/transfer/emptied_folders.h"

#include <QComboBox>
#include <QHBoxLayout>
#include <QLabel>
#include <QPushButton>
#include <QSignalBlocker>
#include <QTimer>
#include <QVBoxLayout>

#include <algorithm>
#include <map>

namespace sober::app {
namespace {

constexpr int planAfter = 200;    // milliseconds after the last key
constexpr int boxTextWidth = 300; // pixels

QString stateWord(TransferState state) {
    switch (state) {
    case TransferState::planned:
        return TransferDesk::tr("planned");
    case TransferState::running:
        return TransferDesk::tr("begun");
    case TransferState::copied:
        return TransferDesk::tr("copied");
    case TransferState::proven:
        return TransferDesk::tr("proven");
    case TransferState::released:
        return TransferDesk::tr("released");
    }
    return {};
}

TransferChart::Place targetPlace(const BytePath& folder, std::uint64_t there, std::uint64_t coming,
                                 std::uint64_t free) {
    TransferChart::Place place;
    place.label = shownPath(BytePath(nameOf(folder)));
    place.isTarget = true;
    place.there = there;
    place.coming = coming;
    place.free = free;
    return place;
}

} // namespace

TransferDesk::TransferDesk(Workbench& workbench)
    : Desk(workbench, tr("Transfer"), tr("Will it fit, and what will break?")),
      sources_(new TransferSources(workbench, this)),
      form_(new TransferForm(this)),
      chart_(new TransferChart(this)),
      changes_(new TransferChanges(this)),
      box_(new QComboBox(this)),
      figures_(quietLabel({}, this)),
      steps_(new StepsRow({tr("planned"), tr("copied"), tr("proven"), tr("released")},
                          tr("How far it has come"), this)),
      soon_(new QTimer(this)) {
    box_->setAccessibleName(tr("Which transfer"));
    box_->setSizeAdjustPolicy(QComboBox::AdjustToMinimumContentsLengthWithIcon);
    box_->setMinimumContentsLength(34);
    box_->addItem(tr("a new transfer"));
    heading()->addWidget(box_, 0, Qt::AlignBottom);
    buildUpper();
    figures_->setWordWrap(true);
    figures_->setTextFormat(Qt::PlainText);
    figures_->setAccessibleName(tr("What comes along, in figures"));
    body()->addWidget(chart_);
    body()->addWidget(figures_);
    body()->addWidget(changes_, 1);
    buildButtons();
    soon_->setSingleShot(true);
    soon_->setInterval(planAfter);
    connect(soon_, &QTimer::timeout, this, [this] {
        auto request = form_->request();
        request.choice = sources_->choice();
        this->workbench().plan(std::move(request));
    });
    connect(sources_, &TransferSources::choiceChanged, this, &TransferDesk::planSoon);
    connect(form_, &TransferForm::changed, this, &TransferDesk::planSoon);
    connect(box_, &QComboBox::activated, this, [this] { chooseTransfer(); });
    connect(&workbench, &Workbench::planned, this, &TransferDesk::takePlan);
    connect(&workbench, &Workbench::couldNotPlan, this, [this](const QString& sentence) {
        takePlan({});
        figures_->setText(sentence);
    });
    connect(&workbench, &Workbench::transferred, this, [this](const CarriedOut& carried) {
        QString text = carried.interrupted
                           ? tr("Stopped; run it again to go on.")
                           : tr("Transferred: %1 carried out.").arg(told(counted(carried.done, "action")));
        for (const auto& refused : carried.refused) {
            text += QLatin1Char(' ') + told(displayPath(refused.sentence));
        }
        emit this->workbench().failed(text);
    });
    connect(&workbench, &Workbench::proven, this,
            [this](const std::shared_ptr<const TransferProof>& proof) { takeProof(*proof); });
    connect(&workbench, &Workbench::longWorkChanged, this, &TransferDesk::followWork);
    handFocusOn(this, sources_);
    beginNew();
}

void TransferDesk::buildUpper() {
    unlisted_ = keyButton(tr("And what no list names"), QKeySequence(Qt::Key_U), this);
    unlisted_->setCheckable(true);
    unlisted_->setToolTip(tr("What would be forgotten if the old place went comes along too"));
    keepers_ = keyButton(tr("Of copies only the keeper"), QKeySequence(Qt::Key_K), this);
    keepers_->setCheckable(true);
    keepers_->setToolTip(tr("In place of copies that are advised to be retired, the one that is to be kept"));
    auto* left = new QVBoxLayout;
    left->setSpacing(6);
    left->addWidget(sources_, 1);
    auto* toggles = new WrapRow;
    toggles->setSpacing(6);
    toggles->addWidget(unlisted_);
    toggles->addWidget(keepers_);
    toggles->addStretch(1);
    left->addLayout(toggles);
    choosing_ = new QWidget(this);
    auto* upper = new QHBoxLayout(choosing_);
    upper->setContentsMargins(0, 0, 0, 0);
    upper->setSpacing(20);
    upper->addLayout(left, 1);
    upper->addWidget(form_, 1);
    body()->addWidget(choosing_);
    connect(unlisted_, &QPushButton::toggled, sources_, &TransferSources::setUnlisted);
    connect(keepers_, &QPushButton::toggled, sources_, &TransferSources::setKeepersOnly);
}

void TransferDesk::buildButtons() {
    keep_ = keyButton(tr("Keep the plan"), QKeySequence(Qt::CTRL | Qt::Key_S), this);
    run_ = keyButton(tr("Run"), QKeySequence(Qt::Key_G), this);
    run_->setProperty("weight", "main");
    prove_ = keyButton(tr("Prove"), QKeySequence(Qt::Key_V), this);
    prove_->setToolTip(tr("Read everything back, open every list, play the beginning of every entry"));
    release_ = keyButton(tr("Let the old go…"), QKeySequence(Qt::Key_L), this);
    release_->setToolTip(tr("Put the old on the docket, to be retired; only of what is proven"));
    rest_ = keyButton(tr("Let the rest go…"), QKeySequence(Qt::Key_E), this);
    rest_->setToolTip(tr(
        "Put on the docket what a transfer brought there and is no longer among what comes, to be retired"));
    report_ = new QPushButton(tr("Show the report"), this);
    forget_ = keyButton(tr("Forget"), QKeySequence(Qt::Key_Delete), this);
    forget_->setToolTip(tr("Forget this plan, or a transfer that has ended; nothing on a drive changes"));
    auto* row = new WrapRow;
    row->setSpacing(8);
    for (auto* button : {keep_, run_, prove_, release_, rest_, report_, forget_}) {
        row->addWidget(button);
    }
    row->addStretch(1);
    row->addWidget(steps_);
    body()->addLayout(row);
    connect(keep_, &QPushButton::clicked, this, [this] {
        showNewest_ = true;
        workbench().decide([plan = plan_](const Catalogue& catalogue) -> Outcome {
            const auto kept = keepPlan(catalogue, *plan);
            return kept ? done() : Outcome(kept.error());
        });
    });
    connect(run_, &QPushButton::clicked, this, &TransferDesk::run);
    connect(prove_, &QPushButton::clicked, this, &TransferDesk::prove);
    connect(release_, &QPushButton::clicked, this, &TransferDesk::release);
    connect(rest_, &QPushButton::clicked, this, [this] {
        workbench().decide(
            [plan = plan_](const Catalogue& catalogue) { return letRestGo(catalogue, *plan); });
    });
    connect(forget_, &QPushButton::clicked, this, [this] {
        if (kept_) {
            workbench().decide(
                [id = kept_->id](const Catalogue& catalogue) { return forgetTransfer(catalogue, id); });
        }
    });
    connect(report_, &QPushButton::clicked, this, [this] {
        if (kept_) {
            openFolderOf(joinPath(kept_->report, "report.html"));
        }
    });
}

Result<std::vector<Transfer>> TransferDesk::transfers(const Catalogue& catalogue) {
    auto all = TransferStore(catalogue).all();
    if (!all) {
        return all;
    }
    for (auto& each : *all) {
        auto settled = settleTransfer(catalogue, each.id);
        RETURN_IF_FAILED(settled);
        each = std::move(settled->transfer);
    }
    return all;
}

void TransferDesk::reload() {
    sources_->reload();
    workbench().ask<std::vector<Transfer>>(
        this, &TransferDesk::transfers,
        [this](const std::vector<Transfer>& transfers) { takeTransfers(transfers); });
}

void TransferDesk::takeTransfers(const std::vector<Transfer>& transfers) {
    const QSignalBlocker quiet(box_);
    box_->clear();
    ids_.clear();
    box_->addItem(tr("a new transfer"));
    for (const auto& transfer : transfers) {
        ids_.push_back(transfer.id);
        const QString text = tr("%1, %2: to %3, %4")
                                 .arg(QString::number(transfer.id), stateWord(transfer.state),
                                      shownPath(BytePath(nameOf(transfer.folder))), told(transfer.choice));
        box_->addItem(box_->fontMetrics().elidedText(text, Qt::ElideRight, boxTextWidth));
        box_->setItemData(box_->count() - 1, text, Qt::ToolTipRole);
    }
    if (std::exchange(showNewest_, false) && !ids_.empty()) {
        current_ = ids_.front();
    }
    const auto now = std::ranges::find(ids_, current_);
    box_->setCurrentIndex(now == ids_.end() ? 0 : static_cast<int>(now - ids_.begin()) + 1);
    chooseTransfer();
}

void TransferDesk::chooseTransfer() {
    const int index = box_->currentIndex();
    const auto before = current_;
    current_ = index > 0 ? ids_[static_cast<std::size_t>(index - 1)] : 0;
    ++asked_;
    if (current_ == 0) {
        if (before != 0) {
            beginNew();
            sources_->setFocus();
        }
        planSoon();
        return;
    }
    workbench().giveUpPlan();
    workbench().ask<Kept>(
        this, [id = current_](const Catalogue& catalogue) { return look(catalogue, id); },
        [this, asked = asked_](const Kept& kept) {
            if (asked == asked_) {
                takeKept(kept);
            }
        });
}

void TransferDesk::beginNew() {
    current_ = 0;
    kept_.reset();
    choosing_->show();
    takePlan({});
}

void TransferDesk::planSoon() {
    if (current_ != 0) {
        return;
    }
    if (sources_->choice().isEmpty() || !form_->hasPlace()) {
        soon_->stop();
        workbench().giveUpPlan();
        takePlan({});
        return;
    }
    soon_->start();
}

void TransferDesk::takePlan(std::shared_ptr<const TransferPlan> plan) {
    if (current_ != 0) {
        return;
    }
    plan_ = std::move(plan);
    form_->setPlan(plan_.get());
    if (!plan_) {
        figures_->setText(sources_->choice().isEmpty()
                              ? tr("Choose on the left what comes along: Space takes a line in.")
                              : tr("Say on the right where to. Nothing changes before you run it."));
        chart_->setPlaces({}, 0, false);
        changes_->setParts({});
        showSteps({});
        return;
    }
    const auto& transfer = plan_->transfer;
    QStringList words{tr("%1, %2, %3 come along")
                          .arg(told(counted(plan_->items.size(), "holding")), told(humanBytes(plan_->bytes)),
                               told(humanSeconds(plan_->seconds)))};
    if (!plan_->left.empty()) {
        words << tr("%1 do not").arg(told(humanCount(plan_->left.size())));
    }
    if (plan_->unsound > 0) {
        words << tr("%1 do not decode whole").arg(told(humanCount(plan_->unsound)));
    }
    if (plan_->contradicted > 0) {
        words << tr("%1 are not what they claim").arg(told(humanCount(plan_->contradicted)));
    }
    if (plan_->reencoded > 0) {
        words << tr("%1 of %2 encoded were lossy already")
                     .arg(told(humanCount(plan_->reencoded)), told(humanCount(plan_->encoded)));
    }
    if (!plan_->inNoList.empty()) {
        words << tr("%1 in no list would be left behind").arg(told(humanCount(plan_->inNoList.size())));
    }
    if (!plan_->noLonger.empty()) {
        words << tr("%1 there would be no longer chosen").arg(told(humanCount(plan_->noLonger.size())));
    }
    if (!plan_->emptied.empty()) {
        words << tr("%1 left empty, for the trash").arg(told(counted(plan_->emptied.size(), "folder")));
    }
    const auto needed = told(humanBytes(transfer.peak));
    words << (transfer.free == unknownRoom ? tr("%1 needed; how much is free there is not known").arg(needed)
              : transfer.fits()
                  ? tr("%1 needed, %2 free: it fits").arg(needed, told(humanBytes(transfer.free)))
                  : tr("%1 needed, %2 free: it does not fit, %3 have to be left out")
                        .arg(needed, told(humanBytes(transfer.free)),
                             told(humanBytes(transfer.peak - transfer.free))));
    figures_->setText(words.join(QStringLiteral(" · ")));
    std::vector<TransferChart::Place> places;
    for (const auto& from : plan_->from) {
        places.push_back({volumeName(from.volume), false, from.volume.atHand, from.bytes, from.coming, 0,
                          transfer.mode != TransferMode::reorder});
    }
    if (transfer.mode != TransferMode::reorder) {
        places.push_back(targetPlace(transfer.folder, plan_->bytesThere, transfer.needs, transfer.free));
    }
    chart_->setPlaces(std::move(places), 0, false);
    auto parts = std::make_shared<TransferParts>();
    *parts = {transfer.folder, plan_->items, plan_->left, plan_->lists, plan_->emptied};
    changes_->setParts(std::move(parts));
    showSteps({});
}

Result<TransferDesk::Kept> TransferDesk::look(const Catalogue& catalogue, TransferId id) {
    auto settled = settleTransfer(catalogue, id);
    const TransferStore store(catalogue);
    auto left = store.left(id);
    auto lists = store.lists(id);
    const auto volumes = Volumes(catalogue).all();
    const auto figures = Findings(catalogue).volumeFigures();
    if (!settled || !left || !lists || !volumes || !figures) {
        return !settled   ? settled.error()
               : !left    ? left.error()
               : !lists   ? lists.error()
               : !volumes ? volumes.error()
                          : figures.error();
    }
    std::vector<HoldingId> ids;
    Kept kept;
    for (const auto& item : settled->items) {
        ids.push_back(item.source);
        kept.arrived += item.state == ItemState::copied ? item.bytes : 0;
    }
    const auto holdings = Holdings(catalogue).byIds(ids);
    RETURN_IF_FAILED(holdings);
    std::map<VolumeId, std::uint64_t> coming;
    for (const auto& holding : *holdings) {
        coming[holding.volume] += holding.size;
    }
    for (const auto& volume : *volumes) {
        if (const auto from = coming.find(volume.id); from != coming.end()) {
            const auto figure = std::ranges::find(*figures, volume.id, &VolumeFigures::volume);
            const auto there =
                figure == figures->end() ? from->second : std::max(figure->bytes, from->second);
            kept.places.push_back({volumeName(volume), false, volume.atHand, there, from->second, 0,
                                   settled->transfer.mode != TransferMode::reorder});
        }
    }
    const auto& transfer = settled->transfer;
    if (transfer.state >= TransferState::copied) {
        kept.arrived = transfer.needs;
    }
    if (transfer.mode != TransferMode::reorder) {
        kept.places.push_back(targetPlace(transfer.folder, 0, transfer.needs, transfer.free));
    }
    auto emptied = transfer.state <= TransferState::running
                       ? foldersLeftEmpty(catalogue, transfer, settled->items)
                       : Result(std::vector<BytePath>());
    RETURN_IF_FAILED(emptied);
    auto parts = std::make_shared<TransferParts>();
    *parts = {transfer.folder, settled->items, std::move(*left), std::move(*lists), std::move(*emptied)};
    kept.parts = std::move(parts);
    kept.settled = std::move(*settled);
    return kept;
}

void TransferDesk::takeKept(const Kept& kept) {
    kept_ = kept.settled.transfer;
    plan_.reset();
    if (choosing_->isAncestorOf(focusWidget())) {
        changes_->setFocus(); // or its keys would lead nowhere
    }
    choosing_->hide();
    QStringList words{tr("%1 to %2").arg(told(kept_->choice), shownPath(kept_->folder)),
                      tr("%1, %2 at their new place")
                          .arg(told(counted(kept.settled.items.size(), "holding")),
                               told(humanCount(kept.settled.count(ItemState::copied) +
                                               kept.settled.count(ItemState::there))))};
    if (const auto failed = kept.settled.count(ItemState::failed); failed > 0) {
        words << tr("%1 failed").arg(told(humanCount(failed)));
    }
    if (kept_->inNoList > 0) {
        words << tr("%1 in no list left behind").arg(told(humanCount(kept_->inNoList)));
    }
    if (kept_->proven != 0) {
        words << tr("proven %1").arg(told(localMinute(kept_->proven)));
    }
    figures_->setText(words.join(QStringLiteral(" · ")));
    chart_->setPlaces(kept.places, kept.arrived, kept_->state == TransferState::released);
    changes_->setParts(kept.parts);
    showSteps(kept_->state);
}

void TransferDesk::showSteps(std::optional<TransferState> state) {
    const int done = !state ? 0 : *state <= TransferState::running ? 1 : static_cast<int>(*state);
    steps_->setDone(done);
    followWork();
}

void TransferDesk::followWork() {
    const bool free = workbench().isOpen() && workbench().longWork() == LongWork::none;
    const bool isKept = kept_.has_value();
    const bool waits = isKept && kept_->state <= TransferState::running;
    keep_->setEnabled(plan_ != nullptr);
    // A row without it has room for the rest.
    rest_->setVisible(plan_ && !plan_->noLonger.empty());
    rest_->setEnabled(plan_ && !plan_->noLonger.empty());
    const bool isByHand = plan_ ? plan_->transfer.isByHand() : isKept && kept_->isByHand();
    run_->setEnabled(free && !isByHand && ((plan_ && plan_->transfer.fits()) || waits));
    run_->setToolTip(isByHand ? tr("The device was described and is not here: connect it and plan again")
                              : QString());
    prove_->setEnabled(free && isKept && kept_->state != TransferState::planned &&
                       kept_->state != TransferState::running);
    release_->setEnabled(free && isKept && kept_->state == TransferState::proven);
    report_->setEnabled(isKept && !kept_->report.empty());
    forget_->setEnabled(free && isKept && kept_->state != TransferState::running);
}

void TransferDesk::run() {
    if (plan_) {
        showNewest_ = true;
        workbench().runPlan(plan_);
    } else if (kept_) {
        workbench().runTransfer(kept_->id);
    }
}

void TransferDesk::prove() {
    if (kept_) {
        workbench().proveTransfer(kept_->id);
    }
}

void TransferDesk::release() {
    if (!kept_) {
        return;
    }
    workbench().decide([id = kept_->id](const Catalogue& catalogue) -> Outcome {
        const auto released = releaseTransfer(catalogue, id);
        return released ? done() : Outcome(released.error());
    });
}

void TransferDesk::takeProof(const TransferProof& proof) {
    const auto wrong = proof.wrong();
    emit workbench().failed(
        proof.holds()
            ? tr("The proof holds: %1 read back, %2 of %3 begin to play.")
                  .arg(told(counted(proof.files.size(), "file")), told(humanCount(proof.playable())),
                       told(counted(proof.entries(), "entry", "entries")))
            : tr("The proof does not hold: %1. %2")
                  .arg(told(counted(wrong.size(), "thing is not as it has to be",
                                    "things are not as they have to be")),
                       wrong.empty() ? QString() : told(displayPath(wrong.front().second))));
}

void TransferDesk::bringAlong(const QString& name, const HoldingFilter& filter) {
    box_->setCurrentIndex(0);
    chooseTransfer();
    sources_->takeFound(name, filter);
}

} // namespace sober::app
