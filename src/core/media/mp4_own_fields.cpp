#include "core/media/mp4_own_fields.h"

#include "core/base/text.h"

#include <taglib/tpropertymap.h>

namespace sober {
namespace {

/// The name of an item that is such a field, in upper case; "" of any other.
std::string ownFieldNameOf(const TagLib::String& item) {
    constexpr std::string_view kind = "----:";
    const auto key = item.to8Bit(true);
    const auto space = key.starts_with(kind) ? key.find(':', kind.size()) : std::string::npos;
    return space != std::string::npos
               ? TagLib::String(key.substr(space + 1), TagLib::String::UTF8).upper().to8Bit(true)
               : std::string();
}

/// What the names of those begin with that TagLib writes; "" where it writes none.
std::string spaceOfKnownFields() {
    TagLib::PropertyMap known;
    known.insert("LABEL", TagLib::StringList("any"));
    TagLib::MP4::Tag scratch;
    scratch.setProperties(known);
    for (const auto& [item, held] : scratch.itemMap()) {
        if (!ownFieldNameOf(item).empty()) {
            const auto key = item.to8Bit(true);
            return key.substr(0, key.rfind(':') + 1);
        }
    }
    return {};
}

} // namespace

std::map<std::string, std::vector<std::string>> ownFieldsOf(const TagLib::MP4::Tag& tag) {
    std::map<std::string, std::vector<std::string>> fields;
    const auto properties = tag.properties();
    for (const auto& item : properties.unsupportedData()) {
        if (const auto name = ownFieldNameOf(item); !name.empty() && tag.contains(item)) {
            for (const auto& value : tag.item(item).toStringList()) {
                fields[name].push_back(value.to8Bit(true));
            }
        }
    }
    return fields;
}

bool setOwnField(TagLib::MP4::Tag& tag, const std::string& name, const TagLib::StringList& values) {
    std::vector<TagLib::String> held;
    for (const auto& [item, value] : tag.itemMap()) {
        if (ownFieldNameOf(item) == name) {
            held.push_back(item);
        }
    }
    for (const auto& item : held) {
        tag.removeItem(item);
    }
    if (values.isEmpty()) {
        return true;
    }
    if (held.empty()) {
        const auto space = spaceOfKnownFields();
        if (space.empty()) {
            return false;
        }
        // Players look for the names of replay gain in lower case.
        held.emplace_back(space + (name.starts_with("REPLAYGAIN_") ? lowerAscii(name) : name),
                          TagLib::String::UTF8);
    }
    tag.setItem(held.front(), values);
    return true;
}

} // namespace sober
