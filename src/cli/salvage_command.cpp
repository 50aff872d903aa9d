#include "cli/salvage_command.h"

#include "cli/answers.h"
#include "core/base/drive_use.h"
#include "core/catalogue/volumes.h"
#include "core/salvage/recogniser.h"
#include "core/salvage/scan_image.h"
#include "core/salvage/trash_finds.h"
#include "core/work/take_finds.h"
#include "core/work/tidy_salvaged.h"
#include "core/work/waiting_finds.h"

#include <algorithm>

namespace sober::cli {
namespace {

Json textOrNull(std::string_view text) {
    return text.empty() ? Json() : Json(percentEncodeOffending(text));
}

Json findShape(const Find& find, const KnownFind& known) {
    Json extents = Json::array();
    for (const auto& [first, past] : find.extents) {
        if (past > first && first < ExtentSource::nowhere) {
            extents.push_back({first, past - 1});
        }
    }
    Json json{{"id", find.id},
              {"source", word(find.how)},
              {"format", find.format},
              {"extents", std::move(extents)},
              {"bytes", find.bytes},
              {"duration", find.seconds > 0 ? Json(find.seconds) : Json()},
              {"name", textOrNull(find.name)},
              {"from", textOrNull(find.from)},
              {"deleted", find.deleted != 0 ? Json(isoUtc(find.deleted)) : Json()},
              {"sound", find.sound ? Json(*find.sound) : Json()},
              {"complete", find.complete ? Json(*find.complete) : Json()},
              {"recognised", nullptr},
              {"title", textOrNull(find.tags.title)},
              {"artist", textOrNull(find.tags.artist)},
              {"group", find.kin},
              {"overwritten", find.overwritten},
              {"taken", textOrNull(find.taken)}};
    if (!find.file.empty()) {
        json["file"] = percentEncodeOffending(find.file);
    }
    for (const auto& path : {find.name, find.from, find.file, known.place}) {
        if (!isUtf8(path)) {
            json["path_encoding"] = "percent";
        }
    }
    if (known.standing != FindStanding::unknown) {
        json["recognised"] = {{"path", percentEncodeOffending(known.place)},
                              {"how", word(find.recognised)},
                              {"state", word(known.standing)}};
    }
    return json;
}

void sayFind(const Find& find, const KnownFind& known) {
    const auto name = !find.name.empty()         ? displayPath(find.name)
                      : !find.tags.title.empty() ? displayPath(find.tags.title)
                                                 : fmt::format("at byte {}", humanCount(find.firstByte()));
    say("{:>6}  {:8} {:>9}  {:>11}  {}", find.id, find.format, humanBytes(find.bytes),
        humanSeconds(find.seconds), name);
    if (find.complete && *find.complete < 1) {
        say("  {:.0f} % of it", *find.complete * 100);
    }
    if (find.sound == false) {
        say("  not whole or not sound");
    }
    if (known.standing != FindStanding::unknown) {
        say("  = {} ({}, by {})", displayPath(known.place), word(known.standing), word(find.recognised));
    }
    say("\n");
}

/// Finds in the list's order, with what the collection knows of them.
int showFinds(const CommonOptions& common, const Catalogue& catalogue, std::span<const Find> finds,
              const std::vector<Error>& errors, const Json& more = {}) {
    const auto known = standingsOf(catalogue, finds);
    if (!known) {
        return fail(known.error());
    }
    if (common.json) {
        Json json{{"schema", "sober.salvage/1"}, {"errors", Json::array()}};
        for (const auto& error : errors) {
            auto each = withPath(error.path);
            each["error"] = percentEncodeOffending(error.sentence);
            json["errors"].push_back(std::move(each));
        }
        for (const auto& [name, value] : more.items()) {
            json[name] = value;
        }
        printJsonWithList(json, "finds", finds.size(),
                          [&](std::size_t i) { return findShape(finds[i], (*known)[i]); });
    } else {
        std::uint64_t missing = 0;
        for (std::size_t i = 0; i < finds.size(); ++i) {
            sayFind(finds[i], (*known)[i]);
            missing += (*known)[i].standing == FindStanding::missing ? 1 : 0;
        }
        say("{}, {} of them missing from the collection.\n", counted(finds.size(), "find"),
            humanCount(missing));
    }
    for (const auto& error : errors) {
        sayOn(stderr, "{}\n", error.sentence);
    }
    return errors.empty() ? exitDone : exitSomeUnread;
}

Result<PieceKinds> kindsFrom(const std::string& words) {
    if (words.empty()) {
        return PieceKinds::all();
    }
    PieceKinds kinds;
    for (std::size_t at = 0; at <= words.size();) {
        const auto end = std::min(words.find(',', at), words.size());
        const auto each = words.substr(at, end - at);
        const auto kind = pieceKindOf(each);
        if (!kind) {
            std::string all;
            for (const auto one : everyPieceKind) {
                all += (all.empty() ? "" : ", ") + std::string(word(one));
            }
            return Error{
                Cause::invalid, {}, fmt::format("There is no kind \"{}\"; there are {}.", each, all)};
        }
        kinds.add(*kind);
        at = end + 1;
    }
    return kinds;
}

Json sourceShape(const SalvageSource& source) {
    constexpr std::string_view states[]{"scanning", "examining", "done"};
    Json passed = Json::array();
    for (const auto& [from, to] : source.passedOver) {
        passed.push_back({from, to - 1});
    }
    return {{"image", percentEncodeOffending(source.path)},
            {"bytes", source.size},
            {"scanned_bytes", source.reached},
            {"state", states[static_cast<std::size_t>(source.state)]},
            {"file_systems", source.fileSystems},
            {"passed_over", std::move(passed)}};
}

/// What of it could not be looked through.
std::vector<Error> passedOver(const SalvageSource& source) {
    std::vector<Error> sentences;
    for (const auto& [from, to] : source.passedOver) {
        sentences.push_back({Cause::unreadable, source.path,
                             fmt::format("Bytes {} to {} were passed over: what looks for audio broke there.",
                                         humanCount(from), humanCount(to - 1))});
    }
    return sentences;
}

/// Why a drive is better imaged first.
void warnOfDrive(const BytePath& path) {
    const auto drive = openDrive(path);
    const auto use = drive && drive->isDevice ? useOf(path) : Result<DriveUse>(Error{});
    if (use) {
        sayOn(stderr,
              "{}{} is a drive: of one that fails every reading may be the last. Make an image first: sober "
              "salvage "
              "image.\n",
              displayPath(path),
              use->isFree() ? std::string()
                            : " is in use (" + wordsFor(*use) +
                                  "), what was deleted may be written over any moment, and it");
    }
}

Result<SalvageSource> scannedSource(const Catalogue& catalogue, const BytePath& image) {
    const auto path = fromHere(image);
    auto source = SalvageStore(catalogue).sourceOf(path);
    return !source ? Result<SalvageSource>(source.error())
           : *source
               ? Result(std::move(**source))
               : Result<SalvageSource>(Error{
                     Cause::notFound, path, displayPath(path) + " was not scanned yet: sober salvage scan."});
}

} // namespace

int runSalvageTrash(const CommonOptions& common, const std::string& volume, RunControl& control) {
    const auto catalogue = openWorking(common);
    const auto volumes =
        catalogue ? Volumes(*catalogue).all() : Result<std::vector<Volume>>(catalogue.error());
    if (!volumes) {
        return fail(volumes.error());
    }
    const auto wanted = std::ranges::find(*volumes, volume, &Volume::label);
    if (!volume.empty() && wanted == volumes->end()) {
        return fail({Cause::notFound, {}, fmt::format("There is no volume \"{}\".", volume)});
    }
    const auto listing = [&] {
        ProgressLine line(common.quiet);
        return listTrash(*catalogue, volume.empty() ? 0 : wanted->id, control, std::ref(line));
    }();
    if (!listing) {
        return fail(listing.error());
    }
    Json notes = Json::array();
    for (const auto& note : listing->loneNotes) {
        notes.push_back(percentEncodeOffending(note));
    }
    const auto shown =
        showFinds(common, *catalogue, listing->finds, listing->unread, {{"lone_notes", notes}});
    if (!common.json && !listing->loneNotes.empty()) {
        say("{} of files that are not there any more.\n", counted(listing->loneNotes.size(), "note"));
    }
    return shown;
}

int runSalvageScan(const CommonOptions& common, const ScanOptions& options, RunControl& control) {
    const auto kinds = kindsFrom(options.kinds);
    if (!kinds) {
        sayOn(stderr, "{}\n", kinds.error().sentence);
        return exitUsage;
    }
    const auto catalogue = openWorking(common);
    if (!catalogue) {
        return fail(catalogue.error());
    }
    warnOfDrive(options.image);
    const auto source = [&] {
        ProgressLine line(common.quiet);
        return scanForAudio(*catalogue, {fromHere(options.image), *kinds, options.everywhere, options.anew},
                            control, std::ref(line));
    }();
    if (!source) {
        return fail(source.error());
    }
    const auto finds = SalvageStore(*catalogue).finds(source->id);
    if (!finds) {
        return fail(finds.error());
    }
    const auto shown = showFinds(common, *catalogue, *finds, passedOver(*source), sourceShape(*source));
    return control.isCancelled() ? exitInterrupted : shown;
}

int runSalvageList(const CommonOptions& common, const BytePath& image) {
    const auto catalogue = openLooking(common);
    const auto source =
        catalogue ? scannedSource(*catalogue, image) : Result<SalvageSource>(catalogue.error());
    const auto finds =
        source ? SalvageStore(*catalogue).finds(source->id) : Result<std::vector<Find>>(source.error());
    return finds ? showFinds(common, *catalogue, *finds, passedOver(*source), sourceShape(*source))
                 : fail(finds.error());
}

int runSalvageTidy(const CommonOptions& common) {
    const auto catalogue = openWorking(common);
    const auto left = catalogue ? planTidying(*catalogue) : Result<std::vector<LeftAbout>>(catalogue.error());
    if (!left) {
        return fail(left.error());
    }
    if (common.json) {
        Json json{{"schema", "sober.tidy/1"}, {"left", Json::array()}};
        for (const auto& each : *left) {
            auto shape = withPath(each.path);
            shape["held_at"] = percentEncodeOffending(each.heldAt);
            shape["bytes"] = each.bytes;
            shape["in_trash"] = each.isInTrash;
            json["left"].push_back(std::move(shape));
        }
        printJson(json);
        return exitDone;
    }
    for (const auto& each : *left) {
        say("{}  is held at {}\n", displayPath(each.path), displayPath(each.heldAt));
    }
    say("{} put on the docket.\n", counted(left->size(), "action was", "actions were"));
    return exitDone;
}

int runSalvageForget(const CommonOptions& common, const BytePath& image) {
    const auto catalogue = openWorking(common);
    const auto forgotten = catalogue ? forgetImage(*catalogue, fromHere(image)) : Outcome(catalogue.error());
    return forgotten ? exitDone : fail(forgotten.error());
}

int runSalvageTake(const CommonOptions& common, const TakeOptions& options, RunControl& control) {
    if (options.home == !options.to.empty()) {
        sayOn(stderr, "Say either --home or --to a folder.\n");
        return exitUsage;
    }
    if (options.all == !options.finds.empty()) {
        sayOn(stderr, "Say either the numbers of finds or --all.\n");
        return exitUsage;
    }
    auto catalogue = openWorking(common);
    if (!catalogue) {
        return fail(catalogue.error());
    }
    const auto source = options.source == "trash" ? SalvageStore(*catalogue).sourceOf({})
                                                  : [&]() -> Result<std::optional<SalvageSource>> {
        auto scanned = scannedSource(*catalogue, options.source);
        return scanned ? Result(std::optional(std::move(*scanned)))
                       : Result<std::optional<SalvageSource>>(scanned.error());
    }();
    if (!source) {
        return fail(source.error());
    }
    if (!*source) {
        return fail({Cause::notFound, {}, "The trash was not looked at yet: sober salvage trash."});
    }
    const auto finds = SalvageStore(*catalogue).finds((*source)->id);
    if (!finds) {
        return fail(finds.error());
    }
    TakeRequest request;
    for (const auto& find : *finds) {
        const bool isNamed = std::ranges::find(options.finds, find.id) != options.finds.end();
        if (isNamed || (options.all && find.taken.empty())) {
            request.finds.push_back(find.id);
        }
    }
    if (request.finds.size() < options.finds.size()) {
        return fail({Cause::notFound, {}, "There is no find of one of these numbers there."});
    }
    request.home = options.home;
    request.to = options.to.empty() ? BytePath() : fromHere(options.to);
    request.layout = options.layout;
    request.onConflict = options.onConflict == "skip" ? OnConflict::skip : OnConflict::otherName;
    const auto planned = planTake(*catalogue, request, control);
    if (!planned) {
        return planned.error().cause == Cause::invalid && planned.error().path.empty()
                   ? (sayOn(stderr, "{}\n", planned.error().sentence), exitUsage)
                   : fail(planned.error());
    }
    const auto taken = [&] {
        ProgressLine line(common.quiet);
        CarryOutHooks hooks;
        hooks.onProgress = std::ref(line);
        return takeFinds(*catalogue, *planned, control, hooks);
    }();
    if (!taken) {
        return fail(taken.error());
    }
    auto carried = taken->carried;
    if (common.json) {
        auto json = carriedOutShape(carried);
        json["taken"] = Json::array();
        for (const auto& [id, path] : taken->taken) {
            auto each = withPath(path);
            each["id"] = id;
            json["taken"].push_back(std::move(each));
        }
        json["left"] = Json::array();
        for (const auto& each : *planned) {
            if (each.place.empty()) {
                json["left"].push_back({{"id", each.find}, {"why", percentEncodeOffending(each.why)}});
            }
        }
        printJson(json);
    } else {
        for (const auto& [id, path] : taken->taken) {
            say("{:>6}  {}\n", id, displayPath(path));
        }
    }
    for (const auto& each : *planned) {
        if (each.place.empty()) {
            sayOn(stderr, "{}: {}\n", each.find, each.why);
        }
    }
    for (const auto& refused : carried.refused) {
        sayOn(stderr, "{}: {}\n", displayPath(refused.path), refused.sentence);
    }
    // Of all that was found much is held, or has no place: to leave that is no failure.
    const bool leftSome =
        !options.all && std::ranges::any_of(*planned, [](const auto& each) { return each.place.empty(); });
    return carried.interrupted                    ? exitInterrupted
           : taken->taken.empty() && leftSome     ? exitCouldNot
           : leftSome || !carried.refused.empty() ? exitSomeUnread
                                                  : exitDone;
}

} // namespace sober::cli
