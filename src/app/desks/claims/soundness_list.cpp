#include "app/desks/claims/soundness_list.h"

#include "app/desks/ledger/ledger_words.h"
#include "app/hand_focus_on.h"
#include "app/words.h"
#include "core/catalogue/docket_store.h"
#include "core/catalogue/evidence_store.h"
#include "core/catalogue/volumes.h"
#include "core/remedy/actions/rewrite.h"

#include <QVBoxLayout>

#include <algorithm>

namespace sober::app {
namespace {

/// Our words for the kinds of problems and remarks, by what they mean to a listener.
QString flawText(const std::string& kind) {
    static const std::array<std::pair<const char*, const char*>, 14> words{
        {{"truncated", QT_TRANSLATE_NOOP("sober::app::SoundnessList", "ends too early")},
         {"damaged", QT_TRANSLATE_NOOP("sober::app::SoundnessList", "damaged")},
         {"length-mismatch", QT_TRANSLATE_NOOP("sober::app::SoundnessList", "longer than it says")},
         {"checksum-mismatch", QT_TRANSLATE_NOOP("sober::app::SoundnessList", "not the samples it states")},
         {"junk", QT_TRANSLATE_NOOP("sober::app::SoundnessList", "junk beside the audio")},
         {"unstated-length", QT_TRANSLATE_NOOP("sober::app::SoundnessList", "states no length")},
         {"odd-length", QT_TRANSLATE_NOOP("sober::app::SoundnessList", "ends within a sample")},
         {"gapless", QT_TRANSLATE_NOOP("sober::app::SoundnessList", "wrong about its ends")},
         {"silence", QT_TRANSLATE_NOOP("sober::app::SoundnessList", "silent")},
         {"clipped", QT_TRANSLATE_NOOP("sober::app::SoundnessList", "clipped")},
         {"dropout", QT_TRANSLATE_NOOP("sober::app::SoundnessList", "drops out")},
         {"stuck", QT_TRANSLATE_NOOP("sober::app::SoundnessList", "stands still")},
         {"odd-bits", QT_TRANSLATE_NOOP("sober::app::SoundnessList", "bits changed, perhaps")},
         {"form-changes", QT_TRANSLATE_NOOP("sober::app::SoundnessList", "changes its form")}}};
    const auto found = std::ranges::find_if(words, [&](const auto& word) { return kind == word.first; });
    return found != words.end() ? SoundnessList::tr(found->second) : told(kind);
}

const DecodeProblem& firstOf(const Evidence& evidence) {
    return evidence.problems.empty() ? evidence.remarks.front() : evidence.problems.front();
}

std::size_t countOf(const Evidence& evidence) {
    return evidence.problems.size() + evidence.remarks.size();
}

} // namespace

SoundnessList::SoundnessList(Workbench& workbench, QWidget* parent)
    : QWidget(parent),
      model_(new IdListModel<Row>(workbench, columns(), &SoundnessList::fetchRows, this)),
      list_(new ListView(tr("Holdings that were never sound"), this)) {
    auto* layout = new QVBoxLayout(this);
    layout->setContentsMargins(0, 0, 0, 0);
    layout->addWidget(list_);
    list_->setModel(model_);
    list_->setEmptyText(tr("Nothing unsound is known. Only what was examined at full effort can be told."));
    list_->setWidths({170, 104, 350, 70, 50, 110}, 2);
    handFocusOn(this, list_);
    connect(list_->selectionModel(), &QItemSelectionModel::currentRowChanged, this,
            &SoundnessList::currentChanged);
    connect(model_, &QAbstractItemModel::dataChanged, this, &SoundnessList::currentChanged);
}

std::vector<Column<SoundnessList::Row>> SoundnessList::columns() {
    return {{tr("What is wrong"),
             [](const Row& row) {
                 const auto& first = firstOf(row.evidence);
                 return Cell{flawText(first.kind), row.evidence.sound() ? Mark::doubtful : Mark::damaged,
                             false, false, told(first.detail)};
             }},
            {tr("Volume"),
             [](const Row& row) {
                 return Cell{shown(row.volume) + (row.atHand ? QString() : tr(" (away)")),
                             Mark::none,
                             false,
                             !row.atHand,
                             {}};
             }},
            {tr("File"),
             [](const Row& row) {
                 return Cell{shownPath(row.holding.path), Mark::none, true, false, shownPath(row.path)};
             }},
            {tr("At"),
             [](const Row& row) {
                 return Cell{told(humanSeconds(firstOf(row.evidence).at)), Mark::none, false, false, {}};
             },
             true},
            {tr("In all"),
             [](const Row& row) {
                 return Cell{told(humanCount(countOf(row.evidence))), Mark::none, false, false, {}};
             },
             true},
            {tr("On the docket"), [](const Row& row) {
                 return Cell{kindText(row.waiting), Mark::none, false, false, {}};
             }}};
}

void SoundnessList::setIds(std::vector<HoldingId> ids) {
    const int row = list_->currentRow();
    model_->setIds(std::move(ids));
    if (!model_->ids().empty()) {
        list_->selectRow(std::clamp(row, 0, static_cast<int>(model_->ids().size()) - 1));
    }
}

QString SoundnessList::currentText() const {
    constexpr std::size_t most = 8; // lines
    const int at = list_->currentRow();
    const auto* row = at >= 0 ? model_->row(at) : nullptr;
    if (row == nullptr) {
        return {};
    }
    QStringList lines;
    for (const auto* notes : {&row->evidence.problems, &row->evidence.remarks}) {
        for (const auto& note : *notes) {
            if (static_cast<std::size_t>(lines.size()) == most) {
                lines << tr("and %1 more").arg(countOf(row->evidence) - most);
                return lines.join(QLatin1Char('\n'));
            }
            lines << tr("%1 at %2: %3")
                         .arg(flawText(note.kind), told(humanSeconds(note.at)), told(note.detail));
        }
    }
    return lines.join(QLatin1Char('\n'));
}

std::vector<HoldingId> SoundnessList::selected() const {
    std::vector<HoldingId> ids;
    for (const auto& index : list_->selectionModel()->selectedRows()) {
        ids.push_back(model_->ids()[static_cast<std::size_t>(index.row())]);
    }
    return ids;
}

std::vector<HoldingId> SoundnessList::rewritable() const {
    std::vector<HoldingId> ids;
    for (const auto& index : list_->selectionModel()->selectedRows()) {
        const auto* row = model_->row(index.row());
        if (row != nullptr && canBeRewritten(row->holding.claims, row->evidence)) {
            ids.push_back(row->holding.id);
        }
    }
    return ids;
}

Result<std::vector<SoundnessList::Row>> SoundnessList::fetchRows(const Catalogue& catalogue,
                                                                 std::span<const HoldingId> ids) {
    auto holdings = Holdings(catalogue).byIds(ids);
    const auto volumes = Volumes(catalogue).all();
    if (!holdings || !volumes) {
        return holdings ? volumes.error() : holdings.error();
    }
    std::vector<Row> rows;
    for (auto& holding : *holdings) {
        auto evidence = EvidenceStore(catalogue).of(holding.id);
        RETURN_IF_FAILED(evidence);
        const auto waiting = DocketStore(catalogue).kindFor(holding.id);
        RETURN_IF_FAILED(waiting);
        Row row;
        row.evidence = *evidence ? std::move(**evidence) : Evidence{};
        if (countOf(row.evidence) == 0) {
            row.evidence.remarks.push_back({"", 0, {}}); // examined anew since it was listed
        }
        const auto volume = std::ranges::find(*volumes, holding.volume, &Volume::id);
        if (volume != volumes->end()) {
            row.volume = numberedLabel(*volume);
            row.atHand = volume->atHand;
            row.path = joinPath(volume->root, holding.path);
        }
        row.waiting = *waiting;
        row.holding = std::move(holding);
        rows.push_back(std::move(row));
    }
    return rows;
}

} // namespace sober::app
