// What carries a recording and what would be lost: the rule by itself, told by what was measured of each.
#include "core/audit/carriers.h"
#include "core/audit/keeper.h"

#include <catch2/catch.hpp>

#include <map>

using namespace sober;

namespace {

struct Form {
    std::string codec = "flac";
    bool lossless = true;
    std::int64_t bitrate = 900'000;
    VerdictClass verdict = VerdictClass::genuine;
    std::int64_t sourceBitrate = 0;
    double seconds = 200;
    bool accepted = false;
    bool examined = true;
};

const std::map<std::string, Form> forms{
    {"flac", {}},
    {"wav", {"pcm_s16le", true, 1'411'200}},
    {"mp3 320", {"mp3", false, 320'000}},
    {"mp3 256", {"mp3", false, 256'000}},
    {"mp3 192", {"mp3", false, 192'000}},
    {"mp3 128", {"mp3", false, 128'000}},
    {"aac 256", {"aac", false, 256'000}},
    {"opus 128", {"opus", false, 128'000}},
    {"false flac", {"flac", true, 900'000, VerdictClass::transcoded, 128'000}},
    {"accepted false flac", {"flac", true, 900'000, VerdictClass::transcoded, 128'000, 200, true}},
    {"doubtful flac", {"flac", true, 900'000, VerdictClass::doubtful}},
    {"dull flac", {"flac", true, 900'000, VerdictClass::undetermined}},
    {"false 320", {"mp3", false, 320'000, VerdictClass::transcoded, 128'000}},
    {"doubtful 320", {"mp3", false, 320'000, VerdictClass::doubtful}},
    {"short flac", {"flac", true, 900'000, VerdictClass::genuine, 0, 150}},
    {"passage", {"flac", true, 900'000, VerdictClass::genuine, 0, 60}},
    {"short mp3 320", {"mp3", false, 320'000, VerdictClass::genuine, 0, 150}},
};

Holding holdingOf(const Form& form, HoldingId id) {
    Holding holding;
    holding.id = id;
    holding.claims.codec = form.codec;
    holding.claims.lossless = form.lossless;
    holding.claims.bitrate = form.bitrate;
    return holding;
}

MemberFacts factsOf(const Form& form) {
    MemberFacts facts;
    facts.examined = form.examined;
    facts.accepted = form.accepted;
    facts.evidence.seconds = form.seconds;
    facts.evidence.verdict.verdict = form.verdict;
    if (form.sourceBitrate > 0) {
        facts.evidence.verdict.sourceCodec = "mp3";
        facts.evidence.verdict.sourceBitrate = form.sourceBitrate;
    }
    return facts;
}

DecodeComparison compared(double offset = 0) {
    DecodeComparison comparison;
    comparison.agreeing = 1;
    comparison.compared = 100;
    comparison.residual = -30;
    comparison.offset = offset;
    return comparison;
}

/// A pair of forms with how they are the same.
struct Pair {
    Holding goes;
    Holding stays;
    SetKnowledge known;

    Pair(const std::string& going, const std::string& staying, Sameness link,
         std::optional<DecodeComparison> comparison = compared()) {
        goes = holdingOf(forms.at(going), 1);
        stays = holdingOf(forms.at(staying), 2);
        known.add(factsOf(forms.at(going)));
        known.add(factsOf(forms.at(staying)));
        known.link(0, 1, link, std::move(comparison));
    }
    std::optional<Loss> loss() const { return lossBetween(goes, 0, stays, 1, known); }
};

} // namespace

TEST_CASE("what is lost of a lossy copy follows from what each of both really is") {
    struct Row {
        std::string goes;
        std::string stays;
        Loss loss;
    };
    const auto row = GENERATE(values<Row>({
        {"flac", "wav", Loss::none},
        {"wav", "flac", Loss::none},
        {"flac", "mp3 320", Loss::lossless},
        {"flac", "aac 256", Loss::lossless},
        {"dull flac", "mp3 320", Loss::lossless},
        {"doubtful flac", "mp3 320", Loss::lossless},
        {"false flac", "mp3 320", Loss::none},
        {"false flac", "mp3 128", Loss::none},
        {"accepted false flac", "mp3 320", Loss::lossless},
        {"flac", "false flac", Loss::lossless},
        {"flac", "doubtful flac", Loss::genuineness},
        {"flac", "accepted false flac", Loss::none},
        {"mp3 320", "flac", Loss::none},
        {"mp3 320", "mp3 256", Loss::none}, // a third of an octave says nothing
        {"mp3 320", "mp3 192", Loss::quality},
        {"mp3 320", "mp3 128", Loss::quality},
        {"mp3 192", "mp3 320", Loss::none},
        {"mp3 192", "opus 128", Loss::none}, // Opus counts 1.6 times
        {"mp3 192", "false 320", Loss::genuineness},
        {"mp3 192", "doubtful 320", Loss::genuineness},
        {"mp3 192", "false flac", Loss::genuineness},
        {"false 320", "mp3 192", Loss::none},
        {"false 320", "false 320", Loss::none},
        {"doubtful 320", "false 320", Loss::quality},
    }));
    CAPTURE(row.goes, row.stays);
    const auto loss = Pair(row.goes, row.stays, Sameness::lossyCopy).loss();
    REQUIRE(loss.has_value());
    CHECK(lossWord(*loss) == lossWord(row.loss));
}

TEST_CASE("what is the same by its bytes, audio data or samples loses nothing, whatever each claims") {
    for (const auto link : {Sameness::bytes, Sameness::payload, Sameness::samples}) {
        for (const auto& [goes, form] : forms) {
            CHECK(Pair(goes, "false flac", link, {}).loss() == Loss::none);
        }
    }
}

TEST_CASE("another master is lost whatever stays; parts are carried where all of them is heard") {
    CHECK(Pair("mp3 128", "flac", Sameness::otherMaster).loss() == Loss::master);
    CHECK(Pair("flac", "flac", Sameness::otherMaster).loss() == Loss::master);
    struct Row {
        std::string goes;
        std::string stays;
        double begins; ///< seconds of what stays at which what goes begins
        Loss loss;
    };
    const auto row = GENERATE(values<Row>({
        {"short flac", "flac", 0, Loss::none},
        {"short flac", "flac", 50, Loss::none},
        {"short flac", "flac", 60, Loss::whole}, // ten seconds hang over
        {"short flac", "flac", -10, Loss::whole},
        {"flac", "short flac", 0, Loss::whole},
        {"flac", "short mp3 320", 0, Loss::whole}, // the graver of two losses
        {"short flac", "mp3 320", 0, Loss::lossless},
        {"short mp3 320", "flac", 20, Loss::none},
        {"passage", "flac", 20, Loss::passage},
        {"flac", "passage", 0, Loss::whole},
    }));
    CAPTURE(row.goes, row.stays, row.begins);
    // As seen from the first of the pair: what goes; turned round it is where it begins in what stays.
    const auto loss = Pair(row.goes, row.stays, Sameness::part, compared(-row.begins)).loss();
    REQUIRE(loss.has_value());
    CHECK(lossWord(*loss) == lossWord(row.loss));
}

TEST_CASE("what was not proven of this pair carries nothing") {
    CHECK_FALSE(Pair("mp3 128", "flac", Sameness::lossyCopy, std::nullopt).loss()); // fingerprints alone
    SetKnowledge apart;
    apart.add(factsOf(forms.at("flac")));
    apart.add(factsOf(forms.at("flac")));
    CHECK_FALSE(lossBetween(holdingOf({}, 1), 0, holdingOf({}, 2), 1, apart));
    CHECK(lossBetween(holdingOf({}, 1), 0, holdingOf({}, 2), 1, SetKnowledge()) ==
          Loss::none); // all bytes alike
}

TEST_CASE("pairs are proven by themselves or by one with the same samples, not by chains") {
    SetKnowledge known;
    for (int at = 0; at < 4; ++at) {
        known.add(factsOf(forms.at(at == 3 ? "wav" : "mp3 256")));
    }
    known.link(0, 1, Sameness::lossyCopy, compared());
    known.link(2, 3, Sameness::samples);
    CHECK(known.isProvenPairwise(0, 1));
    CHECK(known.isProvenPairwise(2, 3));
    CHECK_FALSE(known.isProvenPairwise(0, 2));
}

TEST_CASE("each loss has its word, and its words say what would be left") {
    for (const auto loss : {Loss::none, Loss::quality, Loss::passage, Loss::genuineness, Loss::lossless,
                            Loss::whole, Loss::master}) {
        CHECK(lossFromWord(lossWord(loss)) == loss);
        CHECK(lossWords(loss).empty() == (loss == Loss::none));
        CHECK((lossWords(loss).empty() || lossWords(loss).find("would be") != std::string_view::npos));
    }
    CHECK(lossFromWord("everything") == Loss::none);
}

TEST_CASE("the advice never loses what the rule names") {
    std::vector<Volume> volumes(1);
    volumes[0].id = 1;
    for (const auto& [first, one] : forms) {
        for (const auto& [second, other] : forms) {
            Pair pair(first, second, Sameness::lossyCopy);
            pair.goes.volume = pair.stays.volume = 1;
            const std::vector members{pair.goes, pair.stays};
            const auto advice = adviseOn(members, volumes, {}, pair.known);
            for (std::size_t at = 0; at < 2; ++at) {
                CAPTURE(first, second, at);
                if (advice[at].advice == Advice::retire) {
                    CHECK(lossBetween(members[at], at, members[1 - at], 1 - at, pair.known) == Loss::none);
                }
            }
        }
    }
}
