#include "core/catalogue/evidence_store.h"
#include "core/catalogue/fixity_store.h"
#include "core/survey/verify_plan.h"
#include "support/collection.h"
#include "support/small_audio.h"

#include <catch2/catch.hpp>

#include <filesystem>
#include <set>

using namespace sober;
using namespace sober::test;
namespace fs = std::filesystem;

namespace {

constexpr Nanoseconds day = 86'400LL * 1'000'000'000;

/// Ten holdings in two folders of one volume.
struct Shelf : Collection {
    Shelf() {
        for (unsigned i = 0; i < 10; ++i) {
            writeFile(*this /
                          ("V/" + std::string(i < 4 ? "early" : "late") + "/" + std::to_string(i) + ".wav"),
                      smallWav(i, 0.1 + 0.01 * i));
        }
        survey("V");
    }
    FixityStore store() { return FixityStore(catalogue()); }
    VerifyPlan plan(VerifyScope scope, std::vector<BytePath> within = {""}, unsigned seed = 1) {
        std::mt19937 random(seed);
        auto plan = planVerification(store(), {volume("V"), std::move(within)}, scope, random);
        REQUIRE(plan.ok());
        return *plan;
    }
    std::vector<BytePath> pathsOf(const std::vector<HoldingId>& ids) {
        std::vector<BytePath> paths;
        const auto recorded = *store().recorded(ids);
        std::ranges::transform(recorded, std::back_inserter(paths), &FixityStore::Recorded::path);
        return paths;
    }
};

} // namespace

TEST_CASE("a plan takes what is meant, by path, with the bytes it will read") {
    Shelf shelf;
    const auto whole = shelf.plan({});
    CHECK(whole.toRead.size() == 10);
    const auto paths = shelf.pathsOf(whole.toRead);
    CHECK(std::ranges::is_sorted(paths));
    std::uint64_t bytes = 0;
    for (const auto& path : paths) {
        bytes += fs::file_size(shelf / ("V/" + path));
    }
    CHECK(whole.bytes == bytes);
    CHECK(shelf.pathsOf(shelf.plan({}, {"late", "early/0.wav"}).toRead).size() == 7);
    CHECK(shelf.plan({}, {"lat"}).toRead.empty()); // no folder of that name

    fs::remove(shelf / "V/early/2.wav");
    shelf.survey("V");
    const auto later = shelf.plan({});
    CHECK(later.toRead.size() == 9);
    CHECK(shelf.pathsOf(later.missing) == std::vector<BytePath>{"early/2.wav"});
}

TEST_CASE("what is due depends on when each holding was read last, and on the period") {
    Shelf shelf;
    const auto all = shelf.plan({}).toRead;
    VerifyScope due;
    due.scope = CheckScope::due;
    CHECK(shelf.plan(due).toRead.empty()); // recorded just now
    REQUIRE(shelf.store().setPeriod(shelf.volume("V").id, 0).ok());
    CHECK(shelf.plan(due).toRead.size() == 10);
    REQUIRE(shelf.store().setPeriod(shelf.volume("V").id, 30).ok());
    // Read in the future counts as read: nothing earlier than the record is believed either.
    REQUIRE(shelf.store().markVerified(std::span(all).first(3), timeNow() - 40 * day).ok());
    CHECK(shelf.plan(due).toRead.empty());
    const auto standing = shelf.store().standingOf(shelf.volume("V").id, timeNow() + day);
    CHECK(standing->holdings == 10);
    CHECK(standing->readBefore == 10);
}

TEST_CASE("a sample is drawn by chance, without repeats, in the order of the paths") {
    Shelf shelf;
    VerifyScope sample;
    sample.scope = CheckScope::sample;
    sample.extent = 0.3;
    sample.missRisk = 0.2;
    std::set<std::vector<HoldingId>> drawn;
    for (unsigned seed = 1; seed <= 20; ++seed) {
        auto plan = shelf.plan(sample, {""}, seed);
        CHECK(plan.toRead.size() == sampleSize(10, 0.3, 0.2));
        CHECK(std::ranges::is_sorted(shelf.pathsOf(plan.toRead)));
        CHECK(std::set<HoldingId>(plan.toRead.begin(), plan.toRead.end()).size() == plan.toRead.size());
        drawn.insert(plan.toRead);
    }
    CHECK(drawn.size() > 5);
}

TEST_CASE("a whole check that was stopped is gone on with, one that ended is not") {
    Shelf shelf;
    const auto all = shelf.plan({}).toRead;
    FixityCheck check;
    check.volume = shelf.volume("V").id;
    check.began = timeNow();
    check.planned = 10;
    check.id = *shelf.store().beginCheck(check);
    REQUIRE(shelf.store().markVerified(std::span(all).first(4), timeNow() + 1000).ok());
    const auto rest = shelf.plan({});
    REQUIRE(rest.goesOn);
    CHECK(rest.goesOn->id == check.id);
    CHECK(rest.toRead == std::vector<HoldingId>(all.begin() + 4, all.end()));
    VerifyScope strong;
    strong.strong = true;
    CHECK_FALSE(shelf.plan(strong).goesOn);             // another kind of check
    CHECK(shelf.plan({}, {"late"}).toRead.size() == 6); // and a part is no whole
    check.ended = timeNow();
    REQUIRE(shelf.store().updateCheck(check).ok());
    CHECK(shelf.plan({}).toRead.size() == 10);
}

TEST_CASE("what a list says otherwise is kept until it is accepted or right again") {
    Shelf shelf;
    const auto id = shelf.holding("V", "early/1.wav")->id;
    Sha256 listed{};
    listed[0] = 1;
    REQUIRE(shelf.store().noteListedOtherwise(id, listed, DriftKind::silentChange).ok());
    REQUIRE(shelf.store().open()->size() == 1);
    const auto drift = **shelf.store().of(id);
    CHECK_FALSE(drift.isFullyKnown());
    CHECK(drift.kind == DriftKind::silentChange);
    CHECK(drift.sha256 == listed);
    FileChecksums checksums;
    CHECK_FALSE(drift.isBaseline(checksums));
    checksums.sha256 = listed;
    CHECK(drift.isBaseline(checksums));
    CHECK(shelf.store().carriersOf(drift)->empty());
    // Said again it stays as it was; accepted it is closed; said once more it is open again.
    REQUIRE(shelf.store().noteListedOtherwise(id, std::nullopt, DriftKind::audioAltered).ok());
    CHECK(shelf.store().open()->front().kind == DriftKind::silentChange);
    REQUIRE(shelf.store().accept(id, "known").ok());
    CHECK(shelf.store().open()->empty());
    CHECK_FALSE(shelf.store().accept(id, "again").ok());
    REQUIRE(shelf.store().noteListedOtherwise(id, std::nullopt, DriftKind::audioAltered).ok());
    CHECK(shelf.store().open()->size() == 1);
}

TEST_CASE("what is lost is looked for by size, and what is found outside is remembered by content") {
    Shelf shelf;
    CHECK(shelf.store().lost()->empty());
    const auto gone = *shelf.holding("V", "late/7.wav");
    fs::remove(shelf / "V/late/7.wav");
    shelf.survey("V");
    const auto lost = *shelf.store().lost();
    REQUIRE(lost.size() == 1);
    CHECK(lost.at(gone.size) == std::vector<Checksum128>{gone.checksum});
    const BytePath odd = "/backup/\xFF\n.wav";
    REQUIRE(shelf.store().noteOutside(odd, gone.checksum).ok());
    REQUIRE(shelf.store().noteOutside(odd, gone.checksum).ok());
    CHECK(*shelf.store().outsideCopiesOf(gone.checksum) == std::vector<BytePath>{odd});
    CHECK(shelf.store().outsideCopiesOf(Checksum128{})->empty());
    // Another content at the same place replaces what was noted.
    REQUIRE(shelf.store().noteOutside(odd, Checksum128{}).ok());
    CHECK(shelf.store().outsideCopiesOf(gone.checksum)->empty());
}
