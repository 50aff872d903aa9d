#include "core/exchange/premis.h"

#include "core/base/text.h"
#include "core/catalogue/ledger_store.h"

#include <fmt/format.h>

#include <algorithm>
#include <array>
#include <map>
#include <pugixml.hpp>
#include <sstream>

namespace sober {
namespace {

using Term = std::pair<std::string_view, std::string_view>;
constexpr std::array<Term, 5> terms{{{"survey", "message digest calculation"},
                                     {"verify", "fixity check"},
                                     {"carry-out", "modification"},
                                     {"undo", "recovery"},
                                     {"recovery", "recovery"}}};

constexpr const char* collection = "collection";
constexpr const char* agent = "sober-archivist";

/// XML knows no control characters; a path that is not UTF-8 has the offending bytes percent-encoded.
std::string textFor(std::string_view bytes) {
    return displayPath(bytes);
}

pugi::xml_node add(pugi::xml_node parent, const char* name, const std::string& text = {}) {
    auto node = parent.append_child(name);
    if (!text.empty()) {
        node.text().set(text.c_str());
    }
    return node;
}

void addIdentifier(pugi::xml_node parent, const std::string& of, const std::string& value) {
    auto node = add(parent, (of + "Identifier").c_str());
    add(node, (of + "IdentifierType").c_str(), "local");
    add(node, (of + "IdentifierValue").c_str(), value);
}

void addEvent(pugi::xml_node root, const std::string& id, std::string_view term, Nanoseconds time,
              const std::string& what, std::string_view outcome, const std::string& object) {
    auto event = add(root, "event");
    addIdentifier(event, "event", id);
    add(event, "eventType", std::string(term));
    add(event, "eventDateTime", isoUtc(time));
    add(add(event, "eventDetailInformation"), "eventDetail", what);
    add(add(event, "eventOutcomeInformation"), "eventOutcome", std::string(outcome));
    addIdentifier(event, "linkingAgent", agent);
    addIdentifier(event, "linkingObject", object);
}

/// A list has no holding; its place tells it from others.
std::string objectOf(const LedgerAction& action) {
    const auto* bytes = reinterpret_cast<const std::uint8_t*>(action.place.data());
    return action.holding != 0 ? fmt::format("holding-{}", action.holding)
                               : "place-" + checksumOf({bytes, action.place.size()}).hex();
}

std::string_view outcomeOf(ActionStep step) {
    return step == ActionStep::undone ? "taken back" : "success";
}

} // namespace

std::string_view premisTermFor(std::string_view kind) {
    const auto found = std::ranges::find(terms, kind, &Term::first);
    return found != terms.end() ? found->second : std::string_view("modification");
}

Result<std::string> premisOfLedger(const Catalogue& catalogue) {
    const LedgerStore ledger(catalogue);
    const auto entries = ledger.entries();
    RETURN_IF_FAILED(entries);
    std::map<std::string, const LedgerAction*> objects;
    std::vector<std::pair<const LedgerEntry*, std::vector<LedgerAction>>> all;
    for (auto entry = entries->rbegin(); entry != entries->rend(); ++entry) {
        auto actions = ledger.actionsOf(entry->id);
        RETURN_IF_FAILED(actions);
        std::erase_if(*actions, [](const LedgerAction& action) {
            return action.step != ActionStep::carriedOut && action.step != ActionStep::undone;
        });
        all.emplace_back(&*entry, std::move(*actions));
    }
    for (const auto& [entry, actions] : all) {
        for (const auto& action : actions) {
            objects[objectOf(action)] = &action;
        }
    }

    pugi::xml_document document;
    auto declaration = document.append_child(pugi::node_declaration);
    declaration.append_attribute("version") = "1.0";
    declaration.append_attribute("encoding") = "UTF-8";
    auto root = document.append_child("premis");
    root.append_attribute("xmlns") = "http://www.loc.gov/premis/v3";
    root.append_attribute("xmlns:xsi") = "http://www.w3.org/2001/XMLSchema-instance";
    root.append_attribute("version") = "3.0";
    auto whole = add(root, "object");
    whole.append_attribute("xsi:type") = "intellectualEntity";
    addIdentifier(whole, "object", collection);
    for (const auto& [name, action] : objects) {
        auto object = add(root, "object");
        object.append_attribute("xsi:type") = "file";
        addIdentifier(object, "object", name);
        auto characteristics = add(object, "objectCharacteristics");
        auto fixity = add(characteristics, "fixity");
        add(fixity, "messageDigestAlgorithm", "XXH3-128");
        add(fixity, "messageDigest", action->checksum.hex());
        add(characteristics, "size", std::to_string(action->size));
        add(add(add(characteristics, "format"), "formatDesignation"), "formatName", endingOf(action->place));
        add(object, "originalName", textFor(action->place));
    }
    for (const auto& [entry, actions] : all) {
        addEvent(root, fmt::format("entry-{}", entry->id), premisTermFor(entry->kind), entry->time,
                 textFor(inWords(*entry)), entry->ended != 0 ? "success" : "not ended", collection);
        for (const auto& action : actions) {
            addEvent(root, fmt::format("action-{}", action.id), premisEventOf(action.kind), entry->time,
                     std::string(word(action.kind)) + ": " + textFor(action.place), outcomeOf(action.step),
                     objectOf(action));
        }
    }
    auto by = add(root, "agent");
    addIdentifier(by, "agent", agent);
    add(by, "agentName", "Sober Archivist");
    add(by, "agentType", "software");
    std::ostringstream out;
    document.save(out, "  ");
    return out.str();
}

} // namespace sober
