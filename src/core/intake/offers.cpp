#include "core/intake/offers.h"

#include "core/base/text.h"

#include <nlohmann/json.hpp>

#include <algorithm>
#include <cmath>
#include <optional>

namespace sober {
namespace {

using Json = nlohmann::json;

constexpr std::size_t longestText = 1'000;      // characters of a title
constexpr std::size_t longestAddress = 4'000;   // bytes
constexpr std::size_t mostWords = 100'000;      // of a fingerprint: three hours
constexpr std::size_t mostOffers = 10'000;      // in one answer
constexpr double longestSeconds = 7 * 86'400.0; // of a recording

std::string textAt(const Json& json, const char* name) {
    const auto found = json.find(name);
    return found != json.end() && found->is_string() ? found->get<std::string>().substr(0, longestText)
                                                     : std::string();
}

std::optional<std::uint64_t> countAt(const Json& json, const char* name) {
    const auto found = json.find(name);
    return found != json.end() && found->is_number_unsigned() ? std::optional(found->get<std::uint64_t>())
                                                              : std::nullopt;
}

std::optional<Sha256> digestFrom(std::string_view hex) {
    Sha256 digest{};
    if (hex.size() != 2 * digest.size()) {
        return std::nullopt;
    }
    const auto value = [](char digit) {
        return digit >= '0' && digit <= '9'   ? digit - '0'
               : digit >= 'a' && digit <= 'f' ? digit - 'a' + 10
                                              : -1;
    };
    for (std::size_t i = 0; i < digest.size(); ++i) {
        const int high = value(hex[2 * i]);
        const int low = value(hex[2 * i + 1]);
        if (high < 0 || low < 0) {
            return std::nullopt;
        }
        digest[i] = static_cast<std::uint8_t>(16 * high + low);
    }
    return digest;
}

Fingerprint fingerprintAt(const Json& json) {
    Fingerprint words;
    const auto found = json.find("fingerprint");
    if (found == json.end() || !found->is_array() || found->size() > mostWords) {
        return words;
    }
    for (const auto& word : *found) {
        if (!word.is_number_unsigned() || word.get<std::uint64_t>() > UINT32_MAX) {
            return {};
        }
        words.push_back(static_cast<std::uint32_t>(word.get<std::uint64_t>()));
    }
    return words;
}

std::optional<Offer> offerFrom(const Json& json, std::size_t questions) {
    if (!json.is_object()) {
        return std::nullopt;
    }
    const auto number = countAt(json, "for");
    const auto bytes = countAt(json, "bytes");
    const auto digest = digestFrom(textAt(json, "sha256"));
    const auto seconds = json.find("seconds");
    const auto address = json.find("address");
    const bool isWhole = number && *number < questions && bytes && *bytes > 0 && digest &&
                         seconds != json.end() && seconds->is_number() && address != json.end() &&
                         address->is_string();
    if (!isWhole) {
        return std::nullopt;
    }
    Offer offer;
    offer.number = static_cast<std::size_t>(*number);
    offer.address = address->get<std::string>();
    offer.title = textAt(json, "title");
    offer.artist = textAt(json, "artist");
    offer.bytes = *bytes;
    offer.sha256 = *digest;
    offer.claims.codec = textAt(json, "codec");
    offer.claims.duration = seconds->get<double>();
    const auto lossless = json.find("lossless");
    offer.claims.lossless = lossless != json.end() && lossless->is_boolean() && lossless->get<bool>();
    offer.claims.bitrate =
        static_cast<std::int64_t>(std::min<std::uint64_t>(countAt(json, "bitrate").value_or(0), INT32_MAX));
    offer.fingerprint = fingerprintAt(json);
    const bool isPlausible = offer.address.size() <= longestAddress && !offer.address.empty() &&
                             std::isfinite(offer.claims.duration) && offer.claims.duration > 0 &&
                             offer.claims.duration <= longestSeconds;
    return isPlausible ? std::optional(std::move(offer)) : std::nullopt;
}

} // namespace

std::string textOfQuestions(std::span<const OfferQuestion> questions) {
    Json json{{"schema", "sober.offers-asked/1"}, {"wanted", Json::array()}};
    for (const auto& question : questions) {
        json["wanted"].push_back({{"number", question.number},
                                  {"title", repairedUtf8(question.title)},
                                  {"artist", repairedUtf8(question.artist)},
                                  {"seconds", question.seconds}});
    }
    return json.dump();
}

Result<std::vector<Offer>> offersFrom(std::string_view text, std::size_t questions) {
    const auto json = Json::parse(text.begin(), text.end(), nullptr, false);
    const auto list = json.is_object() ? json.find("offers") : json.end();
    if (!json.is_object() || textAt(json, "schema") != "sober.offers/1" || list == json.end() ||
        !list->is_array() || list->size() > mostOffers) {
        return Error{Cause::damaged, {}, "What the offer shelf answers is no list of offers."};
    }
    std::vector<Offer> offers;
    for (const auto& each : *list) {
        if (auto offer = offerFrom(each, questions)) {
            offers.push_back(std::move(*offer));
        }
    }
    return offers;
}

} // namespace sober
