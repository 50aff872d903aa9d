// Codes of Layer III: that they are a whole code, and that what encoders of others write comes out even
// (libmp3lame by lame and ffmpeg, libshine by ffmpeg), whatever their settings.
#include "core/media/layer3_frame.h"
#include "core/media/mpeg_structure.h"
#include "support/run_program.h"
#include "support/sound.h"
#include "support/temp_folder.h"

#include <catch2/catch.hpp>

#include <random>
#include <set>

using namespace sober;
using namespace sober::test;

namespace {

std::span<const std::uint8_t> rawBytes(const std::string& content) {
    return {reinterpret_cast<const std::uint8_t*>(content.data()), content.size()}; // NOLINT: bytes as bytes
}

struct PlacedFrame {
    MpegFrame frame;
    std::size_t at;
};

/// The frames of audio, one after another, behind tags and what states their number.
std::vector<PlacedFrame> framesWithin(const std::string& content) {
    std::vector<PlacedFrame> frames;
    std::size_t at = content.starts_with("ID3") ? static_cast<std::size_t>(content[9] & 127) +
                                                      (static_cast<std::size_t>(content[8] & 127) << 7) + 10
                                                : 0;
    while (at + 4 <= content.size()) {
        const auto frame = readMpegFrame(rawBytes(content).subspan(at));
        if (!frame || at + frame->bytes > content.size()) {
            break;
        }
        if (!readStatedFrames(*frame, rawBytes(content).subspan(at, frame->bytes))) {
            frames.push_back({*frame, at});
        }
        at += frame->bytes;
    }
    return frames;
}

Layer3Accounts accountsOf(const std::string& content) {
    Layer3Accounts accounts;
    double seconds = 0;
    for (const auto& [frame, at] : framesWithin(content)) {
        accounts.take(frame, rawBytes(content).subspan(at, frame.bytes), seconds);
        seconds += static_cast<double>(frame.samples) / frame.sampleRate;
    }
    return accounts;
}

StructureReport reportOn(const std::string& content) {
    MpegStructure check(content.size());
    check.feed(rawBytes(content));
    return check.finish();
}

/// Twelve seconds with loud and quiet, tones and noise, made once.
class Pieces {
  public:
    Pieces() {
        writeMusic(folder_ / "a.wav", 11, 12);
        ffmpeg({"-i", folder_ / "a.wav", "-c:a", "libmp3lame", "-b:a", "192k", folder_ / "a.mp3"});
    }
    const TempFolder& folder() const { return folder_; }
    std::string mp3() const { return readFile(folder_ / "a.mp3"); }

  private:
    TempFolder folder_;
};

const Pieces& pieces() {
    static const Pieces all;
    return all;
}

} // namespace

TEST_CASE("every row of bits begins with one code of each table, and each value has one") {
    const Layer3Codes codes;
    // How many values a table has: ISO/IEC 11172-3, table B.7.
    const std::vector<std::pair<unsigned, std::size_t>> sizes{
        {1, 4},   {2, 9},   {3, 9},    {5, 16},   {6, 16},   {7, 36},   {8, 36},   {9, 36},  {10, 64},
        {11, 64}, {12, 64}, {13, 256}, {15, 256}, {16, 256}, {23, 256}, {24, 256}, {31, 256}};
    const auto walk = [](const auto& codeAt) {
        std::set<unsigned> values;
        std::uint64_t next = 0;
        while (next < std::uint64_t{1} << 32) {
            const auto code = codeAt(static_cast<std::uint32_t>(next));
            REQUIRE(code.length > 0);
            CHECK(values.insert(code.values).second);
            next += std::uint64_t{1} << (32 - code.length);
        }
        CHECK(next == std::uint64_t{1} << 32);
        return values;
    };
    for (const auto& [table, size] : sizes) {
        CAPTURE(table);
        const auto values =
            walk([&, number = table](std::uint32_t next) { return codes.pair(number, next); });
        CHECK(values.size() == size);
        CHECK(values.contains(0));
    }
    for (const bool second : {false, true}) {
        CHECK(walk([&](std::uint32_t next) { return codes.quad(second, next); }).size() == 16);
    }
    CHECK_FALSE(Layer3Codes::isTable(4));
    CHECK_FALSE(Layer3Codes::isTable(14));
}

TEST_CASE("codes are the standard's") {
    const Layer3Codes codes;
    struct Row {
        unsigned table;
        std::uint32_t bits; ///< at the top
        int length;
        int values;
    };
    // ISO/IEC 11172-3, table B.7, from memory.
    for (const auto& row :
         {Row{1, 0x8000'0000, 1, 0x00}, Row{1, 0x4000'0000, 2, 0x10}, Row{1, 0x2000'0000, 3, 0x01},
          Row{1, 0, 3, 0x11}, Row{2, 0x8000'0000, 1, 0x00}, Row{2, 0, 6, 0x22}, Row{16, 0x8000'0000, 1, 0x00},
          Row{24, 0xF000'0000, 4, 0x00}}) {
        CAPTURE(row.table, row.bits);
        const auto code = codes.pair(row.table, row.bits);
        CHECK(code.length == row.length);
        CHECK(code.values == row.values);
    }
    CHECK(codes.quad(false, 0x8000'0000).length == 1);
    CHECK(codes.quad(true, 0xF000'0000).values == 0); // the second table is four bits turned over
    CHECK(codes.quad(true, 0).values == 15);
    CHECK(Layer3Codes::bitsBeyond(15) == 0);
    CHECK(Layer3Codes::bitsBeyond(23) == 13);
    CHECK(Layer3Codes::bitsBeyond(24) == 4);
}

TEST_CASE("what encoders write comes out even, at all rates and in all their ways") {
    const auto& folder = pieces().folder();
    struct Row {
        std::string name;
        std::vector<std::string> words; ///< of lame
    };
    std::vector<Row> rows{{"V0", {"-V", "0"}},
                          {"V9", {"-V", "9"}},
                          {"average", {"--abr", "140"}},
                          {"320", {"-b", "320"}},
                          {"32 mono", {"-b", "32", "-m", "m"}},
                          {"both alike", {"-b", "128", "-m", "s"}},
                          {"all mid and side", {"-b", "128", "-m", "f"}},
                          {"with check values", {"-b", "128", "-p"}},
                          {"without a reservoir", {"-b", "128", "--nores"}},
                          {"short blocks alone", {"-b", "160", "--allshort"}},
                          {"long blocks alone", {"-b", "160", "--noshort"}}};
    for (const auto* rate : {"8", "11.025", "12", "16", "22.05", "24", "32", "48"}) {
        rows.push_back({std::string(rate) + " kHz", {"--resample", rate, "-V", "4"}});
    }
    for (const auto& row : rows) {
        CAPTURE(row.name);
        const auto made = folder / "made.mp3";
        auto words = row.words;
        words.insert(words.begin(), {"lame", "--quiet"});
        words.insert(words.end(), {folder / "a.wav", made});
        REQUIRE(run(words).code == 0);
        const auto accounts = accountsOf(readFile(made));
        CHECK(accounts.counted() > 100);
        CHECK(accounts.odd() == 0);
        CHECK(reportOn(readFile(made)).remarks.empty());
    }
}

TEST_CASE("a bit that was changed is remarked where it is, though the frame still decodes") {
    const auto original = pieces().mp3();
    const auto frames = framesWithin(original);
    REQUIRE(frames.size() > 300);
    CHECK(accountsOf(original).odd() == 0);
    std::mt19937 random(4); // NOLINT: the same each time
    int found = 0;
    int placed = 0;
    constexpr int changes = 200;
    for (int i = 0; i < changes; ++i) {
        const auto which = 20 + random() % (frames.size() - 40);
        const auto& [frame, at] = frames[which];
        const auto behind = 4 + sideInfoLength(frame);
        auto content = original;
        content[at + behind + random() % (frame.bytes - behind)] ^= static_cast<char>(1U << random() % 8);
        const auto report = reportOn(content);
        CHECK(report.problems.empty()); // no more than a remark
        for (const auto& remark : report.remarks) {
            REQUIRE(remark.kind == "odd-bits");
            ++found;
            // The main data of a frame may begin in those before it.
            const double later = remark.at - static_cast<double>(which) * 1152 / 44'100;
            placed += later > -0.03 && later < 0.3 ? 1 : 0;
        }
    }
    // Most single bits are signs, or make a code of the same length.
    CHECK(found >= changes / 20);
    CHECK(placed == found);
}

TEST_CASE("of bytes that were written over most are found, as damage or as a remark") {
    const auto original = pieces().mp3();
    std::mt19937 random(5); // NOLINT: the same each time
    int found = 0;
    constexpr int changes = 60;
    for (int i = 0; i < changes; ++i) {
        auto content = original;
        const auto at = content.size() / 20 + random() % (content.size() * 9 / 10);
        for (std::size_t byte = at; byte < at + 128; ++byte) {
            content[byte] = static_cast<char>(random());
        }
        const auto report = reportOn(content);
        found += report.problems.empty() && report.remarks.empty() ? 0 : 1;
    }
    CHECK(found >= changes / 2);
}

TEST_CASE("an encoder that leaves bits over is not suspected, nor a stream too short to tell") {
    const auto& folder = pieces().folder();
    ffmpeg({"-i", folder / "a.wav", "-c:a", "libshine", "-b:a", "128k", folder / "shine.mp3"});
    const auto shine = readFile(folder / "shine.mp3");
    CHECK(accountsOf(shine).odd() > accountsOf(shine).counted() / 100);
    CHECK(reportOn(shine).remarks.empty());
    // Bits are left over where more of a granule is stated than its codes take: here in every frame, by
    // stating that none of its lines is coded.
    auto content = pieces().mp3();
    const auto frames = framesWithin(content);
    for (const auto& [frame, at] : frames) {
        // The pairs of the first granule and channel: nine bits behind main_data_begin, private bits, scfsi
        // and its length.
        const auto first = at + 4 + 4; // 9 + 3 + 8 + 12 bits
        content[first] = 0;
        content[first + 1] = static_cast<char>(content[first + 1] & 0x7F);
    }
    const auto accounts = accountsOf(content);
    CHECK(accounts.odd() > accounts.counted() / 8);
    CHECK(reportOn(content).remarks.empty());

    const auto few = pieces().mp3().substr(0, frames[40].at);
    auto changed = few;
    changed[frames[30].at + 200] ^= 0x10;
    Layer3Accounts fewCounted = accountsOf(changed);
    CHECK(fewCounted.counted() < 200);
    CHECK(reportOn(changed).remarks.size() == reportOn(few).remarks.size());
}

TEST_CASE("a stream that begins within another refers to what is not there, and is not counted for that") {
    const auto content = pieces().mp3();
    const auto frames = framesWithin(content);
    const auto cut = content.substr(frames[50].at);
    CHECK(accountsOf(cut).odd() == 0);
    CHECK(accountsOf(cut).counted() > 500);
    // Two that were joined: what the second begins in is gone.
    const auto joined = content.substr(0, frames[200].at) + cut;
    Layer3Accounts accounts;
    std::size_t number = 0;
    for (const auto& [frame, at] : framesWithin(joined)) {
        if (number++ == 200) {
            accounts.forget();
        }
        accounts.take(frame, rawBytes(joined).subspan(at, frame.bytes), 0);
    }
    CHECK(accounts.odd() == 0);
}
