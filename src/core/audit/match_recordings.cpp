#include "core/audit/match_recordings.h"

#include "core/audit/sameness.h"
#include "core/base/text.h"
#include "core/catalogue/evidence_store.h"
#include "core/catalogue/holdings.h"
#include "core/catalogue/recording_pairs.h"
#include "core/catalogue/volumes.h"
#include "core/evidence/fingerprint_index.h"
#include "core/evidence/worker/evidence_worker.h"

#include <tbb/enumerable_thread_specific.h>
#include <tbb/parallel_for.h>

#include <algorithm>
#include <chrono>
#include <map>
#include <numeric>
#include <set>
#include <unordered_map>

namespace sober {
namespace {

/// Share of differing fingerprint bits up to which two are worth decoding. Lossy copies were measured at
/// 0.002 to 0.05, equalised and mono ones up to 0.12, unrelated recordings at 0.44.
constexpr double worthComparing = 0.25;
constexpr std::size_t together = 8;        // pairs between two writes
constexpr std::size_t readTogether = 1024; // fingerprints

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
        : catalogue_(catalogue), store_(catalogue), control_(control), onProgress_(onProgress) {}

    Result<MatchReport> run() {
        for (const auto step : {&Matcher::gather, &Matcher::recall, &Matcher::findCandidates}) {
            if (const auto taken = (this->*step)(); !taken) {
                return taken.error();
            }
        }
        progress_.totalFiles = candidates_.size();
        while (!candidates_.empty() && !control_.isCancelled()) {
            if (const auto passed = passOver(); !passed) {
                return passed.error();
            }
        }
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
        if (!volumes) {
            return volumes.error();
        }
        std::map<Checksum128, std::size_t> byPayload;
        std::map<Md5, std::size_t> bySamples;
        const auto atHand = [&](VolumeId id) {
            const auto volume = std::ranges::find(*volumes, id, &Volume::id);
            return volume != volumes->end() && volume->atHand;
        };
        const auto walked = store_.eachComparable([&](const ComparableHolding& holding) {
            auto known = byPayload.find(holding.payload);
            std::size_t place = recordings_.size();
            if (known != byPayload.end()) {
                place = known->second;
            } else if (holding.samples) {
                const auto same = bySamples.try_emplace(*holding.samples, place);
                place = same.first->second;
            }
            byPayload.try_emplace(holding.payload, place);
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
        if (!holdings) {
            return holdings.error();
        }
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
        if (!pairs) {
            return pairs.error();
        }
        std::map<Checksum128, std::size_t> byPayload;
        for (std::size_t at = 0; at < recordings_.size(); ++at) {
            byPayload.emplace(recordings_[at].holding.payload, at);
        }
        for (const auto& pair : *pairs) {
            const auto first = byPayload.find(pair.first);
            const auto second = byPayload.find(pair.second);
            if (first == byPayload.end() || second == byPayload.end()) {
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

    Outcome findCandidates() {
        FingerprintIndex index;
        std::vector<std::size_t> batch;
        for (std::size_t at = 0; at < recordings_.size() && control_.proceed(); at += batch.size()) {
            batch.resize(std::min(readTogether, recordings_.size() - at));
            std::iota(batch.begin(), batch.end(), at);
            const auto read = fingerprintsOf(batch);
            if (!read) {
                return read.error();
            }
            index.add(static_cast<std::uint32_t>(at), *read);
        }
        if (control_.isCancelled()) {
            return done();
        }
        auto met = index.candidates();
        std::erase_if(met, [&](const FingerprintCandidate& each) {
            return known_.contains({each.first, each.second});
        });
        for (std::size_t at = 0; at < met.size() && control_.proceed(); at += readTogether) {
            const auto now = std::span(met).subspan(at, std::min(readTogether, met.size() - at));
            if (const auto weighed = weigh(now); !weighed) {
                return weighed;
            }
        }
        std::ranges::sort(candidates_, {}, &MatchCandidate::bitErrors);
        return done();
    }

    Result<std::vector<Fingerprint>> fingerprintsOf(std::span<const std::size_t> recordings) const {
        std::vector<HoldingId> ids;
        std::ranges::transform(recordings, std::back_inserter(ids),
                               [&](std::size_t at) { return recordings_[at].holding.holding; });
        const auto packed = store_.packedFingerprints(ids);
        if (!packed) {
            return packed.error();
        }
        std::vector<Fingerprint> read(recordings.size());
        tbb::parallel_for(std::size_t{0}, read.size(), [&](std::size_t at) {
            read[at] = unpackFingerprint((*packed)[at]).value_or(Fingerprint{});
        });
        return read;
    }

    /// Keeps those of the candidates whose fingerprints agree.
    Outcome weigh(std::span<const FingerprintCandidate> met) {
        std::vector<std::size_t> needed;
        for (const auto& each : met) {
            needed.push_back(each.first);
            needed.push_back(each.second);
        }
        std::ranges::sort(needed);
        needed.erase(std::ranges::unique(needed).begin(), needed.end());
        const auto read = fingerprintsOf(needed);
        if (!read) {
            return read.error();
        }
        const auto wordsOf = [&](std::uint32_t number) -> const Fingerprint& {
            return (*read)[static_cast<std::size_t>(std::ranges::lower_bound(needed, std::size_t{number}) -
                                                    needed.begin())];
        };
        std::vector<std::optional<FingerprintMatch>> matches(met.size());
        tbb::parallel_for(std::size_t{0}, met.size(), [&](std::size_t at) {
            matches[at] = agreementNear(wordsOf(met[at].first), wordsOf(met[at].second), met[at].offset);
        });
        for (std::size_t at = 0; at < met.size(); ++at) {
            if (matches[at] && matches[at]->bitErrors <= worthComparing) {
                candidates_.push_back({met[at].first, met[at].second, matches[at]->bitErrors,
                                       matches[at]->offset * fingerprintWordSeconds});
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
        std::vector<RecordingPair> made;
        for (std::size_t at = 0; at < batch.size(); ++at) {
            if (pairs[at]) {
                report_.compared += pairs[at]->comparison ? 1 : 0;
                judge(*pairs[at], batch[at].first, batch[at].second);
                made.push_back(std::move(*pairs[at]));
            }
        }
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
    std::vector<Recording> recordings_;
    std::set<std::pair<std::size_t, std::size_t>> known_; ///< compared before
    std::vector<MatchCandidate> candidates_;
    std::vector<std::size_t> parent_; ///< recordings that are proven to be one waveform, joined
    /// Of those joined, with which others it was settled how they are the same, or that they are not.
    std::unordered_map<std::size_t, std::set<std::size_t>> judged_;
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
