#include "core/media/layer3_frame.h"
#include "core/media/mpeg_structure.h"
#include "core/media/ogg_structure.h"
#include "support/examined.h"
#include "support/run_program.h"
#include "support/small_audio.h"
#include "support/sound.h"

#include <catch2/catch.hpp>

#include <filesystem>
#include <random>
#include <regex>

using namespace sober;
using namespace sober::test;
namespace fs = std::filesystem;

namespace {

/// Six seconds of music in many forms, each made once.
class Forms {
  public:
    Forms() {
        writeMusic(folder_ / "a.wav", 5, 6);
        const std::vector<std::pair<std::string, std::vector<std::string>>> made{
            {"a.mp3", {"-b:a", "192k"}},
            {"a.ogg", {"-c:a", "libvorbis"}},
            {"a.opus", {}},
            {"a.flac", {}},
            {"a.aiff", {}},
            {"a.m4a", {"-c:a", "aac", "-aac_coder", "fast", "-movflags", "+faststart"}},
            {"rf64.wav", {"-rf64", "always"}},
            {"mono.mp3", {"-ac", "1", "-ar", "22050", "-b:a", "64k"}},
            {"tagged.mp3", {"-metadata", "title=Fog", "-write_id3v1", "1"}},
            {"ulaw.aifc", {"-c:a", "pcm_mulaw", "-f", "aiff"}},
            {"float.aifc", {"-c:a", "pcm_f32be", "-f", "aiff"}},
            {"little.aifc", {"-c:a", "pcm_s16le", "-f", "aiff"}},
            {"flac.mka", {"-c:a", "flac"}},
            {"flac.oga", {"-c:a", "flac"}},
            {"flac.mp4", {"-c:a", "flac", "-strict", "-2"}},
            {"a.w64", {}},
            {"48.mp3", {"-ar", "48000", "-b:a", "128k"}}};
        for (const auto& [name, options] : made) {
            std::vector<std::string> words{"-i", folder_ / "a.wav"};
            words.insert(words.end(), options.begin(), options.end());
            words.push_back(folder_ / name);
            ffmpeg(words);
        }
        const auto lame = [&](std::vector<std::string> words) {
            words.insert(words.begin(), {"lame", "--quiet"});
            REQUIRE(run(words).code == 0);
        };
        lame({"-b", "128", "-p", folder_ / "a.wav", folder_ / "protected.mp3"});
        lame({"-V", "2", folder_ / "a.wav", folder_ / "vbr.mp3"});
        lame({"-V", "4", "-t", folder_ / "a.wav", folder_ / "unstated.mp3"});
        lame({"--freeformat", "-b", "200", folder_ / "a.wav", folder_ / "free.mp3"});
    }
    std::string operator[](const std::string& name) const { return readFile(folder_ / name); }
    const TempFolder& folder() const { return folder_; }

  private:
    TempFolder folder_;
};

const Forms& forms() {
    static const Forms all;
    return all;
}

/// Where each frame of an MP3 begins, by its own lengths.
std::vector<std::size_t> framesOf(const std::string& content) {
    std::vector<std::size_t> frames;
    std::size_t at = content.starts_with("ID3") ? static_cast<std::size_t>(content[9] & 127) +
                                                      (static_cast<std::size_t>(content[8] & 127) << 7) + 10
                                                : 0;
    while (at + 4 <= content.size()) {
        const auto frame = readMpegFrame(
            {reinterpret_cast<const std::uint8_t*>(content.data()) + at, 4}); // NOLINT: bytes as bytes
        if (!frame) {
            break;
        }
        frames.push_back(at);
        at += frame->bytes;
    }
    return frames;
}

/// Where each page of an Ogg file begins.
std::vector<std::size_t> pagesOf(const std::string& content) {
    std::vector<std::size_t> pages;
    for (auto at = content.find("OggS"); at != std::string::npos; at = content.find("OggS", at + 4)) {
        pages.push_back(at);
    }
    return pages;
}

std::string withFlipped(std::string content, std::size_t at) {
    content[at] = static_cast<char>(content[at] ^ 0x10);
    return content;
}

std::string without(std::string content, std::size_t first, std::size_t past) {
    return content.erase(first, past - first);
}

std::string with(std::string content, std::size_t at, const std::string& more) {
    return content.insert(at, more);
}

const std::string strayBytes(700, 'x');

std::string listed(const std::vector<DecodeProblem>& notes) {
    std::string text;
    for (const auto& note : notes) {
        text += note.kind + " at " + std::to_string(note.at) + ": " + note.detail + "\n";
    }
    return text;
}

bool hasTool(const BytePath& name) {
    return name.ends_with(".ogg") || name.ends_with(".flac");
}

/// What the formats' own tools say: true where they find fault.
bool toolFindsFault(const BytePath& path) {
    if (path.ends_with(".ogg")) {
        return run({"ogginfo", path}).out.find("WARNING") != std::string::npos;
    }
    return run({"flac", "-ts", path}).code != 0;
}

/// A fault that is planted, and what is to be told of it.
struct Row {
    std::string what;
    std::string name; ///< of the file that is made
    std::function<std::string()> content;
    std::string kind;
    bool problem; ///< or a remark
    double from;  ///< seconds
    double to;
};

void checkRow(const Row& row) {
    CAPTURE(row.what);
    const TempFolder folder;
    writeFile(folder / row.name, row.content());
    const auto evidence = examined(folder / row.name);
    REQUIRE(evidence.ok());
    CAPTURE(listed(evidence->problems), listed(evidence->remarks));
    const auto& notes = row.problem ? evidence->problems : evidence->remarks;
    const auto found = std::ranges::find_if(notes, [&](const DecodeProblem& note) {
        return note.kind == row.kind && note.at >= row.from && note.at <= row.to;
    });
    CHECK(found != notes.end());
    CHECK(evidence->sound() == !row.problem);
    if (hasTool(row.name)) {
        CHECK(toolFindsFault(folder / row.name));
    }
}

} // namespace

TEST_CASE("what is reckoned of a stream's length still says where its parts lie") {
    struct Listener final : SampleSink {
        SampleFormat format;
        void begin(const SampleFormat& begun) override { format = begun; }
        void take(const DecodedBlock&) override {}
    };
    const auto& folder = forms().folder();
    REQUIRE(run({"lame", "--quiet", "-t", "-b", "128", folder / "a.wav", folder / "plain.mp3"}).code == 0);
    const auto file = openForReading(folder / "plain.mp3");
    REQUIRE(file.ok());
    OpenFileSource source(*file, folder / "plain.mp3", fs::file_size(folder / "plain.mp3"));
    Listener listener;
    RunControl control;
    REQUIRE(decodeAudio(source, folder / "plain.mp3", listener, control).ok());
    CHECK(listener.format.statedSeconds == Approx(6).margin(0.1));
}

TEST_CASE("a stream without a container states no length, whatever is reckoned from its bitrate") {
    const auto& folder = forms().folder();
    // Where it begins in silence, its first frames are far smaller than the others.
    ffmpeg({"-i", folder / "a.wav", "-af", "volume=0:enable='lt(t,2)'", "-c:a", "aac", folder / "quiet.aac"});
    const auto evidence = examined(folder / "quiet.aac");
    REQUIRE(evidence.ok());
    CHECK(evidence->problems.empty());
    CHECK(evidence->seconds == Approx(6).margin(0.1));
}

TEST_CASE("what encoders write is sound, and nothing is remarked") {
    const std::string name =
        GENERATE(as<std::string>(), "a.wav", "a.mp3", "a.ogg", "a.opus", "a.flac", "a.aiff", "a.m4a",
                 "rf64.wav", "mono.mp3", "tagged.mp3", "48.mp3", "protected.mp3", "vbr.mp3", "ulaw.aifc",
                 "float.aifc", "little.aifc", "flac.mka", "flac.oga", "flac.mp4", "a.w64");
    CAPTURE(name);
    const auto evidence = examined(forms().folder() / name);
    REQUIRE(evidence.ok());
    CHECK(listed(evidence->problems).empty());
    CHECK(listed(evidence->remarks).empty());
    if (hasTool(name)) {
        CHECK_FALSE(toolFindsFault(forms().folder() / name));
    }
}

// Beside those of Ogg and FLAC: ogginfo and flac -t, which read these formats independently of us, find fault
// too.
TEST_CASE("faults of structure are told, with their kind and second") {
    const auto mp3 = [] { return forms()["a.mp3"]; };
    const auto ogg = [] { return forms()["a.ogg"]; };
    const std::vector<Row> rows{
        {"junk between frames", "x.mp3", [&] { return with(mp3(), framesOf(mp3())[115], strayBytes); },
         "damaged", true, 2.9, 3.1},
        {"junk before the first frame", "x.mp3",
         [&] { return std::string(300, '\0') + mp3().substr(framesOf(mp3())[0]); }, "junk", false, 0, 0},
        {"junk behind the last frame", "x.mp3", [&] { return mp3() + strayBytes; }, "junk", false, 6, 6.2},
        {"the end within a frame", "x.mp3", [&] { return mp3().substr(0, framesOf(mp3())[150] + 99); },
         "truncated", true, 3.8, 4.0},
        {"the end between frames", "x.mp3", [&] { return mp3().substr(0, framesOf(mp3())[228]); },
         "truncated", true, 5.8, 6.2},
        {"frames left out", "x.mp3",
         [&] { return without(mp3(), framesOf(mp3())[100], framesOf(mp3())[110]); }, "damaged", true, 2.5,
         2.7},
        {"frames of another rate behind", "x.mp3",
         [&] { return mp3() + forms()["48.mp3"].substr(framesOf(forms()["48.mp3"])[1]); }, "damaged", true, 6,
         6.2},
        {"more frames than are stated", "x.mp3", [&] { return mp3() + mp3().substr(framesOf(mp3())[1]); },
         "length-mismatch", true, 12, 12.5},
        {"a bit of a protected frame's side information", "x.mp3",
         [&] {
             const auto whole = forms()["protected.mp3"];
             return withFlipped(whole, framesOf(whole)[100] + 20);
         },
         "damaged", true, 2.5, 2.7},
        {"the length not stated", "x.mp3", [&] { return forms()["unstated.mp3"]; }, "unstated-length", false,
         0, 0},
        {"a bit of a page", "x.ogg", [&] { return withFlipped(ogg(), pagesOf(ogg())[4] + 2000); }, "damaged",
         true, 0.5, 5},
        {"a page left out", "x.ogg", [&] { return without(ogg(), pagesOf(ogg())[4], pagesOf(ogg())[5]); },
         "damaged", true, 0.5, 5},
        {"junk between pages", "x.ogg", [&] { return with(ogg(), pagesOf(ogg())[4], strayBytes); }, "damaged",
         true, 0.5, 5},
        {"the end within a page", "x.ogg", [&] { return ogg().substr(0, pagesOf(ogg())[5] + 1000); },
         "truncated", true, 0.5, 5.9},
        {"the end between pages", "x.ogg", [&] { return ogg().substr(0, pagesOf(ogg())[5]); }, "truncated",
         true, 0.5, 5.9},
        {"junk behind the last page", "x.ogg", [&] { return ogg() + strayBytes; }, "junk", false, 5.9, 6.1},
        {"a bit of a frame", "x.flac",
         [&] { return withFlipped(forms()["a.flac"], forms()["a.flac"].size() / 2); }, "damaged", true, 1, 5},
        {"the end within a frame", "x.flac",
         [&] { return forms()["a.flac"].substr(0, forms()["a.flac"].size() / 2); }, "truncated", true, 1, 5},
        {"a tag behind the last frame", "x.flac",
         [&] { return forms()["a.flac"] + "TAG" + std::string(125, ' '); }, "junk", false, 6, 6.1},
    };
    for (const auto& row : rows) {
        checkRow(row);
    }
}

// RIFF and AIFF as Microsoft's and Apple's specifications lay them out, RF64 by EBU Tech 3306, boxes by
// ISO/IEC 14496-12; the changes are made by hand, at the places these give.
TEST_CASE("chunks and boxes that do not hold what they state are told") {
    const auto wav = [] { return forms()["a.wav"]; };
    const auto number = [](std::string content, std::size_t at, std::uint32_t value, bool little) {
        for (std::size_t i = 0; i < 4; ++i) {
            content[at + i] = static_cast<char>(value >> (8 * (little ? i : 3 - i)));
        }
        return content;
    };
    const std::vector<Row> rows{
        {"WAV cut", "x.wav", [&] { return wav().substr(0, wav().size() / 2); }, "truncated", true, 2.9, 3.1},
        {"RF64 cut", "x.wav", [&] { return forms()["rf64.wav"].substr(0, wav().size() / 2); }, "truncated",
         true, 2.9, 3.1},
        {"AIFF cut", "x.aiff", [&] { return forms()["a.aiff"].substr(0, wav().size() / 2); }, "truncated",
         true, 2.9, 3.1},
        {"M4A cut", "x.m4a", [&] { return forms()["a.m4a"].substr(0, forms()["a.m4a"].size() / 2); },
         "truncated", true, 0, 5},
        {"WAV with more behind", "x.wav", [&] { return wav() + strayBytes; }, "junk", false, 0, 0},
        {"M4A with more behind", "x.m4a", [&] { return forms()["a.m4a"] + std::string(700, '\0'); }, "junk",
         false, 0, 0},
        {"WAV whose sound has no stated length", "x.wav",
         [&] { return number(wav(), wav().find("data") + 4, 0xFFFFFFFF, true); }, "unstated-length", false, 0,
         0},
        {"AIFF of more frames than its sound holds", "x.aiff",
         [&] { return number(forms()["a.aiff"], forms()["a.aiff"].find("COMM") + 10, 300'000, false); },
         "truncated", true, 5.9, 6.1},
    };
    for (const auto& row : rows) {
        checkRow(row);
    }
}

TEST_CASE("an MP3 of a free bitrate is audio, and it is said that it cannot be decoded") {
    const auto record = recordOf(forms().folder() / "free.mp3");
    REQUIRE_FALSE(record.ok());
    CHECK(record.error().cause == Cause::unreadable);
}

TEST_CASE("sound that breaks off, stands still, clips or is not there is remarked where it happens") {
    constexpr std::size_t frame = 4; // bytes of 16-bit stereo
    const TempFolder folder;
    const auto original = forms()["a.wav"];
    const auto data = original.find("data") + 8;
    const auto at = [&](double seconds) { return data + static_cast<std::size_t>(seconds * 44100) * frame; };
    struct Row {
        std::string kind;
        double second;
        std::string content;
    };
    std::string stuck = original;
    for (std::size_t i = 0; i < 4410; ++i) {
        stuck.replace(at(2.5) + i * frame, frame, std::string("\x00\x20\x00\x20", frame));
    }
    std::string clipped = original;
    for (std::size_t i = 0; i < 44'100; ++i) {
        clipped.replace(at(4) + i * frame, frame,
                        std::string(i % 8 < 4 ? "\xFF\x7F\xFF\x7F" : "\x00\x80\x00\x80", frame));
    }
    const std::vector<Row> rows{
        {"dropout", 1.5, std::string(original).replace(at(1.5), 4096, std::string(4096, '\0'))},
        {"stuck", 2.5, stuck},
        {"clipped", 4, clipped},
        {"silence", 0,
         std::string(original).replace(data, std::string::npos, std::string(original.size() - data, '\0'))},
    };
    for (const auto& row : rows) {
        CAPTURE(row.kind);
        writeFile(folder / "x.wav", row.content);
        const auto evidence = examined(folder / "x.wav");
        REQUIRE(evidence.ok());
        CAPTURE(listed(evidence->remarks));
        REQUIRE(evidence->remarks.size() == 1);
        CHECK(evidence->remarks[0].kind == row.kind);
        CHECK(std::abs(evidence->remarks[0].at - row.second) < 0.002);
        CHECK(evidence->sound());
    }
}

// ISO/IEC 11172-3 section 2.4.3.1 gives the polynomial; the value for these nine digits is that of CRC-16/CMS
// of the catalogue of parametrised CRCs, from memory.
TEST_CASE("the check value of MPEG frames is that of the standard") {
    const std::string digits = "123456789";
    const std::span bytes(reinterpret_cast<const std::uint8_t*>(digits.data()),
                          digits.size()); // NOLINT: bytes
    CHECK(mpegCrc(bytes) == 0xAEE7);
}

TEST_CASE("the structure is told alike however its bytes come") {
    const std::string name = GENERATE(as<std::string>(), "a.mp3", "a.ogg", "a.wav", "a.aiff", "a.m4a");
    const auto content = with(forms()[name], forms()[name].size() / 2, strayBytes) + strayBytes;
    const std::span bytes(reinterpret_cast<const std::uint8_t*>(content.data()),
                          content.size()); // NOLINT: bytes
    const auto inPieces = [&](std::size_t length) {
        const auto check = structureCheckFor(bytes, bytes.size());
        REQUIRE(check);
        for (std::size_t at = 0; at < bytes.size(); at += length) {
            check->feed(bytes.subspan(at, std::min(length, bytes.size() - at)));
        }
        return check->finish();
    };
    const auto whole = inPieces(bytes.size());
    CHECK(whole.units > 1);
    for (const std::size_t length : {1U, 7U, 4096U, 131'072U}) {
        CAPTURE(name, length);
        const auto report = inPieces(length);
        CHECK(listed(report.problems) == listed(whole.problems));
        CHECK(listed(report.remarks) == listed(whole.remarks));
        CHECK(report.junk == whole.junk);
        CHECK(report.units == whole.units);
    }
}

// FFmpeg's own error detection (-err_detect with all its checks) says something of these files, or decodes
// less of them; so do we.
TEST_CASE("what FFmpeg's error detection finds at random places is found here too") {
    const std::string name =
        GENERATE(as<std::string>(), "a.flac", "a.ogg", "a.mp3", "protected.mp3", "a.m4a", "a.wav");
    const TempFolder folder;
    const auto whole = forms()[name];
    const auto secondsByTool = [](const BytePath& path) {
        return static_cast<double>(run({"ffmpeg", "-nostdin", "-v", "quiet", "-i", path, "-f", "s16le", "-ac",
                                        "1", "-ar", "44100", "-"})
                                       .out.size()) /
               2 / 44'100;
    };
    const double before = secondsByTool(forms().folder() / name);
    std::mt19937 random(1234);
    int faults = 0;
    for (int round = 0; round < (longForm() ? 48 : 8); ++round) {
        auto content = whole;
        // Within the audio: what is changed in tags and tables is another matter.
        const auto at = content.size() / 4 + random() % (content.size() / 2);
        if (round % 3 == 0) {
            content.resize(at);
        } else {
            content.replace(at, round % 3 == 1 ? 1 : 64,
                            std::string(round % 3 == 1 ? 1 : 64, static_cast<char>(random())));
        }
        const auto path = folder / ("x" + name.substr(name.find('.')));
        writeFile(path, content);
        const auto said = run({"ffmpeg", "-nostdin", "-v", "error", "-err_detect",
                               "crccheck+bitstream+buffer", "-i", path, "-f", "null", "-"});
        // Some encoders leave bits in every frame, so that these words say nothing of damage.
        const bool onlyBits = std::regex_match(
            said.err, std::regex("(\\[mp3float @ [^\\]]*\\] bits_left=[0-9-]+\\n| .*repeated.*\\n)*"));
        const bool fault = !onlyBits || secondsByTool(path) < before - 0.1;
        faults += fault ? 1 : 0;
        const auto evidence = examined(path);
        CAPTURE(name, round, at, said.err);
        CHECK((!fault || !evidence.ok() || !evidence->sound()));
    }
    CHECK(faults >= 3); // the cut ones at least
}
