#include "core/catalogue/holding_filter.h"

#include "core/base/text.h"
#include "core/catalogue/filter_clause.h"
#include "core/catalogue/guarded.h"

#include <nlohmann/json.hpp>

#include <array>

namespace sober {
namespace {

constexpr std::array<std::string_view, 3> kindWords{"any", "lossless", "lossy"};
constexpr std::array<std::string_view, 3> listedWords{"any", "in_a_list", "in_no_list"};

template <typename T>
void keepSpan(nlohmann::json& json, const char* name, const Span<T>& span) {
    if (!span.isOpen()) {
        json[name] = {span.from ? nlohmann::json(*span.from) : nlohmann::json(),
                      span.to ? nlohmann::json(*span.to) : nlohmann::json()};
    }
}

template <typename T>
Span<T> keptSpan(const nlohmann::json& json, const char* name) {
    Span<T> span;
    if (json.contains(name)) {
        const auto& kept = json.at(name);
        span.from = kept.at(0).is_null() ? std::nullopt : std::optional(kept.at(0).get<T>());
        span.to = kept.at(1).is_null() ? std::nullopt : std::optional(kept.at(1).get<T>());
    }
    return span;
}

/// The place of a word in its table; nothing where it is none of them.
template <typename Words>
std::optional<std::size_t> placeIn(const Words& words, const std::string& word) {
    const auto found = std::ranges::find(words, word);
    return found == words.end() ? std::nullopt
                                : std::optional(static_cast<std::size_t>(found - words.begin()));
}

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
    if (filter.listed != HoldingFilter::Listed::any) {
        json["listed"] = listedWords.at(static_cast<std::size_t>(filter.listed));
    }
    keepSpan(json, "bitrate", filter.bitrate);
    keepSpan(json, "seconds", filter.seconds);
    keepSpan(json, "years", filter.years);
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
        const auto kind = placeIn(kindWords, json.value("kind", "any"));
        const auto listed = placeIn(listedWords, json.value("listed", "any"));
        if (!kind || !listed) {
            return std::nullopt;
        }
        filter.kind = static_cast<HoldingFilter::Kind>(*kind);
        filter.listed = static_cast<HoldingFilter::Listed>(*listed);
        filter.bitrate = keptSpan<std::int64_t>(json, "bitrate");
        filter.seconds = keptSpan<double>(json, "seconds");
        filter.years = keptSpan<int>(json, "years");
        for (const auto& word : json.value("verdicts", nlohmann::json::array())) {
            const auto verdict = verdictOf(word.get<std::string>());
            if (!verdict) {
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

FilterClause::FilterClause(SQLite::Database& database, const HoldingFilter& filter) {
    alsoText(database, filter.text);
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
    if (filter.listed != HoldingFilter::Listed::any) {
        also(std::string(filter.listed == HoldingFilter::Listed::inNoList ? "NOT " : "") +
             "EXISTS(SELECT 1 FROM list_references r WHERE " + leadsSql + ")");
    }
    alsoWithin("h.bitrate", filter.bitrate);
    alsoWithin("h.duration", filter.seconds);
    alsoWithin("CAST(substr(h.date, 1, 4) AS INTEGER)", filter.years);
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

void FilterClause::alsoText(SQLite::Database& database, const std::string& text) {
    TextMatch match(database, text);
    if (match.isEmpty()) {
        return;
    }
    also("EXISTS(SELECT 1 FROM search_texts t WHERE t.holding = h.id AND " + match.sql() + ")");
    text_ = std::move(match);
    if (text_->expression().empty()) {
        return;
    }
    // A few are named, so that the search begins with them; where there are many, whatever else is asked is
    // less work in its own order.
    constexpr std::size_t few = 20'000;
    SQLite::Statement ask(database, "SELECT rowid FROM search_index WHERE search_index MATCH ? LIMIT " +
                                        std::to_string(few + 1));
    ask.bind(1, text_->expression());
    std::string ids;
    std::size_t count = 0;
    while (ask.executeStep()) {
        ids += (count++ == 0 ? "" : ",") + std::to_string(ask.getColumn(0).getInt64());
    }
    meansFew_ = count <= few;
    if (meansFew_) {
        also("h.id IN (" + ids + ")");
    }
}

/// A value of 0 is not known: no span that is closed has it.
template <typename T>
void FilterClause::alsoWithin(const std::string& value, const Span<T>& span) {
    constexpr bool isReal = std::is_floating_point_v<T>;
    if (!span.isOpen()) {
        also(value + " > 0");
    }
    for (const auto& [bound, sign] : {std::pair(span.from, " >= ?"), std::pair(span.to, " <= ?")}) {
        if (bound) {
            also(value + sign);
            values_.push_back({isReal ? Form::real : Form::number,
                               static_cast<std::int64_t>(*bound),
                               {},
                               static_cast<double>(*bound)});
        }
    }
}

int FilterClause::bindTo(SQLite::Statement& statement, int at) const {
    at = text_ ? text_->bindTo(statement, at) : at;
    for (const auto& bound : values_) {
        if (bound.form == Form::number) {
            statement.bind(at++, bound.number);
        } else if (bound.form == Form::real) {
            statement.bind(at++, bound.real);
        } else if (bound.form == Form::bytes) {
            bindBytes(statement, at++, bound.text);
        } else {
            statement.bind(at++, bound.text);
        }
    }
    return at;
}

} // namespace sober
