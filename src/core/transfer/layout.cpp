#include "core/transfer/layout.h"

#include <fmt/format.h>

#include <algorithm>

namespace sober {
namespace {

constexpr std::array<std::string_view, layoutFieldCount> fieldWords{
    "albumartist", "artist", "album", "disc",     "track", "title",
    "date",        "year",   "genre", "composer", "name",  "folders"};
constexpr unsigned mostDigits = 9;

bool isDigit(char c) {
    return c >= '0' && c <= '9';
}

Error wrongLayout(std::size_t at, std::string_view what) {
    return {Cause::invalid, {}, fmt::format("The layout is wrong at character {}: {}", at + 1, what)};
}

/// A slash parts folders wherever it stands: within a value it becomes a dash.
std::string withoutSlashes(std::string value) {
    std::ranges::replace(value, '/', '-');
    return value;
}

std::vector<std::string> foldersIn(const std::string& text) {
    std::vector<std::string> folders;
    std::size_t at = 0;
    while (at <= text.size()) {
        const auto end = std::min(text.find('/', at), text.size());
        if (end > at) {
            folders.push_back(text.substr(at, end - at));
        }
        at = end + 1;
    }
    return folders;
}

} // namespace

std::string numberOf(const std::string& text, unsigned digits) {
    const auto end = std::ranges::find_if_not(text, isDigit);
    std::string number(text.begin(), end);
    if (number.empty() || (end != text.end() && *end != '/')) {
        return text;
    }
    number.erase(0, std::min(number.find_first_not_of('0'), number.size() - 1));
    return std::string(digits > number.size() ? digits - number.size() : 0, '0') + number;
}

Result<Layout> Layout::named(std::string_view text) {
    return text == "keep" ? keep() : text == "flat" ? flat() : parse(text);
}

Result<Layout> Layout::parse(std::string_view text) {
    Layout layout;
    layout.levels_.emplace_back();
    std::size_t at = 0;
    bool choiceAwaited = false;
    while (at < text.size()) {
        const char c = text[at];
        auto& level = layout.levels_.back();
        if (c == ' ') {
            ++at;
        } else if (c == '/') {
            if (level.empty() || choiceAwaited) {
                return wrongLayout(at, "a folder needs a field or quoted text before the slash.");
            }
            layout.levels_.emplace_back();
            ++at;
        } else if (c == '"') {
            if (choiceAwaited) {
                return wrongLayout(at, "\"|\" stands between two fields.");
            }
            const auto end = text.find('"', at + 1);
            if (end == std::string_view::npos) {
                return wrongLayout(at, "the quoted text has no end.");
            }
            if (text.substr(at, end - at).find('/') != std::string_view::npos) {
                return wrongLayout(at, "quoted text cannot hold a slash; folders are parted outside of it.");
            }
            level.push_back({std::string(text.substr(at + 1, end - at - 1)), {}});
            at = end + 1;
        } else if (c == '|') {
            if (level.empty() || level.back().choices.empty() || choiceAwaited) {
                return wrongLayout(at, "\"|\" stands between two fields.");
            }
            choiceAwaited = true;
            ++at;
        } else {
            auto end = at;
            while (end < text.size() && ((text[end] >= 'a' && text[end] <= 'z'))) {
                ++end;
            }
            const auto word = std::ranges::find(fieldWords, text.substr(at, end - at));
            if (end == at || word == fieldWords.end()) {
                return wrongLayout(at, fmt::format("there is no field \"{}\"; there are {}.",
                                                   text.substr(at, std::max<std::size_t>(end - at, 1)),
                                                   fmt::join(fieldWords, ", ")));
            }
            Choice choice{static_cast<LayoutField>(word - fieldWords.begin()), 0};
            at = end;
            if (at < text.size() && text[at] == '.') {
                for (++at; at < text.size() && isDigit(text[at]); ++at) {
                    choice.digits =
                        std::min(choice.digits * 10 + static_cast<unsigned>(text[at] - '0'), mostDigits + 1);
                }
                if (choice.digits == 0 || choice.digits > mostDigits) {
                    return wrongLayout(end,
                                       "\".\" is followed by how many digits a number shall have, 1 to 9.");
                }
            }
            if (choiceAwaited) {
                level.back().choices.push_back(choice);
            } else {
                level.push_back({{}, {choice}});
            }
            choiceAwaited = false;
        }
    }
    if (choiceAwaited || layout.levels_.back().empty()) {
        return wrongLayout(text.size(),
                           choiceAwaited ? "a field is missing after \"|\"." : "the file needs a name.");
    }
    const bool named =
        std::ranges::any_of(layout.levels_.back(), [](const Part& part) { return !part.choices.empty(); });
    if (!named) {
        return wrongLayout(text.size(), "every file would have the same name: its name needs a field.");
    }
    return layout;
}

Layout Layout::keep() {
    return *parse("folders / name");
}

Layout Layout::flat() {
    return *parse("name");
}

std::string Layout::valueOf(const Part& part, const LayoutFields& fields) {
    for (const auto& [field, digits] : part.choices) {
        const auto& value = fields[field];
        if (!value.empty()) {
            const bool number = digits > 0 || field == LayoutField::track || field == LayoutField::disc;
            return number ? numberOf(value, digits) : value;
        }
    }
    return {};
}

std::string Layout::textOf(const Level& level, const LayoutFields& fields) {
    std::vector<std::string> values;
    for (const auto& part : level) {
        values.push_back(valueOf(part, fields));
    }
    /// Whether the nearest field on one side says something; beyond the edge there is nothing to miss.
    const auto speaks = [&](std::size_t from, int step) {
        for (auto at = static_cast<std::ptrdiff_t>(from) + step;
             at >= 0 && at < static_cast<std::ptrdiff_t>(level.size()); at += step) {
            if (!level[static_cast<std::size_t>(at)].choices.empty()) {
                return !values[static_cast<std::size_t>(at)].empty();
            }
        }
        return true;
    };
    std::string text;
    for (std::size_t at = 0; at < level.size(); ++at) {
        if (!level[at].choices.empty()) {
            text += values[at];
        } else if (speaks(at, -1) && speaks(at, 1)) {
            text += level[at].quoted;
        }
    }
    return text;
}

std::vector<std::string> Layout::namesFor(const LayoutFields& fields) const {
    LayoutFields flat = fields;
    for (std::size_t field = 0; field < layoutFieldCount; ++field) {
        if (static_cast<LayoutField>(field) != LayoutField::folders) {
            flat.values[field] = withoutSlashes(std::move(flat.values[field]));
        }
    }
    // "3/12" is a number and how many there are.
    for (const auto field : {LayoutField::track, LayoutField::disc}) {
        flat[field] = fields[field];
    }
    std::vector<std::string> names;
    for (std::size_t level = 0; level + 1 < levels_.size(); ++level) {
        const auto folders = foldersIn(textOf(levels_[level], flat));
        names.insert(names.end(), folders.begin(), folders.end());
    }
    auto name = withoutSlashes(textOf(levels_.back(), flat));
    names.push_back(name.empty() ? flat[LayoutField::name] : std::move(name));
    return names;
}

} // namespace sober
