#pragma once

#include "core/base/result.h"

#include <optional>
#include <string>
#include <string_view>

namespace sober {

/// What makes `text` of `before`, which has to be at hand again for it to be had back (zstd, RFC 8878, with
/// `before` as its prefix). A list of ten megabytes of which a line is another comes to some hundred bytes.
/// Nothing where there is no memory for it.
std::optional<std::string> differenceFrom(std::string_view before, std::string_view text);

/// Nothing where the difference is not one from this text.
std::optional<std::string> withDifference(std::string_view before, std::string_view difference);

} // namespace sober
