#include "core/disc/rip_register.h"

#include "core/base/text.h"
#include "core/disc/sliding_crc.h"

#include <fmt/format.h>
#include <nlohmann/json.hpp>

#include <algorithm>
#include <cstdlib>

namespace sober {
namespace {

using Json = nlohmann::json;

constexpr std::size_t mostPressings = 1'000;
constexpr int edge = 5 * samplesPerSector; // left out at both ends of a track

std::optional<std::uint32_t> crcFrom(const std::string& text) {
    const auto bytes = bytesFromHex(lowerAscii(text));
    if (!bytes || bytes->size() != sizeof(std::uint32_t)) {
        return std::nullopt;
    }
    std::uint32_t crc = 0;
    for (const char each : *bytes) {
        crc = crc << 8 | static_cast<std::uint8_t>(each);
    }
    return crc;
}

} // namespace

Result<std::vector<RegisteredDisc>> registerFrom(std::string_view text) {
    const Error nonsense{Cause::damaged, {}, "The rip register answers what is no answer."};
    const auto json = Json::parse(text, nullptr, false);
    try {
        if (json.at("schema") != "sober.register/1" || json.at("pressings").size() > mostPressings) {
            return nonsense;
        }
        std::vector<RegisteredDisc> pressings;
        for (const auto& pressing : json.at("pressings")) {
            RegisteredDisc disc;
            for (const auto& track : pressing.at("tracks")) {
                const int number = track.at("number").get<int>();
                const auto crc = crcFrom(track.at("crc32").get<std::string>());
                const int reported = track.at("reported").get<int>();
                if (!crc || number < 1 || number > mostTracks || reported < 1) {
                    return nonsense;
                }
                disc.tracks.push_back({number, *crc, reported});
            }
            pressings.push_back(std::move(disc));
        }
        return pressings;
    } catch (const Json::exception&) {
        return nonsense;
    }
}

std::map<std::uint32_t, int> RegisterCheck::reportedOf(int number) const {
    std::map<std::uint32_t, int> wanted;
    for (const auto& pressing : pressings_) {
        for (const auto& track : pressing.tracks) {
            if (track.number == number) {
                wanted[track.crc] += track.reported;
            }
        }
    }
    return wanted;
}

void RegisterCheck::takeAt(int number, std::span<const std::int16_t> samples, int offset) {
    const auto wanted = reportedOf(number);
    if (samples.size() / 2 <= std::size_t{2} * edge) {
        return;
    }
    const auto inner = samples.subspan(std::size_t{2} * edge, samples.size() - std::size_t{4} * edge);
    if (const auto found = wanted.find(crcOf(inner)); found != wanted.end()) {
        heard_[number].agreeing[offset] = found->second;
    }
}

void RegisterCheck::take(int number, std::span<const std::int16_t> samples) {
    const auto wanted = reportedOf(number);
    const auto frames = samples.size() / 2;
    const auto around = static_cast<std::size_t>(2 * (farthestOffset + edge));
    if (wanted.empty() || frames <= around) {
        return;
    }
    auto& heard = heard_[number];
    const auto within = samples.subspan(std::size_t{2} * edge, samples.size() - std::size_t{4} * edge);
    const auto sums = slidingCrc(within, frames - around);
    for (std::size_t i = 0; i < sums.size(); ++i) {
        if (const auto found = wanted.find(sums[i]); found != wanted.end()) {
            heard.agreeing[static_cast<int>(i) - farthestOffset] = found->second;
        }
    }
    // What looks the same in many places (silence) tells no place.
    constexpr std::size_t mostPlaces = 3;
    if (heard.agreeing.size() > mostPlaces) {
        std::erase_if(heard.agreeing, [this](const auto& each) { return each.first != expected_; });
    }
    settle();
}

void RegisterCheck::settle() {
    std::map<int, int> witnesses;
    for (const auto& [number, heard] : heard_) {
        for (const auto& [offset, reported] : heard.agreeing) {
            ++witnesses[offset];
        }
    }
    const auto best = std::ranges::max_element(witnesses, {}, [this](const auto& each) {
        return std::tuple(each.second, each.first == expected_, -std::abs(each.first));
    });
    if (best != witnesses.end() && (best->second >= std::min(2, tracks_) || best->first == expected_)) {
        proven_ = best->first;
    }
}

RegisterWord RegisterCheck::wordFor(int number) const {
    RegisterWord word;
    word.offset = proven_.value_or(expected_);
    word.isKnown = std::ranges::any_of(pressings_, [number](const RegisteredDisc& disc) {
        return std::ranges::find(disc.tracks, number, &RegisteredDisc::Track::number) != disc.tracks.end();
    });
    const auto heard = heard_.find(number);
    if (heard != heard_.end()) {
        const auto agreeing = heard->second.agreeing.find(word.offset);
        word.agree = agreeing != heard->second.agreeing.end() ? agreeing->second : 0;
    }
    return word;
}

std::string registerWords(const RegisterWord& word) {
    return word.agree > 0 ? fmt::format("{} got the same",
                                        counted(static_cast<std::uint64_t>(word.agree), "other", "others"))
           : word.isKnown ? "others differ"
                          : "nobody has reported it";
}

} // namespace sober
