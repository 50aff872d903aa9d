#pragma once

#include "core/base/run_control.h"
#include "core/salvage/image_map.h"

namespace sober {

struct ImagingRequest {
    BytePath source;      ///< absolute: a drive or a file
    BytePath image;       ///< absolute
    BytePath map = {};    ///< absolute; "": beside the image
    unsigned retries = 1; ///< of every sector that could not be read
};

/// Reads a source into an image: in large steps, around what cannot be read; then into that from both ends;
/// then sector by sector; then again what failed. What is in the image is written down in a map beside it,
/// once it was flushed: killed, stopped, or with the source gone, it goes on there when it is called again.
/// Called with another source of the same size it reads from that what the first could not give. The source
/// is only read. Refuses where something stands at the image that no map of ours is about, where there is no
/// room, and onto the source itself.
/// `onMap` hears of the map whenever that was written.
Result<ImageMap> makeImage(
    const ImagingRequest& request, RunControl& control, const ProgressSink& onProgress,
    const std::function<void(const ImageMap&)>& onMap = [](const ImageMap&) {});

} // namespace sober
