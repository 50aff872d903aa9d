#pragma once

#include "core/catalogue/holding_filter.h"

#include <string_view>

namespace sober {

/// What somebody typed as "FROM-TO", with either left out, or as one value: each a number, or minutes and
/// seconds as "3:20" (200). Open for ""; nothing where it is no such thing, or runs backwards.
std::optional<Span<double>> spanFrom(std::string_view text);

/// The same in whole numbers, each taken `unit` times.
template <typename T>
std::optional<Span<T>> wholeSpanFrom(std::string_view text, T unit = 1) {
    const auto span = spanFrom(text);
    const auto whole = [&](const std::optional<double>& value) {
        return value ? std::optional(static_cast<T>(*value * static_cast<double>(unit))) : std::nullopt;
    };
    return span ? std::optional(Span<T>{whole(span->from), whole(span->to)}) : std::nullopt;
}

} // namespace sober
