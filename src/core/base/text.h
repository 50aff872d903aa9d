#pragma once

#include <cstdint>
#include <optional>
#include <span>
#include <string>
#include <string_view>

namespace sober {

/// Letters and digits alone, ASCII case ignored: what two spellings of one title have in common.
std::string lettersAndDigits(std::string_view text);

/// True where the bytes are well-formed UTF-8 (RFC 3629).
bool isUtf8(std::string_view bytes);

/// Bytes that are not well-formed UTF-8 with each offending one, and each '%' beside them, replaced by %XX,
/// so that they can be had back; well-formed ones, control characters included, as they are. The headless
/// command's form of a path.
std::string percentEncodeOffending(std::string_view bytes);

/// With every %XX replaced by its byte; what is no such thing stays.
std::string percentDecoded(std::string_view text);

/// For the eye only: offending bytes, and characters that turn the direction of writing or steer a terminal
/// (U+0080 to U+009F), as %XX; control characters as their symbols (U+2400 ff.), so that a newline in a name
/// neither breaks a row nor hides.
std::string displayPath(std::string_view path);

/// The same for text of several lines: their ends stay.
std::string displayLines(std::string_view text);

/// Well-formed UTF-8 from a tag's bytes: offending ones are taken as ISO 8859-1.
std::string repairedUtf8(std::string_view bytes);

/// UTF-8 in ISO 8859-1; nothing where a letter is not in that.
std::optional<std::string> asLatin1(std::string_view text);

/// Without the blanks and line ends around it.
std::string_view trimmed(std::string_view text);

/// With the letters A to Z lowered.
std::string lowerAscii(std::string_view text);

/// What names have in common that differ only in letter case or in Unicode normalisation: case folded and
/// decomposed; of what is not UTF-8 the ASCII letters lowered.
std::string foldedName(std::string_view name);

/// For finding words in names and tags: well-formed UTF-8 without letter case, accents and forms of the same
/// letter (Unicode compatibility decomposition and case folding; marks and what is not seen left out).
/// Letters that Unicode does not decompose but that are searched for by their plain ones are replaced too
/// ("ø" by "o"; common practice, no source).
std::string foldedForSearch(std::string_view text);

/// Lower-case hexadecimal.
std::string toHex(std::span<const std::uint8_t> bytes);
/// The bytes that lower-case hexadecimal digits stand for; nothing where they do not.
std::optional<std::string> bytesFromHex(std::string_view digits);

/// "1.24 GB": decimal units as drives are sold, three significant digits; "812 bytes" below 1,000.
std::string humanBytes(std::uint64_t bytes);

/// "3 h 05 min", "4 min 12 s", "9.5 s".
std::string humanSeconds(double seconds);

/// "1,234,567".
std::string humanCount(std::uint64_t count);

/// "1 file", "2 files": `one` is the singular; the plural is `one` + "s" unless `many` is given.
std::string counted(std::uint64_t count, std::string_view one, std::string_view many = {});

} // namespace sober
