// What a disc says of itself, what a register and a lookup answer, and how a drive's offset is found: against
// libdiscid, zlib and cd-info.
#include "core/disc/disc_contents.h"
#include "core/disc/disc_lookup.h"
#include "core/disc/disc_positions.h"
#include "core/disc/rip_register.h"
#include "core/disc/sliding_crc.h"

#include <catch2/catch.hpp>
#include <discid/discid.h>
#include <fmt/format.h>

#include <random>
#include <zlib.h>

using namespace sober;

namespace {

DiscContents contentsOf(const std::vector<int>& begins, int leadOut) {
    DiscContents contents;
    contents.leadOut = leadOut;
    for (std::size_t i = 0; i < begins.size(); ++i) {
        DiscTrack track;
        track.number = static_cast<int>(i) + 1;
        track.firstSector = begins[i];
        track.sectors = (i + 1 < begins.size() ? begins[i + 1] : leadOut) - begins[i];
        contents.tracks.push_back(track);
    }
    return contents;
}

std::string idByLibdiscid(const DiscContents& contents) {
    std::vector<int> offsets{contents.leadOut + 150};
    for (const auto& track : contents.tracks) {
        offsets.push_back(track.firstSector + 150);
    }
    auto* const disc = discid_new();
    std::string id;
    if (discid_put(disc, contents.tracks.front().number, contents.tracks.back().number, offsets.data()) !=
        0) {
        id = discid_get_id(disc);
    }
    discid_free(disc);
    return id;
}

DiscSamples noise(std::size_t samples, unsigned seed) {
    std::mt19937 random(seed);
    DiscSamples made(2 * samples);
    for (auto& each : made) {
        each = static_cast<std::int16_t>(random());
    }
    return made;
}

constexpr std::size_t edge = 5UL * samplesPerSector;

/// What a register says of tracks that lie one after another in `disc`, `before` samples into it.
RegisteredDisc registered(const DiscSamples& disc, std::size_t before, std::size_t length, int tracks,
                          int reported) {
    RegisteredDisc made;
    for (int i = 0; i < tracks; ++i) {
        const auto from = before + static_cast<std::size_t>(i) * length + edge;
        made.tracks.push_back(
            {i + 1, crcOf(std::span(disc).subspan(2 * from, 2 * (length - 2 * edge))), reported});
    }
    return made;
}

} // namespace

TEST_CASE("A disc's name is the one that libdiscid gives it") {
    // The example of libdiscid's own documentation (from memory).
    CHECK(discId(contentsOf({0, 15'213, 32'164, 46'442, 63'264, 80'339}, 95'312)) ==
          "49HHV7Eb8UKF3aQiNmu1GR8vKTY-");
    std::mt19937 random(9);
    for (int times = 0; times < 200; ++times) {
        std::vector<int> begins;
        int at = static_cast<int>(random() % 400);
        for (unsigned i = 0; i < 1 + random() % 99; ++i, at += 300 + static_cast<int>(random() % 3'000)) {
            begins.push_back(at);
        }
        const auto contents = contentsOf(begins, at);
        CHECK(discId(contents) == idByLibdiscid(contents));
    }
}

TEST_CASE("A disc that cannot be read as audio says why") {
    auto blank = contentsOf({}, 0);
    auto dataOnly = contentsOf({0, 3'000}, 9'000);
    dataOnly.tracks[0].isAudio = dataOnly.tracks[1].isAudio = false;
    auto backwards = contentsOf({0, 9'000, 3'000}, 20'000);
    auto beyond = contentsOf({0, 3'000}, 2'000);
    auto endless = contentsOf({0, 3'000}, 2'000'000'000);
    std::vector<int> many;
    for (int i = 0; i < 100; ++i) {
        many.push_back(i * 300);
    }
    const std::vector<std::tuple<DiscContents, Cause, std::string>> table{
        {blank, Cause::notAudio, "is blank"},
        {dataOnly, Cause::notAudio, "data only"},
        {backwards, Cause::damaged, "contradicts itself"},
        {beyond, Cause::damaged, "contradicts itself"},
        {endless, Cause::damaged, "longer than 100 minutes"},
        {contentsOf(many, 30'000), Cause::damaged, "above 99"},
    };
    for (const auto& [contents, cause, words] : table) {
        const auto readable = isReadable(contents, "d.cue");
        REQUIRE_FALSE(readable.ok());
        CHECK(readable.error().cause == cause);
        CHECK(readable.error().sentence.find(words) != std::string::npos);
    }
    many.pop_back();
    CHECK(isReadable(contentsOf(many, 99 * 300), "d.cue").ok()); // 99 of four seconds
    CHECK(sectorTime(4 * 75 * 60 + 12 * 75 + 23) == "04:12.23");
}

TEST_CASE("Sliding checksums are those that zlib gives each stretch") {
    const auto samples = noise(5'000, 2);
    const auto sums = slidingCrc(samples, 1'234);
    REQUIRE(sums.size() == 5'000 - 1'234 + 1);
    for (std::size_t at = 0; at < sums.size(); at += 7) {
        const auto* bytes = reinterpret_cast<const Bytef*>(samples.data() + 2 * at);
        REQUIRE(sums[at] == crc32(0, bytes, 4 * 1'234));
    }
    CHECK(slidingCrc(samples, 5'001).empty());
}

TEST_CASE("A drive's offset is found at every place where it may be, and nowhere else") {
    const std::size_t length = 4 * edge + 2'000;
    const std::size_t before = 2 * edge;
    const auto disc = noise(before + 3 * length + 2 * edge, 3);
    const auto right = registered(disc, before, length, 3, 12);
    const auto heardAt = [&](RegisterCheck& check, int number, int offset) {
        const auto from = static_cast<std::ptrdiff_t>(before) +
                          static_cast<std::ptrdiff_t>(number - 1) * static_cast<std::ptrdiff_t>(length) -
                          farthestOffset + offset;
        check.take(number, std::span(disc).subspan(static_cast<std::size_t>(2 * from),
                                                   2 * (length + 2 * farthestOffset)));
    };
    for (const int offset : {-2'940, -2'939, -667, -1, 0, 1, 30, 1'776, 2'939, 2'940}) {
        RegisterCheck check({registered(noise(disc.size() / 2, 8), before, length, 3, 5), right}, 3, 0);
        heardAt(check, 1, -offset);
        CHECK(check.offset().has_value() == (offset == 0)); // one track proves only the expected place
        heardAt(check, 2, -offset);
        REQUIRE(check.offset() == offset);
        CHECK(check.wordFor(1).agree == 12);
        CHECK(check.wordFor(2).agree == 12);
        CHECK(check.wordFor(3).agree == 0);
        CHECK(check.wordFor(3).isKnown);
    }
    RegisterCheck away({right}, 3, 0);
    heardAt(away, 1, 2'941);
    heardAt(away, 2, 2'941);
    CHECK_FALSE(away.offset().has_value());
}

TEST_CASE("Ten thousand wrong discs do not agree") {
    const std::size_t length = 2 * edge + 100;
    std::mt19937 random(11);
    int agreements = 0;
    std::vector<DiscSamples> tracks;
    for (unsigned i = 0; i < 4; ++i) {
        tracks.push_back(noise(length + 2UL * farthestOffset, 20 + i));
    }
    // 5,881 places are searched in each track for what each of 10,000 wrong discs is registered with: all of
    // them together are as many chances as if they were asked one after another.
    for (int group = 0; group < 10; ++group) {
        std::vector<RegisteredDisc> wrong(1'000);
        for (auto& each : wrong) {
            for (int number = 1; number <= 4; ++number) {
                each.tracks.push_back({number, static_cast<std::uint32_t>(random()), 1});
            }
        }
        RegisterCheck check(wrong, 4, 0);
        for (int number = 1; number <= 4; ++number) {
            check.take(number, tracks[static_cast<std::size_t>(number - 1)]);
        }
        agreements += check.offset().has_value() ? 1 : 0;
    }
    CHECK(agreements == 0);
}

TEST_CASE("Silence proves no offset") {
    const std::size_t length = 2 * edge + 3'000;
    const DiscSamples silent(2 * (length + 2UL * farthestOffset), 0);
    const auto crc = crcOf(std::span(silent).first(2 * (length - 2 * edge)));
    RegisterCheck check({{{{1, crc, 3}, {2, crc, 3}}}}, 2, 0);
    check.take(1, silent);
    check.take(2, silent);
    CHECK(check.wordFor(1).offset == 0);
    CHECK(check.wordFor(1).agree == 3);
}

TEST_CASE("Nonsense from a register and a lookup is a sentence; hostile text becomes plain") {
    for (
        const auto* text :
        {"", "[]", "{}", "{\"schema\":\"sober.register/1\"}",
         R"({"schema":"sober.register/1","pressings":[{"tracks":[{"number":1,"crc32":"xyz","reported":1}]}]})",
         R"({"schema":"sober.register/1","pressings":[{"tracks":[{"number":0,"crc32":"00000000","reported":1}]}]})",
         R"({"schema":"sober.register/1","pressings":[{"tracks":7}]})"}) {
        CHECK(registerFrom(text).error().cause == Cause::damaged);
        CHECK(lookupFrom(text, contentsOf({0}, 900)).error().cause == Cause::damaged);
    }
    const auto hostile =
        nlohmann::json{{"schema", "sober.lookup/1"},
                       {"discs",
                        {{{"title", "Two\nlines\x1b[31m"},
                          {"artist", std::string(100'000, 'x')},
                          {"disc", -4},
                          {"tracks", {{{"title", "../../etc/passwd"}}}}},
                         {{"title", "of another disc"}, {"tracks", nlohmann::json::array()}}}}};
    const auto names = lookupFrom(hostile.dump(), contentsOf({0}, 900));
    REQUIRE(names.ok());
    REQUIRE(names->size() == 1);
    CHECK(names->front().title == "Twolines[31m");
    CHECK(names->front().artist.size() <= 500);
    CHECK(names->front().disc == 0);
}

namespace {

/// The Q channel of a disc that has these gaps and marks, laid out by IEC 60908 (from memory).
struct Subcode {
    DiscContents truth;
    bool inDigits = true; ///< as the disc has it; some drives give plain numbers
    int late = 0;         ///< sectors by which the drive gives the subcode of an earlier sector
    int otherMode = 0;    ///< of so many sectors one holds the media number; 0: none
    mutable int readings = 0;

    std::uint8_t number(int value) const {
        return static_cast<std::uint8_t>(inDigits ? value / 10 * 16 + value % 10 : value);
    }
    std::optional<DiscPosition> operator()(int asked) const {
        ++readings;
        const int sector = asked - late;
        const DiscTrack* at = &truth.tracks.front();
        int index = 1;
        for (const auto& track : truth.tracks) {
            if (sector >= track.firstSector - track.gap) {
                at = &track;
                index = sector >= track.firstSector ? 1 : 0;
                for (const int mark : track.marks) {
                    index += sector >= mark ? 1 : 0;
                }
            }
        }
        const bool isOther = otherMode > 0 && sector % otherMode == 0;
        const int inTrack = std::abs(sector - at->firstSector);
        const int onDisc = sector + 150;
        const std::vector<std::uint8_t> bytes{static_cast<std::uint8_t>(isOther ? 0x02 : 0x01),
                                              number(at->number),
                                              number(index),
                                              number(inTrack / 75 / 60),
                                              number(inTrack / 75 % 60),
                                              number(inTrack % 75),
                                              0,
                                              number(onDisc / 75 / 60),
                                              number(onDisc / 75 % 60),
                                              number(onDisc % 75)};
        return positionFrom(bytes, asked);
    }
};

} // namespace

TEST_CASE("gaps and index marks are found in the subcode, however a drive gives it") {
    std::mt19937 random(60908);
    Subcode subcode;
    int begin = 0;
    std::vector<int> begins;
    for (int track = 0; track < 14; ++track) {
        begins.push_back(begin);
        begin += 300 + static_cast<int>(random() % 20'000);
    }
    subcode.truth = contentsOf(begins, begin);
    auto known = subcode.truth;
    for (std::size_t i = 1; i < begins.size(); ++i) {
        auto& track = subcode.truth.tracks[i];
        track.gap = i % 3 == 0 ? 0 : static_cast<int>(random() % 150);
        if (i % 4 == 1 && track.sectors > 1000) {
            track.marks = {track.firstSector + 75, track.firstSector + 76 + static_cast<int>(random() % 500)};
        }
    }
    subcode.inDigits = GENERATE(true, false);
    subcode.late = GENERATE(0, 2, -3);
    subcode.otherMode = GENERATE(0, 10, 91);
    CAPTURE(subcode.inDigits, subcode.late, subcode.otherMode);
    // Where the media number stands at the very place, the sector beside it is taken.
    const int within = subcode.otherMode > 0 ? 1 : 0;
    auto found = known;
    findPositions(found, subcode);
    for (std::size_t i = 0; i < begins.size(); ++i) {
        CAPTURE(i);
        const auto& truth = subcode.truth.tracks[i];
        CHECK(std::abs(found.tracks[i].gap - truth.gap) <= within);
        REQUIRE(found.tracks[i].marks.size() == truth.marks.size());
        for (std::size_t mark = 0; mark < truth.marks.size(); ++mark) {
            CHECK(std::abs(found.tracks[i].marks[mark] - truth.marks[mark]) <= within);
        }
    }
    CHECK(subcode.readings < 14 * 80);

    SECTION("and nothing is believed of a drive that tells none, or another disc's") {
        found = known;
        findPositions(found, [](int) { return std::nullopt; });
        CHECK((found == known));
        auto other = subcode;
        for (auto& track : other.truth.tracks) {
            track.number += 1;
        }
        findPositions(found, other);
        CHECK((found == known));
    }
}

TEST_CASE("a position is read as digits or as numbers, and nonsense is none") {
    using Bytes = std::vector<std::uint8_t>;
    // Track 12, index 3, 01:02.03 into it, 34:56.07 on the disc.
    const int sector = (34 * 60 + 56) * 75 + 7 - 150;
    const DiscPosition there{12, 3, sector};
    CHECK(positionFrom(Bytes{0x41, 0x12, 0x03, 0x01, 0x02, 0x03, 0, 0x34, 0x56, 0x07}, sector) == there);
    CHECK(positionFrom(Bytes{0x41, 12, 3, 1, 2, 3, 0, 34, 56, 7}, sector) == there);
    CHECK(positionFrom(Bytes{0x42, 0x12, 0x03, 0x01, 0x02, 0x03, 0, 0x34, 0x56, 0x07}, sector) ==
          std::nullopt);
    CHECK(positionFrom(Bytes{0x41, 0xAA, 0x01, 0x01, 0x02, 0x03, 0, 0x34, 0x56, 0x07}, sector) ==
          std::nullopt);
    CHECK(positionFrom(Bytes{0x41, 0x12, 0x03, 0x01, 0x02, 0x03, 0, 0x34, 0x56, 0x07}, sector + 200) ==
          std::nullopt);
    CHECK(positionFrom(Bytes{0x41, 0x12, 0x03}, sector) == std::nullopt);
    CHECK(positionFrom(Bytes(16, 0xFF), sector) == std::nullopt);
}
