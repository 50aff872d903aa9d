#include "cli/players_command.h"

#include "cli/answers.h"
#include "cli/json_shapes.h"
#include "core/audit/lost_places.h"
#include "core/audit/reference_findings.h"
#include "core/audit/refresh_findings.h"
#include "core/base/text.h"
#include "core/players/read_players.h"
#include "core/work/carry_out.h"

#include <fmt/format.h>

#include <algorithm>
#include <map>
#include <set>

namespace sober::cli {
namespace {

/// All that `sober players` tells.
struct PlayersSeen {
    std::vector<Player> players;
    std::vector<PlayerFigures> figures;
    std::vector<ListFile> lists;
    std::vector<TroubledReference> troubled;
    std::uint64_t inNoList = 0;
};

Result<PlayersSeen> see(const Catalogue& catalogue) {
    const PlayerStore store(catalogue);
    auto players = store.all();
    auto figures = store.figures();
    auto lists = store.lists();
    auto troubled = referenceFindings(catalogue);
    const auto inNoList = store.inNoList();
    if (!players || !figures || !lists) {
        return !players ? players.error() : !figures ? figures.error() : lists.error();
    }
    if (!troubled || !inNoList) {
        return troubled ? inNoList.error() : troubled.error();
    }
    const auto unheard = players->empty() ? 0 : inNoList->size();
    return PlayersSeen{std::move(*players), std::move(*figures), std::move(*lists), std::move(*troubled),
                       unheard};
}

Json listsOf(const PlayersSeen& seen, PlayerId player) {
    Json lists = Json::array();
    for (const auto& list : seen.lists) {
        if (std::ranges::find(list.players, player) != list.players.end()) {
            Json json = withPath(list.path);
            json["at_hand"] = !list.away;
            json["problem"] = list.problem.empty() ? Json() : Json(list.problem);
            lists.push_back(std::move(json));
        }
    }
    return lists;
}

Json playersShape(const PlayersSeen& seen) {
    Json players = Json::array();
    for (std::size_t i = 0; i < seen.players.size(); ++i) {
        const auto& player = seen.players[i];
        const auto& figures = seen.figures[i];
        players.push_back({{"name", player.name},
                           {"lists", listsOf(seen, player.id)},
                           {"references", figures.references},
                           {"resolved", figures.resolved},
                           {"broken", figures.broken},
                           {"resolved_loosely", figures.loosely},
                           {"away", figures.away},
                           {"streams", figures.streams},
                           {"written_off", figures.writtenOff},
                           {"ignores_case", player.ignoresCase}});
    }
    std::map<ListFileId, const ListFile*> lists;
    for (const auto& list : seen.lists) {
        lists.emplace(list.id, &list);
    }
    Json findings = Json::array();
    for (const auto& troubled : seen.troubled) {
        Json json = withPath(troubled.reference.path);
        json["kind"] = word(troubled.trouble);
        json["list"] = percentEncodeOffending(lists[troubled.reference.list]->path);
        json["entry"] = troubled.reference.entry + 1;
        json["why"] = troubled.why;
        json["instead"] = troubled.instead.empty() ? Json() : Json(percentEncodeOffending(troubled.instead));
        findings.push_back(std::move(json));
    }
    return {{"schema", "sober.players/1"},
            {"players", std::move(players)},
            {"findings", std::move(findings)},
            {"holdings_in_no_list", seen.inNoList}};
}

void printPlayers(const PlayersSeen& seen) {
    if (seen.players.empty()) {
        say("No player is known. Take its lists in with \"sober players add\".\n");
        return;
    }
    for (std::size_t i = 0; i < seen.players.size(); ++i) {
        const auto& figures = seen.figures[i];
        say("{}: {} in {}, {} resolved, {} broken", seen.players[i].name,
            counted(figures.references, "reference"), counted(figures.lists, "list"),
            humanCount(figures.resolved), humanCount(figures.broken));
        say("{}{}{}\n",
            figures.away > 0 ? fmt::format(", {} into volumes that are away", humanCount(figures.away)) : "",
            figures.streams > 0 ? ", " + counted(figures.streams, "stream") : "",
            figures.writtenOff > 0 ? fmt::format(", {} written off", humanCount(figures.writtenOff)) : "");
        for (const auto& list : seen.lists) {
            const bool own = std::ranges::find(list.players, seen.players[i].id) != list.players.end();
            if (own && !list.problem.empty()) {
                say("  {}\n", list.problem);
            }
        }
    }
    for (const auto& troubled : seen.troubled) {
        say("  {:<16}  {}: {}\n", word(troubled.trouble), displayPath(troubled.reference.path), troubled.why);
    }
    say("{} in no list at all\n", counted(seen.inNoList, "holding"));
}

int showPlayers(const CommonOptions& common, const Catalogue& catalogue, bool interrupted,
                const std::vector<SurveyError>& errors) {
    const auto seen = see(catalogue);
    if (!seen) {
        return fail(seen.error());
    }
    if (common.json) {
        printJson(playersShape(*seen));
    } else {
        printPlayers(*seen);
    }
    printErrors(errors);
    return interrupted ? exitInterrupted : errors.empty() ? exitDone : exitSomeUnread;
}

/// The names of the players that a list belongs to.
using Owners = std::map<ListFileId, std::vector<std::string>>;

Result<Owners> ownersIn(const Catalogue& catalogue) {
    const auto players = PlayerStore(catalogue).all();
    const auto lists = PlayerStore(catalogue).lists();
    if (!players || !lists) {
        return players ? lists.error() : players.error();
    }
    Owners owners;
    for (const auto& list : *lists) {
        for (const auto& player : *players) {
            if (std::ranges::find(list.players, player.id) != list.players.end()) {
                owners[list.id].push_back(player.name);
            }
        }
    }
    return owners;
}

Json relinkShape(const Relinking& relinking, const Owners& owners) {
    const auto place = [&](std::size_t lost) { return percentEncodeOffending(relinking.lost[lost].path); };
    Json rules = Json::array();
    for (const auto& rule : relinking.rules) {
        rules.push_back({{"from", percentEncodeOffending(rule.from)},
                         {"to", percentEncodeOffending(rule.to)},
                         {"count", rule.count},
                         {"confidence", rule.confidence},
                         {"from_ending", rule.fromEnding.empty() ? Json() : Json(rule.fromEnding)},
                         {"to_ending", rule.toEnding.empty() ? Json() : Json(rule.toEnding)},
                         {"words", wordsOf(rule)},
                         {"grounds", rule.grounds}});
    }
    Json links = Json::array();
    for (const auto& link : relinking.links) {
        for (const auto index : relinking.brokenOf[link.lost]) {
            const auto& reference = relinking.broken[index];
            for (const auto& player : owners.at(reference.list)) {
                links.push_back({{"player", player},
                                 {"reference", place(link.lost)},
                                 {"location", percentEncodeOffending(reference.location)},
                                 {"target", percentEncodeOffending(link.target)},
                                 {"confidence", link.confidence},
                                 {"evidence", link.evidence}});
            }
        }
    }
    Json ambiguous = Json::array();
    for (const auto& choice : relinking.ambiguous) {
        Json candidates = Json::array();
        for (const auto& candidate : choice.candidates) {
            candidates.push_back(percentEncodeOffending(candidate.path));
        }
        ambiguous.push_back({{"reference", place(choice.lost)}, {"candidates", std::move(candidates)}});
    }
    Json unresolved = Json::array();
    Json reasons = Json::object();
    for (const auto& each : relinking.unresolved) {
        unresolved.push_back(place(each.lost));
        if (!each.reason.empty()) {
            reasons[place(each.lost)] = percentEncodeOffending(each.reason);
        }
    }
    return {{"schema", "sober.relink/1"},
            {"references", relinking.references},
            {"resolved_before", relinking.resolvedBefore},
            {"resolved_after", relinking.resolvedAfter},
            {"rules", std::move(rules)},
            {"links", std::move(links)},
            {"ambiguous", std::move(ambiguous)},
            {"unresolved", std::move(unresolved)},
            {"reasons", std::move(reasons)}};
}

void printRelinking(const Relinking& relinking) {
    for (const auto& rule : relinking.rules) {
        say("{:>7}  {} ({:.0f} %)\n", humanCount(rule.count), wordsOf(rule), rule.confidence * 100);
    }
    for (const auto& link : relinking.links) {
        if (!link.rule) {
            say("         {} to {} ({:.0f} %)\n", displayPath(relinking.lost[link.lost].path),
                displayPath(link.target), link.confidence * 100);
        }
    }
    for (const auto& choice : relinking.ambiguous) {
        say("to be asked: {}\n", displayPath(relinking.lost[choice.lost].path));
        for (std::size_t i = 0; i < choice.candidates.size(); ++i) {
            say("         {}\n", displayPath(choice.candidates[i].path));
            for (const auto& words : choice.judgements[i].evidence) {
                say("           {}\n", words);
            }
        }
    }
    for (const auto& each : relinking.unresolved) {
        say("not found: {}{}{}\n", displayPath(relinking.lost[each.lost].path),
            each.reason.empty() ? "" : "; ", each.reason);
    }
    say("{}, {} resolved, {} after relinking\n", counted(relinking.references, "reference"),
        humanCount(relinking.resolvedBefore), humanCount(relinking.resolvedAfter));
}

/// Puts the links on the docket and carries these, and nothing else that waits there, out.
Result<CarriedOut> writeLinks(Catalogue& catalogue, const Relinking& relinking, RunControl& control,
                              const CarryOutHooks& hooks) {
    RETURN_IF_FAILED(planLinks(catalogue, relinking, relinking.links));
    std::set<BytePath> places;
    for (const auto& link : relinking.links) {
        places.insert(relinking.lost[link.lost].path);
    }
    const auto ours = [&](const DocketAction& action) {
        return action.kind == ActionKind::repoint && places.contains(action.place);
    };
    return carryOut(catalogue, control, hooks, ours);
}

} // namespace

int runPlayers(const CommonOptions& common, RunControl& control) {
    const auto catalogue = openLooking(common);
    if (!catalogue) {
        return fail(catalogue.error());
    }
    if (!catalogue->canWrite()) {
        // Another program has the catalogue open: what is known is shown.
        return showPlayers(common, *catalogue, false, {});
    }
    Result<PlayersRead> read = PlayersRead{};
    {
        ProgressLine line(common.quiet);
        read = readPlayers(*catalogue, control, [&](const Progress& progress) { line(progress); });
    }
    return read ? showPlayers(common, *catalogue, read->interrupted, read->errors) : fail(read.error());
}

int runPlayersAdd(const CommonOptions& common, const Player& player, RunControl& control) {
    const auto catalogue = openWorking(common);
    if (!catalogue) {
        return fail(catalogue.error());
    }
    const auto taken = takeInPlayer(*catalogue, player, control);
    if (!taken) {
        return fail(taken.error());
    }
    std::vector<SurveyError> errors;
    const auto lists = PlayerStore(*catalogue).lists();
    for (const auto& list : lists ? *lists : std::vector<ListFile>()) {
        const bool own = std::ranges::find(list.players, taken->id) != list.players.end();
        if (own && !list.problem.empty()) {
            errors.push_back({list.path, list.problem});
        }
    }
    return showPlayers(common, *catalogue, control.isCancelled(), errors);
}

int runPlayersRemove(const CommonOptions& common, const std::string& name) {
    const auto catalogue = openWorking(common);
    const auto players =
        catalogue ? PlayerStore(*catalogue).all() : Result<std::vector<Player>>(catalogue.error());
    if (!players) {
        return fail(players.error());
    }
    const auto player = std::ranges::find(*players, name, &Player::name);
    if (player == players->end()) {
        return fail({Cause::notFound, {}, "There is no player named \"" + name + "\"."});
    }
    const auto removed = PlayerStore(*catalogue).remove(player->id);
    return removed ? showPlayers(common, *catalogue, false, {}) : fail(removed.error());
}

int runRelink(const CommonOptions& common, const RelinkOptions& options, RunControl& control) {
    auto catalogue = openWorking(common);
    if (!catalogue) {
        return fail(catalogue.error());
    }
    Result<Relinking> relinking = Relinking{};
    Result<PlayersRead> read = PlayersRead{};
    {
        ProgressLine line(common.quiet);
        const ProgressSink sink = [&](const Progress& progress) { line(progress); };
        read = readPlayers(*catalogue, control, sink);
        relinking =
            read ? relink(*catalogue, options.request, control, sink) : Result<Relinking>(read.error());
    }
    const auto owners = relinking ? ownersIn(*catalogue) : Result<Owners>(relinking.error());
    if (!owners) {
        return fail(owners.error());
    }
    auto json = common.json ? relinkShape(*relinking, *owners) : Json();
    if (!common.json) {
        printRelinking(*relinking);
    }
    bool refused = false;
    if (options.write && !relinking->links.empty() && !relinking->interrupted) {
        ProgressLine line(common.quiet);
        CarryOutHooks hooks;
        hooks.onProgress = [&](const Progress& progress) { line(progress); };
        const auto carried = writeLinks(*catalogue, *relinking, control, hooks);
        if (!carried) {
            return fail(carried.error());
        }
        for (const auto& each : carried->refused) {
            sayOn(stderr, "{}: {}\n", displayPath(each.path), each.sentence);
        }
        refused = !carried->refused.empty();
        const auto after = lostPlaces(*catalogue);
        if (!after) {
            return fail(after.error());
        }
        if (common.json) {
            json["resolved_after"] = after->resolved;
            json["carried_out"] = carriedOutShape(*carried);
        } else {
            say("{} carried out, {} rewritten; {} resolved now\n", counted(carried->done, "link"),
                counted(carried->references, "reference"), humanCount(after->resolved));
        }
    }
    if (common.json) {
        printJson(json);
    }
    printErrors(read->errors);
    return control.isCancelled()              ? exitInterrupted
           : refused || !read->errors.empty() ? exitSomeUnread
                                              : exitDone;
}

} // namespace sober::cli
