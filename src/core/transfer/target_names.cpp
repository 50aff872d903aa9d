#include "core/transfer/target_names.h"

#include "core/base/text.h"

#include <fmt/format.h>

#include <algorithm>
#include <set>
#include <unordered_map>
#include <unordered_set>

namespace sober {
namespace {

bool isControl(char c) {
    return static_cast<unsigned char>(c) < 0x20 || c == 0x7F;
}

/// Without its last character, which may be several bytes.
void dropLast(std::string& text) {
    while (!text.empty() && (static_cast<unsigned char>(text.back()) & 0xC0) == 0x80) {
        text.pop_back();
    }
    if (!text.empty()) {
        text.pop_back();
    }
}

std::string replaced(const TargetRules& rules, const NameReplacements& replacements, std::string_view name) {
    std::string held;
    for (std::size_t at = 0; at < name.size(); ++at) {
        const char c = name[at];
        if (c == '/' || rules.forbidden.find(c) != std::string_view::npos) {
            const auto by = replacements.characters.find(c);
            held += by != replacements.characters.end() ? by->second : replacements.other;
        } else if (rules.forbidsControls && isControl(c)) {
            held += ' ';
        } else if (rules.onlyBasicPlane && static_cast<unsigned char>(c) >= 0xF0) {
            held += replacements.other;
            at += 3;
        } else {
            held += c;
        }
    }
    return held;
}

void cutEnd(const TargetRules& rules, std::string& name) {
    while (rules.forbidsEndings && !name.empty() && (name.back() == '.' || name.back() == ' ')) {
        name.pop_back();
    }
}

/// Groups of two or more that would be one, in the order of their first members.
std::vector<std::vector<std::size_t>> collisionsIn(const TargetRules& rules,
                                                   const std::vector<TargetName>& names) {
    std::unordered_map<std::string, std::vector<std::size_t>> byKey;
    std::vector<const std::string*> order;
    for (std::size_t at = 0; at < names.size(); ++at) {
        const auto [group, isNew] = byKey.try_emplace(collisionKey(rules, pathOf(names[at])));
        group->second.push_back(at);
        if (isNew) {
            order.push_back(&group->first);
        }
    }
    std::vector<std::vector<std::size_t>> groups;
    for (const auto* key : order) {
        if (auto& group = byKey.at(*key); group.size() > 1) {
            groups.push_back(std::move(group));
        }
    }
    return groups;
}

void refit(const TargetRules& target, const NameReplacements& replacements, TargetName& name,
           const std::string& suffix, const std::string& why) {
    const auto rules = rulesFor(target, name);
    // The suffix is what must not be cut: what stands before it is shortened to the room that is left.
    auto stem = rules.onlyUnicode ? repairedUtf8(name.stem) : name.stem;
    const auto beside =
        lengthIn(rules, suffix) + (name.ending.empty() ? 0 : 1 + lengthIn(rules, name.ending));
    while (!stem.empty() && lengthIn(rules, stem) + beside > rules.longestName) {
        dropLast(stem);
    }
    name.fitted = {fitName(rules, replacements, stem + suffix, name.ending).name, why};
}

/// Tells a group apart by what differs between all of its members; false where nothing does.
bool tellApart(const TargetRules& rules, const NameReplacements& replacements, std::vector<TargetName>& names,
               const std::vector<std::size_t>& group) {
    const std::pair<std::string TargetName::*, std::string_view> means[] = {
        {&TargetName::disc, "disc "}, {&TargetName::album, ""}, {&TargetName::year, ""}};
    for (const auto& [mean, word] : means) {
        std::set<std::string> values;
        for (const auto at : group) {
            if (!(names[at].*mean).empty()) {
                values.insert(collisionKey(rules, replaced(rules, replacements, names[at].*mean)));
            }
        }
        if (values.size() == group.size()) {
            for (const auto at : group) {
                const auto value = replaced(rules, replacements, names[at].*mean);
                refit(rules, replacements, names[at], fmt::format(" ({}{})", word, value),
                      "another file would have the same name");
            }
            return true;
        }
    }
    return false;
}

} // namespace

NameReplacements usualReplacements() {
    return {{{'/', "-"},
             {'\\', "-"},
             {'|', "-"},
             {':', "-"},
             {'"', "'"},
             {'<', "("},
             {'>', ")"},
             {'?', ""},
             {'*', "+"},
             {';', ","}},
            "_"};
}

FittedName fitName(const TargetRules& rules, const NameReplacements& replacements, const std::string& stem,
                   const std::string& ending) {
    const auto whole = [&](const std::string& name) { return ending.empty() ? name : name + "." + ending; };
    const auto why = whyNotHeld(rules, whole(stem));
    if (!why) {
        return {whole(stem), {}};
    }
    auto held = replaced(rules, replacements, rules.onlyUnicode ? repairedUtf8(stem) : stem);
    if (ending.empty()) {
        cutEnd(rules, held);
    }
    if (held.empty() || (ending.empty() && (held == "." || held == ".."))) {
        held = replacements.other;
    }
    if (const auto still = whyNotHeld(rules, whole(held));
        still && lengthIn(rules, whole(held)) <= rules.longestName) {
        held.insert(std::min(held.find('.'), held.size()), replacements.other); // the name of a device
    }
    while (lengthIn(rules, whole(held)) > rules.longestName && !held.empty()) {
        dropLast(held);
        if (ending.empty()) {
            cutEnd(rules, held);
        }
    }
    return {whole(held), *why};
}

std::string collisionKey(const TargetRules& rules, const BytePath& path) {
    return rules.ignoresCase ? foldedName(path) : path;
}

TargetRules rulesFor(const TargetRules& rules, const TargetName& name) {
    auto own = rules;
    own.longestName =
        name.longestName > 0 ? std::min(name.longestName, rules.longestName) : rules.longestName;
    return own;
}

BytePath pathOf(const TargetName& name) {
    return joinPath(name.folder, name.fitted.name);
}

void fitAll(const TargetRules& rules, const NameReplacements& replacements, std::vector<TargetName>& names,
            const std::function<bool(const BytePath&, std::size_t)>& taken) {
    for (auto& name : names) {
        name.fitted = fitName(rulesFor(rules, name), replacements, name.stem, name.ending);
    }
    for (const auto& group : collisionsIn(rules, names)) {
        tellApart(rules, replacements, names, group);
    }
    // What is still one, or stands where something else does, gets a number; the first keeps its name.
    std::unordered_set<std::string> used;
    std::unordered_map<std::string, int> lastNumber;
    for (auto& name : names) {
        const auto wanted = collisionKey(rules, pathOf(name));
        const bool twice = used.contains(wanted);
        auto key = wanted;
        while (used.contains(key) || taken(pathOf(name), static_cast<std::size_t>(&name - names.data()))) {
            const int number = ++lastNumber.try_emplace(wanted, 1).first->second;
            refit(rules, replacements, name, fmt::format(" ({})", number),
                  twice ? "another file would have the same name" : "something else stands there");
            key = collisionKey(rules, pathOf(name));
        }
        used.insert(std::move(key));
    }
}

} // namespace sober
