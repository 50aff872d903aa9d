#include "app/desks/fixity/fixity_desk.h"

#include "app/ask_path.h"
#include "app/desks/ask_window.h"
#include "app/desks/ledger/ledger_words.h"
#include "app/hand_focus_on.h"
#include "app/theme/theme.h"
#include "app/words.h"
#include "app/wrap_label.h"
#include "app/wrap_row.h"
#include "core/catalogue/docket_store.h"
#include "core/catalogue/evidence_store.h"
#include "core/catalogue/findings.h"
#include "core/catalogue/holdings.h"
#include "core/catalogue/volumes.h"
#include "core/remedy/docket/review.h"

#include <QComboBox>
#include <QHBoxLayout>
#include <QLabel>
#include <QPushButton>
#include <QVBoxLayout>

#include <algorithm>

namespace sober::app {
namespace {

constexpr Nanoseconds day = 86'400LL * 1'000'000'000;

QString kindText(DriftKind kind) {
    switch (kind) {
    case DriftKind::tagsEdited:
        return QObject::tr("tags edited");
    case DriftKind::audioAltered:
        return QObject::tr("audio altered");
    case DriftKind::silentChange:
        return QObject::tr("silent change");
    case DriftKind::truncated:
        return QObject::tr("cut short");
    case DriftKind::replaced:
        return QObject::tr("replaced");
    case DriftKind::missing:
        break;
    }
    return QObject::tr("missing");
}

Mark kindMark(DriftKind kind) {
    return kind == DriftKind::tagsEdited ? Mark::retag
           : kind == DriftKind::replaced ? Mark::moved
           : kind == DriftKind::missing  ? Mark::missing
                                         : Mark::damaged;
}

QString kindSentence(DriftKind kind) {
    switch (kind) {
    case DriftKind::tagsEdited:
        return QObject::tr("Somebody edited the tags; the audio data are what they were.");
    case DriftKind::audioAltered:
        return QObject::tr(
            "The audio data are others, of the same recording: somebody altered it, or it was damaged.");
    case DriftKind::silentChange:
        return QObject::tr("Bits changed by themselves: size and time of writing are what they were.");
    case DriftKind::truncated:
        return QObject::tr("It was cut short: what is left is its beginning.");
    case DriftKind::replaced:
        return QObject::tr("Another recording stands in its place.");
    case DriftKind::missing:
        break;
    }
    return QObject::tr("It is gone.");
}

/// Sixteen bytes a line, those that differ from the other set off.
QString hexLines(std::uint64_t begins, const std::string& bytes, const std::string& other) {
    QString text;
    for (std::size_t line = 0; line < bytes.size(); line += 16) {
        text += QStringLiteral("%1  ").arg(begins + line, 8, 16, QLatin1Char('0'));
        for (std::size_t at = line; at < std::min(line + 16, bytes.size()); ++at) {
            const auto byte = static_cast<unsigned char>(bytes[at]);
            const QString digits = QStringLiteral("%1").arg(byte, 2, 16, QLatin1Char('0'));
            const bool differs = at >= other.size() || other[at] != bytes[at];
            text += differs ? QStringLiteral("<b><span style=\"color:%1\">%2</span></b> ")
                                  .arg(Theme::inks().damaged.name(), digits)
                            : digits + QLatin1Char(' ');
        }
        text += QStringLiteral("\n");
    }
    return text;
}

} // namespace

FixityDesk::FixityDesk(Workbench& workbench)
    : Desk(workbench, tr("Fixity"), tr("Has anything changed on its own?")),
      history_(new CheckChart(this)),
      which_(new QComboBox(this)),
      unsound_(new SoundnessList(workbench, this)),
      words_(new WrapLabel(this)),
      blocks_(new BlockMap(this)),
      bytes_(new QLabel(this)),
      period_(new PeriodBox(this)) {
    body()->addWidget(history_);
    which_->addItems({QString(), QString()});
    which_->setAccessibleName(tr("Which holdings"));
    which_->setSizeAdjustPolicy(QComboBox::AdjustToContents);
    connect(which_, &QComboBox::currentIndexChanged, this, [this] { chooseList(); });
    body()->addWidget(which_, 0, Qt::AlignLeft);
    buildList();
    body()->addWidget(unsound_, 1);
    unsound_->hide();
    connect(unsound_, &SoundnessList::currentChanged, this, [this] { showEvidence(); });
    words_->setWordWrap(true);
    words_->setAccessibleName(tr("What happened"));
    body()->addWidget(words_);
    body()->addWidget(blocks_);
    bytes_->setFont(Theme::bytes(12));
    bytes_->setTextFormat(Qt::RichText);
    bytes_->setMinimumHeight(128);
    bytes_->setAlignment(Qt::AlignTop | Qt::AlignLeft);
    bytes_->setAccessibleName(tr("Bytes around the first difference"));
    body()->addWidget(bytes_);
    buildButtons();
    handFocusOn(this, list_);
}

void FixityDesk::buildList() {
    std::vector<Column<DriftRow>> columns{
        {tr("What happened"),
         [](const DriftRow& row) {
             return Cell{kindText(row.drift.kind), kindMark(row.drift.kind), false, false,
                         kindSentence(row.drift.kind)};
         }},
        {tr("Volume"),
         [](const DriftRow& row) {
             return Cell{shown(row.volume) + (row.atHand ? QString() : tr(" (away)")),
                         Mark::none,
                         false,
                         !row.atHand,
                         {}};
         }},
        {tr("File"),
         [](const DriftRow& row) {
             return Cell{shownPath(row.holding.path), Mark::none, true, false, shownPath(row.path)};
         }},
        {tr("Found"),
         [](const DriftRow& row) {
             return Cell{told(localDay(row.drift.found)), Mark::none, false, false,
                         told(localMinute(row.drift.found))};
         }},
        {tr("Healthy copies"),
         [](const DriftRow& row) {
             const QString first = row.healthy.empty() ? QString() : shownPath(row.healthy.front());
             return row.healthy.empty()
                        ? Cell{row.canBeAssembled ? tr("can be put together") : tr("none at hand"),
                               Mark::none,
                               false,
                               !row.canBeAssembled,
                               {}}
                        : Cell{told(humanCount(row.healthy.size())), Mark::sound, false, false, first};
         }},
        {tr("On the docket"), [](const DriftRow& row) {
             return Cell{kindText(row.waiting), Mark::none, false, false, {}};
         }}};
    rows_ = new RowListModel<DriftRow>(
        std::move(columns), [](const DriftRow& row) { return std::to_string(row.holding.id); }, this);
    list_ = new ListView(tr("Holdings that are not what was recorded"), this);
    list_->setModel(rows_);
    list_->setEmptyText(
        tr("Nothing has drifted. Verify reads everything again and compares it with what was recorded."));
    list_->setWidths({136, 100, 400, 100, 150, 110}, 2);
    body()->addWidget(list_, 1);
    connect(list_->selectionModel(), &QItemSelectionModel::currentRowChanged, this,
            [this] { showEvidence(); });
}

void FixityDesk::buildButtons() {
    auto* verify = keyButton(tr("Verify all"), QKeySequence(Qt::Key_V), this);
    verify->setToolTip(tr("Read every holding at hand again and compare it with what was recorded"));
    auto* due = keyButton(tr("What is due"), QKeySequence(Qt::Key_D), this);
    due->setToolTip(tr("Only what was not read for longer than its volume's period"));
    heading()->addWidget(verify, 0, Qt::AlignBottom);
    heading()->addWidget(due, 0, Qt::AlignBottom);
    connect(verify, &QPushButton::clicked, this, [this] { workbench().verify({}); });
    connect(due, &QPushButton::clicked, this, [this] {
        VerifyRequest request;
        request.scope = CheckScope::due;
        workbench().verify(request);
    });

    auto* row = new WrapRow;
    row->setSpacing(8);
    auto* mendButton = keyButton(tr("Mend"), QKeySequence(Qt::Key_R), this);
    mendButton->setToolTip(
        tr("Put back what was recorded: from a healthy copy, or block by block from damaged ones"));
    accept_ = keyButton(tr("Accept…"), QKeySequence(Qt::Key_A), this);
    accept_->setToolTip(tr("Take the selected as they are now for what they should be"));
    auto* seekButton = keyButton(tr("Look in a folder…"), QKeySequence(Qt::Key_L), this);
    seekButton->setToolTip(
        tr("Look in a backup or another folder, which need be no volume, for healthy copies of what drifted "
           "or is missing"));
    auto* undecide = keyButton(tr("Undecide"), QKeySequence(Qt::Key_U), this);
    for (auto* button : {mendButton, accept_, undecide, seekButton}) {
        row->addWidget(button);
    }
    row->addStretch(1);
    row->addWidget(period_);
    body()->addLayout(row);
    connect(period_, &PeriodBox::periodChosen, this, [this](const std::vector<VolumeId>& volumes, int days) {
        workbench().decide([volumes, days](const Catalogue& catalogue) -> Outcome {
            for (const auto volume : volumes) {
                if (const auto set = FixityStore(catalogue).setPeriod(volume, days); !set) {
                    return set;
                }
            }
            return done();
        });
    });
    connect(mendButton, &QPushButton::clicked, this, [this] { mend(); });
    connect(seekButton, &QPushButton::clicked, this, [this] { seek(); });
    connect(accept_, &QPushButton::clicked, this, [this] { accept(); });
    connect(undecide, &QPushButton::clicked, this, [this] {
        workbench().decide(
            [ids = selected()](const Catalogue& catalogue) { return DocketStore(catalogue).remove(ids); });
    });
}

void FixityDesk::reload() {
    workbench().ask<Seen>(
        this, [](const Catalogue& catalogue) { return look(catalogue); },
        [this](const Seen& seen) { show(seen); });
    workbench().ask<History>(
        this, [](const Catalogue& catalogue) { return lookBack(catalogue); },
        [this](const History& history) {
            history_->setRows(history.checks, timeNow());
            period_->setPeriods(history.periods);
        });
}

Result<FixityDesk::Seen> FixityDesk::look(const Catalogue& catalogue) {
    const FixityStore store(catalogue);
    const auto volumes = Volumes(catalogue).all();
    const auto drifts = store.open();
    auto flawed = EvidenceStore(catalogue).flawed();
    if (!volumes || !drifts || !flawed) {
        return !volumes ? volumes.error() : !drifts ? drifts.error() : flawed.error();
    }
    Seen seen;
    seen.flawed = std::move(*flawed);
    for (const auto& drift : *drifts) {
        auto holdings = Holdings(catalogue).byIds(std::array{drift.holding});
        const auto mending = mendingOf(catalogue, drift.holding, *volumes);
        auto blocks = store.blocksOf(drift.holding);
        const auto waiting = DocketStore(catalogue).kindFor(drift.holding);
        RETURN_IF_FAILED(waiting);
        if (!holdings || !mending || !blocks || holdings->empty()) {
            continue;
        }
        DriftRow row{std::move(holdings->front()), drift, {}, {}, true, std::move(*blocks), mending->healthy,
                     mending->canBeAssembled,      {}};
        const auto volume = std::ranges::find(*volumes, row.holding.volume, &Volume::id);
        if (volume != volumes->end()) {
            row.volume = numberedLabel(*volume);
            row.atHand = volume->atHand;
            row.path = joinPath(volume->root, row.holding.path);
        }
        row.waiting = *waiting;
        seen.drift.push_back(std::move(row));
    }
    return seen;
}

Result<FixityDesk::History> FixityDesk::lookBack(const Catalogue& catalogue) {
    const FixityStore store(catalogue);
    const auto volumes = Volumes(catalogue).all();
    const auto checks = store.checks();
    if (!volumes || !checks) {
        return volumes ? checks.error() : volumes.error();
    }
    History history;
    for (const auto& volume : *volumes) {
        const auto period = store.periodOf(volume.id);
        const auto standing = period ? store.standingOf(volume.id, timeNow() - *period * day)
                                     : Result<FixityStore::Standing>(period.error());
        RETURN_IF_FAILED(standing);
        history.periods.push_back({volume.id, volumeName(volume), *period});
        CheckChart::Row row{volumeName(volume), standing->holdings, standing->readBefore, {}};
        std::ranges::copy_if(*checks, std::back_inserter(row.checks),
                             [&](const FixityCheck& check) { return check.volume == volume.id; });
        history.checks.push_back(std::move(row));
    }
    return history;
}

void FixityDesk::show(const Seen& seen) {
    const int row = list_->currentRow();
    rows_->setRows(seen.drift);
    unsound_->setIds(seen.flawed);
    which_->setItemText(
        0, tr("What has changed since it was recorded (%1)").arg(told(humanCount(seen.drift.size()))));
    which_->setItemText(1,
                        tr("What was never sound, or is odd (%1)").arg(told(humanCount(seen.flawed.size()))));
    if (!seen.drift.empty()) {
        list_->selectRow(std::clamp(row, 0, static_cast<int>(seen.drift.size()) - 1));
    }
    showEvidence();
}

const FixityDesk::DriftRow* FixityDesk::current() const {
    const int row = list_->currentRow();
    return row >= 0 && row < static_cast<int>(rows_->rows().size())
               ? &rows_->rows()[static_cast<std::size_t>(row)]
               : nullptr;
}

bool FixityDesk::showsUnsound() const {
    return which_->currentIndex() == 1;
}

void FixityDesk::chooseList() {
    list_->setVisible(!showsUnsound());
    unsound_->setVisible(showsUnsound());
    accept_->setEnabled(!showsUnsound());
    auto* seen = showsUnsound() ? static_cast<QWidget*>(unsound_) : list_;
    handFocusOn(this, seen);
    seen->setFocus();
    showEvidence();
}

std::vector<HoldingId> FixityDesk::selected() const {
    if (showsUnsound()) {
        return unsound_->selected();
    }
    std::vector<HoldingId> ids;
    for (const auto& index : list_->selectionModel()->selectedRows()) {
        ids.push_back(rows_->rows()[static_cast<std::size_t>(index.row())].holding.id);
    }
    return ids;
}

void FixityDesk::showEvidence() {
    const auto* row = showsUnsound() ? nullptr : current();
    blocks_->setVisible(row != nullptr);
    bytes_->setVisible(row != nullptr);
    ++bytesAsked_;
    if (row == nullptr) {
        words_->setText(showsUnsound() ? unsound_->currentText() : QString());
        return;
    }
    const auto& recorded = row->drift.recorded;
    words_->setText(tr("%1 Recorded: %2, written %3. Now: %4, written %5.")
                        .arg(kindSentence(row->drift.kind), told(humanBytes(recorded.size)),
                             told(localMinute(recorded.mtime)), told(humanBytes(row->holding.size)),
                             told(localMinute(row->holding.mtime))));
    blocks_->setBlocks(std::max(recorded.blocks.size(), row->blocks.size()),
                       differingBlocks(recorded.blocks, row->blocks));
    showBytes(*row);
}

void FixityDesk::showBytes(const DriftRow& row) {
    const auto differing = differingBlocks(row.drift.recorded.blocks, row.blocks);
    if (row.healthy.empty() || differing.empty() || !row.atHand) {
        bytes_->setText(tr("No healthy copy is at hand to show what it was."));
        return;
    }
    bytes_->setText(tr("Reading …"));
    workbench().look<std::optional<ByteDifference>>(
        this,
        [now = row.path, was = row.healthy.front(), from = differing.front().first * checksumBlock](
            RunControl&) { return firstDifference(now, was, from); },
        [this, asked = bytesAsked_](const std::optional<ByteDifference>& found) {
            if (asked != bytesAsked_) {
                return;
            }
            bytes_->setText(
                found ? QStringLiteral(
                            "<table cellspacing=\"0\"><tr><td>%1</td><td width=\"32\"></td><td>%2</td></tr>"
                            "<tr><td><pre>%3</pre></td><td></td><td><pre>%4</pre></td></tr></table>")
                            .arg(tr("now, from byte %1").arg(told(humanCount(found->at))), tr("healthy copy"),
                                 hexLines(found->begins, found->first, found->second),
                                 hexLines(found->begins, found->second, found->first))
                      : tr("The healthy copy is the same there by now: verify again."));
        });
}

void FixityDesk::put(const std::vector<HoldingId>& ids, ActionKind kind, const std::string& reason) {
    std::vector<DocketAction> actions;
    for (const auto id : ids) {
        actions.push_back({0, kind, id, reason, timeNow()});
    }
    if (!actions.empty()) {
        workbench().decide(
            [actions](const Catalogue& catalogue) { return DocketStore(catalogue).add(actions); });
    }
}

/// From a healthy copy where there is one, else block by block; what can be mended from nothing stays.
void FixityDesk::mend() {
    if (showsUnsound()) {
        const auto ids = unsound_->rewritable();
        if (ids.empty()) {
            words_->setText(tr("It was like this when it was recorded. Only stray bytes in MP3 and Ogg can "
                               "be left out; look "
                               "on Copies whether a better one is there."));
        }
        put(ids, ActionKind::rewrite, "without the bytes that are no audio");
        return;
    }
    std::vector<HoldingId> whole;
    std::vector<HoldingId> byBlocks;
    const auto ids = selected();
    for (const auto& row : rows_->rows()) {
        if (std::ranges::find(ids, row.holding.id) == ids.end()) {
            continue;
        }
        if (!row.healthy.empty()) {
            whole.push_back(row.holding.id);
        } else if (row.canBeAssembled) {
            byBlocks.push_back(row.holding.id);
        }
    }
    if (whole.empty() && byBlocks.empty()) {
        words_->setText(tr(
            "No copy at hand holds what was recorded: bring the volume or backup that does, and survey it."));
        return;
    }
    put(whole, ActionKind::restore, "from a healthy copy");
    put(byBlocks, ActionKind::repair, "put together from damaged copies");
}

void FixityDesk::seek() {
    askForFolder(this, tr("Where to look for healthy copies"),
                 [this](const BytePath& folder) { workbench().seek(folder); });
}

void FixityDesk::accept() {
    const auto ids = selected();
    if (ids.empty()) {
        return;
    }
    // A reason is offered only where it is likely.
    const bool onlyTags = std::ranges::all_of(rows_->rows(), [&](const DriftRow& row) {
        return row.drift.kind == DriftKind::tagsEdited || std::ranges::find(ids, row.holding.id) == ids.end();
    });
    auto* window = new AskWindow({tr("Accept the change"),
                                  tr("%1 will stand on the docket. Once carried out, the content as it is "
                                     "now is what is verified against. No "
                                     "file changes.")
                                      .arg(told(counted(ids.size(), "acceptance"))),
                                  tr("Put on the docket"),
                                  {tr("I edited the tags"), tr("I replaced it"), tr("I edited the audio")},
                                  onlyTags ? tr("I edited the tags") : QString()},
                                 this);
    connect(window, &AskWindow::answered, this,
            [this, ids](const QString& reason) { put(ids, ActionKind::acceptChange, reason.toStdString()); });
    window->open();
}

} // namespace sober::app
