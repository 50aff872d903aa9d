#pragma once

#include <cstdint>
#include <string>

namespace sober {

/// Nanoseconds since 1970-01-01T00:00:00Z, as file systems give them. Leap seconds as POSIX has it.
using Nanoseconds = std::int64_t;

Nanoseconds timeNow();

/// ISO 8601 in UTC to the second: "2026-11-25T01:11:01Z".
std::string isoUtc(Nanoseconds time);

/// Local time for a person, to the minute: "25 Nov 2026, 01:11"; in English whatever the locale.
std::string localMinute(Nanoseconds time);

/// Local date for a person: "25 Nov 2026"; in English whatever the locale.
std::string localDay(Nanoseconds time);

/// Local time as the freedesktop.org Trash specification wants it: "2026-11-25T01:11:01".
std::string localIso(Nanoseconds time);

} // namespace sober
