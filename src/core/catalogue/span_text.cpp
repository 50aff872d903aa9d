#include "core/catalogue/span_text.h"

#include <charconv>

namespace sober {
namespace {

constexpr double most = 1e9; // of anything that is asked for

std::optional<double> numberFrom(std::string_view digits) {
    double value = 0;
    const auto [end, failure] =
        std::from_chars(digits.data(), digits.data() + digits.size(), value, std::chars_format::fixed);
    const bool read = failure == std::errc() && end == digits.data() + digits.size();
    return read && value >= 0 && value <= most ? std::optional(value) : std::nullopt;
}

std::optional<double> valueFrom(std::string_view text) {
    const auto colon = text.find(':');
    if (colon == std::string_view::npos) {
        return numberFrom(text);
    }
    const auto minutes = numberFrom(text.substr(0, colon));
    const auto seconds = numberFrom(text.substr(colon + 1));
    return minutes && seconds && *seconds < 60 ? std::optional(*minutes * 60 + *seconds) : std::nullopt;
}

} // namespace

std::optional<Span<double>> spanFrom(std::string_view text) {
    while (!text.empty() && text.front() == ' ') {
        text.remove_prefix(1);
    }
    while (!text.empty() && text.back() == ' ') {
        text.remove_suffix(1);
    }
    if (text.empty()) {
        return Span<double>{};
    }
    const auto dash = text.find('-');
    const auto first = text.substr(0, dash);
    const auto second = dash == std::string_view::npos ? first : text.substr(dash + 1);
    const Span<double> span{valueFrom(first), valueFrom(second)};
    const bool read = (span.from || first.empty()) && (span.to || second.empty()) && !span.isOpen();
    return read && !(span.from && span.to && *span.from > *span.to) ? std::optional(span) : std::nullopt;
}

} // namespace sober
