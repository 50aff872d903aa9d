#include "tray/cue_image.h"

#include "core/base/file_handle.h"
#include "core/base/text.h"

#include <fmt/format.h>
#include <sys/stat.h>

#include <optional>
#include <sstream>

namespace sober {
namespace {

constexpr std::uint64_t largestSheet = 1U << 20;

struct Lines {
    std::string file;
    std::string kind;
    int files = 0;
    int last = 0; ///< the farthest sector that is named
    CueImage image;
};

/// The word at the beginning of what is left of a line; a quoted one may hold blanks.
std::string nextWord(std::string_view& line) {
    const auto begin = line.find_first_not_of(" \t\r");
    line.remove_prefix(std::min(begin, line.size()));
    const bool isQuoted = line.starts_with('"');
    const auto end = isQuoted ? line.find('"', 1) : line.find_first_of(" \t\r");
    const std::string word(line.substr(
        isQuoted ? 1 : 0, end == std::string_view::npos ? std::string_view::npos : end - (isQuoted ? 1 : 0)));
    line.remove_prefix(std::min(end == std::string_view::npos ? line.size() : end + 1, line.size()));
    return word;
}

std::optional<int> sectorFrom(const std::string& time) {
    int minutes = 0;
    int seconds = 0;
    int sectors = 0;
    const bool isTime = std::sscanf(time.c_str(), "%3d:%2d:%2d", &minutes, &seconds, &sectors) == 3; // NOLINT
    const bool isPossible = minutes >= 0 && minutes < 100 && seconds >= 0 && seconds < 60 && sectors >= 0 &&
                            sectors < sectorsPerSecond;
    return isTime && isPossible ? std::optional((minutes * 60 + seconds) * sectorsPerSecond + sectors)
                                : std::nullopt;
}

Lines read(const std::string& text) {
    Lines lines;
    int track = 0;
    std::istringstream sheet(text);
    for (std::string row; std::getline(sheet, row);) {
        std::string_view line = row;
        const auto command = lowerAscii(nextWord(line));
        if (command == "file") {
            lines.file = nextWord(line);
            lines.kind = lowerAscii(nextWord(line));
            ++lines.files;
        } else if (command == "track") {
            track = std::atoi(nextWord(line).c_str());
        } else if (command == "index") {
            const int index = std::atoi(nextWord(line).c_str());
            if (const auto sector = sectorFrom(nextWord(line))) {
                lines.last = std::max(lines.last, *sector);
                if (index > 1) {
                    lines.image.marks[track].push_back(*sector);
                }
            }
        }
    }
    return lines;
}

} // namespace

std::map<int, std::vector<int>> cueMarks(const std::string& text) {
    return read(text).image.marks;
}

Result<CueImage> cueImageAt(const BytePath& sheet) {
    const auto text = wholeFile(sheet, largestSheet);
    RETURN_IF_FAILED(text);
    auto lines = read(*text);
    const auto stem = sheet.substr(0, sheet.size() - 4);
    const auto taken = stem + ".bin";
    if (lines.files == 0) {
        return Error{Cause::damaged, sheet, displayPath(sheet) + " is no cue sheet: it names no file."};
    }
    if (lines.files > 1 || (lines.kind != "binary" && lines.kind != "motorola")) {
        return Error{
            Cause::wrongKind, sheet,
            displayPath(sheet) + " is no image of a disc: it names " +
                (lines.files > 1 ? "several files." : displayPath(lines.file) + " of another kind.")};
    }
    struct stat status {};
    if (stat(taken.c_str(), &status) != 0) {
        return Error{Cause::notFound, sheet,
                     fmt::format("The file of {} is missing: {} is to lie beside it.", displayPath(sheet),
                                 displayPath(nameOf(taken)))};
    }
    if (lines.file != nameOf(taken)) {
        return Error{Cause::notFound, sheet,
                     fmt::format("{} names {}; an image of a disc is called as its sheet, {}.",
                                 displayPath(sheet), displayPath(lines.file), displayPath(nameOf(taken)))};
    }
    const auto sectors = static_cast<int>(status.st_size / discSectorBytes);
    if (status.st_size % discSectorBytes != 0 || sectors <= lines.last) {
        return Error{Cause::damaged, sheet,
                     fmt::format("{} is shorter than {} says: it ends at {} in the middle of what is named.",
                                 displayPath(nameOf(taken)), displayPath(sheet), sectorTime(sectors))};
    }
    return std::move(lines.image);
}

} // namespace sober
