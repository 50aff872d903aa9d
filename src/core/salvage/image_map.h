#pragma once

#include "core/base/file_handle.h"
#include "core/base/result.h"

#include <map>
#include <optional>
#include <string>
#include <vector>

namespace sober {

/// How far a stretch of a source has been read into its image.
enum class Reading {
    ahead,  ///< not tried yet
    step,   ///< a large step over it failed: its ends are tried next
    sector, ///< its ends failed: every sector of it is tried next
    bad,    ///< could not be read
    read,   ///< it is in the image
};
std::string_view word(Reading reading);

/// What of a source is in its image, kept beside that as text, a line for each stretch:
///
///     sober image map 1
///     source /dev/sdX
///     bytes 4194304
///     0 1048576 read
///     1048576 1052672 bad
///     1052672 4194304 ahead
///
/// Numbers are bytes, the first and one past the last. Names are percent-encoded where they are not text. A
/// source that was read too, because another could not be, has a line of its own.
class ImageMap {
  public:
    explicit ImageMap(std::uint64_t bytes = 0);

    std::uint64_t bytes() const { return bytes_; }
    std::vector<BytePath> sources;

    void set(ByteRange range, Reading reading);
    /// Stretches of this kind, in order.
    std::vector<ByteRange> ranges(Reading reading) const;
    /// All that is not in the image.
    std::vector<ByteRange> unread() const;
    std::uint64_t count(Reading reading) const; ///< bytes

    std::string text() const;
    /// Cause::invalid where the text is none, or its stretches do not cover all bytes once.
    static Result<ImageMap> parse(std::string_view text);

  private:
    std::uint64_t bytes_;
    std::map<std::uint64_t, Reading> stretches_; ///< by their first byte
};

/// Where the map of an image is kept unless somebody says otherwise.
BytePath mapBeside(const BytePath& image);
/// The map beside an image; nothing where there is none.
Result<std::optional<ImageMap>> mapOf(const BytePath& image);
/// What is not in an image, by the map beside it; none where there is no map.
Result<std::vector<ByteRange>> unreadOf(const BytePath& image);

} // namespace sober
