#include "core/catalogue/holding_filter.h"

#include "core/base/text.h"
#include "core/catalogue/filter_clause.h"
#include "core/catalogue/guarded.h"

#include <nlohmann/json.hpp>

#include <array>

namespace sober {
namespace {

constexpr std::array<std::string_view, 3> kindWords{"any", "lossless", "lossy"};
constexpr std::array<VerdictClass, 4> allVerdicts{VerdictClass::genuine, VerdictClass::doubtful,
                                                  VerdictClass::transcoded, VerdictClass::undetermined};

} // namespace

std::string textOf(const HoldingFilter& filter) {
    nlohmann::json json = nlohmann::json::object();
    if (!filter.text.empty()) {
        json["text"] = filter.text;
    }
    if (filter.volume) {
        json["volume"] = *filter.volume;
    }
    if (!filter.folder.empty()) {
        json["folder"] = toHex(
            std::span(reinterpret_cast<const std::uint8_t*>(filter.folder.data()), filter.folder.size()));
    }
    if (!filter.codec.empty()) {
        json["codec"] = filter.codec;
    }
    if (filter.kind != HoldingFilter::Kind::any) {
        json["kind"] = kindWords.at(static_cast<std::size_t>(filter.kind));
    }
    for (const auto verdict : filter.verdicts) {
        json["verdicts"].push_back(wordFor(verdict));
    }
    for (const auto& [name, set] :
         {std::pair("under_limit", filter.underLimit), std::pair("better_elsewhere", filter.betterElsewhere),
          std::pair("accepted_too", filter.acceptedToo)}) {
        if (set) {
            json[name] = true;
        }
    }
    return json.dump(-1, ' ', false, nlohmann::json::error_handler_t::replace);
}

std::optional<HoldingFilter> filterFrom(const std::string& text) {
    try {
        const auto json = nlohmann::json::parse(text);
        HoldingFilter filter;
        filter.text = json.value("text", "");
        if (json.contains("volume")) {
            filter.volume = json.at("volume").get<VolumeId>();
        }
        const auto folder = bytesFromHex(json.value("folder", ""));
        if (!folder) {
            return std::nullopt;
        }
        filter.folder = *folder;
        filter.codec = json.value("codec", "");
        const auto kind = std::ranges::find(kindWords, json.value("kind", "any"));
        if (kind == kindWords.end()) {
            return std::nullopt;
        }
        filter.kind = static_cast<HoldingFilter::Kind>(kind - kindWords.begin());
        for (const auto& word : json.value("verdicts", nlohmann::json::array())) {
            const auto verdict = std::ranges::find(allVerdicts, word.get<std::string>(), wordFor);
            if (verdict == allVerdicts.end()) {
                return std::nullopt;
            }
            filter.verdicts.push_back(*verdict);
        }
        filter.underLimit = json.value("under_limit", false);
        filter.betterElsewhere = json.value("better_elsewhere", false);
        filter.acceptedToo = json.value("accepted_too", false);
        return filter;
    } catch (const nlohmann::json::exception&) {
        return std::nullopt;
    }
}

FilterClause::FilterClause(const HoldingFilter& filter) {
    if (!filter.text.empty()) {
        also(
            "(CAST(h.path AS TEXT) LIKE '%' || ? || '%' OR h.title LIKE '%' || ? || '%' OR h.artist LIKE '%' "
            "|| ? || '%' OR h.album LIKE '%' || ? || '%')");
        for (int i = 0; i < 4; ++i) {
            values_.push_back({Form::text, 0, filter.text});
        }
    }
    if (filter.volume) {
        also("h.volume = ?");
        values_.push_back({Form::number, *filter.volume, {}});
        if (!filter.folder.empty()) {
            // A slash is followed by "0": everything between lies within the folder.
            also("h.path >= ? AND h.path < ?");
            values_.push_back({Form::bytes, 0, filter.folder + '/'});
            values_.push_back({Form::bytes, 0, filter.folder + '0'});
        }
    }
    if (!filter.codec.empty()) {
        also("h.codec = ?");
        values_.push_back({Form::text, 0, filter.codec});
    }
    if (filter.kind != HoldingFilter::Kind::any) {
        also(filter.kind == HoldingFilter::Kind::lossless ? "h.lossless = 1" : "h.lossless = 0");
    }
    if (!filter.verdicts.empty()) {
        also("e.verdict IN (" + placeholders(filter.verdicts.size()) + ")");
        for (const auto verdict : filter.verdicts) {
            values_.push_back({Form::number, static_cast<std::int64_t>(verdict), {}});
        }
    }
    if (filter.underLimit) {
        also("h.lossless = 0 AND h.bitrate > 0 AND h.bitrate < (SELECT l.bitrate FROM bitrate_limits l "
             "WHERE l.codec = h.codec)");
    }
    if (filter.betterElsewhere) {
        // Those that have any better copy are few: the search begins with them.
        also("h.id IN (SELECT holding FROM better_copies)");
        also("EXISTS(SELECT 1 FROM better_copies b JOIN holdings o ON o.id = b.better WHERE b.holding = h.id "
             "AND o.volume <> h.volume AND o.state = 0)");
    }
    if (!filter.acceptedToo && (!filter.verdicts.empty() || filter.underLimit)) {
        also(std::string("NOT COALESCE(") + acceptedSql + ", 0)");
    }
    if (sql_.empty()) {
        sql_ = "1";
    }
}

void FilterClause::also(const std::string& condition) {
    sql_ += (sql_.empty() ? "(" : " AND (") + condition + ")";
}

int FilterClause::bindTo(SQLite::Statement& statement, int at) const {
    for (const auto& bound : values_) {
        if (bound.form == Form::number) {
            statement.bind(at++, bound.number);
        } else if (bound.form == Form::bytes) {
            bindBytes(statement, at++, bound.text);
        } else {
            statement.bind(at++, bound.text);
        }
    }
    return at;
}

} // namespace sober
