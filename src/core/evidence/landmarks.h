#pragma once

#include "core/evidence/fingerprint.h"

#include <compare>
#include <cstdint>
#include <optional>
#include <span>
#include <string>
#include <string_view>
#include <vector>

namespace sober {

/// What two fingerprints of one recording have in common although many of their bits differ: one half of a
/// word together with those three quarters of a second and a second and a half later.
struct Landmark {
    std::uint32_t key = 0;      ///< tells landmarks apart; ordered by it first
    std::uint32_t number = 0;   ///< of the recording
    std::uint32_t position = 0; ///< words

    auto operator<=>(const Landmark&) const = default;
};

/// The landmarks of a recording, in no order; none where its fingerprint tells nothing. Of long recordings
/// every eighth is kept, told by its value, so that a part keeps the same ones as the whole.
std::vector<Landmark> landmarksOf(const Fingerprint& words, std::uint32_t number);

/// Whether a fingerprint tells anything: silence and steady tones repeat one word for most of the time.
bool isTelling(std::span<const std::uint32_t> words);

/// Landmarks in their order, in six bytes each or so.
std::string packLandmarks(std::span<const Landmark> landmarks);
/// Nothing where the bytes are no such form.
std::optional<std::vector<Landmark>> unpackLandmarks(std::string_view packed);

} // namespace sober
