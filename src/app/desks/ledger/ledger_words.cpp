#include "app/desks/ledger/ledger_words.h"

#include "app/words.h"

#include <QCoreApplication>

namespace sober::app {
namespace {

struct LedgerWords {
    Q_DECLARE_TR_FUNCTIONS(LedgerWords)
};

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
        return LedgerWords::tr("Survey");
    }
    if (entry.kind == "verify") {
        return LedgerWords::tr("Verified");
    }
    if (entry.kind == "carry-out") {
        return LedgerWords::tr("Carried out");
    }
    return entry.kind == "undo" ? LedgerWords::tr("Taken back") : LedgerWords::tr("Put in order");
}

QString entryText(const LedgerEntry& entry) {
    return told(inWords(entry)) + (wasTakenBack(entry) ? LedgerWords::tr(" (taken back)") : QString());
}

QString kindText(std::optional<ActionKind> kind) {
    return !kind ? QString()
                 : told(std::string(word(kind == ActionKind::acceptChange ? ActionKind::accept : *kind)));
}

Mark markOfKind(ActionKind kind) {
    return kind == ActionKind::retire || kind == ActionKind::discard || kind == ActionKind::clearFolder
               ? Mark::retire
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
        return LedgerWords::tr("refused");
    case ActionStep::started:
    case ActionStep::undoStarted:
        return LedgerWords::tr("waits to be settled");
    case ActionStep::carriedOut:
        return action.unflushed ? LedgerWords::tr("done, not confirmed") : LedgerWords::tr("carried out");
    case ActionStep::takenBack:
        return LedgerWords::tr("not done");
    case ActionStep::undone:
        return LedgerWords::tr("taken back");
    }
    return {};
}

QString unflushedText(const CarriedOut& result) {
    if (result.unflushed.empty()) {
        return {};
    }
    return LedgerWords::tr(
               " Done, but the drive of %1 has not confirmed that this outlasts a loss of power (%2). Look "
               "to that "
               "drive; the next start asks again.")
        .arg(shown(displayPath(result.unflushed.front())), told(counted(result.unflushed.size(), "action")));
}

} // namespace sober::app
