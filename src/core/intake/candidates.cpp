#include "core/intake/candidates.h"

#include "core/audit/carriers.h"
#include "core/audit/keeper.h"
#include "core/base/inner_path.h"
#include "core/base/text.h"
#include "core/catalogue/evidence_store.h"
#include "core/catalogue/findings.h"
#include "core/catalogue/holdings.h"
#include "core/catalogue/volumes.h"
#include "core/evidence/shared_passages.h"

#include <fmt/format.h>

#include <algorithm>
#include <array>
#include <cmath>

namespace sober {
namespace {

constexpr double leastShared = 0.5;    // of the windows: a piece played on other instruments shares up to 0.4
constexpr std::size_t mostAlikes = 40; // a title that half the collection has is not worth more
constexpr double nearlyAllShared = 0.85; // as for parts (audit/sameness)

/// Whether a lossy candidate shows nothing that the lossy one which is held has not: its bandwidth reaches no
/// further, and what differs is what an encoder adds to a decode of it. Measured with LAME and FFmpeg's AAC
/// at 160 to 320 kbit/s beside 128: made of it at -28 to -74 dB, made of the original at -15 to -43, those
/// below -25 dull pieces of which no more can be told.
bool mayBeMadeOfIt(const WantedHolding& wanted, const Holding& of, const SetKnowledge& pair) {
    constexpr double beyond = 1'000;   // Hz
    constexpr double littleLeft = -25; // dB
    const auto& own = pair.facts(0).evidence.bandwidth;
    const auto& others = pair.facts(1).evidence.bandwidth;
    const auto comparison = pair.comparison(0, 1);
    const bool areLossy = !wanted.holding.claims.lossless && !of.claims.lossless;
    return areLossy && own && others && others->cutoff < own->cutoff + beyond && comparison &&
           comparison->residual < littleLeft;
}

/// As if both were at hand: where something lies says nothing of how good it is.
std::vector<Volume> asIfAtHand(std::span<const Volume> volumes) {
    std::vector<Volume> all(volumes.begin(), volumes.end());
    for (auto& volume : all) {
        volume.atHand = true;
        volume.awayWithin.clear();
    }
    return all;
}

} // namespace

bool areApart(const Fingerprint& first, const Fingerprint& second) {
    const auto shared = sharedPassages(first, second);
    return shared.isKnown && (shared.share < leastShared || !shared.isInOneRow);
}

void tellApart(Candidate& candidate, const Fingerprint& wanted, double wantedSeconds,
               const Fingerprint& other, double otherSeconds) {
    const auto shared = sharedPassages(wanted, other);
    const double apart = otherSeconds - wantedSeconds;
    if (!shared.isKnown || shared.share < leastShared) {
        candidate.unfit = Unfit::onlyTags;
        candidate.reasons = {shared.isKnown ? "only the tags look alike, the sound is another recording"
                                            : "only the tags look alike; it is too short to tell more"};
    } else if (shared.share >= nearlyAllShared && shared.isInOneRow) {
        candidate.unfit = Unfit::otherLength;
        candidate.reasons = {lengthWords(apart)};
    } else {
        candidate.unfit = Unfit::otherEdit;
        candidate.reasons = {
            fmt::format("another edit: {:.0f} % of the shorter one is heard in the other, cut otherwise",
                        100 * shared.share)};
    }
}

std::string lengthWords(double apart) {
    return fmt::format("the same recording, {:.0f} s {}", std::abs(apart), apart < 0 ? "shorter" : "longer");
}

std::string_view word(CandidateSource source) {
    constexpr std::string_view words[]{"volume", "offer", "file"};
    return words[static_cast<std::size_t>(source)];
}

std::string_view word(Unfit unfit) {
    constexpr std::string_view words[]{"other-edit", "other-master", "other-length", "only-tags",
                                       "not-better", "not-on-offer", "unsound"};
    return words[static_cast<std::size_t>(unfit)];
}

void judge(Candidate& candidate, const WantedHolding& wanted, const Holding& of, const SetKnowledge& pair,
           std::span<const Volume> volumes) {
    const auto refuse = [&](Unfit unfit, std::string reason) {
        candidate.unfit = unfit;
        candidate.reasons = {std::move(reason)};
    };
    if (pair.isEmpty()) {
        refuse(Unfit::notBetter, "it has the same bytes");
        return;
    }
    const auto& facts = pair.facts(1);
    if (!facts.examined) {
        refuse(Unfit::notBetter, "it was not examined: survey its volume at full effort first");
        return;
    }
    candidate.cutoff =
        facts.evidence.bandwidth ? std::optional(facts.evidence.bandwidth->cutoff) : std::nullopt;
    candidate.quality = pair.quality(of, 1);
    candidate.isPlain = of.claims.codec.starts_with("pcm");
    const auto link = pair.between(0, 1);
    if (!link) {
        const auto& own = pair.facts(0).evidence;
        tellApart(candidate, own.fingerprint, own.seconds, facts.evidence.fingerprint,
                  facts.evidence.seconds);
        return;
    }
    if (!facts.evidence.sound()) {
        refuse(Unfit::unsound, "it is damaged itself: " + facts.evidence.problems.front().detail);
        return;
    }
    if (*link <= Sameness::samples) {
        refuse(Unfit::notBetter, samenessWords(*link));
        return;
    }
    if (*link == Sameness::otherMaster) {
        const auto comparison = pair.comparison(0, 1);
        refuse(Unfit::otherMaster,
               samenessWords(*link) + (comparison ? ": " + comparisonWords(*comparison) : std::string()));
        return;
    }
    const bool isBroken = wanted.isBroken();
    if (*link == Sameness::part && !(isBroken && isContained(0, 1, pair))) {
        refuse(Unfit::otherLength, lengthWords(facts.evidence.seconds - pair.facts(0).evidence.seconds));
        return;
    }
    if (!isBroken && candidate.quality < clearlyBetter * pair.quality(wanted.holding, 0)) {
        refuse(Unfit::notBetter, "it sounds no better by what was measured");
        return;
    }
    if (!isBroken && mayBeMadeOfIt(wanted, of, pair)) {
        refuse(Unfit::notBetter,
               "nothing of it reaches beyond what is held, and so little differs that it may have "
               "been made of it");
        return;
    }
    auto both = pair;
    if (!pair.isProven(0, 1)) {
        both.link(0, 1, *link,
                  DecodeComparison{}); // as if they were compared: only what each is worth counts
    }
    const auto loss = lossBetween(wanted.holding, 0, of, 1, both);
    if (!loss || (*loss != Loss::none && !(isBroken && *loss == Loss::passage))) {
        refuse(Unfit::notBetter, loss ? std::string(lossWords(*loss)) : "it was not shown to carry it");
        return;
    }
    // Only the sound counts: not where it lies, how it is called, nor when it came.
    auto plain = of;
    plain.volume = wanted.holding.volume;
    plain.path = wanted.holding.path;
    plain.mtime = wanted.holding.mtime;
    plain.tags = wanted.holding.tags;
    plain.inode = 0;
    const auto advice = adviseOn(std::array{wanted.holding, plain}, asIfAtHand(volumes), {}, both);
    if (advice[1].advice != Advice::keep && !isBroken) {
        refuse(Unfit::notBetter, advice[0].reasons.empty() ? std::string("it is no better")
                                                           : "what is held is: " + advice[0].reasons.front());
        return;
    }
    candidate.reasons = advice[1].reasons;
    if (candidate.reasons.empty()) {
        candidate.reasons.emplace_back("it is the better one");
    }
    if (!pair.isProvenPairwise(0, 1)) {
        candidate.reasons.emplace_back("by its fingerprint; both are laid over each other before anything is "
                                       "replaced");
    }
}

void rank(std::vector<Candidate>& candidates) {
    std::ranges::stable_sort(candidates, [](const Candidate& a, const Candidate& b) {
        return std::tuple(a.unfit.has_value(), !a.atHand, -a.quality, a.isPlain) <
               std::tuple(b.unfit.has_value(), !b.atHand, -b.quality, b.isPlain);
    });
}

Candidate HoldingsSource::candidateOf(const Holding& holding) const {
    Candidate candidate;
    candidate.holding = holding.id;
    const auto volume = std::ranges::find(volumes_, holding.volume, &Volume::id);
    if (volume != volumes_.end()) {
        candidate.path = joinPath(volume->root, holding.path);
        candidate.atHand = volume->reaches(holding.path);
    }
    return candidate;
}

Outcome HoldingsSource::addMembers(const WantedHolding& wanted, std::vector<Candidate>& candidates) const {
    const Findings findings(catalogue_);
    const auto set = findings.setOf(wanted.holding.id);
    if (!set || !*set || (*set)->sameness == Sameness::tagsOnly) {
        return set ? done() : Outcome(set.error());
    }
    const auto ids = findings.membersOf((*set)->id);
    const auto members = ids ? Holdings(catalogue_).byIds(*ids) : Result<std::vector<Holding>>(ids.error());
    const auto known =
        members ? SetKnowledge::of(catalogue_, *members) : Result<SetKnowledge>(members.error());
    RETURN_IF_FAILED(known);
    const auto self = std::ranges::find(*members, wanted.holding.id, &Holding::id);
    if (self == members->end()) {
        return done();
    }
    for (std::size_t at = 0; at < members->size(); ++at) {
        const auto& member = (*members)[at];
        if (member.id != wanted.holding.id && !isInsideArchive(member.path)) {
            auto candidate = candidateOf(member);
            judge(candidate, wanted, member,
                  known->ofPair(static_cast<std::size_t>(self - members->begin()), at), volumes_);
            candidates.push_back(std::move(candidate));
        }
    }
    return done();
}

Outcome HoldingsSource::addAlikes(const WantedHolding& wanted, std::span<const HoldingId> alikes,
                                  std::vector<Candidate>& candidates) const {
    const auto holdings = Holdings(catalogue_).byIds(alikes);
    RETURN_IF_FAILED(holdings);
    const auto title = lettersAndDigits(wanted.holding.tags.title);
    const auto artist = lettersAndDigits(wanted.holding.tags.artist);
    std::size_t taken = 0;
    for (const auto& holding : *holdings) {
        const auto other = lettersAndDigits(holding.tags.artist);
        const bool isLeft =
            holding.id == wanted.holding.id || isInsideArchive(holding.path) ||
            std::ranges::find(candidates, holding.id, &Candidate::holding) != candidates.end();
        if (isLeft || (!artist.empty() && !other.empty() && artist != other) || taken == mostAlikes) {
            continue;
        }
        ++taken;
        const auto pair = SetKnowledge::of(catalogue_, std::array{wanted.holding, holding});
        RETURN_IF_FAILED(pair);
        auto candidate = candidateOf(holding);
        judge(candidate, wanted, holding, *pair, volumes_);
        candidates.push_back(std::move(candidate));
    }
    return done();
}

Outcome HoldingsSource::gatherTitles() {
    return EvidenceStore(catalogue_).eachComparable([&](const ComparableHolding& holding) {
        const auto title = holding.tagged ? lettersAndDigits(holding.title) : std::string();
        if (!title.empty()) {
            byTitle_.emplace(std::hash<std::string>()(title), holding.holding);
        }
    });
}

std::vector<HoldingId> HoldingsSource::alikesOf(const WantedHolding& wanted) const {
    std::vector<HoldingId> alikes;
    const auto title = lettersAndDigits(wanted.holding.tags.title);
    const auto [first, past] = byTitle_.equal_range(std::hash<std::string>()(title));
    for (auto each = first; !title.empty() && each != past; ++each) {
        alikes.push_back(each->second);
    }
    std::ranges::sort(alikes);
    return alikes;
}

Result<std::vector<std::vector<Candidate>>>
HoldingsSource::candidatesFor(std::span<const WantedHolding> wanted, RunControl& control) {
    if (volumes_.empty()) {
        auto volumes = Volumes(catalogue_).all();
        const auto gathered = volumes ? gatherTitles() : Outcome(volumes.error());
        RETURN_IF_FAILED(gathered);
        volumes_ = std::move(*volumes);
    }
    std::vector<std::vector<Candidate>> all;
    for (const auto& each : wanted) {
        if (!control.proceed()) {
            return Error{Cause::interrupted, {}, "Stopped before all that is wanted was looked at."};
        }
        auto& candidates = all.emplace_back();
        auto outcome = addMembers(each, candidates);
        outcome = outcome ? addAlikes(each, alikesOf(each), candidates) : outcome;
        RETURN_IF_FAILED(outcome);
        rank(candidates);
    }
    return all;
}

} // namespace sober
