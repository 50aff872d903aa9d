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
#include <set>
#include <unistd.h>

namespace sober::cli {
namespace {

void printSurvey(const SurveyReport& report) {
    say("{}: {} ({} added, {} changed, {} moved, {} returned, {} unchanged), {} missing; {} read in {}\n",
        report.label, counted(report.seen, "holding"), humanCount(report.added), humanCount(report.changed),
        humanCount(report.moved), humanCount(report.returned), humanCount(report.unchanged),
        humanCount(report.missing), humanBytes(report.bytesRead), humanSeconds(report.seconds));
    if (report.leftOut > 0) {
        say("    {} left out by the choices kept with it: not missing\n", counted(report.leftOut, "holding"));
    }
    if (report.away > 0) {
        say("    {} on what was mounted within it and is away: not missing\n",
            counted(report.away, "holding"));
    }
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
        all.leftOut += report.leftOut;
        all.away += report.away;
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
        say("The docket is empty.\n");
        return;
    }
    for (const auto& planned : review.actions) {
        say("{:>5}  {:<9}  {}\n", planned.action.id, planned.action.kind, displayPath(planned.path));
        if (!planned.target.empty()) {
            say("       to {}{}\n", displayPath(planned.target),
                planned.references > 0 ? ", with " + counted(planned.references, "reference") : "");
        }
        if (planned.refused) {
            say("       {}: {}\n", planned.awaitsConsent ? "needs consent" : "refused", *planned.refused);
        } else if (planned.loss != Loss::none) {
            say("       consented: {}\n", lossWords(planned.loss));
        }
    }
    say("{}, {} refused, {} freed once the trash is emptied, {} taken along. Nothing has changed yet.\n",
        counted(review.actions.size(), "action waits", "actions wait"), humanCount(review.refused),
        humanBytes(review.frees), counted(review.references, "reference"));
}

void showReview(const CommonOptions& common, const DocketReview& review) {
    if (common.json) {
        printJson(docketShape(review));
    } else {
        printDocket(review);
    }
}

int showDocket(const CommonOptions& common, const Catalogue& catalogue) {
    const auto review = reviewDocket(catalogue);
    if (!review) {
        return fail(review.error());
    }
    showReview(common, *review);
    return exitDone;
}

/// After adding: done where something of it can be carried out; a path that could not be put on is said.
int showAdded(const CommonOptions& common, const Catalogue& catalogue, const std::set<ActionId>& before,
              const std::vector<Error>& errors) {
    const auto review = reviewDocket(catalogue);
    if (!review) {
        return fail(review.error());
    }
    showReview(common, *review);
    std::size_t possible = 0;
    for (const auto& planned : review->actions) {
        possible += !before.contains(planned.action.id) && !planned.refused ? 1 : 0;
    }
    for (const auto& error : errors) {
        sayOn(stderr, "{}\n", error.sentence);
    }
    return possible == 0 ? exitCouldNot : errors.empty() ? exitDone : exitSomeUnread;
}

int showCarriedOut(const CommonOptions& common, const CarriedOut& carried, std::string_view verb) {
    if (common.json) {
        printJson(carriedOutShape(carried));
    } else {
        say("{} {}, {} refused.\n", counted(carried.done, "action"), verb,
            humanCount(carried.refused.size()));
        if (carried.references > 0) {
            say("{} of players taken along.\n", counted(carried.references, "reference"));
        }
    }
    for (const auto& refused : carried.refused) {
        sayOn(stderr, "{}: {}\n", displayPath(refused.path), refused.sentence);
    }
    if (carried.interrupted) {
        return exitInterrupted;
    }
    return carried.refused.empty() ? exitDone : carried.done > 0 ? exitSomeUnread : exitCouldNot;
}

/// The catalogued holding at a path that the user names.
Result<Holding> holdingAt(const Catalogue& catalogue, std::span<const Volume> volumes,
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

Outcome addPath(const Catalogue& catalogue, std::span<const Volume> volumes, const std::string& kind,
                const BytePath& path, const std::string& reason) {
    const auto holding = holdingAt(catalogue, volumes, path);
    if (!holding && kind == writeOffKind && holding.error().cause == Cause::notFound) {
        const auto planned = planWriteOffPlace(catalogue, path, reason);
        return !planned && planned.error().cause == Cause::invalid ? Outcome(holding.error()) : planned;
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
                                          : holding->state == HoldingState::leftOut
                                              ? " is left out by the choices of its volume."
                                              : " is not there any more.")};
    }
    const auto drift = FixityStore(catalogue).of(holding->id);
    const auto unreadable = FixityStore(catalogue).unreadableOf(holding->id);
    if (!drift || !unreadable) {
        return drift ? unreadable.error() : drift.error();
    }
    const bool drifted = *drift && (*drift)->accepted == 0;
    // What is as it was recorded can still be repaired of junk, and accepted as the evidence shows it.
    const bool isWhole = !drifted && unreadable->empty();
    const auto meant = kind == acceptKind && drifted   ? std::string(acceptChangeKind)
                       : kind == repairKind && isWhole ? std::string(rewriteKind)
                                                       : kind;
    return DocketStore(catalogue).add(std::vector{DocketAction{0, meant, holding->id, reason, timeNow()}});
}

Outcome addOne(const Catalogue& catalogue, std::span<const Volume> volumes, const std::string& kind,
               const BytePath& path, const BytePath& target, const std::string& reason) {
    return target.empty()     ? addPath(catalogue, volumes, kind, path, reason)
           : kind == moveKind ? planMove(catalogue, path, target, reason)
                              : planRepoint(catalogue, path, target, reason);
}

/// What stands on the docket and is not about these paths: those are said anew.
Result<std::set<ActionId>> standingBeside(const Catalogue& catalogue, const std::vector<BytePath>& paths) {
    const auto review = reviewDocket(catalogue);
    if (!review) {
        return review.error();
    }
    std::set<BytePath> meant;
    for (const auto& path : paths) {
        meant.insert(placeOf(path).value_or(path));
    }
    std::set<ActionId> standing;
    for (const auto& planned : review->actions) {
        if (!meant.contains(planned.path)) {
            standing.insert(planned.action.id);
        }
    }
    return standing;
}

/// Of a `kind` that is said of single holdings.
Outcome consentTo(const Catalogue& catalogue, std::span<const Volume> volumes, const BytePath& path) {
    const auto holding = holdingAt(catalogue, volumes, path);
    return holding ? consentToLoss(catalogue, holding->id) : Outcome(holding.error());
}

} // namespace

int runSurvey(const CommonOptions& common, const SurveyOptions& options, RunControl& control) {
    auto catalogue = openWorking(common);
    if (!catalogue) {
        return fail(catalogue.error());
    }
    std::vector<SurveyReport> reports;
    std::optional<Error> failure;
    bool someFailed = false;
    for (const auto& path : options.paths) {
        ProgressLine line(common.quiet);
        auto report =
            surveyVolume(*catalogue, {path, options.label, {}, options.effort, options.changeChoices},
                         control, [&](const Progress& progress) { line(progress); });
        if (!report) {
            // One bad path does not keep the others from being read.
            sayOn(stderr, "{}\n", report.error().sentence);
            someFailed = true;
            continue;
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
    if (reports.empty()) {
        return failure ? fail(*failure) : exitCouldNot;
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
    return interrupted          ? exitInterrupted
           : someFailed         ? exitCouldNot
           : all.errors.empty() ? exitDone
                                : exitSomeUnread;
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
        say("{:<12} {:<8} {:>16}, {:>9}, {} missing\n", volume.label, volume.atHand ? "at hand" : "away",
            counted(figures.holdings, "holding"), humanBytes(figures.bytes), humanCount(figures.missing));
    }
    const auto& total = condition->total;
    say("\n{}, {}, {} of audio\n", counted(total.holdings, "holding"), humanBytes(total.bytes),
        humanSeconds(total.duration));
    say("{} held once only\n", humanCount(total.heldOnce));
    say("{} of identical copies; retiring the surplus frees {}\n", counted(condition->copySets, "set"),
        humanBytes(condition->reclaimable));
    say("{} missing, {} that could not be read or understood\n", humanCount(total.missing),
        humanCount(condition->errors));
    if (condition->brokenReferences > 0) {
        say("{} of players that lead nowhere\n", counted(condition->brokenReferences, "reference"));
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
        say("{} of up to {}, {}, {} can be freed\n", counted(shown.members.size(), "holding"),
            humanBytes(shown.set.size), samenessWords(shown.set.sameness), humanBytes(reclaimableOf(shown)));
        for (std::size_t i = 0; i < shown.members.size(); ++i) {
            say("  {:<7} {}\n", word(shown.advice[i].advice),
                displayPath(absolutePath(shown.members[i], *volumes)));
            for (const auto& reason : shown.advice[i].reasons) {
                say("          {}\n", reason);
            }
        }
    }
    for (const auto& shown : *alike) {
        say("only the tags look alike, no copies:\n");
        for (const auto& member : shown.members) {
            say("          {}\n", displayPath(absolutePath(member, *volumes)));
        }
    }
    say("{} of copies\n", counted(sets->size(), "set"));
    return exitDone;
}

int runDocket(const CommonOptions& common) {
    const auto catalogue = openLooking(common);
    return catalogue ? showDocket(common, *catalogue) : fail(catalogue.error());
}

int runDocketAdd(const CommonOptions& common, const std::string& kind, const std::vector<BytePath>& paths,
                 const BytePath& target, const std::string& reason, bool consent) {
    const auto catalogue = openWorking(common);
    const auto volumes =
        catalogue ? Volumes(*catalogue).all() : Result<std::vector<Volume>>(catalogue.error());
    const auto before =
        volumes ? standingBeside(*catalogue, paths) : Result<std::set<ActionId>>(volumes.error());
    if (!before) {
        return fail(before.error());
    }
    std::vector<Error> errors;
    for (const auto& path : paths) {
        if (const auto added = addOne(*catalogue, *volumes, kind, path, target, reason); !added) {
            errors.push_back(added.error());
        } else if (const auto agreed = consent ? consentTo(*catalogue, *volumes, path) : done(); !agreed) {
            sayOn(stderr, "{}\n", agreed.error().sentence);
        }
    }
    return showAdded(common, *catalogue, *before, errors);
}

int runDocketRemove(const CommonOptions& common, const std::vector<std::string>& which) {
    const auto catalogue = openWorking(common);
    const auto review = catalogue ? reviewDocket(*catalogue) : Result<DocketReview>(catalogue.error());
    if (!review) {
        return fail(review.error());
    }
    std::vector<ActionId> taken;
    std::vector<std::string> unknown;
    for (const auto& word : which) {
        const auto path = placeOf(word).value_or(word);
        const auto before = taken.size();
        for (const auto& planned : review->actions) {
            if (word == std::to_string(planned.action.id) || path == planned.path) {
                taken.push_back(planned.action.id);
            }
        }
        if (taken.size() == before) {
            unknown.push_back(word);
        }
    }
    const auto removed = DocketStore(*catalogue).removeActions(taken);
    if (!removed) {
        return fail(removed.error());
    }
    showDocket(common, *catalogue);
    for (const auto& word : unknown) {
        sayOn(stderr, "The docket holds no action {}: give a number as it lists them, or a path.\n",
              displayPath(word));
    }
    return *removed == 0 ? exitCouldNot : unknown.empty() ? exitDone : exitSomeUnread;
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
        say("{:>5}  {}  {:<9}  {}{}\n", entry.id, isoUtc(entry.time), entry.kind, entry.summary,
            isUndone(entry) ? " (taken back)" : "");
    }
    return exitDone;
}

namespace {

std::optional<EntryId> entryFrom(const std::string& word) {
    EntryId id = 0;
    const auto [end, trouble] = std::from_chars(word.data(), word.data() + word.size(), id);
    if (trouble == std::errc() && end == word.data() + word.size()) {
        return id;
    }
    sayOn(stderr, "\"{}\" is no entry: give its number as the ledger lists it.\n", word);
    return std::nullopt;
}

std::string_view stepWords(ActionStep step) {
    switch (step) {
    case ActionStep::refused:
        return "refused";
    case ActionStep::carriedOut:
        return "carried out";
    case ActionStep::takenBack:
        return "not done";
    case ActionStep::undone:
        return "taken back";
    case ActionStep::started:
    case ActionStep::undoStarted:
        break;
    }
    return "not settled yet";
}

} // namespace

int runLedgerEntry(const CommonOptions& common, const std::string& word) {
    const auto id = entryFrom(word);
    if (!id) {
        return exitUsage;
    }
    const auto catalogue = openLooking(common);
    if (!catalogue) {
        return fail(catalogue.error());
    }
    const LedgerStore ledger(*catalogue);
    const auto entry = ledger.entry(*id);
    const auto actions = ledger.actionsOf(*id);
    if (!entry || !actions) {
        return fail(entry ? actions.error() : entry.error());
    }
    if (!*entry) {
        return fail({Cause::notFound, {}, fmt::format("The ledger has no entry {}.", *id)});
    }
    if (common.json) {
        auto json = ledgerShape(std::vector{**entry});
        Json files = Json::array();
        for (const auto& action : *actions) {
            Json file = withPath(action.place);
            file["kind"] = action.kind;
            file["state"] = stepWords(action.step);
            file["reason"] = action.sentence;
            file["set_aside"] = action.aside.empty() ? Json() : Json(percentEncodeOffending(action.aside));
            files.push_back(std::move(file));
        }
        json["entries"][0]["files"] = std::move(files);
        printJson(json);
        return exitDone;
    }
    say("{:>5}  {}  {:<9}  {}{}\n", (*entry)->id, isoUtc((*entry)->time), (*entry)->kind, (*entry)->summary,
        isUndone(**entry) ? " (taken back)" : "");
    for (const auto& action : *actions) {
        say("       {:<10}  {:<11}  {}\n", action.kind, stepWords(action.step), displayPath(action.place));
        if (!action.sentence.empty()) {
            say("           {}\n", action.sentence);
        }
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
        const auto given = entryFrom(entry);
        if (!given) {
            return exitUsage;
        }
        id = *given;
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
