#pragma once

#include "core/catalogue/records.h"
#include "core/media/encoding_form.h"

#include <array>
#include <functional>
#include <span>

namespace sober {

/// Which holdings come in which form: "lossless=mp3:V0". What is lossy never becomes lossless: it comes as it
/// is.
struct FormRule {
    std::string source; ///< "lossless", "lossy", "all", or a codec
    std::string words;  ///< of the form
    EncodingForm form;
};

/// Cause::invalid with what is right.
Result<FormRule> formRuleFrom(std::string_view text);

/// The first rule that a holding meets; none: it comes as it is.
const FormRule* ruleFor(std::span<const FormRule> rules, const Holding& holding);

/// The bytes that a holding will take by a rule, about; as many as it has without one.
std::uint64_t bytesBy(const FormRule* rule, const Holding& holding);

/// What the windows offer for lossless holdings, the best first.
inline constexpr std::array<std::string_view, 6> offeredForms{"lossless=flac",      "lossless=mp3:V0",
                                                              "lossless=vorbis:q7", "lossless=aac:192",
                                                              "lossless=opus:128",  "all=opus:96"};

/// What each offered form would need for these holdings, first as they are; `roomFor` says what room bytes
/// take.
std::vector<std::pair<std::string, std::uint64_t>>
costsOf(std::span<const Holding> holdings, const std::function<std::uint64_t(std::uint64_t)>& roomFor);

/// How many times the bytes of a second of lossy audio (192 kbit/s and more) a second of lossless has; 0
/// where there are not both. The trade's rule of thumb is four to five.
double losslessTimesLossy(std::span<const Holding> holdings);

} // namespace sober
