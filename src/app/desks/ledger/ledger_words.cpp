#include "app/desks/ledger/ledger_words.h"

#include "app/words.h"

#include <QCoreApplication>

namespace sober::app {
namespace {

QString said(const char* text) {
    return QCoreApplication::translate("Ledger", text);
}

} // namespace

bool isDeed(const LedgerEntry& entry) {
    return entry.kind != "survey" && entry.kind != "verify";
}
bool wasTakenBack(const LedgerEntry& entry) {
    return entry.carriedOut == 0 && entry.undone > 0;
}
bool canBeTakenBack(const LedgerEntry& entry) {
    return entry.kind == "carry-out" && entry.carriedOut > 0;
}

QString kindText(const LedgerEntry& entry) {
    if (entry.kind == "survey") {
        return said("Survey");
    }
    if (entry.kind == "verify") {
        return said("Verified");
    }
    if (entry.kind == "carry-out") {
        return said("Carried out");
    }
    return entry.kind == "undo" ? said("Taken back") : said("Put in order");
}

QString entryText(const LedgerEntry& entry) {
    return shown(entry.summary) + (wasTakenBack(entry) ? said(" (taken back)") : QString());
}

QString kindText(std::optional<ActionKind> kind) {
    return !kind ? QString()
                 : shown(std::string(word(kind == ActionKind::acceptChange ? ActionKind::accept : *kind)));
}

Mark markOfKind(ActionKind kind) {
    return kind == ActionKind::retire || kind == ActionKind::discard        ? Mark::retire
           : kind == ActionKind::accept || kind == ActionKind::acceptChange ? Mark::accepted
           : kind == ActionKind::retag                                      ? Mark::retag
           : kind == ActionKind::repoint || kind == ActionKind::move || kind == ActionKind::replace
               ? Mark::moved
           : kind == ActionKind::copy || kind == ActionKind::encode || kind == ActionKind::rip ? Mark::copies
           : isOwnList(kind)                                                                   ? Mark::retag
           : isMended(kind) || kind == ActionKind::rewrite || kind == ActionKind::bringBack ||
                   kind == ActionKind::salvage
               ? Mark::sound
               : Mark::writeOff;
}

QString outcomeText(const LedgerAction& action) {
    switch (action.step) {
    case ActionStep::refused:
        return said("refused");
    case ActionStep::started:
    case ActionStep::undoStarted:
        return said("waits to be settled");
    case ActionStep::carriedOut:
        return action.unflushed ? said("done, not confirmed") : said("carried out");
    case ActionStep::takenBack:
        return said("not done");
    case ActionStep::undone:
        return said("taken back");
    }
    return {};
}

QString unflushedText(const CarriedOut& result) {
    if (result.unflushed.empty()) {
        return {};
    }
    return said(" Done, but the drive of %1 has not confirmed that this outlasts a loss of power (%2). Look "
                "to that "
                "drive; the next start asks again.")
        .arg(shown(displayPath(result.unflushed.front())), shown(counted(result.unflushed.size(), "action")));
}

} // namespace sober::app
