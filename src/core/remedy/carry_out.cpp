#include "core/remedy/carry_out.h"

#include "core/audit/carriers.h"
#include "core/base/text.h"
#include "core/catalogue/evidence_store.h"
#include "core/catalogue/fixity_store.h"
#include "core/catalogue/holdings.h"
#include "core/catalogue/volumes.h"
#include "core/players/read_players.h"
#include "core/remedy/bringing_back.h"
#include "core/remedy/docket.h"
#include "core/remedy/file_changes.h"
#include "core/remedy/mending.h"
#include "core/remedy/moving.h"
#include "core/remedy/proving.h"
#include "core/remedy/references_along.h"
#include "core/remedy/replacement.h"
#include "core/remedy/retagging.h"
#include "core/remedy/rewriting.h"
#include "core/remedy/set_aside.h"
#include "core/survey/volume_identity.h"

#include <fmt/format.h>

#include <algorithm>
#include <chrono>
#include <unordered_map>

namespace sober {
namespace {

bool isMadeAnew(std::string_view kind) {
    return kind == retagKind || isMended(kind) || kind == rewriteKind;
}

/// What is mended is mended while its healthy copies are there; what is retired is compared with what stays
/// before that is made anew. References are repointed first, so that what is retired or moved takes them
/// along.
int turnOf(std::string_view kind) {
    return isMended(kind)                             ? 0
           : kind == repointKind                      ? 1
           : kind == moveKind                         ? 3
           : kind == retagKind || kind == rewriteKind ? 4
                                                      : 2;
}

class Executor {
  public:
    Executor(Catalogue& catalogue, RunControl& control, const CarryOutHooks& hooks, DocketReview review,
             std::vector<Volume> volumes)
        : catalogue_(catalogue),
          ledger_(catalogue),
          control_(control),
          hooks_(hooks),
          review_(std::move(review)),
          volumes_(std::move(volumes)),
          prover_(catalogue, control, [this](std::uint64_t bytes, const BytePath& path) {
              progress_.bytes += bytes;
              tell(path);
          }) {
        for (const auto& planned : review_.actions) {
            if (planned.action.kind == retireKind) {
                progress_.totalBytes += planned.refused ? 0 : 2 * planned.holding.size;
            } else if (isMadeAnew(planned.action.kind)) {
                progress_.totalBytes += planned.refused ? 0 : planned.holding.size;
            }
        }
        std::ranges::stable_sort(review_.actions, {}, [](const PlannedAction& planned) {
            return std::pair(turnOf(planned.action.kind), planned.target.empty());
        });
        progress_.totalFiles = review_.actions.size();
    }

    Result<CarriedOut> run() {
        const auto entry = ledger_.open("carry-out", "carrying out", std::nullopt);
        if (!entry) {
            return entry.error();
        }
        result_.entry = *entry;
        for (std::size_t at = 0; at < review_.actions.size() && !result_.interrupted;) {
            if (!control_.proceed()) {
                result_.interrupted = true;
                break;
            }
            const auto together = batchFrom(at);
            const auto outcome = together.empty() ? one(review_.actions[at]) : several(together);
            if (!outcome) {
                return outcome.error();
            }
            at += std::max<std::size_t>(1, together.size());
        }
        tell({});
        if (const auto closed = ledger_.close(result_.entry, summary()); !closed) {
            return closed.error();
        }
        return result_;
    }

  private:
    /// Those from `at` on whose references go along together, so that a list of a hundred thousand entries is
    /// not written once for each.
    std::vector<const PlannedAction*> batchFrom(std::size_t at) const {
        constexpr std::size_t most = 256;
        std::vector<const PlannedAction*> batch;
        const auto& first = review_.actions[at];
        for (; at < review_.actions.size(); ++at) {
            const auto& planned = review_.actions[at];
            const bool takesAlong =
                !planned.refused && !planned.target.empty() && planned.action.kind == first.action.kind;
            if (!takesAlong || (planned.action.kind != repointKind && batch.size() == most)) {
                break;
            }
            batch.push_back(&planned);
        }
        return batch;
    }

    Outcome one(const PlannedAction& planned) {
        tell(planned.path);
        const auto outcome = carryOutOne(planned);
        return settle(planned, outcome);
    }

    Outcome settle(const PlannedAction& planned, const Outcome& outcome) {
        if (outcome) {
            ++result_.done;
            result_.frees += planned.frees;
        } else if (outcome.error().cause == Cause::interrupted) {
            result_.interrupted = true;
            return done();
        } else if (const auto noted = refuse(planned, outcome.error().sentence); !noted) {
            return noted;
        }
        ++progress_.files;
        return done();
    }

    Outcome several(const std::vector<const PlannedAction*>& batch) {
        const auto& kind = batch.front()->action.kind;
        return kind == repointKind ? repointAll(batch) : kind == moveKind ? moveAll(batch) : retireAll(batch);
    }

    /// Makes references lead to the new places; yields what could not be, by place.
    Result<std::unordered_map<BytePath, std::string>> along(const NewPlaces& places, RunControl& control) {
        const auto taken = takeReferencesAlong(catalogue_, result_.entry, places, control, hooks_);
        if (!taken) {
            return taken.error();
        }
        result_.references += taken->references;
        result_.interrupted = result_.interrupted || taken->interrupted;
        std::unordered_map<BytePath, std::string> left;
        for (const auto& each : taken->left) {
            left.emplace(each.place, each.sentence);
        }
        return left;
    }

    Outcome repointAll(const std::vector<const PlannedAction*>& batch) {
        NewPlaces places;
        for (const auto* planned : batch) {
            places.emplace(planned->path, planned->target);
        }
        tell(batch.front()->path);
        const auto left = along(places, control_);
        if (!left) {
            return left.error();
        }
        std::vector<BytePath> repointed;
        for (const auto* planned : batch) {
            const auto why = left->find(planned->path);
            if (why == left->end()) {
                ++result_.done;
                repointed.push_back(planned->path);
            } else if (!result_.interrupted) {
                if (const auto noted = refuse(*planned, why->second); !noted) {
                    return noted;
                }
            }
            ++progress_.files;
        }
        return DocketStore(catalogue_).removePlaces(repointed);
    }

    /// All are checked, then their references lead to what stays, then they go: no reference leads nowhere at
    /// any instant.
    Outcome retireAll(const std::vector<const PlannedAction*>& batch) {
        std::vector<std::pair<const PlannedAction*, Proven>> checked;
        NewPlaces places;
        for (const auto* planned : batch) {
            tell(planned->path);
            const auto found = control_.proceed()
                                   ? prover_.retirable(*planned)
                                   : Result<Proven>(Error{Cause::interrupted, planned->path, {}});
            if (found) {
                checked.emplace_back(planned, *found);
                // To what was proven to stay, and not to what was only expected to.
                places.emplace(planned->path, found->stays.path);
            } else if (const auto settled = settle(*planned, found.error()); !settled) {
                return settled;
            }
            if (result_.interrupted) {
                break;
            }
        }
        hooks_.onInstant(Instant::checked);
        RunControl toTheEnd; // stopped between two batches, not within one
        const auto left = along(places, toTheEnd);
        if (!left) {
            return left.error();
        }
        NewPlaces stayed;
        for (const auto& [planned, found] : checked) {
            const auto why = left->find(planned->path);
            const auto outcome = why != left->end() ? Outcome(refusedError(planned->path, why->second))
                                                    : setAside(*planned, found);
            if (why == left->end() && !outcome) {
                stayed.emplace(found.stays.path, planned->path);
            }
            if (const auto settled = settle(*planned, outcome); !settled) {
                return settled;
            }
        }
        return followBack(stayed);
    }

    /// Lists that were led away from what then stayed after all lead back to it.
    Outcome followBack(const NewPlaces& places) {
        if (places.empty()) {
            return done();
        }
        RunControl toTheEnd;
        const auto before = result_.references;
        const auto back = along(places, toTheEnd);
        result_.references = before - (result_.references - before); // those lead where they led
        return back ? done() : Outcome(back.error());
    }

    Outcome moveAll(const std::vector<const PlannedAction*>& batch) {
        std::vector<std::pair<const PlannedAction*, LedgerAction>> moved;
        NewPlaces places;
        for (const auto* planned : batch) {
            tell(planned->path);
            auto started = moveOne(*planned);
            if (started) {
                places.emplace(planned->path, planned->target);
                moved.emplace_back(planned, std::move(*started));
            } else if (const auto settled = settle(*planned, started.error()); !settled) {
                return settled;
            }
        }
        RunControl toTheEnd;
        const auto left = along(places, toTheEnd);
        if (!left) {
            return left.error();
        }
        NewPlaces abandoned;
        for (const auto& [planned, action] : moved) {
            const auto why = left->find(planned->path);
            auto outcome = done();
            if (why != left->end()) {
                const auto back = abandonMove(ledger_, action, why->second);
                abandoned.emplace(planned->target, planned->path);
                outcome = back ? Outcome(refusedError(planned->path, why->second)) : back;
            } else {
                outcome = finishMove(catalogue_, action);
                hooks_.onInstant(Instant::recorded);
            }
            if (const auto settled = settle(*planned, outcome); !settled) {
                return settled;
            }
        }
        return followBack(abandoned);
    }

    Result<LedgerAction> moveOne(const PlannedAction& planned) {
        const auto stamp = stampAt(planned.path);
        if (!stamp || stamp->size != planned.holding.size || stamp->mtime != planned.holding.mtime) {
            return refusedError(planned.path,
                                displayPath(planned.path) + " is not what was recorded; survey it again.");
        }
        hooks_.onInstant(Instant::checked);
        auto action = actionFor(planned);
        action.made = planned.target;
        return startMove(ledger_, std::move(action), hooks_);
    }

    void tell(const BytePath& at) {
        progress_.elapsed = std::chrono::duration<double>(std::chrono::steady_clock::now() - began_).count();
        progress_.errors = result_.refused.size();
        progress_.at = displayPath(at);
        hooks_.onProgress(progress_);
    }

    std::string summary() const {
        std::string text = fmt::format("{} carried out", counted(result_.done, "action"));
        if (!result_.refused.empty()) {
            text += fmt::format(", {} refused", humanCount(result_.refused.size()));
        }
        if (result_.interrupted) {
            text += ", stopped before the end";
        }
        return text;
    }

    Outcome refuse(const PlannedAction& planned, const std::string& sentence) {
        result_.refused.push_back({planned.path, sentence});
        auto action = actionFor(planned);
        action.step = ActionStep::refused;
        action.sentence = sentence;
        const auto noted = ledger_.start(std::move(action));
        return noted ? done() : Outcome(noted.error());
    }

    LedgerAction actionFor(const PlannedAction& planned) const {
        LedgerAction action;
        action.entry = result_.entry;
        action.kind = planned.action.kind;
        action.holding = planned.holding.id;
        action.place = planned.path;
        action.size = planned.holding.size;
        action.checksum = planned.holding.checksum;
        return action;
    }

    Outcome carryOutOne(const PlannedAction& planned) {
        if (planned.refused) {
            return refusedError(planned.path, *planned.refused);
        }
        return planned.action.kind == writeOffKind       ? writeOff(planned)
               : planned.action.kind == acceptKind       ? accept(planned)
               : planned.action.kind == acceptChangeKind ? acceptChange(planned)
               : planned.action.kind == retagKind        ? retag(planned)
               : planned.action.kind == rewriteKind      ? rewrite(planned)
               : isMended(planned.action.kind)           ? mend(planned)
                                                         : retire(planned);
    }

    Outcome accept(const PlannedAction& planned) {
        return record(planned, HoldingState::present, [&] {
            return EvidenceStore(catalogue_).accept(planned.holding.id, planned.action.reason);
        });
    }

    Outcome acceptChange(const PlannedAction& planned) {
        return record(planned, HoldingState::present, [&] {
            return FixityStore(catalogue_).accept(planned.holding.id, planned.action.reason);
        });
    }

    Outcome writeOff(const PlannedAction& planned) {
        if (planned.holding.id == 0) {
            return writeOffPlace(planned);
        }
        if (isTaken(planned.path)) {
            return refusedError(planned.path,
                                "Something stands at its place again; survey the volume first.");
        }
        return record(planned, HoldingState::writtenOff, [] { return done(); });
    }

    Outcome writeOffPlace(const PlannedAction& planned) {
        const auto action = ledger_.start(actionFor(planned));
        if (!action) {
            return action.error();
        }
        hooks_.onInstant(Instant::journalled);
        const auto finished = ledger_.finishPlace(*action, ActionStep::carriedOut, true);
        hooks_.onInstant(Instant::recorded);
        return finished;
    }

    /// An action that changes the catalogue alone.
    template <typename Work>
    Outcome record(const PlannedAction& planned, HoldingState state, Work work) {
        const auto action = ledger_.start(actionFor(planned));
        if (!action) {
            return action.error();
        }
        hooks_.onInstant(Instant::journalled);
        if (const auto written = work(); !written) {
            ledger_.mark(*action, ActionStep::takenBack, written.error().sentence).ok();
            return written;
        }
        const auto finished = ledger_.finish(*action, ActionStep::carriedOut, state);
        hooks_.onInstant(Instant::recorded);
        return finished;
    }

    Outcome retire(const PlannedAction& planned) {
        const auto found = prover_.retirable(planned);
        if (!found) {
            return found.error();
        }
        hooks_.onInstant(Instant::checked);
        return setAside(planned, *found);
    }

    Outcome setAside(const PlannedAction& planned, const Proven& proven) {
        auto action = actionFor(planned);
        if (planned.loss != Loss::none) {
            action.sentence = fmt::format("Consented: {}.", lossWords(planned.loss));
        }
        if (const auto noted = noteAside(ledger_, action, hooks_); !noted) {
            return noted;
        }
        const auto takeBack = [&](const Error& error) {
            removeFile(action.note).ok();
            ledger_.mark(action, ActionStep::takenBack, error.sentence).ok();
            return Outcome(error);
        };
        if (const auto moved = moveAside(action, proven.goes); !moved) {
            return takeBack(moved.error());
        }
        hooks_.onInstant(Instant::moved);
        // Whatever way leads from one to the other, and whoever was here meanwhile: what stays has to be
        // there now.
        if (auto gone = whyNotThere(proven.stays)) {
            const auto back = moveEntry(action.aside, action.place);
            return back ? takeBack(refusedError(planned.path,
                                                *gone + " " + displayPath(planned.path) + " was put back."))
                        : back;
        }
        const auto finished = ledger_.finish(action, ActionStep::carriedOut, HoldingState::retired);
        hooks_.onInstant(Instant::recorded);
        return finished;
    }

    Outcome retag(const PlannedAction& planned) {
        const auto change = unpackTagChange(planned.action.change);
        if (!change || change->isEmpty()) {
            return refusedError(planned.path,
                                "What was to be written into its tags cannot be read any more.");
        }
        return makeAnew(
            planned, planned.holding.size + planned.action.change.size(),
            [&](const BytePath& to) { return makeRetagged(planned.path, to, *change, control_); });
    }

    Outcome rewrite(const PlannedAction& planned) {
        return makeAnew(planned, planned.holding.size,
                        [&](const BytePath& to) { return makeRewritten(planned.path, to, control_); });
    }

    Outcome mend(const PlannedAction& planned) {
        const auto mending = mendingOf(catalogue_, planned.holding.id, volumes_);
        if (!mending) {
            return mending.error();
        }
        if (planned.holding.state == HoldingState::missing) {
            auto action = actionFor(planned);
            action.kind = bringBackKind;
            action.size = mending->drift.recorded.size;
            action.made = placeForMade(planned.path, result_.entry, planned.holding.id);
            action.madeChecksum = mending->drift.recorded.content;
            return bringBack(
                catalogue_, ledger_, std::move(action),
                [&](const BytePath& to) { return makeMended(*mending, false, to, control_); }, hooks_);
        }
        return makeAnew(planned, mending->drift.recorded.size, [&](const BytePath& to) {
            return makeMended(*mending, planned.action.kind == repairKind, to, control_);
        });
    }

    /// `make` makes what is to take the file's place, of about `bytes`.
    template <typename Make>
    Outcome makeAnew(const PlannedAction& planned, std::uint64_t bytes, Make make) {
        auto action = actionFor(planned);
        const auto stamp = isMended(planned.action.kind)
                               ? prover_.mendable(planned, action)
                               : prover_.asRecorded(planned.path, planned.holding.checksum);
        if (!stamp) {
            return stamp.error();
        }
        if (const auto room = hasRoomFor(planned.path, bytes); !room) {
            return room;
        }
        hooks_.onInstant(Instant::checked);
        action.made = placeForMade(planned.path, result_.entry, planned.holding.id);
        auto started = ledger_.start(std::move(action));
        if (!started) {
            return started.error();
        }
        hooks_.onInstant(Instant::journalled);
        const auto made = make(started->made);
        if (!made) {
            removeFile(started->made).ok();
            ledger_.mark(*started, ActionStep::takenBack, made.error().sentence).ok();
            return made.error();
        }
        started->madeChecksum = made->checksums.file;
        hooks_.onInstant(Instant::made);
        return replaceByMade(catalogue_, ledger_, *started, *stamp, *made, hooks_);
    }

    Catalogue& catalogue_;
    LedgerStore ledger_;
    RunControl& control_;
    const CarryOutHooks& hooks_;
    DocketReview review_;
    std::vector<Volume> volumes_;
    Prover prover_;
    CarriedOut result_;
    Progress progress_;
    std::chrono::steady_clock::time_point began_ = std::chrono::steady_clock::now();
};

} // namespace

Result<CarriedOut> carryOut(Catalogue& catalogue, RunControl& control, const CarryOutHooks& hooks,
                            const std::function<bool(const DocketAction&)>& which) {
    if (const auto looked = lookForVolumes(catalogue); !looked) {
        return looked.error();
    }
    // What the lists say now decides which references go along.
    if (const auto read = readPlayers(catalogue, control); !read) {
        return read.error();
    }
    auto review = reviewDocket(catalogue);
    if (!review) {
        return review.error();
    }
    if (which) {
        std::erase_if(review->actions, [&](const PlannedAction& planned) { return !which(planned.action); });
    }
    if (review->actions.empty()) {
        return CarriedOut{};
    }
    auto volumes = Volumes(catalogue).all();
    if (!volumes) {
        return volumes.error();
    }
    return Executor(catalogue, control, hooks, std::move(*review), std::move(*volumes)).run();
}

} // namespace sober
