#include "core/remedy/carry_out.h"

#include "core/base/text.h"
#include "core/catalogue/evidence_store.h"
#include "core/catalogue/fixity_store.h"
#include "core/catalogue/holdings.h"
#include "core/catalogue/volumes.h"
#include "core/evidence/compare_content.h"
#include "core/evidence/file_pass.h"
#include "core/remedy/bringing_back.h"
#include "core/remedy/docket.h"
#include "core/remedy/file_changes.h"
#include "core/remedy/mending.h"
#include "core/remedy/replacement.h"
#include "core/remedy/retagging.h"
#include "core/remedy/rewriting.h"
#include "core/remedy/set_aside.h"
#include "core/remedy/stand_ins.h"
#include "core/survey/volume_identity.h"

#include <fmt/format.h>

#include <algorithm>
#include <chrono>
#include <unordered_set>

namespace sober {
namespace {

Error refusedError(const BytePath& path, std::string sentence) {
    return {Cause::refused, path, std::move(sentence)};
}

bool isMadeAnew(std::string_view kind) {
    return kind == retagKind || kind == restoreKind || kind == repairKind || kind == rewriteKind;
}

/// What is mended is mended while its healthy copies are there; what is retired is compared with what stays
/// before that is made anew.
int turnOf(std::string_view kind) {
    return kind == restoreKind || kind == repairKind ? 0 : kind == retagKind || kind == rewriteKind ? 2 : 1;
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
          volumes_(std::move(volumes)) {
        for (const auto& planned : review_.actions) {
            if (planned.action.kind == retireKind) {
                going_.insert(planned.holding.id);
                progress_.totalBytes += planned.refused ? 0 : 2 * planned.holding.size;
            } else if (isMadeAnew(planned.action.kind)) {
                progress_.totalBytes += planned.refused ? 0 : planned.holding.size;
            }
        }
        std::ranges::stable_sort(review_.actions, {},
                                 [](const PlannedAction& planned) { return turnOf(planned.action.kind); });
        progress_.totalFiles = review_.actions.size();
    }

    Result<CarriedOut> run() {
        const auto entry = ledger_.open("carry-out", "carrying out", std::nullopt);
        if (!entry) {
            return entry.error();
        }
        result_.entry = *entry;
        for (const auto& planned : review_.actions) {
            if (!control_.proceed()) {
                result_.interrupted = true;
                break;
            }
            tell(planned.path);
            const auto outcome = carryOutOne(planned);
            if (outcome) {
                ++result_.done;
                result_.frees += planned.frees;
            } else if (outcome.error().cause == Cause::interrupted) {
                result_.interrupted = true;
                break;
            } else if (const auto noted = refuse(planned, outcome.error().sentence); !noted) {
                return noted.error();
            }
            ++progress_.files;
        }
        tell({});
        if (const auto closed = ledger_.close(result_.entry, summary()); !closed) {
            return closed.error();
        }
        return result_;
    }

  private:
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
               : planned.action.kind == restoreKind || planned.action.kind == repairKind ? mend(planned)
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
        if (isTaken(planned.path)) {
            return refusedError(planned.path,
                                "Something stands at its place again; survey the volume first.");
        }
        return record(planned, HoldingState::writtenOff, [] { return done(); });
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
        const auto stamp = checkedStamp(planned);
        if (!stamp) {
            return stamp.error();
        }
        hooks_.onInstant(Instant::checked);
        auto action = actionFor(planned);
        if (const auto noted = noteAside(ledger_, action, hooks_); !noted) {
            return noted;
        }
        if (const auto moved = moveAside(action, *stamp); !moved) {
            removeFile(action.note).ok();
            ledger_.mark(action, ActionStep::takenBack, moved.error().sentence).ok();
            return moved;
        }
        hooks_.onInstant(Instant::moved);
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
        const auto stamp = asRecorded(planned.path, planned.holding.checksum);
        if (!stamp) {
            return stamp.error();
        }
        if (const auto room = hasRoomFor(planned.path, bytes); !room) {
            return room;
        }
        hooks_.onInstant(Instant::checked);
        auto action = actionFor(planned);
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

    /// The stamp of the file, once it is proven to be what was recorded and a copy that stays has been
    /// compared with it byte for byte; or, where none has its bytes, another that carries the recording
    /// has been read and found to be what was recorded of it.
    Result<FileStamp> checkedStamp(const PlannedAction& planned) {
        const auto copies = Holdings(catalogue_).carrying(planned.holding.checksum);
        if (!copies) {
            return copies.error();
        }
        std::string lastReason;
        for (const auto& copy : *copies) {
            if (copy.id == planned.holding.id || going_.contains(copy.id)) {
                continue;
            }
            const auto volume = std::ranges::find(volumes_, copy.volume, &Volume::id);
            if (volume == volumes_.end() || !volume->atHand) {
                continue;
            }
            const auto path = joinPath(volume->root, copy.path);
            if (isSameEntry(path, planned.path)) {
                lastReason = displayPath(path) + " is the same file by another way, no copy.";
                continue;
            }
            const auto compared = compareContent(planned.path, path, control_, [&](std::uint64_t bytes) {
                progress_.bytes += bytes;
                tell(planned.path);
            });
            if (!compared) {
                if (compared.error().cause == Cause::interrupted || compared.error().path == planned.path) {
                    return compared.error();
                }
                lastReason = compared.error().sentence;
                continue;
            }
            if (compared->equal && compared->checksum == planned.holding.checksum) {
                return compared->first;
            }
            if (compared->equal) {
                return refusedError(planned.path,
                                    displayPath(planned.path) +
                                        " and its copy are not what was recorded; survey them again.");
            }
            lastReason = fmt::format("{} and {} differ by now; survey them again.", displayPath(planned.path),
                                     displayPath(path));
        }
        return standInStamp(planned, lastReason);
    }

    Result<FileStamp> standInStamp(const PlannedAction& planned, std::string lastReason) {
        const auto standIns = standInsFor(catalogue_, planned.holding, volumes_, going_);
        if (!standIns) {
            return standIns.error();
        }
        if (!standIns->empty()) {
            const auto own = asRecorded(planned.path, planned.holding.checksum);
            if (!own) {
                return own;
            }
            for (const auto& other : *standIns) {
                const auto volume = std::ranges::find(volumes_, other.volume, &Volume::id);
                const auto path = joinPath(volume->root, other.path);
                const auto stays = asRecorded(path, other.checksum);
                if (stays) {
                    return own;
                }
                if (stays.error().cause == Cause::interrupted) {
                    return stays;
                }
                lastReason = stays.error().sentence;
            }
        }
        return refusedError(planned.path, lastReason.empty()
                                              ? "No copy that stays is at hand; it stays."
                                              : "No copy that stays could be confirmed: " + lastReason);
    }

    /// Reads a file and holds it against what was recorded of it.
    Result<FileStamp> asRecorded(const BytePath& path, const Checksum128& recorded) {
        const auto read = passOverFile(path, control_, [&](std::uint64_t bytes) {
            progress_.bytes += bytes;
            tell(path);
        });
        if (!read) {
            return read.error();
        }
        if (read->checksums.file != recorded) {
            return refusedError(path, displayPath(path) + " is not what was recorded; survey it again.");
        }
        return read->stamp;
    }

    Catalogue& catalogue_;
    LedgerStore ledger_;
    RunControl& control_;
    const CarryOutHooks& hooks_;
    DocketReview review_;
    std::vector<Volume> volumes_;
    std::unordered_set<HoldingId> going_;
    CarriedOut result_;
    Progress progress_;
    std::chrono::steady_clock::time_point began_ = std::chrono::steady_clock::now();
};

} // namespace

Result<CarriedOut> carryOut(Catalogue& catalogue, RunControl& control, const CarryOutHooks& hooks) {
    if (const auto looked = lookForVolumes(catalogue); !looked) {
        return looked.error();
    }
    auto review = reviewDocket(catalogue);
    if (!review) {
        return review.error();
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
