#pragma once

#include "core/base/run_control.h"
#include "core/catalogue/catalogue.h"

#include <optional>

namespace sober {

/// The folder that a catalogue is carried along in, below the place that was given.
inline constexpr std::string_view carriedFolderName = "Sober Archivist";

/// What goes along beside the catalogue and its excerpts, so that it can be opened there.
struct CarriedMeans {
    bool program = false;            ///< the program as it runs here, with what it needs
    std::optional<BytePath> package; ///< its Debian package, to be installed there
};

struct CarriedAlong {
    BytePath folder;
    std::uint64_t bytes = 0;
    bool withProgram = false;
    bool withPackage = false;
    /// What stands beside it of the one before: others put files there, or it has begun what only it can
    /// end; "" for nothing.
    BytePath leftOver;
};

/// What it takes, about: bytes.
struct CarryingNeeds {
    std::uint64_t catalogue = 0; ///< with its excerpts
    std::uint64_t program = 0;   ///< 0 where it cannot go along
};
Result<CarryingNeeds> carryingNeeds(const Catalogue& catalogue);

/// Writes the catalogue with its excerpts, a way to start from there and the means that were chosen into a
/// folder of their own below `place`, on a stick or drive; whole or not at all. What was carried there before
/// is replaced, unless it knows what this catalogue does not (Cause::refused: take it in first). Cause::full
/// where there is no room for it.
Result<CarriedAlong> carryAlong(const Catalogue& catalogue, const BytePath& place, const CarriedMeans& means,
                                RunControl& control, const ProgressSink& onProgress);

} // namespace sober
