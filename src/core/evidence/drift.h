#pragma once

#include "core/evidence/evidence.h"
#include "core/evidence/file_pass.h"

#include <string_view>

namespace sober {

/// In which way content is no longer what was recorded.
enum class DriftKind {
    tagsEdited = 0,   ///< the audio data are the same
    audioAltered = 1, ///< the same recording, other audio data
    silentChange = 2, ///< the content is another while size and time of writing are not
    truncated = 3,    ///< what is left is the beginning of what was
    replaced = 4,     ///< another recording
    missing = 5,
};

/// "tags-edited"…
std::string_view driftWord(DriftKind kind);

/// What is known of a file's content at one time, as far as drift is concerned.
struct FixityFacts {
    std::uint64_t size = 0;
    Nanoseconds mtime = 0;
    Checksum128 content;
    std::vector<Checksum128> blocks;
    Claims claims;
    Tags tags;
    // From here on known only where it was examined.
    std::optional<Checksum128> payload;
    std::optional<Md5> samples;
    Fingerprint fingerprint;
    double seconds = 0;     ///< as decoded
    bool endsEarly = false; ///< the decode met an end that came too early
};

FixityFacts factsOf(const FileRecord& record);

/// Blocks of 1 MiB, first and last of each run, in which the content differs; blocks past the end of
/// either count.
std::vector<std::pair<std::uint64_t, std::uint64_t>> differingBlocks(std::span<const Checksum128> before,
                                                                     std::span<const Checksum128> now);

/// What happened to a file whose content is another now. Measured facts decide where both sides have them;
/// else size, time, blocks, claims and tags do.
DriftKind driftKindOf(const FixityFacts& before, const FixityFacts& now);

} // namespace sober
