#include "app/desks/intake/arrival_rows.h"

#include "app/words.h"
#include "core/audit/sameness.h"

namespace sober::app {

Mark markOf(IntakeAdvice advice) {
    switch (advice) {
    case IntakeAdvice::takeIn:
        return Mark::keep;
    case IntakeAdvice::replace:
        return Mark::moved;
    case IntakeAdvice::retire:
        return Mark::retire;
    case IntakeAdvice::leave:
        break;
    }
    return Mark::undetermined;
}

QString adviceWords(IntakeAdvice advice) {
    switch (advice) {
    case IntakeAdvice::takeIn:
        return QObject::tr("take in");
    case IntakeAdvice::replace:
        return QObject::tr("replaces what is held");
    case IntakeAdvice::retire:
        return QObject::tr("held already");
    case IntakeAdvice::leave:
        break;
    }
    return QObject::tr("to be looked at");
}

QString heldWords(const HeldOfIt& held) {
    const auto better = held.better == Better::arrival ? QObject::tr("the arrival is better")
                        : held.better == Better::held  ? QObject::tr("it is better")
                        : held.better == Better::equal ? QObject::tr("as good")
                                                       : QObject::tr("the evidence does not say");
    return QObject::tr("%1%2: %3; %4 (%5).")
        .arg(shownPath(held.path), held.atHand ? QString() : QObject::tr(", away"),
             told(samenessWords(held.sameness)), better, told(held.why));
}

std::vector<Column<Arrival>> arrivalColumns() {
    return {
        {QObject::tr("Advice"),
         [](const Arrival& arrival) {
             return Cell{adviceWords(arrival.advice), markOf(arrival.advice), false, false, {}};
         }},
        {QObject::tr("Arrival"),
         [](const Arrival& arrival) {
             return Cell{shownPath(BytePath(nameOf(arrival.path))), Mark::none, true, false,
                         shownPath(arrival.path)};
         }},
        {QObject::tr("It is"),
         [](const Arrival& arrival) {
             return arrival.sound == false ? Cell{QObject::tr("damaged"), Mark::damaged, false, false, {}}
                    : arrival.verdict
                        ? Cell{verdictWord(*arrival.verdict), markOf(*arrival.verdict), false, false, {}}
                        : Cell{QObject::tr("not examined"), Mark::undetermined, false, true, {}};
         }},
        {QObject::tr("Tags"),
         [](const Arrival& arrival) {
             return arrival.proposals.empty() ? Cell{QObject::tr("as they are"), Mark::none, false, true, {}}
                                              : Cell{told(counted(arrival.proposals.size(), "proposal")),
                                                     Mark::retag,
                                                     false,
                                                     false,
                                                     {}};
         }},
        {QObject::tr("Length"),
         [](const Arrival& arrival) {
             return Cell{told(humanSeconds(arrival.holding.claims.duration)), Mark::none, false, false, {}};
         },
         true},
        {QObject::tr("Held, or where to"), [](const Arrival& arrival) {
             const bool isHeld = !arrival.held.empty();
             const auto& place = isHeld ? arrival.held.front().path : arrival.target;
             return Cell{shownPath(place), isHeld ? Mark::copies : Mark::none, true, !isHeld,
                         shownPath(place)};
         }}};
}

} // namespace sober::app
