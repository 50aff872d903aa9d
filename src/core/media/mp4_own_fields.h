#pragma once

#include <taglib/mp4tag.h>

#include <map>
#include <string>
#include <vector>

namespace sober {

// Fields of MP4 that the format has no box of its own for, as those of replay gain: items named
// "----:com.apple.iTunes:NAME" (common practice, no source), which TagLib's properties leave out unless it
// knows the name.

/// Those that the properties leave out, by their names in upper case.
std::map<std::string, std::vector<std::string>> ownFieldsOf(const TagLib::MP4::Tag& tag);

/// Sets one, in the spelling of one that is there; without values it goes.
void setOwnField(TagLib::MP4::Tag& tag, const std::string& name, const TagLib::StringList& values);

} // namespace sober
