#include "core/evidence/drift.h"

#include <catch2/catch.hpp>

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
