#include "core/audit/plan_places.h"
#include "core/base/user_folders.h"
#include "core/remedy/docket/list_differences.h"
#include "core/remedy/docket/review.h"
#include "support/killing.h"
#include "support/player_collection.h"
#include "support/small_audio.h"

#include <catch2/catch.hpp>
#include <fmt/format.h>
#include <sys/stat.h>

#include <fcntl.h>
#include <filesystem>
#include <unistd.h>

using namespace sober;
using namespace sober::test;
namespace fs = std::filesystem;

namespace {

/// Two copies, and two players whose lists point at the one that will go: absolutely and relatively.
struct Listed : PlayerCollection {
    Listed() {
        fs::remove_all(joinPath(dataHome(), "Trash"));
        writeFile(*this / "V/keep.wav", smallWav(1));
        writeFile(*this / "V/f/spare.wav", smallWav(1));
        writeFile(*this / "V/only.wav", smallWav(2));
        survey("V");
        writeFile(library(), m3u({"#first", *this / "V/f/spare.wav", *this / "V/only.wav",
                                  "http://x.example/y", *this / "V/f/spare.wav"}));
        writeFile(card(), m3u({"f\\spare.wav", "only.wav"}, "\r\n"));
        before = {readFile(library()), readFile(card())};
        addPlayer("library", "L");
        addPlayer("card", "V/card.m3u");
    }
    BytePath library() const { return *this / "L/library.m3u8"; }
    BytePath card() const { return *this / "V/card.m3u"; }
    std::vector<std::string> listsNow() const { return {readFile(library()), readFile(card())}; }

    std::uint64_t resolved() {
        read();
        return figures("library").resolved + figures("card").resolved;
    }
    /// What must hold whenever nothing is going on.
    void checkWhole() {
        CHECK(resolved() == 5);
        const auto counts = contentCounts({*this / "V", joinPath(dataHome(), "Trash/files")});
        CHECK(counts.at(smallWav(1)) == 2);
        CHECK(counts.at(smallWav(2)) == 1);
        CHECK(LedgerStore(catalogue()).unfinished()->empty());
        for (const auto& [path, content] : contentsBelow(*this / "L")) {
            CHECK(path.find(".sober") == BytePath::npos);
        }
    }

    std::vector<std::string> before;
};

void retireSpare(Collection& collection) {
    collection.putOnDocket(ActionKind::retire, "V", "f/spare.wav");
}

/// The same by the command, while another process may have the catalogue.
void decide(const Listed& all, const std::vector<std::string>& words) {
    std::vector<std::string> command{"docket", "add"};
    command.insert(command.end(), words.begin(), words.end());
    REQUIRE(sober::test::sober(all.cataloguePath(), command).code == 0);
}

} // namespace

TEST_CASE("what is retired takes its references along to what stays, in every player, and back") {
    Listed all;
    CHECK(all.resolved() == 5);
    retireSpare(all);
    const auto review = reviewDocket(all.catalogue());
    REQUIRE(review.ok());
    CHECK(review->references == 3);
    CHECK(review->actions.front().target == all / "V/keep.wav");
    CHECK(DocketStore(all.catalogue()).totals()->references == 3);
    const auto differences = listDifferences(all.catalogue(), *review);
    REQUIRE(differences.ok());
    REQUIRE(differences->size() == 2);
    const auto& shown = (*differences)[0].list == all.library() ? (*differences)[0] : (*differences)[1];
    CHECK(shown.players == std::vector<std::string>{"library"});
    REQUIRE(shown.changes.size() == 2);
    CHECK(shown.changes[0].line == 3);
    CHECK(shown.changes[0].before == all / "V/f/spare.wav");
    CHECK(shown.changes[0].after == all / "V/keep.wav");
    CHECK(shown.changes[1].line == 6);
    CHECK(all.listsNow() == all.before); // looking changes nothing

    const auto carried = all.carryOutAll();
    CHECK(carried.done == 1);
    CHECK(carried.references == 3);
    CHECK(carried.refused.empty());
    CHECK_FALSE(isTaken(all / "V/f/spare.wav"));
    CHECK(readFile(all.library()) ==
          m3u({"#first", all / "V/keep.wav", all / "V/only.wav", "http://x.example/y", all / "V/keep.wav"}));
    CHECK(readFile(all.card()) == m3u({"keep.wav", "only.wav"}, "\r\n"));
    all.checkWhole();

    const auto undone = all.undoLast();
    CHECK(undone.refused.empty());
    CHECK(all.listsNow() == all.before);
    CHECK(isTaken(all / "V/f/spare.wav"));
    all.checkWhole();
}

TEST_CASE("what is moved is followed by its references, and back") {
    Listed all;
    REQUIRE(planMove(all.catalogue(), all / "V/f", all / "V/g/h", "tidied").ok());
    REQUIRE(planMove(all.catalogue(), all / "V/only.wav", all / "V/keep.wav", "").ok());
    const auto review = reviewDocket(all.catalogue());
    CHECK(review->actions[0].references == 3);
    CHECK(review->refused == 1); // its target is taken
    const auto carried = all.carryOutAll();
    CHECK(carried.done == 1);
    CHECK(carried.references == 3);
    CHECK(isTaken(all / "V/g/h/spare.wav"));
    CHECK(all.holding("V", "g/h/spare.wav").has_value());
    CHECK(readFile(all.card()) == m3u({"g\\h\\spare.wav", "only.wav"}, "\r\n"));
    all.checkWhole();
    // A list that its player has changed since stays as the player left it, and follows the file all the
    // same.
    writeFile(all.card(), readFile(all.card()) + "only.wav\r\n");
    const auto undone = all.undoLast();
    REQUIRE(undone.refused.size() == 1);
    CHECK(undone.refused.front().path == all.card());
    CHECK(readFile(all.library()) == all.before[0]);
    CHECK(readFile(all.card()) == m3u({"f\\spare.wav", "only.wav", "only.wav"}, "\r\n"));
    CHECK(all.resolved() == 6);
}

TEST_CASE(
    "a long list that is changed in several batches leads to all that was moved, however it is written") {
    PlayerCollection all;
    constexpr int count = 700; // of which 256 are moved together
    const auto name = [](int i) { return fmt::format("B\u00e4r {}.wav", i); };
    const auto decomposed = [](int i) { return fmt::format("Ba\u0308r {}.wav", i); };
    std::vector<std::string> lines;
    fs::create_directories(all / "L");
    for (int i = 0; i < count; ++i) {
        writeFile(all / ("V/f/" + name(i)), smallWav(static_cast<std::uint32_t>(i), 0.01));
        const std::vector<std::string> ways{all / ("V/f/" + name(i)),       "../V/f/" + name(i),
                                            "by link/" + name(i),           "..\\V\\f\\" + name(i),
                                            all / ("V/f/" + decomposed(i)), fmt::format("one {}.wav", i)};
        lines.push_back(ways[static_cast<std::size_t>(i) % ways.size()]);
        fs::create_symlink("../V/f/" + name(i), all / ("L/" + ways.back()));
    }
    fs::create_directory_symlink(all / "V/f", all / "L/by link");
    all.survey("V");
    const auto before = m3u(lines);
    writeFile(all / "L/long.m3u8", before);
    all.addPlayer("library", "L");
    const auto figures = all.figures("library");
    REQUIRE(figures.resolved + figures.loosely == count);
    CHECK(figures.loosely > 0);

    REQUIRE(planMove(all.catalogue(), all / "V/f", all / "V/g/", "").ok());
    const auto carried = all.carryOutAll();
    CAPTURE(carried.refused.empty() ? std::string() : carried.refused.front().sentence);
    CHECK(carried.done == count);
    CHECK(carried.references == count);
    const auto references = *PlayerStore(all.catalogue()).references();
    REQUIRE(references.size() == count);
    for (int i = 0; i < count; ++i) {
        const auto& reference = references[static_cast<std::size_t>(i)];
        CAPTURE(reference.location);
        CHECK(reference.state == ReferenceState::resolved);
        CHECK(reference.path == all / ("V/g/f/" + name(i)));
    }
    CHECK(all.undoLast().refused.empty());
    CHECK(readFile(all / "L/long.m3u8") == before);
}

TEST_CASE("a move that one list refuses at the last moment takes the other lists back with it") {
    Listed all;
    REQUIRE(planMove(all.catalogue(), all / "V/f/spare.wav", all / "V/g.wav", "").ok());
    RunControl control;
    CarryOutHooks hooks;
    int written = 0;
    hooks.onInstant = [&](Instant instant) {
        if (instant == Instant::made && ++written == 2) {
            writeFile(all.card(), readFile(all.card()) + "#\r\n");
        }
    };
    const auto carried = carryOut(all.catalogue(), control, hooks);
    REQUIRE(carried.ok());
    CHECK(written >= 3);
    CHECK(carried->done == 0);
    CHECK(carried->references == 0);
    CHECK(carried->refused.size() == 1);
    CHECK(isTaken(all / "V/f/spare.wav"));
    CHECK(readFile(all.library()) == all.before[0]);
    CHECK(readFile(all.card()) == all.before[1] + "#\r\n");
    all.checkWhole();
}

TEST_CASE("where a move leads: into a folder, or to a name") {
    Listed all;
    fs::create_directories(all / "V/there");
    const std::pair<BytePath, BytePath> rows[] = {{"V/there", "V/there/only.wav"},
                                                  {"V/not yet/", "V/not yet/only.wav"},
                                                  {"V/other name.wav", "V/other name.wav"}};
    for (const auto& [target, place] : rows) {
        CAPTURE(target);
        REQUIRE(planMove(all.catalogue(), all / "V/only.wav", all / target, "").ok());
        const auto review = reviewDocket(all.catalogue());
        REQUIRE(review->actions.size() == 1); // the latest word counts
        CHECK(review->actions.front().target == all / place);
        CHECK_FALSE(review->actions.front().refused.has_value());
    }
    CHECK(planMove(all.catalogue(), all / "V/f", all / "V/f/deeper/", "").error().cause == Cause::invalid);

    CHECK(planMove(all.catalogue(), all / "V/f", all / "V/f", "").error().cause == Cause::invalid);
    CHECK(planMoveAs(all.catalogue(), all / "V/f", all / "V/f", "")
              .error()
              .sentence.ends_with(" is there already."));
    // Onto a folder of that name: beside what that holds, not below it.
    REQUIRE(planMoveAs(all.catalogue(), all / "V/f", all / "V/there", "").ok());
    const auto merged = reviewDocket(all.catalogue());
    CHECK(std::ranges::any_of(merged->actions, [&](const auto& planned) {
        return planned.action.target == all / "V/there/spare.wav";
    }));

    // Several at once keep their names; what is there already stays.
    const std::vector both{all.holding("V", "only.wav")->id, all.holding("V", "f/spare.wav")->id};
    REQUIRE(planMoveInto(all.catalogue(), both, all / "V/f", "").ok());
    const auto review = reviewDocket(all.catalogue());
    const auto into = std::ranges::find(review->actions, all / "V/f/only.wav",
                                        [](const auto& planned) { return planned.action.target; });
    CHECK(into != review->actions.end());
    CHECK(planMoveInto(all.catalogue(), std::span(both).last(1), all / "V/f", "").error().cause ==
          Cause::invalid);
    CHECK(planMove(all.catalogue(), all / "V/nobody.wav", all / "V/x", "").error().cause == Cause::notFound);
    CHECK(planMove(all.catalogue(), "/nowhere/a.wav", "/nowhere/b.wav", "").error().cause == Cause::notFound);
}

TEST_CASE("what is moved stays on its file system") {
    Listed all;
    const TempFolder disk(TempFolder::On::disk);
    if (stampAt(disk.path())->device == stampAt(all / "V")->device) {
        WARN("not run: there is no second file system here");
        return;
    }
    writeFile(disk / "x.wav", smallWav(4));
    RunControl control;
    REQUIRE(surveyVolume(all.catalogue(), {disk.path(), {}, {}, {}}, control, [](const Progress&) {}).ok());
    REQUIRE(planMove(all.catalogue(), all / "V/f/spare.wav", disk / "spare.wav", "").ok());
    const auto carried = all.carryOutAll();
    REQUIRE(carried.refused.size() == 1);
    CHECK(carried.refused.front().sentence.find("leave its file system") != std::string::npos);
    CHECK(isTaken(all / "V/f/spare.wav"));
    CHECK(all.listsNow() == all.before);
}

TEST_CASE("a place is repointed or written off, and both are undone") {
    Listed all;
    writeFile(all.card(), m3u({"gone.wav", "lost.wav", "only.wav"}));
    all.read();
    CHECK(all.figures("card").broken == 2);
    REQUIRE(planRepoint(all.catalogue(), all / "V/gone.wav", all / "V/only.wav", "").ok());
    REQUIRE(planWriteOffPlace(all.catalogue(), all / "V/lost.wav", "not missed").ok());
    CHECK(planRepoint(all.catalogue(), all / "V/nobody.wav", all / "V/only.wav", "").error().cause ==
          Cause::invalid);
    const auto carried = all.carryOutAll();
    CHECK(carried.done == 2);
    CHECK(readFile(all.card()) == m3u({"only.wav", "lost.wav", "only.wav"}));
    CHECK(all.figures("card").broken == 0);
    CHECK(all.figures("card").writtenOff == 1);
    all.read(); // it does not come back
    CHECK(all.figures("card").broken == 0);
    CHECK(all.relinked().lost.empty());
    CHECK(all.undoLast().refused.empty());
    CHECK(readFile(all.card()) == m3u({"gone.wav", "lost.wav", "only.wav"}));
    CHECK(all.figures("card").broken == 2);
}

TEST_CASE("a list that cannot be changed now keeps the file that it points at") {
    Listed all;
    retireSpare(all);
    SECTION("read-only") {
        chmod(all.card().c_str(), 0444);
        CHECK(reviewDocket(all.catalogue())->refused == 1);
        const auto carried = all.carryOutAll();
        CHECK(carried.done == 0);
        CHECK(carried.refused.front().sentence.find("read-only") != std::string::npos);
        chmod(all.card().c_str(), 0644);
    }
    SECTION("open in its player for writing") {
        const int open = ::open(all.card().c_str(), O_WRONLY | O_APPEND);
        const auto carried = all.carryOutAll();
        close(open);
        CHECK(carried.done == 0);
        REQUIRE_FALSE(carried.refused.empty());
        CHECK(carried.refused.front().sentence.find("open for writing") != std::string::npos);
    }
    SECTION("written while it is changed") {
        RunControl control;
        CarryOutHooks hooks;
        int written = 0;
        hooks.onInstant = [&](Instant instant) {
            if (instant == Instant::made && written++ == 0) {
                writeFile(all.library(), readFile(all.library()) + "#\n");
            }
        };
        const auto carried = carryOut(all.catalogue(), control, hooks);
        REQUIRE(carried.ok());
        CHECK(carried->done == 0);
        all.before[0] += "#\n";
    }
    CHECK(isTaken(all / "V/f/spare.wav"));
    // Nor is another list changed for nothing, unless that was done before.
    CHECK(readFile(all.library()) == all.before[0]);
    CHECK(DocketStore(all.catalogue()).totals()->actions == 1);
    all.checkWhole();
}

TEST_CASE("a name that cannot stand in a list keeps its own file and no other") {
    Listed all;
    writeFile(all.card(), m3u({"f/spare.wav", "gone.wav"}));
    all.read();
    fs::rename(all / "V/keep.wav", all / "V/two\nlines.wav");
    all.survey("V");
    retireSpare(all);
    all.plan(ActionKind::repoint, all / "V/gone.wav", all / "V/only.wav");
    const auto carried = all.carryOutAll();
    CHECK(carried.done == 1);
    REQUIRE(carried.refused.size() == 1);
    CHECK(carried.refused.front().sentence.find("cannot stand in") != std::string::npos);
    CHECK(readFile(all.card()) == m3u({"f/spare.wav", "only.wav"}));
    CHECK(isTaken(all / "V/f/spare.wav"));
}

TEST_CASE("a list on a volume that is away keeps the files that it points at, and counts nothing as broken") {
    Listed all;
    writeFile(all / "CARD/x.m3u8", m3u({all / "V/f/spare.wav", "own.wav"}));
    writeFile(all / "CARD/own.wav", smallWav(7));
    all.survey("CARD");
    all.addPlayer("card of another", "CARD");
    retireSpare(all);
    fs::rename(all / "CARD", all / "taken out");
    const auto carried = all.carryOutAll();
    CHECK(carried.done == 0);
    REQUIRE(carried.refused.size() == 1);
    CHECK(carried.refused.front().sentence.find("away") != std::string::npos);
    CHECK(all.listsNow() == all.before);
    const auto figures = all.figures("card of another");
    CHECK(figures.away == 2);
    CHECK(figures.broken == 0);
    CHECK(all.relinked().lost.empty());
    fs::rename(all / "taken out", all / "CARD");
    CHECK(all.carryOutAll().done == 1);
    CHECK(readFile(all / "CARD/x.m3u8") == m3u({all / "V/keep.wav", "own.wav"}));
}

TEST_CASE("lists that no player should have are read to a sentence or to the end") {
    Listed all;
    std::string million;
    for (int i = 0; i < 1'000'000; ++i) {
        million += fmt::format("x{}.mp3\n", i);
    }
    writeFile(all / "L/million.m3u", million);
    std::string longest(10'000'000, 'a');
    longest += fmt::format("\n{}\n", all / "V/only.wav");
    writeFile(all / "L/long.m3u", longest);
    writeFile(all / "L/up.m3u", "../../../../../../../../etc/passwd\n../V/../V/only.wav\n");
    const auto read = all.read();
    CHECK(read.errors.empty());
    CHECK(all.figures("library").references == 1'000'000 + 2 + 2 + 3);
    CHECK(all.figures("library").broken == 1'000'000 + 1);
}

TEST_CASE("a card's relative list is not led away from the card") {
    PlayerCollection all;
    writeFile(all / "V/keep.wav", smallWav(1));
    writeFile(all / "CARD/spare.wav", smallWav(1));
    writeFile(all / "CARD/x.m3u8", m3u({"spare.wav"}));
    all.survey("V");
    all.survey("CARD");
    all.addPlayer("card", "CARD");
    all.putOnDocket(ActionKind::retire, "CARD", "spare.wav");
    const auto review = reviewDocket(all.catalogue());
    REQUIRE(review->refused == 1);
    CHECK(review->actions.front().refused->find("not on CARD") != std::string::npos);
    // Nor are its broken entries linked to what lies elsewhere.
    writeFile(all / "CARD/x.m3u8", m3u({"old/keep.wav"}));
    const auto relinking = all.relinked();
    CHECK(relinking.links.empty());
    CHECK(relinking.unresolved.size() == 1);
}

TEST_CASE("two players share a list: it is changed once") {
    Listed all;
    all.addPlayer("other", "V/card.m3u");
    all.addPlayer(Player{0, "third", {all / "V"}, false, {}, {}});
    retireSpare(all);
    CHECK(all.carryOutAll().references == 3);
    const auto entries = LedgerStore(all.catalogue()).entries();
    const auto actions = LedgerStore(all.catalogue()).actionsOf(entries->front().id);
    CHECK(std::ranges::count(*actions, ActionKind::repoint, &LedgerAction::kind) == 2);
    CHECK(all.figures("third").resolved == 2);
    all.checkWhole();
}

TEST_CASE("killed at any instant of retiring with references, the next start puts it in order") {
    const int instants = killAtEveryInstant<Listed>(
        "carry-out",
        [](Listed& all) {
            decide(all, {"retire", all / "V/f/spare.wav"});
        },
        [](Listed& all) {
            CHECK(all.carryOutAll().refused.empty());
            CHECK_FALSE(isTaken(all / "V/f/spare.wav"));
            undoEverything(all);
            CHECK(all.listsNow() == all.before);
        });
    CHECK(instants == 1 + 2 * 4 + 4);
}

TEST_CASE("killed at any instant of moving with references, the next start puts it in order") {
    const auto plan = [](Listed& all) {
        decide(all, {"move", all / "V/f/spare.wav", "--to", all / "V/new.wav"});
    };
    const int instants = killAtEveryInstant<Listed>("carry-out", plan, [](Listed& all) {
        CHECK(all.carryOutAll().refused.empty());
        CHECK(isTaken(all / "V/new.wav"));
    });
    CHECK(instants == 3 + 2 * 4 + 1);
    killAtEveryInstant<Listed>(
        "undo",
        [&](Listed& all) {
            plan(all);
            REQUIRE(sober::test::sober(all.cataloguePath(), {"docket", "carry-out"}).code == 0);
        },
        [](Listed& all) {
            if (*lastUndoable(all.catalogue())) {
                undoEverything(all);
            }
            CHECK(isTaken(all / "V/f/spare.wav"));
            CHECK(all.listsNow() == all.before);
        });
}
