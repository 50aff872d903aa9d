#pragma once

#include "core/base/paths.h"
#include "core/evidence/checksums.h"
#include "core/media/tag_fields.h"

#include <optional>
#include <string>
#include <string_view>

namespace sober {

/// What takes a holding's place, as it was when the two were compared: the docket keeps it with the action.
struct Replacement {
    BytePath source;     ///< absolute
    Checksum128 content; ///< of the whole file
    Checksum128 payload; ///< of its audio data
    std::uint64_t size = 0;
    TagChange tags;         ///< written into the new file
    std::string acceptance; ///< why the holding was kept as it is, if it was; noted of the new file too
};

std::string packReplacement(const Replacement& replacement);
/// Nothing from bytes that are none.
std::optional<Replacement> unpackReplacement(std::string_view packed);

} // namespace sober
