#include "cli/commands.h"

#include "cli/answers.h"
#include "cli/json_shapes.h"
#include "core/audit/match_recordings.h"
#include "core/audit/refresh_findings.h"
#include "core/audit/set_choice.h"
#include "core/audit/tag_takeover.h"
#include "core/base/text.h"
#include "core/catalogue/fixity_store.h"
#include "core/catalogue/holdings.h"
#include "core/catalogue/volumes.h"
#include "core/exchange/premis.h"
#include "core/players/read_players.h"
#include "core/remedy/plan_places.h"
#include "core/remedy/undo.h"

#include <fmt/format.h>

#include <algorithm>
#include <charconv>
#include <cstdio>
#include <unistd.h>

namespace sober::cli {
namespace {

void printSurvey(const SurveyReport& report) {
    fmt::print(
        "{}: {} ({} added, {} changed, {} moved, {} returned, {} unchanged), {} missing; {} read in {}\n",
        report.label, counted(report.seen, "holding"), humanCount(report.added), humanCount(report.changed),
        humanCount(report.moved), humanCount(report.returned), humanCount(report.unchanged),
        humanCount(report.missing), humanBytes(report.bytesRead), humanSeconds(report.seconds));
}

/// One report over several volumes, for the one JSON document of one command.
SurveyReport combined(const std::vector<SurveyReport>& reports) {
    SurveyReport all = reports.front();
    for (std::size_t i = 1; i < reports.size(); ++i) {
        const auto& report = reports[i];
        all.label += ", " + report.label;
        all.seen += report.seen;
        all.added += report.added;
        all.changed += report.changed;
        all.unchanged += report.unchanged;
        all.missing += report.missing;
        all.moved += report.moved;
        all.returned += report.returned;
        all.passedOver += report.passedOver;
        all.bytesRead += report.bytesRead;
        all.seconds += report.seconds;
        all.interrupted = all.interrupted || report.interrupted;
        all.errors.insert(all.errors.end(), report.errors.begin(), report.errors.end());
    }
    return all;
}

Json surveysShape(const std::vector<SurveyReport>& reports) {
    Json json = surveyShape(combined(reports));
    if (reports.size() > 1) {
        Json each = Json::array();
        for (const auto& report : reports) {
            each.push_back(surveyShape(report));
        }
        json["volumes"] = std::move(each);
    }
    return json;
}

Result<std::vector<SetDetail>> allSets(const Catalogue& catalogue, const std::vector<Volume>& volumes,
                                       std::optional<Sameness> sameness) {
    const Findings findings(catalogue);
    SetFilter filter;
    filter.sameness = sameness;
    const auto ids = findings.setOrder(SetOrder::mostBytes, filter);
    if (!ids) {
        return ids.error();
    }
    const auto sets = findings.sets(*ids);
    if (!sets) {
        return sets.error();
    }
    std::vector<SetDetail> shown;
    for (const auto& set : *sets) {
        auto detail = detailOf(catalogue, set, volumes);
        if (!detail) {
            return detail.error();
        }
        shown.push_back(std::move(*detail));
    }
    return shown;
}

void printDocket(const DocketReview& review) {
    if (review.actions.empty()) {
        fmt::print("The docket is empty.\n");
        return;
    }
    for (const auto& planned : review.actions) {
        fmt::print("{:>5}  {:<9}  {}\n", planned.action.id, planned.action.kind, displayPath(planned.path));
        if (!planned.target.empty()) {
            fmt::print("       to {}{}\n", displayPath(planned.target),
                       planned.references > 0 ? ", with " + counted(planned.references, "reference") : "");
        }
        if (planned.refused) {
            fmt::print("       refused: {}\n", *planned.refused);
        }
    }
    fmt::print(
        "{}, {} refused, {} freed once the trash is emptied, {} taken along. Nothing has changed yet.\n",
        counted(review.actions.size(), "action waits", "actions wait"), humanCount(review.refused),
        humanBytes(review.frees), counted(review.references, "reference"));
}

int showDocket(const CommonOptions& common, const Catalogue& catalogue) {
    const auto review = reviewDocket(catalogue);
    if (!review) {
        return fail(review.error());
    }
    if (common.json) {
        printJson(docketShape(*review));
    } else {
        printDocket(*review);
    }
    return exitDone;
}

int showCarriedOut(const CommonOptions& common, const CarriedOut& carried, std::string_view verb) {
    if (common.json) {
        printJson(carriedOutShape(carried));
    } else {
        fmt::print("{} {}, {} refused.\n", counted(carried.done, "action"), verb,
                   humanCount(carried.refused.size()));
        if (carried.references > 0) {
            fmt::print("{} of players taken along.\n", counted(carried.references, "reference"));
        }
    }
    for (const auto& refused : carried.refused) {
        fmt::print(stderr, "{}: {}\n", displayPath(refused.path), refused.sentence);
    }
    if (carried.interrupted) {
        return exitInterrupted;
    }
    return carried.refused.empty() ? exitDone : carried.done > 0 ? exitSomeUnread : exitCouldNot;
}

/// The catalogued holding at a path that the user names.
Result<Holding> holdingAt(const Catalogue& catalogue, const std::vector<Volume>& volumes,
                          const BytePath& given) {
    const auto lexical = placeOf(given).value_or(given);
    const Volume* best = nullptr;
    for (const auto& volume : volumes) {
        if (isWithin(lexical, volume.root) &&
            (best == nullptr || volume.root.size() > best->root.size() || (volume.atHand && !best->atHand))) {
            best = &volume;
        }
    }
    if (best != nullptr) {
        auto holding = Holdings(catalogue).at(best->id, *relativeTo(lexical, best->root));
        if (!holding) {
            return holding.error();
        }
        if (*holding) {
            return std::move(**holding);
        }
    }
    return Error{Cause::notFound, given, displayPath(given) + " is not in the catalogue."};
}

Outcome addSuggested(const Catalogue& catalogue, const std::string& name, RunControl& control) {
    Policy policy;
    if (!name.empty()) {
        const auto kept = Policies(catalogue).named(name);
        if (!kept) {
            return kept.error();
        }
        if (!*kept) {
            return Error{Cause::notFound, {}, "There is no policy named \"" + name + "\"."};
        }
        policy = **kept;
    }
    const auto ids = Findings(catalogue).setOrder(SetOrder::mostBytes, {});
    if (!ids) {
        return ids.error();
    }
    const auto preview = previewPolicy(catalogue, *ids, policy, control);
    return preview ? applyPreview(catalogue, *preview) : Outcome(preview.error());
}

Outcome addRetag(const Catalogue& catalogue, const BytePath& file, const std::vector<BytePath>& others) {
    const auto volumes = Volumes(catalogue).all();
    if (!volumes) {
        return volumes.error();
    }
    const auto holding = holdingAt(catalogue, *volumes, file);
    const auto own = readTagFields(file);
    if (!holding || !own) {
        return holding ? own.error() : holding.error();
    }
    std::vector<TagFields> theirs;
    std::string from;
    for (const auto& other : others) {
        auto read = readTagFields(other);
        if (!read) {
            return read.error();
        }
        theirs.push_back(std::move(*read));
        from += (from.empty() ? "" : ", ") + displayPath(other);
    }
    const auto change = agreedChange(takeoverOf(*own, theirs));
    if (change.isEmpty()) {
        return Error{Cause::invalid, file, displayPath(file) + " lacks nothing on which the others agree."};
    }
    return planRetag(catalogue, holding->id, change, from);
}

Outcome addPaths(const Catalogue& catalogue, const std::string& kind, const std::vector<BytePath>& paths,
                 const std::string& reason) {
    const auto volumes = Volumes(catalogue).all();
    if (!volumes) {
        return volumes.error();
    }
    std::vector<DocketAction> actions;
    for (const auto& path : paths) {
        const auto holding = holdingAt(catalogue, *volumes, path);
        if (!holding && kind == writeOffKind && holding.error().cause == Cause::notFound) {
            if (const auto planned = planWriteOffPlace(catalogue, path, reason); !planned) {
                return planned.error().cause == Cause::invalid ? holding.error() : planned.error();
            }
            continue;
        }
        if (!holding) {
            return holding.error();
        }
        const auto wanted = kind == writeOffKind ? HoldingState::missing : HoldingState::present;
        const bool bringsBack = kind == restoreKind && holding->state == HoldingState::missing;
        if (holding->state != wanted && !bringsBack) {
            return Error{Cause::invalid, path,
                         displayPath(path) + (kind == writeOffKind
                                                  ? " is not missing: there is nothing to write off."
                                                  : " is not there any more.")};
        }
        const auto drift = FixityStore(catalogue).of(holding->id);
        if (!drift) {
            return drift.error();
        }
        const bool drifted = *drift && (*drift)->accepted == 0;
        // What is as it was recorded can still be repaired of junk, and accepted as the evidence shows it.
        const auto meant = kind == acceptKind && drifted    ? std::string(acceptChangeKind)
                           : kind == repairKind && !drifted ? std::string(rewriteKind)
                                                            : kind;
        actions.push_back({0, meant, holding->id, reason, timeNow()});
    }
    return DocketStore(catalogue).add(actions);
}

Outcome addWithTarget(const Catalogue& catalogue, const std::string& kind, const std::vector<BytePath>& paths,
                      const BytePath& target, const std::string& reason) {
    for (const auto& path : paths) {
        const auto planned = kind == moveKind ? planMove(catalogue, path, target, reason)
                                              : planRepoint(catalogue, path, target, reason);
        if (!planned) {
            return planned;
        }
    }
    return done();
}

} // namespace

int runSurvey(const CommonOptions& common, const SurveyOptions& options, RunControl& control) {
    auto catalogue = openWorking(common);
    if (!catalogue) {
        return fail(catalogue.error());
    }
    std::vector<SurveyReport> reports;
    std::optional<Error> failure;
    for (const auto& path : options.paths) {
        ProgressLine line(common.quiet);
        auto report = surveyVolume(*catalogue, {path, options.label, options.choices, options.effort},
                                   control, [&](const Progress& progress) { line(progress); });
        if (!report) {
            failure = report.error();
            break;
        }
        reports.push_back(std::move(*report));
        if (reports.back().interrupted) {
            break;
        }
    }
    const auto all = reports.empty() ? SurveyReport{} : combined(reports);
    bool interrupted = all.interrupted;
    if (!failure && !interrupted && all.bytesRead > 0) {
        ProgressLine line(common.quiet);
        const auto matched =
            matchRecordings(*catalogue, control, [&](const Progress& progress) { line(progress); });
        interrupted = matched && matched->interrupted;
        if (!matched) {
            failure = matched.error();
        }
    }
    if (const auto refreshed = refreshFindings(*catalogue); !refreshed && !failure) {
        failure = refreshed.error();
    }
    if (const auto read = readPlayers(*catalogue, control); !read && !failure) {
        failure = read.error();
    }
    if (failure && reports.empty()) {
        return fail(*failure);
    }
    if (common.json) {
        printJson(surveysShape(reports));
    } else {
        std::ranges::for_each(reports, printSurvey);
    }
    printErrors(all.errors);
    if (failure) {
        return fail(*failure);
    }
    return interrupted ? exitInterrupted : all.errors.empty() ? exitDone : exitSomeUnread;
}

int runCondition(const CommonOptions& common) {
    const auto catalogue = openLooking(common);
    if (!catalogue) {
        return fail(catalogue.error());
    }
    const auto condition = conditionOf(*catalogue);
    if (!condition) {
        return fail(condition.error());
    }
    if (common.json) {
        printJson(conditionShape(*condition));
        return exitDone;
    }
    for (std::size_t i = 0; i < condition->volumes.size(); ++i) {
        const auto& volume = condition->volumes[i];
        const auto& figures = condition->figures[i];
        fmt::print("{:<12} {:<8} {:>16}, {:>9}, {} missing\n", volume.label,
                   volume.atHand ? "at hand" : "away", counted(figures.holdings, "holding"),
                   humanBytes(figures.bytes), humanCount(figures.missing));
    }
    const auto& total = condition->total;
    fmt::print("\n{}, {}, {} of audio\n", counted(total.holdings, "holding"), humanBytes(total.bytes),
               humanSeconds(total.duration));
    fmt::print("{} held once only\n", humanCount(total.heldOnce));
    fmt::print("{} of identical copies; retiring the surplus frees {}\n", counted(condition->copySets, "set"),
               humanBytes(condition->reclaimable));
    fmt::print("{} missing, {} that could not be read or understood\n", humanCount(total.missing),
               humanCount(condition->errors));
    if (condition->brokenReferences > 0) {
        fmt::print("{} of players that lead nowhere\n", counted(condition->brokenReferences, "reference"));
    }
    return exitDone;
}

int runCopies(const CommonOptions& common) {
    const auto catalogue = openLooking(common);
    if (!catalogue) {
        return fail(catalogue.error());
    }
    const auto volumes = Volumes(*catalogue).all();
    if (!volumes) {
        return fail(volumes.error());
    }
    const auto sets = allSets(*catalogue, *volumes, std::nullopt);
    const auto alike = allSets(*catalogue, *volumes, Sameness::tagsOnly);
    if (!sets || !alike) {
        return fail(sets ? alike.error() : sets.error());
    }
    if (common.json) {
        printJson(copiesShape(*sets, *alike, *volumes));
        return exitDone;
    }
    for (const auto& shown : *sets) {
        fmt::print("{} of up to {}, {}, {} can be freed\n", counted(shown.members.size(), "holding"),
                   humanBytes(shown.set.size), samenessWords(shown.set.sameness),
                   humanBytes(reclaimableOf(shown)));
        for (std::size_t i = 0; i < shown.members.size(); ++i) {
            fmt::print("  {:<7} {}\n", word(shown.advice[i].advice),
                       displayPath(absolutePath(shown.members[i], *volumes)));
            for (const auto& reason : shown.advice[i].reasons) {
                fmt::print("          {}\n", reason);
            }
        }
    }
    for (const auto& shown : *alike) {
        fmt::print("only the tags look alike, no copies:\n");
        for (const auto& member : shown.members) {
            fmt::print("          {}\n", displayPath(absolutePath(member, *volumes)));
        }
    }
    fmt::print("{} of copies\n", counted(sets->size(), "set"));
    return exitDone;
}

int runDocket(const CommonOptions& common) {
    const auto catalogue = openLooking(common);
    return catalogue ? showDocket(common, *catalogue) : fail(catalogue.error());
}

int runDocketAdd(const CommonOptions& common, const std::string& kind, const std::vector<BytePath>& paths,
                 const BytePath& target, const std::string& reason) {
    const auto catalogue = openWorking(common);
    if (!catalogue) {
        return fail(catalogue.error());
    }
    const auto added = target.empty() ? addPaths(*catalogue, kind, paths, reason)
                                      : addWithTarget(*catalogue, kind, paths, target, reason);
    return added ? showDocket(common, *catalogue) : fail(added.error());
}

int runDocketAddRetag(const CommonOptions& common, const BytePath& file,
                      const std::vector<BytePath>& others) {
    const auto catalogue = openWorking(common);
    if (!catalogue) {
        return fail(catalogue.error());
    }
    const auto planned = addRetag(*catalogue, file, others);
    return planned ? showDocket(common, *catalogue) : fail(planned.error());
}

int runDocketAddSuggested(const CommonOptions& common, const std::string& policy, RunControl& control) {
    const auto catalogue = openWorking(common);
    if (!catalogue) {
        return fail(catalogue.error());
    }
    const auto added = addSuggested(*catalogue, policy, control);
    return added ? showDocket(common, *catalogue) : fail(added.error());
}

int runDocketClear(const CommonOptions& common) {
    const auto catalogue = openWorking(common);
    if (!catalogue) {
        return fail(catalogue.error());
    }
    const auto cleared = DocketStore(*catalogue).clear();
    return cleared ? showDocket(common, *catalogue) : fail(cleared.error());
}

int runCarryOut(const CommonOptions& common, RunControl& control) {
    auto catalogue = openWorking(common);
    if (!catalogue) {
        return fail(catalogue.error());
    }
    ProgressLine line(common.quiet);
    CarryOutHooks hooks;
    hooks.onProgress = [&](const Progress& progress) { line(progress); };
    const auto carried = carryOut(*catalogue, control, hooks);
    if (!carried) {
        return fail(carried.error());
    }
    if (const auto refreshed = refreshFindings(*catalogue); !refreshed) {
        return fail(refreshed.error());
    }
    return showCarriedOut(common, *carried, "carried out");
}

int runLedger(const CommonOptions& common) {
    const auto catalogue = openLooking(common);
    if (!catalogue) {
        return fail(catalogue.error());
    }
    const auto entries = LedgerStore(*catalogue).entries();
    if (!entries) {
        return fail(entries.error());
    }
    if (common.json) {
        printJson(ledgerShape(*entries));
        return exitDone;
    }
    for (const auto& entry : *entries) {
        fmt::print("{:>5}  {}  {:<9}  {}{}\n", entry.id, isoUtc(entry.time), entry.kind, entry.summary,
                   isUndone(entry) ? " (taken back)" : "");
    }
    return exitDone;
}

int runLedgerPremis(const CommonOptions& common) {
    const auto catalogue = openLooking(common);
    const auto text = catalogue ? premisOfLedger(*catalogue) : Result<std::string>(catalogue.error());
    if (!text) {
        return fail(text.error());
    }
    std::fwrite(text->data(), 1, text->size(), stdout);
    return exitDone;
}

int runUndo(const CommonOptions& common, const std::string& entry, RunControl& control) {
    EntryId id = 0;
    auto catalogue = openWorking(common);
    if (!catalogue) {
        return fail(catalogue.error());
    }
    if (entry == "last") {
        const auto last = lastUndoable(*catalogue);
        if (!last) {
            return fail(last.error());
        }
        if (!*last) {
            return fail({Cause::notFound, {}, "The ledger holds nothing that can be taken back."});
        }
        id = **last;
    } else {
        const auto [end, trouble] = std::from_chars(entry.data(), entry.data() + entry.size(), id);
        if (trouble != std::errc() || end != entry.data() + entry.size()) {
            fmt::print(stderr, "\"{}\" is no entry: give its number as the ledger lists it, or \"last\".\n",
                       entry);
            return exitUsage;
        }
    }
    const auto undone = undoEntry(*catalogue, id, control, {});
    if (!undone) {
        return fail(undone.error());
    }
    if (const auto refreshed = refreshFindings(*catalogue); !refreshed) {
        return fail(refreshed.error());
    }
    return showCarriedOut(common, *undone, "taken back");
}

} // namespace sober::cli
