#pragma once

#include "core/base/result.h"

#include <cstdint>
#include <optional>

namespace sober {

/// The first place from which two files differ, with what stands around it in each.
struct ByteDifference {
    std::uint64_t at = 0;     ///< of the first byte that differs
    std::uint64_t begins = 0; ///< of the bytes below; a multiple of 16
    std::string first;        ///< up to `around` bytes; shorter at a file's end
    std::string second;

    static constexpr std::size_t around = 96;
};

/// Looks from byte `from` on, up to 1 MiB; nothing where both are the same there.
Result<std::optional<ByteDifference>> firstDifference(const BytePath& first, const BytePath& second,
                                                      std::uint64_t from);

} // namespace sober
