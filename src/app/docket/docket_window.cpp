#include "app/docket/docket_window.h"

#include "app/desks/desk.h"
#include "app/desks/ledger/ledger_words.h"
#include "app/docket/progress_strip.h"
#include "app/theme/theme.h"
#include "app/words.h"
#include "app/wrap_label.h"
#include "app/wrap_row.h"
#include "core/catalogue/docket_store.h"

#include <QHBoxLayout>
#include <QHeaderView>
#include <QLabel>
#include <QPushButton>
#include <QShortcut>
#include <QVBoxLayout>

#include <algorithm>

namespace sober::app {

namespace {

/// Where a move leads, from its volume on where it stays there.
QString targetText(const PlannedAction& planned) {
    const auto& target = planned.action.target;
    const auto& within = planned.holding.path;
    const bool known = within.size() < planned.path.size() && planned.path.ends_with(within);
    const auto root = planned.path.substr(0, known ? planned.path.size() - within.size() - 1 : 0);
    return shownPath(known ? relativeTo(target, root).value_or(target) : target);
}

QString whyText(const PlannedAction& planned) {
    if (planned.awaitsConsent) {
        return told(*planned.refused);
    }
    if (planned.refused) {
        return DocketWindow::tr("Refused: %1").arg(told(*planned.refused));
    }
    if (planned.loss != Loss::none) {
        return DocketWindow::tr("Consented: %1").arg(told(std::string(lossWords(planned.loss))));
    }
    // Why something is accepted the custodian has said.
    const auto kind = planned.action.kind;
    const bool isTheirs = kind == ActionKind::accept || kind == ActionKind::acceptChange;
    const QString reason = isTheirs ? shown(planned.action.reason) : told(planned.action.reason);
    if (kind != ActionKind::move) {
        return reason;
    }
    return reason.isEmpty() ? DocketWindow::tr("to %1").arg(targetText(planned))
                            : DocketWindow::tr("to %1; %2").arg(targetText(planned), reason);
}

} // namespace

DocketWindow::DocketWindow(Workbench& workbench, QWidget* parent)
    : QDialog(parent),
      workbench_(workbench),
      summary_(new WrapLabel(this)),
      result_(new WrapLabel(this)),
      takeOff_(keyButton(tr("Take off the docket"), QKeySequence(Qt::Key_Delete), this)),
      consent_(keyButton(tr("Consent to this loss"), QKeySequence(Qt::Key_C), this)),
      carryOut_(keyButton(tr("Carry out"), QKeySequence(Qt::CTRL | Qt::Key_Return), this)),
      stop_(new QPushButton(tr("Stop after this file"), this)) {
    setWindowTitle(tr("The docket"));
    resize(1080, 640);
    auto* layout = new QVBoxLayout(this);
    layout->setContentsMargins(20, 16, 20, 16);
    layout->setSpacing(8);
    auto* title = new QLabel(tr("The docket"), this);
    title->setFont(Theme::title());
    layout->addWidget(title);
    summary_->setWordWrap(true);
    summary_->setAccessibleName(tr("What carrying out would do"));
    layout->addWidget(summary_);

    std::vector<Column<PlannedAction>> columns{
        {tr("Action"),
         [](const PlannedAction& planned) {
             return planned.awaitsConsent ? Cell{tr("needs consent"), Mark::doubtful, false, false, {}}
                    : planned.refused     ? Cell{tr("refused"), Mark::none, false, true, {}}
                                          : Cell{kindText(planned.action.kind),
                                             markOfKind(planned.action.kind),
                                             false,
                                             false,
                                             {}};
         }},
        {tr("Volume"),
         [](const PlannedAction& planned) {
             return Cell{planned.volume.empty() || planned.holding.volume == 0
                             ? shown(planned.volume)
                             : shown(planned.volume) + QStringLiteral(" (%1)").arg(planned.holding.volume),
                         Mark::none,
                         false,
                         false,
                         {}};
         }},
        {tr("File"),
         [](const PlannedAction& planned) {
             const auto& path = planned.holding.id != 0 ? planned.holding.path : planned.path;
             return Cell{shownPath(path), Mark::none, true, planned.refused && !planned.awaitsConsent,
                         shownPath(planned.path)};
         }},
        {tr("Frees"),
         [](const PlannedAction& planned) {
             return Cell{planned.frees > 0 ? told(humanBytes(planned.frees)) : tr("nothing"),
                         Mark::none,
                         false,
                         planned.frees == 0,
                         {}};
         },
         true},
        {tr("Why"), [](const PlannedAction& planned) {
             const QString why = whyText(planned);
             return Cell{why, Mark::none, false, false, why};
         }}};
    actions_ = new RowListModel<PlannedAction>(
        std::move(columns), [](const PlannedAction& planned) { return std::to_string(planned.action.id); },
        this);
    list_ = new ListView(tr("Actions on the docket"), this);
    list_->setModel(actions_);
    list_->setEmptyText(tr("The docket is empty. Decide on copies or on what is missing, and it is listed "
                           "here before anything happens."));
    list_->setWidths({132, 100, 330, 84, 378}, 2);
    layout->addWidget(list_, 3);
    lineTitle_ = strongLabel({}, this);
    layout->addWidget(lineTitle_);
    std::vector<Column<LineRow>> lineColumns{
        {tr("List"),
         [](const LineRow& row) {
             return Cell{tr("%1: %2").arg(shown(row.players), shown(row.list)), Mark::none, false, false,
                         shownPath(row.path)};
         }},
        {tr("Line"),
         [](const LineRow& row) {
             return Cell{row.line > 0 ? told(humanCount(row.line)) : QString(), Mark::none, false, true, {}};
         },
         true},
        {tr("Before"),
         [](const LineRow& row) {
             return Cell{shownPath(row.before), Mark::none, true, false, shownPath(row.before)};
         }},
        {tr("After"), [](const LineRow& row) {
             return row.after.empty()
                        ? Cell{tr("left as it is"), Mark::none, false, true, {}}
                        : Cell{shownPath(row.after), Mark::none, true, false, shownPath(row.after)};
         }}};
    lines_ = new RowListModel<LineRow>(
        std::move(lineColumns),
        [](const LineRow& row) { return row.path + std::to_string(row.line) + row.before; }, this);
    lineList_ = new ListView(tr("Lines of lists that change"), this);
    lineList_->setModel(lines_);
    lineList_->setWidths({210, 56, 360, 360}, 2);
    layout->addWidget(lineList_, 2);
    lineTitle_->hide();
    lineList_->hide();
    result_->setWordWrap(true);
    result_->setAccessibleName(tr("Outcome"));
    result_->hide();
    layout->addWidget(result_);

    auto* buttons = new WrapRow;
    buttons->setSpacing(8);
    auto* close = new QPushButton(tr("Close"), this);
    carryOut_->setProperty("weight", "main");
    buttons->addWidget(takeOff_);
    buttons->addWidget(consent_);
    consent_->setToolTip(
        tr("For the one chosen line that needs it; the loss is named there and in the ledger"));
    buttons->addStretch(1);
    buttons->addWidget(stop_);
    buttons->addWidget(close);
    buttons->addWidget(carryOut_);
    layout->addLayout(buttons);
    stop_->hide();

    connect(close, &QPushButton::clicked, this, &QDialog::accept);
    connect(consent_, &QPushButton::clicked, this, &DocketWindow::consent);
    connect(list_->selectionModel(), &QItemSelectionModel::selectionChanged, this, [this] { followWork(); });
    connect(takeOff_, &QPushButton::clicked, this, &DocketWindow::takeOff);
    connect(carryOut_, &QPushButton::clicked, this, [this] {
        carryOut_->setEnabled(false);
        result_->hide();
        workbench_.carryOut();
    });
    connect(stop_, &QPushButton::clicked, &workbench_, &Workbench::cancel);
    connect(&workbench_, &Workbench::docketChanged, this, &DocketWindow::reload);
    connect(&workbench_, &Workbench::longWorkChanged, this, &DocketWindow::followWork);
    connect(&workbench_, &Workbench::carriedOut, this, &DocketWindow::showResult);
    connect(&workbench_, &Workbench::progressed, this, [this](const Progress& progress) {
        if (workbench_.longWork() == LongWork::carryOut) {
            result_->setText(tr("Carrying out: %1").arg(progressText(progress)));
            result_->show();
        }
    });
    list_->setFocus();
    followWork();
    reload();
}

void DocketWindow::reload() {
    struct Reviewed {
        DocketReview review;
        std::vector<PlannedAction> rows; ///< for the list: what is copied is copied there, where nobody waits
    };
    workbench_.ask<std::shared_ptr<Reviewed>>(
        this,
        [](const Catalogue& catalogue) -> Result<std::shared_ptr<Reviewed>> {
            auto review = reviewDocket(catalogue);
            RETURN_IF_FAILED(review);
            auto rows = review->actions;
            return std::make_shared<Reviewed>(Reviewed{std::move(*review), std::move(rows)});
        },
        [this](const std::shared_ptr<Reviewed>& reviewed) {
            show(reviewed->review, std::move(reviewed->rows));
            workbench_.ask<std::vector<ListDifference>>(
                this,
                [reviewed](const Catalogue& catalogue) {
                    return listDifferences(catalogue, reviewed->review);
                },
                [this](const std::vector<ListDifference>& differences) { showLines(differences); });
        });
}

void DocketWindow::showLines(const std::vector<ListDifference>& differences) {
    std::vector<LineRow> rows;
    std::size_t lists = 0;
    std::size_t changes = 0;
    for (const auto& difference : differences) {
        LineRow row;
        row.path = difference.list;
        row.list = displayPath(nameOf(difference.list));
        for (const auto& player : difference.players) {
            row.players += row.players.empty() ? "" : ", ";
            row.players += player;
        }
        lists += difference.changes.empty() ? 0 : 1;
        changes += difference.changes.size();
        for (const auto& change : difference.changes) {
            row.line = change.line;
            row.before = change.before;
            row.after = change.after;
            rows.push_back(row);
        }
        row.line = 0;
        row.after.clear();
        for (const auto& each : difference.unreachable) {
            row.before = each.sentence;
            rows.push_back(row);
        }
        if (!difference.refusal.empty()) {
            row.before = difference.refusal;
            rows.push_back(row);
        }
    }
    lineTitle_->setText(tr("%1 of %2 change; every other byte stays as it is")
                            .arg(told(counted(changes, "line")), told(counted(lists, "list"))));
    lineTitle_->setVisible(!rows.empty());
    lineList_->setVisible(!rows.empty());
    lines_->setRows(std::move(rows));
}

void DocketWindow::show(const DocketReview& review, std::vector<PlannedAction> rows) {
    waiting_ = review.actions.size();
    willRun_ = waiting_ - review.refused;
    QStringList lines;
    if (waiting_ > 0) {
        QString text = tr("%1 will be carried out").arg(told(counted(willRun_, "action")));
        const auto asked =
            static_cast<std::uint64_t>(std::ranges::count_if(review.actions, &PlannedAction::awaitsConsent));
        if (asked > 0) {
            text += tr(", %1 to a loss that you have to consent to first, line by line")
                        .arg(told(counted(asked, "leads", "lead")));
        }
        if (review.refused > asked) {
            text += tr(", %1 will be refused and stay on the docket")
                        .arg(told(humanCount(review.refused - asked)));
        }
        const bool onlyPlaces = std::ranges::all_of(review.actions, [](const PlannedAction& planned) {
            return planned.holding.id == 0 && !isAboutNoHolding(planned.action.kind);
        });
        lines << text +
                     (onlyPlaces
                          ? tr(". Each list is written anew beside the old one, read back, and put in its "
                               "place; "
                               "what it was is kept in the ledger.")
                          : tr(". What is retired is compared with the copy that stays, then put into the "
                               "trash; what is mended or gets tags is made anew, read back, and what it was "
                               "goes to the trash too; what is moved is renamed."));
        if (std::ranges::any_of(review.actions, [](const PlannedAction& planned) {
                return planned.action.kind == ActionKind::salvage && !planned.refused;
            })) {
            lines << tr("What was salvaged is written where nothing stands, and read back.");
        }
        const bool letsGo = std::ranges::any_of(review.actions, [](const PlannedAction& planned) {
            return planned.action.kind == ActionKind::discard && !planned.refused;
        });
        if (letsGo) {
            lines << tr(
                "What leaves the trash is held against the copy that stays, byte for byte, and cannot be "
                "taken back.");
        }
        QStringList freed;
        for (const auto& [volume, bytes] : review.freesByVolume) {
            if (bytes > 0) {
                freed << QStringLiteral("%1 %2").arg(shown(volume), told(humanBytes(bytes)));
            }
        }
        if (!freed.isEmpty()) {
            lines << tr("Frees once the trash is emptied: %1.").arg(freed.join(QStringLiteral(", ")));
        }
        lines << (review.references == 0
                      ? tr("Takes no references along.")
                      : tr("Takes %1 of players along.").arg(told(counted(review.references, "reference")))) +
                     QLatin1Char(' ') +
                     (letsGo ? tr("All else can be taken back from the ledger.")
                             : tr("Everything can be taken back from the ledger."));
    }
    summary_->setText(lines.join(QLatin1Char('\n')));
    actions_->setRows(std::move(rows));
    followWork();
}

void DocketWindow::followWork() {
    const bool running = workbench_.longWork() == LongWork::carryOut;
    carryOut_->setEnabled(workbench_.longWork() == LongWork::none && willRun_ > 0);
    takeOff_->setEnabled(!running && waiting_ > 0);
    consent_->setEnabled(!running && lineThatNeedsConsent() != nullptr);
    consent_->setVisible(std::ranges::any_of(actions_->rows(), &PlannedAction::awaitsConsent));
    stop_->setVisible(running);
}

void DocketWindow::showResult(const CarriedOut& result) {
    QString text = tr("Carried out: %1, frees %2 once the trash is emptied.")
                       .arg(told(counted(result.done, "action")), told(humanBytes(result.frees)));
    if (result.references > 0) {
        text += tr(" %1 of players now lead elsewhere.").arg(told(counted(result.references, "reference")));
    }
    if (result.interrupted) {
        text += tr(" Stopped before the end; the rest still waits.");
    }
    if (!result.refused.empty()) {
        text += tr(" Refused: %1. %2")
                    .arg(told(humanCount(result.refused.size())), told(result.refused.front().sentence));
    }
    text += unflushedText(result);
    result_->setText(text);
    result_->show();
}

/// Consent is given for one line at a time.
const PlannedAction* DocketWindow::lineThatNeedsConsent() const {
    const auto selected = list_->selectionModel()->selectedRows();
    const bool one =
        selected.size() == 1 && selected.front().row() < static_cast<int>(actions_->rows().size());
    const auto* planned = one ? &actions_->rows()[static_cast<std::size_t>(selected.front().row())] : nullptr;
    return planned != nullptr && planned->awaitsConsent ? planned : nullptr;
}

void DocketWindow::consent() {
    if (const auto* planned = lineThatNeedsConsent()) {
        workbench_.decide(
            [id = planned->holding.id](const Catalogue& catalogue) { return consentToLoss(catalogue, id); });
    }
}

void DocketWindow::takeOff() {
    std::vector<HoldingId> ids;
    std::vector<BytePath> places;
    for (const auto& index : list_->selectionModel()->selectedRows()) {
        const auto& planned = actions_->rows()[static_cast<std::size_t>(index.row())];
        if (planned.holding.id != 0) {
            ids.push_back(planned.holding.id);
        } else {
            places.push_back(planned.path);
        }
    }
    if (!ids.empty() || !places.empty()) {
        workbench_.decide([ids, places](const Catalogue& catalogue) {
            const auto removed = DocketStore(catalogue).remove(ids);
            return removed ? DocketStore(catalogue).removePlaces(places) : removed;
        });
    }
}

} // namespace sober::app
