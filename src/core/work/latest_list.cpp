#include "core/work/latest_list.h"

#include "core/base/inner_path.h"
#include "core/base/presence.h"
#include "core/base/text.h"
#include "core/catalogue/evidence_store.h"
#include "core/catalogue/holdings.h"
#include "core/catalogue/volumes.h"
#include "core/transfer/target_list.h"

#include <algorithm>

namespace sober {
namespace {

constexpr std::size_t mostLatest = 100; // no source

std::optional<PlaylistFormat> formatBy(const BytePath& path) {
    const auto ending = lowerAscii(endingOf(path));
    return ending == "m3u8" || ending == "m3u" ? std::optional(PlaylistFormat::m3u)
           : ending == "xspf"                  ? std::optional(PlaylistFormat::xspf)
           : ending == "pls"                   ? std::optional(PlaylistFormat::pls)
                                               : std::nullopt;
}

/// Present holdings below a folder, those that came last first, with their places.
Result<std::vector<std::pair<Holding, BytePath>>> latestBelow(const Catalogue& catalogue,
                                                              const BytePath& folder) {
    const auto volumes = Volumes(catalogue).all();
    RETURN_IF_FAILED(volumes);
    std::vector<std::pair<Holding, BytePath>> latest;
    for (const auto& volume : *volumes) {
        const auto within = relativeTo(folder, volume.root);
        if (!within) {
            continue;
        }
        HoldingFilter filter;
        filter.volume = volume.id;
        filter.folder = *within;
        const auto ids = EvidenceStore(catalogue).meant(filter);
        auto holdings = ids ? Holdings(catalogue).byIds(*ids) : Result<std::vector<Holding>>(ids.error());
        RETURN_IF_FAILED(holdings);
        for (auto& holding : *holdings) {
            if (isInsideArchive(holding.path)) {
                continue; // no player opens it there
            }
            auto path = joinPath(volume.root, holding.path);
            latest.emplace_back(std::move(holding), std::move(path));
        }
    }
    std::ranges::stable_sort(latest, std::ranges::greater{},
                             [](const auto& each) { return each.first.firstSeen; });
    latest.resize(std::min(latest.size(), mostLatest));
    return latest;
}

} // namespace

bool isListPath(const BytePath& path) {
    return formatBy(path).has_value();
}

Result<std::optional<DocketAction>> latestListAction(const Catalogue& catalogue, const Inbox& inbox) {
    const auto format = formatBy(inbox.latest);
    if (!format) {
        return Error{Cause::invalid, inbox.latest,
                     "A list of the latest arrivals ends in .m3u8, .xspf or .pls."};
    }
    const auto latest = latestBelow(catalogue, inbox.into);
    RETURN_IF_FAILED(latest);
    const BytePath folder(parentOf(inbox.latest));
    bool isBelow = true;
    for (const auto& [holding, path] : *latest) {
        isBelow = isBelow && isWithin(path, folder);
    }
    std::vector<TargetEntry> entries;
    for (const auto& [holding, path] : *latest) {
        TargetEntry entry;
        entry.place = isBelow ? *relativeTo(path, folder) : path;
        entry.title = holding.tags.title;
        entry.artist = holding.tags.artist;
        entry.album = holding.tags.album;
        entry.seconds = holding.claims.duration;
        entries.push_back(std::move(entry));
    }
    DocketAction action;
    action.change = newList(entries, *format, {}, isBelow, folder);
    const auto there = presenceOf(inbox.latest);
    const auto now =
        there == Presence::there ? wholeFile(inbox.latest, 64U << 20) : Result<std::string>(Error{});
    if (now && *now == action.change) {
        return std::optional<DocketAction>();
    }
    action.kind = there == Presence::gone ? ActionKind::writeList : ActionKind::replaceList;
    action.reason = "the latest arrivals";
    action.added = timeNow();
    action.place = inbox.latest;
    return std::optional(std::move(action));
}

} // namespace sober
