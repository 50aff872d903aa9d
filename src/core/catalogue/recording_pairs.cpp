#include "core/catalogue/recording_pairs.h"

#include "core/catalogue/guarded.h"

#include <nlohmann/json.hpp>

#include <cmath>

namespace sober {
namespace {

using Json = nlohmann::json;

/// Tenths of a decibel.
template <typename Values>
Json inTenths(const Values& values) {
    Json list = Json::array();
    for (const float value : values) {
        list.push_back(std::lround(value * 10));
    }
    return list;
}

std::string packed(const DecodeComparison& comparison) {
    return Json{{"offset", comparison.offset},
                {"drift", comparison.drift},
                {"gain", comparison.gain},
                {"spread", comparison.spread},
                {"residual", comparison.residual},
                {"agreeing", comparison.agreeing},
                {"compared", comparison.compared},
                {"over", comparison.standsOver},
                {"first_side", comparison.firstSide},
                {"second_side", comparison.secondSide},
                {"block", comparison.blockSeconds},
                {"over_time", inTenths(comparison.overTime)},
                {"by_band", inTenths(comparison.byBand)}}
        .dump();
}

std::optional<DecodeComparison> unpacked(const std::string& text) {
    const auto json = Json::parse(text, nullptr, false);
    if (!json.is_object()) {
        return std::nullopt;
    }
    DecodeComparison comparison;
    comparison.offset = json.value("offset", 0.0);
    comparison.drift = json.value("drift", 0.0);
    comparison.gain = json.value("gain", 0.0);
    comparison.spread = json.value("spread", 0.0);
    comparison.residual = json.value("residual", 0.0);
    comparison.agreeing = json.value("agreeing", 0.0);
    comparison.compared = json.value("compared", 0.0);
    comparison.standsOver = json.value("over", -1.0);
    comparison.firstSide = json.value("first_side", 0.0);
    comparison.secondSide = json.value("second_side", 0.0);
    comparison.blockSeconds = json.value("block", 0.0);
    for (const auto& tenths : json.value("over_time", Json::array())) {
        comparison.overTime.push_back(static_cast<float>(tenths.get<long>()) / 10);
    }
    const auto bands = json.value("by_band", Json::array());
    for (std::size_t band = 0; band < std::min(bands.size(), comparedBands); ++band) {
        comparison.byBand[band] = static_cast<float>(bands[band].get<long>()) / 10;
    }
    return comparison;
}

RecordingPair pairFrom(SQLite::Statement& row) {
    return {checksumOf(row.getColumn(0)), checksumOf(row.getColumn(1)), row.getColumn(2).getDouble(),
            row.getColumn(3).getDouble(), unpacked(row.getColumn(4).getString())};
}

constexpr const char* pairColumns =
    "SELECT first, second, bit_errors, offset, comparison FROM recording_pairs";

} // namespace

RecordingPair turned(const RecordingPair& pair) {
    RecordingPair other = pair;
    std::swap(other.first, other.second);
    other.offset = -pair.offset;
    if (other.comparison) {
        auto& comparison = *other.comparison;
        comparison.offset = -comparison.offset;
        comparison.drift = -comparison.drift;
        comparison.gain = -comparison.gain;
        std::swap(comparison.firstSide, comparison.secondSide);
    }
    return other;
}

Result<std::vector<RecordingPair>> RecordingPairs::all() const {
    return guarded(catalogue_, [&] {
        SQLite::Statement ask(catalogue_.database(), pairColumns);
        std::vector<RecordingPair> pairs;
        while (ask.executeStep()) {
            pairs.push_back(pairFrom(ask));
        }
        return pairs;
    });
}

Result<std::optional<RecordingPair>> RecordingPairs::of(const Checksum128& first,
                                                        const Checksum128& second) const {
    return guarded(catalogue_, [&]() -> std::optional<RecordingPair> {
        const bool swapped = second < first;
        SQLite::Statement ask(catalogue_.database(),
                              std::string(pairColumns) + " WHERE first = ? AND second = ?");
        bindBytes(ask, 1, swapped ? second : first);
        bindBytes(ask, 2, swapped ? first : second);
        if (!ask.executeStep()) {
            return std::nullopt;
        }
        const auto pair = pairFrom(ask);
        return swapped ? turned(pair) : pair;
    });
}

Outcome RecordingPairs::put(std::span<const RecordingPair> pairs) const {
    return guarded(catalogue_, [&] {
        WritingTransaction transaction(catalogue_.database());
        SQLite::Statement insert(catalogue_.database(),
                                 "INSERT OR REPLACE INTO recording_pairs VALUES(?,?,?,?,?)");
        for (const auto& given : pairs) {
            const auto pair = given.second < given.first ? turned(given) : given;
            bindBytes(insert, 1, pair.first);
            bindBytes(insert, 2, pair.second);
            insert.bind(3, pair.bitErrors);
            insert.bind(4, pair.offset);
            insert.bind(5, pair.comparison ? packed(*pair.comparison) : std::string());
            insert.exec();
            insert.reset();
        }
        catalogue_.database().exec("UPDATE freshness SET findings_stale = 1");
        transaction.commit();
    });
}

} // namespace sober
