#include "core/audit/tag_takeover.h"
#include "core/base/user_folders.h"
#include "core/catalogue/evidence_store.h"
#include "core/remedy/docket/review.h"
#include "core/remedy/journal/taking_back.h"
#include "core/work/carry_out.h"
#include "support/collection.h"
#include "support/killing.h"
#include "support/run_program.h"
#include "support/small_audio.h"
#include "support/sound.h"

#include <catch2/catch.hpp>

#include <filesystem>
#include <set>
#include <unistd.h>

using namespace sober;
using namespace sober::test;
namespace fs = std::filesystem;

namespace {

using Values = std::vector<std::string>;

const TagChange& wanted() {
    static const TagChange change{
        {{"GENRE", {"Polka"}}, {"COMPOSER", {"Ines Corrigan, \xC3\xA9l\xC3\xA8ve"}}}, {}};
    return change;
}

/// A picture that the ffmpeg tool makes: 16 by 16, PNG.
Picture smallPicture() {
    const TempFolder folder;
    ffmpeg({"-f", "lavfi", "-i", "color=c=teal:s=16x16", "-frames:v", "1", folder / "p.png"});
    return {"image/png", 3, readFile(folder / "p.png")};
}

/// Checksum of the audio packets by the ffmpeg tool, which knows nothing of ours.
std::string packetsOf(const BytePath& path) {
    const auto told =
        run({"ffmpeg", "-v", "error", "-i", path, "-map", "0:a", "-c", "copy", "-f", "streamhash", "-"});
    REQUIRE(told.code == 0);
    return told.out;
}

std::string toldByFfprobe(const BytePath& path) {
    return run({"ffprobe", "-v", "error", "-show_entries", "format_tags:stream_tags:stream=codec_name", path})
        .out;
}

BytePath trash() {
    return joinPath(dataHome(), "Trash");
}

/// One file of a format, tagged, surveyed and told to take fields over.
struct Tagged : Collection {
    explicit Tagged(const BytePath& fileName, const std::vector<std::string>& options = {},
                    const TagChange& change = wanted())
        : name(fileName), path(*this / ("V/" + fileName)) {
        fs::remove_all(trash());
        writeFile(*this / "source.wav", smallWav(3, 1));
        fs::create_directories(*this / "V");
        std::vector<std::string> words{"-i",        *this / "source.wav", "-metadata", "title=The Slipway",
                                       "-metadata", "artist=Silver Band", "-metadata", "date=1998"};
        words.insert(words.end(), options.begin(), options.end());
        words.push_back(path);
        ffmpeg(words);
        // By this its volume is known again, with other inodes, while the other is on its way.
        writeFile(*this / "V/beside.wav", smallWav(8));
        survey("V");
        before = readFile(path);
        REQUIRE(planRetag(catalogue(), holding("V", name)->id, change, "elsewhere").ok());
    }
    CarriedOut carryOutAll() {
        RunControl control;
        const auto carried = carryOut(catalogue(), control, {});
        REQUIRE(carried.ok());
        return *carried;
    }
    void checkWhole() {
        std::set<std::string> seen;
        for (const auto& [at, content] : contentsBelow(*this / "V")) {
            if (at != *this / "V/beside.wav") {
                CHECK(at == path);
                seen.insert(content);
            }
        }
        REQUIRE(seen.size() == 1);
        const bool isBefore = *seen.begin() == before;
        const auto aside = contentsBelow(joinPath(trash(), "files"));
        CHECK(aside.size() == (isBefore ? 0 : 1));
        CHECK(contentsBelow(joinPath(trash(), "info")).size() == aside.size());
        CHECK(std::ranges::all_of(aside, [&](const auto& each) { return each.second == before; }));
        if (!isBefore) {
            CHECK(changed(*readTagFields(aside.begin()->first), wanted()) == *readTagFields(path));
        }
        // The catalogue knows what stands there: a survey finds nothing that it did not know.
        const auto again = survey("V");
        CHECK(again.changed == 0);
        CHECK(LedgerStore(catalogue()).unfinished()->empty());
    }

    BytePath name;
    BytePath path;
    std::string before;
};

TagFields says(std::map<std::string, Values> fields) {
    return {std::move(fields), {}};
}

} // namespace

TEST_CASE(
    "tags are taken over in every format, the audio data proven the same, and given back byte for byte") {
    struct Row {
        std::string name;
        std::vector<std::string> options;
    };
    const auto row = GENERATE(values<Row>({
        {"a.mp3", {"-id3v2_version", "3"}},
        {"b.mp3", {"-id3v2_version", "4", "-write_id3v1", "1"}},
        {"c.flac", {}},
        {"d.ogg", {"-c:a", "libvorbis"}},
        {"e.opus", {}},
        {"f.m4a", {"-c:a", "alac"}},
        {"g.m4a", {"-c:a", "aac"}},
        {"h.wav", {}},
        {"i.aiff", {"-write_id3v2", "1"}},
        {"j.wv", {"-sample_fmt", "s16p"}},
        {"k.wma", {}},
    }));
    INFO(row.name);
    auto change = wanted();
    change.picture = smallPicture();
    Tagged collection(row.name, row.options, change);
    const auto packets = packetsOf(collection.path);
    const auto fields = *readTagFields(collection.path);
    CHECK(fields.fields.at("TITLE") == Values{"The Slipway"});

    const auto carried = collection.carryOutAll();
    INFO((carried.refused.empty() ? std::string() : carried.refused.front().sentence));
    REQUIRE(carried.done == 1);
    CHECK(packetsOf(collection.path) == packets);
    const auto now = *readTagFields(collection.path);
    CHECK(now.fields.at("GENRE") == Values{"Polka"});
    CHECK(now.fields.at("TITLE") == Values{"The Slipway"});
    REQUIRE(now.pictures.size() == 1);
    CHECK(now.pictures.front().bytes == change.picture->bytes);
    const auto told = toldByFfprobe(collection.path);
    INFO(told);
    CHECK(told.find("Polka") != std::string::npos);
    // FFmpeg reads a WAV file's INFO list alone, and that has no place for a composer.
    CHECK((row.name == "h.wav" || told.find("Ines Corrigan, \xC3\xA9l\xC3\xA8ve") != std::string::npos));
    CHECK(told.find("Silver Band") != std::string::npos);
    CHECK(told.find("png") != std::string::npos);
    CHECK(collection.survey("V").unchanged == 2);
    CHECK(EvidenceStore(collection.catalogue()).of(collection.holding("V", row.name)->id)->has_value());

    RunControl control;
    const auto undone = undoEntry(collection.catalogue(), carried.entry, control, {});
    REQUIRE(undone.ok());
    CHECK(undone->refused.empty());
    CHECK(readFile(collection.path) == collection.before);
    CHECK(contentsBelow(trash()).empty());
    CHECK(collection.survey("V").unchanged == 2);
}

TEST_CASE("what cannot be retagged stays as it is, with a sentence") {
    Tagged collection("a.flac");
    const auto refusal = [&] {
        const auto carried = collection.carryOutAll();
        CHECK(carried.done == 0);
        REQUIRE(carried.refused.size() == 1);
        return carried.refused.front().sentence;
    };
    SECTION("changed since it was recorded") {
        auto content = collection.before;
        content.back() = static_cast<char>(content.back() ^ 1);
        writeFile(collection.path, content);
        CHECK(refusal().find("not what was recorded") != std::string::npos);
        CHECK(readFile(collection.path) == content);
    }
    SECTION("one file with several names") {
        fs::create_hard_link(collection.path, collection / "V/b.flac");
        collection.survey("V");
        CHECK(refusal().find("several names") != std::string::npos);
        CHECK(readFile(collection.path) == collection.before);
    }
    SECTION("gone") {
        fs::remove(collection.path);
        CHECK(refusal().find("not there") != std::string::npos);
    }
    SECTION("no room beside it") {
        if (!canMount()) {
            return;
        }
        fs::create_directories(collection / "S");
        REQUIRE(run({"mount", "-t", "tmpfs", "-o", "size=1200k", "none", collection / "S"}).code == 0);
        fs::copy(collection.path, collection / "S/b.flac");
        writeFile(collection / "S/filler", std::string(1'000'000, 'x'));
        collection.survey("S");
        REQUIRE(DocketStore(collection.catalogue()).clear().ok());
        REQUIRE(planRetag(collection.catalogue(), collection.holding("S", "b.flac")->id, wanted(), "").ok());
        CHECK(refusal().find("are free") != std::string::npos);
        CHECK(readFile(collection / "S/b.flac") == collection.before);
        unmount(collection / "S");
    }
    CHECK(contentsBelow(trash()).empty());
    for (const auto& [path, content] : contentsBelow(collection / "V")) {
        CHECK_FALSE(nameOf(path).starts_with(".sober"));
    }
}

TEST_CASE("a retag is not undone over what somebody has written since") {
    Tagged collection("a.flac");
    const auto carried = collection.carryOutAll();
    REQUIRE(carried.done == 1);
    const auto later = readFile(collection.path) + "later";
    writeFile(collection.path, later);
    RunControl control;
    const auto undone = undoEntry(collection.catalogue(), carried.entry, control, {});
    REQUIRE(undone.ok());
    REQUIRE(undone->refused.size() == 1);
    CHECK(undone->refused.front().sentence.find("was changed since") != std::string::npos);
    CHECK(readFile(collection.path) == later);
    CHECK(contentsBelow(joinPath(trash(), "files")).begin()->second == collection.before);
}

TEST_CASE("a copy is retired before the one that stays takes its tags over") {
    Tagged collection("a.flac");
    fs::copy(collection.path, collection / "V/b.flac");
    collection.survey("V");
    collection.putOnDocket(ActionKind::retire, "V", "b.flac");
    const auto carried = collection.carryOutAll();
    INFO((carried.refused.empty() ? std::string() : carried.refused.front().sentence));
    CHECK(carried.done == 2);
    CHECK_FALSE(isTaken(collection / "V/b.flac"));
    CHECK(readTagFields(collection.path)->fields.at("GENRE") == Values{"Polka"});
}

TEST_CASE("what is told to be retired is not given tags") {
    Tagged collection("a.flac");
    collection.putOnDocket(ActionKind::retire, "V", "a.flac");
    const auto planned =
        planRetag(collection.catalogue(), collection.holding("V", "a.flac")->id, wanted(), "");
    CHECK(planned.error().cause == Cause::refused);
    CHECK(planRetag(collection.catalogue(), 1, {}, "").error().cause == Cause::invalid);
}

namespace {

struct Waiting : Tagged {
    Waiting() : Tagged("a.flac") {}
};

} // namespace

TEST_CASE("killed at any instant of a retag, the next start finishes it or takes it back") {
    const int instants = killAtEveryInstant<Waiting>(
        "carry-out", [](Collection&) {},
        [](Waiting& collection) {
            CHECK(collection.carryOutAll().refused.empty());
            CHECK(DocketStore(collection.catalogue()).all()->empty());
            CHECK(readTagFields(collection.path)->fields.at("GENRE") == Values{"Polka"});
        });
    CHECK(instants == 7);
}

TEST_CASE("killed at any instant of taking a retag back, the next start finishes it or leaves it") {
    const int instants = killAtEveryInstant<Waiting>(
        "undo",
        [](Waiting& collection) {
            REQUIRE(sober::test::sober(collection.cataloguePath(), {"docket", "carry-out"}).code == 0);
        },
        [](Waiting& collection) {
            undoEverything(collection);
            CHECK(readFile(collection.path) == collection.before);
        });
    CHECK(instants == 6);
}

TEST_CASE("what others know is offered field by field, what they agree on is chosen") {
    const auto keeper = says({{"TITLE", {"The Slipway"}}, {"ARTIST", {"Silver Band"}}, {"COMMENT", {"  "}}});
    const std::vector others{
        says({{"TITLE", {"the slipway"}}, {"GENRE", {"Polka"}}, {"DATE", {"1998"}}, {"ENCODER", {"Lavf"}}}),
        says({{"ARTIST", {"Other Band"}},
              {"GENRE", {"polka"}},
              {"DATE", {"1999"}},
              {"COMMENT", {"from tape"}}}),
    };
    const auto takeover = takeoverOf(keeper, others);
    std::map<std::string, bool> conflicts;
    for (const auto& offer : takeover.fields) {
        conflicts[offer.field] = offer.isConflict();
    }
    CHECK(conflicts == std::map<std::string, bool>{
                           {"ARTIST", true}, {"COMMENT", false}, {"DATE", true}, {"GENRE", false}});
    const auto change = agreedChange(takeover);
    CHECK(change.fields == std::map<std::string, Values>{{"COMMENT", {"from tape"}}, {"GENRE", {"Polka"}}});
    CHECK(takeover.fields[3].offered.front().from == std::vector<std::size_t>{0, 1});
}

TEST_CASE("pictures are offered once each, and chosen where the keeper has none and there is one") {
    const Picture one{"image/png", 3, "one"};
    const Picture two{"image/png", 3, "two"};
    const TagFields bare;
    const TagFields withOne{{}, {one}};
    const TagFields withBoth{{}, {one, two}};
    struct Row {
        TagFields keeper;
        std::vector<TagFields> others;
        std::size_t offered;
        bool chosen;
    };
    const auto row = GENERATE_COPY(values<Row>({
        {bare, {withOne, withOne}, 1, true},
        {bare, {withOne, withBoth}, 2, false},
        {withOne, {withBoth}, 1, false},
        {withOne, {withOne}, 0, false},
    }));
    const auto takeover = takeoverOf(row.keeper, row.others);
    CHECK(takeover.pictures.size() == row.offered);
    CHECK(agreedChange(takeover).picture.has_value() == row.chosen);
}

TEST_CASE("a change outlives the docket's storage, and rubbish is no change") {
    const TagChange change{{{"GENRE", {"a", "\xFF not utf-8"}}},
                           Picture{"image/jpeg", 4, std::string("\0\1\2", 3)}};
    CHECK(unpackTagChange(packTagChange(change)) == change);
    CHECK_FALSE(unpackTagChange("").has_value());
    CHECK_FALSE(unpackTagChange("rubbish").has_value());
    CHECK_FALSE(unpackTagChange(packTagChange(change).substr(0, 20)).has_value());
}
