#pragma once

#include "core/base/run_control.h"
#include "core/media/image_files.h"

#include <memory>

namespace sober {

/// Opens an image or a drive; what is compressed is measured, in the cage. Cause::invalid where that was
/// compressed as one stream.
Result<OpenedImage> openMeasured(const BytePath& path, RunControl& control);

/// The bytes of an opened image and of what lends to it; those of a compressed one are unpacked in a worker
/// of their own. The image has to outlive it.
std::unique_ptr<ByteSource> bytesOf(const OpenedImage& image, const BytePath& path);

} // namespace sober
