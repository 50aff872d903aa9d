// Streams whose frames change their rate or channels are decoded to their end, by the examination, by the
// comparison and for listening; ffmpeg's own decoder says how much sound there is.
#include "core/evidence/compare_decodes.h"
#include "core/media/pcm_reader.h"
#include "support/examined.h"
#include "support/examined_collection.h"

#include <cmath>
#include <numbers>

using namespace sober;
using namespace sober::test;
namespace fs = std::filesystem;

namespace {

/// MP3 streams laid end to end, as players and broken editors leave them: no header of the whole.
struct Joined {
    std::string what;
    std::vector<std::vector<std::string>> parts; ///< options of the encoder for each
};

const std::vector<Joined> joined{
    {"stereo to mono", {{"-ac", "2"}, {"-ac", "1"}}},
    {"mono to stereo", {{"-ac", "1"}, {"-ac", "2"}}},
    {"joint stereo to stereo and back",
     {{"-joint_stereo", "1"}, {"-joint_stereo", "0"}, {"-joint_stereo", "1"}}},
    {"44.1 to 48 kHz", {{"-ar", "44100"}, {"-ar", "48000"}}},
    {"48 to 22.05 kHz, stereo to mono", {{"-ar", "48000", "-ac", "2"}, {"-ar", "22050", "-ac", "1"}}},
    {"many changes",
     {{"-ac", "2"}, {"-ac", "1"}, {"-ar", "32000"}, {"-ac", "1", "-ar", "48000"}, {"-ac", "2"}}},
};

void join(const TempFolder& folder, const Joined& stream, const BytePath& to,
          const std::string& ending = "mp3") {
    std::string all;
    int number = 0;
    for (const auto& options : stream.parts) {
        const auto part = folder / ("part" + std::to_string(number++) + "." + ending);
        std::vector<std::string> words{"-i", folder / "music.wav"};
        words.insert(words.end(), options.begin(), options.end());
        if (ending == "mp3") {
            words.insert(words.end(), {"-b:a", "128k", "-write_xing", "0", "-id3v2_version", "0"});
        }
        words.push_back(part);
        ffmpeg(words);
        all += readFile(part);
    }
    writeFile(to, all);
}

} // namespace

TEST_CASE("a stream that changes its form is heard to its end") {
    const TempFolder folder;
    writeMusic(folder / "music.wav", 41, 4);
    for (const auto& stream : joined) {
        CAPTURE(stream.what);
        const auto path = folder / "joined.mp3";
        join(folder, stream, path);
        const double seconds = 4.0 * static_cast<double>(stream.parts.size());
        const auto record = recordOf(path);
        REQUIRE(record.ok());
        CHECK(record->evidence->seconds == Approx(seconds).margin(0.3));
        const bool changes = stream.what != "joint stereo to stereo and back";
        const auto& remarks = record->evidence->remarks;
        CHECK((std::ranges::find(remarks, "form-changes", &DecodeProblem::kind) != remarks.end()) == changes);

        auto reader = PcmReader::open(path, 44'100);
        REQUIRE(reader.ok());
        std::vector<std::int16_t> sound(2 * 44'100);
        double heard = 0;
        double loudest = 0;
        while (const auto frames = reader->read(sound)) {
            heard += static_cast<double>(frames) / 44'100;
            for (std::size_t at = 0; at < 2 * frames; ++at) {
                loudest = std::max(loudest, std::abs(static_cast<double>(sound[at])));
            }
            if (heard > seconds - 2) {
                loudest = loudest > 1000 ? loudest : 0;
            }
        }
        CHECK(heard == Approx(seconds).margin(0.4));
        CHECK(loudest > 1000);
        reader->seek(seconds - 1);
        CHECK(reader->read(sound) > 20'000);

        RunControl control;
        const auto compared = compareDecodes(path, path, 0, control);
        REQUIRE(compared.ok());
        CHECK(compared->agreeing > 0.99);
        CHECK(std::abs(compared->offset) < 0.01);
    }
}

TEST_CASE("a survey at full effort with matching gets past such files") {
    Examined collection;
    const TempFolder folder;
    writeMusic(folder / "music.wav", 42, 9);
    join(folder, joined[0], folder / "joined.mp3");
    fs::create_directories(collection / "V");
    fs::copy(folder / "joined.mp3", collection / "V/joined.mp3");
    ffmpeg({"-i", folder / "joined.mp3", "-ac", "2", collection / "V/again.flac"});
    collection.surveyFully("V");
    const auto details = collection.details();
    REQUIRE(details.size() == 1);
    CHECK(details.front().members.size() == 2);
}

TEST_CASE("a chained Ogg stream of other channels is one sound") {
    const TempFolder folder;
    writeMusic(folder / "music.wav", 43, 5);
    join(folder, {"", {{"-ac", "2"}, {"-ac", "1"}}}, folder / "chained.ogg", "ogg");
    const auto record = recordOf(folder / "chained.ogg");
    REQUIRE(record.ok());
    CHECK(record->evidence->seconds == Approx(10).margin(0.3));
}
