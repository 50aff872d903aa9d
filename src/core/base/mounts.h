#pragma once

#include "core/base/file_handle.h"

#include <optional>
#include <span>
#include <string>
#include <vector>

namespace sober {

/// One mounted file system, as /proc/self/mountinfo lists it (proc(5)).
struct Mount {
    BytePath point;
    BytePath rootWithin; ///< what of the file system is mounted there, "/" for all of it
    std::string type;
    BytePath source;
    std::string device; ///< "8:1": one for each file system that is mounted
    std::uint64_t id = 0;
};

/// Mounts from the text of a mountinfo file; lines that make no sense are left out.
std::vector<Mount> parseMountInfo(std::string_view text);

/// The mounts of this machine now.
std::vector<Mount> mountsNow();

/// The same for who asks often: read anew only once something was mounted or unmounted (proc(5) says when).
/// Not for several threads at once.
class MountWatch {
  public:
    /// Stands until the next call.
    std::span<const Mount> now();

  private:
    FileHandle file_; ///< tells that the mounts have changed
    std::vector<Mount> mounts_;
};

/// The mount that a path (absolute, links resolved) lies on.
std::optional<Mount> mountOf(std::span<const Mount> mounts, const BytePath& path);

/// Where a path (absolute, links resolved) lies within its file system, whatever of it is mounted where.
struct InnerPlace {
    std::string device;
    BytePath path; ///< absolute within the file system
    bool operator==(const InnerPlace&) const = default;
};
std::optional<InnerPlace> innerPlaceOf(std::span<const Mount> mounts, const BytePath& path);

} // namespace sober
