#include "core/audit/keeper.h"
#include "core/audit/lineage.h"
#include "core/audit/set_knowledge.h"
#include "core/catalogue/recording_pairs.h"
#include "support/collection.h"

#include <catch2/catch.hpp>

#include <algorithm>

using namespace sober;
using namespace sober::test;

namespace {

/// One member of a set, told by what matters for the advice.
struct Told {
    const char* path;
    const char* codec;
    bool lossless;
    std::int64_t bitrate;
    VerdictClass verdict = VerdictClass::genuine;
    std::int64_t sourceBitrate = 0;
    bool sound = true;
    double seconds = 200;
    int bits = 16;
    VolumeId volume = 1;
};

Holding holdingOf(const Told& told, HoldingId id) {
    Holding holding;
    holding.id = id;
    holding.volume = told.volume;
    holding.path = told.path;
    holding.size = 1000;
    holding.mtime = 1000;
    holding.claims.codec = told.codec;
    holding.claims.lossless = told.lossless;
    holding.claims.bitrate = told.bitrate;
    holding.checksum.bytes[0] = static_cast<std::uint8_t>(id);
    return holding;
}

MemberFacts factsOf(const Told& told, HoldingId id) {
    MemberFacts facts;
    facts.examined = true;
    facts.evidence.payload.bytes[0] = static_cast<std::uint8_t>(id);
    facts.evidence.seconds = told.seconds;
    facts.evidence.levels.effectiveBitDepth = told.lossless ? told.bits : 0;
    facts.evidence.verdict.verdict = told.verdict;
    if (told.sourceBitrate > 0) {
        facts.evidence.verdict.sourceCodec = "mp3";
        facts.evidence.verdict.sourceBitrate = told.sourceBitrate;
    }
    if (!told.sound) {
        facts.evidence.problems.push_back({"damaged", 3, "a frame does not decode"});
    }
    return facts;
}

DecodeComparison compared(double residual, double offset = 0, double gain = 0) {
    DecodeComparison comparison;
    comparison.residual = residual;
    comparison.offset = offset;
    comparison.gain = gain;
    comparison.agreeing = 1;
    comparison.compared = 100;
    return comparison;
}

/// A set of told members, each two of them linked alike.
struct Set {
    std::vector<Holding> members;
    SetKnowledge known;
    std::vector<Volume> volumes{2};

    Set(const std::vector<Told>& all, Sameness link, double offset = 0) {
        HoldingId id = 0;
        for (const auto& told : all) {
            members.push_back(holdingOf(told, ++id));
            known.add(factsOf(told, id));
        }
        for (std::size_t first = 0; first < all.size(); ++first) {
            for (std::size_t second = first + 1; second < all.size(); ++second) {
                known.link(first, second, link, compared(-30, offset));
            }
        }
        volumes[0].id = 1;
        volumes[0].label = "GANNET";
        volumes[1].id = 2;
        volumes[1].label = "TERN";
    }
    std::vector<MemberAdvice> advice(const Policy& policy = {}) const {
        return adviseOn(members, volumes, policy, known);
    }
};

} // namespace

TEST_CASE("what was measured goes before what is claimed") {
    struct Row {
        const char* why;
        Told kept, gone;
        Advice other = Advice::retire;
    };
    using enum VerdictClass;
    const auto row = GENERATE(values<Row>({
        {"sound before damaged",
         {"a", "mp3", false, 128'000},
         {"b", "mp3", false, 128'000, genuine, 0, false}},
        {"a damaged lossless beside a sound lossy copy: what is left of it is still lossless",
         {"a", "mp3", false, 128'000},
         {"b", "flac", true, 0, genuine, 0, false},
         Advice::decide},
        {"a genuine 192 before a false 320",
         {"a", "mp3", false, 192'000},
         {"b", "mp3", false, 320'000, transcoded, 128'000}},
        {"a true lossless before all", {"a", "flac", true, 0}, {"b", "mp3", false, 320'000}},
        {"an honest 256 before a false lossless",
         {"a", "mp3", false, 256'000},
         {"b", "flac", true, 0, transcoded, 192'000}},
        {"a dull lossless before a lossy copy",
         {"a", "flac", true, 0, undetermined},
         {"b", "aac", false, 256'000}},
        {"Opus at 128 before MP3 at 160", {"a", "opus", false, 128'000}, {"b", "mp3", false, 160'000}},
        {"a doubtful 320 after a genuine 256",
         {"a", "mp3", false, 256'000},
         {"b", "mp3", false, 320'000, doubtful}},
        {"more bits that are really used",
         {"a", "flac", true, 0, genuine, 0, true, 200, 24},
         {"b", "flac", true, 0, genuine, 0, true, 200, 16}},
        {"compressed before plain samples", {"a", "flac", true, 0}, {"b", "pcm_s16le", true, 0}},
        {"two that are as good as each other",
         {"a", "mp3", false, 192'000},
         {"b", "mp3", false, 192'000},
         Advice::decide},
    }));
    INFO(row.why);
    for (const bool turnedRound : {false, true}) {
        const Set set(turnedRound ? std::vector{row.gone, row.kept} : std::vector{row.kept, row.gone},
                      Sameness::lossyCopy);
        const auto advice = set.advice();
        REQUIRE(advice.size() == 2);
        const auto& kept = advice[turnedRound ? 1 : 0];
        const auto& gone = advice[turnedRound ? 0 : 1];
        CHECK(kept.advice == Advice::keep);
        CHECK(gone.advice == row.other);
        CHECK_FALSE(kept.reasons.empty());
        CHECK_FALSE(gone.reasons.empty());
    }
}

TEST_CASE("parts and other masters are retired only where nothing is lost") {
    const Told whole{"whole.flac", "flac", true, 0};
    const Told lowPart{"part.mp3", "mp3", false, 128'000, VerdictClass::genuine, 0, true, 120};
    const Told wholeLow{"whole.mp3", "mp3", false, 128'000};
    const Told betterPart{"part.flac", "flac", true, 0, VerdictClass::genuine, 0, true, 120};
    const auto adviceOnPart = [](const Set& set, HoldingId id) {
        const auto all = set.advice();
        return std::ranges::find(all, id, &MemberAdvice::holding)->advice;
    };
    CHECK(adviceOnPart(Set({whole, lowPart}, Sameness::part, 20), 2) == Advice::retire);
    CHECK(adviceOnPart(Set({whole, lowPart}, Sameness::part, 160), 2) == Advice::decide); // runs past its end
    CHECK(adviceOnPart(Set({whole, lowPart}, Sameness::part, -20), 2) == Advice::decide); // begins before
    CHECK(adviceOnPart(Set({whole, wholeLow}, Sameness::otherMaster), 2) == Advice::decide);
    // Shorter but better: both stay, whichever is shown as kept.
    const Set better({wholeLow, betterPart}, Sameness::part, 20);
    CHECK(std::ranges::none_of(better.advice(),
                               [](const MemberAdvice& one) { return one.advice == Advice::retire; }));
}

TEST_CASE("where two copies are as good as each other, only a preference decides") {
    const Set set({{"Albums/a.mp3", "mp3", false, 192'000}, {"Loose/a.mp3", "mp3", false, 192'000}},
                  Sameness::lossyCopy);
    const auto plain = set.advice();
    CHECK(std::ranges::count(plain, Undecided::asGood, &MemberAdvice::why) == 1);
    CHECK(std::ranges::count(plain, Advice::retire, &MemberAdvice::advice) == 0);
    const auto preferred =
        set.advice({0, "", {{PreferenceKind::inFolder, 0, "Loose"}}, Sameness::part, false});
    CHECK(preferred[0].advice == Advice::retire);
    CHECK(preferred[1].advice == Advice::keep);
}

TEST_CASE("a short passage of a long recording is left to decide") {
    const Set set({{"side.flac", "flac", true, 900'000},
                   {"song.flac", "flac", true, 900'000, VerdictClass::genuine, 0, true, 60}},
                  Sameness::part);
    CHECK(set.advice()[1].why == Undecided::passage);
}

TEST_CASE("nothing is retired in exchange for a damaged or an absent copy") {
    const Told damagedA{"a.flac", "flac", true, 0, VerdictClass::genuine, 0, false};
    const Told damagedB{"b.mp3", "mp3", false, 192'000, VerdictClass::genuine, 0, false};
    for (const auto& one : Set({damagedA, damagedB}, Sameness::lossyCopy).advice()) {
        CHECK(one.advice == Advice::decide);
    }
    Set away({{"low.mp3", "mp3", false, 96'000}, {"best.flac", "flac", true, 0}}, Sameness::lossyCopy);
    away.members[1].volume = 2;
    away.volumes[1].atHand = false;
    const auto advice = away.advice();
    CHECK(advice[0].advice == Advice::keep);
    CHECK(advice[1].advice == Advice::decide);
}

TEST_CASE("a copy that only its fingerprint ties is left to decide") {
    Set set({{"a.flac", "flac", true, 0}, {"b.mp3", "mp3", false, 192'000}}, Sameness::lossyCopy);
    set.known = SetKnowledge();
    for (HoldingId id = 1; id <= 2; ++id) {
        set.known.add(factsOf({"", id == 1 ? "flac" : "mp3", id == 1, 192'000}, id));
    }
    set.known.link(0, 1, Sameness::lossyCopy);
    CHECK_FALSE(set.known.isProven(0, 1));
    const auto advice = set.advice();
    CHECK(advice[1].advice == Advice::decide);
    CHECK(advice[1].reasons[0] == "only the fingerprints were compared");
}

TEST_CASE("comparisons are seen from either side") {
    SetKnowledge known;
    known.add({});
    known.add({});
    known.link(0, 1, Sameness::otherMaster, compared(-40, 3, -2));
    CHECK(known.comparison(0, 1)->offset == 3);
    CHECK(known.comparison(1, 0)->offset == -3);
    CHECK(known.comparison(1, 0)->gain == 2);
    CHECK(known.between(1, 0) == Sameness::otherMaster);
    CHECK_FALSE(SetKnowledge().between(0, 1).has_value());
}

TEST_CASE("recording pairs outlive the program and are told from either side") {
    Collection collection;
    const RecordingPairs pairs(collection.catalogue());
    RecordingPair pair;
    pair.first.bytes[0] = 9;
    pair.second.bytes[0] = 4;
    pair.bitErrors = 0.01;
    pair.offset = 2;
    pair.comparison = compared(-33.25, 2.5, -1.5);
    pair.comparison->overTime = {-30, -36.5F, -120};
    pair.comparison->byBand[3] = -17.5F;
    pair.comparison->blockSeconds = 0.743;
    RecordingPair apart;
    apart.first.bytes[0] = 1;
    apart.second.bytes[0] = 2;
    REQUIRE(pairs.put(std::vector{pair, apart}).ok());
    REQUIRE(pairs.put(std::vector{apart}).ok()); // written anew, not twice
    CHECK(pairs.all()->size() == 2);

    const auto found = pairs.of(pair.first, pair.second);
    REQUIRE(found->has_value());
    CHECK((*found)->offset == 2);
    CHECK((*found)->comparison->offset == Approx(2.5));
    CHECK((*found)->comparison->residual == Approx(-33.25));
    CHECK((*found)->comparison->overTime == std::vector<float>{-30, -36.5F, -120});
    CHECK((*found)->comparison->byBand[3] == Approx(-17.5));
    const auto other = pairs.of(pair.second, pair.first);
    CHECK((*other)->comparison->offset == Approx(-2.5));
    CHECK((*other)->comparison->gain == Approx(1.5));
    CHECK_FALSE((*pairs.of(apart.first, apart.second))->comparison.has_value());
    CHECK_FALSE(pairs.of(apart.first, pair.second)->has_value());
}

TEST_CASE("lineage hangs a false file on the kind of source that its evidence names") {
    Set set({{"best.flac", "flac", true, 0},
             {"low.mp3", "mp3", false, 128'000},
             {"false.mp3", "mp3", false, 320'000, VerdictClass::transcoded, 128'000},
             {"other.ogg", "vorbis", false, 160'000}},
            Sameness::lossyCopy);
    const auto tree = lineageOf(set.members, set.known, 0);
    REQUIRE(tree.size() == 4);
    CHECK(tree[0].member == 0);
    CHECK_FALSE(tree[0].from.has_value());
    const auto of = [&](std::size_t member) { return *std::ranges::find(tree, member, &Descent::member); };
    CHECK(of(1).from == 0);
    CHECK(of(2).from == 1);
    CHECK(of(2).told);
    CHECK(of(2).words.find("made from it") != std::string::npos);
    CHECK(of(3).from == 0);
    CHECK(lineageOf({}, SetKnowledge(), 0).empty());
}
