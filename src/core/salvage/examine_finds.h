#pragma once

#include "core/base/run_control.h"
#include "core/catalogue/salvage_store.h"
#include "core/media/image_files.h"

#include <functional>
#include <span>

namespace sober {

/// An image whose finds are examined.
struct ExaminedImage {
    const OpenedImage& image;
    const BytePath& path;
    std::span<const ByteRange> unread; ///< what is not in it
};

/// Examines finds in worker processes, one on each processor, and takes down what that shows and as what it
/// recognises each. A name whose content is no audio is removed. Stopped, the others stay as they are.
/// `onExamined` hears after each of how many there are now, and of their bytes, on any thread and one call at
/// a time. A find that cannot be examined is taken down as such; an Error is the catalogue's.
Outcome examineFinds(const Catalogue& catalogue, const ExaminedImage& image, const std::vector<Find*>& finds,
                     RunControl& control,
                     const std::function<void(std::uint64_t, std::uint64_t)>& onExamined);

} // namespace sober
