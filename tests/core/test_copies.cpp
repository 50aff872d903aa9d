#include "core/audit/copy_sets.h"
#include "core/audit/lineage.h"
#include "core/audit/match_recordings.h"
#include "core/audit/refresh_findings.h"
#include "core/audit/set_choice.h"
#include "core/catalogue/evidence_store.h"
#include "core/work/carry_out.h"
#include "support/examined_collection.h"

#include <catch2/catch.hpp>
#include <fmt/format.h>

#include <filesystem>
#include <set>

using namespace sober;
using namespace sober::test;

namespace {

Advice adviceOn(const SetDetail& detail, const BytePath& name) {
    for (std::size_t i = 0; i < detail.members.size(); ++i) {
        if (nameOf(detail.members[i].path) == name) {
            return detail.advice[i].advice;
        }
    }
    FAIL("no member " << name);
    return Advice::decide;
}

std::set<BytePath> namesOf(const SetDetail& detail) {
    std::set<BytePath> names;
    for (const auto& member : detail.members) {
        names.insert(BytePath(nameOf(member.path)));
    }
    return names;
}

/// One recording in many forms, and others that are near it and are not it.
struct Forms : Examined {
    Forms() {
        music("V/other.wav", 71, 16);
        music("V/whole.wav", 70, 20);
        derive("V/whole.wav", {"-metadata", "title=Slipway", "-metadata", "artist=Band"}, "V/a.flac");
        derive("V/a.flac", {"-metadata", "album=Pier", "-c", "copy"}, "V/tagged.flac");
        derive("V/a.flac", {"-c:a", "alac"}, "V/a.m4a");
        derive("V/a.flac", {"-b:a", "192k"}, "V/honest.mp3");
        derive("V/a.flac", {"-b:a", "128k"}, "V/low.mp3");
        derive("V/low.mp3", {"-af", "atrim=start_sample=211", "-b:a", "320k"}, "V/false.mp3");
        derive("V/a.flac", {"-c:a", "libopus", "-b:a", "128k"}, "V/o.opus");
        derive("V/a.flac", {"-af", "volume=-3dB", "-sample_fmt", "s16"}, "V/quiet.flac");
        derive("V/a.flac", {"-ss", "4", "-t", "12", "-b:a", "192k"}, "V/part.mp3");
        derive("V/a.flac", {"-af", "atempo=1.04", "-sample_fmt", "s16"}, "V/tempo.flac");
        derive("V/other.wav", {"-metadata", "title=Slipway", "-metadata", "artist=Band"}, "V/take.flac");
        std::filesystem::remove(*this / "V/other.wav");
        surveyFully("V");
    }
};

} // namespace

TEST_CASE("one recording in many forms is one set; another tempo and another take are not in it") {
    Forms collection;
    const auto sets = collection.details();
    REQUIRE(sets.size() == 1);
    const auto& detail = sets[0];
    CHECK(detail.set.sameness == Sameness::part);
    CHECK(namesOf(detail) == std::set<BytePath>{"whole.wav", "a.flac", "tagged.flac", "a.m4a", "honest.mp3",
                                                "low.mp3", "false.mp3", "o.opus", "quiet.flac", "part.mp3"});
    CHECK(detail.set.doubt);
    CHECK(adviceOn(detail, "tagged.flac") == Advice::keep); // its tags say most
    for (const auto* goes :
         {"whole.wav", "a.flac", "a.m4a", "honest.mp3", "low.mp3", "false.mp3", "o.opus"}) {
        CAPTURE(goes);
        CHECK(adviceOn(detail, goes) == Advice::retire);
    }
    CHECK(adviceOn(detail, "quiet.flac") == Advice::decide);
    CHECK(adviceOn(detail, "part.mp3") == Advice::retire);

    SetFilter tags;
    tags.sameness = Sameness::tagsOnly;
    const auto alike = collection.details(tags);
    REQUIRE(alike.size() == 1);
    CHECK(namesOf(alike[0]).contains("take.flac"));
    CHECK(std::ranges::all_of(alike[0].advice,
                              [](const MemberAdvice& advice) { return advice.advice == Advice::decide; }));

    // What was compared is not compared again, and moves with its content.
    std::filesystem::rename(collection / "V/low.mp3", collection / "V/lower.mp3");
    collection.surveyFully("V");
    CHECK(collection.report.compared == 0);
    CHECK(collection.details().at(0).members.size() == 10);
}

TEST_CASE(
    "a disc's track, which ends with the silence before the next, is a better copy of what lacks that") {
    Examined all;
    all.music("V/whole.wav", 7, 20);
    all.derive("V/whole.wav", {"-b:a", "96k"}, "V/low.mp3");
    all.derive("V/whole.wav", {"-af", "apad=pad_dur=2.4"}, "W/track.flac");
    all.derive("V/whole.wav", {"-t", "16"}, "W/edit.flac");
    std::filesystem::remove(all / "V/whole.wav");
    all.surveyFully("V");
    all.surveyFully("W");
    const auto sets = all.details();
    REQUIRE(sets.size() == 1);
    CHECK(sets[0].members.size() == 3);
    const auto better = EvidenceStore(all.catalogue()).betterThan(all.holding("V", "low.mp3")->id);
    REQUIRE((better.ok() && better->has_value()));
    CHECK(**better == all.holding("W", "track.flac")->id);
    std::filesystem::remove(all / "W/track.flac");
    all.surveyFully("W");
    CHECK_FALSE(EvidenceStore(all.catalogue()).betterThan(all.holding("V", "low.mp3")->id)->has_value());
}

TEST_CASE("the lineage hangs what is worse on what it may come from") {
    Forms collection;
    const auto detail = collection.details().at(0);
    const auto at = [&](const BytePath& name) {
        const auto found = std::ranges::find_if(
            detail.members, [&](const Holding& member) { return nameOf(member.path) == name; });
        return static_cast<std::size_t>(found - detail.members.begin());
    };
    const auto tree = lineageOf(detail.members, detail.known, at("a.flac"));
    REQUIRE(tree.size() == 10);
    CHECK(tree[0].member == at("a.flac"));
    const auto descent = [&](const BytePath& name) {
        return *std::ranges::find(tree, at(name), &Descent::member);
    };
    CHECK(descent("whole.wav").from == at("a.flac"));
    CHECK(descent("whole.wav").sameness == Sameness::samples);
    CHECK(descent("tagged.flac").sameness == Sameness::payload);
    CHECK(descent("quiet.flac").words.find("3.0 dB quieter") != std::string::npos);
    CHECK(descent("false.mp3").from == at("low.mp3"));
    CHECK(descent("false.mp3").told);
}

TEST_CASE("of a false 320 and an honest 192 the honest one is kept") {
    Examined collection;
    collection.music("V/a.wav", 80, 18);
    collection.derive("V/a.wav", {"-b:a", "192k"}, "V/honest.mp3");
    collection.derive("V/a.wav", {"-b:a", "128k"}, "low.mp3");
    collection.derive("low.mp3", {"-af", "atrim=start_sample=211", "-b:a", "320k"}, "V/false.mp3");
    std::filesystem::remove(collection / "V/a.wav");
    collection.surveyFully("V");
    const auto sets = collection.details();
    REQUIRE(sets.size() == 1);
    CHECK(adviceOn(sets[0], "honest.mp3") == Advice::keep);
    CHECK(adviceOn(sets[0], "false.mp3") == Advice::retire);
}

TEST_CASE("a damaged copy goes, a sound one that is worse stays; the last sound one cannot be retired") {
    Examined collection;
    collection.music("V/a.wav", 81, 18);
    collection.derive("V/a.wav", {}, "V/damaged.flac");
    collection.derive("V/a.wav", {"-b:a", "192k"}, "V/sound.mp3");
    std::filesystem::remove(collection / "V/a.wav");
    auto bytes = readFile(collection / "V/damaged.flac");
    for (std::size_t i = 0; i < 3000; ++i) {
        bytes[bytes.size() / 2 + i] = static_cast<char>(i * 7);
    }
    writeFile(collection / "V/damaged.flac", bytes);
    collection.surveyFully("V");
    const auto sets = collection.details();
    REQUIRE(sets.size() == 1);
    CHECK(adviceOn(sets[0], "sound.mp3") == Advice::keep);

    collection.putOnDocket(ActionKind::retire, "V", "sound.mp3");
    RunControl control;
    auto carried = carryOut(collection.catalogue(), control, {});
    REQUIRE(carried.ok());
    REQUIRE(carried->refused.size() == 1);
    CHECK(carried->refused[0].sentence == "It is the only copy at hand.");
    CHECK(std::filesystem::exists(collection / "V/sound.mp3"));
}

TEST_CASE("a lossy copy is retired only while the one that stays is what was recorded") {
    Examined collection;
    collection.music("V/a.wav", 82, 16);
    collection.derive("V/a.wav", {"-b:a", "192k"}, "V/copy.mp3");
    collection.surveyFully("V");
    REQUIRE(collection.details().size() == 1);
    REQUIRE(
        takeAdvice(collection.catalogue(), collection.details()[0], *Volumes(collection.catalogue()).all())
            .ok());
    const auto whole = readFile(collection / "V/a.wav");
    RunControl control;
    SECTION("it is") {
        const auto carried = carryOut(collection.catalogue(), control, {});
        CHECK(carried->done == 1);
        CHECK_FALSE(std::filesystem::exists(collection / "V/copy.mp3"));
        CHECK(readFile(collection / "V/a.wav") == whole);
    }
    SECTION("it changed on its own") {
        auto spoiled = whole;
        spoiled[spoiled.size() / 2] ^= 1;
        writeFile(collection / "V/a.wav", spoiled);
        const auto carried = carryOut(collection.catalogue(), control, {});
        REQUIRE(carried->refused.size() == 1);
        CHECK(carried->refused[0].sentence.find("not what was recorded") != std::string::npos);
        CHECK(std::filesystem::exists(collection / "V/copy.mp3"));
    }
    SECTION("both are told to go") {
        collection.putOnDocket(ActionKind::retire, "V", "a.wav");
        const auto carried = carryOut(collection.catalogue(), control, {});
        CHECK(carried->done == 0);
        CHECK(carried->refused.size() == 2);
    }
}

TEST_CASE("silence, and recordings shorter than a fingerprint, make no sets beyond equal bytes") {
    Examined collection;
    std::filesystem::create_directories(collection / "V");
    for (const std::string length : {"5", "6", "7"}) {
        for (const auto* ending : {".flac", ".wav"}) {
            ffmpeg({"-f", "lavfi", "-i", "anullsrc=r=44100:cl=stereo", "-t", length,
                    collection / fmt::format("V/silence {}{}", length, ending)});
        }
        ffmpeg({"-f", "lavfi", "-i", "sine=frequency=440", "-t", length,
                collection / fmt::format("V/tone {}.flac", length)});
    }
    collection.music("V/short.wav", 3, 1.5);
    collection.derive("V/short.wav", {"-b:a", "128k"}, "V/short.mp3");
    collection.surveyFully("V");
    CHECK(collection.details().empty());
    CHECK(collection.report.compared == 0);
}

TEST_CASE("a copy on a volume that is away is shown, and nothing is retired in exchange for it") {
    Examined collection;
    collection.music("A/a.wav", 83, 16);
    collection.derive("A/a.wav", {"-b:a", "160k"}, "B/copy.mp3");
    collection.surveyFully("A");
    std::filesystem::rename(collection / "A", collection / "gone");
    auto away = collection.volume("A");
    away.atHand = false;
    REQUIRE(Volumes(collection.catalogue()).update(away).ok());
    collection.surveyFully("B");
    const auto sets = collection.details();
    REQUIRE(sets.size() == 1);
    CHECK(collection.report.compared == 0); // by their fingerprints alone
    CHECK(adviceOn(sets[0], "copy.mp3") == Advice::keep);
    CHECK(adviceOn(sets[0], "a.wav") == Advice::decide);
}

TEST_CASE("a match that is cancelled keeps what it has and goes on from there") {
    Examined collection;
    collection.music("V/a.wav", 84, 14);
    collection.derive("V/a.wav", {"-b:a", "160k"}, "V/copy.mp3");
    RunControl control;
    REQUIRE(surveyVolume(collection.catalogue(), {collection / "V", {}, {}, Effort::full}, control,
                         [](const Progress&) {})
                .ok());
    RunControl cancelled;
    cancelled.cancel();
    const auto stopped = matchRecordings(collection.catalogue(), cancelled, [](const Progress&) {});
    REQUIRE(stopped.ok());
    CHECK(stopped->interrupted);
    CHECK(stopped->compared == 0);
    CHECK(matchRecordings(collection.catalogue(), control, [](const Progress&) {})->compared == 1);
}
