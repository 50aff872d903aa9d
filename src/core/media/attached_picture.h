#pragma once

#include "core/media/byte_source.h"

#include <string>

namespace sober {

/// The first picture in a file's tags, as it stands there; "" where there is none or it is very large.
std::string attachedPictureOf(ByteSource& source);

} // namespace sober
