#include "app/docket/docket_window.h"

#include "app/desks/desk.h"
#include "app/desks/ledger_words.h"
#include "app/docket/progress_strip.h"
#include "app/theme/theme.h"
#include "app/words.h"
#include "core/catalogue/docket_store.h"

#include <QHBoxLayout>
#include <QHeaderView>
#include <QLabel>
#include <QPushButton>
#include <QShortcut>
#include <QVBoxLayout>

namespace sober::app {

DocketWindow::DocketWindow(Workbench& workbench, QWidget* parent)
    : QDialog(parent),
      workbench_(workbench),
      summary_(new QLabel(this)),
      result_(new QLabel(this)),
      takeOff_(keyButton(tr("Take off the docket"), QKeySequence(Qt::Key_Delete), this)),
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
             return planned.refused
                        ? Cell{tr("refused"), Mark::none, false, true, {}}
                        : Cell{shown(planned.action.kind), markOfKind(planned.action.kind), false, false, {}};
         }},
        {tr("Volume"),
         [](const PlannedAction& planned) {
             return Cell{shown(planned.volume), Mark::none, false, false, {}};
         }},
        {tr("File"),
         [](const PlannedAction& planned) {
             return Cell{shownPath(planned.holding.path), Mark::none, true, planned.refused.has_value(),
                         shownPath(planned.path)};
         }},
        {tr("Frees"),
         [](const PlannedAction& planned) {
             return Cell{planned.frees > 0 ? shown(humanBytes(planned.frees)) : tr("nothing"),
                         Mark::none,
                         false,
                         planned.frees == 0,
                         {}};
         },
         true},
        {tr("Why"), [](const PlannedAction& planned) {
             return Cell{planned.refused ? tr("Refused: %1").arg(shown(*planned.refused))
                                         : shown(planned.action.reason),
                         Mark::none,
                         false,
                         false,
                         {}};
         }}};
    actions_ = new RowListModel<PlannedAction>(std::move(columns), this);
    list_ = new ListView(tr("Actions on the docket"), this);
    list_->setModel(actions_);
    list_->setEmptyText(tr("The docket is empty. Decide on copies or on what is missing, and it is listed "
                           "here before anything happens."));
    list_->setWidths({100, 80, 360, 84, 380}, 2);
    layout->addWidget(list_, 1);
    result_->setWordWrap(true);
    result_->setAccessibleName(tr("Outcome"));
    result_->hide();
    layout->addWidget(result_);

    auto* buttons = new QHBoxLayout;
    buttons->setSpacing(8);
    auto* close = new QPushButton(tr("Close"), this);
    carryOut_->setProperty("weight", "main");
    buttons->addWidget(takeOff_);
    buttons->addStretch(1);
    buttons->addWidget(stop_);
    buttons->addWidget(close);
    buttons->addWidget(carryOut_);
    layout->addLayout(buttons);
    stop_->hide();

    connect(close, &QPushButton::clicked, this, &QDialog::accept);
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
    workbench_.ask<DocketReview>(
        this, [](const Catalogue& catalogue) { return reviewDocket(catalogue); },
        [this](const DocketReview& review) { show(review); });
}

void DocketWindow::show(const DocketReview& review) {
    waiting_ = review.actions.size();
    willRun_ = waiting_ - review.refused;
    QStringList lines;
    if (waiting_ > 0) {
        QString text = tr("%1 will be carried out").arg(shown(counted(willRun_, "action")));
        if (review.refused > 0) {
            text += tr(", %1 will be refused and stay on the docket").arg(shown(humanCount(review.refused)));
        }
        lines << text + tr(". What is retired is compared with the copy that stays, then put into the "
                           "trash; what is mended or gets tags is made anew, read back, and what it was goes "
                           "to the trash "
                           "too.");
        QStringList freed;
        for (const auto& [volume, bytes] : review.freesByVolume) {
            if (bytes > 0) {
                freed << QStringLiteral("%1 %2").arg(shown(volume), shown(humanBytes(bytes)));
            }
        }
        if (!freed.isEmpty()) {
            lines << tr("Frees once the trash is emptied: %1. Takes no references along. Everything can be "
                        "taken back from the ledger.")
                         .arg(freed.join(QStringLiteral(", ")));
        }
    }
    summary_->setText(lines.join(QLatin1Char('\n')));
    actions_->setRows(review.actions);
    followWork();
}

void DocketWindow::followWork() {
    const bool running = workbench_.longWork() == LongWork::carryOut;
    carryOut_->setEnabled(workbench_.longWork() == LongWork::none && willRun_ > 0);
    takeOff_->setEnabled(!running && waiting_ > 0);
    stop_->setVisible(running);
}

void DocketWindow::showResult(const CarriedOut& result) {
    QString text = tr("Carried out: %1, frees %2 once the trash is emptied.")
                       .arg(shown(counted(result.done, "action")), shown(humanBytes(result.frees)));
    if (result.interrupted) {
        text += tr(" Stopped before the end; the rest still waits.");
    }
    if (!result.refused.empty()) {
        text += tr(" Refused: %1. %2")
                    .arg(shown(humanCount(result.refused.size())), shown(result.refused.front().sentence));
    }
    result_->setText(text);
    result_->show();
}

void DocketWindow::takeOff() {
    std::vector<HoldingId> ids;
    for (const auto& index : list_->selectionModel()->selectedRows()) {
        ids.push_back(actions_->rows()[static_cast<std::size_t>(index.row())].holding.id);
    }
    if (!ids.empty()) {
        workbench_.decide([ids](const Catalogue& catalogue) { return DocketStore(catalogue).remove(ids); });
    }
}

} // namespace sober::app
