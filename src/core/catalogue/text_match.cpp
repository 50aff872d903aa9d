#include "core/catalogue/text_match.h"

#include "core/base/paths.h"
#include "core/base/text.h"
#include "core/catalogue/filter_clause.h"
#include "core/catalogue/guarded.h"

#include <fmt/format.h>

namespace sober {
namespace {

std::vector<std::string> wordsOf(const std::string& text) {
    std::vector<std::string> words;
    std::string word;
    bool quoted = false;
    const auto end = [&] {
        if (!word.empty()) {
            words.push_back(std::move(word));
            word.clear();
        }
    };
    for (const char c : text) {
        if (c == '"') {
            end();
            quoted = !quoted;
        } else if (!quoted && (c == ' ' || c == '\t' || c == '\n')) {
            end();
        } else {
            word += c;
        }
    }
    end();
    return words;
}

/// Where each character of UTF-8 begins, and the end.
std::vector<std::size_t> characterStarts(std::string_view text) {
    std::vector<std::size_t> starts;
    for (std::size_t at = 0; at < text.size(); ++at) {
        if ((static_cast<unsigned char>(text[at]) & 0xC0) != 0x80) {
            starts.push_back(at);
        }
    }
    starts.push_back(text.size());
    return starts;
}

/// Every three characters in a row, as the index keeps them; "" for less than three.
std::string partsOf(std::string_view word) {
    const auto starts = characterStarts(word);
    std::string parts;
    for (std::size_t at = 0; at + 3 < starts.size(); ++at) {
        parts += parts.empty() ? "\"" : " AND \"";
        for (const char c : word.substr(starts[at], starts[at + 3] - starts[at])) {
            parts += c == '"' ? "\"\"" : std::string(1, c);
        }
        parts += '"';
    }
    return parts;
}

struct NamedList {
    std::int64_t id;
    std::string name;
};

std::vector<NamedList> listsOf(SQLite::Database& database) {
    SQLite::Statement ask(database, "SELECT id, path FROM lists");
    std::vector<NamedList> lists;
    while (ask.executeStep()) {
        const auto path = bytesOf(ask.getColumn(1));
        lists.push_back({ask.getColumn(0).getInt64(), foldedForSearch(stemOf(path))});
    }
    return lists;
}

} // namespace

TextMatch::TextMatch(SQLite::Database& database, const std::string& text) {
    std::vector<NamedList> lists;
    for (const auto& typed : wordsOf(text)) {
        auto word = foldedForSearch(typed);
        if (word.empty()) {
            continue; // of accents alone
        }
        if (words_.empty()) {
            lists = listsOf(database);
        }
        std::string named;
        for (const auto& list : lists) {
            if (list.name.find(word) != std::string::npos) {
                named += fmt::format("{}{}", named.empty() ? "" : ",", list.id);
            }
        }
        std::string condition = "instr(t.text, ?) > 0";
        if (!named.empty()) {
            condition =
                fmt::format("({} OR EXISTS(SELECT 1 FROM list_references r WHERE {} AND r.list IN ({})))",
                            condition, leadsSql, named);
        } else if (const auto parts = partsOf(word); !parts.empty()) {
            expression_ += (expression_.empty() ? "" : " AND ") + parts;
        }
        sql_ += (sql_.empty() ? "" : " AND ") + condition;
        words_.push_back(std::move(word));
    }
    if (words_.empty()) {
        sql_ = "1";
    }
}

int TextMatch::bindTo(SQLite::Statement& statement, int at) const {
    for (const auto& word : words_) {
        statement.bind(at++, word);
    }
    return at;
}

} // namespace sober
