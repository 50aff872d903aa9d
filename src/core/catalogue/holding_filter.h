#pragma once

#include "core/catalogue/records.h"

#include <optional>
#include <vector>

namespace sober {

/// From one value to another, both of them in it; open where one is not given.
template <typename T>
struct Span {
    std::optional<T> from = {};
    std::optional<T> to = {};

    bool isOpen() const { return !from && !to; }
    bool operator==(const Span&) const = default;
};

/// Which holdings are meant: what a standing list keeps and what every desk can be narrowed to.
struct HoldingFilter {
    enum class Kind {
        any,
        lossless,
        lossy,
    };
    enum class Listed {
        any,
        inAList,  ///< a player's list leads to it
        inNoList, ///< none does
    };
    /// Words that are all part of the path or the tags, or of the name of a list that leads to it; letter
    /// case and accents aside; "" for all. Between double quotes spaces belong to a word.
    std::string text;
    std::optional<VolumeId> volume;
    BytePath folder; ///< relative to the volume's root, with all below it; only with `volume`
    std::string codec;
    Kind kind = Kind::any;
    std::vector<VerdictClass> verdicts; ///< none: all, those that were never examined too
    Listed listed = Listed::any;
    Span<std::int64_t> bitrate;   ///< bit/s, as stated
    Span<double> seconds;         ///< as stated
    Span<int> years;              ///< of the date in the tags
    bool underLimit = false;      ///< lossy, below the bitrate set for its codec
    bool betterElsewhere = false; ///< a better copy is known on another volume
    /// Where verdicts or the limit are asked for: those that were accepted as they are, too.
    bool acceptedToo = false;

    bool operator==(const HoldingFilter&) const = default;
};

/// As one line of JSON, for the catalogue.
std::string textOf(const HoldingFilter& filter);
/// Nothing where the text is no filter.
std::optional<HoldingFilter> filterFrom(const std::string& text);

} // namespace sober
