#include "core/audit/keeper.h"

#include <catch2/catch.hpp>

#include <algorithm>

using namespace sober;

namespace {

Holding member(HoldingId id, VolumeId volume, const BytePath& path, Nanoseconds mtime = 1000) {
    Holding holding;
    holding.id = id;
    holding.volume = volume;
    holding.path = path;
    holding.size = 100;
    holding.inode = static_cast<std::uint64_t>(id);
    holding.mtime = mtime;
    holding.tags = {"The Slipway", "Choral Union", "Lifeboat Hall", "1", "1998"};
    return holding;
}

std::vector<Volume> volumes(bool secondAtHand = true) {
    std::vector<Volume> all(2);
    all[0].id = 1;
    all[0].label = "GANNET";
    all[1].id = 2;
    all[1].label = "TERN";
    all[1].atHand = secondAtHand;
    return all;
}

HoldingId keeperOf(const std::vector<MemberAdvice>& advice) {
    const auto found = std::ranges::find(advice, Advice::keep, &MemberAdvice::advice);
    return found != advice.end() ? found->holding : 0;
}

Advice adviceOf(const std::vector<MemberAdvice>& advice, HoldingId id) {
    return std::ranges::find(advice, id, &MemberAdvice::holding)->advice;
}

Policy by(PreferenceKind kind) {
    return {0, "mine", {{kind, 0, {}}}, Sameness::part, false};
}

Policy onVolume(VolumeId volume) {
    return {0, "mine", {{PreferenceKind::onVolume, volume, {}}}, Sameness::part, true};
}

} // namespace

TEST_CASE("of identical copies the better placed, better named, older is advised") {
    struct Row {
        std::string why;
        Holding worse, better;
    };
    const auto row = GENERATE(values<Row>({
        {"a place that lasts", member(1, 1, "Downloads/The Slipway.flac", 1),
         member(2, 1, "Music/x.flac", 2)},
        {"a name that says what it is", member(1, 1, "Music/track01.flac", 1),
         member(2, 1, "Music/The Slipway.flac", 2)},
        {"no second copy's name", member(1, 1, "Music/The Slipway (1).flac", 1),
         member(2, 1, "Music/The Slipway.flac", 2)},
        {"accents and case do not matter", member(1, 1, "Music/untitled.flac", 1),
         member(2, 1, "Music/the_SLIPW\xC3\x81Y.flac", 2)},
        {"the older", member(1, 1, "Music/The Slipway.flac", 2), member(2, 1, "Other/The Slipway.flac", 1)},
    }));
    INFO(row.why);
    for (const auto& members : {std::vector{row.worse, row.better}, std::vector{row.better, row.worse}}) {
        const auto advice = adviseOn(members, volumes());
        CHECK(keeperOf(advice) == 2);
        CHECK(adviceOf(advice, 1) == Advice::retire);
        CHECK(std::ranges::none_of(advice, [](const MemberAdvice& one) { return one.reasons.empty(); }));
    }
}

TEST_CASE("nothing is advised that frees nothing or cannot be done") {
    auto linked = std::vector{member(1, 1, "a/The Slipway.flac"), member(2, 1, "b/The Slipway.flac")};
    linked[0].links = linked[1].links = 2;
    linked[1].inode = linked[0].inode;
    CHECK(adviceOf(adviseOn(linked, volumes()), 2) == Advice::decide);

    const std::vector members{member(1, 1, "Music/x.flac"), member(2, 2, "Music/The Slipway.flac")};
    const auto away = adviseOn(members, volumes(false));
    CHECK(keeperOf(away) == 1);
    CHECK(adviceOf(away, 2) == Advice::decide);
}

TEST_CASE("a preference decides what it can and leaves the rest") {
    const std::vector members{member(1, 1, "Music/The Slipway.flac", 5), member(2, 2, "0001.flac", 9),
                              member(3, 1, "Downloads/z.flac", 1)};
    CHECK(keeperOf(adviseOn(members, volumes(), onVolume(2))) == 2);
    CHECK(keeperOf(adviseOn(members, volumes(), by(PreferenceKind::older))) == 3);
    CHECK(keeperOf(adviseOn(members, volumes(), by(PreferenceKind::betterNamed))) == 1);
    CHECK(keeperOf(adviseOn(std::vector{members[0], members[2]}, volumes(), onVolume(2))) == 0);
    CHECK(keeperOf(adviseOn(members, volumes(false), onVolume(2))) == 0);
}

TEST_CASE("preferences are asked in their order, each where the ones before tell nothing") {
    auto low = member(1, 1, "Music/Albums/The Slipway.flac", 5);
    auto high = member(2, 2, "Music/Singles/The Slipway.flac", 9);
    auto bare = member(3, 2, "Music/Singles/0001.flac", 1);
    low.size = 300;
    bare.tags = {};
    const std::vector members{low, high, bare};
    struct Row {
        std::string why;
        std::vector<Preference> preferences;
        HoldingId keeper;
    };
    const Preference onCard{PreferenceKind::onVolume, 2, {}};
    const auto folder = [](const char* name) { return Preference{PreferenceKind::inFolder, 0, name}; };
    const auto plain = [](PreferenceKind kind) { return Preference{kind, 0, {}}; };
    const auto row = GENERATE_COPY(values<Row>({
        {"volume, then name", {onCard, plain(PreferenceKind::betterNamed)}, 2},
        {"volume, then age", {onCard, plain(PreferenceKind::older)}, 3},
        {"volume, then tags", {onCard, plain(PreferenceKind::moreTags)}, 2},
        {"newest", {plain(PreferenceKind::newer)}, 2},
        {"a folder by name", {folder("Albums")}, 1},
        {"a folder by path, with slashes", {folder("/Music/Albums/")}, 1},
        {"part of a folder's name is no folder", {folder("Album"), onCard, plain(PreferenceKind::older)}, 3},
        {"smaller, then older", {plain(PreferenceKind::smaller), plain(PreferenceKind::older)}, 3},
    }));
    INFO(row.why);
    const auto advice = adviseOn(members, volumes(), {0, "mine", row.preferences, Sameness::part, false});
    REQUIRE(keeperOf(advice) == row.keeper);
    const auto& reasons = std::ranges::find(advice, row.keeper, &MemberAdvice::holding)->reasons;
    CHECK(reasons.front().ends_with(", as preferred"));
}

TEST_CASE("the advice never leaves a set without a keeper at hand") {
    for (unsigned pattern = 0; pattern < 256; ++pattern) {
        std::vector<Holding> members;
        for (HoldingId id = 1; id <= 4; ++id) {
            const bool second = (pattern >> (id - 1) & 1) != 0;
            const bool passing = (pattern >> (id + 3) & 1) != 0;
            members.push_back(member(id, second ? 2 : 1, passing ? "Downloads/a.flac" : "b.flac", id));
        }
        const auto advice = adviseOn(members, volumes(false));
        const auto keeper = keeperOf(advice);
        const bool anyAtHand =
            std::ranges::any_of(members, [](const Holding& one) { return one.volume == 1; });
        CHECK((keeper != 0) == anyAtHand);
        for (const auto& one : advice) {
            const auto& holding = *std::ranges::find(members, one.holding, &Holding::id);
            CHECK((holding.volume == 1 || one.advice == Advice::decide));
        }
    }
}
