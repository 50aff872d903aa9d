#include "cli/transfer_command.h"

#include "cli/answers.h"
#include "core/base/room.h"
#include "core/catalogue/holdings.h"
#include "core/catalogue/standing_lists.h"
#include "core/catalogue/volumes.h"
#include "core/players/read_players.h"
#include "core/transfer/plan.h"
#include "core/work/prove_transfer.h"
#include "core/work/run_transfer.h"

#include <algorithm>
#include <charconv>

namespace sober::cli {
namespace {

Error notThere(std::string_view what, const std::string& name) {
    return {Cause::notFound, {}, fmt::format("There is no {} \"{}\".", what, name)};
}

template <typename Things, typename Name>
auto named(const Things& things, const std::string& name, Name member, std::string_view what)
    -> Result<std::ranges::range_value_t<Things>> {
    const auto found = std::ranges::find(things, name, member);
    return found == things.end() ? Result<std::ranges::range_value_t<Things>>(notThere(what, name)) : *found;
}

/// What was named on the command line, found in the catalogue.
Result<TransferChoice> choiceOf(const Catalogue& catalogue, const TransferOptions& options) {
    const auto players = PlayerStore(catalogue).all();
    const auto volumes = Volumes(catalogue).all();
    const auto standing = StandingLists(catalogue).all();
    if (!players || !volumes || !standing) {
        return !players ? players.error() : !volumes ? volumes.error() : standing.error();
    }
    TransferChoice choice;
    choice.andUnlisted = options.andUnlisted;
    choice.keepersOnly = options.keepersOnly;
    for (const auto& list : options.lists) {
        choice.lists.push_back(realPathOf(list).value_or(list));
    }
    for (const auto& name : options.players) {
        const auto player = named(*players, name, &Player::name, "player");
        RETURN_IF_FAILED(player);
        choice.players.push_back(player->id);
    }
    for (const auto& label : options.volumes) {
        const auto volume = named(*volumes, label, &Volume::label, "volume");
        RETURN_IF_FAILED(volume);
        choice.volumes.push_back(volume->id);
    }
    for (const auto& folder : options.folders) {
        const auto path = realPathOf(folder).value_or(folder);
        const auto volume = volumeHolding(*volumes, path);
        RETURN_IF_FAILED(volume);
        choice.folders.emplace_back((*volume)->id, *relativeTo(path, (*volume)->root));
    }
    for (const auto& name : options.standing) {
        const auto list = named(*standing, name, &StandingList::name, "standing list");
        RETURN_IF_FAILED(list);
        choice.filters.emplace_back(list->name, list->filter);
    }
    return choice;
}

ListWay listWayOf(const TransferOptions& options) {
    ListWay way;
    way.format = options.listForm == "m3u8"   ? std::optional(PlaylistFormat::m3u)
                 : options.listForm == "xspf" ? std::optional(PlaylistFormat::xspf)
                 : options.listForm == "pls"  ? std::optional(PlaylistFormat::pls)
                                              : std::nullopt;
    way.places = options.relative          ? ListWay::Places::relative
                 : !options.prefix.empty() ? ListWay::Places::prefixed
                                           : ListWay::Places::asSource;
    way.prefix = options.prefix;
    return way;
}

/// Where the sources of items are now, absolute.
Result<std::vector<BytePath>> placesOf(const Catalogue& catalogue, std::span<const TransferItem> items) {
    std::vector<HoldingId> ids;
    std::ranges::transform(items, std::back_inserter(ids), &TransferItem::source);
    const auto holdings = Holdings(catalogue).byIds(ids);
    const auto volumes = Volumes(catalogue).all();
    if (!holdings || !volumes) {
        return holdings ? volumes.error() : holdings.error();
    }
    std::vector<BytePath> places;
    std::ranges::transform(*holdings, std::back_inserter(places),
                           [&](const Holding& holding) { return absolutePath(holding, *volumes); });
    return places;
}

/// Everything that is known of a transfer, as it is printed.
struct Shown {
    SettledTransfer settled;
    std::vector<BytePath> sources;
    std::vector<NotComing> left;
    std::vector<TransferList> lists;
};

Result<Shown> shownOf(const Catalogue& catalogue, SettledTransfer settled) {
    const TransferStore store(catalogue);
    auto left = store.left(settled.transfer.id);
    auto lists = store.lists(settled.transfer.id);
    auto sources = placesOf(catalogue, settled.items);
    if (!left || !lists || !sources) {
        return !left ? left.error() : !lists ? lists.error() : sources.error();
    }
    return Shown{std::move(settled), std::move(*sources), std::move(*left), std::move(*lists)};
}

Json transferShape(const Shown& shown) {
    const auto text = [](std::string_view path) { return percentEncodeOffending(path); };
    const auto& transfer = shown.settled.transfer;
    Json items = Json::array();
    for (std::size_t i = 0; i < shown.settled.items.size(); ++i) {
        const auto& item = shown.settled.items[i];
        const auto target = joinPath(transfer.folder, item.target);
        Json json{{"source", text(shown.sources[i])},
                  {"target", text(target)},
                  {"bytes", item.bytes},
                  {"form", item.form.empty() ? Json() : Json(item.form)},
                  {"altered", item.altered.empty() ? Json() : Json(text(item.altered))},
                  {"state", word(item.state)},
                  {"error", item.error.empty() ? Json() : Json(text(item.error))}};
        if (!isUtf8(shown.sources[i]) || !isUtf8(target)) {
            json["path_encoding"] = "percent";
        }
        items.push_back(std::move(json));
    }
    Json left = Json::array();
    for (const auto& each : shown.left) {
        left.push_back({{"reference", text(each.reference)}, {"why", word(each.why)}});
    }
    Json lists = Json::array();
    Json own = Json::array();
    for (const auto& list : shown.lists) {
        (list.source.empty() ? own : lists).push_back(text(joinPath(transfer.folder, list.target)));
    }
    return {{"schema", "sober.transfer/1"},
            {"transfer", transfer.id},
            {"state", word(transfer.state)},
            {"mode", word(transfer.mode)},
            {"choice", text(transfer.choice)},
            {"folder", text(transfer.folder)},
            {"rules", transfer.rules},
            {"layout", transfer.layout},
            {"items", std::move(items)},
            {"not_coming", std::move(left)},
            {"in_no_list", transfer.inNoList},
            {"needs_bytes", transfer.needs},
            {"peak_bytes", transfer.peak},
            {"free_bytes", transfer.free == unknownRoom ? Json() : Json(transfer.free)},
            {"fits", transfer.fits()},
            {"lists", std::move(lists)},
            {"own_lists", std::move(own)}};
}

void printTransfer(const Shown& shown) {
    const auto& transfer = shown.settled.transfer;
    const auto& items = shown.settled.items;
    const auto* rules = targetRulesNamed(transfer.rules);
    say("Transfer {}, {}: {}\nto {} by the rules of {}{}, layout {}\n", transfer.id, word(transfer.state),
        transfer.choice, displayPath(transfer.folder), transfer.rules,
        rules != nullptr ? " (" + wordsOf(*rules) + ")" : "", transfer.layout);
    for (const auto& item : items) {
        if (!item.altered.empty()) {
            say("  called {}: {}\n", displayPath(item.target), item.altered);
        }
        if (!item.error.empty()) {
            say("  failed {}: {}\n", displayPath(item.target), item.error);
        }
    }
    for (const auto& each : shown.left) {
        say("  does not come: {}: {}\n", displayPath(each.reference), sentenceOf(each.why));
    }
    for (const auto& list : shown.lists) {
        if (!list.source.empty()) {
            say("  list {}: {} of {}\n", displayPath(list.target), humanCount(list.coming),
                counted(list.entries, "entry", "entries"));
        }
    }
    say("{}: {} wait, {} copied, {} there before, {} failed. {} of these volumes in no list would not "
        "come.\n",
        counted(items.size(), "holding"), humanCount(shown.settled.count(ItemState::waits)),
        humanCount(shown.settled.count(ItemState::copied)), humanCount(shown.settled.count(ItemState::there)),
        humanCount(shown.settled.count(ItemState::failed)), humanCount(transfer.inNoList));
    if (transfer.free == unknownRoom) {
        say("{} needed; how much is free there is not known.\n", humanBytes(transfer.peak));
    } else {
        say("{} needed, {} were free: it {}.\n", humanBytes(transfer.peak), humanBytes(transfer.free),
            transfer.fits() ? "fits" : "does not fit");
    }
}

/// Prints a transfer, with `more` beside it in JSON.
int show(const CommonOptions& common, const Catalogue& catalogue, SettledTransfer settled,
         const Json& more = {}) {
    const auto shown = shownOf(catalogue, std::move(settled));
    if (!shown) {
        return fail(shown.error());
    }
    if (common.json) {
        auto json = transferShape(*shown);
        for (const auto& [name, value] : more.items()) {
            if (name != "schema") {
                json[name] = value;
            }
        }
        printJson(json);
    } else {
        printTransfer(*shown);
    }
    return exitDone;
}

/// What each form costs, where it does not fit; and what goes through a lossy encoder twice.
void sayForms(const TransferPlan& plan) {
    if (!plan.transfer.fits()) {
        for (const auto& [form, needs] : plan.costs) {
            say("  {}: about {}, {}\n", form.empty() ? "as it is" : "--form " + form, humanBytes(needs),
                needs <= plan.transfer.free ? "fits" : "does not fit");
        }
    }
    if (plan.reencoded > 0) {
        say("{} of what is encoded went through a lossy encoder already.\n", humanCount(plan.reencoded));
    }
}

Result<TransferId> numberFrom(const std::string& text) {
    TransferId id = 0;
    const auto [end, trouble] = std::from_chars(text.data(), text.data() + text.size(), id);
    return trouble == std::errc() && end == text.data() + text.size() && id > 0
               ? Result(id)
               : Result<TransferId>(notThere("transfer", text));
}

} // namespace

int runTransferPlan(const CommonOptions& common, const TransferOptions& options, RunControl& control) {
    const auto catalogue = openWorking(common);
    if (!catalogue) {
        return fail(catalogue.error());
    }
    if (const auto read = readPlayers(*catalogue, control); !read) {
        return fail(read.error());
    }
    auto choice = choiceOf(*catalogue, options);
    if (!choice) {
        return fail(choice.error());
    }
    TransferRequest request;
    request.choice = std::move(*choice);
    request.to =
        options.to.starts_with('/') ? options.to : joinPath(realPathOf(".").value_or("/"), options.to);
    request.rules = options.rules;
    request.room = options.room;
    request.longestPath = options.longestPath;
    request.layout = options.layout;
    request.mode = *transferModeOf(options.mode);
    request.lists = listWayOf(options);
    for (const auto& words : options.replacements) {
        // A name is never parted by what stands for one of its characters.
        if (words.size() < 2 || words[1] != '=' || words.find('/', 2) != std::string::npos) {
            return usage("--replace is CHARACTER=TEXT, without a slash in the text, as ':=-'.");
        }
        request.replacements.characters[words[0]] = words.substr(2);
    }
    for (const auto& words : options.forms) {
        auto rule = formRuleFrom(words);
        if (!rule) {
            return usage(rule.error().sentence);
        }
        request.forms.push_back(std::move(*rule));
    }
    const auto plan = planTransfer(*catalogue, request, control);
    if (!plan) {
        return plan.error().cause == Cause::invalid && plan.error().path.empty()
                   ? usage(plan.error().sentence)
                   : fail(plan.error());
    }
    const auto id = keepPlan(*catalogue, *plan);
    auto settled = id ? settleTransfer(*catalogue, *id) : Result<SettledTransfer>(id.error());
    if (!settled) {
        return fail(settled.error());
    }
    Json more{{"duration", plan->seconds},
              {"unsound", plan->unsound},
              {"contradicted", plan->contradicted},
              {"encoded", plan->encoded},
              {"reencoded", plan->reencoded}};
    more["forms"] = Json::array();
    for (const auto& [form, needs] : plan->costs) {
        more["forms"].push_back({{"form", form.empty() ? Json() : Json(form)},
                                 {"needs_bytes", needs},
                                 {"fits", needs <= plan->transfer.free}});
    }
    more["no_longer"] = Json::array();
    for (const auto& [path, holding] : plan->noLonger) {
        more["no_longer"].push_back(percentEncodeOffending(path));
    }
    if (options.letRestGo) {
        if (const auto added = letRestGo(*catalogue, *plan); !added) {
            return fail(added.error());
        }
    }
    const auto shown = show(common, *catalogue, std::move(*settled), more);
    if (!common.json) {
        sayForms(*plan);
    }
    if (!common.json && !plan->emptied.empty()) {
        say("{} left without a file, for the trash:\n", counted(plan->emptied.size(), "folder"));
        for (const auto& folder : plan->emptied) {
            say("  {}\n", displayPath(folder));
        }
    }
    if (!common.json && !plan->noLonger.empty()) {
        say("{} there would be no longer among what comes{}.\n", counted(plan->noLonger.size(), "holding"),
            options.letRestGo ? "; put on the docket to be retired" : "");
    }
    return shown == exitDone && !plan->transfer.fits() ? exitCouldNot : shown;
}

int runTransferRun(const CommonOptions& common, const std::string& number, RunControl& control) {
    const auto id = numberFrom(number);
    auto catalogue = id ? openWorking(common) : Result<Catalogue>(id.error());
    if (!catalogue) {
        return fail(catalogue.error());
    }
    CarryOutHooks hooks;
    auto run = [&] {
        ProgressLine line(common.quiet);
        hooks.onProgress = std::ref(line);
        return runTransfer(*catalogue, *id, control, hooks);
    }();
    if (!run) {
        return fail(run.error());
    }
    const auto waits = run->settled.count(ItemState::waits);
    if (const auto shown = show(common, *catalogue, std::move(run->settled), carriedOutShape(run->carried));
        shown != exitDone) {
        return shown;
    }
    for (const auto& refused : run->carried.refused) {
        sayOn(stderr, "{}: {}\n", displayPath(refused.path), refused.sentence);
    }
    const bool wasStopped = run->carried.interrupted || waits > 0;
    if (wasStopped) {
        sayOn(stderr, "{}. Run the transfer again to go on.\n",
              counted(waits, "holding still waits", "holdings still wait"));
    }
    return control.isCancelled()          ? exitInterrupted
           : wasStopped                   ? exitCouldNot
           : run->carried.refused.empty() ? exitDone
                                          : exitSomeUnread;
}

int runTransferProve(const CommonOptions& common, const std::string& number, RunControl& control) {
    const auto id = numberFrom(number);
    auto catalogue = id ? openWorking(common) : Result<Catalogue>(id.error());
    if (!catalogue) {
        return fail(catalogue.error());
    }
    auto proven = [&] {
        ProgressLine line(common.quiet);
        return proveTransfer(*catalogue, *id, control, std::ref(line));
    }();
    if (!proven) {
        return fail(proven.error());
    }
    const auto& proof = proven->proof;
    const auto wrong = proof.wrong();
    Json json{{"files", proof.files.size()}, {"bytes", proof.bytes()},
              {"entries", proof.entries()},  {"playable", proof.playable()},
              {"wrong", Json::array()},      {"report", percentEncodeOffending(proven->report)}};
    for (const auto& [path, sentence] : wrong) {
        auto each = withPath(path);
        each["error"] = percentEncodeOffending(sentence);
        json["wrong"].push_back(std::move(each));
    }
    if (const auto shown = show(common, *catalogue, std::move(proven->settled), {{"proof", std::move(json)}});
        shown != exitDone) {
        return shown;
    }
    for (const auto& [path, sentence] : wrong) {
        sayOn(stderr, "{}: {}\n", displayPath(path), sentence);
    }
    if (!common.json) {
        say("{} read back, {} of {} begin to play. {} The report: {}\n", counted(proof.files.size(), "file"),
            humanCount(proof.playable()), counted(proof.entries(), "entry", "entries"),
            proof.holds() ? "The proof holds." : "The proof does not hold.", displayPath(proven->report));
    }
    return proof.interrupted ? exitInterrupted : proof.holds() ? exitDone : exitCouldNot;
}

int runTransferRelease(const CommonOptions& common, const std::string& number, bool carryOutNow,
                       RunControl& control) {
    const auto id = numberFrom(number);
    auto catalogue = id ? openWorking(common) : Result<Catalogue>(id.error());
    const auto released =
        catalogue ? releaseTransfer(*catalogue, *id) : Result<std::vector<HoldingId>>(catalogue.error());
    if (!released) {
        return fail(released.error());
    }
    CarriedOut carried;
    if (carryOutNow && !released->empty()) {
        ProgressLine line(common.quiet);
        CarryOutHooks hooks;
        hooks.onProgress = std::ref(line);
        auto done = carryOut(*catalogue, control, hooks, [&](const DocketAction& action) {
            return action.kind == ActionKind::retire && std::ranges::binary_search(*released, action.holding);
        });
        if (!done) {
            return fail(done.error());
        }
        carried = std::move(*done);
    }
    auto settled = settleTransfer(*catalogue, *id);
    if (!settled) {
        return fail(settled.error());
    }
    Json more = carryOutNow ? carriedOutShape(carried) : Json::object();
    more["on_docket"] = carryOutNow ? carried.refused.size() : released->size();
    if (const auto shown = show(common, *catalogue, std::move(*settled), more); shown != exitDone) {
        return shown;
    }
    for (const auto& refused : carried.refused) {
        sayOn(stderr, "{}: {}\n", displayPath(refused.path), refused.sentence);
    }
    if (!common.json && !carryOutNow) {
        say("{} on the docket, to be retired. Nothing has changed yet.\n",
            counted(released->size(), "holding"));
    }
    return carried.interrupted ? exitInterrupted : carried.refused.empty() ? exitDone : exitSomeUnread;
}

int runTransferForget(const CommonOptions& common, const std::string& number) {
    const auto id = numberFrom(number);
    const auto catalogue = id ? openWorking(common) : Result<Catalogue>(id.error());
    const auto forgotten = catalogue ? forgetTransfer(*catalogue, *id) : Outcome(catalogue.error());
    return forgotten ? runTransferList(common, {}) : fail(forgotten.error());
}

int runTransferList(const CommonOptions& common, const std::string& number) {
    const auto catalogue = openLooking(common);
    if (!catalogue) {
        return fail(catalogue.error());
    }
    if (!number.empty()) {
        const auto id = numberFrom(number);
        auto settled = id ? settleTransfer(*catalogue, *id) : Result<SettledTransfer>(id.error());
        return settled ? show(common, *catalogue, std::move(*settled)) : fail(settled.error());
    }
    const auto all = TransferStore(*catalogue).all();
    if (!all) {
        return fail(all.error());
    }
    Json transfers = Json::array();
    for (const auto& each : *all) {
        const auto settled = settleTransfer(*catalogue, each.id);
        if (!settled) {
            return fail(settled.error());
        }
        const auto& transfer = settled->transfer;
        if (common.json) {
            transfers.push_back({{"transfer", transfer.id},
                                 {"state", word(transfer.state)},
                                 {"made", isoUtc(transfer.made)},
                                 {"choice", percentEncodeOffending(transfer.choice)},
                                 {"folder", percentEncodeOffending(transfer.folder)},
                                 {"items", settled->items.size()},
                                 {"waiting", settled->count(ItemState::waits)},
                                 {"failed", settled->count(ItemState::failed)}});
        } else {
            say("{:>4}  {:<9} {}, {}: {} to {}\n", transfer.id, word(transfer.state), localDay(transfer.made),
                counted(settled->items.size(), "holding"), transfer.choice, displayPath(transfer.folder));
        }
    }
    if (common.json) {
        printJson({{"schema", "sober.transfers/1"}, {"transfers", std::move(transfers)}});
    } else if (all->empty()) {
        say("No transfer was planned yet.\n");
    }
    return exitDone;
}

} // namespace sober::cli
