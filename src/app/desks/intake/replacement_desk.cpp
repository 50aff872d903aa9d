#include "app/desks/intake/replacement_desk.h"

#include "app/charts/arrival_chart.h"
#include "app/desks/ask_window.h"
#include "app/desks/intake/replace_window.h"
#include "app/hand_focus_on.h"
#include "app/listening/listening_bar.h"
#include "app/words.h"
#include "app/wrap_row.h"
#include "core/catalogue/docket_store.h"
#include "core/catalogue/service_store.h"
#include "core/intake/offer_shelf.h"

#include <QHBoxLayout>
#include <QLabel>
#include <QLineEdit>
#include <QMessageBox>
#include <QPushButton>
#include <QVBoxLayout>

#include <algorithm>

namespace sober::app {
ReplacementDesk::ReplacementDesk(Workbench& workbench)
    : Desk(workbench, tr("Could be better"), tr("What could be better, and where is it to be had?")),
      chart_(new ArrivalChart(tr("How far the bandwidth reaches: the best that is to be had (filled) beside "
                                 "what is held (ring)"),
                              this)),
      text_(new QLineEdit(this)) {
    buildHeading();
    body()->addWidget(chart_);
    buildRows();
    buildEvidence();
    connect(chart_, &ArrivalChart::rowClicked, this, [this](int row) { list_->selectRow(row); });
    connect(&this->workbench(), &Workbench::betterFound, this,
            [this](const std::shared_ptr<const WantedLook>& look) {
                keepOffers(look->rows);
                show(look->rows);
                if (!look->problem.empty()) {
                    emit this->workbench().failed(told(look->problem));
                }
            });
    connect(&this->workbench(), &Workbench::replacementPlanned, this,
            [this](const PlannedReplacement& planned) { tellPlanned(planned.candidate, planned.target); });
    connect(&this->workbench(), &Workbench::advisedPlanned, this, [this](const PlannedRows& planned) {
        auto text = tr("%1 on the docket.").arg(told(counted(planned.targets.size(), "replacement")));
        if (!planned.refused.empty()) {
            text +=
                tr(" Not fit after all: %1. %2")
                    .arg(told(humanCount(planned.refused.size())), told(planned.refused.front().sentence));
        }
        emit this->workbench().failed(text);
    });
}

void ReplacementDesk::buildHeading() {
    auto* ask = keyButton(tr("Ask the shelf"), QKeySequence(Qt::Key_L), this);
    ask->setToolTip(tr("Look among all holdings and ask the offer shelf that was set up"));
    auto* shelf = keyButton(tr("Offer shelf…"), QKeySequence(Qt::Key_O), this);
    shelf->setToolTip(tr("A service that may be asked for better files"));
    auto* arrivals = keyButton(tr("Arrivals"), QKeySequence(Qt::Key_B), this);
    arrivals->setToolTip(tr("Back to what lies in the inboxes"));
    for (auto* button : {ask, shelf, arrivals}) {
        heading()->addWidget(button);
    }
    connect(ask, &QPushButton::clicked, this, &ReplacementDesk::ask);
    connect(shelf, &QPushButton::clicked, this, &ReplacementDesk::askForShelf);
    connect(arrivals, &QPushButton::clicked, this, &ReplacementDesk::arrivalsWanted);
}

void ReplacementDesk::buildRows() {
    auto* replace = keyButton(tr("Replace…"), QKeySequence(Qt::Key_R), this);
    replace->setToolTip(tr("The selected by the chosen candidate, or by the best"));
    auto* all = keyButton(tr("Replace all that can be…"), QKeySequence(Qt::SHIFT | Qt::Key_R), this);
    all->setToolTip(tr("Each by its best candidate at hand or on offer"));
    auto* keep = keyButton(tr("Keep as it is"), QKeySequence(Qt::Key_A), this);
    keep->setToolTip(tr("Put on the docket that it is accepted, and not asked about again"));
    text_->setPlaceholderText(tr("words in names, paths, tags, lists"));
    text_->setAccessibleName(tr("Narrow the list"));
    text_->setClearButtonEnabled(true);
    auto* above = new WrapRow;
    above->setSpacing(8);
    above->addWidget(text_, 1);
    for (auto* button : {replace, all, keep}) {
        above->addWidget(button);
    }
    body()->addLayout(above);
    rows_ = new RowListModel<WantedLine>(
        wantedColumns(), [](const WantedLine& each) { return std::to_string(each.row.wanted.holding.id); },
        this);
    list_ = new ListView(tr("What could be better"), this);
    list_->setModel(rows_);
    list_->setEmptyText(
        tr("Nothing that is held is cut, damaged, transcoded or under the limit, as far as it was "
           "examined."));
    list_->setWidths({136, 210, 220, 280, 80}, 3);
    body()->addWidget(list_, 1);
    handFocusOn(this, list_);
    connect(text_, &QLineEdit::textChanged, this, &ReplacementDesk::reload);
    connect(replace, &QPushButton::clicked, this, &ReplacementDesk::replace);
    connect(all, &QPushButton::clicked, this, &ReplacementDesk::replaceAll);
    connect(keep, &QPushButton::clicked, this, &ReplacementDesk::keepAsItIs);
    connect(list_->selectionModel(), &QItemSelectionModel::selectionChanged, this,
            &ReplacementDesk::showChosen);
    connect(rows_, &QAbstractItemModel::dataChanged, this, &ReplacementDesk::showChosen);
}

void ReplacementDesk::buildEvidence() {
    title_ = strongLabel({}, this);
    title_->setTextFormat(Qt::PlainText);
    title_->setAccessibleName(tr("The chosen holding"));
    why_ = paragraph(tr("Why it could be better"), this);
    reasons_ = paragraph(tr("Reasons for and against the chosen candidate"), this);
    listening_ = new ListeningBar(this);
    auto* left = new QVBoxLayout;
    left->setSpacing(4);
    left->addWidget(title_);
    left->addWidget(why_);
    left->addWidget(reasons_);
    left->addStretch(1);
    left->addWidget(listening_);
    candidates_ = new RowListModel<Candidate>(
        candidateColumns(), [](const Candidate& each) { return each.path; }, this);
    candidateList_ = new ListView(tr("Candidates"), this);
    candidateList_->setModel(candidates_);
    candidateList_->setEmptyText(tr("Nothing else of this title is known."));
    candidateList_->setWidths({136, 70, 260}, 2);
    candidateList_->setSelectionMode(QAbstractItemView::SingleSelection);
    connect(candidateList_->selectionModel(), &QItemSelectionModel::selectionChanged, this,
            &ReplacementDesk::showCandidate);
    auto* frame = new QWidget(this);
    auto* row = new QHBoxLayout(frame);
    row->setContentsMargins(0, 4, 0, 0);
    row->setSpacing(20);
    row->addLayout(left, 4);
    row->addWidget(candidateList_, 6);
    frame->setFixedHeight(176);
    body()->addWidget(frame);
    showChosen();
}

void ReplacementDesk::reload() {
    workbench().look<std::shared_ptr<WantedLook>>(
        this,
        [path = workbench().cataloguePath(),
         text = text_->text().toStdString()](RunControl& control) -> Result<std::shared_ptr<WantedLook>> {
            const auto catalogue = Catalogue::openForReading(path);
            const auto wanted = catalogue ? wantedHoldings(*catalogue, text)
                                          : Result<std::vector<HoldingId>>(catalogue.error());
            auto look = wanted ? lookForBetter(*catalogue, *wanted, false, control, [](const Progress&) {})
                               : Result<WantedLook>(wanted.error());
            RETURN_IF_FAILED(look);
            return std::make_shared<WantedLook>(std::move(*look));
        },
        [this](const std::shared_ptr<WantedLook>& look) {
            for (auto& row : look->rows) {
                const auto offered = offers_.find(row.wanted.holding.id);
                for (std::size_t i = 0; offered != offers_.end() && i < offered->second.size(); ++i) {
                    const auto& each = offered->second[i];
                    (each.unfit ? row.refused : row.candidates).push_back(each);
                }
            }
            show(std::move(look->rows));
            reloadDecisions();
        });
}

void ReplacementDesk::reloadDecisions() {
    workbench().ask<std::vector<DocketAction>>(
        this, [](const Catalogue& catalogue) { return DocketStore(catalogue).all(); },
        [this](const std::vector<DocketAction>& actions) {
            waiting_.clear();
            for (const auto& action : actions) {
                if (action.kind == ActionKind::replace) {
                    waiting_.insert(action.holding);
                }
            }
            auto all = rows_->rows();
            for (auto& each : all) {
                each.waits = waiting_.contains(each.row.wanted.holding.id);
            }
            rows_->setRows(std::move(all));
        });
}

void ReplacementDesk::keepOffers(const std::vector<WantedRow>& rows) {
    offers_.clear();
    for (const auto& row : rows) {
        for (const auto* candidates : {&row.candidates, &row.refused}) {
            std::ranges::copy_if(*candidates, std::back_inserter(offers_[row.wanted.holding.id]),
                                 [](const Candidate& each) { return each.source == CandidateSource::offer; });
        }
    }
}

void ReplacementDesk::show(std::vector<WantedRow> rows) {
    std::vector<ArrivalChart::Row> drawn;
    std::vector<WantedLine> all;
    for (auto& row : rows) {
        const auto* best = row.candidates.empty() ? nullptr : &row.candidates.front();
        drawn.push_back({shownPath(BytePath(nameOf(row.wanted.path))), markOfWanted(*row.wanted.why),
                         best != nullptr ? tr("better one %1").arg(sourceWord(*best)) : tr("none known"),
                         best != nullptr ? best->cutoff : std::nullopt, row.cutoff, true,
                         best == nullptr                          ? tr("nothing better is known")
                         : best->source == CandidateSource::offer ? tr("known once it was fetched")
                                                                  : QString()});
        const bool waits = waiting_.contains(row.wanted.holding.id);
        all.push_back({std::move(row), waits});
    }
    chart_->setRows(std::move(drawn));
    rows_->setRows(std::move(all));
    if (list_->selectionModel()->selectedRows().isEmpty() && !rows_->rows().empty()) {
        list_->selectRow(0);
    }
    showChosen();
}

/// What was promised and does not fit is known now.
void ReplacementDesk::tellPlanned(const Candidate& candidate, const BytePath& target) {
    if (!candidate.unfit) {
        emit workbench().failed(
            tr("On the docket: %1, by %2.").arg(shownPath(target), shownPath(candidate.path)));
        return;
    }
    emit workbench().failed(tr("%1 does not fit: %2.").arg(shownPath(candidate.path), reasonsOf(candidate)));
    std::vector<WantedRow> rows;
    for (const auto& each : rows_->rows()) {
        auto row = each.row;
        if (std::erase_if(row.candidates, [&](const Candidate& one) { return one.path == candidate.path; }) >
            0) {
            row.refused.insert(row.refused.begin(), candidate);
        }
        rows.push_back(std::move(row));
    }
    keepOffers(rows);
    show(std::move(rows));
}

const WantedRow* ReplacementDesk::chosen() const {
    const auto selected = list_->selectionModel()->selectedRows();
    return selected.isEmpty() ? nullptr
                              : &rows_->rows()[static_cast<std::size_t>(selected.front().row())].row;
}

const Candidate* ReplacementDesk::chosenCandidate() const {
    const auto selected = candidateList_->selectionModel()->selectedRows();
    return selected.isEmpty() ? nullptr
                              : &candidates_->rows()[static_cast<std::size_t>(selected.front().row())];
}

void ReplacementDesk::showChosen() {
    if (candidateList_ == nullptr) {
        return;
    }
    const auto* row = chosen();
    if (row == nullptr) {
        title_->setText(tr("Choose a holding to see what could take its place."));
        why_->clear();
        candidates_->setRows({});
        showCandidate();
        return;
    }
    title_->setText(shownPath(BytePath(nameOf(row->wanted.path))));
    why_->setText(tr("%1: %2. In %3.")
                      .arg(wantedWord(*row->wanted.why), told(row->wanted.words),
                           shownPath(BytePath(parentOf(row->wanted.path)))));
    auto all = row->candidates;
    all.insert(all.end(), row->refused.begin(), row->refused.end());
    candidates_->setRows(std::move(all));
    const auto selected = list_->selectionModel()->selectedRows();
    chart_->setChosen(selected.front().row());
    showCandidate();
}

void ReplacementDesk::showCandidate() {
    const auto* row = chosen();
    const auto* candidate = chosenCandidate();
    if (candidate == nullptr) {
        reasons_->setText(row == nullptr || row->candidates.empty()
                              ? QString()
                              : tr("The best: %1.").arg(reasonsOf(row->candidates.front())));
        if (row != nullptr && !row->wanted.atHand) {
            listening_->setAway(workbench(), row->wanted.holding.id, tr("it is not at hand"));
        } else {
            listening_->setFile(row != nullptr ? row->wanted.path : BytePath(), tr("nothing is chosen"));
        }
        return;
    }
    reasons_->setText(
        candidate->unfit
            ? tr("Does not fit (%1): %2.").arg(unfitWord(*candidate->unfit), reasonsOf(*candidate))
            : tr("Fits: %1.").arg(reasonsOf(*candidate)));
    const bool canPlay = candidate->source != CandidateSource::offer && candidate->atHand;
    if (canPlay || candidate->holding == 0) {
        listening_->setFile(canPlay ? candidate->path : BytePath(), tr("it is not at hand"));
    } else {
        listening_->setAway(workbench(), candidate->holding, tr("it is not at hand"));
    }
}

void ReplacementDesk::ask() {
    if (workbench().isBusy()) {
        emit workbench().failed(tr("Other work is going on; ask again once it has ended."));
        return;
    }
    workbench().lookForBetter(text_->text().toStdString());
}

void ReplacementDesk::askForShelf() {
    workbench().ask<std::optional<std::string>>(
        this,
        [](const Catalogue& catalogue) { return ServiceStore(catalogue).address(ServiceKind::offerShelf); },
        [this](const std::optional<std::string>& shelf) {
            auto* window = new AskWindow({tr("Offer shelf"),
                                          tr("The address of a service that may be asked for better files; "
                                             "empty for none. Of what could be "
                                             "better its title, artist and length are sent there, and "
                                             "nothing else; no other service is "
                                             "ever asked."),
                                          tr("Set up"),
                                          {},
                                          shelf ? shown(*shelf) : QString(),
                                          true},
                                         this);
            connect(window, &AskWindow::answered, this, [this](const QString& address) {
                workbench().decide([address = address.trimmed().toStdString()](const Catalogue& catalogue) {
                    const auto fits = address.empty() ? done() : isShelfAddress(address);
                    return fits ? ServiceStore(catalogue).setAddress(ServiceKind::offerShelf, address) : fits;
                });
            });
            window->open();
        });
}

void ReplacementDesk::replace() {
    const auto* row = chosen();
    if (row == nullptr) {
        return;
    }
    const auto* candidate = chosenCandidate();
    if (candidate == nullptr && !row->candidates.empty()) {
        candidate = &row->candidates.front();
    }
    if (candidate == nullptr || candidate->unfit) {
        emit workbench().failed(candidate == nullptr ? tr("Nothing is known that could replace it.")
                                                     : tr("It does not fit: %1.").arg(reasonsOf(*candidate)));
        return;
    }
    auto* window = new ReplaceWindow(workbench(), *row, *candidate, this);
    connect(window, &ReplaceWindow::agreed, this,
            [this](const ReplaceRequest& request) { workbench().planReplacement(request); });
    window->open();
}

void ReplacementDesk::replaceAll() {
    auto rows = std::make_shared<std::vector<WantedRow>>();
    for (const auto& each : rows_->rows()) {
        const bool can = each.row.wanted.atHand && !each.waits &&
                         std::ranges::any_of(each.row.candidates, &Candidate::atHand);
        if (can) {
            rows->push_back(each.row);
        }
    }
    if (rows->empty()) {
        emit workbench().failed(tr("For nothing in the list a better one is at hand or on offer."));
        return;
    }
    QStringList lines;
    for (const auto& row : *rows) {
        const auto best = std::ranges::find_if(row.candidates, &Candidate::atHand);
        lines << tr("%1\n    by %2: %3")
                     .arg(shownPath(row.wanted.path), shownPath(best->path), reasonsOf(*best));
    }
    auto* box = new QMessageBox(
        QMessageBox::NoIcon, tr("Replace all that can be"),
        tr("%1 would go on the docket, each by its best candidate, with the tags that the old one has. What "
           "does "
           "not fit when it is laid over is left. Nothing changes before the docket is carried out.")
            .arg(told(counted(rows->size(), "replacement"))),
        QMessageBox::Cancel, this);
    box->setAttribute(Qt::WA_DeleteOnClose);
    box->setDetailedText(lines.join(QLatin1Char('\n')));
    auto* put = box->addButton(tr("Put on the docket"), QMessageBox::AcceptRole);
    connect(put, &QAbstractButton::clicked, this, [this, rows] { workbench().planAdvised(rows); });
    box->open();
}

void ReplacementDesk::keepAsItIs() {
    std::vector<DocketAction> actions;
    for (const auto& index : list_->selectionModel()->selectedRows()) {
        const auto& wanted = rows_->rows()[static_cast<std::size_t>(index.row())].row.wanted;
        DocketAction action;
        action.kind = ActionKind::accept;
        action.holding = wanted.holding.id;
        action.reason = "kept as it is";
        action.added = timeNow();
        actions.push_back(std::move(action));
    }
    if (!actions.empty()) {
        workbench().decide(
            [actions](const Catalogue& catalogue) { return DocketStore(catalogue).add(actions); });
    }
}

void ReplacementDesk::showAlone(const QString& text) {
    text_->setText(text);
}

} // namespace sober::app
