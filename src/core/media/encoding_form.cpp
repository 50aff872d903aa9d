#include "core/media/encoding_form.h"

#include "core/base/text.h"

#include <fmt/format.h>

#include <algorithm>
#include <array>
#include <charconv>

namespace sober {
namespace {

using Codec = EncodingForm::Codec;

constexpr std::array<std::string_view, 6> codecWords{"mp3", "aac", "opus", "vorbis", "flac", "wav"};
constexpr std::array<std::string_view, 6> endings{"mp3", "m4a", "opus", "ogg", "flac", "wav"};
constexpr std::array<int, 10> variableMp3{245, 225, 190, 175, 165, 130, 115, 100, 85, 65}; // kbit/s, V0 to V9

Error noForm(std::string_view text) {
    return {
        Cause::invalid,
        {},
        fmt::format(
            "\"{}\" is no form. Forms are mp3:V0 to mp3:V9, mp3:KBITS, aac:KBITS, opus:KBITS, vorbis:q0 to "
            "vorbis:q10, flac and wav; @SECONDS or @PERCENT% after one makes an excerpt.",
            text)};
}

/// A whole text that is a number.
std::optional<double> numberFrom(std::string_view text) {
    double value = 0;
    const auto [end, trouble] = std::from_chars(text.data(), text.data() + text.size(), value);
    return trouble == std::errc() && end == text.data() + text.size() ? std::optional(value) : std::nullopt;
}

bool takeQuality(EncodingForm& form, std::string_view text) {
    if (text.empty()) {
        form.quality = form.codec == Codec::vorbis || form.codec == Codec::flac ? 5 : 2;
        form.bitrate = form.codec == Codec::aac ? 160'000 : form.codec == Codec::opus ? 128'000 : 0;
        return true;
    }
    const bool byLetter = (form.codec == Codec::mp3 && text.front() == 'V') ||
                          (form.codec == Codec::vorbis && text.front() == 'q');
    const auto number = numberFrom(byLetter ? text.substr(1) : text);
    if (!number || form.codec == Codec::wav) {
        return false;
    }
    if (byLetter || form.codec == Codec::flac) {
        form.quality = *number;
        return *number >= 0 && *number <= (form.codec == Codec::mp3      ? 9
                                           : form.codec == Codec::vorbis ? 10
                                                                         : 8);
    }
    form.bitrate = static_cast<int>(*number * 1000);
    return *number >= 8 && *number <= 512;
}

bool takeExcerpt(EncodingForm& form, std::string_view text) {
    constexpr std::string_view loudest = " loudest";
    if (text.ends_with(loudest)) {
        form.loudest = true;
        text.remove_suffix(loudest.size());
    }
    const bool isShare = text.ends_with('%');
    const auto number = numberFrom(isShare ? text.substr(0, text.size() - 1) : text);
    (isShare ? form.share : form.seconds) = number ? (isShare ? *number / 100 : *number) : 0;
    return number && *number > 0 && (!isShare || *number < 100);
}

} // namespace

Result<EncodingForm> encodingFormFrom(std::string_view text) {
    const auto at = text.find('@');
    const auto whole = text.substr(0, at);
    const auto colon = whole.find(':');
    const auto* const codec = std::ranges::find(codecWords, whole.substr(0, colon));
    if (codec == codecWords.end()) {
        return noForm(text);
    }
    EncodingForm form;
    form.codec = static_cast<Codec>(codec - codecWords.begin());
    const bool isForm = (colon == std::string_view::npos || colon + 1 < whole.size()) &&
                        takeQuality(form, colon == std::string_view::npos ? "" : whole.substr(colon + 1)) &&
                        (at == std::string_view::npos || takeExcerpt(form, text.substr(at + 1)));
    return isForm ? Result(form) : Result<EncodingForm>(noForm(text));
}

std::string_view endingOf(const EncodingForm& form) {
    return endings[static_cast<std::size_t>(form.codec)];
}

std::uint64_t estimatedBytes(const EncodingForm& form, double seconds, int sampleRate, int channels,
                             int bitDepth) {
    const double length = form.share > 0     ? seconds * form.share
                          : form.seconds > 0 ? std::min(seconds, form.seconds)
                                             : seconds;
    const double plain = static_cast<double>(sampleRate) * channels * std::max(bitDepth, 16);
    const double bits = form.bitrate > 0 ? form.bitrate
                        : form.codec == Codec::mp3
                            ? 1000.0 * variableMp3[static_cast<std::size_t>(form.quality)]
                        : form.codec == Codec::vorbis ? 32'000 * form.quality
                        : form.codec == Codec::flac   ? 0.6 * plain
                                                      : plain;
    constexpr std::uint64_t around = 8'192; // tags and headers
    return static_cast<std::uint64_t>(length * bits / 8) + around;
}

} // namespace sober
