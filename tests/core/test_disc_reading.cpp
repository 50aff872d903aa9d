// A disc is read until readings agree: bit for bit wherever they can, and what cannot be told is named to the
// sector. The drives are made up (standins/tray_faults.h).
#include "core/disc/agreed_reading.h"
#include "support/faulty_disc.h"

#include <catch2/catch.hpp>
#include <fmt/format.h>

#include <cstdlib>
#include <set>

using namespace sober;
using namespace sober::test;
using standins::TrayFaults;

namespace {

constexpr int discLength = 420;
const ReadingEffort quickEffort{20, 200};

AgreedStretch readAll(FaultyDisc& disc, const ReadingEffort& effort, int window = 150) {
    RunControl control;
    AgreedReader reader(disc, 0, disc.sectors(), effort, control);
    AgreedStretch all;
    for (int first = 0; first < disc.sectors(); first += window) {
        const auto read = reader.read(first, std::min(window, disc.sectors() - first));
        REQUIRE(read.ok());
        all.samples.insert(all.samples.end(), read->samples.begin(), read->samples.end());
        all.sectors.insert(all.sectors.end(), read->sectors.begin(), read->sectors.end());
    }
    return all;
}

struct Told {
    std::set<int> wrong;   ///< said to be known, and is not what is on the disc
    std::set<int> unknown; ///< said to be doubtful or unread
};

Told toldOf(const FaultyDisc& disc, const AgreedStretch& read) {
    Told told;
    for (int sector = 0; sector < disc.sectors(); ++sector) {
        const auto from = static_cast<std::ptrdiff_t>(sector) * sectorNumbers;
        if (!read.sectors[static_cast<std::size_t>(sector)].isKnown()) {
            told.unknown.insert(sector);
        } else if (!std::equal(read.samples.begin() + from, read.samples.begin() + from + sectorNumbers,
                               disc.samples().begin() + from)) {
            told.wrong.insert(sector);
        }
    }
    return told;
}

/// A random table, and the sectors that no reading can give.
std::pair<std::string, std::set<int>> randomTable(unsigned seed) {
    std::mt19937 random(seed);
    const auto upTo = [&](int most) { return static_cast<int>(random() % static_cast<unsigned>(most)); };
    auto table = fmt::format("seed {}\ncache {}\n", seed, upTo(2) * (20 + upTo(100)));
    std::set<int> lost;
    for (int i = 0; i < 2 + upTo(4); ++i) {
        const int first = upTo(discLength - 40);
        table += fmt::format("jitter {} {} 0.{} {}\n", first, first + upTo(200), 1 + upTo(3), 1 + upTo(900));
    }
    for (int i = 0; i < upTo(5); ++i) {
        const int first = upTo(discLength - 10);
        table += fmt::format("unsteady {} {} 0.{}\n", first, first + upTo(8), 1 + upTo(5));
    }
    for (int i = 0; i < upTo(4); ++i) {
        const int first = upTo(discLength - 10);
        table += fmt::format("unread {} {} {}\n", first, first + upTo(6), 1 + upTo(4));
    }
    for (int i = 0; i < upTo(3); ++i) {
        const int first = upTo(discLength - 10);
        const int last = first + upTo(5);
        table += fmt::format("unread {} {} 0\n", first, last);
        for (int sector = first; sector <= last; ++sector) {
            lost.insert(sector);
        }
    }
    return {table, lost};
}

} // namespace

TEST_CASE("A sound disc is read twice, and behind silence a little once more") {
    FaultyDisc disc(3'000, 1);
    const auto read = readAll(disc, {}, 1'500);
    const auto told = toldOf(disc, read);
    CHECK(told.wrong.empty());
    CHECK(told.unknown.empty());
    CHECK(std::ranges::all_of(read.sectors, [](const auto& each) { return each.readings <= 3; }));
    CHECK(disc.calls() < 3'000 / 22 * 6);
}

TEST_CASE(
    "Bit for bit wherever two readings can agree, whatever the faults; what is lost is told to the sector") {
    // Of the thousand tables a part in the suite: the rest by SOBER_LONG_TESTS=1.
    const unsigned tables = std::getenv("SOBER_LONG_TESTS") != nullptr ? 1'000 : 60;
    for (unsigned seed = 1; seed <= tables; ++seed) {
        const auto [table, lost] = randomTable(seed);
        auto faults = TrayFaults::parse(table);
        // A sector that is never read is not also read at times.
        std::erase_if(faults.stretches, [&](const auto& stretch) {
            return stretch.kind == "unread" && stretch.most > 0 && std::ranges::any_of(lost, [&](int sector) {
                       return sector >= stretch.first && sector <= stretch.last;
                   });
        });
        FaultyDisc disc(discLength, seed, faults);
        const auto told = toldOf(disc, readAll(disc, quickEffort));
        INFO("table:\n" << table);
        CHECK(told.wrong == std::set<int>{});
        CHECK(told.unknown == lost);
    }
}

TEST_CASE("A cache that gives the same error twice does not make it true") {
    FaultyDisc disc(discLength, 3, TrayFaults::parse("cache 150\nunsteady 100 104 0.5"));
    const auto told = toldOf(disc, readAll(disc, quickEffort, 40));
    CHECK(told.wrong.empty());
    CHECK(told.unknown.empty());
}

TEST_CASE("What never reads the same twice is doubtful, what is never read is unread") {
    FaultyDisc disc(discLength, 4, TrayFaults::parse("unsteady 80 82 1\nunread 200 203 0"));
    const auto read = readAll(disc, {5, 200});
    CHECK(toldOf(disc, read).unknown == std::set<int>{80, 81, 82, 200, 201, 202, 203});
    CHECK(read.sectors[81].state == SectorState::doubtful);
    CHECK(read.sectors[201].state == SectorState::unread);
    CHECK(read.sectors[201].readings >= 6);
    CHECK(read.sectors[79].state == SectorState::agreed);
}

TEST_CASE("Reading goes on from what was read before") {
    FaultyDisc disc(discLength, 5, TrayFaults::parse("jitter 200 230 0.4 500"));
    RunControl control;
    AgreedReader first(disc, 0, discLength, quickEffort, control);
    auto before = first.read(0, 204);
    REQUIRE(before.ok());
    AgreedReader second(disc, 0, discLength, quickEffort, control);
    second.comesAfter(std::move(*before));
    const auto after = second.read(204, 100);
    REQUIRE(after.ok());
    CHECK(std::equal(after->samples.begin(), after->samples.end(),
                     disc.samples().begin() + std::ptrdiff_t{204} * sectorNumbers));
}

TEST_CASE("A pulled disc and a cancelled run end the reading with a sentence") {
    FaultyDisc pulled(discLength, 6, TrayFaults::parse("pulled 100"));
    RunControl control;
    const auto gone = AgreedReader(pulled, 0, discLength, quickEffort, control).read(0, 200);
    CHECK(gone.error().cause == Cause::notFound);
    FaultyDisc disc(discLength, 6);
    control.cancel();
    const auto stopped = AgreedReader(disc, 0, discLength, quickEffort, control).read(0, 200);
    CHECK(stopped.error().cause == Cause::interrupted);
}
