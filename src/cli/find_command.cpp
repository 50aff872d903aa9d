#include "cli/find_command.h"

#include "cli/answers.h"
#include "core/audit/found_holding.h"
#include "core/catalogue/browse.h"
#include "core/catalogue/search.h"
#include "core/catalogue/span_text.h"
#include "core/catalogue/standing_lists.h"
#include "core/catalogue/volumes.h"

#include <algorithm>

namespace sober::cli {
namespace {

constexpr std::size_t page = 500; // holdings looked at together

Error noSpan(std::string_view option, const std::string& text) {
    return {Cause::invalid,
            {},
            fmt::format("{} is \"FROM-TO\", with either left out: \"{}\" is not that.", option, text)};
}

Result<Volume> volumeNamed(const Catalogue& catalogue, const std::string& label) {
    const auto volumes = Volumes(catalogue).all();
    RETURN_IF_FAILED(volumes);
    const auto found = std::ranges::find(*volumes, label, &Volume::label);
    if (found == volumes->end()) {
        return Error{
            Cause::notFound, {}, "There is no volume \"" + label + "\". \"sober condition\" names them."};
    }
    return *found;
}

Result<HoldingFilter> filterOf(const Catalogue& catalogue, const FindOptions& options) {
    HoldingFilter filter = options.filter;
    for (const auto& word : options.words) {
        // Words that came with spaces were meant to stay together.
        const bool apart = word.find(' ') == std::string::npos;
        filter.text += (filter.text.empty() ? "" : " ") + (apart ? word : '"' + word + '"');
    }
    if (!options.volume.empty()) {
        const auto volume = volumeNamed(catalogue, options.volume);
        RETURN_IF_FAILED(volume);
        filter.volume = volume->id;
    }
    if (const auto verdict = verdictOf(options.verdict)) {
        filter.verdicts = {*verdict};
        filter.acceptedToo = true;
    }
    const auto bitrate = wholeSpanFrom<std::int64_t>(options.bitrate, 1000);
    const auto seconds = spanFrom(options.length);
    const auto years = wholeSpanFrom<int>(options.years);
    if (!bitrate || !seconds || !years) {
        return !bitrate   ? noSpan("--bitrate", options.bitrate)
               : !seconds ? noSpan("--length", options.length)
                          : noSpan("--years", options.years);
    }
    filter.bitrate = *bitrate;
    filter.seconds = *seconds;
    filter.years = *years;
    return filter;
}

Json foundShape(const FoundHolding& found) {
    Json json = withPath(found.path);
    json["volume"] = found.volume.label;
    json["at_hand"] = found.volume.reaches(found.holding.path);
    const auto& tags = found.holding.tags;
    json["tags"] = {{"title", tags.title},
                    {"artist", tags.artist},
                    {"album", tags.album},
                    {"track", tags.track},
                    {"date", tags.date}};
    json["copies"] = found.copies;
    json["lists"] = Json::array();
    for (const auto& list : found.lists) {
        json["lists"].push_back(percentEncodeOffending(list));
    }
    json["state"] = stateWord(found.holding.state);
    return json;
}

void printFound(const FoundHolding& found) {
    say("{}\n    {}{}{}{}\n", displayPath(found.path), reachWords(found),
        found.copies > 0 ? ", " + counted(found.copies, "other copy", "other copies") : "",
        found.lists.empty() ? "" : ", in " + counted(found.lists.size(), "list"),
        found.sound ? "" : ", damaged");
}

} // namespace

int runFind(const CommonOptions& common, const FindOptions& options, RunControl& control) {
    const auto catalogue = options.keepAs.empty() ? openLooking(common) : openWorking(common);
    if (!catalogue) {
        return fail(catalogue.error());
    }
    const auto filter = filterOf(*catalogue, options);
    if (!filter) {
        const int failed = fail(filter.error());
        return filter.error().cause == Cause::invalid ? exitUsage : failed;
    }
    auto result = search(*catalogue, *filter, control, [](const std::vector<HoldingId>&) {});
    if (control.isCancelled()) {
        return exitInterrupted;
    }
    if (!result) {
        return fail(result.error());
    }
    auto& ids = result->ids;
    if (!options.keepAs.empty()) {
        if (const auto kept = StandingLists(*catalogue).keep(options.keepAs, *filter); !kept) {
            return fail(kept.error());
        }
    }
    const auto count = ids.size();
    if (options.limit > 0 && ids.size() > options.limit) {
        ids.resize(options.limit);
    }
    Json holdings = Json::array();
    for (std::size_t at = 0; at < ids.size() && !control.isCancelled(); at += page) {
        const auto found =
            foundHoldings(*catalogue, std::span(ids).subspan(at, std::min(page, ids.size() - at)));
        if (!found) {
            return fail(found.error());
        }
        for (const auto& each : *found) {
            if (common.json) {
                holdings.push_back(foundShape(each));
            } else {
                printFound(each);
            }
        }
    }
    if (control.isCancelled()) {
        return exitInterrupted;
    }
    if (common.json) {
        printJson({{"schema", "sober.find/1"}, {"count", count}, {"holdings", std::move(holdings)}});
    } else {
        say("{}{}\n", counted(count, "holding"),
            ids.size() < count ? fmt::format(", the first {} shown", humanCount(ids.size())) : "");
    }
    return exitDone;
}

int runBrowse(const CommonOptions& common, const BytePath& place) {
    const auto catalogue = openLooking(common);
    if (!catalogue) {
        return fail(catalogue.error());
    }
    // A label may hold a slash: the longest that is one is meant.
    const auto volumes = Volumes(*catalogue).all();
    if (!volumes) {
        return fail(volumes.error());
    }
    const Volume* volume = nullptr;
    for (const auto& each : *volumes) {
        if (isWithin(place, each.label) && (volume == nullptr || each.label.size() > volume->label.size())) {
            volume = &each;
        }
    }
    if (volume == nullptr) {
        return fail(volumeNamed(*catalogue, place.substr(0, place.find('/'))).error());
    }
    auto folder = relativeTo(place, volume->label).value_or(BytePath());
    while (folder.ends_with('/')) {
        folder.pop_back();
    }
    const auto browsed = browse(*catalogue, volume->id, folder);
    const auto found = browsed ? foundHoldings(*catalogue, browsed->holdings)
                               : Result<std::vector<FoundHolding>>(browsed.error());
    if (!found) {
        return fail(found.error());
    }
    if (!folder.empty() && browsed->folders.empty() && browsed->holdings.empty()) {
        return fail({Cause::notFound, place, "Nothing is catalogued in " + displayPath(place) + "."});
    }
    if (common.json) {
        Json folders = Json::array();
        for (const auto& each : browsed->folders) {
            folders.push_back({{"name", percentEncodeOffending(nameOf(each.figures.path))},
                               {"holdings", each.figures.holdings},
                               {"bytes", each.figures.bytes},
                               {"duration", each.seconds}});
        }
        Json holdings = Json::array();
        std::ranges::transform(*found, std::back_inserter(holdings), foundShape);
        printJson({{"schema", "sober.browse/1"}, {"folders", folders}, {"holdings", holdings}});
        return exitDone;
    }
    for (const auto& each : browsed->folders) {
        say("{:>16} {:>9} {:>12}  {}/\n", counted(each.figures.holdings, "holding"),
            humanBytes(each.figures.bytes), humanSeconds(each.seconds),
            displayPath(BytePath(nameOf(each.figures.path))));
    }
    std::ranges::for_each(*found, printFound);
    return exitDone;
}

} // namespace sober::cli
