#include "core/media/tag_fields.h"

#include "core/base/text.h"

#include <fmt/format.h>
#include <nlohmann/json.hpp>

#include <algorithm>
#include <array>

namespace sober {
namespace {

using Json = nlohmann::json;

} // namespace

bool isOfTheEncode(std::string_view field) {
    constexpr std::array<std::string_view, 3> beginnings{"ENCOD", "LENGTH", "ITUNSMPB"};
    return std::ranges::any_of(beginnings, [&](std::string_view one) { return field.starts_with(one); });
}

TagFields changed(TagFields fields, const TagChange& change) {
    for (const auto& [name, values] : change.fields) {
        if (values.empty()) {
            fields.fields.erase(name);
        } else {
            fields.fields[name] = values;
        }
    }
    if (change.picture && change.onlyPicture) {
        fields.pictures.clear();
    }
    if (change.picture) {
        fields.pictures.push_back(*change.picture);
    }
    return fields;
}

std::string changeWords(const TagChange& change) {
    std::string words;
    const auto add = [&](const std::string& more) { words += (words.empty() ? "" : "; ") + more; };
    for (const auto& [name, values] : change.fields) {
        add(values.empty() ? name + " goes" : fmt::format("{}: {}", name, fmt::join(values, ", ")));
    }
    if (change.picture) {
        add("a picture of " + humanBytes(change.picture->bytes.size()));
    }
    return words;
}

std::string packTagChange(const TagChange& change) {
    const auto binary = [](const std::string& bytes) {
        return Json::binary(std::vector<std::uint8_t>(bytes.begin(), bytes.end()));
    };
    Json json{{"fields", Json::object()}};
    for (const auto& [name, values] : change.fields) {
        auto& list = json["fields"][name] = Json::array();
        for (const auto& value : values) {
            list.push_back(binary(value));
        }
    }
    if (change.picture) {
        json["picture"] = {{"mime", change.picture->mime},
                           {"kind", change.picture->kind},
                           {"bytes", binary(change.picture->bytes)},
                           {"only", change.onlyPicture}};
    }
    const auto packed = Json::to_msgpack(json);
    return {packed.begin(), packed.end()};
}

std::optional<TagChange> unpackTagChange(std::string_view packed) {
    const auto text = [](const Json& json) {
        const auto& bytes = json.get_binary();
        return std::string(bytes.begin(), bytes.end());
    };
    try {
        const auto json = Json::from_msgpack(packed.begin(), packed.end());
        TagChange change;
        for (const auto& [name, values] : json.at("fields").items()) {
            change.fields[name];
            for (const auto& value : values) {
                change.fields[name].push_back(text(value));
            }
        }
        if (const auto picture = json.find("picture"); picture != json.end()) {
            change.picture = {picture->at("mime").get<std::string>(), picture->at("kind").get<int>(),
                              text(picture->at("bytes"))};
            change.onlyPicture = picture->value("only", false);
        }
        return change;
    } catch (const Json::exception&) {
        return std::nullopt;
    }
}

} // namespace sober
