#pragma once

#include "core/base/drive_use.h"
#include "core/base/run_control.h"
#include "core/catalogue/catalogue.h"

namespace sober {

/// A drive, or a file in its place, onto which an image may be written.
struct WriteTarget {
    BytePath path;
    std::string label; ///< of the file system on it; of what has none its own name
    std::uint64_t bytes = 0;
    DriveUse use;
    std::string whyNot; ///< it may not; "" where it may
};

/// Looks at what would be written over. A file has to be there already, and no recording of the collection.
Result<WriteTarget> lookAtTarget(const Catalogue& catalogue, const BytePath& path);

struct ImageWriting {
    BytePath image;  ///< absolute
    BytePath target; ///< absolute
    /// What the custodian has typed: that has to be the target's label and its size in bytes.
    std::string typedLabel = {};
    std::uint64_t typedBytes = 0;
};

struct WrittenImage {
    std::uint64_t bytes = 0;
    std::uint64_t unread = 0; ///< of those, zeros that stand for what is not in the image
};

/// Writes an image over all that is on a drive, flushes it, reads it back and compares. Only onto what nobody
/// uses (the kernel is asked to keep it so), that is not the system's, is as large, and whose label and size
/// were typed. There is no way back: the ledger says that it was begun and how it ended, and takes nothing
/// back. Stopped or failed, the Error says how far it came.
Result<WrittenImage> writeImage(Catalogue& catalogue, const ImageWriting& request, RunControl& control,
                                const ProgressSink& onProgress);

} // namespace sober
