#include "app/desks/whereabouts/relink_panel.h"

#include "app/ask_path.h"
#include "app/desks/ask_window.h"
#include "app/hand_focus_on.h"
#include "app/words.h"
#include "app/wrap_label.h"
#include "app/wrap_row.h"
#include "core/audit/plan_places.h"
#include "core/catalogue/docket_store.h"
#include "core/remedy/docket/review.h"

#include <QHBoxLayout>
#include <QLabel>
#include <QPushButton>
#include <QVBoxLayout>

#include <algorithm>

namespace sober::app {
namespace {

/// Ribbons that are no rule.
enum OtherRibbon { singleFiles = -1, toBeAsked = -2, notFound = -3 };

QString percent(double confidence) {
    return RelinkPanel::tr("%1 %").arg(qRound(confidence * 100));
}

/// What happened to a rule's folder, after the words for where it is now.
QString toText(const RelinkRule& rule, QString text) {
    // That folders went into the names says so already.
    const bool isHeap = rule.kind == RelinkRuleKind::flattened && rule.naming.foldersUsed() == 0;
    text += isHeap                                      ? RelinkPanel::tr(", all in one folder")
            : rule.kind == RelinkRuleKind::sortedByTags ? RelinkPanel::tr(", sorted by tags")
            : rule.kind == RelinkRuleKind::spelling     ? RelinkPanel::tr(", spelled otherwise")
                                                        : QString();
    if (!rule.naming.isKept()) {
        text += QStringLiteral(", ") + told(wordsOf(rule.naming));
    }
    return rule.toEnding.empty()
               ? text
               : RelinkPanel::tr("%1, .%2 to .%3").arg(text, shown(rule.fromEnding), shown(rule.toEnding));
}

} // namespace

RelinkPanel::RelinkPanel(Workbench& workbench, QWidget* parent)
    : QWidget(parent),
      workbench_(workbench),
      figures_(new WrapLabel(this)),
      ribbons_(new RibbonChart({tr("Broken references from where they lead to where their files are now"),
                                tr("references lead to"), tr("and their files are in"), tr("not found"),
                                tr("No reference of any player is known to be broken."), tr("%1 below %2")},
                               this)),
      shown_(quietLabel({}, this)),
      detail_(new LostPlaceDetail([this](const BytePath& path) { return known_.placeText(path); }, this)) {
    figures_->setAccessibleName(tr("References of each player"));
    figures_->setWordWrap(true);
    auto* layout = new QVBoxLayout(this);
    layout->setContentsMargins(0, 0, 0, 0);
    layout->setSpacing(8);
    layout->addWidget(figures_);
    layout->addWidget(ribbons_);
    layout->addWidget(makeButtons());

    std::vector<Column<PlaceRow>> columns{
        {tr("State"),
         [](const PlaceRow& row) {
             return row.waiting == ActionKind::repoint ? Cell{tr("to repoint"), Mark::moved, false, false, {}}
                    : row.waiting == ActionKind::writeOff
                        ? Cell{tr("to write off"), Mark::writeOff, false, false, {}}
                    : row.link      ? Cell{tr("found"), Mark::moved, false, false, {}}
                    : row.choice    ? Cell{tr("asked"), Mark::doubtful, false, false, {}}
                    : row.lookedFor ? Cell{tr("looked for"), Mark::none, false, true, {}}
                                    : Cell{tr("not found"), Mark::missing, false, false, told(row.reason)};
         }},
        {tr("References lead to"),
         [this](const PlaceRow& row) {
             return Cell{known_.placeText(row.path), Mark::none, true, false, shownPath(row.path)};
         }},
        {tr("The file is at"),
         [this](const PlaceRow& row) {
             return row.choice
                        ? Cell{tr("%1").arg(told(
                                   counted(found_->ambiguous[*row.choice].candidates.size(), "candidate"))),
                               Mark::none,
                               false,
                               true,
                               {}}
                        : Cell{known_.placeText(row.target), Mark::none, true, false, shownPath(row.target)};
         }},
        {tr("Sure"),
         [](const PlaceRow& row) {
             return Cell{row.link ? percent(row.confidence) : QString(), Mark::none, false, false, {}};
         },
         true}};
    places_ = new RowListModel<PlaceRow>(
        std::move(columns), [](const PlaceRow& row) { return row.path; }, this);
    placeList_ = new ListView(tr("Places that references lead to"), this);
    placeList_->setModel(places_);
    placeList_->setWidths({108, 220, 200, 64}, 1);
    placeList_->setEmptyText(
        tr("No reference is broken. Take a player's lists in (N), and what they point at is watched."));
    auto* row = new QHBoxLayout;
    row->setSpacing(16);
    row->addWidget(placeList_, 1);
    row->addWidget(detail_);
    layout->addLayout(row, 1);
    handFocusOn(this, placeList_);

    connect(placeList_->selectionModel(), &QItemSelectionModel::currentRowChanged, this,
            [this] { showDetail(); });
    connect(placeList_->selectionModel(), &QItemSelectionModel::selectionChanged, this,
            [this] { showDetail(); });
    connect(places_, &QAbstractItemModel::dataChanged, this, [this] { showDetail(); });
    connect(ribbons_, &RibbonChart::ribbonClicked, this, [this](int ribbon) {
        ribbons_->setChosen(ribbon == ribbons_->chosen() ? -1 : ribbon);
        showPlaces();
    });
    connect(detail_, &LostPlaceDetail::chosen, this, [this](const BytePath& lost, const BytePath& file) {
        request_.examples.push_back({lost, file});
        search();
    });
    connect(&workbench_, &Workbench::relinked, this, &RelinkPanel::show);
}

QWidget* RelinkPanel::makeButtons() {
    auto* room = new QWidget(this);
    auto* row = new WrapRow(room);
    row->setContentsMargins(0, 0, 0, 0);
    row->setSpacing(8);
    const auto add = [&](const QString& text, Qt::Key key, const QString& tip, auto work) {
        auto* button = keyButton(text, QKeySequence(key), this);
        button->setToolTip(tip);
        connect(button, &QPushButton::clicked, this, work);
        row->addWidget(button);
        return button;
    };
    row->addWidget(shown_, 1);
    add(tr("Take a player in…"), Qt::Key_N, tr("Read the lists of another player: a folder that holds them"),
        [this] {
            askForFolder(this, tr("A folder with a player's lists"), [this](const BytePath& folder) {
                Player player;
                player.places = {folder};
                workbench_.takeInPlayer(player);
            });
        });
    add(tr("Look in…"), Qt::Key_L, tr("Look for the lost in a folder that is not catalogued"), [this] {
        askForFolder(this, tr("Look for the lost in a folder"), [this](const BytePath& folder) {
            request_.near.push_back(folder);
            search();
        });
    });
    add(tr("It is here…"), Qt::Key_E,
        tr("Show one file; the rest of its folder tree follows by the same rule"), [this] { example(); });
    off_ = add(tr("Rule off"), Qt::Key_O, tr("Do not use the chosen rule, or use it again"),
               [this] { switchRule(); });
    add(tr("Write off"), Qt::Key_W, tr("Accept that the selected are gone: they are not shown again"),
        [this] { writeOff(); });
    add(tr("Wait"), Qt::Key_A, tr("Take the selected off the docket"), [this] { wait(); });
    put_ = add(tr("Repoint"), Qt::Key_R,
               tr("Put all links that are shown on the docket, for all players at once"),
               [this] { putLinks(); });
    put_->setProperty("weight", "main");
    return room;
}

void RelinkPanel::reload() {
    workbench_.ask<RelinkKnown>(this, &relinkKnown, [this](const RelinkKnown& known) {
        known_ = known;
        search();
    });
}

void RelinkPanel::reloadDecisions() {
    workbench_.ask<RelinkKnown>(this, &relinkKnown, [this](const RelinkKnown& known) {
        known_ = known;
        showPlaces();
        showFigures();
    });
}

void RelinkPanel::search() {
    if (!known_.players.empty()) {
        shown_->setText(tr("Looking for the lost …"));
        workbench_.relink(request_);
        showFirst();
    } else {
        show(std::make_shared<Relinking>());
        emit nothingKnown();
    }
}

/// What is lost, while it is looked for; what was found before stays until there is better.
void RelinkPanel::showFirst() {
    if (isThrough_) {
        return;
    }
    workbench_.ask<std::shared_ptr<const Relinking>>(
        this,
        [](const Catalogue& catalogue) -> Result<std::shared_ptr<const Relinking>> {
            auto lost = whatIsLost(catalogue);
            return lost ? Result<std::shared_ptr<const Relinking>>(
                              std::make_shared<Relinking>(std::move(*lost)))
                        : lost.error();
        },
        [this](const std::shared_ptr<const Relinking>& lost) {
            if (!isThrough_) {
                found_ = lost;
                showRibbons();
                showPlaces();
                showFigures();
                shown_->setText(tr("Looking for the lost …"));
            }
        });
}

void RelinkPanel::show(const std::shared_ptr<const Relinking>& found) {
    found_ = found;
    isThrough_ = true;
    showRibbons();
    showPlaces();
    showFigures();
}

void RelinkPanel::showRibbons() {
    std::vector<Ribbon> ribbons;
    ribbonRules_.clear();
    const auto add = [&](Ribbon ribbon, int rule) {
        if (ribbon.count > 0) {
            ribbons.push_back(std::move(ribbon));
            ribbonRules_.push_back(rule);
        }
    };
    constexpr std::size_t mostRules = 5;
    for (std::size_t i = 0; i < std::min(found_->rules.size(), mostRules); ++i) {
        const auto& rule = found_->rules[i];
        add({known_.placeText(rule.from), toText(rule, known_.placeText(rule.to)), rule.count, false, false,
             tr("%1 sure, by %2").arg(percent(rule.confidence), told(rule.grounds))},
            static_cast<int>(i));
    }
    for (std::size_t i = 0; i < request_.switchedOff.size(); ++i) {
        const auto& rule = request_.switchedOff[i];
        add({known_.placeText(rule.from), toText(rule, known_.placeText(rule.to)), rule.count, true, false,
             tr("switched off by you")},
            static_cast<int>(found_->rules.size() + i));
    }
    const auto singles = static_cast<std::uint64_t>(std::ranges::count_if(
        found_->links, [](const RelinkLink& link) { return !link.rule || *link.rule >= mostRules; }));
    add({tr("single files, smaller rules"), tr("other places, one by one"), singles, false, false, {}},
        singleFiles);
    add({tr("several candidates, or not sure"),
         tr("for you to say"),
         found_->ambiguous.size(),
         false,
         true,
         {}},
        toBeAsked);
    if (isThrough_) {
        add({tr("nothing that would fit"), {}, found_->unresolved.size(), false, false, {}}, notFound);
    } else {
        add({tr("being looked for"), tr("to be seen"), found_->unresolved.size(), false, true, {}}, notFound);
    }
    ribbons_->setRibbons(std::move(ribbons));
}

void RelinkPanel::showPlaces() {
    if (!found_) {
        return;
    }
    const int ribbon = ribbons_->chosen();
    const int wanted = ribbon >= 0 ? ribbonRules_[static_cast<std::size_t>(ribbon)] : -100;
    constexpr int any = -100;
    std::vector<PlaceRow> rows;
    const auto add = [&](std::size_t lost) -> PlaceRow& {
        const auto& place = found_->lost[lost];
        PlaceRow row;
        row.lost = lost;
        row.path = place.path;
        row.references = place.references;
        const auto waiting = known_.waiting.find(place.path);
        row.waiting = waiting != known_.waiting.end() ? std::optional(waiting->second) : std::nullopt;
        rows.push_back(std::move(row));
        return rows.back();
    };
    for (std::size_t i = 0; i < found_->ambiguous.size(); ++i) {
        if (wanted == any || wanted == toBeAsked) {
            add(found_->ambiguous[i].lost).choice = i;
        }
    }
    for (const auto& each : found_->unresolved) {
        if (wanted == any || wanted == notFound) {
            auto& row = add(each.lost);
            row.reason = each.reason;
            row.lookedFor = !isThrough_;
        }
    }
    for (std::size_t i = 0; i < found_->links.size(); ++i) {
        const auto& link = found_->links[i];
        const bool hasRibbon =
            link.rule && std::ranges::find(ribbonRules_, static_cast<int>(*link.rule)) != ribbonRules_.end();
        if (wanted == any || (hasRibbon ? wanted == static_cast<int>(*link.rule) : wanted == singleFiles)) {
            auto& row = add(link.lost);
            row.link = i;
            row.target = link.target;
            row.confidence = link.confidence;
        }
    }
    const bool isRule = wanted >= 0;
    const auto isOff = isRule && static_cast<std::size_t>(wanted) >= found_->rules.size();
    off_->setEnabled(isRule);
    off_->setText(tr("%1   O").arg(isOff ? tr("Rule on") : tr("Rule off")));
    const auto count = told(counted(rows.size(), "place"));
    const auto* rule = isRule && !isOff ? &found_->rules[static_cast<std::size_t>(wanted)] : nullptr;
    shown_->setText(wanted == any     ? tr("All places: choose a ribbon to look into it")
                    : isOff           ? tr("This rule is not used")
                    : rule != nullptr ? tr("%1 by this rule, %2 sure").arg(count, percent(rule->confidence))
                                      : tr("Of the chosen ribbon: %1").arg(count));
    shown_->setToolTip(rule != nullptr ? tr("Inferred from %1").arg(told(rule->grounds)) : QString());
    const int row = placeList_->currentRow();
    const bool waits =
        std::ranges::all_of(rows, [](const PlaceRow& each) { return !each.link || each.waiting; });
    put_->setEnabled(!waits);
    places_->setRows(std::move(rows));
    if (!places_->rows().empty()) {
        placeList_->selectRow(std::clamp(row, 0, static_cast<int>(places_->rows().size()) - 1));
    }
    showDetail();
}

void RelinkPanel::showFigures() {
    if (!found_) {
        return;
    }
    const auto words = known_.figureWords(*found_);
    figures_->setText(words.isEmpty()
                          ? tr("No player is known yet. Take its lists in with N: a folder that holds "
                               "M3U, PLS or XSPF lists or cue sheets.")
                          : words.join(QStringLiteral("   ·   ")));
}

const PlaceRow* RelinkPanel::current() const {
    const int row = placeList_->currentRow();
    return row >= 0 && row < static_cast<int>(places_->rows().size())
               ? &places_->rows()[static_cast<std::size_t>(row)]
               : nullptr;
}

void RelinkPanel::showDetail() {
    detail_->show(current(), found_, known_);
}

std::vector<PlaceRow> RelinkPanel::selected() const {
    std::vector<PlaceRow> rows;
    for (const auto& index : placeList_->selectionModel()->selectedRows()) {
        rows.push_back(places_->rows()[static_cast<std::size_t>(index.row())]);
    }
    return rows;
}

void RelinkPanel::switchRule() {
    const int ribbon = ribbons_->chosen();
    const int rule = ribbon >= 0 ? ribbonRules_[static_cast<std::size_t>(ribbon)] : -1;
    if (rule < 0) {
        return;
    }
    const auto at = static_cast<std::size_t>(rule);
    if (at < found_->rules.size()) {
        request_.switchedOff.push_back(found_->rules[at]);
    } else {
        request_.switchedOff.erase(request_.switchedOff.begin() +
                                   static_cast<std::ptrdiff_t>(at - found_->rules.size()));
    }
    ribbons_->setChosen(-1);
    search();
}

void RelinkPanel::example() {
    const auto* row = current();
    if (row == nullptr) {
        return;
    }
    askForFile(this, tr("Where %1 is now").arg(shownPath(BytePath(nameOf(row->path)))), {},
               [this, lost = row->path](const BytePath& file) {
                   request_.examples.push_back({lost, file});
                   search();
               });
}

/// All links that the list shows: of the chosen ribbon, or all.
void RelinkPanel::putLinks() {
    std::vector<RelinkLink> links;
    for (const auto& row : places_->rows()) {
        if (row.link && !row.waiting) {
            links.push_back(found_->links[*row.link]);
        }
    }
    workbench_.decide(
        [found = found_, links](const Catalogue& catalogue) { return planLinks(catalogue, *found, links); });
}

void RelinkPanel::writeOff() {
    workbench_.decide([rows = selected()](const Catalogue& catalogue) {
        for (const auto& row : rows) {
            if (const auto planned = planWriteOffPlace(catalogue, row.path, "not missed"); !planned) {
                return planned;
            }
        }
        return done();
    });
}

void RelinkPanel::wait() {
    std::vector<BytePath> places;
    for (const auto& row : selected()) {
        places.push_back(row.path);
    }
    workbench_.decide(
        [places](const Catalogue& catalogue) { return DocketStore(catalogue).removePlaces(places); });
}

} // namespace sober::app
