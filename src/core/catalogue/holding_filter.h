#pragma once

#include "core/catalogue/records.h"

#include <vector>

namespace sober {

/// Which holdings are meant: what a standing list keeps and what every desk can be narrowed to.
struct HoldingFilter {
    enum class Kind {
        any,
        lossless,
        lossy,
    };
    std::string text; ///< part of the path, title, artist or album; "" for all
    std::optional<VolumeId> volume;
    BytePath folder; ///< relative to the volume's root, with all below it; only with `volume`
    std::string codec;
    Kind kind = Kind::any;
    std::vector<VerdictClass> verdicts; ///< none: all, those that were never examined too
    bool underLimit = false;            ///< lossy, below the bitrate set for its codec
    bool betterElsewhere = false;       ///< a better copy is known on another volume
    /// Where verdicts or the limit are asked for: those that were accepted as they are, too.
    bool acceptedToo = false;

    bool operator==(const HoldingFilter&) const = default;
};

/// As one line of JSON, for the catalogue.
std::string textOf(const HoldingFilter& filter);
/// Nothing where the text is no filter.
std::optional<HoldingFilter> filterFrom(const std::string& text);

} // namespace sober
