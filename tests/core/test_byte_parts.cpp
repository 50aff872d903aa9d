// The parts of files as they stand in the margin of their bytes, of files made by ffmpeg, flac, lame and
// oggenc of Debian; counted by ffprobe and metaflac.
#include "core/media/carve/byte_parts.h"
#include "support/memory_source.h"
#include "support/run_program.h"
#include "support/sound.h"

#include <catch2/catch.hpp>

using namespace sober;
using namespace sober::test;

namespace {

struct PartForms {
    PartForms() {
        writeMusic(folder / "m.wav", 9, 6);
        const auto from = [&](std::vector<std::string> words, const std::string& name) {
            std::vector<std::string> line{"-i", folder / "m.wav", "-metadata", "title=Slack Water"};
            line.insert(line.end(), words.begin(), words.end());
            line.push_back(folder / name);
            ffmpeg(line);
        };
        from({"-b:a", "128k", "-write_id3v1", "1"}, "m.mp3");
        from({"-b:a", "96k"}, "m.aac");
        from({}, "m.flac");
        from({"-c:a", "libvorbis"}, "m.ogg");
        from({"-b:a", "96k"}, "m.m4a");
        from({"-sample_fmt", "s16p"}, "m.wv");
        from({"-c:a", "wmav2"}, "m.wma");
        from({}, "m.aiff");
    }
    TempFolder folder;
};

const PartForms& partForms() {
    static const PartForms made;
    return made;
}

std::vector<BytePart> partsOf(const std::string& content, PieceKind kind, std::uint64_t from = 0,
                              std::uint64_t to = 1ULL << 40) {
    MemorySource source{std::string_view(content)};
    return bytePartsIn(source, kind, from, to);
}

std::size_t count(const std::vector<BytePart>& parts, const std::string& beginning) {
    return static_cast<std::size_t>(
        std::ranges::count_if(parts, [&](const auto& part) { return part.name.starts_with(beginning); }));
}

std::size_t framesByProbe(const std::string& path) {
    const auto ran = run({"ffprobe", "-v", "error", "-count_packets", "-show_entries",
                          "stream=nb_read_packets", "-of", "csv=p=0", path});
    return std::stoul(ran.out);
}

struct PartCase {
    const char* file;
    PieceKind kind;
    std::vector<std::string> has; ///< beginnings of names
};

} // namespace

TEST_CASE("The parts of every format lie side by side and are called by their names") {
    const PartCase cases[]{
        {"m.mp3", PieceKind::mp3, {"ID3v2 tag", "frame that states the length", "frame", "ID3v1 tag"}},
        {"m.aac", PieceKind::aac, {"frame"}},
        {"m.flac", PieceKind::flac, {"fLaC", "STREAMINFO", "VORBIS_COMMENT", "frame 0", "frame 7"}},
        {"m.ogg", PieceKind::ogg, {"page 0 of stream", "page 3 of stream"}},
        {"m.wav", PieceKind::wav, {"RIFF WAVE", "fmt", "data"}},
        {"m.aiff", PieceKind::aiff, {"FORM AIFF", "COMM", "SSND"}},
        {"m.m4a",
         PieceKind::mp4,
         {"ftyp", "moov", "moov/trak/mdia/minf/stbl/stsz", "moov/udta/meta/ilst/", "mdat"}},
        {"m.wv", PieceKind::wavpack, {"block"}},
        {"m.wma", PieceKind::asf, {"object"}}};
    for (const auto& [file, kind, has] : cases) {
        INFO(file);
        const auto content = readFile(partForms().folder / file);
        const auto parts = partsOf(content, kind);
        for (const auto& name : has) {
            INFO(name);
            CHECK(count(parts, name) > 0);
        }
        std::uint64_t reached = 0;
        std::uint64_t gaps = 0;
        for (const auto& part : parts) {
            CHECK(part.first >= reached);
            gaps += part.first - reached;
            reached = part.past;
        }
        CHECK(gaps + (content.size() - reached) <= 16);
    }
}

TEST_CASE("Frames and pages are as many as other tools count") {
    const auto path = [](const char* file) { return partForms().folder / file; };
    // The frame that states the length is no packet of audio.
    const auto mp3 = partsOf(readFile(path("m.mp3")), PieceKind::mp3);
    CHECK(count(mp3, "frame") == framesByProbe(path("m.mp3")) + 1);
    CHECK(count(partsOf(readFile(path("m.aac")), PieceKind::aac), "frame") == framesByProbe(path("m.aac")));
    CHECK(count(partsOf(readFile(path("m.flac")), PieceKind::flac), "frame") ==
          framesByProbe(path("m.flac")));
    CHECK(count(partsOf(readFile(path("m.wv")), PieceKind::wavpack), "block") == framesByProbe(path("m.wv")));
}

TEST_CASE("What is named of a stretch in the middle is what is named of all") {
    for (const auto& [file, kind] : {std::pair("m.mp3", PieceKind::mp3),
                                     {"m.flac", PieceKind::flac},
                                     {"m.ogg", PieceKind::ogg},
                                     {"m.m4a", PieceKind::mp4}}) {
        INFO(file);
        const auto content = readFile(partForms().folder / file);
        const auto all = partsOf(content, kind);
        const auto middle = content.size() / 2;
        const auto some = partsOf(content, kind, middle, middle + 4'096);
        REQUIRE_FALSE(some.empty());
        for (const auto& part : some) {
            const auto same = std::ranges::find(all, part.first, &BytePart::first);
            REQUIRE(same != all.end());
            CHECK(same->past == part.past);
            CHECK(same->name == part.name);
        }
    }
}

TEST_CASE("Bytes that are no such format have no parts, or none that lie outside") {
    for (const auto kind : everyPieceKind) {
        INFO(word(kind));
        for (unsigned seed = 0; seed < 20; ++seed) {
            auto content = randomBytes(20'000, seed);
            for (const auto& part : partsOf(content, kind)) {
                CHECK(part.past <= content.size());
                CHECK(part.first < part.past);
            }
        }
        CHECK(partsOf({}, kind).empty());
    }
}
