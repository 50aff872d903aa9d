#include "cli/docket_command.h"

#include "cli/answers.h"
#include "core/audit/plan_places.h"
#include "core/audit/refresh_findings.h"
#include "core/audit/set_choice.h"
#include "core/audit/tag_takeover.h"
#include "core/base/text.h"
#include "core/catalogue/fixity_store.h"
#include "core/catalogue/holdings.h"
#include "core/catalogue/volumes.h"
#include "core/evidence/worker/evidence_worker.h"
#include "core/remedy/docket/review.h"
#include "core/transfer/layout.h"
#include "core/transfer/reorder.h"
#include "core/work/carry_out.h"
#include "core/work/replace_holding.h"

#include <fmt/format.h>

#include <algorithm>
#include <set>

namespace sober::cli {
namespace {

void printDocket(const DocketReview& review) {
    if (review.actions.empty()) {
        say("The docket is empty.\n");
        return;
    }
    for (const auto& planned : review.actions) {
        say("{:>5}  {:<9}  {}\n", planned.action.id, word(planned.action.kind), displayPath(planned.path));
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

/// The catalogued holding at a path that the user names.
Result<Holding> holdingAt(const Catalogue& catalogue, std::span<const Volume> volumes,
                          const BytePath& given) {
    // A folder above it may be gone with it.
    const auto lexical = placeOf(given).value_or(
        given.starts_with('/') ? given : joinPath(realPathOf(".").value_or("/"), given));
    const Volume* best = nullptr;
    for (const auto& volume : volumes) {
        if (isWithin(lexical, volume.root) &&
            (best == nullptr || volume.root.size() > best->root.size() || (volume.atHand && !best->atHand))) {
            best = &volume;
        }
    }
    if (best != nullptr) {
        auto holding = Holdings(catalogue).at(best->id, *relativeTo(lexical, best->root));
        RETURN_IF_FAILED(holding);
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
        RETURN_IF_FAILED(kept);
        if (!*kept) {
            return Error{Cause::notFound, {}, "There is no policy named \"" + name + "\"."};
        }
        policy = **kept;
    }
    const auto ids = Findings(catalogue).setOrder(SetOrder::mostBytes, {});
    RETURN_IF_FAILED(ids);
    const auto preview = previewPolicy(catalogue, *ids, policy, control);
    return preview ? applyPreview(catalogue, *preview) : Outcome(preview.error());
}

Outcome addRetag(const Catalogue& catalogue, const BytePath& file, const std::vector<BytePath>& others) {
    const auto volumes = Volumes(catalogue).all();
    RETURN_IF_FAILED(volumes);
    const auto holding = holdingAt(catalogue, *volumes, file);
    EvidenceWorker worker;
    const auto own = worker.readTags(file);
    if (!holding || !own) {
        return holding ? own.error() : holding.error();
    }
    std::vector<TagFields> theirs;
    std::string from;
    for (const auto& other : others) {
        auto read = worker.readTags(other);
        RETURN_IF_FAILED(read);
        theirs.push_back(std::move(*read));
        from += (from.empty() ? "" : ", ") + displayPath(other);
    }
    const auto change = agreedChange(takeoverOf(*own, theirs));
    if (change.isEmpty()) {
        return Error{Cause::invalid, file, displayPath(file) + " lacks nothing on which the others agree."};
    }
    return planRetag(catalogue, holding->id, change, from);
}

Outcome addPath(const Catalogue& catalogue, std::span<const Volume> volumes, ActionKind kind,
                const BytePath& path, const std::string& reason) {
    const auto holding = holdingAt(catalogue, volumes, path);
    if (!holding && kind == ActionKind::writeOff && holding.error().cause == Cause::notFound) {
        const auto planned = planWriteOffPlace(catalogue, path, reason);
        return !planned && planned.error().cause == Cause::invalid ? Outcome(holding.error()) : planned;
    }
    RETURN_IF_FAILED(holding);
    const auto wanted = kind == ActionKind::writeOff ? HoldingState::missing : HoldingState::present;
    const bool bringsBack = kind == ActionKind::restore && holding->state == HoldingState::missing;
    if (holding->state != wanted && !bringsBack) {
        return Error{Cause::invalid, path,
                     displayPath(path) + (kind == ActionKind::writeOff
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
    const auto meant = kind == ActionKind::accept && drifted   ? ActionKind::acceptChange
                       : kind == ActionKind::repair && isWhole ? ActionKind::rewrite
                                                               : kind;
    return DocketStore(catalogue).add(std::vector{DocketAction{0, meant, holding->id, reason, timeNow()}});
}

Outcome addOne(const Catalogue& catalogue, std::span<const Volume> volumes, ActionKind kind,
               const BytePath& path, const BytePath& target, const std::string& reason) {
    if (kind == ActionKind::replace) {
        RunControl control;
        const auto planned =
            planFitting(catalogue, {placeOf(path).value_or(path), target}, control, [](const Progress&) {});
        return planned ? done() : Outcome(planned.error());
    }
    return target.empty()   ? addPath(catalogue, volumes, kind, path, reason)
           : isPlaced(kind) ? planMove(catalogue, path, target, reason, kind)
                            : planRepoint(catalogue, path, target, reason);
}

/// What stands on the docket and is not about these paths: those are said anew.
Result<std::set<ActionId>> standingBeside(const Catalogue& catalogue, const std::vector<BytePath>& paths) {
    const auto review = reviewDocket(catalogue);
    RETURN_IF_FAILED(review);
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

int runDocket(const CommonOptions& common) {
    const auto catalogue = openLooking(common);
    return catalogue ? showDocket(common, *catalogue) : fail(catalogue.error());
}

int runDocketAdd(const CommonOptions& common, ActionKind kind, const std::vector<BytePath>& paths,
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

int runDocketAddReorder(const CommonOptions& common, const std::vector<BytePath>& folders,
                        const std::string& layout, const std::string& reason) {
    if (const auto order = Layout::named(layout); !order) {
        fail(order.error());
        return exitUsage;
    }
    const auto catalogue = openWorking(common);
    const auto before =
        catalogue ? standingBeside(*catalogue, {}) : Result<std::set<ActionId>>(catalogue.error());
    if (!before) {
        return fail(before.error());
    }
    std::vector<Error> errors;
    for (const auto& folder : folders) {
        const auto reordered = reorder(*catalogue, folder, layout);
        std::vector<std::pair<HoldingId, BytePath>> targets;
        for (const auto& each : reordered ? *reordered : std::vector<Reordered>()) {
            targets.emplace_back(each.holding, each.to);
            if (!each.altered.empty()) {
                sayOn(stderr, "{}: {}\n", displayPath(each.to), each.altered);
            }
        }
        if (!reordered) {
            errors.push_back(reordered.error());
        } else if (const auto added = planMovesTo(*catalogue, targets, reason); !added) {
            errors.push_back(added.error());
        }
    }
    return showAdded(common, *catalogue, *before, errors);
}

} // namespace sober::cli
