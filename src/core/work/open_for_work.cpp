#include "core/work/open_for_work.h"

#include "core/audit/refresh_findings.h"
#include "core/catalogue/catalogue_copy.h"
#include "core/catalogue/findings.h"
#include "core/catalogue/ledger_store.h"
#include "core/players/read_players.h"
#include "core/remedy/journal/current_places.h"
#include "core/remedy/journal/recovery.h"
#include "core/survey/volume_identity.h"

#include <algorithm>

namespace sober {
namespace {

Result<bool> lookForVolumesAndMark(const Catalogue& catalogue) {
    const auto changed = lookForVolumes(catalogue);
    const auto marked = changed && *changed ? Findings(catalogue).markStale() : done();
    return marked ? changed : Result<bool>(marked.error());
}

/// Where something was settled, the lists have to be known as they are.
Result<Recovered> recover(Catalogue& catalogue) {
    auto recovered = recoverInterrupted(catalogue);
    if (recovered && !recovered->settled.empty()) {
        RunControl control;
        RETURN_IF_FAILED(readPlayers(catalogue, control));
    }
    return recovered;
}

} // namespace

Result<std::vector<std::string>> waitingToBeSettled(const Catalogue& catalogue) {
    const auto unfinished = LedgerStore(catalogue).unfinished();
    RETURN_IF_FAILED(unfinished);
    std::vector<std::string> sentences;
    for (const auto& action : *unfinished) {
        const auto placed = asPlacedNow(catalogue, action);
        RETURN_IF_FAILED(placed);
        sentences.push_back(waitingSentence(*placed));
    }
    return sentences;
}

Result<OpenedForWork> openAndRecover(const BytePath& cataloguePath) {
    auto catalogue = Catalogue::openForWriting(cataloguePath);
    RETURN_IF_FAILED(catalogue);
    // Without anything to be settled the first screen does not wait for a look at all drives.
    const auto unfinished = LedgerStore(*catalogue).unfinished();
    const auto looked =
        unfinished && !unfinished->empty() ? lookForVolumesAndMark(*catalogue) : Result(false);
    if (!unfinished || !looked) {
        return unfinished ? looked.error() : unfinished.error();
    }
    auto recovered = recover(*catalogue);
    RETURN_IF_FAILED(recovered);
    return OpenedForWork{std::move(*catalogue), std::move(recovered->settled), std::move(recovered->waiting)};
}

Result<OpenedForWork> openForWork(const BytePath& cataloguePath) {
    auto opened = openAndRecover(cataloguePath);
    const auto looked = opened ? lookAgain(opened->catalogue) : Result<LookedAgain>(opened.error());
    RETURN_IF_FAILED(looked);
    std::ranges::copy(looked->recovered, std::back_inserter(opened->recovered));
    return opened;
}

Result<OpenedForWork> openToLook(const BytePath& cataloguePath) {
    auto catalogue = Catalogue::openForWriting(cataloguePath);
    RETURN_IF_FAILED(catalogue);
    const auto looked = lookForVolumesAndMark(*catalogue);
    const auto refreshed = looked ? refreshFindings(*catalogue) : Outcome(looked.error());
    auto waiting =
        refreshed ? waitingToBeSettled(*catalogue) : Result<std::vector<std::string>>(refreshed.error());
    return waiting ? Result<OpenedForWork>(OpenedForWork{std::move(*catalogue), {}, std::move(*waiting)})
                   : Result<OpenedForWork>(waiting.error());
}

Result<LookedAgain> lookAgain(Catalogue& catalogue) {
    const auto changed = lookForVolumesAndMark(catalogue);
    RETURN_IF_FAILED(changed);
    auto recovered = *changed ? recover(catalogue) : Result(Recovered{});
    const auto refreshed = recovered ? refreshFindings(catalogue) : Outcome(recovered.error());
    return refreshed ? Result(LookedAgain{*changed, std::move(recovered->settled)})
                     : Result<LookedAgain>(refreshed.error());
}

Result<BroughtBack> bringBack(Catalogue& catalogue, const BytePath& saved, RunControl& control,
                              const ProgressSink& onProgress) {
    auto kept = bringCatalogueBack(catalogue, saved, control, onProgress);
    RETURN_IF_FAILED(kept);
    const auto looked = lookForVolumesAndMark(catalogue);
    auto recovered = looked ? recover(catalogue) : Result<Recovered>(looked.error());
    const auto refreshed = recovered ? refreshFindings(catalogue) : Outcome(recovered.error());
    return refreshed ? Result(BroughtBack{std::move(*kept), std::move(recovered->settled)})
                     : Result<BroughtBack>(refreshed.error());
}

} // namespace sober
