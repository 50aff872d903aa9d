#include "core/remedy/journal/can_go_back.h"

#include "core/base/presence.h"
#include "core/base/text.h"
#include "core/remedy/actions/action_type.h"
#include "core/remedy/actions/take_in.h"

#include <fmt/format.h>

namespace sober {
namespace {

Outcome cannot(const LedgerAction& action, Cause cause, std::string_view why) {
    return Error{cause, action.place,
                 fmt::format("{} cannot be put back: {}.", displayPath(action.place), why)};
}

/// What is to return has to be where it went, and be what went there.
Outcome isAt(const LedgerAction& action, const BytePath& path, std::string_view gone,
             std::string_view other) {
    switch (presenceOf(path)) {
    case Presence::gone:
        return cannot(action, Cause::notFound, gone);
    case Presence::unknown:
        return cannot(action, Cause::refused, displayPath(path) + " cannot be looked at now");
    case Presence::there:
        break;
    }
    const auto held = holdsWhatWentAside(path, action);
    return held                                   ? held
           : held.error().cause == Cause::changed ? cannot(action, Cause::changed, other)
                                                  : cannot(action, Cause::unreadable, held.error().sentence);
}

Outcome isPlaceFree(const LedgerAction& action) {
    switch (presenceOf(action.place)) {
    case Presence::there:
        return cannot(action, Cause::alreadyThere, "its place is taken");
    case Presence::unknown:
        return cannot(action, Cause::refused, "its place cannot be looked at now");
    case Presence::gone:
        break;
    }
    return done();
}

/// What stands at the place has to be what was put there, or to be gone.
Outcome isStillMade(const LedgerAction& action) {
    switch (presenceOf(standsAt(action))) {
    case Presence::gone:
        return done();
    case Presence::unknown:
        return cannot(action, Cause::refused, "its place cannot be looked at now");
    case Presence::there:
        break;
    }
    const auto held = holds(standsAt(action), action.madeChecksum);
    return held                                   ? held
           : held.error().cause == Cause::changed ? cannot(action, Cause::changed, "it was changed since")
                                                  : held;
}

} // namespace

Outcome canGoBack(const LedgerAction& action, const std::unordered_set<BytePath>& freed) {
    const auto back = typeOf(action.kind).back;
    if (back.empty()) {
        return typeOf(action.kind).changesVolume()
                   ? cannot(action, Cause::refused,
                            "it was let go of for good; its bytes are held at " + displayPath(action.stays))
                   : done();
    }
    const auto first = back.front();
    if (first.step == Step::move) {
        const auto there = isAt(action, action.made, "it is not where it was moved to",
                                "it is not as it was when it was moved");
        return there && !freed.contains(action.place) ? isPlaceFree(action) : there;
    }
    if (first.way == Way::forth) { // what was brought back goes to the trash
        return isStillMade(action);
    }
    const auto there = isAt(action, action.aside, "the trash no longer holds it",
                            "what the trash holds under its name is another file");
    const auto made = there && first.step == Step::place ? isStillMade(action) : there;
    const bool fillsGap = first.step != Step::place || changesPlace(action);
    return made && fillsGap ? isPlaceFree(action) : made;
}

} // namespace sober
