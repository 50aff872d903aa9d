#pragma once

#include "core/base/result.h"

#include <array>
#include <string>
#include <string_view>
#include <vector>

namespace sober {

/// What a layout can name of a holding.
enum class LayoutField {
    albumArtist,
    artist,
    album,
    disc,
    track,
    title,
    date,
    year,
    genre,
    composer,
    name,    ///< of the file as it is, without its ending
    folders, ///< in which it lies, as they are, parted by slashes
};
inline constexpr std::size_t layoutFieldCount = 12;

/// One holding's values, "" where there is none: text as its tags have it, bytes for name and folders.
struct LayoutFields {
    std::array<std::string, layoutFieldCount> values;

    std::string& operator[](LayoutField field) { return values[static_cast<std::size_t>(field)]; }
    const std::string& operator[](LayoutField field) const { return values[static_cast<std::size_t>(field)]; }
};

/// How files are put into folders and named:
///
///     albumartist|artist / album / disc "-" track.2 " " title
///
/// Folders and a name, parted by slashes, each a row of fields and quoted text. `a|b` is the first that is
/// not empty, `.2` pads a number with zeros, quoted text stands only where what is beside it on both sides is
/// not empty, and a folder that comes out empty is left out. The file's ending is no part of it.
class Layout {
  public:
    /// Cause::invalid with what is wrong and where.
    static Result<Layout> parse(std::string_view text);
    /// "keep", "flat", or what `parse` reads.
    static Result<Layout> named(std::string_view text);
    /// Folders and names as they are.
    static Layout keep();
    /// One folder for all.
    static Layout flat();

    /// The names of the folders from the top, and last the file's own; never empty. A slash within a value
    /// parts no folders, but for `folders`, which may be several.
    std::vector<std::string> namesFor(const LayoutFields& fields) const;

  private:
    struct Choice {
        LayoutField field;
        unsigned digits = 0;
    };
    struct Part {
        std::string quoted;
        std::vector<Choice> choices; ///< none: quoted text
    };
    using Level = std::vector<Part>;

    static std::string valueOf(const Part& part, const LayoutFields& fields);
    static std::string textOf(const Level& level, const LayoutFields& fields);

    std::vector<Level> levels_;
};

/// The number at the beginning of "3", "03" or "3/12"; the text itself where there is none.
std::string numberOf(const std::string& text, unsigned digits);

} // namespace sober
