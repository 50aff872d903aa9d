#include "core/media/mp4_own_fields.h"

#include "core/base/text.h"

#include <taglib/tpropertymap.h>

namespace sober {
namespace {

constexpr std::string_view ownFieldPrefix = "----:com.apple.iTunes:";

/// The name of an item that is such a field, in upper case; "" of any other.
std::string ownFieldNameOf(const TagLib::String& item) {
    const auto key = item.to8Bit(true);
    return key.starts_with(ownFieldPrefix)
               ? TagLib::String(key.substr(ownFieldPrefix.size()), TagLib::String::UTF8).upper().to8Bit(true)
               : std::string();
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

void setOwnField(TagLib::MP4::Tag& tag, const std::string& name, const TagLib::StringList& values) {
    // Players look for the names of replay gain in lower case.
    TagLib::String key(std::string(ownFieldPrefix) +
                           (name.starts_with("REPLAYGAIN_") ? lowerAscii(name) : name),
                       TagLib::String::UTF8);
    for (const auto& [item, held] : tag.itemMap()) {
        if (ownFieldNameOf(item) == name) {
            key = item;
        }
    }
    if (values.isEmpty()) {
        tag.removeItem(key);
    } else {
        tag.setItem(key, values);
    }
}

} // namespace sober
