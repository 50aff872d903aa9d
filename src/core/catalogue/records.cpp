#include "core/catalogue/records.h"

namespace sober {

std::string_view stateWord(HoldingState state) {
    switch (state) {
    case HoldingState::leftOut:
        return "left-out";
    case HoldingState::missing:
        return "missing";
    case HoldingState::writtenOff:
        return "written-off";
    case HoldingState::retired:
        return "retired";
    case HoldingState::forgotten:
        return "forgotten";
    case HoldingState::present:
        break;
    }
    return "present";
}

} // namespace sober
