#pragma once

#include <taglib/mp4tag.h>

#include <map>
#include <string>
#include <vector>

namespace sober {

// Fields of MP4 that the format has no box of its own for, as those of replay gain: items named
// "----:SPACE:NAME" (ISO base media files leave boxes to who defines them; common practice, no source), which
// TagLib's properties leave out unless it knows the name.

/// Those that the properties leave out, by their names in upper case, whatever space they are in.
std::map<std::string, std::vector<std::string>> ownFieldsOf(const TagLib::MP4::Tag& tag);

/// Sets one, in the space and spelling of one that is there or else in that of the fields that TagLib knows;
/// without values it goes. False where TagLib knows of no space.
bool setOwnField(TagLib::MP4::Tag& tag, const std::string& name, const TagLib::StringList& values);

} // namespace sober
