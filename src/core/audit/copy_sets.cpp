#include "core/audit/copy_sets.h"

#include "core/audit/sameness.h"
#include "core/audit/weak_joins.h"
#include "core/base/text.h"
#include "core/catalogue/evidence_store.h"
#include "core/catalogue/holdings.h"
#include "core/catalogue/recording_pairs.h"

#include <algorithm>
#include <map>
#include <set>
#include <unordered_map>

namespace sober {
namespace {

/// Hard links have the same inode on the same file system, told by UUID or else by volume.
using FileIdentity = std::pair<std::string, std::uint64_t>;

/// One holding as far as sets are concerned.
struct Member {
    HoldingId id = 0;
    VolumeId volume = 0;
    Checksum128 content;
    std::uint64_t size = 0;
    std::uint64_t inode = 0;
    std::uint64_t links = 1;
};

/// A content: one set of bytes, with what was measured of it.
struct Content {
    Checksum128 checksum;
    std::vector<Member> members;
    std::optional<ComparableHolding> measured;
};

class SetFinder {
  public:
    SetFinder(const Catalogue& catalogue, std::span<const Volume> volumes) : catalogue_(catalogue) {
        for (const auto& volume : volumes) {
            const auto& uuid = volume.identity.filesystem;
            filesystems_[volume.id] = uuid.empty() ? "volume " + std::to_string(volume.id) : uuid;
            atHand_[volume.id] = volume.atHand;
        }
    }

    Result<std::vector<FoundSet>> find() {
        RETURN_IF_FAILED(gather());
        Groups groups(contents_.size());
        joinAlike(groups, Sameness::payload, [](const ComparableHolding& measured) {
            return std::optional(std::string(measured.payload.bytes.begin(), measured.payload.bytes.end()));
        });
        joinAlike(groups, Sameness::samples, [](const ComparableHolding& measured) {
            // Silence of one length is no recording that is held twice.
            return measured.samples && !measured.silent
                       ? std::optional(std::string(measured.samples->begin(), measured.samples->end()))
                       : std::nullopt;
        });
        RETURN_IF_FAILED(joinPairs(groups));
        collect(groups);
        addAlikeTags(groups);
        return std::move(sets_);
    }

  private:
    Outcome gather() {
        const auto walked = Holdings(catalogue_).eachDuplicated([&](const Duplicated& row) {
            contentFor(row.checksum)
                .members.push_back({row.id, row.volume, row.checksum, row.size, row.inode, row.links});
        });
        if (!walked) {
            return walked;
        }
        return EvidenceStore(catalogue_).eachComparable([&](const ComparableHolding& measured) {
            auto& content = contentFor(measured.content);
            if (content.members.empty()) {
                content.members.push_back({measured.holding, measured.volume, measured.content, measured.size,
                                           0, measured.isInside ? 0U : 1U});
            }
            if (!content.measured) {
                content.measured = measured;
            }
        });
    }

    Content& contentFor(const Checksum128& checksum) {
        const auto [place, isNew] = byChecksum_.try_emplace(checksum, contents_.size());
        if (isNew) {
            contents_.push_back({checksum, {}, std::nullopt});
        }
        return contents_[place->second];
    }

    template <typename KeyOf>
    void joinAlike(Groups& groups, Sameness link, KeyOf keyOf) {
        std::unordered_map<std::string, std::size_t> first;
        for (std::size_t at = 0; at < contents_.size(); ++at) {
            if (!contents_[at].measured) {
                continue;
            }
            if (const auto key = keyOf(*contents_[at].measured)) {
                const auto [place, isNew] = first.try_emplace(*key, at);
                if (!isNew) {
                    groups.join(place->second, at, link);
                }
            }
        }
    }

    Outcome joinPairs(Groups& groups) {
        const auto pairs = RecordingPairs(catalogue_).all();
        RETURN_IF_FAILED(pairs);
        std::map<Checksum128, std::size_t> byPayload;
        for (std::size_t at = 0; at < contents_.size(); ++at) {
            if (contents_[at].measured) {
                byPayload.try_emplace(contents_[at].measured->payload, at);
            }
        }
        std::vector<WeakLink> weak;
        for (const auto& pair : *pairs) {
            const auto a = byPayload.find(pair.first);
            const auto b = byPayload.find(pair.second);
            if (a == byPayload.end() || b == byPayload.end()) {
                continue;
            }
            const double firstSeconds = contents_[a->second].measured->duration;
            const double secondSeconds = contents_[b->second].measured->duration;
            const auto link = samenessOf(pair, firstSeconds, secondSeconds);
            if (link == Sameness::lossyCopy) {
                groups.join(a->second, b->second, *link);
            } else if (link) {
                const auto& comparison = pair.comparison;
                weak.push_back({a->second, b->second, *link,
                                comparison ? comparison->agreeing : 1 - pair.bitErrors,
                                comparison ? comparison->offset : pair.offset, firstSeconds, secondSeconds});
            }
        }
        WeakJoins joins(std::move(weak), groups, contents_.size());
        for (std::size_t at = 0; at < contents_.size(); ++at) {
            if (joins.isLed(groups.rootOf(at))) {
                weaklyJoined_.insert(at);
            }
        }
        for (const auto& [lead, follows, link] : joins.made()) {
            groups.join(lead, follows, link);
        }
        return done();
    }

    void collect(Groups& groups) {
        std::map<std::size_t, std::vector<std::size_t>> byRoot;
        for (std::size_t at = 0; at < contents_.size(); ++at) {
            byRoot[groups.rootOf(at)].push_back(at);
        }
        for (const auto& [root, contents] : byRoot) {
            std::size_t members = 0;
            for (const auto at : contents) {
                members += contents_[at].members.size();
            }
            if (members >= 2) {
                sets_.push_back(setOf(contents, groups.weakest(root)));
            }
        }
    }

    FoundSet setOf(const std::vector<std::size_t>& contents, Sameness sameness) {
        FoundSet found;
        std::map<FileIdentity, std::uint64_t> filesAtHand;
        std::set<FileIdentity> files;
        std::set<VolumeId> volumes;
        std::vector<Checksum128> checksums;
        for (const auto at : contents) {
            const auto& content = contents_[at];
            checksums.push_back(content.checksum);
            found.set.doubt = found.set.doubt || (content.measured && isDoubtful(*content.measured));
            for (const auto& member : content.members) {
                const FileIdentity file =
                    member.links > 1 ? FileIdentity{filesystems_[member.volume], member.inode}
                                     : FileIdentity{"holding", static_cast<std::uint64_t>(member.id)};
                files.insert(file);
                volumes.insert(member.volume);
                // Other masters and parts are not what one copy makes superfluous, and archives stay as they
                // are.
                if (atHand_[member.volume] && !weaklyJoined_.contains(at) && member.links > 0) {
                    filesAtHand[file] = member.size;
                }
                found.members.push_back(member.id);
                found.set.size = std::max(found.set.size, member.size);
            }
        }
        std::ranges::sort(checksums);
        found.set.content = checksums.size() == 1 ? checksums.front() : checksumOfAll(checksums);
        found.set.sameness = sameness;
        found.set.members = found.members.size();
        found.set.files = files.size();
        found.set.volumes = volumes.size();
        std::uint64_t most = 0;
        for (const auto& [file, size] : filesAtHand) {
            found.set.reclaimable += size;
            most = std::max(most, size);
        }
        found.set.reclaimable -= most;
        return found;
    }

    static bool isDoubtful(const ComparableHolding& measured) {
        return !measured.sound || measured.verdict == VerdictClass::doubtful ||
               measured.verdict == VerdictClass::transcoded;
    }

    static Checksum128 checksumOfAll(std::span<const Checksum128> checksums) {
        RunningChecksum sum;
        for (const auto& checksum : checksums) {
            sum.feed(checksum.bytes);
        }
        return sum.finish();
    }

    /// Same artist and title, yet no link: listed apart, never suggested for retiring.
    void addAlikeTags(Groups& groups) {
        std::map<std::pair<std::string, std::string>, std::vector<std::size_t>> byTags;
        for (std::size_t at = 0; at < contents_.size(); ++at) {
            const auto& measured = contents_[at].measured;
            if (measured && measured->tagged && !measured->artist.empty()) {
                byTags[{lettersAndDigits(measured->artist), lettersAndDigits(measured->title)}].push_back(at);
            }
        }
        for (const auto& [tags, contents] : byTags) {
            std::vector<std::size_t> apart;
            std::set<std::size_t> roots;
            for (const auto at : contents) {
                if (roots.insert(groups.rootOf(at)).second) {
                    apart.push_back(at);
                }
            }
            if (apart.size() >= 2) {
                auto found = setOf(apart, Sameness::tagsOnly);
                found.set.reclaimable = 0;
                sets_.push_back(std::move(found));
            }
        }
    }

    const Catalogue& catalogue_;
    std::unordered_map<VolumeId, std::string> filesystems_;
    std::unordered_map<VolumeId, bool> atHand_;
    std::map<Checksum128, std::size_t> byChecksum_;
    std::vector<Content> contents_;
    std::set<std::size_t> weaklyJoined_; ///< contents that are another master or a part of a set's main one
    std::vector<FoundSet> sets_;
};

} // namespace

Result<std::vector<FoundSet>> findCopySets(const Catalogue& catalogue, std::span<const Volume> volumes) {
    return SetFinder(catalogue, volumes).find();
}

} // namespace sober
