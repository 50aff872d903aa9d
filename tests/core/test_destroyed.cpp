// Files whose beginning, middle or end is destroyed come back from a copy, whole or block by block.
#include "core/base/user_folders.h"
#include "core/remedy/docket/review.h"
#include "core/remedy/journal/taking_back.h"
#include "core/survey/verify.h"
#include "core/work/carry_out.h"
#include "support/collection.h"
#include "support/sound.h"

using namespace sober;
using namespace sober::test;
namespace fs = std::filesystem;

namespace {

const std::vector<std::string> formats{"a.wav", "b.flac", "c.mp3", "d.m4a",
                                       "e.ogg", "f.opus", "g.wv",  "h.aiff"};

/// Music in eight formats and a copy of each, on two volumes; as it was made once for all cases.
struct Twice : Collection {
    explicit Twice(Effort effort) {
        fs::create_directories(*this / "V");
        writeMusic(*this / "V/a.wav", 33, 13);
        for (const auto& name : formats) {
            if (name != "a.wav") {
                std::vector<std::string> words{"-i", *this / "V/a.wav", "-metadata", "title=" + name};
                if (name == "g.wv") {
                    words.insert(words.end(), {"-sample_fmt", "s16p"});
                }
                words.push_back(*this / ("V/" + name));
                ffmpeg(words);
            }
        }
        copyFolder(*this / "V", *this / "W");
        RunControl control;
        for (const auto* volume : {"V", "W"}) {
            REQUIRE(surveyVolume(catalogue(), {*this / volume, {}, {}, effort}, control, [](const Progress&) {
                    }).ok());
        }
    }
    VerifyReport verify() {
        RunControl control;
        auto report = verifyHoldings(catalogue(), {}, control, [](const Progress&) {});
        REQUIRE(report.ok());
        return *report;
    }
    void surveyAgain() {
        for (const auto* volume : {"V", "W"}) {
            survey(volume);
        }
    }
    CarriedOut mend(ActionKind kind) {
        for (const auto& name : formats) {
            putOnDocket(kind, "V", name);
        }
        RunControl control;
        const auto carried = carryOut(catalogue(), control, {});
        REQUIRE(carried.ok());
        INFO((carried->refused.empty() ? std::string() : carried->refused.front().sentence));
        CHECK(carried->refused.empty());
        CHECK(carried->done == formats.size());
        return *carried;
    }
};

struct Destruction {
    std::string what;
    std::function<void(std::string&)> happens;
};

std::vector<Destruction> destructions() {
    const auto zero = [](std::string& bytes, std::size_t at, std::size_t length) {
        std::fill_n(bytes.begin() + static_cast<std::ptrdiff_t>(at), std::min(length, bytes.size() - at),
                    '\0');
    };
    return {{"the first 64 KiB are zeros", [=](std::string& bytes) { zero(bytes, 0, 65536); }},
            {"the beginning is a text",
             [](std::string& bytes) { bytes.replace(0, 4096, std::string(4096, 'x')); }},
            {"all of it is zeros", [=](std::string& bytes) { zero(bytes, 0, bytes.size()); }},
            {"the middle is zeros", [=](std::string& bytes) { zero(bytes, bytes.size() / 2, 40000); }},
            {"the end is cut off", [](std::string& bytes) { bytes.resize(bytes.size() * 2 / 3); }},
            {"nothing is left", [](std::string& bytes) { bytes.clear(); }},
            {"a few bytes are left", [](std::string& bytes) { bytes.resize(3); }}};
}

} // namespace

TEST_CASE(
    "whatever is destroyed of a file, a healthy copy brings it back, at once and after a survey saw it") {
    const auto effort = GENERATE(Effort::index, Effort::full);
    fs::remove_all(joinPath(dataHome(), "Trash"));
    Twice collection(effort);
    collection.keep();
    const auto whole = contentsBelow(collection / "V");
    int turn = 0;
    for (const auto& destruction : destructions()) {
        const bool surveyed = turn++ % 3 != 1;
        if (!longForm() && (turn % 2 == 0) == (effort == Effort::full)) {
            continue; // the other half at the other effort
        }
        CAPTURE(destruction.what, surveyed, effort == Effort::full);
        collection.putBack();
        for (const auto& name : formats) {
            auto bytes = readFile(collection / ("V/" + name));
            destruction.happens(bytes);
            writeFile(collection / ("V/" + name), bytes);
        }
        const auto destroyed = contentsBelow(collection / "V");
        if (surveyed) {
            collection.surveyAgain();
        }
        const auto report = collection.verify();
        CHECK(report.drift.size() == formats.size());
        for (const auto& drift : report.drift) {
            CHECK(drift.kind != DriftKind::missing);
            CHECK(drift.healthy.size() == 1);
        }
        for (const auto& name : formats) {
            const auto holding = collection.holding("V", name);
            CHECK(holding->state == HoldingState::present);
            CHECK_FALSE(holding->claims.codec.empty()); // it is shown by what it claimed
        }
        const auto carried = collection.mend(ActionKind::restore);
        CHECK((contentsBelow(collection / "V") == whole));
        CHECK(collection.verify().drift.empty());
        RunControl control;
        CHECK(undoEntry(collection.catalogue(), carried.entry, control, {})->refused.empty());
        CHECK((contentsBelow(collection / "V") == destroyed));
    }
}

TEST_CASE("two copies that are destroyed at different places make a whole one") {
    fs::remove_all(joinPath(dataHome(), "Trash"));
    Collection collection;
    fs::create_directories(collection / "V");
    writeMusic(collection / "V/a.wav", 34, 16);
    copyFolder(collection / "V", collection / "W");
    const auto whole = readFile(collection / "V/a.wav");
    REQUIRE(whole.size() > 2U << 20);
    collection.survey("V");
    collection.survey("W");
    auto beginning = whole;
    std::fill_n(beginning.begin(), 200'000, 'z');
    writeFile(collection / "V/a.wav", beginning);
    auto ending = whole;
    std::fill_n(ending.end() - 300'000, 300'000, 'z');
    writeFile(collection / "W/a.wav", ending);
    collection.survey("V");
    collection.survey("W");
    collection.putOnDocket(ActionKind::repair, "V", "a.wav");
    RunControl control;
    const auto carried = carryOut(collection.catalogue(), control, {});
    REQUIRE(carried.ok());
    INFO((carried->refused.empty() ? std::string() : carried->refused.front().sentence));
    CHECK(carried->done == 1);
    CHECK((readFile(collection / "V/a.wav") == whole));
    CHECK(undoEntry(collection.catalogue(), carried->entry, control, {})->refused.empty());
    CHECK((readFile(collection / "V/a.wav") == beginning));
}

TEST_CASE("what the trash holds is put back only where it is what went there") {
    fs::remove_all(joinPath(dataHome(), "Trash"));
    Collection collection;
    const auto effort = GENERATE(0, 1, 2);
    fs::create_directories(collection / "V");
    writeMusic(collection / "V/a.wav", 35, 3);
    fs::copy(collection / "V/a.wav", collection / "V/b.wav");
    collection.survey("V");
    auto damaged = readFile(collection / "V/a.wav");
    damaged[5000] ^= 1;
    ActionKind kind = ActionKind::retire;
    if (effort == 1) {
        writeFile(collection / "V/a.wav", damaged);
        collection.survey("V");
        kind = ActionKind::restore;
    }
    BytePath aside = joinPath(dataHome(), "Trash/files/a.wav");
    RunControl control;
    CarriedOut carried;
    if (effort == 2) {
        kind = ActionKind::move;
        const auto holding = collection.holding("V", "a.wav");
        DocketAction action;
        action.kind = ActionKind::move;
        action.holding = holding->id;
        action.target = aside = collection / "V/moved.wav";
        REQUIRE(DocketStore(collection.catalogue()).add(std::vector{action}).ok());
    } else {
        collection.putOnDocket(kind, "V", "a.wav");
    }
    const auto done = carryOut(collection.catalogue(), control, {});
    REQUIRE((done.ok() && done->done == 1));
    auto another = readFile(aside);
    another[another.size() / 2] ^= 1; // of the same length
    writeFile(aside, another);
    const auto undone = undoEntry(collection.catalogue(), done->entry, control, {});
    REQUIRE(undone.ok());
    CHECK(undone->done == 0);
    CHECK(undone->refused.size() == 1);
    CHECK((readFile(aside) == another));
}
