#include "core/audit/reference_findings.h"

#include "core/audit/set_choice.h"
#include "core/base/inner_path.h"
#include "core/base/text.h"
#include "core/base/user_folders.h"
#include "core/catalogue/volumes.h"
#include "core/players/list_rewriting.h"

#include <fmt/format.h>

#include <algorithm>
#include <fnmatch.h>
#include <map>
#include <set>

namespace sober {
namespace {

/// Where references to one copy had better lead, and why.
struct BetterCopy {
    BytePath path;
    std::string why;
};

class Keepers {
  public:
    Keepers(const Catalogue& catalogue, std::span<const Volume> volumes)
        : catalogue_(catalogue), volumes_(volumes) {}

    /// Nothing where the holding is to be kept, or nothing else is.
    Result<std::optional<BetterCopy>> insteadOf(HoldingId holding) {
        const auto set = Findings(catalogue_).setOf(holding);
        RETURN_IF_FAILED(set);
        if (!*set || (*set)->sameness == Sameness::tagsOnly) {
            return std::optional<BetterCopy>();
        }
        auto known = details_.find((*set)->id);
        if (known == details_.end()) {
            auto detail = detailOf(catalogue_, **set, volumes_);
            RETURN_IF_FAILED(detail);
            known = details_.emplace((*set)->id, std::move(*detail)).first;
        }
        return better(known->second, holding);
    }

  private:
    std::optional<BetterCopy> better(const SetDetail& detail, HoldingId holding) const {
        std::optional<HoldingId> keeper = detail.decision.keeper;
        bool goes = keeper.has_value() && *keeper != holding;
        for (std::size_t i = 0; i < detail.members.size() && !detail.decision.keeper; ++i) {
            if (detail.advice[i].advice == Advice::keep) {
                keeper = detail.members[i].id;
            }
            goes = goes || (detail.members[i].id == holding && detail.advice[i].advice == Advice::retire);
        }
        const auto kept =
            keeper ? std::ranges::find(detail.members, *keeper, &Holding::id) : detail.members.end();
        if (!goes || kept == detail.members.end() || isInsideArchive(kept->path)) {
            return std::nullopt;
        }
        const auto volume = std::ranges::find(volumes_, kept->volume, &Volume::id);
        return volume == volumes_.end()
                   ? std::nullopt
                   : std::optional(
                         BetterCopy{joinPath(volume->root, kept->path),
                                    fmt::format("the copy {} is {} on {}",
                                                detail.decision.keeper ? "that you keep" : "to keep",
                                                displayPath(kept->path), volume->label)});
    }

    const Catalogue& catalogue_;
    std::span<const Volume> volumes_;
    std::map<SetId, SetDetail> details_;
};

bool isOnCard(const Volume& volume) {
    const auto& type = volume.identity.filesystemType;
    return type == "vfat" || type == "exfat" || type == "msdos";
}

} // namespace

std::string_view word(ReferenceTrouble trouble) {
    switch (trouble) {
    case ReferenceTrouble::passing:
        return "passing-place";
    case ReferenceTrouble::loosely:
        return "resolves-loosely";
    case ReferenceTrouble::notKeeper:
        return "not-the-keeper";
    case ReferenceTrouble::twice:
        break;
    }
    return "twice";
}

std::optional<std::string> whyPassing(const BytePath& path, std::span<const Volume> volumes,
                                      std::span<const std::string> patterns, const BytePath& home) {
    BytePath held = path;
    const auto volume =
        std::ranges::find_if(volumes, [&](const Volume& each) { return isWithin(path, each.root); });
    if (volume != volumes.end()) {
        held = joinPath("/", *relativeTo(path, volume->root));
    } else if (const BytePath homes(parentOf(home));
               homes.size() > 1 && isWithin(path, homes) && !isWithin(path, home)) {
        return "in the home of another user";
    }
    for (const auto& pattern : patterns) {
        if (fnmatch(pattern.c_str(), held.c_str(), FNM_CASEFOLD) == 0) {
            return fmt::format("in a place that does not last ({})", pattern);
        }
    }
    return std::nullopt;
}

Result<std::vector<TroubledReference>> referenceFindings(const Catalogue& catalogue) {
    const PlayerStore store(catalogue);
    const auto volumes = Volumes(catalogue).all();
    const auto lists = store.lists();
    const auto references = store.references();
    const auto patterns = store.passingPlaces();
    const auto players = store.all();
    if (!volumes || !lists || !players) {
        return !volumes ? volumes.error() : !lists ? lists.error() : players.error();
    }
    if (!references || !patterns) {
        return references ? patterns.error() : references.error();
    }
    std::map<ListFileId, const ListFile*> listOf;
    for (const auto& each : *lists) {
        listOf.emplace(each.id, &each);
    }
    Keepers keepers(catalogue, *volumes);
    const auto home = homeFolder();
    std::vector<TroubledReference> found;
    std::map<BytePath, std::size_t> met; // the first entry of the present list that leads to a path
    ListFileId list = 0;
    for (const auto& reference : *references) {
        if (reference.list != list) {
            met.clear();
            list = reference.list;
        }
        if (reference.state == ReferenceState::loosely) {
            found.push_back({ReferenceTrouble::loosely, reference,
                             fmt::format("the file is named {}", displayPath(nameOf(reference.path))),
                             reference.path});
        }
        if (reference.state != ReferenceState::resolved && reference.state != ReferenceState::loosely) {
            continue;
        }
        if (auto why = whyPassing(reference.path, *volumes, *patterns, home)) {
            found.push_back({ReferenceTrouble::passing, reference, std::move(*why), {}});
        } else if (const auto volume = std::ranges::find_if(
                       *volumes, [&](const Volume& each) { return isWithin(reference.path, each.root); });
                   volume != volumes->end() && isOnCard(*volume) &&
                   !isWithin(listOf[list]->path, volume->root)) {
            found.push_back({ReferenceTrouble::passing,
                             reference,
                             fmt::format("on the card {}, which is not always there", volume->label),
                             {}});
        }
        const auto [first, isNew] = met.emplace(reference.path, reference.entry);
        if (!isNew) {
            found.push_back({ReferenceTrouble::twice,
                             reference,
                             fmt::format("it is entry {} of the list already", first->second + 1),
                             {}});
        }
        if (reference.holding != 0) {
            auto better = keepers.insteadOf(reference.holding);
            RETURN_IF_FAILED(better);
            const bool canReach =
                *better && locationLeadingTo((*better)->path, reference.path, reference.location,
                                             *listOf[list], contextOf(*listOf[list], *players), *volumes);
            if (canReach) {
                found.push_back({ReferenceTrouble::notKeeper, reference, std::move((*better)->why),
                                 std::move((*better)->path)});
            }
        }
    }
    return found;
}

} // namespace sober
