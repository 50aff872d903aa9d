#pragma once

#include "core/base/run_control.h"
#include "core/catalogue/catalogue.h"

#include <optional>

namespace sober {

/// The folder that a catalogue is carried along in, below the place that was given.
inline constexpr std::string_view carriedFolderName = "Sober Archivist";

struct CarriedAlong {
    BytePath folder;
    std::uint64_t bytes = 0;
    bool withPackage = false;
    /// What stands beside it of the one before: others put files there, or it has done things that only it
    /// can take back; "" for nothing.
    BytePath leftOver;
};

/// What it takes, about: bytes.
Result<std::uint64_t> carryingNeeds(const Catalogue& catalogue, const std::optional<BytePath>& package);

/// Writes the catalogue with its excerpts, a way to start from there and, where one is given, the program's
/// Debian package into a folder of their own below `place`, on a stick or drive; whole or not at all. What
/// was carried there before is replaced, unless it knows what this catalogue does not (Cause::refused: take
/// it in first). Cause::full where there is no room for it.
Result<CarriedAlong> carryAlong(const Catalogue& catalogue, const BytePath& place,
                                const std::optional<BytePath>& package, RunControl& control,
                                const ProgressSink& onProgress);

} // namespace sober
