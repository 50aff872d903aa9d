#include "core/work/succeed_volume.h"

#include "core/base/mounts.h"
#include "core/base/text.h"
#include "core/catalogue/holdings.h"
#include "core/catalogue/volume_leaving.h"
#include "core/catalogue/volumes.h"
#include "core/survey/volume_identity.h"

#include <fmt/format.h>

#include <algorithm>
#include <unordered_map>

namespace sober {

Result<Succession> compareWith(const Catalogue& catalogue, const Volume& volume, const BytePath& folder) {
    Succession succession;
    const auto walked = Holdings(catalogue).eachPresent([&](PresentHolding&& holding) {
        if (holding.volume != volume.id) {
            return;
        }
        const auto stamp = stampAt(joinPath(folder, holding.path));
        succession.add(holding.size, stamp ? std::optional(stamp->size) : std::nullopt);
    });
    return walked ? Result<Succession>(succession) : walked.error();
}

namespace {

/// How what is catalogued of another volume compares with what is catalogued of this one.
Result<Succession> compareCatalogued(const Catalogue& catalogue, const Volume& volume, const Volume& former) {
    Succession succession;
    std::unordered_map<BytePath, std::uint64_t> known;
    std::vector<std::pair<BytePath, std::uint64_t>> there;
    const auto walked = Holdings(catalogue).eachPresent([&](PresentHolding&& holding) {
        if (holding.volume == volume.id) {
            known.emplace(std::move(holding.path), holding.size);
        } else if (holding.volume == former.id) {
            there.emplace_back(std::move(holding.path), holding.size);
        }
    });
    for (const auto& [path, size] : there) {
        const auto same = known.find(path);
        succession.add(size, same != known.end() ? std::optional(same->second) : std::nullopt);
    }
    return walked ? Result<Succession>(succession) : walked.error();
}

} // namespace

Result<Succession> succeedVolume(const Catalogue& catalogue, const Volume& volume, const BytePath& folder) {
    const auto root = realPathOf(folder);
    const auto volumes = Volumes(catalogue).all();
    if (!root || !volumes) {
        return root ? volumes.error()
                    : Error{Cause::notFound, folder, "There is no folder " + displayPath(folder) + "."};
    }
    const auto refuse = [&](const std::string& why) {
        return refusedError(
            *root, fmt::format("{} cannot take the place of {}: {}.", displayPath(*root), volume.label, why));
    };
    if (volume.atHand && *root == volume.root) {
        return refuse("it is that volume");
    }
    const Volume* former = nullptr;
    for (const auto& other : *volumes) {
        if (other.id == volume.id && !volume.atHand) {
            continue;
        }
        if (other.root == *root) {
            former = &other;
        } else if (other.atHand && (isWithin(*root, other.root) || isWithin(other.root, *root))) {
            return refuse(fmt::format("it lies within or around {}", other.label));
        }
    }
    const auto succession = compareWith(catalogue, volume, *root);
    if (!succession) {
        return succession;
    }
    if (!succession->isLikely()) {
        return refuse(fmt::format("of {} only {} there at the same place with the same size",
                                  counted(succession->holdings, "holding"),
                                  counted(succession->there, "stands", "stand")));
    }
    if (former != nullptr) {
        // A volume in its own right is not forgotten because it holds what another one holds too.
        const auto own = compareCatalogued(catalogue, volume, *former);
        const auto leaving = leavingOf(catalogue, former->id);
        if (!own || !leaving) {
            return own ? leaving.error() : own.error();
        }
        if ((own->holdings > 0 && !own->isLikely()) || leaving->canBeUndone > 0) {
            return refuse(
                fmt::format("{} is catalogued there with holdings or a history of its own", former->label));
        }
    }
    const auto mounts = mountsNow();
    auto now = volume;
    now.root = *root;
    now.identity = identityOf(*root, mounts);
    now.atHand = true;
    measureSpace(now);
    const auto changed = catalogue.together([&] {
        if (former != nullptr) {
            if (auto forgotten = forgetVolume(catalogue, *former); !forgotten) {
                return forgotten;
            }
        }
        return Volumes(catalogue).update(now);
    });
    return changed ? succession : changed.error();
}

} // namespace sober
