#include "core/intake/replacement.h"

#include <nlohmann/json.hpp>

#include <algorithm>

namespace sober {
namespace {

using Json = nlohmann::json;

Json binary(std::string_view bytes) {
    return Json::binary(std::vector<std::uint8_t>(bytes.begin(), bytes.end()));
}

std::string text(const Json& json) {
    const auto& bytes = json.get_binary();
    return {bytes.begin(), bytes.end()};
}

Checksum128 checksum(const Json& json) {
    const auto& bytes = json.get_binary();
    Checksum128 checksum;
    if (bytes.size() != checksum.bytes.size()) {
        throw Json::other_error::create(501, "no checksum", nullptr);
    }
    std::ranges::copy(bytes, checksum.bytes.begin());
    return checksum;
}

std::string_view viewOf(const Checksum128& checksum) {
    return {reinterpret_cast<const char*>(checksum.bytes.data()), checksum.bytes.size()};
}

} // namespace

std::string packReplacement(const Replacement& replacement) {
    const Json json{{"source", binary(replacement.source)},
                    {"content", binary(viewOf(replacement.content))},
                    {"payload", binary(viewOf(replacement.payload))},
                    {"size", replacement.size},
                    {"tags", binary(packTagChange(replacement.tags))},
                    {"acceptance", binary(replacement.acceptance)}};
    const auto packed = Json::to_msgpack(json);
    return {packed.begin(), packed.end()};
}

std::optional<Replacement> unpackReplacement(std::string_view packed) {
    try {
        const auto json = Json::from_msgpack(packed.begin(), packed.end());
        auto tags = unpackTagChange(text(json.at("tags")));
        return tags
                   ? std::optional(Replacement{
                         text(json.at("source")), checksum(json.at("content")), checksum(json.at("payload")),
                         json.at("size").get<std::uint64_t>(), std::move(*tags), text(json.at("acceptance"))})
                   : std::nullopt;
    } catch (const Json::exception&) {
        return std::nullopt;
    }
}

} // namespace sober
