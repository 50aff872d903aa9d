// Audio found in bytes that no file system names, by the formats' own rules. What is looked for was made by
// ffmpeg, flac, lame and oggenc of Debian.
#include "core/media/carve/join_pieces.h"
#include "core/media/carve/scanner.h"
#include "core/media/flac_frame.h"
#include "support/memory_source.h"
#include "support/run_program.h"
#include "support/sound.h"

#include <fstream>

using namespace sober;
using namespace sober::test;

namespace {

std::vector<Piece> scanned(const std::string& image, PieceKinds kinds = PieceKinds::all(),
                           std::vector<ByteRange> passedOver = {}) {
    MemorySource bytes(image);
    RunControl control;
    std::uint64_t went = 0;
    auto all = scanImage(bytes, {0, image.size(), kinds, std::move(passedOver)}, control,
                         [&](std::uint64_t more) { went += more; });
    CHECK(all.reached == image.size());
    CHECK(went == image.size());
    return all.pieces;
}

/// One file of each form, made once.
struct CarvedForms {
    CarvedForms() {
        writeMusic(folder / "m.wav", 11, 6);
        const auto from = [&](std::vector<std::string> words, const std::string& to) {
            words.insert(words.begin(), {"-i", folder / "m.wav"});
            words.push_back(folder / to);
            ffmpeg(words);
        };
        from({"-metadata", "title=Test", "-b:a", "128k"}, "tagged.mp3");
        from({"-map_metadata", "-1", "-id3v2_version", "0", "-write_xing", "0", "-b:a", "96k"}, "bare.mp3");
        from({"-q:a", "4", "-write_id3v1", "1", "-metadata", "title=Test"}, "both tags.mp3");
        from({"-c:a", "mp2", "-b:a", "192k"}, "old.mp2");
        from({"-c:a", "aac", "-b:a", "96k"}, "stream.aac");
        from({"-sample_fmt", "s16"}, "six.flac");
        from({"-c:a", "libvorbis", "-q:a", "3"}, "v.ogg");
        from({"-c:a", "libopus", "-b:a", "64k"}, "o.opus");
        from({"-c:a", "flac", "-f", "ogg"}, "f.oga");
        from({"-rf64", "always"}, "long.wav");
        from({}, "big end.aiff");
        from({"-c:a", "aac", "-b:a", "96k"}, "end.m4a");
        from({"-c:a", "aac", "-b:a", "96k", "-movflags", "+faststart"}, "front.m4a");
        from({"-c:a", "wavpack", "-sample_fmt", "s16p"}, "w.wv");
        from({"-c:a", "wmav2", "-b:a", "96k"}, "a.wma");
        REQUIRE(
            run({"flac", "-s", "-f", "-8", "--padding=20000", folder / "m.wav", "-o", folder / "padded.flac"})
                .code == 0);
        REQUIRE(run({"lame", "--quiet", "-V", "5", folder / "m.wav", folder / "vbr.mp3"}).code == 0);
        REQUIRE(run({"oggenc", "-Q", folder / "m.wav", "-o", folder / "enc.ogg"}).code == 0);
    }
    std::string of(const std::string& name) const { return readFile(folder / name); }
    TempFolder folder;
};

const CarvedForms& carvedForms() {
    static const CarvedForms made;
    return made;
}

struct CarveCase {
    const char* file;
    PieceKind kind;
};
const CarveCase carveCases[]{
    {"m.wav", PieceKind::wav},        {"long.wav", PieceKind::wav},      {"tagged.mp3", PieceKind::mp3},
    {"bare.mp3", PieceKind::mp3},     {"both tags.mp3", PieceKind::mp3}, {"old.mp2", PieceKind::mp3},
    {"vbr.mp3", PieceKind::mp3},      {"stream.aac", PieceKind::aac},    {"six.flac", PieceKind::flac},
    {"padded.flac", PieceKind::flac}, {"v.ogg", PieceKind::ogg},         {"enc.ogg", PieceKind::ogg},
    {"o.opus", PieceKind::ogg},       {"f.oga", PieceKind::ogg},         {"big end.aiff", PieceKind::aiff},
    {"end.m4a", PieceKind::mp4},      {"front.m4a", PieceKind::mp4},     {"w.wv", PieceKind::wavpack},
    {"a.wma", PieceKind::asf}};

void padToSector(std::string& image) {
    image.resize((image.size() + sectorBytes - 1) / sectorBytes * sectorBytes, '\0');
}

} // namespace

TEST_CASE("Every format is found whole, byte for byte, wherever it begins") {
    std::string image = randomBytes(40'960, 1);
    std::vector<ByteRange> places;
    unsigned seed = 2;
    for (const auto& [file, kind] : carveCases) {
        const auto content = carvedForms().of(file);
        places.emplace_back(image.size(), image.size() + content.size());
        image += content;
        padToSector(image);
        // Side by side, or with something else between.
        image += randomBytes(seed % 2 == 0 ? 0 : 3 * sectorBytes, seed);
        ++seed;
    }
    const auto pieces = scanned(image);
    REQUIRE(pieces.size() == std::size(carveCases));
    for (std::size_t i = 0; i < std::size(carveCases); ++i) {
        INFO(carveCases[i].file);
        CHECK(pieces[i].kind == carveCases[i].kind);
        CHECK(pieces[i].first == places[i].first);
        CHECK(pieces[i].past == places[i].second);
        CHECK(pieces[i].begins);
        CHECK(pieces[i].ends);
        CHECK(pieces[i].seconds == Approx(6).margin(0.1));
    }
}

TEST_CASE("What was cut is found as far as it goes, and not said to be whole") {
    for (const auto& [file, kind] : carveCases) {
        INFO(file);
        const auto content = carvedForms().of(file);
        const auto cut = content.size() * 6 / 10 / sectorBytes * sectorBytes;
        const auto image = randomBytes(sectorBytes * 8, 3) + content.substr(0, cut) + randomBytes(300'000, 4);
        const auto pieces = scanned(image);
        if (std::string(file) == "end.m4a") {
            // Without its table of contents nobody knows what it holds; it is said for what it may be.
            CHECK(pieces.size() <= 1);
            continue;
        }
        // Behind the last whole page of FLAC in Ogg its frames still stand for themselves.
        REQUIRE(pieces.size() == (std::string(file) == "f.oga" ? 2 : 1));
        CHECK(pieces[0].kind == kind);
        CHECK(pieces[0].first == sectorBytes * 8);
        const bool onlySaysSo = kind == PieceKind::wav || kind == PieceKind::aiff || kind == PieceKind::mp4 ||
                                kind == PieceKind::asf;
        CHECK((pieces[0].past <= sectorBytes * 8 + cut || onlySaysSo));
        // A stream without a count of its frames may end anywhere at a frame's end.
        const bool hasNoEnd = std::string(file) == "stream.aac" || std::string(file) == "bare.mp3" ||
                              std::string(file) == "old.mp2";
        CHECK((!pieces[0].ends || onlySaysSo || hasNoEnd));
    }
}

TEST_CASE("The middle of what has lost its beginning is found by its frames and pages") {
    for (const auto* file : {"tagged.mp3", "stream.aac", "six.flac", "v.ogg", "o.opus"}) {
        INFO(file);
        auto content = carvedForms().of(file);
        content.replace(0, 8 * sectorBytes, randomBytes(8 * sectorBytes, 5));
        const auto pieces = scanned(content);
        REQUIRE(pieces.size() == 1);
        CHECK_FALSE(pieces[0].begins);
        CHECK(pieces[0].first > 7 * sectorBytes);
        CHECK(pieces[0].past == content.size());
        CHECK(pieces[0].seconds > 3);
    }
}

TEST_CASE("A file that another lies in the middle of is broken off there") {
    const auto wave = carvedForms().of("m.wav");
    const auto half = wave.size() / 2 / sectorBytes * sectorBytes;
    std::string image = wave.substr(0, half) + carvedForms().of("six.flac");
    padToSector(image);
    image += wave.substr(half);
    const auto pieces = scanned(image);
    REQUIRE(pieces.size() == 2);
    CHECK(pieces[0].past == half);
    CHECK_FALSE(pieces[0].ends);
    CHECK(pieces[1].kind == PieceKind::flac);
    CHECK(pieces[1].ends);
}

TEST_CASE("A recording that was never closed ends where nothing was written any more") {
    auto wave = carvedForms().of("m.wav");
    wave.replace(4, 4, std::string(4, '\0')); // its length
    wave.replace(40, 4, std::string(4, '\0'));
    padToSector(wave);
    const auto pieces = scanned(wave + std::string(2'000'000, '\0') + randomBytes(4096, 6));
    REQUIRE(pieces.size() == 1);
    CHECK(pieces[0].past == wave.size());
    CHECK_FALSE(pieces[0].ends);
}

TEST_CASE("Silence to the end and behind it is said, and the length kept") {
    auto wave = carvedForms().of("m.wav");
    const auto from = wave.size() / 2 / sectorBytes * sectorBytes;
    wave.replace(from, wave.size() - from, wave.size() - from, '\0');
    const auto length = wave.size();
    padToSector(wave);
    const auto pieces = scanned(wave + std::string(400'000, '\0'));
    REQUIRE(pieces.size() == 1);
    CHECK(pieces[0].past == length);
    CHECK_FALSE(pieces[0].ends);
    CHECK(pieces[0].emptyFrom == from);
}

TEST_CASE("Nothing is found where there is nothing") {
    std::string image =
        randomBytes(8U << 20, 7) + std::string(1U << 20, '\0') + std::string(1U << 20, '\xFF');
    image += readFile("/bin/bash") + readFile("/usr/share/common-licenses/GPL-3");
    TempFolder folder;
    for (const auto* file : {"v.mp4", "v.mkv", "v.avi", "v.mpg", "v.ts", "v.wmv"}) {
        ffmpeg({"-f", "lavfi", "-i", "testsrc2=d=8:s=320x240", "-i", carvedForms().folder / "m.wav",
                "-shortest", folder / file});
        padToSector(image);
        image += readFile(folder / file);
    }
    ffmpeg({"-f", "lavfi", "-i", "testsrc2=d=1:s=1280x720", "-frames:v", "1", folder / "p.png"});
    padToSector(image);
    image += readFile(folder / "p.png");
    for (const auto& piece : scanned(image)) {
        INFO(word(piece.kind) << " at " << piece.first << ", " << piece.seconds << " s");
        CHECK(piece.seconds < 5);
    }
}

TEST_CASE("Only what was asked for, and nothing of what is passed over, is found") {
    std::string image = carvedForms().of("six.flac");
    padToSector(image);
    const auto first = image.size();
    image += carvedForms().of("v.ogg");
    padToSector(image);
    PieceKinds oggs;
    oggs.add(PieceKind::ogg);
    REQUIRE(scanned(image, oggs).size() == 1);
    CHECK(scanned(image, oggs)[0].first == first);
    const auto rest = scanned(image, PieceKinds::all(), {{0, first}});
    REQUIRE(rest.size() == 1);
    CHECK(rest[0].kind == PieceKind::ogg);
}

TEST_CASE("Numbers that make no sense lead nowhere") {
    const auto broken = [](std::string content, std::size_t at, const std::string& with) {
        content.replace(at, with.size(), with);
        return content;
    };
    const auto box = carvedForms().of("front.m4a");
    const auto moov = box.find("moov") - 4;
    for (const auto& image :
         {broken(box, moov, std::string("\xFF\xFF\xFF\xFF", 4)),
          broken(box, moov, std::string("\0\0\0\x01", 4)), broken(box, 0, std::string("\0\0\0\0", 4)),
          broken(carvedForms().of("m.wav"), 40, std::string("\xFF\xFF\xFF\xFF", 4)),
          broken(carvedForms().of("m.wav"), 16, std::string("\xFF\xFF\xFF\x7F", 4)),
          broken(carvedForms().of("a.wma"), 16, std::string("\xFF\xFF\xFF\xFF\xFF\xFF\xFF\xFF", 8)),
          broken(carvedForms().of("w.wv"), 4, std::string("\xFF\xFF\xFF\xFF", 4)),
          broken(carvedForms().of("tagged.mp3"), 6, std::string("\x7F\x7F\x7F\x7F", 4))}) {
        for (const auto& piece : scanned(image)) {
            CHECK(piece.past <= image.size());
            CHECK(piece.first < piece.past);
        }
    }
}

// RFC 9639, appendix D.1: a whole file and what is in it.
TEST_CASE("A FLAC frame's length is told by its subframes and its check value") {
    constexpr std::uint8_t example[]{0x66, 0x4c, 0x61, 0x43, 0x80, 0x00, 0x00, 0x22, 0x10, 0x00, 0x10, 0x00,
                                     0x00, 0x00, 0x0f, 0x00, 0x00, 0x0f, 0x0a, 0xc4, 0x42, 0xf0, 0x00, 0x00,
                                     0x00, 0x01, 0x3e, 0x84, 0xb4, 0x18, 0x07, 0xdc, 0x69, 0x03, 0x07, 0x58,
                                     0x6a, 0x3d, 0xad, 0x1a, 0x2e, 0x0f, 0xff, 0xf8, 0x69, 0x18, 0x00, 0x00,
                                     0xbf, 0x03, 0x58, 0xfd, 0x03, 0x12, 0x8b, 0xaa, 0x9a};
    const auto frame = std::span(example).subspan(42);
    const auto header = readFlacFrame(frame);
    REQUIRE(header.has_value());
    CHECK(header->samples == 1);
    CHECK(header->sampleRate == 44'100);
    CHECK(header->channels == 2);
    CHECK(header->bits == 16);
    CHECK(flacFrameLength(frame, 16) == frame.size());
    for (std::size_t i = 0; i < frame.size(); ++i) {
        std::vector<std::uint8_t> changed(frame.begin(), frame.end());
        changed[i] ^= 1;
        CHECK(flacFrameLength(changed, 16) != frame.size());
    }
}

TEST_CASE("Ogg and FLAC that were broken in two are joined where the check value proves it") {
    std::size_t joined = 0;
    std::size_t tried = 0;
    for (const auto* file : {"six.flac", "padded.flac", "v.ogg", "enc.ogg", "o.opus", "f.oga"}) {
        const auto content = carvedForms().of(file);
        for (const auto share : {0.2, 0.35, 0.5, 0.65, 0.8}) {
            const auto cut =
                static_cast<std::size_t>(static_cast<double>(content.size()) * share) / 4096 * 4096;
            std::string image = randomBytes(8'192, 1) + content.substr(0, cut) + randomBytes(20'480, 2);
            const auto second = image.size();
            image += content.substr(cut);
            padToSector(image);
            image += carvedForms().of("tagged.mp3");
            MemorySource bytes(image);
            const auto all = joinPieces(bytes, scanned(image));
            ++tried;
            const bool isWhole =
                all.size() == 1 && all[0].piece.ends &&
                all[0].extents ==
                    std::vector<ByteRange>{{8'192, 8'192 + cut}, {second, second + content.size() - cut}};
            INFO(file << " at " << share);
            CHECK(isWhole);
            joined += isWhole ? 1 : 0;
        }
    }
    CHECK(joined * 10 >= tried * 9);
}

TEST_CASE("Pieces of two recordings are never joined") {
    const auto one = carvedForms().of("six.flac");
    TempFolder folder;
    writeMusic(folder / "b.wav", 77, 6);
    ffmpeg({"-i", folder / "b.wav", "-sample_fmt", "s16", folder / "b.flac"});
    const auto other = readFile(folder / "b.flac");
    const auto cut = one.size() / 2 / 4096 * 4096;
    const auto from = other.size() / 2 / 4096 * 4096;
    const auto image = one.substr(0, cut) + randomBytes(8'192, 4) + other.substr(from);
    MemorySource bytes(image);
    CHECK(joinPieces(bytes, scanned(image)).empty());
}

TEST_CASE("MP3 that was broken in two or three is joined where its frames reach back over the break") {
    std::size_t joined = 0;
    std::size_t tried = 0;
    TempFolder folder;
    writeMusic(folder / "m.wav", 5, 12);
    const auto made = [&](const std::vector<std::string>& words, const std::string& name) {
        std::vector<std::string> line{"lame", "--quiet"};
        line.insert(line.end(), words.begin(), words.end());
        line.insert(line.end(), {folder / "m.wav", folder / name});
        REQUIRE(run(line).code == 0);
        return readFile(folder / name);
    };
    for (const auto& content : {made({"-V", "4"}, "v.mp3"), made({"-b", "128"}, "c.mp3"),
                                made({"--abr", "160"}, "a.mp3"), made({"-b", "96", "-m", "m"}, "mono.mp3")}) {
        for (const auto share : {0.2, 0.35, 0.5, 0.65, 0.8}) {
            const auto cut =
                static_cast<std::size_t>(static_cast<double>(content.size()) * share) / 4096 * 4096;
            const auto again = cut + (content.size() - cut) / 2 / 4096 * 4096;
            std::string image = randomBytes(8'192, 1) + content.substr(0, cut) + randomBytes(20'480, 2);
            const auto second = image.size();
            image += content.substr(cut, again - cut) + randomBytes(12'288, 3);
            const auto third = image.size();
            image += content.substr(again);
            padToSector(image);
            image += carvedForms().of("tagged.mp3");
            MemorySource bytes(image);
            const auto all = joinPieces(bytes, scanned(image));
            ++tried;
            joined += all.size() == 1 && all[0].extents ==
                                             std::vector<ByteRange>{{8'192, 8'192 + cut},
                                                                    {second, second + again - cut},
                                                                    {third, third + content.size() - again}}
                          ? 1
                          : 0;
        }
    }
    CHECK(tried == 20);
    CHECK(joined * 10 >= tried * 9);
}

TEST_CASE("Pieces of two MP3 files of one encoder are never joined") {
    TempFolder folder;
    std::vector<std::string> contents;
    for (const unsigned seed : {21U, 22U}) {
        const auto name = std::to_string(seed);
        writeMusic(folder / (name + ".wav"), seed, 12);
        REQUIRE(
            run({"lame", "--quiet", "-b", "128", folder / (name + ".wav"), folder / (name + ".mp3")}).code ==
            0);
        contents.push_back(readFile(folder / (name + ".mp3")));
    }
    std::size_t joined = 0;
    for (std::size_t cut = 40'960; cut + 40'960 < contents[0].size(); cut += 8'192) {
        for (std::size_t from = 40'960; from + 40'960 < contents[1].size(); from += 8'192) {
            const auto image = contents[0].substr(0, cut) + randomBytes(8'192, 4) + contents[1].substr(from);
            MemorySource bytes(image);
            joined += joinPieces(bytes, scanned(image)).size();
        }
    }
    CHECK(joined == 0);
}
