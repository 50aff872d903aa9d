#include "core/audit/refresh_findings.h"

#include "core/audit/better_copies.h"
#include "core/audit/copy_sets.h"
#include "core/catalogue/evidence_store.h"
#include "core/catalogue/findings.h"
#include "core/catalogue/holdings.h"
#include "core/catalogue/search_texts.h"
#include "core/catalogue/volumes.h"

#include <algorithm>
#include <map>
#include <unordered_set>

namespace sober {
namespace {

/// Which holdings are held more than once.
struct SetMembership {
    std::unordered_set<HoldingId> members;
    /// All its fellows are hard links to the same file, so that it is still held once only.
    std::unordered_set<HoldingId> linkedOnly;

    explicit SetMembership(std::span<const FoundSet> sets) {
        for (const auto& [set, ids] : sets) {
            if (set.sameness == Sameness::tagsOnly) {
                continue;
            }
            members.insert(ids.begin(), ids.end());
            if (set.files == 1) {
                linkedOnly.insert(ids.begin(), ids.end());
            }
        }
    }
};

/// The first `depth` folders of a relative path.
BytePath folderAt(const BytePath& path, int depth) {
    std::size_t end = 0;
    for (int level = 0; level < depth; ++level) {
        const auto slash = path.find('/', level == 0 ? 0 : end + 1);
        if (slash == BytePath::npos) {
            break;
        }
        end = slash;
    }
    return path.substr(0, end);
}

/// Which examined holdings have something against them.
struct Suspects {
    std::unordered_set<HoldingId> unsound;
    std::unordered_set<HoldingId> contradicted;
};

Result<Suspects> suspectsOf(const Catalogue& catalogue) {
    const EvidenceStore store(catalogue);
    auto unsound = store.unsound();
    auto contradicted = store.contradicted();
    if (!unsound || !contradicted) {
        return unsound ? contradicted.error() : unsound.error();
    }
    return Suspects{std::move(*unsound), std::move(*contradicted)};
}

template <typename Figures>
void count(Figures& figures, const HoldingOutline& holding, bool inSet, const Suspects& suspects) {
    if (holding.state == HoldingState::missing) {
        ++figures.missing;
        return;
    }
    ++figures.holdings;
    figures.bytes += holding.size;
    figures.troubled += holding.troubled || suspects.unsound.contains(holding.id) ? 1 : 0;
    figures.claims += suspects.contradicted.contains(holding.id) ? 1 : 0;
    figures.inSets += inSet ? 1 : 0;
}

} // namespace

Outcome refreshFindings(const Catalogue& catalogue) {
    if (const auto taken = refreshSearchTexts(catalogue); !taken) {
        return taken;
    }
    const Findings findings(catalogue);
    const auto stale = findings.areStale();
    if (!stale || !*stale) {
        return stale ? done() : Outcome(stale.error());
    }
    const auto volumes = Volumes(catalogue).all();
    RETURN_IF_FAILED(volumes);
    const Holdings holdings(catalogue);

    const auto sets = findCopySets(catalogue, *volumes);
    RETURN_IF_FAILED(sets);
    const SetMembership membership(*sets);

    const auto suspects = suspectsOf(catalogue);
    RETURN_IF_FAILED(suspects);
    std::map<VolumeId, VolumeFigures> byVolume;
    for (const auto& volume : *volumes) {
        byVolume[volume.id].volume = volume.id;
    }
    std::map<std::tuple<VolumeId, int, BytePath>, FolderFigures> byFolder;
    const auto walked = holdings.eachOutline([&](const HoldingOutline& holding) {
        const bool inSet = membership.members.contains(holding.id);
        auto& figures = byVolume[holding.volume];
        count(figures, holding, inSet, *suspects);
        // What cannot be opened needs no examination.
        figures.examined += holding.state == HoldingState::present && holding.troubled ? 1 : 0;
        if (holding.state == HoldingState::present &&
            (!inSet || membership.linkedOnly.contains(holding.id))) {
            ++figures.heldOnce;
        }
        for (int depth = 1; depth <= 2; ++depth) {
            auto folder = folderAt(holding.path, depth);
            auto& entry = byFolder[{holding.volume, depth, folder}];
            entry.volume = holding.volume;
            entry.depth = depth;
            entry.path = std::move(folder);
            count(entry, holding, inSet, *suspects);
        }
    });
    if (!walked) {
        return walked;
    }
    const auto durations = findings.durations();
    RETURN_IF_FAILED(durations);
    for (const auto& [volume, seconds] : *durations) {
        byVolume[volume].duration = seconds;
    }

    const auto examined = EvidenceStore(catalogue).examinedByVolume();
    RETURN_IF_FAILED(examined);
    for (const auto& [volume, count] : *examined) {
        byVolume[volume].examined += count;
    }

    std::vector<VolumeFigures> volumeRows;
    for (const auto& [id, figures] : byVolume) {
        volumeRows.push_back(figures);
    }
    std::vector<FolderFigures> folderRows;
    folderRows.reserve(byFolder.size());
    for (auto& [key, figures] : byFolder) {
        folderRows.push_back(std::move(figures));
    }
    return findings.replace(*sets, volumeRows, folderRows, [&] { return findBetterCopies(catalogue); });
}

} // namespace sober
