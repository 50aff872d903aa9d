// The players, their lists, and where broken references lead.
#include "cli/command_line.h"
#include "cli/players_command.h"
#include "cli/words/words.h"
#include "core/base/file_handle.h"

#include <algorithm>

namespace sober::cli {

void addPlayers(CommandLine& line) {
    auto* playersCommand =
        line.app().add_subcommand("players", "the players, their lists and what these lead to");
    playersCommand->require_subcommand(0, 1);
    auto* playersAdd = playersCommand->add_subcommand("add", "take lists of a player in");
    auto& player = line.keep<Player>();
    playersAdd->add_option("PLACE", player.places, "lists, or folders that hold some")->required();
    playersAdd->add_option("--name", player.name, "the player's name");
    playersAdd->add_flag("--ignores-case", player.ignoresCase,
                         "it finds files under names that differ in letter case only");
    auto* prefixOption = playersAdd->add_option(
        "--prefix", player.writtenPrefix, "what its absolute locations begin with, where it runs elsewhere");
    auto* standsOption =
        playersAdd->add_option("--stands-for", player.standsFor, "the folder here that means");
    prefixOption->needs(standsOption);
    standsOption->needs(prefixOption);
    auto* playersRemove =
        playersCommand->add_subcommand("remove", "forget a player; its lists stay as they are");
    auto& playerName = line.keep<std::string>();
    playersRemove->add_option("NAME", playerName, "the player")->required();

    line.add(playersAdd, [&player](const CommonOptions& common, RunControl& control) {
        player.standsFor = player.standsFor.empty() ? player.standsFor
                                                    : realPathOf(player.standsFor).value_or(player.standsFor);
        std::ranges::replace(player.writtenPrefix, '\\', '/');
        return runPlayersAdd(common, player, control);
    });
    line.add(playersRemove, [&playerName](const CommonOptions& common, RunControl&) {
        return runPlayersRemove(common, playerName);
    });
    line.add(playersCommand,
             [](const CommonOptions& common, RunControl& control) { return runPlayers(common, control); });
}

void addRelink(CommandLine& line) {
    auto* relinkCommand =
        line.app().add_subcommand("relink", "find where the targets of broken references are now");
    auto& relinking = line.keep<RelinkOptions>();
    relinkCommand->add_option("--near", relinking.request.near, "look in this folder too, the nearest first");
    auto& examples = line.keep<std::vector<BytePath>>();
    relinkCommand
        ->add_option("--example", examples,
                     "two paths: where a reference leads, and where that file is now; the rest of its folder "
                     "tree follows")
        ->type_size(2);
    relinkCommand->add_flag("--write", relinking.write,
                            "carry the links out by the docket, journalled and to be undone");

    line.add(relinkCommand, [&relinking, &examples](const CommonOptions& common, RunControl& control) {
        for (std::size_t i = 0; i + 1 < examples.size(); i += 2) {
            relinking.request.examples.push_back(
                {examples[i], realPathOf(examples[i + 1]).value_or(examples[i + 1])});
        }
        return runRelink(common, relinking, control);
    });
}

} // namespace sober::cli
