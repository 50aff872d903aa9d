#include "core/salvage/recogniser.h"

#include "core/audit/sameness.h"
#include "core/base/text.h"
#include "core/catalogue/evidence_store.h"
#include "core/catalogue/holdings.h"
#include "core/catalogue/volumes.h"
#include "core/evidence/fingerprint_index.h"
#include "core/media/carve/piece.h"

#include <algorithm>
#include <cmath>
#include <map>
#include <unordered_map>

namespace sober {
namespace {

/// By how much lengths may differ of what only tags recognise, in seconds. No source.
constexpr double tagLength = 2;

Outcome recogniseBy(RecognisedBy by, const Result<std::vector<HoldingId>>& holdings, Find& find) {
    RETURN_IF_FAILED(holdings);
    if (find.recognised == RecognisedBy::nothing && !holdings->empty()) {
        find.recognised = by;
        find.holding = holdings->front();
        find.agreement = 1;
    }
    return done();
}

/// Title and artist, as they are compared.
std::string tagKey(const std::string& title, const std::string& artist) {
    return lettersAndDigits(title) + '\n' + lettersAndDigits(artist);
}

/// The fingerprints of the catalogue, so many together, and those of finds behind them.
class ByEar {
  public:
    ByEar(const Catalogue& catalogue, std::span<Find> finds) : catalogue_(catalogue), finds_(finds) {
        for (auto& find : finds) {
            find.kin = find.id;
            if (find.recognised == RecognisedBy::nothing && !find.fingerprint.empty()) {
                asked_.push_back(&find);
            }
        }
    }

    Outcome run() {
        joinByTags();
        if (const auto heard = asked_.empty() ? done() : compareAll(); !heard) {
            return heard;
        }
        for (auto& find : finds_) {
            find.kin = rootOf(find.kin);
        }
        return done();
    }

  private:
    Outcome compareAll() {
        for (const auto* find : asked_) {
            heard_.push_back(unpackFingerprint(find->fingerprint).value_or(Fingerprint{}));
        }
        const auto read =
            SalvageStore(catalogue_).eachFingerprint([&](HoldingId id, std::string_view packed) {
                constexpr std::size_t together = 4096;
                known_.push_back(id);
                words_.push_back(unpackFingerprint(packed).value_or(Fingerprint{}));
                if (known_.size() == together) {
                    compare();
                }
            });
        if (!read) {
            return read;
        }
        compare();
        for (auto* find : asked_) {
            if (const auto best = best_.find(find); best != best_.end()) {
                find->recognised = RecognisedBy::fingerprint;
                find->holding = best->second.second;
                find->agreement = 1 - best->second.first;
            }
        }
        return done();
    }

    void compare() {
        FingerprintIndex index;
        index.add(0, words_);
        index.add(static_cast<std::uint32_t>(known_.size()), heard_);
        for (const auto& met : index.candidates()) {
            judge(met);
        }
        known_.clear();
        words_.clear();
        heardTogether_ = true;
    }

    /// What says that it is the same piece is one line of a list, however little of it is left.
    void joinByTags() {
        std::unordered_map<std::string, FindId> first;
        for (const auto& find : finds_) {
            if (find.recognised == RecognisedBy::nothing && !find.tags.title.empty() &&
                !find.tags.artist.empty()) {
                join(first.try_emplace(tagKey(find.tags.title, find.tags.artist), find.id).first->second,
                     find.id);
            }
        }
    }

    void judge(const FingerprintCandidate& met) {
        const auto count = static_cast<std::uint32_t>(known_.size());
        if (met.second < count) {
            return; // both are the catalogue's
        }
        const auto& second = heard_[met.second - count];
        auto* find = asked_[met.second - count];
        if (met.first >= count) {
            if (heardTogether_) {
                return;
            }
            const auto match = agreementNear(heard_[met.first - count], second, met.offset);
            if (match && isOneRecordingByEar(match->bitErrors)) {
                join(asked_[met.first - count]->kin, find->kin);
            }
            return;
        }
        const auto match = agreementNear(words_[met.first], second, met.offset);
        if (match && isOneRecordingByEar(match->bitErrors)) {
            const auto [best, isNew] = best_.try_emplace(find, match->bitErrors, known_[met.first]);
            if (!isNew && match->bitErrors < best->second.first) {
                best->second = {match->bitErrors, known_[met.first]};
            }
        }
    }

    FindId rootOf(FindId id) {
        for (auto above = kin_.find(id); above != kin_.end(); above = kin_.find(id)) {
            id = above->second;
        }
        return id;
    }
    void join(FindId a, FindId b) {
        a = rootOf(a);
        b = rootOf(b);
        if (a != b) {
            kin_[std::max(a, b)] = std::min(a, b);
        }
    }

    const Catalogue& catalogue_;
    std::span<Find> finds_;
    std::vector<Find*> asked_;
    std::vector<Fingerprint> heard_; ///< of those
    std::vector<HoldingId> known_;
    std::vector<Fingerprint> words_; ///< of those
    bool heardTogether_ = false;     ///< the finds, with each other
    std::map<Find*, std::pair<double, HoldingId>> best_;
    std::unordered_map<FindId, FindId> kin_;
};

Outcome recogniseByTags(const Catalogue& catalogue, std::span<Find> finds) {
    const auto isAsked = [](const Find& find) {
        return find.recognised == RecognisedBy::nothing && !find.tags.title.empty() &&
               !find.tags.artist.empty();
    };
    if (std::ranges::none_of(finds, isAsked)) {
        return done();
    }
    std::unordered_multimap<std::string, Find*> asked;
    for (auto& find : finds) {
        if (isAsked(find)) {
            asked.emplace(tagKey(find.tags.title, find.tags.artist), &find);
        }
    }
    const auto read = SalvageStore(catalogue).eachTitled([&](const SalvageStore::Titled& titled) {
        const auto [from, to] = asked.equal_range(tagKey(titled.title, titled.artist));
        std::for_each(from, to, [&](const auto& each) {
            auto& find = *each.second;
            if (find.holding == 0 && (!find.ends || std::abs(titled.seconds - find.seconds) <= tagLength)) {
                find.recognised = RecognisedBy::tags;
                find.holding = titled.holding;
            }
        });
    });
    return read;
}

} // namespace

Result<bool> takeDown(const Catalogue& catalogue, Find& find, const FileRecord& record) {
    find.examined = true;
    find.checksum = record.checksums.file;
    find.tags = record.tags;
    find.sound = record.evidence && record.evidence->sound() && record.problem.empty();
    if (find.format.empty()) {
        const auto& container = record.claims.container;
        find.format = container == "m4a" ? word(PieceKind::mp4) : container;
    }
    const SalvageStore store(catalogue);
    if (const auto known = recogniseBy(RecognisedBy::bytes, store.withBytes(record.checksums.file), find);
        !known) {
        return known.error();
    }
    if (record.evidence) {
        const auto& evidence = *record.evidence;
        find.seconds = evidence.seconds;
        find.fingerprint = packFingerprint(evidence.fingerprint);
        const bool tells = !evidence.levels.silent && evidence.seconds > 0;
        const auto payload =
            tells ? recogniseBy(RecognisedBy::payload, store.withPayload(evidence.payload), find) : done();
        const auto samples =
            tells && evidence.samplesMd5
                ? recogniseBy(RecognisedBy::samples, store.withSamples(*evidence.samplesMd5), find)
                : done();
        if (!payload || !samples) {
            return payload ? samples.error() : payload.error();
        }
    } else if (record.claims.duration > 0 && find.seconds <= 0) {
        find.seconds = record.claims.duration;
    }
    if (find.recognised == RecognisedBy::bytes) {
        find.complete = 1;
        find.ends = true;
    }
    return find.recognised != RecognisedBy::nothing;
}

Outcome shareOut(const Catalogue& catalogue, std::span<Find> finds) {
    std::map<Checksum128, std::vector<Find*>> alike;
    for (auto& find : finds) {
        if (find.checksum &&
            (find.recognised == RecognisedBy::bytes || find.recognised == RecognisedBy::blocks)) {
            alike[*find.checksum].push_back(&find);
        }
    }
    for (const auto& [checksum, those] : alike) {
        const auto ids =
            those.size() > 1 ? SalvageStore(catalogue).withBytes(checksum) : Result(std::vector<HoldingId>{});
        auto holdings = ids ? Holdings(catalogue).byIds(*ids) : Result<std::vector<Holding>>(ids.error());
        RETURN_IF_FAILED(holdings);
        std::erase_if(*holdings, [](const Holding& each) { return each.state != HoldingState::missing; });
        auto rest = those;
        for (const bool byName : {true, false}) {
            std::erase_if(rest, [&](Find* find) {
                const auto own = std::ranges::find_if(*holdings, [&](const Holding& each) {
                    return !byName || nameOf(each.path) == find->name;
                });
                if (own == holdings->end()) {
                    return false;
                }
                find->holding = own->id;
                holdings->erase(own);
                return true;
            });
        }
    }
    return done();
}

Outcome recogniseByEar(const Catalogue& catalogue, std::span<Find> finds) {
    const auto heard = ByEar(catalogue, finds).run();
    return heard ? recogniseByTags(catalogue, finds) : heard;
}

std::string_view word(FindStanding standing) {
    switch (standing) {
    case FindStanding::missing:
        return "missing";
    case FindStanding::held:
        return "held";
    case FindStanding::retired:
        return "retired";
    case FindStanding::unknown:
        break;
    }
    return "new";
}

Result<std::vector<KnownFind>> standingsOf(const Catalogue& catalogue, std::span<const Find> finds) {
    std::vector<HoldingId> ids;
    for (const auto& find : finds) {
        if (find.holding != 0) {
            ids.push_back(find.holding);
        }
    }
    const Holdings store(catalogue);
    const auto volumes = Volumes(catalogue).all();
    const auto holdings = store.byIds(ids);
    if (!volumes || !holdings) {
        return volumes ? holdings.error() : volumes.error();
    }
    std::unordered_map<HoldingId, const Holding*> byId;
    for (const auto& holding : *holdings) {
        byId[holding.id] = &holding;
    }
    std::vector<KnownFind> known(finds.size());
    for (std::size_t i = 0; i < finds.size(); ++i) {
        const auto found = byId.find(finds[i].holding);
        if (found == byId.end()) {
            continue;
        }
        const auto& holding = *found->second;
        const auto volume = std::ranges::find(*volumes, holding.volume, &Volume::id);
        known[i].holding = holding;
        if (volume != volumes->end()) {
            known[i].place = joinPath(volume->root, holding.path);
            known[i].atHand = volume->reaches(holding.path);
        }
        if (holding.state == HoldingState::missing) {
            const auto others = store.carrying(holding.checksum);
            RETURN_IF_FAILED(others);
            known[i].standing = others->empty() ? FindStanding::missing : FindStanding::held;
        } else {
            known[i].standing =
                holding.state == HoldingState::present || holding.state == HoldingState::leftOut
                    ? FindStanding::held
                    : FindStanding::retired;
        }
    }
    return known;
}

} // namespace sober
