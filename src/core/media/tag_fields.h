#pragma once

#include "core/base/file_handle.h"
#include "core/base/result.h"

#include <map>
#include <optional>
#include <string>
#include <string_view>
#include <vector>

namespace sober {

/// A picture that a file carries.
struct Picture {
    std::string mime; ///< "image/jpeg"; "" where the file does not say
    int kind = 3;     ///< by ID3v2.4.0 frames, 4.14: 3 is the front cover
    std::string bytes;

    bool operator==(const Picture&) const = default;
};

/// Everything that a file's tags say, field by field. Names are upper case as in Vorbis comments.
struct TagFields {
    std::map<std::string, std::vector<std::string>> fields;
    std::vector<Picture> pictures;

    bool operator==(const TagFields&) const = default;
};

/// What is to be written into a file's tags: these fields get these values (none: the field goes), all
/// others stay.
struct TagChange {
    std::map<std::string, std::vector<std::string>> fields;
    std::optional<Picture> picture; ///< added to those that are there
    bool onlyPicture = false;       ///< in place of them

    bool isEmpty() const { return fields.empty() && !picture; }
    bool operator==(const TagChange&) const = default;
};

/// Reads all fields and pictures. Cause::unreadable where the format keeps no tags that we know. The ending
/// of the path tells the format first.
Result<TagFields> readTagFields(const FileHandle& file, const BytePath& path);
Result<TagFields> readTagFields(const BytePath& path);

/// Whether a field tells how this one file was encoded, and so nothing of another of the same recording: its
/// encoder, its length, what its decoder leaves out.
bool isOfTheEncode(std::string_view field);

/// What the fields are after a change.
TagFields changed(TagFields fields, const TagChange& change);

/// "GENRE: Polka; a picture of 12 kB".
std::string changeWords(const TagChange& change);

/// For the docket: bytes that unpackTagChange turns back; nothing from bytes that are no change.
std::string packTagChange(const TagChange& change);
std::optional<TagChange> unpackTagChange(std::string_view packed);

} // namespace sober
