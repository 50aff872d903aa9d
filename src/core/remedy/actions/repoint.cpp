#include "core/remedy/actions/repoint.h"

namespace sober {

ActionType repointType() {
    ActionType type;
    type.turn = 1;
    return type;
}

} // namespace sober
