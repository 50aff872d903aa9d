#include "core/audit/refresh_findings.h"

#include "core/audit/better_copies.h"
#include "core/catalogue/evidence_store.h"
#include "core/catalogue/findings.h"
#include "core/catalogue/holdings.h"
#include "core/catalogue/volumes.h"

#include <algorithm>
#include <map>
#include <set>
#include <unordered_map>
#include <unordered_set>

namespace sober {
namespace {

/// Hard links have the same inode on the same file system, told by UUID or else by volume.
using FileIdentity = std::pair<std::string, std::uint64_t>;

class SetBuilder {
  public:
    explicit SetBuilder(std::span<const Volume> volumes) {
        for (const auto& volume : volumes) {
            const auto& uuid = volume.identity.filesystem;
            filesystems_[volume.id] = uuid.empty() ? "volume " + std::to_string(volume.id) : uuid;
            atHand_[volume.id] = volume.atHand;
        }
    }

    void visit(const Duplicated& row) {
        if (!run_.empty() && (run_.front().checksum != row.checksum || run_.front().size != row.size)) {
            endRun();
        }
        run_.push_back(row);
    }

    void endRun() {
        if (run_.size() < 2) {
            run_.clear();
            return;
        }
        std::set<FileIdentity> files;
        std::set<FileIdentity> filesAtHand;
        std::set<VolumeId> volumes;
        for (const auto& row : run_) {
            const FileIdentity file = row.links > 1
                                          ? FileIdentity{filesystems_[row.volume], row.inode}
                                          : FileIdentity{"holding", static_cast<std::uint64_t>(row.id)};
            files.insert(file);
            volumes.insert(row.volume);
            if (atHand_[row.volume]) {
                filesAtHand.insert(file);
            }
        }
        CopySet set;
        set.checksum = run_.front().checksum;
        set.size = run_.front().size;
        set.members = run_.size();
        set.files = files.size();
        set.volumes = volumes.size();
        set.reclaimable = filesAtHand.empty() ? 0 : set.size * (filesAtHand.size() - 1);
        for (const auto& row : run_) {
            members_.insert(row.id);
            if (set.files == 1) {
                linkedOnly_.insert(row.id);
            }
        }
        sets_.push_back(set);
        run_.clear();
    }

    const std::vector<CopySet>& sets() const { return sets_; }
    bool isMember(HoldingId id) const { return members_.contains(id); }
    /// All its fellows are hard links to the same file, so that it is still held once only.
    bool isLinkedOnly(HoldingId id) const { return linkedOnly_.contains(id); }

  private:
    std::unordered_map<VolumeId, std::string> filesystems_;
    std::unordered_map<VolumeId, bool> atHand_;
    std::vector<Duplicated> run_;
    std::vector<CopySet> sets_;
    std::unordered_set<HoldingId> members_;
    std::unordered_set<HoldingId> linkedOnly_;
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
    const Findings findings(catalogue);
    const auto stale = findings.areStale();
    if (!stale || !*stale) {
        return stale ? done() : Outcome(stale.error());
    }
    const auto volumes = Volumes(catalogue).all();
    if (!volumes) {
        return volumes.error();
    }
    const Holdings holdings(catalogue);

    SetBuilder builder(*volumes);
    if (const auto walked = holdings.eachDuplicated([&](const Duplicated& row) { builder.visit(row); });
        !walked) {
        return walked;
    }
    builder.endRun();

    const auto suspects = suspectsOf(catalogue);
    if (!suspects) {
        return suspects.error();
    }
    std::map<VolumeId, VolumeFigures> byVolume;
    for (const auto& volume : *volumes) {
        byVolume[volume.id].volume = volume.id;
    }
    std::map<std::tuple<VolumeId, int, BytePath>, FolderFigures> byFolder;
    const auto walked = holdings.eachOutline([&](const HoldingOutline& holding) {
        const bool inSet = builder.isMember(holding.id);
        auto& figures = byVolume[holding.volume];
        count(figures, holding, inSet, *suspects);
        // What cannot be opened needs no examination.
        figures.examined += holding.state == HoldingState::present && holding.troubled ? 1 : 0;
        if (holding.state == HoldingState::present && (!inSet || builder.isLinkedOnly(holding.id))) {
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
    if (!durations) {
        return durations.error();
    }
    for (const auto& [volume, seconds] : *durations) {
        byVolume[volume].duration = seconds;
    }

    const auto examined = EvidenceStore(catalogue).examinedByVolume();
    if (!examined) {
        return examined.error();
    }
    for (const auto& [volume, count] : *examined) {
        byVolume[volume].examined += count;
    }
    if (const auto found = findBetterCopies(catalogue); !found) {
        return found;
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
    return findings.replace(builder.sets(), volumeRows, folderRows);
}

} // namespace sober
