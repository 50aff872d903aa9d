// What two recordings share, by fingerprints that are cut and put together; and what a candidate is told by.
#include "core/audit/tag_takeover.h"
#include "core/evidence/shared_passages.h"
#include "core/intake/candidates.h"
#include "core/intake/offer_source.h"
#include "core/intake/replacement.h"

#include <catch2/catch.hpp>

#include <random>

using namespace sober;

namespace {

/// Words that change as slowly as real ones.
Fingerprint heardWords(unsigned seed, std::size_t words) {
    std::mt19937 random(seed);
    Fingerprint made(words);
    auto word = static_cast<std::uint32_t>(random());
    for (auto& each : made) {
        word ^= static_cast<std::uint32_t>(random() & random() & random() & random());
        each = word;
    }
    return made;
}

/// A lossy copy: one bit in twenty is another.
Fingerprint copyOfWords(Fingerprint words, unsigned seed) {
    std::mt19937 random(seed);
    for (auto& word : words) {
        for (int bit = 0; bit < 32; ++bit) {
            word ^= random() % 20 == 0 ? 1U << bit : 0U;
        }
    }
    return words;
}

Fingerprint partOfWords(const Fingerprint& words, std::size_t from, std::size_t past) {
    return {words.begin() + static_cast<std::ptrdiff_t>(from),
            words.begin() + static_cast<std::ptrdiff_t>(past)};
}

Fingerprint joinedWords(Fingerprint first, const Fingerprint& second) {
    first.insert(first.end(), second.begin(), second.end());
    return first;
}

/// A pair of a low holding and a better one, to be changed by each case.
struct JudgedPair {
    JudgedPair() {
        wanted.holding.id = 1;
        wanted.holding.claims = {"mp3", "mp3", false, 96'000, 44'100, 2, 0, 240};
        wanted.why = WantedFor::underLimit;
        other.id = 2;
        other.claims = {"flac", "flac", true, 900'000, 44'100, 2, 16, 240};
        low.examined = better.examined = true;
        low.evidence.seconds = better.evidence.seconds = 240;
        low.evidence.fingerprint = heardWords(1, 1'900);
        better.evidence.fingerprint = copyOfWords(low.evidence.fingerprint, 2);
        low.evidence.verdict.verdict = better.evidence.verdict.verdict = VerdictClass::genuine;
        low.evidence.payload.bytes[0] = 1;
        better.evidence.payload.bytes[0] = 2;
        wanted.holding.checksum.bytes[0] = 1;
        other.checksum.bytes[0] = 2;
        comparison.agreeing = 1;
        comparison.compared = 240;
        comparison.residual = -20;
    }
    Candidate judged(std::optional<Sameness> sameness) {
        SetKnowledge pair;
        pair.add(low);
        pair.add(better);
        if (sameness) {
            pair.link(0, 1, *sameness, comparison);
        }
        Candidate candidate;
        judge(candidate, wanted, other, pair, std::array{Volume{}});
        return candidate;
    }
    WantedHolding wanted;
    Holding other;
    MemberFacts low;
    MemberFacts better;
    DecodeComparison comparison;
};

} // namespace

TEST_CASE("What two recordings share is told wherever it stands") {
    const auto piece = heardWords(1, 1'900);
    const auto whole = sharedPassages(piece, copyOfWords(piece, 5));
    CHECK(whole.share > 0.95);
    CHECK(whole.isInOneRow);
    const auto shorter = sharedPassages(piece, copyOfWords(partOfWords(piece, 300, 1'500), 6));
    CHECK(shorter.share > 0.95);
    CHECK(shorter.isInOneRow);
    const auto edit = sharedPassages(
        piece, copyOfWords(joinedWords(partOfWords(piece, 0, 700), partOfWords(piece, 1'200, 1'900)), 7));
    CHECK(edit.share > 0.8);
    CHECK_FALSE(edit.isInOneRow);
    for (unsigned seed = 20; seed < 40; ++seed) {
        CHECK(sharedPassages(piece, heardWords(seed, 1'700)).share < 0.2);
    }
    CHECK(sharedPassages(Fingerprint(1'000, 7), Fingerprint(1'000, 7)).share == 0); // silence says nothing
    CHECK(sharedPassages({}, piece).share == 0);
}

TEST_CASE("A candidate fits by what was measured, and what does not fit says why") {
    CHECK_FALSE(JudgedPair().judged(Sameness::lossyCopy).unfit.has_value());
    CHECK(JudgedPair().judged(Sameness::otherMaster).unfit == Unfit::otherMaster);
    CHECK(JudgedPair().judged(Sameness::samples).unfit == Unfit::notBetter);
    CHECK(JudgedPair().judged(Sameness::part).unfit == Unfit::otherLength);

    JudgedPair hurt;
    hurt.better.evidence.problems = {{"damaged", 1, "a frame does not decode"}};
    CHECK(hurt.judged(Sameness::lossyCopy).unfit == Unfit::unsound);

    JudgedPair low;
    low.other.claims = {"mp3", "mp3", false, 96'000, 44'100, 2, 0, 240};
    CHECK(low.judged(Sameness::lossyCopy).unfit == Unfit::notBetter);

    JudgedPair falseOne;
    falseOne.better.evidence.verdict.verdict = VerdictClass::transcoded;
    falseOne.better.evidence.verdict.sourceCodec = "mp3";
    falseOne.better.evidence.verdict.sourceBitrate = 96'000;
    CHECK(falseOne.judged(Sameness::lossyCopy).unfit == Unfit::notBetter);

    JudgedPair raised; // nothing beyond, and hardly any difference
    raised.other.claims = {"mp3", "mp3", false, 320'000, 44'100, 2, 0, 240};
    raised.low.evidence.bandwidth.emplace().cutoff = 15'000;
    raised.better.evidence.bandwidth.emplace().cutoff = 15'200;
    CHECK_FALSE(raised.judged(Sameness::lossyCopy).unfit.has_value());
    raised.comparison.residual = -45;
    CHECK(raised.judged(Sameness::lossyCopy).unfit == Unfit::notBetter);
    raised.better.evidence.bandwidth->cutoff = 19'000;
    CHECK_FALSE(raised.judged(Sameness::lossyCopy).unfit.has_value());

    JudgedPair unlike;
    unlike.better.evidence.fingerprint = heardWords(99, 1'900);
    CHECK(unlike.judged({}).unfit == Unfit::onlyTags);
    JudgedPair edit;
    edit.better.evidence.fingerprint =
        copyOfWords(joinedWords(partOfWords(edit.low.evidence.fingerprint, 0, 700),
                                partOfWords(edit.low.evidence.fingerprint, 1'200, 1'900)),
                    3);
    CHECK(edit.judged({}).unfit == Unfit::otherEdit);

    JudgedPair unexamined;
    unexamined.better.examined = false;
    CHECK(unexamined.judged(Sameness::lossyCopy).unfit == Unfit::notBetter);
    Candidate same;
    judge(same, JudgedPair().wanted, JudgedPair().other, {}, {});
    CHECK(same.unfit == Unfit::notBetter);
}

TEST_CASE("What is cut is replaced by what holds all of it, and by nothing lossy where it is lossless") {
    JudgedPair cut;
    cut.wanted.why = WantedFor::cut;
    cut.low.evidence.seconds = 100;
    cut.low.evidence.problems = {{"truncated", 100, "it breaks off"}};
    CHECK_FALSE(cut.judged(Sameness::part).unfit.has_value());
    cut.wanted.why = WantedFor::underLimit; // a passage that somebody keeps is another thing
    CHECK(cut.judged(Sameness::part).unfit == Unfit::otherLength);
    JudgedPair lossless;
    lossless.wanted.why = WantedFor::damaged;
    lossless.wanted.holding.claims.lossless = true;
    lossless.low.evidence.problems = {{"damaged", 9, "a frame does not decode"}};
    lossless.other.claims = {"mp3", "mp3", false, 320'000, 44'100, 2, 0, 240};
    CHECK(lossless.judged(Sameness::lossyCopy).unfit == Unfit::notBetter);
}

TEST_CASE("The best candidate at hand comes first, plain samples after what checks itself, what does not fit "
          "last") {
    std::vector<Candidate> all(5);
    all[0].path = "unfit";
    all[0].unfit = Unfit::onlyTags;
    all[0].quality = 9e9;
    all[1].path = "away";
    all[1].atHand = false;
    all[1].quality = 1e7;
    all[2].path = "plain";
    all[2].quality = 1e7;
    all[2].isPlain = true;
    all[3].path = "best";
    all[3].quality = 1e7;
    all[4].path = "lower";
    all[4].quality = 3e5;
    rank(all);
    std::vector<BytePath> order;
    std::ranges::transform(all, std::back_inserter(order), &Candidate::path);
    CHECK(order == std::vector<BytePath>{"best", "plain", "lower", "away", "unfit"});
}

TEST_CASE("A better file keeps what the old one says, or takes its own where somebody says so") {
    const TagFields old{{{"TITLE", {"Ebb"}}, {"GENRE", {"Shanty"}}, {"ENCODER", {"old"}}},
                        {{"image/png", 3, "old"}}};
    const TagFields fresh{{{"TITLE", {"ebb (remastered)"}}, {"COMPOSER", {"E. Marl"}}, {"ENCODER", {"new"}}},
                          {}};
    using Fields = std::map<std::string, std::vector<std::string>>;
    const auto kept = keptTags(old, fresh, false);
    CHECK(kept.fields == Fields{{"TITLE", {"Ebb"}}, {"GENRE", {"Shanty"}}});
    REQUIRE(kept.picture.has_value());
    CHECK(kept.picture->bytes == "old");
    CHECK(keptTags(old, fresh, true).fields == Fields{{"GENRE", {"Shanty"}}});
    CHECK(keptTags(fresh, fresh, false).isEmpty());

    const Replacement replacement{"/a/\xFF.flac", {}, {}, 12, kept, "the only take"};
    const auto again = unpackReplacement(packReplacement(replacement));
    REQUIRE(again.has_value());
    CHECK(again->source == replacement.source);
    CHECK(again->tags == kept);
    CHECK(again->acceptance == "the only take");
    for (const auto* bytes : {"", "x", "\x80"}) {
        CHECK_FALSE(unpackReplacement(bytes).has_value());
    }
}
