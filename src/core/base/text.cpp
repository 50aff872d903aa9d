#include "core/base/text.h"

#include <fmt/format.h>

#include <algorithm>
#include <array>
#include <cmath>
#include <cstdlib>
#include <memory>
#include <utf8proc.h>

namespace sober {
namespace {

/// Calls `whole(piece)` for each well-formed character and `offending(byte)` for each stray byte.
template <typename Whole, typename Offending>
void walkUtf8(std::string_view bytes, Whole whole, Offending offending) {
    const auto* data = reinterpret_cast<const utf8proc_uint8_t*>(bytes.data());
    std::size_t at = 0;
    while (at < bytes.size()) {
        utf8proc_int32_t codepoint = -1;
        const auto length =
            utf8proc_iterate(data + at, static_cast<utf8proc_ssize_t>(bytes.size() - at), &codepoint);
        if (length > 0 && codepoint >= 0) {
            whole(bytes.substr(at, static_cast<std::size_t>(length)), codepoint);
            at += static_cast<std::size_t>(length);
        } else {
            offending(data[at]);
            ++at;
        }
    }
}

void appendCodepoint(std::string& out, utf8proc_int32_t codepoint) {
    utf8proc_uint8_t buffer[4];
    const auto length = utf8proc_encode_char(codepoint, buffer);
    out.append(reinterpret_cast<const char*>(buffer), static_cast<std::size_t>(length));
}

/// What utf8proc makes of text that is not ASCII alone; nothing where it is not UTF-8.
std::optional<std::string> mapped(std::string_view text, int options) {
    utf8proc_uint8_t* made = nullptr;
    const auto length = utf8proc_map(reinterpret_cast<const utf8proc_uint8_t*>(text.data()),
                                     static_cast<utf8proc_ssize_t>(text.size()), &made,
                                     static_cast<utf8proc_option_t>(options));
    const std::unique_ptr<utf8proc_uint8_t, decltype(&std::free)> owner(made, &std::free);
    return length < 0 ? std::nullopt
                      : std::optional(std::string(reinterpret_cast<const char*>(made),
                                                  static_cast<std::size_t>(length)));
}

bool isAscii(std::string_view text) {
    return std::ranges::all_of(text, [](char c) { return static_cast<unsigned char>(c) < 0x80; });
}

constexpr std::array<std::pair<std::string_view, std::string_view>, 8> plainLetters{{
    {"\u00f8", "o"},
    {"\u0142", "l"},
    {"\u0111", "d"},
    {"\u00f0", "d"},
    {"\u0131", "i"},
    {"\u00e6", "ae"},
    {"\u0153", "oe"},
    {"\u00fe", "th"},
}};

int hexValue(char c) {
    return c >= '0' && c <= '9'   ? c - '0'
           : c >= 'a' && c <= 'f' ? c - 'a' + 10
           : c >= 'A' && c <= 'F' ? c - 'A' + 10
                                  : -1;
}

} // namespace

bool isUtf8(std::string_view bytes) {
    bool good = true;
    walkUtf8(
        bytes, [](auto, auto) {}, [&](auto) { good = false; });
    return good;
}

std::string percentDecoded(std::string_view text) {
    std::string path;
    path.reserve(text.size());
    for (std::size_t at = 0; at < text.size(); ++at) {
        const bool isCode = text[at] == '%' && at + 2 < text.size();
        const int high = isCode ? hexValue(text[at + 1]) : -1;
        const int low = isCode ? hexValue(text[at + 2]) : -1;
        if (high >= 0 && low >= 0 && high + low > 0) {
            path += static_cast<char>(high * 16 + low);
            at += 2;
        } else {
            path += text[at];
        }
    }
    return path;
}

std::string percentEncodeOffending(std::string_view bytes) {
    if (isUtf8(bytes)) {
        return std::string(bytes);
    }
    std::string out;
    out.reserve(bytes.size());
    walkUtf8(
        bytes, [&](std::string_view piece, auto) { out.append(piece == "%" ? "%25" : piece); },
        [&](std::uint8_t byte) { out += fmt::format("%{:02X}", byte); });
    return out;
}

namespace {

/// Marks, embeddings, overrides and isolates of Unicode's bidirectional algorithm (UAX #9, section 2), and
/// the second set of control characters (ISO/IEC 6429).
bool misleads(utf8proc_int32_t codepoint) {
    return (codepoint >= 0x80 && codepoint < 0xA0) || codepoint == 0x061C || codepoint == 0x200E ||
           codepoint == 0x200F || (codepoint >= 0x202A && codepoint <= 0x202E) ||
           (codepoint >= 0x2066 && codepoint <= 0x2069);
}

std::string shown(std::string_view text, bool keepsLines) {
    std::string out;
    out.reserve(text.size());
    const auto encoded = [&](std::uint8_t byte) { out += fmt::format("%{:02X}", byte); };
    walkUtf8(
        text,
        [&](std::string_view piece, utf8proc_int32_t codepoint) {
            if (codepoint < 0x20 && !(keepsLines && codepoint == '\n')) {
                appendCodepoint(out, 0x2400 + codepoint);
            } else if (codepoint == 0x7F) {
                appendCodepoint(out, 0x2421);
            } else if (misleads(codepoint)) {
                std::ranges::for_each(piece, encoded);
            } else {
                out.append(piece);
            }
        },
        encoded);
    return out;
}

} // namespace

std::string displayPath(std::string_view path) {
    return shown(path, false);
}

std::string displayLines(std::string_view text) {
    return shown(text, true);
}

std::string repairedUtf8(std::string_view bytes) {
    std::string out;
    out.reserve(bytes.size());
    walkUtf8(
        bytes, [&](std::string_view piece, auto) { out.append(piece); },
        [&](std::uint8_t byte) { appendCodepoint(out, byte); });
    return out;
}

std::optional<std::string> asLatin1(std::string_view text) {
    std::string out;
    bool fits = true;
    walkUtf8(
        text,
        [&](auto, utf8proc_int32_t codepoint) {
            fits = fits && codepoint < 0x100;
            out += static_cast<char>(codepoint);
        },
        [&](std::uint8_t byte) { out += static_cast<char>(byte); });
    return fits ? std::optional(std::move(out)) : std::nullopt;
}

std::string_view trimmed(std::string_view text) {
    constexpr auto blanks = " \t\r\n";
    const auto first = text.find_first_not_of(blanks);
    return first == std::string_view::npos ? std::string_view()
                                           : text.substr(first, text.find_last_not_of(blanks) - first + 1);
}

std::string lowerAscii(std::string_view text) {
    std::string low(text);
    std::ranges::transform(
        low, low.begin(), [](char c) { return c >= 'A' && c <= 'Z' ? static_cast<char>(c - 'A' + 'a') : c; });
    return low;
}

std::string foldedName(std::string_view name) {
    return (isAscii(name) ? std::nullopt
                          : mapped(name, UTF8PROC_STABLE | UTF8PROC_DECOMPOSE | UTF8PROC_CASEFOLD))
        .value_or(lowerAscii(name));
}

std::string foldedForSearch(std::string_view text) {
    if (isAscii(text)) {
        return lowerAscii(text);
    }
    auto folded = mapped(repairedUtf8(text), UTF8PROC_STABLE | UTF8PROC_DECOMPOSE | UTF8PROC_COMPAT |
                                                 UTF8PROC_CASEFOLD | UTF8PROC_STRIPMARK | UTF8PROC_IGNORE)
                      .value_or(lowerAscii(text));
    for (const auto& [letter, plain] : plainLetters) {
        for (auto at = folded.find(letter); at != std::string::npos;
             at = folded.find(letter, at + plain.size())) {
            folded.replace(at, letter.size(), plain);
        }
    }
    return folded;
}

std::string toHex(std::span<const std::uint8_t> bytes) {
    constexpr std::string_view digits = "0123456789abcdef";
    std::string out;
    out.reserve(bytes.size() * 2);
    for (const auto byte : bytes) {
        out.push_back(digits[byte >> 4]);
        out.push_back(digits[byte & 15]);
    }
    return out;
}

std::optional<std::string> bytesFromHex(std::string_view digits) {
    constexpr std::string_view all = "0123456789abcdef";
    std::string bytes;
    if (digits.size() % 2 != 0) {
        return std::nullopt;
    }
    for (std::size_t i = 0; i < digits.size(); i += 2) {
        const auto high = all.find(digits[i]);
        const auto low = all.find(digits[i + 1]);
        if (high == std::string_view::npos || low == std::string_view::npos) {
            return std::nullopt;
        }
        bytes.push_back(static_cast<char>(high * 16 + low));
    }
    return bytes;
}

std::string humanBytes(std::uint64_t bytes) {
    if (bytes < 1000) {
        return counted(bytes, "byte");
    }
    constexpr std::string_view units[] = {"kB", "MB", "GB", "TB", "PB", "EB"};
    double amount = static_cast<double>(bytes) / 1000.0;
    std::size_t unit = 0;
    while (amount >= 999.5 && unit + 1 < std::size(units)) {
        amount /= 1000.0;
        ++unit;
    }
    const int decimals = amount < 9.995 ? 2 : amount < 99.95 ? 1 : 0;
    return fmt::format("{:.{}f} {}", amount, decimals, units[unit]);
}

std::string humanSeconds(double seconds) {
    if (seconds < 59.5) {
        return fmt::format("{:.{}f} s", seconds, seconds < 9.95 ? 1 : 0);
    }
    const auto whole = static_cast<std::uint64_t>(std::llround(seconds));
    if (whole < 3600) {
        return fmt::format("{} min {:02} s", whole / 60, whole % 60);
    }
    return fmt::format("{} h {:02} min", humanCount(whole / 3600), whole % 3600 / 60);
}

std::string humanCount(std::uint64_t count) {
    std::string digits = std::to_string(count);
    for (auto at = static_cast<std::ptrdiff_t>(digits.size()) - 3; at > 0; at -= 3) {
        digits.insert(static_cast<std::size_t>(at), 1, ',');
    }
    return digits;
}

std::string counted(std::uint64_t count, std::string_view one, std::string_view many) {
    const std::string word = count == 1     ? std::string(one)
                             : many.empty() ? std::string(one) + "s"
                                            : std::string(many);
    return humanCount(count) + " " + word;
}

std::string lettersAndDigits(std::string_view text) {
    std::string key;
    for (const char c : text) {
        const auto byte = static_cast<unsigned char>(c);
        if (byte >= 0x80 || std::isalnum(byte) != 0) {
            key.push_back(static_cast<char>(byte < 0x80 ? std::tolower(byte) : byte));
        }
    }
    return key;
}

} // namespace sober
