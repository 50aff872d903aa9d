#pragma once

#include "core/audit/relink.h"
#include "core/players/read_players.h"
#include "core/remedy/journal/taking_back.h"
#include "core/work/carry_out.h"
#include "support/collection.h"

namespace sober::test {

/// A collection with players. Every step fails the test where it fails.
class PlayerCollection : public Collection {
  public:
    Player addPlayer(const std::string& name, const BytePath& place, bool ignoresCase = false) {
        RunControl control;
        Player player;
        player.name = name;
        player.places = {*this / place};
        player.ignoresCase = ignoresCase;
        return addPlayer(player);
    }
    Player addPlayer(const Player& player) {
        RunControl control;
        auto taken = takeInPlayer(catalogue(), player, control);
        INFO((taken ? std::string() : taken.error().sentence));
        REQUIRE(taken.ok());
        return *taken;
    }
    PlayersRead read() {
        RunControl control;
        auto read = readPlayers(catalogue(), control);
        REQUIRE(read.ok());
        return *read;
    }
    Relinking relinked(const RelinkRequest& request = {}) {
        read();
        RunControl control;
        auto relinking = relink(catalogue(), request, control);
        INFO((relinking ? std::string() : relinking.error().sentence));
        REQUIRE(relinking.ok());
        return *relinking;
    }
    CarriedOut carryOutAll() {
        RunControl control;
        auto carried = carryOut(catalogue(), control, {});
        INFO((carried ? std::string() : carried.error().sentence));
        REQUIRE(carried.ok());
        return *carried;
    }
    CarriedOut undoLast() {
        RunControl control;
        const auto last = lastUndoable(catalogue());
        REQUIRE((last.ok() && last->has_value()));
        auto undone = undoEntry(catalogue(), **last, control, {});
        REQUIRE(undone.ok());
        return *undone;
    }
    PlayerFigures figures(const std::string& name) {
        const PlayerStore store(catalogue());
        const auto players = store.all();
        const auto figures = store.figures();
        for (std::size_t i = 0; i < players->size(); ++i) {
            if ((*players)[i].name == name) {
                return (*figures)[i];
            }
        }
        FAIL("no player " << name);
        return {};
    }
    void plan(ActionKind kind, const BytePath& place, const BytePath& target = {}) {
        DocketAction action;
        action.kind = kind;
        action.place = place;
        action.target = target;
        action.added = timeNow();
        REQUIRE(DocketStore(catalogue()).add(std::vector{action}).ok());
    }
};

/// An M3U list of these lines.
inline std::string m3u(const std::vector<std::string>& lines, const std::string& ending = "\n") {
    std::string text = "#EXTM3U" + ending;
    for (const auto& line : lines) {
        text += line + ending;
    }
    return text;
}

} // namespace sober::test
