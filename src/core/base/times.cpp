#include "core/base/times.h"

#include <array>
#include <ctime>

namespace sober {
namespace {

std::string formatted(const std::tm& parts, const char* pattern) {
    char buffer[64];
    const auto length = std::strftime(buffer, sizeof buffer, pattern, &parts);
    return {buffer, length};
}

/// Whole seconds, rounded towards the past, so that times before 1970 come out right.
std::time_t wholeSeconds(Nanoseconds time) {
    constexpr Nanoseconds second = 1'000'000'000;
    return static_cast<std::time_t>(time / second - (time % second < 0 ? 1 : 0));
}

std::tm localParts(Nanoseconds time) {
    const std::time_t seconds = wholeSeconds(time);
    std::tm parts{};
    localtime_r(&seconds, &parts);
    return parts;
}

} // namespace

Nanoseconds timeNow() {
    std::timespec now{};
    clock_gettime(CLOCK_REALTIME, &now);
    return static_cast<Nanoseconds>(now.tv_sec) * 1'000'000'000 + now.tv_nsec;
}

std::string isoUtc(Nanoseconds time) {
    const std::time_t seconds = wholeSeconds(time);
    std::tm parts{};
    gmtime_r(&seconds, &parts);
    return formatted(parts, "%Y-%m-%dT%H:%M:%SZ");
}

std::string localMinute(Nanoseconds time) {
    return localDay(time) + formatted(localParts(time), ", %H:%M");
}

std::string localDay(Nanoseconds time) {
    // Not strftime's names: those are of the desktop's language, and what the core says is kept.
    constexpr std::array months{"Jan", "Feb", "Mar", "Apr", "May", "Jun",
                                "Jul", "Aug", "Sep", "Oct", "Nov", "Dec"};
    const auto parts = localParts(time);
    return formatted(parts, "%d ") + months[static_cast<std::size_t>(parts.tm_mon)] + formatted(parts, " %Y");
}

std::string localIso(Nanoseconds time) {
    return formatted(localParts(time), "%Y-%m-%dT%H:%M:%S");
}

} // namespace sober
