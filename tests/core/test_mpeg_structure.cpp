#include "core/media/mpeg_structure.h"

#include <catch2/catch.hpp>

using namespace sober;

namespace {

/// A silent frame of Layer III, MPEG-1, 44.1 kHz, stereo, with this bitrate: its side information states no
/// main data (ISO/IEC 11172-3 sections 2.4.1.3 and 2.4.1.7).
std::string frame(int kbps = 128, bool mono = false) {
    const std::string rates("\x00\x20\x28\x30\x38\x40\x50\x60\x70\x80\xA0\xC0\xE0", 13);
    unsigned index = 0;
    for (unsigned i = 1; i < rates.size(); ++i) {
        index = static_cast<unsigned char>(rates[i]) == kbps ? i : index;
    }
    std::string bytes{'\xFF', '\xFB', static_cast<char>(index << 4), mono ? '\xC0' : '\0'};
    bytes.resize(static_cast<std::size_t>(144'000 * kbps / 44'100), '\0');
    return bytes;
}

std::string frames(int count, int kbps = 128) {
    std::string all;
    for (int i = 0; i < count; ++i) {
        all += frame(kbps);
    }
    return all;
}

std::string bigEndian(std::uint32_t value) {
    return {static_cast<char>(value >> 24), static_cast<char>(value >> 16), static_cast<char>(value >> 8),
            static_cast<char>(value)};
}

std::string littleEndian(std::uint32_t value) {
    auto bytes = bigEndian(value);
    return {bytes.rbegin(), bytes.rend()};
}

/// What LAME and others put into the first frame: how many follow, and what to leave out at the ends (no
/// standard).
std::string headerFrame(std::uint32_t count, int delay = 576, int padding = 1000) {
    auto bytes = frame();
    auto info = "Xing" + bigEndian(1) + bigEndian(count) + "LAME3.100" + std::string(12, '\0');
    const auto ends = static_cast<std::uint32_t>(delay << 12 | padding);
    info += {static_cast<char>(ends >> 16), static_cast<char>(ends >> 8), static_cast<char>(ends)};
    return bytes.replace(36, info.size(), info);
}

/// The other kind of such a header, 32 bytes behind the frame's own (no standard).
std::string otherHeaderFrame(std::uint32_t count) {
    auto bytes = frame();
    const auto info = "VBRI" + std::string(6, '\0') + bigEndian(0) + bigEndian(count);
    return bytes.replace(36, info.size(), info);
}

std::string id3v2(std::size_t length, bool footer = false) {
    return std::string("ID3\4\0", 5) + (footer ? '\x10' : '\0') + std::string("\0\0", 2) +
           static_cast<char>(length >> 7) + static_cast<char>(length & 127) + std::string(length, 't') +
           (footer ? "3DI" + std::string(7, '\0') : "");
}

std::string id3v1() {
    return "TAG" + std::string(125, ' ');
}

/// APE tag items with a footer, and a header where it is version 2 (no standard).
std::string apeTag(bool header) {
    const std::string items = littleEndian(4) + littleEndian(0) + "Title" + std::string(1, '\0') + "Gale";
    const auto end = [&](std::uint32_t flags) {
        return "APETAGEX" + littleEndian(header ? 2000 : 1000) +
               littleEndian(static_cast<std::uint32_t>(items.size()) + 32) + littleEndian(1) +
               littleEndian(flags) + std::string(8, '\0');
    };
    return (header ? end(0xA000'0000) : "") + items + end(header ? 0x8000'0000 : 0);
}

StructureReport look(const std::string& content) {
    MpegStructure check(content.size());
    check.feed(
        {reinterpret_cast<const std::uint8_t*>(content.data()), content.size()}); // NOLINT: bytes as bytes
    return check.finish();
}

std::string kinds(const std::vector<DecodeProblem>& notes) {
    std::string all;
    for (const auto& note : notes) {
        all += (all.empty() ? "" : " ") + note.kind;
    }
    return all;
}

} // namespace

TEST_CASE("tags of every kind around the frames are no junk, wherever they stand") {
    struct Row {
        std::string what;
        std::string content;
    };
    const std::vector<Row> rows{
        {"nothing around", frames(20)},
        {"ID3v2 before", id3v2(300) + frames(20)},
        {"ID3v2 with a footer", id3v2(300, true) + frames(20)},
        {"two ID3v2 tags", id3v2(100) + id3v2(200) + frames(20)},
        {"ID3v1 behind", frames(20) + id3v1()},
        {"APE with header behind", frames(20) + apeTag(true)},
        {"APE without header behind", frames(20) + apeTag(false)},
        {"all of them", id3v2(50) + frames(20) + apeTag(true) + id3v1()},
        {"an older APE tag and ID3v1", frames(20) + apeTag(false) + id3v1()},
        {"lyrics and ID3v1", frames(20) + "LYRICSBEGIN" + std::string(90, 'l') + "LYRICSEND" + id3v1()},
        {"a header frame", headerFrame(20) + frames(20)},
        {"a header frame that counts itself", headerFrame(21) + frames(20)},
        {"the other kind of header frame", otherHeaderFrame(20) + frames(20)},
    };
    for (const auto& row : rows) {
        CAPTURE(row.what);
        const auto report = look(row.content);
        CHECK(kinds(report.problems).empty());
        CHECK(kinds(report.remarks).empty());
        std::uint64_t junk = 0;
        for (const auto& [first, past] : report.junk) {
            junk += past - first;
        }
        CHECK(junk == 0);
        CHECK(report.units == 20 + (row.what.find("header frame") != std::string::npos ? 1 : 0));
    }
}

TEST_CASE("what does not fit is told for what it is") {
    struct Row {
        std::string what;
        std::string content;
        std::string problems;
        std::string remarks;
        std::uint64_t junk = 0;
    };
    const std::string stray(333, 'x');
    const std::vector<Row> rows{
        {"junk between tag and frames", id3v2(50) + stray + frames(20), "", "junk", 333},
        {"junk between frames and tag", frames(20) + stray + id3v1(), "", "junk", 333},
        {"junk between frames and an APE tag", frames(20) + stray + apeTag(true), "", "junk", 333},
        {"junk among frames", frames(10) + stray + frames(10), "damaged", "", 333},
        {"junk among frames and behind", frames(10) + stray + frames(10) + stray, "damaged", "junk", 666},
        {"a frame cut", frames(20).substr(0, 19 * 417 + 100), "truncated", ""},
        {"frames gone at the end", headerFrame(20) + frames(17), "truncated", ""},
        {"more frames than are stated", headerFrame(20) + frames(23), "length-mismatch", ""},
        {"the other header's count", otherHeaderFrame(40) + frames(20), "truncated", ""},
        {"one channel in place of two", frames(10) + frame(128, true) + frame(128, true) + frames(5),
         "damaged damaged", ""},
        {"bitrates that vary, and no length", frames(10) + frames(10, 192), "", "unstated-length"},
        {"bitrates that vary, and a length", headerFrame(20) + frames(10) + frames(10, 192), "", ""},
        {"ends that are longer than all of it", headerFrame(2, 4000, 4000) + frames(2), "", "gapless"},
    };
    for (const auto& row : rows) {
        CAPTURE(row.what);
        const auto report = look(row.content);
        CHECK(kinds(report.problems) == row.problems);
        CHECK(kinds(report.remarks) == row.remarks);
        std::uint64_t junk = 0;
        for (const auto& [first, past] : report.junk) {
            junk += past - first;
            CHECK((row.content.substr(first, past - first) == std::string(past - first, 'x')));
        }
        CHECK(junk == row.junk);
    }
}

TEST_CASE("main data that is not there is told, but not where a stream was cut out of a longer one") {
    // The first nine bits of the side information say how many bytes before the frame its data begin.
    auto refers = frame();
    refers[4] = '\x40';
    CHECK(kinds(look(frames(3) + refers + frames(3)).problems)
              .empty()); // the frames before have that room to spare
    CHECK(kinds(look(refers + frames(6)).problems).empty());
    // A granule that takes more than there is: its length stands in bits 20 to 31 (two channels).
    auto greedy = frame();
    greedy[6] = '\x0F';
    greedy[7] = '\xFF';
    auto full = frame();
    for (const std::size_t at : {4U, 5U, 6U, 7U}) {
        full[at] = greedy[at];
    }
    CHECK(kinds(look(frames(1) + greedy + frames(4)).problems) == "damaged");
}
