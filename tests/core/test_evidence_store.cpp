#include "core/audit/condition.h"
#include "core/audit/refresh_findings.h"
#include "core/catalogue/evidence_store.h"
#include "core/catalogue/standing_lists.h"
#include "core/remedy/journal/taking_back.h"
#include "core/work/carry_out.h"
#include "core/work/take_in_survey.h"
#include "support/collection.h"
#include "support/run_program.h"
#include "support/small_audio.h"
#include "support/sound.h"

#include <catch2/catch.hpp>

#include <filesystem>

using namespace sober;
using namespace sober::test;
namespace fs = std::filesystem;

namespace {

/// A volume with an honest piece, a false lossless made from it, its low MP3 and, on another volume, a
/// good MP3; examined.
class ExaminedFile {
  public:
    ExaminedFile() {
        fs::create_directories(at("V/Choir"));
        fs::create_directories(at("W"));
        writeMusic(at("V/Choir/Morning.wav"), 12, 9);
        ffmpeg({"-i", at("V/Choir/Morning.wav"), "-b:a", "128k", "-metadata", "title=Morning",
                at("V/Morning.mp3")});
        ffmpeg({"-i", at("V/Morning.mp3"), "-sample_fmt", "s16", at("V/false.flac")});
        ffmpeg({"-i", at("V/Choir/Morning.wav"), "-b:a", "256k", "-metadata", "title=morning",
                at("W/other.mp3")});
        report = survey("V");
        survey("W");
    }
    BytePath at(const BytePath& relative) const { return collection / relative; }
    SurveyReport survey(const BytePath& volume, Effort effort = Effort::full) {
        RunControl control;
        auto made = surveyVolume(collection.catalogue(), {at(volume), {}, {}, effort}, control,
                                 [](const Progress&) {});
        REQUIRE(made.ok());
        REQUIRE(takeInSurvey(collection.catalogue(), *made, control, [](const Progress&) {}).ok());
        return *made;
    }
    HoldingId id(const std::string& volume, const BytePath& path) {
        const auto holding = collection.holding(volume, path);
        REQUIRE(holding.has_value());
        return holding->id;
    }
    EvidenceStore store() { return EvidenceStore(collection.catalogue()); }

    Collection collection;
    SurveyReport report;
};

} // namespace

TEST_CASE("a survey at full effort keeps evidence, and a second one reads nothing again") {
    ExaminedFile all;
    CHECK(all.report.added == 3);
    CHECK(all.report.errors.empty());
    const auto evidence = all.store().of(all.id("V", "false.flac"));
    REQUIRE((evidence.ok() && evidence->has_value()));
    CHECK((*evidence)->verdict.verdict == VerdictClass::transcoded);
    CHECK((*evidence)->fingerprint.size() > 20);
    CHECK(all.collection.holding("V", "false.flac")->sha256.has_value());

    const auto again = all.survey("V");
    CHECK(again.bytesRead == 0);
    CHECK(again.unchanged == 3);

    // Moved, the evidence moves along; changed at index effort, it is forgotten.
    fs::rename(all.at("V/false.flac"), all.at("V/moved.flac"));
    CHECK(all.survey("V").bytesRead == 0);
    CHECK(all.store().of(all.id("V", "moved.flac"))->has_value());
    writeMusic(all.at("V/moved.flac"), 13, 7);
    CHECK(all.survey("V", Effort::index).changed == 1);
    CHECK_FALSE(all.store().of(all.id("V", "moved.flac"))->has_value());
    // Full effort later examines what is missing evidence, and only that.
    const auto later = all.survey("V", Effort::full);
    CHECK(later.bytesRead == fs::file_size(all.at("V/moved.flac")));
    CHECK(later.unchanged == 3);
    CHECK(all.store().of(all.id("V", "moved.flac"))->has_value());
}

TEST_CASE("a volume surveyed at index effort gains its evidence when the effort is raised") {
    Collection collection;
    writeMusic((fs::create_directories(std::string(collection / "V")), collection / "V/a.wav"), 3, 3);
    collection.survey("V");
    const EvidenceStore store(collection.catalogue());
    const auto id = collection.holding("V", "a.wav")->id;
    CHECK_FALSE(store.of(id)->has_value());
    RunControl control;
    const auto full = surveyVolume(collection.catalogue(), {collection / "V", {}, {}, Effort::full}, control,
                                   [](const Progress&) {});
    CHECK(full->unchanged == 1);
    CHECK(full->bytesRead == fs::file_size(std::string(collection / "V/a.wav")));
    CHECK(store.of(id)->has_value());
    // The choice is kept with the volume.
    writeMusic(collection / "V/b.wav", 4, 3);
    collection.survey("V");
    CHECK(store.of(collection.holding("V", "b.wav")->id)->has_value());
}

TEST_CASE("points come worst first, and filters mean what they say") {
    ExaminedFile all;
    const auto points = all.store().points({});
    REQUIRE(points.ok());
    REQUIRE(points->size() == 4);
    CHECK(points->front().holding == all.id("V", "false.flac"));
    CHECK(points->front().verdict == VerdictClass::transcoded);
    CHECK(points->front().cutoff > 10'000);
    struct Row {
        HoldingFilter filter;
        std::size_t count;
    };
    HoldingFilter text, volume, folder, codec, lossless, lossy, worse, low, better;
    text.text = "morning";
    volume.volume = all.collection.volume("W").id;
    folder.volume = all.collection.volume("V").id;
    folder.folder = "Choir";
    codec.codec = "mp3";
    lossless.kind = HoldingFilter::Kind::lossless;
    lossy.kind = HoldingFilter::Kind::lossy;
    worse.verdicts = {VerdictClass::doubtful, VerdictClass::transcoded};
    low.underLimit = true;
    better.betterElsewhere = true;
    for (const auto& [filter, count] :
         {Row{text, 4}, Row{volume, 1}, Row{folder, 1}, Row{codec, 2}, Row{lossless, 2}, Row{lossy, 2},
          Row{worse, 1}, Row{low, 1}, Row{better, 1}}) {
        CAPTURE(textOf(filter));
        CHECK(all.store().points(filter)->size() == count);
        CHECK(*all.store().count(filter) == count);
        CHECK(all.store().meant(filter)->size() == count);
        CHECK(filterFrom(textOf(filter)) == filter);
    }
    HoldingFilter odd;
    odd.volume = 1;
    odd.folder = "\xFF/x";
    CHECK(filterFrom(textOf(odd)) == odd);
    for (const auto* nonsense :
         {"", "[]", "{\"kind\":\"green\"}", "{\"verdicts\":[\"fine\"]}", "{\"folder\":\"zz\"}"}) {
        CHECK_FALSE(filterFrom(nonsense).has_value());
    }
    CHECK(*all.store().codecs() == std::vector<std::string>{"flac", "mp3", "pcm"});
}

TEST_CASE("the better copy of a low one is found by its sound, on the other volume first") {
    ExaminedFile all;
    const auto low = all.id("V", "Morning.mp3");
    const auto better = all.store().betterThan(low);
    REQUIRE((better.ok() && better->has_value()));
    // Lossless beats the better MP3 elsewhere.
    CHECK(**better == all.id("V", "Choir/Morning.wav"));
    // The false lossless is not a better copy, and without the true one the other MP3 is.
    fs::remove(all.at("V/Choir/Morning.wav"));
    all.survey("V");
    REQUIRE(refreshFindings(all.collection.catalogue()).ok());
    CHECK(**all.store().betterThan(low) == all.id("W", "other.mp3"));
    // The limit is the user's.
    REQUIRE(all.store().setBitrateLimit("mp3", 96'000).ok());
    REQUIRE(refreshFindings(all.collection.catalogue()).ok());
    CHECK_FALSE(all.store().betterThan(low)->has_value());
    CHECK(std::ranges::count(*all.store().bitrateLimits(),
                             std::pair(std::string("mp3"), std::int64_t{96'000})) == 1);
}

TEST_CASE("an accepted recording stays accepted wherever it goes, until that is taken back") {
    ExaminedFile all;
    auto& catalogue = all.collection.catalogue();
    const auto id = all.id("V", "false.flac");
    CHECK(conditionOf(catalogue)->total.claims == 1);
    CHECK(conditionOf(catalogue)->total.examined == 4);
    const std::vector<DocketAction> actions{{0, ActionKind::accept, id, "nothing better exists", timeNow()}};
    REQUIRE(DocketStore(catalogue).add(actions).ok());
    RunControl control;
    const auto carried = carryOut(catalogue, control, {});
    REQUIRE(carried.ok());
    CHECK(carried->done == 1);
    CHECK(carried->frees == 0);
    CHECK((*all.store().acceptanceOf(id))->reason == "nothing better exists");
    REQUIRE(refreshFindings(catalogue).ok());
    CHECK(conditionOf(catalogue)->total.claims == 0);
    HoldingFilter worse;
    worse.verdicts = {VerdictClass::transcoded};
    CHECK(all.store().points(worse)->empty());
    worse.acceptedToo = true;
    CHECK(all.store().points(worse)->size() == 1);

    // Tags edited, and in another codec with the same samples: the recording is the same.
    ffmpeg({"-i", all.at("V/false.flac"), "-c", "copy", "-metadata", "title=New", all.at("V/retagged.flac")});
    ffmpeg({"-i", all.at("V/false.flac"), all.at("W/same.wav")});
    fs::remove(all.at("V/false.flac"));
    all.survey("V");
    all.survey("W");
    CHECK(all.store().acceptanceOf(all.id("V", "retagged.flac"))->has_value());
    CHECK(all.store().acceptanceOf(all.id("W", "same.wav"))->has_value());
    CHECK_FALSE(all.store().acceptanceOf(all.id("V", "Choir/Morning.wav"))->has_value());

    const auto last = lastUndoable(catalogue);
    REQUIRE((last.ok() && last->has_value()));
    CHECK(undoEntry(catalogue, **last, control, {})->done == 1);
    CHECK_FALSE(all.store().acceptanceOf(all.id("V", "retagged.flac"))->has_value());
}

TEST_CASE("an acceptance is refused where it makes no sense") {
    ExaminedFile all;
    auto& catalogue = all.collection.catalogue();
    writeFile(all.at("V/new.wav"), smallWav(8));
    all.survey("V", Effort::index);
    const std::vector<DocketAction> actions{
        {0, ActionKind::accept, all.id("V", "new.wav"), "fine", timeNow()}};
    REQUIRE(DocketStore(catalogue).add(actions).ok());
    RunControl control;
    auto carried = carryOut(catalogue, control, {});
    REQUIRE(carried->refused.size() == 1);
    CHECK(carried->refused[0].sentence.find("not examined") != std::string::npos);
    REQUIRE(DocketStore(catalogue).clear().ok());
    const auto id = all.id("V", "false.flac");
    REQUIRE(all.store().accept(id, "kept").ok());
    REQUIRE(DocketStore(catalogue)
                .add(std::vector<DocketAction>{{0, ActionKind::accept, id, "again", timeNow()}})
                .ok());
    carried = carryOut(catalogue, control, {});
    REQUIRE(carried->refused.size() == 1);
    CHECK(carried->refused[0].sentence == "It was accepted before: kept.");
}

TEST_CASE("standing lists are kept by name and always current") {
    ExaminedFile all;
    const StandingLists lists(all.collection.catalogue());
    const auto shipped = lists.all();
    REQUIRE(shipped->size() == 2);
    CHECK((*shipped)[0].name == "lossless claims, doubtful or worse");
    CHECK(*all.store().count((*shipped)[0].filter) == 1);
    CHECK((*shipped)[1].filter.betterElsewhere);
    HoldingFilter mine;
    mine.text = "morning";
    REQUIRE(lists.keep("mine", mine).ok());
    mine.codec = "mp3";
    REQUIRE(lists.keep("mine", mine).ok());
    CHECK_FALSE(lists.keep("", mine).ok());
    const auto kept = lists.all();
    REQUIRE(kept->size() == 3);
    CHECK((*kept)[1].filter == mine);
    CHECK(*all.store().count(mine) == 2);
    fs::remove(all.at("V/Morning.mp3"));
    all.survey("V");
    CHECK(*all.store().count(mine) == 1);
    CHECK(Holdings(all.collection.catalogue()).missing({}, mine)->size() == 1);
    REQUIRE(lists.remove((*kept)[1].id).ok());
    CHECK(lists.all()->size() == 2);
}

TEST_CASE("a standing list narrows the copy sets to those with a member in it") {
    ExaminedFile all;
    fs::copy_file(all.at("V/false.flac"), all.at("W/false too.flac"));
    writeMusic(all.at("V/Choir/Evening.wav"), 77, 9);
    fs::copy_file(all.at("V/Choir/Evening.wav"), all.at("W/Evening.wav"));
    all.survey("V");
    all.survey("W");
    const Findings findings(all.collection.catalogue());
    CHECK(findings.setOrder(SetOrder::mostBytes, {})->size() == 2);
    SetFilter filter;
    filter.list.emplace().verdicts = {VerdictClass::transcoded};
    CHECK(findings.setOrder(SetOrder::mostBytes, filter)->size() == 1);
    filter.text = "too";
    CHECK(findings.setOrder(SetOrder::mostBytes, filter)->size() == 1);
    filter.text = "Evening";
    filter.volume = all.collection.volume("V").id;
    CHECK(findings.setOrder(SetOrder::mostBytes, filter)->empty());
}

TEST_CASE("what does not decode whole counts as damaged") {
    Collection collection;
    fs::create_directories(std::string(collection / "V"));
    writeMusic(collection / "V/a.wav", 3, 4);
    ffmpeg({"-i", collection / "V/a.wav", collection / "V/b.flac"});
    fs::resize_file(std::string(collection / "V/b.flac"),
                    fs::file_size(std::string(collection / "V/b.flac")) / 2);
    RunControl control;
    REQUIRE(surveyVolume(collection.catalogue(), {collection / "V", {}, {}, Effort::full}, control,
                         [](const Progress&) {})
                .ok());
    REQUIRE(refreshFindings(collection.catalogue()).ok());
    CHECK(conditionOf(collection.catalogue())->total.troubled == 1);
}
