#include "cli/disc_command.h"

#include "cli/answers.h"
#include "core/base/http_exchange.h"
#include "core/catalogue/service_store.h"
#include "core/media/encoding_form.h"
#include "core/transfer/layout.h"
#include "core/work/read_disc.h"

#include <charconv>
#include <sstream>

namespace sober::cli {
namespace {

Json textOrNothing(const std::string& text) {
    return text.empty() ? Json() : Json(text);
}

Json namesShape(const DiscNames& names) {
    Json json{{"source", names.source}, {"title", names.title},   {"artist", names.artist},
              {"date", names.date},     {"genre", names.genre},   {"disc", names.disc},
              {"discs", names.discs},   {"tracks", Json::array()}};
    for (const auto& track : names.tracks) {
        json["tracks"].push_back({{"title", track.title}, {"artist", track.artist}});
    }
    return json;
}

Json lookShape(const DiscLook& look) {
    Json json{{"schema", "sober.disc/1"},
              {"id", look.id},
              {"device", look.contents.device},
              {"media_number", textOrNothing(look.contents.mediaNumber)},
              {"lead_out", look.contents.leadOut},
              {"hidden_sectors", look.contents.hiddenSectors()},
              {"tracks", Json::array()},
              {"names", Json::array()},
              {"held", Json::array()},
              {"problem", textOrNothing(look.problem)}};
    const auto& best = look.names.empty() ? namesOnDisc(look.contents) : look.names.front();
    std::size_t audio = 0;
    for (const auto& track : look.contents.tracks) {
        const auto title =
            !track.isAudio || audio >= best.tracks.size() ? std::string() : best.tracks[audio].title;
        audio += track.isAudio ? 1 : 0;
        json["tracks"].push_back({{"number", track.number},
                                  {"first_sector", track.firstSector},
                                  {"sectors", track.sectors},
                                  {"audio", track.isAudio},
                                  {"isrc", textOrNothing(track.isrc)},
                                  {"title", textOrNothing(title)},
                                  {"pre_emphasis", track.preEmphasis},
                                  {"may_copy", track.mayCopy},
                                  {"gap_sectors", track.gap},
                                  {"marks", track.marks}});
    }
    for (const auto& names : look.names) {
        json["names"].push_back(namesShape(names));
    }
    for (const auto& held : look.held) {
        auto each = withPath(held.folder);
        each["holdings"] = held.holdings.size();
        json["held"].push_back(std::move(each));
    }
    return json;
}

void sayLook(const DiscLook& look) {
    say("Disc {} ({})\n", look.id, look.contents.device);
    if (look.contents.hiddenSectors() > 0) {
        say("  {} before the first track\n", sectorTime(look.contents.hiddenSectors()));
    }
    for (const auto& track : look.contents.tracks) {
        say("  {:02}  {}  {}{}{}\n", track.number, sectorTime(track.firstSector), sectorTime(track.sectors),
            track.isAudio ? "" : "  data, left out", track.preEmphasis ? "  pre-emphasis" : "");
    }
    int number = 0;
    for (const auto& names : look.names) {
        say("{}: {}{}{} ({})\n", ++number, names.artist, names.artist.empty() ? "" : ": ", names.title,
            names.source);
        for (const auto& track : names.tracks) {
            say("     {}{}{}\n", track.title, track.artist.empty() ? "" : " / ", track.artist);
        }
    }
    for (const auto& held : look.held) {
        say("As long as what is held in {}\n", displayPath(held.folder));
    }
}

/// "1,3-5"; nothing where it is no such thing.
std::optional<std::vector<int>> tracksFrom(const std::string& text) {
    std::vector<int> tracks;
    std::istringstream parts(text);
    for (std::string part; std::getline(parts, part, ',');) {
        int first = 0;
        int last = 0;
        const char* const end = part.data() + part.size();
        const auto read = std::from_chars(part.data(), end, first);
        last = first;
        const bool isRange = read.ptr != end && *read.ptr == '-';
        const auto rest = isRange ? std::from_chars(read.ptr + 1, end, last) : read;
        if (read.ec != std::errc() || rest.ec != std::errc() || rest.ptr != end || first < 0 ||
            last < first || last > mostTracks) {
            return std::nullopt;
        }
        for (int number = first; number <= last; ++number) {
            tracks.push_back(number);
        }
    }
    return tracks;
}

/// Said before anything is sent.
void sayWhatIsSent(const std::string& what, const std::string& address) {
    if (!address.empty()) {
        sayOn(stderr, "The {} {} is told the disc's id and where its tracks begin.\n", what, address);
    }
}

void sayTrack(const RippedTrack& track) {
    say("{:02}  {}  {}{}\n", track.number, fmt::format("{:08x}", track.crc), track.title,
        track.agreed() ? "" : "  DOUBTFUL");
    for (const auto& [first, last] : track.doubtful) {
        say("      sectors {} to {}\n", first, last);
    }
    if (track.word) {
        say("      register: {}, offset {}\n", registerWords(*track.word), track.word->offset);
    }
}

} // namespace

int runDiscShow(const CommonOptions& common, const BytePath& disc, const std::string& lookup,
                RunControl& control) {
    const auto catalogue = openLooking(common);
    if (!catalogue && catalogue.error().cause != Cause::notFound) {
        return fail(catalogue.error());
    }
    sayWhatIsSent("lookup", lookup);
    const auto tray = Tray::open(fromHere(disc), control);
    const auto look = tray ? lookAtDisc(catalogue ? &*catalogue : nullptr, *tray, lookup, control)
                           : Result<DiscLook>(tray.error());
    if (!look) {
        return fail(look.error());
    }
    if (common.json) {
        printJson(lookShape(*look));
    } else {
        sayLook(*look);
    }
    if (!look->problem.empty()) {
        sayOn(stderr, "{}\n", look->problem);
    }
    return exitDone;
}

int runDiscServices(const CommonOptions& common, const std::optional<std::string>& ripRegister,
                    const std::optional<std::string>& lookup) {
    const auto catalogue = openWorking(common);
    if (!catalogue) {
        return fail(catalogue.error());
    }
    const ServiceStore services(*catalogue);
    for (const auto& [kind, what, address] :
         {std::tuple(ServiceKind::ripRegister, "rip register", ripRegister),
          std::tuple(ServiceKind::discLookup, "lookup", lookup)}) {
        if (!address) {
            continue;
        }
        const auto fits = address->empty() ? done() : isServiceAddress({what, *address, {}});
        const auto set = fits ? services.setAddress(kind, *address) : fits;
        if (!set) {
            return set.error().cause == Cause::invalid ? usage(set.error().sentence) : fail(set.error());
        }
    }
    return exitDone;
}

int runDiscRead(const CommonOptions& common, const DiscReadOptions& options, RunControl& control) {
    DiscRequest request;
    const auto tracks = tracksFrom(options.tracks);
    if (!tracks) {
        return usage("Tracks are said as 1,3-5.");
    }
    request.tracks = *tracks;
    request.forms.clear();
    std::istringstream forms(options.forms);
    for (std::string form; std::getline(forms, form, ',');) {
        const bool isPreset =
            std::ranges::find(discPresets, form, &DiscPreset::name) != std::end(discPresets);
        if (const auto known = encodingFormFrom(form); !known && !isPreset) {
            return usage(known.error().sentence);
        }
        request.forms.push_back(form);
    }
    if (const auto layout = Layout::named(options.layout.empty() ? "keep" : options.layout); !layout) {
        return usage(layout.error().sentence);
    }
    if (std::abs(options.offset) > farthestOffset || options.retries < 0 || options.retries > 50 ||
        options.answer.value_or(1) < 1) {
        return usage(
            "An offset is at most 2940 samples, there are at most 50 retries, and answers count from 1.");
    }
    request.disc = fromHere(options.disc);
    request.to = fromHere(options.to);
    request.layout = options.layout;
    request.effort.retries = options.retries;
    request.offset = options.offset;
    request.registerAddress = options.registerAddress;
    request.lookup = options.lookup;
    request.answer = options.answer.value_or(0);
    request.oneFile = options.oneFile;
    request.plainTags = options.plainTags;
    auto catalogue = openWorking(common);
    if (!catalogue) {
        return fail(catalogue.error());
    }
    sayWhatIsSent("rip register", request.registerAddress);
    sayWhatIsSent("lookup", request.lookup);
    const auto read = [&] {
        ProgressLine line(common.quiet);
        DiscHooks hooks;
        hooks.onProgress = std::ref(line);
        return readDisc(*catalogue, request, control, hooks);
    }();
    if (!read) {
        return read.error().cause == Cause::invalid && read.error().path == request.disc
                   ? usage(read.error().sentence)
                   : fail(read.error());
    }
    const auto carried = [&] {
        ProgressLine line(common.quiet);
        CarryOutHooks hooks;
        hooks.onProgress = std::ref(line);
        return placeDisc(*catalogue, *read, control, hooks);
    }();
    if (!carried) {
        return fail(carried.error());
    }
    if (common.json) {
        auto json = Json::parse(reportJson(read->disc));
        const auto more = carriedOutShape(*carried);
        for (const auto& [name, value] : more.items()) {
            if (name != "schema") {
                json[name] = value;
            }
        }
        json["report"] = read->report.empty() ? Json() : Json(percentEncodeOffending(read->report));
        printJson(json);
    } else {
        std::ranges::for_each(read->disc.tracks, sayTrack);
        say("{}\n", read->report.empty() ? std::string() : "Report: " + displayPath(read->report));
    }
    for (const auto& failed : read->failed) {
        sayOn(stderr, "{}\n", failed.sentence);
    }
    for (const auto& refused : carried->refused) {
        sayOn(stderr, "{}: {}\n", displayPath(refused.path), refused.sentence);
    }
    if (!read->disc.problem.empty()) {
        sayOn(stderr, "{}\n", read->disc.problem);
    }
    const bool isWhole = carried->refused.empty() && read->failed.empty() &&
                         std::ranges::all_of(read->disc.tracks, &RippedTrack::agreed);
    return carried->interrupted ? exitInterrupted : isWhole ? exitDone : exitSomeUnread;
}

} // namespace sober::cli
