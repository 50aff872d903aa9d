#include "core/catalogue/excerpt_store.h"
#include "core/catalogue/volume_leaving.h"
#include "core/evidence/worker/caged_listening.h"
#include "core/evidence/worker/evidence_worker.h"
#include "core/media/excerpt_pass.h"
#include "support/collection.h"
#include "support/run_program.h"
#include "support/small_audio.h"
#include "support/sound.h"

#include <catch2/catch.hpp>

#include <cmath>
#include <filesystem>

using namespace sober;
using namespace sober::test;
namespace fs = std::filesystem;

namespace {

constexpr int rate = 8000;

/// Noise that is quiet but for some seconds of it; interleaved, every channel alike.
std::vector<float> noiseWithLoudPart(double seconds, double from, double to, int channels) {
    const auto noise = whiteNoise(static_cast<std::size_t>(seconds * rate), 0.1F);
    std::vector<float> interleaved;
    for (std::size_t i = 0; i < noise.size(); ++i) {
        const double at = static_cast<double>(i) / rate;
        const float sample = noise[i] * (at >= from && at < to ? 1.5F : 0.2F);
        interleaved.insert(interleaved.end(), static_cast<std::size_t>(channels), sample);
    }
    return interleaved;
}

Excerpt excerptOf(const std::vector<float>& interleaved, int channels) {
    ExcerptPass pass;
    feed(pass, interleaved, rate, channels);
    return pass.finish("made up");
}

SurveyChoices keeping() {
    SurveyChoices choices;
    choices.keepExcerpts = true;
    return choices;
}

SurveyReport surveyInFull(Collection& all, const SurveyChoices& choices) {
    RunControl control;
    auto report = surveyVolume(all.catalogue(), {all / "V", {}, choices, Effort::full}, control,
                               [](const Progress&) {});
    INFO((report ? std::string() : report.error().sentence));
    REQUIRE(report.ok());
    return *report;
}

} // namespace

TEST_CASE("an excerpt is the loudest stretch, and the outline tells where that is") {
    struct Row {
        double seconds, from, to;
        int channels;
        double begins, kept;
    };
    for (const auto& [seconds, from, to, channels, begins, kept] :
         std::initializer_list<Row>{{90, 50, 70, 1, 50, 20},
                                    {90, 0, 20, 2, 0, 20},
                                    {90, 70, 90, 2, 70, 20},
                                    {60, 30, 55, 6, 30, 20}, // the first of equal ones, about
                                    {20, 3, 4, 2, 0, 20},
                                    {7.25, 3, 4, 1, 0, 7.25}, // all there is
                                    {0.1, 0, 0, 1, 0, 0.1}}) {
        INFO(seconds << " s, loud from " << from << " to " << to);
        const auto excerpt = excerptOf(noiseWithLoudPart(seconds, from, to, channels), channels);
        CHECK(excerpt.begins == Approx(begins).margin(to - from > 20 ? to - from - 20 : 1e-9));
        CHECK(excerpt.seconds == Approx(kept).margin(1e-3));
        CHECK(excerpt.whole == Approx(seconds).margin(1e-3));
        // RFC 3533, section 6 and RFC 7845, section 5.1: an Ogg page, and in it the head of an Opus stream.
        REQUIRE(excerpt.sound.size() > 47);
        CHECK(excerpt.sound.substr(0, 4) == "OggS");
        CHECK(excerpt.sound.substr(28, 8) == "OpusHead");
        CHECK(static_cast<int>(excerpt.sound[37]) == std::min(channels, 2));
        CHECK(excerpt.sound.size() < Excerpt::usualBytes);
        REQUIRE_FALSE(excerpt.outline.empty());
        CHECK(excerpt.outline.size() <= Excerpt::mostColumns);
        const auto column = [&](double at) {
            return excerpt.outline[std::min(
                excerpt.outline.size() - 1,
                static_cast<std::size_t>(at / seconds * static_cast<double>(excerpt.outline.size())))];
        };
        if (seconds > 20 && from > 5) {
            CHECK(column((from + to) / 2) > 3 * column(2));
        }
    }
    CHECK(outlineOf({1, 9, 2, 3}, 2) == std::vector<std::uint8_t>{9, 3});
    CHECK(outlineOf({4, 5}, 512) == std::vector<std::uint8_t>{4, 5});
    CHECK(outlineOf({}, 512).empty());
    // Nothing was decoded: nothing is kept, and nothing breaks.
    ExcerptPass none;
    CHECK(none.finish("nothing").sound.empty());
}

TEST_CASE("an excerpt sounds like the stretch that it was taken from") {
    // A tone of 1,000 Hz where it is loud, of 300 Hz elsewhere: counted by its zero crossings.
    std::vector<float> samples;
    for (int i = 0; i < 60 * rate; ++i) {
        const double at = static_cast<double>(i) / rate;
        const bool isLoud = at >= 30 && at < 52;
        const auto sample = static_cast<float>((isLoud ? 0.5 : 0.05) *
                                               std::sin(2 * 3.14159265358979 * (isLoud ? 1000 : 300) * at));
        samples.insert(samples.end(), 2, sample);
    }
    const auto excerpt = excerptOf(samples, 2);
    auto listening = CagedListening::openBytes(excerpt.sound, "the excerpt");
    REQUIRE(listening.ok());
    CHECK(listening->seconds() == Approx(20).margin(0.05));
    std::vector<std::int16_t> stereo(std::size_t{2} * static_cast<std::size_t>(listening->rate()) * 10);
    REQUIRE(listening->read(stereo) == stereo.size() / 2);
    int crossings = 0;
    int peak = 0;
    for (std::size_t i = 2; i < stereo.size(); i += 2) {
        crossings += (stereo[i - 2] < 0) != (stereo[i] < 0) ? 1 : 0;
        peak = std::max(peak, std::abs(static_cast<int>(stereo[i])));
    }
    CHECK(crossings == Approx(20'000).epsilon(0.02)); // two for each period of ten seconds
    CHECK(peak == Approx(16'384).epsilon(0.1));
}

TEST_CASE("a survey at full effort keeps an excerpt of each, in the pass that examines it") {
    Collection all;
    writeFile(all / "V/a.wav", smallWav(1, 2));
    writeFile(all / "V/b.wav", smallWav(2, 2));
    const auto size = smallWav(1, 2).size();
    // A cover, so that there is one to be kept.
    ffmpeg({"-f", "lavfi", "-i", "color=red:size=600x400:duration=1", "-frames:v", "1", all / "cover.png"});
    ffmpeg({"-i", all / "V/b.wav", "-i", all / "cover.png", "-map", "0:a", "-map", "1:v", "-c:v", "png",
            "-disposition:v", "attached_pic", all / "V/c.flac"});
    CHECK(surveyInFull(all, {}).added == 3);
    const ExcerptStore store(all.catalogue());
    CHECK(store.figures()->kept == 0);
    CHECK(store.figures()->without == 3);
    CHECK_FALSE(fs::exists(excerptsPath(all.cataloguePath()))); // nobody asked for one

    // Asked for later: what was examined is read once more, and after that not again.
    const auto read = surveyInFull(all, keeping());
    CHECK(read.bytesRead == 2 * size + fs::file_size(all / "V/c.flac"));
    CHECK(read.unchanged == 3);
    CHECK(store.figures()->kept == 3);
    CHECK(store.figures()->without == 0);
    CHECK(all.survey("V").bytesRead == 0);

    const auto kept = store.of(all.holding("V", "a.wav")->id);
    REQUIRE((kept && *kept));
    CHECK((*kept)->seconds == Approx(2).margin(0.001));
    CHECK((*kept)->cover.empty());
    const auto flac = store.of(all.holding("V", "c.flac")->id);
    REQUIRE((flac && *flac));
    CHECK((*flac)->cover.substr(0, 3) == "\xFF\xD8\xFF"); // ITU-T T.81, B.1.1.3: a JPEG
    const auto picture = EvidenceWorker().picture((*flac)->cover, 1000);
    REQUIRE(picture.ok());
    CHECK(picture->width == Excerpt::coverPixels);
    CHECK(picture->height == Approx(Excerpt::coverPixels * 2 / 3).margin(1));

    // It belongs to the sound: what moved or was copied has it, what is gone from everywhere lets it go.
    fs::rename(all / "V/a.wav", all / "V/moved.wav");
    writeFile(all / "V/b.wav", smallWav(3, 2));
    CHECK(surveyInFull(all, keeping()).moved == 1);
    CHECK((*store.of(all.holding("V", "moved.wav")->id)).has_value());
    CHECK((*store.of(all.holding("V", "b.wav")->id)).has_value());
    CHECK(store.figures()->kept == 3);
    const auto bytes = store.figures()->bytes;
    REQUIRE(forgetVolume(all.catalogue(), all.volume("V")).ok());
    CHECK(store.figures()->kept == 0);
    CHECK(store.figures()->bytes < bytes / 2);
}

TEST_CASE("what is kept beside the catalogue may be lost, spoilt or too new without harm to it") {
    Collection all;
    writeFile(all / "V/a.wav", smallWav(1, 1));
    surveyInFull(all, keeping());
    const auto file = excerptsPath(all.cataloguePath());
    REQUIRE(fs::exists(file));
    const auto id = all.holding("V", "a.wav")->id;
    struct Row {
        const char* what;
        std::function<void()> spoil;
        std::optional<Cause> refused; ///< a survey that is to keep more
    };
    const std::string whole = readFile(file);
    for (const auto& [what, spoil, refused] : std::initializer_list<Row>{
             {"lost", [&] { fs::remove(file); }, {}},
             {"begun and not made", [&] { writeFile(file, ""); }, {}},
             {"its beginning destroyed",
              [&] { writeFile(file, std::string(4096, 'x') + whole.substr(4096)); }, Cause::damaged},
             {"of a later program",
              [&] {
                  REQUIRE(
                      run({"python3", "-c",
                           "import sqlite3, sys\nsqlite3.connect(sys.argv[1]).execute('PRAGMA user_version "
                           "= 99')",
                           file})
                          .code == 0);
              },
              Cause::newer}}) {
        INFO(what);
        all.whileClosed([&] {
            for (const char* ending : {"", "-wal", "-shm"}) {
                fs::remove(file + ending);
            }
            writeFile(file, whole);
            spoil();
        });
        const auto before = fs::exists(file) ? readFile(file) : std::string();
        const ExcerptStore store(all.catalogue());
        const auto kept = store.of(id);
        REQUIRE(kept.ok());
        CHECK_FALSE(kept->has_value());
        CHECK(store.figures()->without == 1);
        RunControl control;
        const auto report =
            surveyVolume(all.catalogue(), {all / "V", {}, {}, {}}, control, [](const Progress&) {});
        CHECK(report.ok() == !refused);
        if (refused) {
            CHECK(report.error().cause == *refused);
            CHECK(report.error().path == file);
            CHECK(readFile(file) == before);
        } else {
            CHECK((*store.of(id)).has_value()); // made again
        }
        CHECK(all.holding("V", "a.wav")->state == HoldingState::present);
    }
}
