#include "core/evidence/drift.h"
#include "support/sound.h"

#include <catch2/catch.hpp>

#include <cmath>
#include <random>

using namespace sober;

namespace {

Checksum128 sum(std::uint8_t value) {
    Checksum128 checksum;
    checksum.bytes[0] = value;
    return checksum;
}

/// A three-block FLAC of 200 s as it was recorded at full effort.
FixityFacts recorded() {
    FixityFacts facts;
    facts.size = 2'500'000;
    facts.mtime = 1000;
    facts.content = sum(1);
    facts.blocks = {sum(10), sum(11), sum(12)};
    facts.claims = {"flac", "flac", true, 100'000, 44'100, 2, 16, 200};
    facts.tags = {"The Slipway", "Choral Union", "Lifeboat Hall", "1", "1998"};
    facts.payload = sum(20);
    facts.samples = Md5{21};
    facts.fingerprint = Fingerprint(400, 0x0F0F3355);
    facts.seconds = 200;
    return facts;
}

/// The same with what index effort does not know left out.
FixityFacts indexed(FixityFacts facts) {
    facts.payload.reset();
    facts.samples.reset();
    facts.fingerprint.clear();
    facts.seconds = 0;
    return facts;
}

/// Written anew: other bytes everywhere, another time, the sound as it was.
FixityFacts rewritten() {
    auto facts = recorded();
    facts.mtime = 2000;
    facts.content = sum(2);
    facts.blocks = {sum(30), sum(31), sum(32)};
    return facts;
}

struct Row {
    const char* why;
    FixityFacts before, now;
    DriftKind kind;
};

FixityFacts with(FixityFacts facts, const std::function<void(FixityFacts&)>& change) {
    change(facts);
    return facts;
}

Fingerprint anotherRecording() {
    Fingerprint words;
    for (std::uint32_t i = 0; i < 400; ++i) {
        words.push_back(i * 2'654'435'761U);
    }
    return words;
}

} // namespace

TEST_CASE("the kind of drift follows from what is known before and after") {
    const auto otherAudio = with(rewritten(), [](FixityFacts& facts) {
        facts.payload = sum(40);
        facts.samples = Md5{41};
    });
    const std::vector<Row> rows{
        {"size and time stay", recorded(), with(rewritten(), [](FixityFacts& facts) { facts.mtime = 1000; }),
         DriftKind::silentChange},
        {"the packets are the same", recorded(),
         with(rewritten(), [](FixityFacts& facts) { facts.samples.reset(); }), DriftKind::tagsEdited},
        {"the samples are the same under other packets", recorded(),
         with(rewritten(), [](FixityFacts& facts) { facts.payload = sum(40); }), DriftKind::tagsEdited},
        {"the beginning is left", recorded(),
         with(otherAudio,
              [](FixityFacts& facts) {
                  facts.size = 1'500'000;
                  facts.blocks = {sum(10), sum(50)};
              }),
         DriftKind::truncated},
        {"smaller, and its first block is another", recorded(),
         with(otherAudio,
              [](FixityFacts& facts) {
                  facts.size = 1'500'000;
                  facts.blocks = {sum(49), sum(50)};
              }),
         DriftKind::audioAltered},
        {"less than a block is left, and the decode ends early", recorded(),
         with(otherAudio,
              [](FixityFacts& facts) {
                  facts.size = 300'000;
                  facts.blocks = {sum(50)};
                  facts.endsEarly = true;
              }),
         DriftKind::truncated},
        {"less than a block is left of another recording", recorded(),
         with(otherAudio,
              [](FixityFacts& facts) {
                  facts.size = 300'000;
                  facts.blocks = {sum(50)};
                  facts.tags.title = "Another";
                  facts.fingerprint = anotherRecording();
              }),
         DriftKind::replaced},
        {"another recording under the same tags", recorded(),
         with(otherAudio, [](FixityFacts& facts) { facts.fingerprint = anotherRecording(); }),
         DriftKind::replaced},
        {"the same recording under other tags and other audio data", recorded(),
         with(otherAudio, [](FixityFacts& facts) { facts.tags.title = "Another"; }), DriftKind::audioAltered},
        {"other audio data of the same recording", recorded(), otherAudio, DriftKind::audioAltered},
        {"by claims alone: other tags, the same claims", indexed(recorded()),
         with(indexed(rewritten()), [](FixityFacts& facts) { facts.tags.date = "1999"; }),
         DriftKind::tagsEdited},
        {"by claims alone: room was made for tags", indexed(recorded()),
         with(indexed(rewritten()), [](FixityFacts& facts) { facts.size += 4096; }), DriftKind::tagsEdited},
        {"by claims alone: the same size, other bytes", indexed(recorded()), indexed(rewritten()),
         DriftKind::audioAltered},
        {"by claims alone: another title and another length", indexed(recorded()),
         with(indexed(rewritten()),
              [](FixityFacts& facts) {
                  facts.tags.title = "Another";
                  facts.claims.duration = 150;
              }),
         DriftKind::replaced},
        {"by claims alone: the same title in another codec", indexed(recorded()),
         with(indexed(rewritten()), [](FixityFacts& facts) { facts.claims.codec = "mp3"; }),
         DriftKind::audioAltered},
        {"by claims alone: no title on either side, another codec",
         with(indexed(recorded()), [](FixityFacts& facts) { facts.tags = {}; }),
         with(indexed(rewritten()),
              [](FixityFacts& facts) {
                  facts.tags = {};
                  facts.claims.codec = "mp3";
              }),
         DriftKind::replaced},
    };
    for (const auto& row : rows) {
        INFO(row.why);
        CHECK(driftWord(driftKindOf(row.before, row.now)) == driftWord(row.kind));
    }
}

namespace {

constexpr int soundRate = 11'025;

using Sound = std::vector<float>;

/// A tone that wanders, with its overtones and some noise.
Sound wanderingTone(unsigned seed) {
    std::mt19937 random(seed);
    std::uniform_real_distribution<double> unit(-1, 1);
    Sound sound;
    double frequency = 600 + 400 * unit(random);
    double target = frequency;
    double phase = 0;
    for (int at = 0; at < 20 * soundRate; ++at) {
        target =
            at % 2205 == 0 ? std::clamp(frequency * std::exp2(0.5 * unit(random)), 120.0, 3000.0) : target;
        frequency += (target - frequency) * 0.0008;
        phase += 2 * M_PI * frequency / soundRate;
        sound.push_back(
            static_cast<float>(0.25 * std::sin(phase) + 0.1 * std::sin(2 * phase) + 0.05 * unit(random)));
    }
    return sound;
}

/// One tone of its own colour throughout.
Sound steadyTone(unsigned seed) {
    std::mt19937 random(seed);
    const double frequency = std::uniform_real_distribution<double>(150, 1500)(random);
    Sound sound;
    for (int at = 0; at < 20 * soundRate; ++at) {
        const double phase = 2 * M_PI * frequency * at / soundRate;
        sound.push_back(static_cast<float>(0.3 * std::sin(phase) + 0.1 * std::sin(3 * phase + seed)));
    }
    return sound;
}

Sound hiss(unsigned seed) {
    return test::whiteNoise(20 * soundRate, 0.2F, seed);
}

/// From a second on, for so many, nothing.
Sound silenced(Sound sound, int from, int seconds) {
    std::fill_n(sound.begin() + from * soundRate, seconds * soundRate, 0.0F);
    return sound;
}

DriftKind kindFor(const Sound& before, const Sound& now) {
    const auto heard = [](FixityFacts facts, std::uint8_t payload, const Sound& sound) {
        FingerprintPass pass;
        test::feed(pass, sound, soundRate, 1);
        facts.fingerprint = pass.finish();
        facts.payload = sum(payload);
        facts.samples.reset();
        return facts;
    };
    return driftKindOf(heard(recorded(), 1, before), heard(rewritten(), 2, now));
}

} // namespace

TEST_CASE("another recording of the same length and kind of sound is told from one that was altered") {
    struct Kind {
        const char* name;
        Sound (*make)(unsigned seed);
    };
    for (const auto& kind :
         {Kind{"wandering tone", wanderingTone}, {"steady tone", steadyTone}, {"noise", hiss}}) {
        CAPTURE(kind.name);
        for (unsigned seed = 1; seed <= 11; ++seed) {
            CAPTURE(seed);
            const auto before = kind.make(seed);
            const auto other = kind.make(seed + 100);
            CHECK(kindFor(before, other) == DriftKind::replaced);
            CHECK(kindFor(before, silenced(before, 4, 7)) == DriftKind::audioAltered);
            CHECK(kindFor(before, silenced(before, 0, 10)) == DriftKind::audioAltered);
            // Both fall silent at one place: that is nothing they have in common. (Hiss and plain tones are
            // too much alike for that.)
            CHECK((kind.make != wanderingTone ||
                   kindFor(silenced(before, 0, 5), silenced(other, 0, 5)) == DriftKind::replaced));
            auto quieter = before;
            std::ranges::for_each(quieter, [](float& sample) { sample *= 0.5F; });
            CHECK(kindFor(before, quieter) == DriftKind::audioAltered);
        }
    }
}

TEST_CASE("differing blocks are told in runs, past the end of either too") {
    using Runs = std::vector<std::pair<std::uint64_t, std::uint64_t>>;
    struct Blocks {
        std::vector<int> before, now;
        Runs runs;
    };
    const auto row = GENERATE(values<Blocks>({
        {{1, 2, 3}, {1, 2, 3}, {}},
        {{1, 2, 3}, {1, 9, 3}, {{1, 1}}},
        {{1, 2, 3, 4}, {9, 9, 3, 9}, {{0, 1}, {3, 3}}},
        {{1, 2, 3}, {1}, {{1, 2}}},
        {{1}, {1, 2, 3}, {{1, 2}}},
        {{}, {}, {}},
    }));
    const auto sums = [](const std::vector<int>& values) {
        std::vector<Checksum128> blocks;
        for (const int value : values) {
            blocks.push_back(sum(static_cast<std::uint8_t>(value)));
        }
        return blocks;
    };
    CHECK(differingBlocks(sums(row.before), sums(row.now)) == row.runs);
}
