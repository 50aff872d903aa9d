#pragma once

#include "core/base/file_handle.h"
#include "core/base/paths.h"
#include "core/base/times.h"
#include "core/evidence/checksums.h"
#include "core/evidence/file_pass.h"
#include "core/media/probe.h"

#include <algorithm>
#include <cstdint>
#include <optional>
#include <string>
#include <vector>

namespace sober {

using VolumeId = std::int64_t;
using HoldingId = std::int64_t;
using EntryId = std::int64_t;

/// What a survey of a volume takes in; kept with the volume and used again. 0 means "no limit".
struct SurveyChoices {
    bool leaveHidden = false;
    std::vector<std::string> leavePatterns; ///< shell patterns, held against name and relative path
    std::uint64_t minSize = 0;
    std::uint64_t maxSize = 0;
    int maxDepth = 0; ///< 1 takes only what lies directly in the root
    bool followLinks = false;
    bool lookInside = false;   ///< into archives
    bool keepExcerpts = false; ///< at full effort

    bool operator==(const SurveyChoices&) const = default;
};

/// What tells a volume from another wherever it is mounted.
struct VolumeIdentity {
    std::string filesystem; ///< file system UUID, "" where there is none to be had
    BytePath within;        ///< the root relative to the file system's own top
    std::uint64_t rootInode = 0;
    std::string filesystemType; ///< "ext4", "vfat", … as the kernel names it

    bool operator==(const VolumeIdentity&) const = default;
};

struct Volume {
    VolumeId id = 0; ///< its running number too, to be written on the drive: never given to another
    std::string label;
    BytePath root;
    VolumeIdentity identity;
    SurveyChoices choices;
    Effort effort = Effort::index;
    bool atHand = true;          ///< as last looked at
    std::uint64_t capacity = 0;  ///< bytes, as last looked at
    std::uint64_t available = 0; ///< bytes
    Nanoseconds surveyedAt = 0;  ///< 0: no survey was finished yet
    Nanoseconds awaySince = 0;   ///< when it was first found away; 0: at hand, or not known
    /// Folders (relative) at which other file systems were mounted that are not there now.
    std::vector<BytePath> awayWithin;

    /// Whether a holding's place on it can be looked at now.
    bool reaches(const BytePath& path) const {
        return atHand && std::ranges::none_of(awayWithin,
                                              [&](const BytePath& folder) { return isWithin(path, folder); });
    }
};

enum class HoldingState {
    leftOut = -1, ///< the choices kept with its volume leave it out; it was there when it last was looked at
    present = 0,
    missing = 1,
    writtenOff = 2,
    retired = 3,
    forgotten = 4, ///< its volume was forgotten; only what the ledger says of it is left
};

/// As the command prints it.
std::string_view stateWord(HoldingState state);

struct Holding {
    HoldingId id = 0;
    VolumeId volume = 0;
    BytePath path; ///< relative to the volume's root
    HoldingState state = HoldingState::present;
    std::uint64_t size = 0;
    Nanoseconds mtime = 0;
    Nanoseconds ctime = 0;
    std::uint64_t inode = 0;
    std::uint64_t links = 1; ///< 0: it lies inside an archive (inner_path.h)
    Checksum128 checksum;
    std::optional<Sha256> sha256;
    Claims claims;
    Tags tags;
    FilingTags filing;
    std::string problem;
    Nanoseconds firstSeen = 0;
    Nanoseconds lastSeen = 0; ///< set once it is no longer present: when it was last known to be there
};

} // namespace sober
