#pragma once

#include <optional>
#include <string>
#include <string_view>

namespace sober {

/// A text that was read in the wrong encoding, as it was meant: UTF-8 read as Windows-1252, Latin-1 or
/// Windows-1251, once or twice, or Windows-1251 read as Latin-1 (conversions by iconv). Nothing where it
/// makes sense as it is, or where none of these makes more.
std::optional<std::string> meantText(std::string_view text);

/// Without spaces at its ends and more than one in a row, control characters, and those that cannot be seen
/// (zero width space, soft hyphen, byte order mark); no-break spaces become spaces. Joiners and marks of
/// direction belong to their scripts, and stay.
std::string tidiedText(std::string_view text);

/// Without what advertises: addresses of sites in brackets or at the end; all of it where nothing else is
/// left to say.
std::string withoutAdvertising(std::string_view text);

} // namespace sober
