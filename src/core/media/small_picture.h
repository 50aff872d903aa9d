#pragma once

#include "core/base/result.h"

#include <string>
#include <string_view>

namespace sober {

/// A picture in rows of red, green, blue and opacity, a byte each.
struct SmallPicture {
    int width = 0;
    int height = 0;
    std::string pixels;
};

/// Decodes a picture (JPEG, PNG, GIF, BMP or WebP) and makes it fit into a square of so many pixels.
Result<SmallPicture> smallPictureOf(std::string_view bytes, int mostPixels);

/// The same as JPEG (ITU-T T.81), for a tag.
Result<std::string> jpegOf(std::string_view bytes, int mostPixels);

} // namespace sober
