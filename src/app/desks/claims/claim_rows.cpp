#include "app/desks/claims/claim_rows.h"

#include "app/charts/trace_chart.h"
#include "app/desks/claims/claims_desk.h"
#include "app/words.h"
#include "core/catalogue/docket_store.h"
#include "core/catalogue/holdings.h"
#include "core/catalogue/volumes.h"

#include <algorithm>

namespace sober::app {

Result<std::vector<ClaimRow>> fetchClaimRows(const Catalogue& catalogue, std::span<const HoldingId> ids) {
    const EvidenceStore store(catalogue);
    auto holdings = Holdings(catalogue).byIds(ids);
    const auto volumes = Volumes(catalogue).all();
    const auto standing = DocketStore(catalogue).standing(ids);
    if (!holdings || !volumes || !standing) {
        return !holdings ? holdings.error() : !volumes ? volumes.error() : standing.error();
    }
    std::vector<ClaimRow> rows;
    for (auto& holding : *holdings) {
        ClaimRow row;
        if (const auto volume = std::ranges::find(*volumes, holding.volume, &Volume::id);
            volume != volumes->end()) {
            row.volume = numberedLabel(*volume);
            row.root = volume->root;
            row.atHand = volume->atHand;
        }
        auto evidence = store.of(holding.id);
        const auto accepted = store.acceptanceOf(holding.id);
        const auto better = store.betterThan(holding.id);
        if (!evidence || !accepted || !better) {
            return !evidence ? evidence.error() : !accepted ? accepted.error() : better.error();
        }
        row.evidence = std::move(*evidence);
        row.accepted = accepted->has_value();
        row.better = better->has_value();
        row.onDocket = std::ranges::find(*standing, holding.id) != standing->end();
        row.holding = std::move(holding);
        rows.push_back(std::move(row));
    }
    return rows;
}

std::vector<Column<ClaimRow>> claimColumns() {
    return {
        {ClaimsDesk::tr("Verdict"),
         [](const ClaimRow& row) {
             if (row.onDocket) {
                 return Cell{ClaimsDesk::tr("to accept"), Mark::accepted, false, false, {}};
             }
             if (row.accepted) {
                 return Cell{ClaimsDesk::tr("accepted"), Mark::accepted, false, true, {}};
             }
             if (!row.evidence) {
                 return Cell{ClaimsDesk::tr("not examined"), Mark::none, false, true, {}};
             }
             const auto verdict = row.evidence->verdict.verdict;
             return Cell{verdictWord(verdict), markOf(verdict), false, false, {}};
         }},
        {ClaimsDesk::tr("Title"),
         [](const ClaimRow& row) {
             const auto& title = row.holding.tags.title;
             return Cell{title.empty() ? shownPath(BytePath(nameOf(row.holding.path))) : shown(title),
                         Mark::none, false, false, shownPath(joinPath(row.root, row.holding.path))};
         }},
        {ClaimsDesk::tr("Claims"),
         [](const ClaimRow& row) {
             return Cell{claimWords(row.holding.claims), Mark::none, false, false, {}};
         }},
        {ClaimsDesk::tr("Reaches"),
         [](const ClaimRow& row) {
             const bool known = row.evidence && row.evidence->bandwidth;
             return Cell{known
                             ? ClaimsDesk::tr("%1 kHz").arg(figure(row.evidence->bandwidth->cutoff / 1000, 1))
                             : QString(),
                         Mark::none,
                         false,
                         false,
                         {}};
         },
         true},
        {ClaimsDesk::tr("Was"),
         [](const ClaimRow& row) {
             if (!row.evidence || row.evidence->verdict.sourceCodec.empty()) {
                 return Cell{};
             }
             const auto& verdict = row.evidence->verdict;
             const QString codec = codecName(verdict.sourceCodec);
             return Cell{verdict.sourceBitrate > 0
                             ? ClaimsDesk::tr("%1 %2").arg(codec).arg(verdict.sourceBitrate / 1000)
                             : codec,
                         Mark::none,
                         false,
                         false,
                         {}};
         }},
        {ClaimsDesk::tr("Better"),
         [](const ClaimRow& row) {
             return row.better ? Cell{ClaimsDesk::tr("elsewhere"), Mark::copies, false, false, {}} : Cell{};
         }},
        {ClaimsDesk::tr("Volume"), [](const ClaimRow& row) {
             return Cell{shown(row.volume) + (row.atHand ? QString() : ClaimsDesk::tr(" (away)")),
                         Mark::none,
                         false,
                         !row.atHand,
                         {}};
         }}};
}

} // namespace sober::app
