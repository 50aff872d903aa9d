// Other forms of a recording, held against FFmpeg's own decoder: lengths to the sample, tags, and what is
// refused.
#include "core/catalogue/evidence_store.h"
#include "core/evidence/worker/evidence_worker.h"
#include "core/transfer/forms.h"
#include "core/transfer/plan.h"
#include "core/work/prove_transfer.h"
#include "core/work/run_transfer.h"
#include "support/player_collection.h"
#include "support/run_program.h"
#include "support/small_audio.h"
#include "support/sound.h"

#include <numeric>

using namespace sober;
using namespace sober::test;
namespace fs = std::filesystem;

namespace {

/// Frames of a file as the ffmpeg tool decodes them, in 16-bit stereo.
std::size_t framesOf(const BytePath& path, int rate) {
    const auto raw = path + ".raw";
    const auto decoded = run({"ffmpeg", "-v", "error", "-y", "-i", path, "-ac", "2", "-ar",
                              std::to_string(rate), "-f", "s16le", raw});
    REQUIRE(decoded.code == 0);
    const auto frames = fs::file_size(raw) / 4;
    fs::remove(raw);
    return frames;
}

struct EncodedForms : PlayerCollection {
    /// Frames that are no whole number of any encoder's.
    static constexpr std::size_t frames = 44'100 * 7 + 123;

    EncodedForms() {
        fs::create_directories(*this / "V");
        const auto filter =
            "anoisesrc=c=pink:a=0.3:seed=5:r=44100,lowpass=12000,aformat=channel_layouts=stereo,"
            "aformat=sample_fmts=s16,atrim=end_sample=" +
            std::to_string(frames);
        ffmpeg({"-f", "lavfi", "-i", filter, "-metadata", "title=Fog", "-metadata", "artist=Ann", "-metadata",
                "album=Tides", "-metadata", "track=3", "-metadata", "REPLAYGAIN_TRACK_GAIN=-3.20 dB",
                "-metadata", "HARBOUR=Ström", *this / "V/long.flac"});
        ffmpeg({"-i", *this / "V/long.flac", "-b:a", "160k", *this / "V/lossy.mp3"});
        RunControl control;
        REQUIRE(surveyVolume(catalogue(), {*this / "V", {}, {}, Effort::full}, control, [](const Progress&) {
                }).ok());
    }
    TransferPlan planned(const std::string& form, const BytePath& to) {
        TransferRequest request;
        request.choice.volumes = {volume("V").id};
        request.to = *this / to;
        request.forms = {*formRuleFrom(form)};
        RunControl control;
        auto plan = planTransfer(catalogue(), request, control);
        REQUIRE(plan.ok());
        return std::move(*plan);
    }
    TransferRun run(const TransferPlan& plan) {
        RunControl control;
        auto ran = runTransfer(catalogue(), *keepPlan(catalogue(), plan), control, {});
        INFO((ran ? std::string() : ran.error().sentence));
        REQUIRE(ran.ok());
        INFO((ran->carried.refused.empty() ? std::string() : ran->carried.refused.front().sentence));
        REQUIRE(ran->carried.refused.empty());
        return std::move(*ran);
    }
};

} // namespace

TEST_CASE("a recording is written in every form: its length to the sample, its tags, and known as the same") {
    EncodedForms all;
    struct Case {
        std::string form;
        std::string ending;
        int rate = 44'100;
    };
    const std::vector<Case> cases{{"lossless=mp3:V0", "mp3"},    {"lossless=mp3:192", "mp3"},
                                  {"lossless=aac:160", "m4a"},   {"lossless=opus:128", "opus", 48'000},
                                  {"lossless=vorbis:q6", "ogg"}, {"flac=flac:8", "flac"},
                                  {"lossless=wav", "wav"}};
    for (const auto& each : cases) {
        CAPTURE(each.form);
        const auto to = "T-" + std::to_string(&each - cases.data());
        const auto plan = all.planned(each.form, to);
        CHECK(plan.encoded == 1);
        CHECK(plan.reencoded == 0);
        all.run(plan);
        const auto made = all / (to + "/long." + each.ending);
        REQUIRE(fs::exists(made));
        const auto wanted = EncodedForms::frames * static_cast<std::size_t>(each.rate) / 44'100;
        // AAC in MP4 has no word for the end but the last frame's length, which FFmpeg 5.1 does not cut by.
        const std::size_t slack = each.ending == "m4a" ? 1024 : each.rate == 48'000 ? 1 : 0;
        const auto frames = framesOf(made, each.rate);
        CHECK(frames >= wanted);
        CHECK(frames <= wanted + slack);
        const auto holding = all.holding(to, "long." + each.ending);
        REQUIRE(holding.has_value());
        CHECK(holding->tags.title == "Fog");
        CHECK(holding->tags.track.starts_with("3"));
        const auto tags = EvidenceWorker().readTags(made)->fields;
        CHECK(tags.at("TITLE") == std::vector<std::string>{"Fog"});
        CHECK(tags.at("REPLAYGAIN_TRACK_GAIN") == std::vector<std::string>{"-3.20 dB"});
        CHECK(tags.at("HARBOUR") == std::vector<std::string>{"Ström"});
        if (each.ending != "wav") { // FFmpeg reads no ID3 in it
            const auto told =
                sober::test::run({"ffprobe", "-v", "error", "-show_entries", "format_tags:stream_tags", made})
                    .out;
            CHECK(told.find("-3.20 dB") != std::string::npos);
            CHECK(told.find("Ström") != std::string::npos);
        }
        CHECK(EvidenceStore(all.catalogue()).judged(holding->id)->has_value()); // it was examined
        CHECK(fs::exists(all / (to + "/lossy.mp3")));
        CHECK(readFile(all / (to + "/lossy.mp3")) == readFile(all / "V/lossy.mp3"));
    }
    // FLAC holds the very samples; FFmpeg's -f md5 of them is what STREAMINFO says (RFC 9639, 8.2).
    const auto md5 = [](const BytePath& path) {
        return sober::test::run({"ffmpeg", "-v", "error", "-i", path, "-f", "md5", "-"}).out;
    };
    CHECK(md5(all / "T-5/long.flac") == md5(all / "V/long.flac"));
    CHECK(md5(all / "T-6/long.wav") == md5(all / "V/long.flac"));
}

TEST_CASE("what is encoded is proven, recognised by a second transfer, and taken back") {
    EncodedForms all;
    const auto plan = all.planned("lossless=opus:96", "T");
    const auto ran = all.run(plan);
    RunControl control;
    const auto proof =
        proveTransfer(all.catalogue(), ran.settled.transfer.id, control, [](const Progress&) {});
    REQUIRE(proof.ok());
    CHECK(proof->proof.holds());
    const auto made = all.holding("T", "long.opus");
    CHECK(Findings(all.catalogue()).setOf(made->id)->has_value()); // one recording with its source
    const auto again = all.planned("lossless=opus:96", "T");
    for (const auto& item : again.items) {
        CHECK(item.state == ItemState::there);
    }
    CHECK(all.planned("lossless=opus:64", "T").items.front().target == "long (2).opus");
    // Only by consent would the lossless one go for it.
    REQUIRE(releaseTransfer(all.catalogue(), ran.settled.transfer.id).ok());
    const auto carried = all.carryOutAll();
    REQUIRE(carried.refused.size() == 1);
    CHECK(carried.refused.front().sentence.find("Consent") != std::string::npos);
    CHECK(fs::exists(all / "V/long.flac"));
    while (*lastUndoable(all.catalogue())) {
        CHECK(all.undoLast().refused.empty());
    }
    CHECK(contentsBelow(all / "T").empty());
}

TEST_CASE("excerpts are as long as asked for; nothing lossy becomes lossless; what does not decode is not "
          "encoded") {
    EncodedForms all;
    all.run(all.planned("lossless=mp3:V4@3", "T"));
    CHECK(framesOf(all / "T/long.mp3", 44'100) == 44'100 * 3);
    all.run(all.planned("lossless=vorbis:q3@50% loudest", "U"));
    CHECK(framesOf(all / "U/long.ogg", 44'100) == (EncodedForms::frames + 1) / 2);
    const auto lossy = all.planned("all=flac", "W");
    for (const auto& item : lossy.items) {
        CHECK((item.form.empty() == item.target.ends_with(".mp3")));
    }
    const auto twice = all.planned("all=opus:64", "W");
    CHECK(twice.encoded == 2);
    CHECK(twice.reencoded == 1);
    CHECK(twice.costs.size() == offeredForms.size() + 1);

    auto broken = readFile(all / "V/long.flac");
    std::fill(broken.begin() + static_cast<std::ptrdiff_t>(broken.size() / 2),
              broken.begin() + static_cast<std::ptrdiff_t>(broken.size() / 2 + 30'000), 'x');
    writeFile(all / "V/broken.flac", broken);
    RunControl control;
    REQUIRE(surveyVolume(all.catalogue(), {all / "V", {}, {}, Effort::full}, control, [](const Progress&) {
            }).ok());
    const auto plan = all.planned("lossless=mp3:V4", "X");
    REQUIRE(plan.left.size() == 1);
    CHECK(plan.left.front().why == LeftBehind::unsound);
}

TEST_CASE("forms are read from their words, and nothing else is one") {
    for (const auto* words : {"mp3:V0", "mp3:320", "aac:160", "opus:96", "vorbis:q10", "flac", "flac:8",
                              "wav", "mp3", "mp3:V2@30", "opus:64@20%", "opus:64@20% loudest"}) {
        CAPTURE(words);
        CHECK(encodingFormFrom(words).ok());
    }
    for (const auto* words :
         {"", "mp4", "mp3:", "mp3:V10", "mp3:q3", "vorbis:V3", "wav:3", "flac:9", "opus:4", "mp3:V2@",
          "mp3:V2@0", "mp3:V2@100%", "mp3:V2@x", "mp3:V2 @30", "aac:900"}) {
        CAPTURE(words);
        CHECK(encodingFormFrom(words).error().cause == Cause::invalid);
    }
    CHECK_FALSE(formRuleFrom("mp3:V0").ok());
    CHECK_FALSE(formRuleFrom("=mp3:V0").ok());
    CHECK(formRuleFrom("flac=mp3:V0")->source == "flac");
    // A minute at 128 kbit/s is 960,000 bytes.
    CHECK(estimatedBytes(*encodingFormFrom("mp3:128"), 60, 44'100, 2, 16) / 10'000 == 96);
}
