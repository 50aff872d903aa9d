#include "cli/replace_command.h"

#include "cli/answers.h"
#include "core/catalogue/service_store.h"
#include "core/intake/offer_shelf.h"
#include "core/transfer/layout.h"
#include "core/work/replace_holding.h"
#include "core/work/take_finds.h"

namespace sober::cli {
namespace {

Json candidateShape(const Candidate& candidate) {
    auto json = withPath(candidate.path);
    json["source"] = word(candidate.source);
    json["at_hand"] = candidate.atHand;
    json["cutoff_hz"] = candidate.cutoff ? Json(*candidate.cutoff) : Json();
    if (candidate.unfit) {
        json["reason"] = word(*candidate.unfit);
        json["detail"] = percentEncodeOffending(candidate.reasons.front());
    } else {
        json["reasons"] = Json::array();
        for (const auto& reason : candidate.reasons) {
            json["reasons"].push_back(percentEncodeOffending(reason));
        }
    }
    return json;
}

Json rowShape(const WantedRow& row) {
    auto json = withPath(row.wanted.path);
    json["why"] = percentEncodeOffending(std::string(word(*row.wanted.why)) + ": " + row.wanted.words);
    json["at_hand"] = row.wanted.atHand;
    json["candidates"] = Json::array();
    json["refused"] = Json::array();
    for (const auto& candidate : row.candidates) {
        json["candidates"].push_back(candidateShape(candidate));
    }
    for (const auto& candidate : row.refused) {
        json["refused"].push_back(candidateShape(candidate));
    }
    return json;
}

void sayRow(const WantedRow& row) {
    say("{}\n  {}: {}\n", displayPath(row.wanted.path), word(*row.wanted.why), row.wanted.words);
    for (const auto& candidate : row.candidates) {
        say("  better: {}{}\n", displayPath(candidate.path), candidate.atHand ? "" : " (away)");
        for (const auto& reason : candidate.reasons) {
            say("          {}\n", reason);
        }
    }
    for (const auto& candidate : row.refused) {
        say("  not:    {} ({}): {}\n", displayPath(candidate.path), word(*candidate.unfit),
            candidate.reasons.front());
    }
}

/// Said before anything is sent.
void sayWhatIsSent(const Catalogue& catalogue, std::size_t count) {
    const auto shelf = ServiceStore(catalogue).address(ServiceKind::offerShelf);
    if (shelf && *shelf && count > 0) {
        sayOn(stderr, "{} is asked for {}: their titles, artists and lengths are sent.\n", **shelf,
              counted(count, "recording"));
    }
}

Result<WantedLook> lookNow(const Catalogue& catalogue, bool quiet, RunControl& control) {
    const auto wanted = wantedHoldings(catalogue);
    RETURN_IF_FAILED(wanted);
    sayWhatIsSent(catalogue, wanted->size());
    ProgressLine line(quiet);
    auto look = lookForBetter(catalogue, *wanted, true, control, std::ref(line));
    if (look && !look->problem.empty()) {
        sayOn(stderr, "{}\n", look->problem);
    }
    return look;
}

int show(const CommonOptions& common, const CarriedOut& carried) {
    if (common.json) {
        printJson(carriedOutShape(carried));
    } else {
        say("{} replaced.\n", counted(carried.done, "holding was", "holdings were"));
    }
    for (const auto& refused : carried.refused) {
        sayOn(stderr, "{}: {}\n", displayPath(refused.path), refused.sentence);
    }
    return carried.interrupted                             ? exitInterrupted
           : !carried.refused.empty() && carried.done == 0 ? exitCouldNot
           : !carried.refused.empty()                      ? exitSomeUnread
                                                           : exitDone;
}

} // namespace

int runReplaceList(const CommonOptions& common, RunControl& control) {
    const auto catalogue = openWorking(common);
    const auto look =
        catalogue ? lookNow(*catalogue, common.quiet, control) : Result<WantedLook>(catalogue.error());
    if (!look) {
        return fail(look.error());
    }
    std::size_t better = 0;
    for (const auto& row : look->rows) {
        better += row.candidates.empty() ? 0 : 1;
    }
    if (common.json) {
        printJsonWithList({{"schema", "sober.replace/1"}}, "wanted", look->rows.size(),
                          [&](std::size_t i) { return rowShape(look->rows[i]); });
    } else {
        for (const auto& row : look->rows) {
            sayRow(row);
        }
        say("{} could be better; for {} something better is to be had.\n",
            counted(look->rows.size(), "holding"), humanCount(better));
    }
    return look->problem.empty() ? exitDone : exitSomeUnread;
}

int runReplace(const CommonOptions& common, const ReplaceOptions& options, RunControl& control) {
    if (const auto parsed = Layout::named(options.layout.empty() ? usualLayout : options.layout); !parsed) {
        sayOn(stderr, "{}\n", parsed.error().sentence);
        return exitUsage;
    }
    auto catalogue = openWorking(common);
    if (!catalogue) {
        return fail(catalogue.error());
    }
    ProgressLine line(common.quiet);
    CarryOutHooks hooks;
    hooks.onProgress = std::ref(line);
    const auto pathOf = [](const BytePath& path) { return isAddress(path) ? path : fromHere(path); };
    if (!options.advised) {
        const auto carried = replaceHolding(
            *catalogue,
            {fromHere(options.holding), pathOf(options.by), options.tags == "take", {}, options.layout},
            control, hooks);
        return carried ? show(common, *carried) : fail(carried.error());
    }
    const auto look = lookNow(*catalogue, common.quiet, control);
    if (!look) {
        return fail(look.error());
    }
    const auto carried = replaceAdvised(*catalogue, look->rows, options.tags == "take", control, hooks);
    return carried ? show(common, *carried) : fail(carried.error());
}

int runReplaceShelf(const CommonOptions& common, const std::string& address) {
    if (const auto fits = address.empty() ? done() : isShelfAddress(address); !fits) {
        sayOn(stderr, "{}\n", fits.error().sentence);
        return exitUsage;
    }
    const auto catalogue = openWorking(common);
    const auto set = catalogue ? ServiceStore(*catalogue).setAddress(ServiceKind::offerShelf, address)
                               : Outcome(catalogue.error());
    if (!set) {
        return fail(set.error());
    }
    if (!address.empty()) {
        sayOn(
            stderr,
            "From now on {} is asked for what could be better: titles, artists and lengths are sent, nothing "
            "else.\n",
            address);
    }
    return exitDone;
}

} // namespace sober::cli
