#include "core/intake/mended_text.h"

#include "core/base/text.h"

#include <algorithm>
#include <array>
#include <iconv.h>
#include <regex>
#include <utf8proc.h>
#include <vector>

namespace sober {
namespace {

/// Bytes of one encoding as another; nothing where they cannot be told so.
std::optional<std::string> converted(std::string_view text, const char* from, const char* to) {
    auto* const converter = iconv_open(to, from);
    if (converter == reinterpret_cast<iconv_t>(-1)) { // NOLINT: that is how it fails
        return std::nullopt;
    }
    std::string in(text);
    std::string out(4 * text.size() + 4, '\0');
    auto* at = in.data();
    auto* into = out.data();
    auto left = in.size();
    auto room = out.size();
    const bool whole =
        iconv(converter, &at, &left, &into, &room) != static_cast<std::size_t>(-1) && left == 0;
    iconv_close(converter);
    if (!whole) {
        return std::nullopt;
    }
    out.resize(out.size() - room);
    return out;
}

std::vector<utf8proc_int32_t> codePoints(std::string_view text) {
    std::vector<utf8proc_int32_t> points;
    for (std::size_t at = 0; at < text.size();) {
        utf8proc_int32_t point = 0;
        const auto length = utf8proc_iterate(reinterpret_cast<const utf8proc_uint8_t*>(text.data()) + at,
                                             static_cast<utf8proc_ssize_t>(text.size() - at), &point);
        if (length <= 0) {
            return {};
        }
        points.push_back(point);
        at += static_cast<std::size_t>(length);
    }
    return points;
}

void append(std::string& text, utf8proc_int32_t point) {
    std::array<utf8proc_uint8_t, 4> bytes{};
    const auto length = utf8proc_encode_char(point, bytes.data());
    text.append(reinterpret_cast<const char*>(bytes.data()), static_cast<std::size_t>(length));
}

/// The scripts in which titles are written, by their blocks; 0 of none of them.
int scriptOf(utf8proc_int32_t point) {
    struct Block {
        utf8proc_int32_t first;
        utf8proc_int32_t last;
        int script;
    };
    static constexpr Block blocks[]{{0x00C0, 0x024F, 1},  {0x1E00, 0x1EFF, 1},  {0x0370, 0x03FF, 2},
                                    {0x1F00, 0x1FFF, 2},  {0x0400, 0x052F, 3},  {0x0530, 0x058F, 4},
                                    {0x0590, 0x05FF, 5},  {0x0600, 0x06FF, 6},  {0x0900, 0x0DFF, 7},
                                    {0x0E00, 0x0EFF, 8},  {0x10A0, 0x10FF, 9},  {0x3040, 0x30FF, 10},
                                    {0x3400, 0x9FFF, 10}, {0xAC00, 0xD7AF, 11}, {0xFF00, 0xFFEF, 10},
                                    {0x1200, 0x137F, 12}, {0x1780, 0x17FF, 13}, {0x1000, 0x109F, 14}};
    for (const auto& block : blocks) {
        if (point >= block.first && point <= block.last) {
            return block.script;
        }
    }
    return 0;
}

bool isPunctuation(utf8proc_int32_t point) {
    return (point >= 0x2010 && point <= 0x2027) || (point >= 0x3000 && point <= 0x303F) ||
           (point >= 0x00A0 && point <= 0x00BF) || point == 0x200B || point == 0x200C || point == 0x200D ||
           point == 0x200E || point == 0x200F || point == 0x2122 || point == 0x2116 || point == 0x00D7;
}

/// Whether what is no ASCII in a text is of one script, and says something.
bool makesSense(std::string_view text) {
    const auto points = codePoints(text);
    int script = 0;
    std::size_t letters = 0;
    for (const auto point : points) {
        if (point < 0x80) {
            if (point < 0x20) {
                return false;
            }
            continue;
        }
        const int its = scriptOf(point);
        if (its == 0 && !isPunctuation(point)) {
            return false;
        }
        if (its != 0 && script != 0 && its != script) {
            return false;
        }
        script = its != 0 ? its : script;
        ++letters;
    }
    return letters > 0;
}

/// UTF-8 that was read byte by byte; perhaps twice.
std::optional<std::string> readAsUtf8(std::string_view text, const char* wrongly) {
    const auto bytes = converted(text, "UTF-8", wrongly);
    if (!bytes || bytes->size() >= text.size() || !isUtf8(*bytes)) {
        return std::nullopt;
    }
    const auto again = meantText(*bytes);
    return again ? again : makesSense(*bytes) ? bytes : std::nullopt;
}

/// Windows-1251 that was read as Latin-1: words of letters that no western language puts beside each other.
std::optional<std::string> readAsCyrillic(std::string_view text) {
    const auto points = codePoints(text);
    std::size_t high = 0;
    std::size_t ascii = 0;
    std::size_t longest = 0;
    std::size_t run = 0;
    for (const auto point : points) {
        const bool isHigh = point >= 0xC0 && point <= 0xFF;
        const bool isLetter = point < 0x80 && ((point | 32) >= 'a' && (point | 32) <= 'z');
        if (point > 0xFF) {
            return std::nullopt;
        }
        high += isHigh ? 1 : 0;
        ascii += isLetter ? 1 : 0;
        run = isHigh ? run + 1 : 0;
        longest = std::max(longest, run);
    }
    // Western words have one or two such letters, among others; no source.
    if (high < 4 || longest < 4 || ascii * 2 > high) {
        return std::nullopt;
    }
    const auto bytes = converted(text, "UTF-8", "ISO-8859-1");
    auto meant = bytes ? converted(*bytes, "CP1251", "UTF-8") : std::nullopt;
    return meant && makesSense(*meant) ? meant : std::nullopt;
}

const std::regex& addressPattern() {
    static const std::regex pattern(
        R"((https?://\S+|www\.\S+|\b[\w-]+\.(com|net|org|info|biz|co\.uk)\b(/\S*)?))",
        std::regex::icase | std::regex::optimize);
    return pattern;
}

const std::regex& wordsOfAdvertising() {
    static const std::regex pattern(
        R"(\b(downloaded|download|free|visit|ripped by|uploaded|uploader|get more|more (music|mp3)|brought to you|courtesy of|encoded by|shared by|from|at|by|mp3s?|music|songs?|albums?|here|our site|the best|on|for)\b)",
        std::regex::icase | std::regex::optimize);
    return pattern;
}

} // namespace

std::optional<std::string> meantText(std::string_view text) {
    if (!isUtf8(text) ||
        std::ranges::all_of(text, [](char c) { return static_cast<unsigned char>(c) < 0x80; })) {
        return std::nullopt;
    }
    for (const auto* wrongly : {"ISO-8859-1", "CP1252", "CP1251"}) {
        if (auto meant = readAsUtf8(text, wrongly)) {
            return meant;
        }
    }
    return readAsCyrillic(text);
}

std::string tidiedText(std::string_view text) {
    if (!isUtf8(text)) {
        return std::string(text);
    }
    std::string tidied;
    for (auto point : codePoints(text)) {
        if (point == 0x00A0 || point == '\t' || point == '\n' || point == '\r') {
            point = ' ';
        }
        const bool isUnseen = point < 0x20 || point == 0x7F || (point >= 0x80 && point < 0xA0) ||
                              point == 0x00AD || point == 0x200B || point == 0x2060 || point == 0xFEFF;
        if (isUnseen || (point == ' ' && (tidied.empty() || tidied.back() == ' '))) {
            continue;
        }
        append(tidied, point);
    }
    while (!tidied.empty() && tidied.back() == ' ') {
        tidied.pop_back();
    }
    return tidied;
}

std::string withoutAdvertising(std::string_view text) {
    const std::string whole(text);
    if (!std::regex_search(whole, addressPattern())) {
        return whole;
    }
    static const std::regex bracketed(R"(\s*[\[\(\{<][^\]\)\}>]*[\]\)\}>])");
    std::string kept;
    auto at = whole.cbegin();
    for (std::sregex_iterator each(whole.begin(), whole.end(), bracketed), end; each != end; ++each) {
        const auto inside = each->str();
        kept.append(at, whole.cbegin() + each->position());
        if (!std::regex_search(inside, addressPattern())) {
            kept += inside;
        }
        at = whole.cbegin() + each->position() + each->length();
    }
    kept.append(at, whole.cend());
    if (std::regex_search(kept, addressPattern())) {
        // An address that stands alone or with words that only lead there says nothing else.
        auto rest = std::regex_replace(kept, addressPattern(), " ");
        rest = std::regex_replace(rest, wordsOfAdvertising(), " ");
        const auto left = std::ranges::count_if(lettersAndDigits(rest), [](char) { return true; });
        static const std::regex atEnd(R"(\s+[-–|~*:]+\s*((https?://|www\.)\S+)\s*$)", std::regex::icase);
        kept = left < 3 ? std::string() : std::regex_replace(kept, atEnd, "");
    }
    return tidiedText(kept);
}

} // namespace sober
