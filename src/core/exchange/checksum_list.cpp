#include "core/exchange/checksum_list.h"

#include "core/base/file_handle.h"
#include "core/base/text.h"

#include <fmt/format.h>
#include <openssl/evp.h>

#include <algorithm>
#include <array>
#include <memory>
#include <optional>
#include <unordered_set>
#include <zlib.h>

namespace sober {
namespace {

constexpr std::array<std::pair<ListedChecksum, std::string_view>, 6> kindWords{
    {{ListedChecksum::md5, "MD5"},
     {ListedChecksum::sha1, "SHA1"},
     {ListedChecksum::sha256, "SHA256"},
     {ListedChecksum::sha512, "SHA512"},
     {ListedChecksum::blake2b, "BLAKE2b"},
     {ListedChecksum::crc32, "CRC32"}}};

std::size_t digitsOf(ListedChecksum kind) {
    switch (kind) {
    case ListedChecksum::md5:
        return 32;
    case ListedChecksum::sha1:
        return 40;
    case ListedChecksum::sha256:
        return 64;
    case ListedChecksum::sha512:
    case ListedChecksum::blake2b:
        return 128;
    case ListedChecksum::crc32:
        break;
    }
    return 8;
}

bool isHex(std::string_view text) {
    return std::ranges::all_of(text, [](unsigned char c) { return std::isxdigit(c) != 0; });
}

/// Undoes what coreutils escapes; nothing where an escape makes no sense.
std::optional<BytePath> unescaped(std::string_view text) {
    BytePath path;
    for (std::size_t at = 0; at < text.size(); ++at) {
        if (text[at] != '\\') {
            path += text[at];
            continue;
        }
        if (++at == text.size()) {
            return std::nullopt;
        }
        switch (text[at]) {
        case '\\':
            path += '\\';
            break;
        case 'n':
            path += '\n';
            break;
        case 'r':
            path += '\r';
            break;
        default:
            return std::nullopt;
        }
    }
    return path;
}

struct Line {
    std::string hex;
    BytePath path;
    std::optional<ListedChecksum> kind; ///< where the line says it
};

/// "HEX  name", "HEX *name".
std::optional<Line> plainLine(std::string_view line, bool escaped) {
    const auto space = line.find(' ');
    if (space == std::string_view::npos || space + 2 > line.size() || !isHex(line.substr(0, space)) ||
        (line[space + 1] != ' ' && line[space + 1] != '*')) {
        return std::nullopt;
    }
    const auto name = line.substr(space + 2);
    const auto path = escaped ? unescaped(name) : std::optional<BytePath>(BytePath(name));
    return path && !path->empty() ? std::optional(Line{lowerAscii(line.substr(0, space)), *path, {}})
                                  : std::nullopt;
}

/// "SHA256 (name) = HEX".
std::optional<Line> taggedLine(std::string_view line, bool escaped) {
    const auto open = line.find(" (");
    const auto close = line.rfind(") = ");
    if (open == std::string_view::npos || close == std::string_view::npos || close < open + 2 ||
        !isHex(line.substr(close + 4))) {
        return std::nullopt;
    }
    const auto kind = std::ranges::find(kindWords, line.substr(0, open),
                                        &std::pair<ListedChecksum, std::string_view>::second);
    const auto name = line.substr(open + 2, close - open - 2);
    const auto path = escaped ? unescaped(name) : std::optional<BytePath>(BytePath(name));
    if (kind == kindWords.end() || !path || path->empty()) {
        return std::nullopt;
    }
    return Line{lowerAscii(line.substr(close + 4)), *path, kind->first};
}

/// "name CRC32", with ';' before what is a comment.
std::optional<Line> sfvLine(std::string_view line) {
    const auto space = line.find_last_of(" \t");
    if (space == std::string_view::npos || line.size() - space - 1 != 8 || !isHex(line.substr(space + 1))) {
        return std::nullopt;
    }
    auto name = line.substr(0, space);
    while (!name.empty() && (name.back() == ' ' || name.back() == '\t')) {
        name.remove_suffix(1);
    }
    BytePath path(name);
    std::ranges::replace(path, '\\', '/');
    return path.empty()
               ? std::nullopt
               : std::optional(Line{lowerAscii(line.substr(space + 1)), path, ListedChecksum::crc32});
}

std::optional<ListedChecksum> kindByLength(std::size_t digits, const BytePath& name) {
    const auto low = lowerAscii(nameOf(name));
    const bool saysBlake = low.find("b2") != std::string::npos || low.find("blake") != std::string::npos;
    if (digits == 128) {
        return saysBlake ? ListedChecksum::blake2b : ListedChecksum::sha512;
    }
    for (const auto kind : {ListedChecksum::md5, ListedChecksum::sha1, ListedChecksum::sha256}) {
        if (digitsOf(kind) == digits) {
            return kind;
        }
    }
    return std::nullopt;
}

/// Why a path of a list is not followed; "" where it is.
std::string whyNot(const BytePath& path) {
    if (path.starts_with('/') || (path.size() > 2 && path[1] == ':')) {
        return "names an absolute place";
    }
    for (std::size_t at = 0; at <= path.size();) {
        const auto slash = std::min(path.find('/', at), path.size());
        if (path.substr(at, slash - at) == "..") {
            return "leaves the list's folder";
        }
        at = slash + 1;
    }
    return path.find('\0') != BytePath::npos ? "holds a zero byte" : "";
}

class ListReader {
  public:
    explicit ListReader(const BytePath& name) : name_(name), isSfv_(endingOf(name) == "sfv") {}

    void take(std::string_view text, std::size_t number) {
        if (text.ends_with('\r')) {
            text.remove_suffix(1);
        }
        if (text.empty() || (isSfv_ ? text.starts_with(';') : text.starts_with('#'))) {
            return;
        }
        const bool escaped = text.starts_with('\\');
        const auto rest = escaped ? text.substr(1) : text;
        auto line = isSfv_ ? sfvLine(text) : taggedLine(rest, escaped);
        if (!line && !isSfv_) {
            line = plainLine(rest, escaped);
        }
        const auto kind =
            line ? (line->kind ? line->kind : kindByLength(line->hex.size(), name_)) : std::nullopt;
        if (!kind || line->hex.size() != digitsOf(*kind)) {
            problem(number, "makes no sense in a list of checksums");
            return;
        }
        if (!list_.files.empty() && *kind != list_.kind) {
            problem(number, "holds another kind of checksum than the lines before");
            return;
        }
        if (const auto why = whyNot(line->path); !why.empty()) {
            problem(number, why);
            return;
        }
        while (line->path.starts_with("./") && line->path.find_first_not_of("./") != BytePath::npos) {
            line->path.erase(0, line->path.find_first_not_of('/', 1));
        }
        if (!met_.insert(line->path).second) {
            problem(number, "names a file for the second time");
            return;
        }
        list_.kind = *kind;
        list_.files.push_back({std::move(line->path), std::move(line->hex)});
    }

    ChecksumList take() { return std::move(list_); }

  private:
    void problem(std::size_t number, std::string_view why) {
        list_.problems.push_back({number, fmt::format("Line {} {}.", humanCount(number), why)});
    }

    const BytePath& name_;
    bool isSfv_;
    ChecksumList list_;
    std::unordered_set<BytePath> met_;
};

/// Reads a file piece by piece; `take` gets each.
template <typename Take>
Outcome readPieces(const BytePath& path, RunControl& control, Take take) {
    const auto file = openForReading(path);
    RETURN_IF_FAILED(file);
    std::vector<std::uint8_t> piece(1U << 18);
    for (std::uint64_t at = 0;;) {
        if (!control.proceed()) {
            return Error{Cause::interrupted, path, "Stopped."};
        }
        const auto got = readAt(*file, path, at, piece);
        RETURN_IF_FAILED(got);
        if (*got == 0) {
            return done();
        }
        take(std::span(piece).first(*got));
        at += *got;
    }
}

const EVP_MD* digestOf(ListedChecksum kind) {
    switch (kind) {
    case ListedChecksum::md5:
        return EVP_md5();
    case ListedChecksum::sha1:
        return EVP_sha1();
    case ListedChecksum::sha512:
        return EVP_sha512();
    case ListedChecksum::blake2b:
        return EVP_blake2b512();
    default:
        return EVP_sha256();
    }
}

bool needsEscape(const BytePath& path) {
    return path.find_first_of("\\\n\r") != BytePath::npos;
}

BytePath escaped(const BytePath& path) {
    BytePath out;
    for (const char c : path) {
        out += c == '\\' ? "\\\\" : c == '\n' ? "\\n" : c == '\r' ? "\\r" : std::string(1, c);
    }
    return out;
}

} // namespace

std::string_view checksumWord(ListedChecksum kind) {
    return std::ranges::find(kindWords, kind, &std::pair<ListedChecksum, std::string_view>::first)->second;
}

Result<ChecksumList> parseChecksumList(std::string_view text, const BytePath& name) {
    if (text.starts_with("\xEF\xBB\xBF")) {
        text.remove_prefix(3);
    }
    ListReader reader(name);
    for (std::size_t number = 1; !text.empty(); ++number) {
        const auto end = std::min(text.find('\n'), text.size());
        reader.take(text.substr(0, end), number);
        text.remove_prefix(std::min(end + 1, text.size()));
    }
    auto list = reader.take();
    if (list.files.empty() && list.problems.empty()) {
        return Error{Cause::invalid, name, displayPath(name) + " holds no checksums."};
    }
    return list;
}

bool canStandInList(ListedChecksum kind, const BytePath& path) {
    return kind != ListedChecksum::crc32 ||
           (path.find_first_of("\\\n\r") == BytePath::npos && path.find_last_of(" \t") + 1 != path.size());
}

std::string checksumListText(ListedChecksum kind, std::span<const ListedFile> files) {
    std::string text;
    for (const auto& file : files) {
        const bool misread = file.path.starts_with(';') || (file.path.size() > 2 && file.path[1] == ':');
        if (!canStandInList(kind, file.path)) {
            continue;
        }
        if (kind == ListedChecksum::crc32 || (misread && !needsEscape(file.path))) {
            const auto path = (misread ? "./" : "") + file.path;
            text +=
                kind == ListedChecksum::crc32 ? path + " " + file.hex + "\n" : file.hex + "  " + path + "\n";
        } else if (misread) {
            text += "\\" + file.hex + "  ./" + escaped(file.path) + "\n";
        } else if (needsEscape(file.path)) {
            text += "\\" + file.hex + "  " + escaped(file.path) + "\n";
        } else {
            text += file.hex + "  " + file.path + "\n";
        }
    }
    return text;
}

Result<std::string> checksumOfFile(const BytePath& path, ListedChecksum kind, RunControl& control) {
    if (kind == ListedChecksum::crc32) {
        uLong crc = crc32(0, nullptr, 0);
        const auto read = readPieces(path, control, [&](std::span<const std::uint8_t> piece) {
            crc = crc32(crc, piece.data(), static_cast<uInt>(piece.size()));
        });
        return read ? Result<std::string>(fmt::format("{:08x}", crc)) : Result<std::string>(read.error());
    }
    const std::unique_ptr<EVP_MD_CTX, decltype(&EVP_MD_CTX_free)> context(EVP_MD_CTX_new(), &EVP_MD_CTX_free);
    EVP_DigestInit_ex(context.get(), digestOf(kind), nullptr);
    const auto read = readPieces(path, control, [&](std::span<const std::uint8_t> piece) {
        EVP_DigestUpdate(context.get(), piece.data(), piece.size());
    });
    RETURN_IF_FAILED(read);
    std::array<std::uint8_t, EVP_MAX_MD_SIZE> digest{};
    unsigned length = 0;
    EVP_DigestFinal_ex(context.get(), digest.data(), &length);
    return toHex(std::span(digest).first(length));
}

ListCheck checkAgainst(const ChecksumList& list, const BytePath& folder, RunControl& control) {
    ListCheck check;
    for (const auto& file : list.files) {
        const auto sum = checksumOfFile(joinPath(folder, file.path), list.kind, control);
        if (sum && *sum == file.hex) {
            ++check.good;
        } else if (sum) {
            check.differing.push_back(file.path);
        } else if (sum.error().cause == Cause::interrupted) {
            check.interrupted = true;
            break;
        } else if (sum.error().cause == Cause::notFound) {
            check.missing.push_back(file.path);
        } else {
            check.unreadable.push_back(sum.error());
        }
    }
    return check;
}

} // namespace sober
