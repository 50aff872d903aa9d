#include "core/catalogue/evidence_store.h"
#include "core/catalogue/excerpt_store.h"
#include "core/catalogue/fixity_store.h"
#include "core/catalogue/ledger_store.h"
#include "core/catalogue/player_store.h"
#include "core/catalogue/policies.h"
#include "core/catalogue/standing_lists.h"
#include "core/players/read_players.h"
#include "core/work/carry_out.h"
#include "core/work/meet_catalogue.h"
#include "support/collection.h"
#include "support/mounts.h"
#include "support/run_program.h"
#include "support/small_audio.h"
#include "support/two_machines.h"

#include <catch2/catch.hpp>

#include <filesystem>
#include <map>
#include <random>

using namespace sober;
using namespace sober::test;
namespace fs = std::filesystem;

namespace {

void expect(const VolumeMeeting& meeting, std::initializer_list<std::uint64_t> counts) {
    INFO(meeting.label);
    CHECK(std::vector<std::uint64_t>{meeting.holdings, meeting.same, meeting.added, meeting.changed,
                                     meeting.moved, meeting.older, meeting.gone,
                                     meeting.examined} == std::vector<std::uint64_t>(counts));
    CHECK(meeting.holdings ==
          meeting.same + meeting.added + meeting.changed + meeting.moved + meeting.older); // it adds up
}

} // namespace

TEST_CASE("what another machine saw later is known here as it is there, and nothing is lost") {
    TwoMachines both;
    for (unsigned i = 0; i < 6; ++i) {
        writeFile(both / ("V/" + std::to_string(i) + ".wav"), smallWav(i, 1));
    }
    both.surveyBy(both.catalogue(), "V");
    // On the other machine: one new, one changed, one moved, one gone; all examined, with excerpts.
    const auto before = both.holding("V", "1.wav")->checksum;
    writeFile(both / "V/new.wav", smallWav(10, 1));
    writeFile(both / "V/1.wav", smallWav(11, 1));
    fs::create_directories(both / "V/deep");
    fs::rename(both / "V/2.wav", both / "V/deep/two.wav");
    fs::remove(both / "V/3.wav");
    both.surveyBy(both.other, "V", Effort::full, true);

    const auto compared = both.compare();
    REQUIRE(compared.volumes.size() == 1);
    expect(compared.volumes[0], {6, 3, 1, 1, 1, 0, 1, 3});
    CHECK(compared.volumes[0].isNewerThere());
    CHECK(both.known(both.catalogue(), "V").size() == 6); // only compared
    const auto theirs = readFile(both.otherPath());
    const auto taken = both.takeIn(both.catalogue(), both.otherPath());
    expect(taken.volumes[0], {6, 3, 1, 1, 1, 0, 1, 3});
    CHECK(taken.excerpts == 6);
    CHECK(readFile(both.otherPath()) == theirs); // only read

    auto here = both.known(both.catalogue(), "V");
    CHECK(here.at("3.wav").starts_with("missing"));
    here.erase("3.wav");
    CHECK(here == both.known(both.other, "V"));
    CHECK(both.holding("V", "deep/two.wav")->firstSeen != 0);
    // What was recorded before it changed is the baseline, as if a survey had met it.
    const auto drift = FixityStore(both.catalogue()).of(both.holding("V", "1.wav")->id);
    REQUIRE((drift && *drift));
    CHECK((*drift)->recorded.content == before);
    CHECK((*ExcerptStore(both.catalogue()).of(both.holding("V", "0.wav")->id)).has_value());
    // Nothing is to be read again here, and again there is nothing to take in.
    CHECK(both.survey("V").bytesRead == 0);
    const auto again = both.compare();
    expect(again.volumes[0], {6, 6, 0, 0, 0, 0, 0, 0});
}

TEST_CASE("what was seen here later stays, and what only the other saw is known as gone") {
    TwoMachines both;
    writeFile(both / "V/stays.wav", smallWav(1));
    writeFile(both / "V/changes.wav", smallWav(2));
    writeFile(both / "V/moves.wav", smallWav(3));
    writeFile(both / "V/short-lived.wav", smallWav(4));
    both.surveyBy(both.other, "V", Effort::full);
    const auto before = TwoMachines::known(both.other, "V").at("changes.wav");
    writeFile(both / "V/changes.wav", smallWav(5));
    fs::rename(both / "V/moves.wav", both / "V/moved.wav");
    fs::remove(both / "V/short-lived.wav");
    both.surveyBy(both.catalogue(), "V");
    const auto changed = both.holding("V", "changes.wav")->checksum;

    const auto taken = both.takeIn(both.catalogue(), both.otherPath());
    expect(taken.volumes[0], {4, 1, 1, 0, 0, 2, 0, 1});
    CHECK_FALSE(taken.volumes[0].isNewerThere());
    CHECK(both.holding("V", "changes.wav")->checksum == changed);
    // What it was before anybody here had seen it is known as its baseline, once.
    const FixityStore store = FixityStore(both.catalogue());
    const auto id = both.holding("V", "changes.wav")->id;
    const auto drift = store.of(id);
    REQUIRE((drift && *drift));
    CHECK(taken.volumes[0].earlier == 1);
    CHECK(before == "present " + (*drift)->recorded.content.hex() + " examined");
    CHECK((*drift)->recorded.payload.has_value());    // it was examined there
    CHECK((*drift)->kind == DriftKind::audioAltered); // as far as it was not examined here
    CHECK(both.compare().volumes[0].older == 2);
    CHECK(store.accept(id, "so it was meant").ok());
    both.takeIn(both.catalogue(), both.otherPath());
    CHECK(store.open()->empty());
    CHECK(both.holding("V", "moved.wav")->state == HoldingState::present);
    CHECK_FALSE(both.holding("V", "moves.wav").has_value());
    const auto gone = both.holding("V", "short-lived.wav");
    REQUIRE(gone.has_value());
    CHECK(gone->state == HoldingState::missing);
    CHECK(gone->lastSeen > 0);
    CHECK((*EvidenceStore(both.catalogue()).of(both.holding("V", "stays.wav")->id)).has_value());
    // Its sound is known, so that it can be recognised wherever it turns up.
    CHECK((*EvidenceStore(both.catalogue()).of(gone->id)).has_value());
}

TEST_CASE("what only the other saw between two looks from here is no baseline here") {
    TwoMachines both;
    writeFile(both / "V/mended.wav", smallWav(1));
    both.surveyBy(both.catalogue(), "V");
    writeFile(both / "V/mended.wav", smallWav(2));
    both.surveyBy(both.other, "V");
    writeFile(both / "V/mended.wav", smallWav(1));
    both.surveyBy(both.catalogue(), "V");
    const auto taken = both.takeIn(both.catalogue(), both.otherPath());
    CHECK(taken.volumes[0].older == 1);
    CHECK(taken.volumes[0].earlier == 0);
    CHECK(FixityStore(both.catalogue()).open()->empty());
}

TEST_CASE("a volume, its history and decisions that only the other has come along") {
    TwoMachines both;
    writeFile(both / "V/a.wav", smallWav(1, 1));
    writeFile(both / "W/b.wav", smallWav(2, 1));
    writeFile(both / "W/c.wav", smallWav(3, 1));
    both.surveyBy(both.catalogue(), "V");
    both.surveyBy(both.other, "W", Effort::full);
    both.surveyBy(both.other, "V");
    writeFile(both / "W/c.wav", smallWav(4, 1));
    both.surveyBy(both.other, "W", Effort::full); // it has drifted
    const auto there = *Volumes(both.other).all();
    const auto w = std::ranges::find(there, "W", &Volume::label)->id;
    const auto b = *Holdings(both.other).at(w, "b.wav");
    REQUIRE(EvidenceStore(both.other).accept(b->id, "a transfer from tape").ok());
    HoldingFilter filter;
    filter.volume = w;
    REQUIRE(StandingLists(both.other).keep("on W", filter).ok());
    REQUIRE(Policies(both.other)
                .keep({0, "W first", {{PreferenceKind::onVolume, w, {}}, {PreferenceKind::older, 0, {}}}})
                .ok());
    // A player that reads on W, and one that is the other machine's own.
    writeFile(both / "W/lists/evening.m3u8", "../b.wav\n../gone.wav\n");
    writeFile(both / "home/own.m3u8", both / "W/b.wav");
    const PlayerStore players(both.other);
    REQUIRE(players.add({0, "lantern", {both / "W/lists", both / "home"}, true}).ok());
    REQUIRE(players.add({0, "own", {both / "home"}}).ok());

    const auto compared = both.compare();
    CHECK(compared.decisions.players == 1);
    const auto taken = both.takeIn(both.catalogue(), both.otherPath());
    CHECK(taken.decisions.players == 1);
    CHECK(taken.decisions.acceptances == 1);
    CHECK(taken.decisions.standingLists == 1);
    CHECK(taken.decisions.policies == 1);
    CHECK(both.known(both.catalogue(), "W") == both.known(both.other, "W"));
    const auto here = both.volume("W");
    CHECK(here.atHand); // it is there, so it is found
    CHECK(here.effort == Effort::full);
    CHECK((*EvidenceStore(both.catalogue()).acceptanceOf(both.holding("W", "b.wav")->id))->reason ==
          "a transfer from tape");
    const auto drift = FixityStore(both.catalogue()).of(both.holding("W", "c.wav")->id);
    CHECK((drift && *drift));
    const auto lists = *StandingLists(both.catalogue()).all();
    CHECK(std::ranges::find(lists, "on W", &StandingList::name)->filter.volume == here.id);
    const auto policy = *Policies(both.catalogue()).named("W first");
    REQUIRE(policy.has_value());
    CHECK(policy->preferences.front().volume == here.id);
    const auto known = *PlayerStore(both.catalogue()).all();
    REQUIRE(known.size() == 1);
    CHECK(known[0].name == "lantern");
    CHECK(known[0].ignoresCase);
    CHECK(known[0].places == std::vector<BytePath>{both / "W/lists"});
    const auto references = *PlayerStore(both.catalogue()).references();
    REQUIRE(references.size() == 2);
    CHECK(references[0].holding == both.holding("W", "b.wav")->id);
    CHECK(references[1].state == ReferenceState::broken);
    CHECK(both.compare().decisions.players == 0);
    // No holding is read again; only the list is looked at, whether it is audio.
    CHECK(both.survey("W").bytesRead == fs::file_size(both / "W/lists/evening.m3u8"));
}

TEST_CASE(
    "what was decided on another machine waits here too, once, about the same files at their places here") {
    TwoMachines both;
    unsigned seed = 1;
    for (const std::string name : {"goes", "moves", "alike", "otherwise", "done since", "another by now"}) {
        writeFile(both / ("V/" + name + ".wav"), smallWav(seed++, 1));
    }
    writeFile(both / "V/stays for what goes.wav", smallWav(1, 1));
    for (; seed < 30; ++seed) { // by which the drive is known again
        writeFile(both / ("V/other " + std::to_string(seed) + ".wav"), smallWav(seed, 1));
    }
    writeFile(both / "W/only there.wav", smallWav(40, 1));
    both.surveyBy(both.other, "V");
    both.surveyBy(both.other, "W");
    const auto there = [&](const std::string& volume, const std::string& name) {
        const auto volumes = Volumes(both.other).all();
        return (*Holdings(both.other)
                     .at(std::ranges::find(*volumes, volume, &Volume::label)->id, name + ".wav"))
            ->id;
    };
    const auto decided = timeNow();
    const auto inV = [&](const std::string& name) { return both / ("V/" + name); };
    std::vector<DocketAction> actions{
        {0, ActionKind::retire, there("V", "goes"), "no longer wanted", decided},
        {0, ActionKind::move, there("V", "moves"), "", decided, {}, {}, inV("deep/moves.wav")},
        {0, ActionKind::retire, there("V", "alike"), "", decided},
        {0, ActionKind::retire, there("V", "otherwise"), "", decided},
        {0, ActionKind::accept, there("V", "done since"), "", decided},
        {0, ActionKind::retire, there("V", "another by now"), "", decided},
        {0, ActionKind::retire, there("W", "only there"), "", decided},
        {0, ActionKind::repoint, 0, "", decided, {}, inV("lost.wav"), inV("stays for what goes.wav")},
        {0, ActionKind::repoint, 0, "", decided, {}, inV("in no list here.wav"), inV("goes.wav")},
        {0, ActionKind::salvage, 0, "", decided, {}, inV("found in an image.wav")},
    };
    REQUIRE(DocketStore(both.other).add(actions).ok());

    // Here the drive is looked at later, at another place.
    fs::rename(both / "V", both / "elsewhere");
    writeFile(both / "elsewhere/another by now.wav", smallWav(50, 1));
    both.survey("elsewhere");
    const LedgerStore ledger(both.catalogue());
    LedgerAction accepted;
    accepted.entry = *ledger.open("carry-out", "", {});
    accepted.kind = ActionKind::accept;
    accepted.holding = both.holding("elsewhere", "done since.wav")->id;
    REQUIRE(ledger.start(std::array{&accepted}).ok());
    REQUIRE(ledger.mark(accepted, ActionStep::carriedOut).ok());
    REQUIRE(ledger.close(accepted.entry, "").ok());
    both.putOnDocket(ActionKind::retire, "elsewhere", "alike.wav");
    both.putOnDocket(ActionKind::accept, "elsewhere", "otherwise.wav");
    writeFile(both / "elsewhere/list.m3u", "lost.wav\n");
    Player player;
    player.name = "tern";
    player.places = {both / "elsewhere"};
    RunControl reading;
    REQUIRE(takeInPlayer(both.catalogue(), player, reading).ok());

    const auto compared = both.compare();
    CHECK(compared.docket == 4);
    CHECK(compared.left.actions == 4); // otherwise, another by now, in no list, what was found in an image
    CHECK(DocketStore(both.catalogue()).all()->size() == 2);
    const auto taken = both.takeIn(both.catalogue(), both.otherPath());
    CHECK(taken.docket == 4);
    CHECK(taken.left.actions == 4);
    std::map<std::string, std::string> waiting;
    const auto docket = DocketStore(both.catalogue()).all();
    for (const auto& action : *docket) {
        const auto holdings = Holdings(both.catalogue()).byIds(std::array{action.holding});
        REQUIRE(holdings->size() == (action.holding != 0 ? 1 : 0));
        waiting[holdings->empty() ? action.place : holdings->front().path] =
            std::string(word(action.kind)) + " " + action.target + action.reason;
    }
    const auto here = both / "elsewhere";
    CHECK(waiting == std::map<std::string, std::string>{
                         {"goes.wav", "retire no longer wanted"},
                         {"moves.wav", "move " + here + "/deep/moves.wav"},
                         {"alike.wav", "retire "},
                         {"otherwise.wav", "accept "},
                         {"only there.wav", "retire "},
                         {here + "/lost.wav", "repoint " + here + "/stays for what goes.wav"}});
    CHECK(both.takeIn(both.catalogue(), both.otherPath()).docket == 0); // once
    RunControl control;
    REQUIRE(carryOut(both.catalogue(), control, {}).ok());
    CHECK(fs::exists(both / "elsewhere/deep/moves.wav"));
    CHECK_FALSE(fs::exists(both / "elsewhere/goes.wav"));
    CHECK(fs::exists(both / "elsewhere/otherwise.wav"));
    CHECK(readFile(both / "elsewhere/list.m3u") == "stays for what goes.wav\n");
    CHECK(both.takeIn(both.catalogue(), both.otherPath()).docket == 0); // and not again once it is done
}

TEST_CASE("what a player's paths stand for is where the volume is here") {
    TwoMachines both;
    writeFile(both / "W/a.wav", smallWav(1, 1));
    both.surveyBy(both.other, "W");
    REQUIRE(PlayerStore(both.other).add({0, "box", {both / "W"}, false, "C:/Music", both / "W/Music"}).ok());
    fs::rename(both / "W", both / "X");
    both.surveyBy(both.catalogue(), "X");
    both.takeIn(both.catalogue(), both.otherPath());
    const auto known = *PlayerStore(both.catalogue()).all();
    REQUIRE(known.size() == 1);
    CHECK(known[0].places == std::vector<BytePath>{both / "X"});
    CHECK(known[0].writtenPrefix == "C:/Music");
    CHECK(known[0].standsFor == both / "X/Music");
}

TEST_CASE("a taking in that is stopped goes on where it was, and what is no other catalogue is refused") {
    TwoMachines both;
    for (unsigned i = 0; i < 40; ++i) {
        writeFile(both / ("V/" + std::to_string(i) + ".wav"), smallWav(i, 0.05));
    }
    both.surveyBy(both.other, "V");
    const auto theirs = both.known(both.other, "V");
    writeFile(both / "W/last.wav", smallWav(99));
    both.surveyBy(both.other, "W");
    const auto there = *Volumes(both.other).all();
    const auto w = std::ranges::find(there, "W", &Volume::label)->id;
    REQUIRE(Policies(both.other).keep({0, "W first", {{PreferenceKind::onVolume, w, {}}}}).ok());
    for (int round = 0; round < 12; ++round) {
        RunControl control;
        int left = 5;
        const auto taken =
            takeInCatalogue(both.catalogue(), both.otherPath(), control, [&](const Progress& progress) {
                if (progress.files > 0 && --left == 0) {
                    control.cancel();
                }
            });
        REQUIRE(taken.ok());
        if (!taken->interrupted) {
            break;
        }
        const auto known = both.known(both.catalogue(), "V").size();
        CHECK(known >= std::min<std::size_t>(40, 4U * static_cast<unsigned>(round + 1)));
        CHECK((both.volume("V").surveyedAt == 0) ==
              (known < 40)); // not as good as surveyed before all is known
    }
    both.takeIn(both.catalogue(), both.otherPath());
    CHECK(both.known(both.catalogue(), "V") == theirs);
    // What speaks of a volume that came last speaks of it.
    const auto policy = *Policies(both.catalogue()).named("W first");
    REQUIRE(policy.has_value());
    REQUIRE(policy->preferences.size() == 1);
    CHECK(policy->preferences.front().volume == both.volume("W").id);

    writeFile(both / "no catalogue", std::string(5000, 'x'));
    fs::create_symlink(both.cataloguePath(), both / "by another name.sqlite");
    RunControl control;
    for (const auto& [path, cause] : {std::pair{both / "no catalogue", Cause::damaged},
                                      {both / "nowhere.sqlite", Cause::notFound},
                                      {both.cataloguePath(), Cause::invalid},
                                      {both / "by another name.sqlite", Cause::invalid}}) {
        INFO(path);
        CHECK(compareCatalogue(both.catalogue(), path, control).error().cause == cause);
        CHECK(takeInCatalogue(both.catalogue(), path, control, quiet).error().cause == cause);
    }
    CHECK(both.known(both.catalogue(), "V") == theirs);
}

TEST_CASE("another drive at the same place, of which nothing tells it but what it holds, is another volume") {
    if (!canMount()) {
        WARN("no mounts here");
        return;
    }
    TwoMachines both;
    const auto place = both / "drive";
    {
        TestMounts mounts;
        mounts.mount({"-t", "tmpfs", "none", place});
        writeFile(place + "/mine.wav", smallWav(1));
        both.surveyBy(both.catalogue(), "drive");
    }
    {
        TestMounts mounts;
        mounts.mount({"-t", "tmpfs", "none", place});
        writeFile(place + "/theirs.wav", smallWav(2));
        both.surveyBy(both.other, "drive");
    }
    const auto compared = both.compare();
    REQUIRE(compared.volumes.size() == 1);
    CHECK(compared.volumes[0].here.empty());
    both.takeIn(both.catalogue(), both.otherPath());
    CHECK(both.holding("drive", "mine.wav")->state == HoldingState::present);
    CHECK(both.holding("drive 2", "theirs.wav")->state == HoldingState::present);
}

TEST_CASE("whatever two machines have seen in turn, they know the same once each has taken the other in") {
    std::mt19937 random(20261130); // NOLINT: the same each time
    for (int round = 0; round < 12; ++round) {
        INFO("round " << round);
        TwoMachines both;
        fs::create_directories(both / "V");
        unsigned seed = 0;
        const auto name = [&] { return both / ("V/" + std::to_string(random() % 8) + ".wav"); };
        for (int step = 0; step < 12; ++step) {
            switch (random() % 5) {
            case 0:
                writeFile(name(), smallWav(++seed, 0.05));
                break;
            case 1:
                fs::remove(name());
                break;
            case 2: {
                const auto from = name();
                const auto to = name();
                if (fs::exists(from) && !fs::exists(to)) {
                    fs::rename(from, to);
                }
                break;
            }
            case 3:
                both.surveyBy(both.catalogue(), "V");
                break;
            default:
                both.surveyBy(both.other, "V");
            }
        }
        both.surveyBy(random() % 2 == 0 ? both.catalogue() : both.other, "V"); // somebody looked last
        if (Volumes(both.other).all()->empty() || Volumes(both.catalogue()).all()->empty()) {
            continue;
        }
        both.takeIn(both.catalogue(), both.otherPath());
        both.takeIn(both.other, both.cataloguePath());
        // Present: what is on the drive, for both.
        const auto present = [&](const Catalogue& who) {
            std::map<std::string, std::string> all;
            for (const auto& [path, what] : TwoMachines::known(who, "V")) {
                if (what.starts_with("present")) {
                    all[path] = what;
                }
            }
            return all;
        };
        const auto here = present(both.catalogue());
        CHECK(here == present(both.other));
        CHECK(here.size() == static_cast<std::size_t>(std::distance(fs::directory_iterator(both / "V"), {})));
    }
}
