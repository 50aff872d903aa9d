#include "cli/ledger_command.h"

#include "cli/answers.h"
#include "core/audit/refresh_findings.h"
#include "core/base/text.h"
#include "core/catalogue/ledger_store.h"
#include "core/exchange/premis.h"
#include "core/remedy/journal/taking_back.h"
#include "core/work/carry_out.h"

#include <fmt/format.h>

#include <charconv>
#include <cstdio>

namespace sober::cli {
namespace {

/// `also`: what else can be said in its place.
std::optional<EntryId> entryFrom(const std::string& word, std::string_view also = {}) {
    EntryId id = 0;
    const auto [end, trouble] = std::from_chars(word.data(), word.data() + word.size(), id);
    if (trouble == std::errc() && end == word.data() + word.size()) {
        return id;
    }
    sayOn(stderr, "\"{}\" is no entry: give its number as the ledger lists it{}.\n", word, also);
    return std::nullopt;
}

std::string_view stepWords(ActionStep step) {
    switch (step) {
    case ActionStep::refused:
        return "refused";
    case ActionStep::carriedOut:
        return "carried out";
    case ActionStep::takenBack:
        return "not done";
    case ActionStep::undone:
        return "taken back";
    case ActionStep::started:
    case ActionStep::undoStarted:
        break;
    }
    return "not settled yet";
}

} // namespace

int runLedger(const CommonOptions& common) {
    const auto catalogue = openLooking(common);
    if (!catalogue) {
        return fail(catalogue.error());
    }
    const auto entries = LedgerStore(*catalogue).entries();
    if (!entries) {
        return fail(entries.error());
    }
    if (common.json) {
        printJson(ledgerShape(*entries));
        return exitDone;
    }
    for (const auto& entry : *entries) {
        say("{:>5}  {}  {:<9}  {}{}\n", entry.id, isoUtc(entry.time), entry.kind, inWords(entry),
            isUndone(entry) ? " (taken back)" : "");
    }
    return exitDone;
}

int runLedgerEntry(const CommonOptions& common, const std::string& word) {
    const auto id = entryFrom(word);
    if (!id) {
        return exitUsage;
    }
    const auto catalogue = openLooking(common);
    if (!catalogue) {
        return fail(catalogue.error());
    }
    const LedgerStore ledger(*catalogue);
    const auto entry = ledger.entry(*id);
    const auto actions = ledger.actionsOf(*id);
    if (!entry || !actions) {
        return fail(entry ? actions.error() : entry.error());
    }
    if (!*entry) {
        return fail({Cause::notFound, {}, fmt::format("The ledger has no entry {}.", *id)});
    }
    if (common.json) {
        auto json = ledgerShape(std::vector{**entry});
        Json files = Json::array();
        for (const auto& action : *actions) {
            Json file = withPath(action.place);
            file["kind"] = sober::word(action.kind);
            file["state"] = stepWords(action.step);
            file["reason"] = action.sentence;
            file["set_aside"] = action.aside.empty() ? Json() : Json(percentEncodeOffending(action.aside));
            files.push_back(std::move(file));
        }
        json["entries"][0]["files"] = std::move(files);
        printJson(json);
        return exitDone;
    }
    say("{:>5}  {}  {:<9}  {}{}\n", (*entry)->id, isoUtc((*entry)->time), (*entry)->kind, inWords(**entry),
        isUndone(**entry) ? " (taken back)" : "");
    for (const auto& action : *actions) {
        say("       {:<10}  {:<11}  {}\n", sober::word(action.kind), stepWords(action.step),
            displayPath(action.place));
        if (!action.sentence.empty()) {
            say("           {}\n", action.sentence);
        }
    }
    return exitDone;
}

int runLedgerPremis(const CommonOptions& common) {
    const auto catalogue = openLooking(common);
    const auto text = catalogue ? premisOfLedger(*catalogue) : Result<std::string>(catalogue.error());
    if (!text) {
        return fail(text.error());
    }
    std::fwrite(text->data(), 1, text->size(), stdout);
    return exitDone;
}

int runUndo(const CommonOptions& common, const std::string& entry, RunControl& control) {
    EntryId id = 0;
    auto catalogue = openWorking(common);
    if (!catalogue) {
        return fail(catalogue.error());
    }
    if (entry == "last") {
        const auto last = lastUndoable(*catalogue);
        if (!last) {
            return fail(last.error());
        }
        if (!*last) {
            return fail({Cause::notFound, {}, "The ledger holds nothing that can be taken back."});
        }
        id = **last;
    } else {
        const auto given = entryFrom(entry, ", or \"last\"");
        if (!given) {
            return exitUsage;
        }
        id = *given;
    }
    const auto undone = undoEntry(*catalogue, id, control, {});
    if (!undone) {
        return fail(undone.error());
    }
    if (const auto refreshed = refreshFindings(*catalogue); !refreshed) {
        return fail(refreshed.error());
    }
    return showCarriedOut(common, *undone, "taken back");
}

} // namespace sober::cli
