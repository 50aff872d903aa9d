#include "core/audit/refresh_findings.h"
#include "core/audit/set_choice.h"
#include "support/collection.h"
#include "support/small_audio.h"

#include <catch2/catch.hpp>

#include <filesystem>
#include <map>

using namespace sober;
using namespace sober::test;
namespace fs = std::filesystem;

namespace {

/// One set of four: two on each volume; and a pair.
struct Sets : Collection {
    Sets() {
        writeFile(*this / "A/Music/piece.wav", smallWav(1));
        writeFile(*this / "A/Downloads/piece (1).wav", smallWav(1));
        writeFile(*this / "B/piece.wav", smallWav(1));
        writeFile(*this / "B/copy of piece.wav", smallWav(1));
        writeFile(*this / "A/pair.wav", smallWav(2));
        writeFile(*this / "A/Downloads/pair.wav", smallWav(2));
        survey("A");
        survey("B");
        REQUIRE(refreshFindings(catalogue()).ok());
    }
    std::vector<Volume> volumes() { return *Volumes(catalogue()).all(); }
    SetDetail detail(std::uint64_t members) {
        const Findings findings(catalogue());
        const auto sets = findings.sets(*findings.setOrder(SetOrder::mostMembers, {}));
        const auto set = std::ranges::find(*sets, members, &CopySet::members);
        REQUIRE(set != sets->end());
        return *detailOf(catalogue(), *set, volumes());
    }
    HoldingId id(const std::string& label, const BytePath& path) { return holding(label, path)->id; }
    std::vector<HoldingId> onDocket() {
        std::vector<HoldingId> ids;
        const auto actions = DocketStore(catalogue()).all();
        std::ranges::transform(*actions, std::back_inserter(ids), &DocketAction::holding);
        std::ranges::sort(ids);
        return ids;
    }
};

} // namespace

TEST_CASE("keeping one member puts all others on the docket, and says what is kept instead") {
    Sets collection;
    const auto keeper = collection.id("B", "piece.wav");
    REQUIRE(keepOnly(collection.catalogue(), collection.detail(4), keeper, collection.volumes()).ok());
    CHECK(collection.onDocket().size() == 3);
    const auto actions = DocketStore(collection.catalogue()).all();
    for (const auto& action : *actions) {
        CHECK(action.kind == ActionKind::retire);
        CHECK(action.holding != keeper);
        CHECK(action.reason == "kept instead: B/piece.wav");
    }
    const auto again = collection.id("A", "Music/piece.wav");
    REQUIRE(keepOnly(collection.catalogue(), collection.detail(4), again, collection.volumes()).ok());
    const auto docket = collection.onDocket();
    CHECK(docket.size() == 3);
    CHECK(std::ranges::find(docket, again) == docket.end());
    CHECK(std::ranges::find(docket, keeper) != docket.end());
}

TEST_CASE("keeping leaves what is away and what is linked to the keeper") {
    Sets collection;
    fs::create_hard_link(collection / "A/pair.wav", collection / "A/linked pair.wav");
    collection.survey("A");
    auto b = collection.volume("B");
    b.atHand = false;
    REQUIRE(Volumes(collection.catalogue()).update(b).ok());
    REQUIRE(refreshFindings(collection.catalogue()).ok());
    REQUIRE(keepOnly(collection.catalogue(), collection.detail(4), collection.id("A", "Music/piece.wav"),
                     collection.volumes())
                .ok());
    CHECK(collection.onDocket() == std::vector{collection.id("A", "Downloads/piece (1).wav")});
    REQUIRE(keepOnly(collection.catalogue(), collection.detail(3), collection.id("A", "pair.wav"),
                     collection.volumes())
                .ok());
    CHECK(collection.onDocket().size() == 2);
}

TEST_CASE("a member is put on the docket and taken off again") {
    Sets collection;
    const auto member = collection.id("A", "Downloads/pair.wav");
    REQUIRE(setRetire(collection.catalogue(), collection.detail(2), member, true).ok());
    CHECK(collection.detail(2).onDocket == std::vector{member});
    CHECK(collection.detail(2).decision.onDocket == 1);
    REQUIRE(setRetire(collection.catalogue(), collection.detail(2), member, false).ok());
    CHECK(collection.onDocket().empty());
}

TEST_CASE("a set is left alone, and the decision is forgotten again") {
    Sets collection;
    REQUIRE(keepOnly(collection.catalogue(), collection.detail(2), collection.id("A", "pair.wav"),
                     collection.volumes())
                .ok());
    REQUIRE(leaveAlone(collection.catalogue(), collection.detail(2)).ok());
    CHECK(collection.onDocket().empty());
    CHECK(collection.detail(2).decision.leftAlone);
    REQUIRE(forgetChoice(collection.catalogue(), collection.detail(2)).ok());
    CHECK_FALSE(collection.detail(2).decision.leftAlone);
}

TEST_CASE("a keeper that is no member any more is refused") {
    Sets collection;
    const auto stranger = collection.id("A", "pair.wav");
    const auto kept = keepOnly(collection.catalogue(), collection.detail(4), stranger, collection.volumes());
    REQUIRE_FALSE(kept.ok());
    CHECK(kept.error().cause == Cause::invalid);
    CHECK(collection.onDocket().empty());
}

TEST_CASE("a policy is previewed, changes nothing, and then does exactly that") {
    Sets collection;
    RunControl control;
    const auto ids = *Findings(collection.catalogue()).setOrder(SetOrder::mostBytes, {});
    struct Row {
        Policy policy;
        std::uint64_t decided;
        std::map<Undecided, std::uint64_t> left;
        std::size_t actions;
    };
    const VolumeId b = collection.volume("B").id;
    const auto by = [](PreferenceKind kind, VolumeId volume = 0) {
        return Policy{0, "mine", {{kind, volume, {}}}, Sameness::part, true};
    };
    const Row row = GENERATE_COPY(
        Row{{}, 2, {}, 4}, Row{by(PreferenceKind::onVolume, b), 1, {{Undecided::preferenceUnmet, 1}}, 3},
        Row{by(PreferenceKind::older), 2, {}, 4});
    const auto preview = previewPolicy(collection.catalogue(), ids, row.policy, control);
    REQUIRE(preview.ok());
    CHECK(preview->sets == 2);
    CHECK(preview->decided == row.decided);
    CHECK(std::map(preview->left.begin(), preview->left.end()) == row.left);
    CHECK(preview->actions.size() == row.actions);
    CHECK(preview->frees == row.actions * smallWav(1).size());
    std::uint64_t byVolume = 0;
    for (const auto& [volume, bytes] : preview->freesByVolume) {
        byVolume += bytes;
    }
    CHECK(byVolume == preview->frees);
    CHECK(collection.onDocket().empty());
    REQUIRE(applyPreview(collection.catalogue(), *preview).ok());
    CHECK(collection.onDocket().size() == row.actions);
    const auto second = previewPolicy(collection.catalogue(), ids, row.policy, control);
    CHECK(second->alreadyDecided == row.decided);
    CHECK(second->actions.empty());
}

TEST_CASE("policies are kept by name, whole and in their order") {
    Sets collection;
    const Policies policies(collection.catalogue());
    const Policy wanted{0,
                        "card first",
                        {{PreferenceKind::onVolume, 2, {}}, {PreferenceKind::inFolder, 0, "Albums"}},
                        Sameness::samples,
                        true};
    const auto kept = policies.keep(wanted);
    REQUIRE(kept.ok());
    CHECK(**policies.named("card first") == *kept);
    auto shorter = wanted;
    shorter.preferences.erase(shorter.preferences.begin());
    REQUIRE(policies.keep(shorter).ok());
    REQUIRE(policies.all()->size() == 1);
    CHECK((*policies.named("card first"))->preferences == shorter.preferences);
    CHECK((*policies.named("card first"))->weakest == Sameness::samples);
    CHECK_FALSE(policies.named("another")->has_value());
    CHECK(policies.keep({}).error().cause == Cause::invalid);
    REQUIRE(policies.remove(kept->id).ok());
    CHECK(policies.all()->empty());
}

TEST_CASE("a preview that is withdrawn puts nothing anywhere") {
    Sets collection;
    RunControl control;
    control.cancel();
    const auto preview =
        previewPolicy(collection.catalogue(),
                      *Findings(collection.catalogue()).setOrder(SetOrder::mostBytes, {}), {}, control);
    REQUIRE_FALSE(preview.ok());
    CHECK(preview.error().cause == Cause::interrupted);
    CHECK(collection.onDocket().empty());
}

TEST_CASE("the docket's totals agree with its review") {
    Sets collection;
    fs::create_hard_link(collection / "A/pair.wav", collection / "A/linked.wav");
    collection.survey("A");
    for (const auto& [label, path] :
         std::vector<std::pair<std::string, BytePath>>{{"A", "Downloads/pair.wav"},
                                                       {"A", "pair.wav"},
                                                       {"B", "piece.wav"},
                                                       {"B", "copy of piece.wav"}}) {
        collection.putOnDocket(ActionKind::retire, label, path);
    }
    const auto one = DocketStore(collection.catalogue()).totals();
    CHECK(one->actions == 4);
    CHECK(one->frees == 3 * smallWav(1).size()); // one name of the linked file goes, its bytes stay
    collection.putOnDocket(ActionKind::retire, "A", "pair.wav"); // a second time: still once
    CHECK(DocketStore(collection.catalogue()).totals()->actions == 4);
}
