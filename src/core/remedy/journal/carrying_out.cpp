#include "core/remedy/journal/carrying_out.h"

#include "core/base/text.h"
#include "core/evidence/worker/evidence_worker.h"
#include "core/remedy/journal/batch.h"
#include "core/remedy/journal/made_folders.h"

#include <fmt/format.h>

#include <algorithm>
#include <chrono>

namespace sober {
namespace {

constexpr std::uint64_t longestReading = 1 << 30; // bytes that are read between a proof and its act

/// What an action reads before anything is changed.
std::uint64_t bytesToRead(const PlannedAction& planned) {
    const auto& type = typeOf(planned.action.kind);
    const std::uint64_t times = planned.refused                               ? 0
                                : type.references == References::beforeItGoes ? 2
                                : type.madeTogether                           ? 2
                                : type.isMade()                               ? 1
                                                                              : 0;
    return times * planned.holding.size;
}

class CarryingOut {
  public:
    CarryingOut(Catalogue& catalogue, RunControl& control, const CarryOutHooks& hooks, DocketReview review,
                const std::vector<Volume>& volumes)
        : ledger_(catalogue),
          control_(control),
          hooks_(hooks),
          review_(std::move(review)),
          prover_(catalogue, control,
                  [this](std::uint64_t bytes, const BytePath& path) { wentBy(bytes, path); }),
          counting_(hooks),
          context_{catalogue, control,
                   volumes,   prover_,
                   worker_,   [this](std::uint64_t bytes, const BytePath& path) { wentBy(bytes, path); }} {
        for (const auto& planned : review_.actions) {
            progress_.totalBytes += bytesToRead(planned);
        }
        // References are repointed first, so that what is retired or moved takes them along; what is mended
        // is mended while its healthy copies are there.
        std::ranges::stable_sort(review_.actions, {}, [](const PlannedAction& planned) {
            return std::pair(typeOf(planned.action.kind).turn, planned.action.kind);
        });
        progress_.totalFiles = review_.actions.size();
        // Many that are made together are counted one by one.
        counting_.onInstant = [this](Instant instant) {
            progress_.files += instant == Instant::made ? 1 : 0;
            hooks_.onInstant(instant);
        };
    }

    Result<CarriedOut> run() {
        const auto entry = ledger_.open("carry-out", "carrying out", std::nullopt);
        RETURN_IF_FAILED(entry);
        result_.entry = *entry;
        for (std::size_t at = 0; at < review_.actions.size() && !result_.interrupted;) {
            if (!control_.proceed()) {
                result_.interrupted = true;
                break;
            }
            const auto batch = batchFrom(at);
            at += batch.size();
            const auto outcome =
                batch.front()->action.kind == ActionKind::repoint
                    ? repoint(batch)
                    : Batch(context_, counting_, result_, written_)
                          .run(batch, [this](const PlannedAction& planned) { tell(planned.path); });
            RETURN_IF_FAILED(outcome);
            progress_.files = at;
            tell({});
        }
        const auto unflushed = ledger_.unflushed();
        RETURN_IF_FAILED(unflushed);
        std::ranges::transform(*unflushed, std::back_inserter(result_.unflushed), &LedgerAction::place);
        // Made for what did not come.
        RETURN_IF_FAILED(result_.refused.empty() && !result_.interrupted
                             ? done()
                             : removeMadeFolders(context_.catalogue, result_.entry));
        const auto closed = ledger_.close(result_.entry, summary());
        return closed ? Result(result_) : Result<CarriedOut>(closed.error());
    }

  private:
    std::vector<const PlannedAction*> batchFrom(std::size_t at) const {
        std::vector<const PlannedAction*> batch;
        const auto kind = review_.actions[at].action.kind;
        const bool alone = typeOf(kind).isMadeAlone();
        std::uint64_t reading = 0;
        for (; at < review_.actions.size() && review_.actions[at].action.kind == kind; ++at) {
            reading += bytesToRead(review_.actions[at]);
            const bool isFull = alone || batch.size() == largestBatch || reading > longestReading;
            if (!batch.empty() && isFull && kind != ActionKind::repoint) {
                break;
            }
            batch.push_back(&review_.actions[at]);
        }
        return batch;
    }

    /// All at once: a list of a hundred thousand entries is not written once for each.
    Outcome repoint(const std::vector<const PlannedAction*>& batch) {
        NewPlaces places;
        for (const auto* planned : batch) {
            if (!planned->refused) {
                places.emplace(planned->path, planned->target);
            }
        }
        tell(batch.front()->path);
        const auto following = Following::lead(context_.catalogue, result_.entry, std::move(places), control_,
                                               hooks_, &written_);
        RETURN_IF_FAILED(following);
        result_.interrupted = result_.interrupted || following->wasInterrupted();
        result_.references += following->references();
        std::vector<BytePath> repointed;
        std::vector<LedgerAction> left;
        for (const auto* planned : batch) {
            const auto why = following->left().find(planned->path);
            if (!planned->refused && why == following->left().end()) {
                ++result_.done;
                repointed.push_back(planned->path);
            } else if (planned->refused || !result_.interrupted) {
                left.push_back(refused(*planned, planned->refused ? *planned->refused : why->second));
            }
        }
        std::vector<LedgerAction*> noted;
        std::ranges::transform(left, std::back_inserter(noted), [](LedgerAction& each) { return &each; });
        const auto started = ledger_.start(noted);
        return started ? DocketStore(context_.catalogue).removePlaces(repointed) : started;
    }

    LedgerAction refused(const PlannedAction& planned, const std::string& sentence) {
        result_.refused.push_back({planned.path, sentence});
        LedgerAction action;
        action.entry = result_.entry;
        action.kind = planned.action.kind;
        action.place = planned.path;
        action.step = ActionStep::refused;
        action.sentence = sentence;
        return action;
    }

    void wentBy(std::uint64_t bytes, const BytePath& path) {
        progress_.bytes += bytes;
        tell(path);
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
        if (!result_.unflushed.empty()) {
            text += fmt::format(", {} not confirmed by their drives", humanCount(result_.unflushed.size()));
        }
        if (result_.interrupted) {
            text += ", stopped before the end";
        }
        return text;
    }

    LedgerStore ledger_;
    RunControl& control_;
    const CarryOutHooks& hooks_;
    DocketReview review_;
    CarriedOut result_;
    WrittenLists written_;
    Progress progress_;
    std::chrono::steady_clock::time_point began_ = std::chrono::steady_clock::now();
    Prover prover_;
    EvidenceWorker worker_;
    CarryOutHooks counting_;
    DoingContext context_;
};

} // namespace

Result<CarriedOut> carryOutReviewed(Catalogue& catalogue, RunControl& control, const CarryOutHooks& hooks,
                                    DocketReview review, const std::vector<Volume>& volumes) {
    return CarryingOut(catalogue, control, hooks, std::move(review), volumes).run();
}

} // namespace sober
