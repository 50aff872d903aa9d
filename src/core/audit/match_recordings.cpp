#include "core/audit/match_recordings.h"

#include "core/audit/sameness.h"
#include "core/base/text.h"
#include "core/catalogue/evidence_store.h"
#include "core/catalogue/holdings.h"
#include "core/catalogue/landmark_store.h"
#include "core/catalogue/recording_pairs.h"
#include "core/catalogue/volumes.h"
#include "core/evidence/fingerprint_index.h"
#include "core/evidence/worker/evidence_worker.h"

#include <tbb/enumerable_thread_specific.h>
#include <tbb/parallel_for.h>
#include <tbb/parallel_sort.h>

#include <algorithm>
#include <chrono>
#include <map>
#include <numeric>
#include <set>
#include <unordered_map>
#include <utility>

namespace sober {
namespace {

/// Share of differing fingerprint bits up to which two are worth decoding. Lossy copies were measured at
/// 0.002 to 0.05, equalised and mono ones up to 0.12, unrelated recordings at 0.44.
constexpr double worthComparing = 0.25;
constexpr std::size_t together = 8;                 // pairs that are compared at once
constexpr auto keptEvery = std::chrono::seconds(1); // what a killed run has to compare again at most
constexpr std::size_t readTogether = 1024;          // fingerprints
constexpr std::size_t metTogether = 16'384;         // new recordings: their landmarks take 100 MB

struct Recording {
    ComparableHolding holding;
    BytePath path; ///< "" where it is away
};

struct MatchCandidate {
    std::size_t first, second; ///< into the recordings
    double bitErrors;
    double offset; ///< seconds
};

class Matcher {
  public:
    Matcher(const Catalogue& catalogue, RunControl& control, const ProgressSink& onProgress)
        : catalogue_(catalogue),
          store_(catalogue),
          control_(control),
          onProgress_(onProgress),
          landmarks_(catalogue) {}

    Result<MatchReport> run() {
        for (const auto step : {&Matcher::gather, &Matcher::recall, &Matcher::takeOwners, &Matcher::meetNew,
                                &Matcher::takeMet}) {
            RETURN_IF_FAILED((this->*step)());
        }
        progress_.totalFiles = candidates_.size();
        while (!candidates_.empty() && !control_.isCancelled()) {
            RETURN_IF_FAILED(passOver());
        }
        RETURN_IF_FAILED(keep());
        report_.interrupted = control_.isCancelled();
        return report_;
    }

  private:
    /// Compares what can be compared at the same time; pairs that wait for another's outcome stay.
    Outcome passOver() {
        std::vector<MatchCandidate> later;
        std::vector<MatchCandidate> batch;
        std::set<std::size_t> busy;
        for (std::size_t at = 0; at <= candidates_.size(); ++at) {
            if (batch.size() == together || at == candidates_.size()) {
                if (const auto compared = compare(batch); !compared) {
                    return compared;
                }
                batch.clear();
                busy.clear();
            }
            if (at == candidates_.size() || !control_.proceed()) {
                break;
            }
            const auto first = rootOf(candidates_[at].first);
            const auto second = rootOf(candidates_[at].second);
            if (first == second || judged_[first].contains(second)) {
                ++progress_.files;
            } else if (busy.contains(first) || busy.contains(second)) {
                later.push_back(candidates_[at]);
            } else {
                ++progress_.files;
                busy.insert({first, second});
                batch.push_back(candidates_[at]);
            }
        }
        candidates_ = std::move(later);
        return done();
    }

    /// One recording for each content of audio data; those of the same samples count once.
    Outcome gather() {
        const auto volumes = Volumes(catalogue_).all();
        RETURN_IF_FAILED(volumes);
        std::map<Md5, std::size_t> bySamples;
        const auto atHand = [&](VolumeId id) {
            const auto volume = std::ranges::find(*volumes, id, &Volume::id);
            return volume != volumes->end() && volume->atHand;
        };
        const auto walked = store_.eachComparable([&](const ComparableHolding& holding) {
            auto known = byPayload_.find(holding.payload);
            std::size_t place = recordings_.size();
            if (known != byPayload_.end()) {
                place = known->second;
            } else if (holding.samples) {
                const auto same = bySamples.try_emplace(*holding.samples, place);
                place = same.first->second;
            }
            byPayload_.try_emplace(holding.payload, place);
            if (place == recordings_.size()) {
                recordings_.push_back({holding, {}});
            } else if (!atHand(recordings_[place].holding.volume) && atHand(holding.volume)) {
                recordings_[place].holding = holding;
            }
        });
        if (!walked) {
            return walked;
        }
        std::vector<HoldingId> ids;
        std::ranges::transform(recordings_, std::back_inserter(ids),
                               [](const Recording& recording) { return recording.holding.holding; });
        const auto holdings = Holdings(catalogue_).byIds(ids);
        RETURN_IF_FAILED(holdings);
        std::unordered_map<HoldingId, BytePath> paths;
        for (const auto& holding : *holdings) {
            const auto volume = std::ranges::find(*volumes, holding.volume, &Volume::id);
            if (volume != volumes->end() && volume->atHand) {
                paths[holding.id] = joinPath(volume->root, holding.path);
            }
        }
        for (auto& recording : recordings_) {
            recording.path = paths[recording.holding.holding];
        }
        report_.recordings = recordings_.size();
        parent_.resize(recordings_.size());
        std::iota(parent_.begin(), parent_.end(), std::size_t{0});
        return done();
    }

    Outcome recall() {
        const auto pairs = RecordingPairs(catalogue_).all();
        RETURN_IF_FAILED(pairs);
        for (const auto& pair : *pairs) {
            const auto first = byPayload_.find(pair.first);
            const auto second = byPayload_.find(pair.second);
            if (first == byPayload_.end() || second == byPayload_.end() || first->second == second->second) {
                continue;
            }
            const bool comparable =
                !recordings_[first->second].path.empty() && !recordings_[second->second].path.empty();
            if (pair.comparison || !comparable) {
                known_.insert(std::minmax(first->second, second->second));
                judge(pair, first->second, second->second);
            }
        }
        return done();
    }

    /// Which recordings were held against all others before; what is no longer held is forgotten.
    Outcome takeOwners() {
        const auto owners = landmarks_.owners();
        RETURN_IF_FAILED(owners);
        std::vector<std::uint32_t> gone;
        std::vector<bool> isOwned(recordings_.size());
        for (const auto& owner : *owners) {
            if (const auto known = byPayload_.find(owner.payload); known != byPayload_.end()) {
                placeOf_.emplace(owner.number, known->second);
                isOwned[known->second] = true;
            } else {
                gone.push_back(owner.number);
            }
        }
        for (std::size_t at = 0; at < recordings_.size(); ++at) {
            if (!isOwned[at]) {
                new_.push_back(at);
            }
        }
        return gone.empty() ? done() : landmarks_.forget(gone);
    }

    /// Holds what is new against all that is known and against each other, and keeps what is to be compared.
    Outcome meetNew() {
        for (std::size_t at = 0; at < new_.size() && control_.proceed(); at += metTogether) {
            const auto now = std::span(new_).subspan(at, std::min(metTogether, new_.size() - at));
            if (const auto met = meet(now); !met) {
                return met;
            }
        }
        return done();
    }

    Outcome meet(std::span<const std::size_t> now) {
        const auto next = landmarks_.nextNumber();
        RETURN_IF_FAILED(next);
        std::vector<LandmarkOwner> owners;
        std::vector<Landmark> made;
        for (std::size_t at = 0; at < now.size(); at += readTogether) {
            if (!control_.proceed()) {
                return done(); // as if they had not been met: they are new the next time
            }
            const auto some = now.subspan(at, std::min(readTogether, now.size() - at));
            const auto read = fingerprintsOf(some);
            RETURN_IF_FAILED(read);
            std::vector<std::vector<Landmark>> each(read->size());
            const auto number = *next + static_cast<std::uint32_t>(at);
            tbb::parallel_for(std::size_t{0}, read->size(), [&](std::size_t i) {
                each[i] = landmarksOf((*read)[i], number + static_cast<std::uint32_t>(i));
            });
            for (std::size_t i = 0; i < each.size(); ++i) {
                owners.push_back(
                    {number + static_cast<std::uint32_t>(i), recordings_[some[i]].holding.payload});
                placeOf_.emplace(owners.back().number, some[i]);
                made.insert(made.end(), each[i].begin(), each[i].end());
            }
        }
        tbb::parallel_sort(made.begin(), made.end());
        std::vector<std::uint32_t> keys;
        for (const auto& landmark : made) {
            if (keys.empty() || keys.back() != landmark.key) {
                keys.push_back(landmark.key);
            }
        }
        const auto known = landmarks_.withKeys(keys);
        RETURN_IF_FAILED(known);
        FingerprintIndex index;
        index.add(*known);
        index.add(made);
        auto candidates = index.candidates(*next);
        std::erase_if(candidates, [&](const FingerprintCandidate& each) {
            const auto first = placeOf_.find(each.first);
            const auto second = placeOf_.find(each.second);
            return first == placeOf_.end() || second == placeOf_.end() || first->second == second->second;
        });
        std::vector<MetPair> met;
        for (std::size_t at = 0; at < candidates.size() && control_.proceed(); at += readTogether) {
            const auto some =
                std::span(candidates).subspan(at, std::min(readTogether, candidates.size() - at));
            if (const auto weighed = weigh(some, met); !weighed) {
                return weighed;
            }
        }
        return control_.isCancelled() ? done() : landmarks_.add(owners, made, met);
    }

    /// All that were ever met and were not compared yet.
    Outcome takeMet() {
        const auto met = landmarks_.met();
        RETURN_IF_FAILED(met);
        for (const auto& pair : *met) {
            const auto first = placeOf_.find(pair.first);
            const auto second = placeOf_.find(pair.second);
            if (first != placeOf_.end() && second != placeOf_.end() && first->second != second->second &&
                !known_.contains(std::minmax(first->second, second->second))) {
                candidates_.push_back(
                    {first->second, second->second, pair.bitErrors, pair.offset * fingerprintWordSeconds});
            }
        }
        std::ranges::stable_sort(candidates_, {}, &MatchCandidate::bitErrors);
        return done();
    }

    Result<std::vector<Fingerprint>> fingerprintsOf(std::span<const std::size_t> recordings) const {
        std::vector<HoldingId> ids;
        std::ranges::transform(recordings, std::back_inserter(ids),
                               [&](std::size_t at) { return recordings_[at].holding.holding; });
        const auto packed = store_.packedFingerprints(ids);
        RETURN_IF_FAILED(packed);
        std::vector<Fingerprint> read(recordings.size());
        tbb::parallel_for(std::size_t{0}, read.size(), [&](std::size_t at) {
            read[at] = unpackFingerprint((*packed)[at]).value_or(Fingerprint{});
        });
        return read;
    }

    /// Keeps those of the candidates whose fingerprints agree.
    Outcome weigh(std::span<const FingerprintCandidate> candidates, std::vector<MetPair>& met) {
        std::vector<std::size_t> needed;
        for (const auto& each : candidates) {
            needed.push_back(placeOf_.at(each.first));
            needed.push_back(placeOf_.at(each.second));
        }
        std::ranges::sort(needed);
        needed.erase(std::ranges::unique(needed).begin(), needed.end());
        const auto read = fingerprintsOf(needed);
        RETURN_IF_FAILED(read);
        const auto wordsOf = [&](std::uint32_t number) -> const Fingerprint& {
            return (*read)[static_cast<std::size_t>(std::ranges::lower_bound(needed, placeOf_.at(number)) -
                                                    needed.begin())];
        };
        std::vector<std::optional<FingerprintMatch>> matches(candidates.size());
        tbb::parallel_for(std::size_t{0}, candidates.size(), [&](std::size_t at) {
            const auto& each = candidates[at];
            matches[at] = agreementNear(wordsOf(each.first), wordsOf(each.second), each.offset);
        });
        for (std::size_t at = 0; at < candidates.size(); ++at) {
            if (matches[at] && matches[at]->bitErrors <= worthComparing) {
                met.push_back({candidates[at].first, candidates[at].second, matches[at]->offset,
                               matches[at]->bitErrors});
            }
        }
        return done();
    }

    Outcome compare(const std::vector<MatchCandidate>& batch) {
        std::vector<std::optional<RecordingPair>> pairs(batch.size());
        if (!batch.empty()) {
            progress_.at = displayPath(nameOf(recordings_[batch.front().first].path));
            progress_.elapsed =
                std::chrono::duration<double>(std::chrono::steady_clock::now() - began_).count();
            onProgress_(progress_);
        }
        tbb::parallel_for(std::size_t{0}, batch.size(), [&](std::size_t at) {
            const auto& first = recordings_[batch[at].first];
            const auto& second = recordings_[batch[at].second];
            RecordingPair pair{first.holding.payload, second.holding.payload, batch[at].bitErrors,
                               batch[at].offset, std::nullopt};
            if (!first.path.empty() && !second.path.empty()) {
                const auto compared =
                    workers_.local().compare(first.path, second.path, batch[at].offset, control_);
                if (!compared) {
                    return; // as if it had not been met: the next survey comes back to it
                }
                pair.comparison = *compared;
            }
            pairs[at] = pair;
        });
        for (std::size_t at = 0; at < batch.size(); ++at) {
            if (pairs[at]) {
                report_.compared += pairs[at]->comparison ? 1 : 0;
                judge(*pairs[at], batch[at].first, batch[at].second);
                made_.push_back(std::move(*pairs[at]));
            }
        }
        const auto now = std::chrono::steady_clock::now();
        return now - kept_ > keptEvery ? keep() : done();
    }

    /// Writes down what was compared.
    Outcome keep() {
        kept_ = std::chrono::steady_clock::now();
        const auto made = std::exchange(made_, {});
        return made.empty() ? done() : RecordingPairs(catalogue_).put(made);
    }

    void judge(const RecordingPair& pair, std::size_t first, std::size_t second) {
        const auto link =
            samenessOf(pair, recordings_[first].holding.duration, recordings_[second].holding.duration);
        report_.alike += link && pair.comparison ? 1 : 0;
        if (link == Sameness::lossyCopy && pair.comparison) {
            join(rootOf(first), rootOf(second));
        } else {
            judged_[rootOf(first)].insert(rootOf(second));
            judged_[rootOf(second)].insert(rootOf(first));
        }
    }

    /// What was judged of either holds for both from now on.
    void join(std::size_t kept, std::size_t gone) {
        if (kept == gone) {
            return;
        }
        if (judged_[kept].size() < judged_[gone].size()) {
            std::swap(kept, gone);
        }
        parent_[gone] = kept;
        for (const auto other : judged_[gone]) {
            judged_[other].erase(gone);
            judged_[other].insert(kept);
            judged_[kept].insert(other);
        }
        judged_.erase(gone);
    }

    std::size_t rootOf(std::size_t at) {
        while (parent_[at] != at) {
            parent_[at] = parent_[parent_[at]];
            at = parent_[at];
        }
        return at;
    }

    const Catalogue& catalogue_;
    EvidenceStore store_;
    RunControl& control_;
    tbb::enumerable_thread_specific<EvidenceWorker> workers_;
    const ProgressSink& onProgress_;
    LandmarkStore landmarks_;
    std::vector<Recording> recordings_;
    std::map<Checksum128, std::size_t> byPayload_;           ///< each content's recording
    std::unordered_map<std::uint32_t, std::size_t> placeOf_; ///< each landmark owner's
    std::vector<std::size_t> new_;                        ///< recordings that were held against nothing yet
    std::set<std::pair<std::size_t, std::size_t>> known_; ///< compared before
    std::vector<MatchCandidate> candidates_;
    std::vector<std::size_t> parent_; ///< recordings that are proven to be one waveform, joined
    /// Of those joined, with which others it was settled how they are the same, or that they are not.
    std::unordered_map<std::size_t, std::set<std::size_t>> judged_;
    std::vector<RecordingPair> made_; ///< compared, and not written down yet
    std::chrono::steady_clock::time_point kept_ = std::chrono::steady_clock::now();
    MatchReport report_;
    Progress progress_;
    std::chrono::steady_clock::time_point began_ = std::chrono::steady_clock::now();
};

} // namespace

Result<MatchReport> matchRecordings(const Catalogue& catalogue, RunControl& control,
                                    const ProgressSink& onProgress) {
    return Matcher(catalogue, control, onProgress).run();
}

} // namespace sober
