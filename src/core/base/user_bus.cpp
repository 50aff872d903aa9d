#include "core/base/user_bus.h"

#include <systemd/sd-bus.h>

namespace sober {

void CloseBus::operator()(sd_bus* bus) const {
    sd_bus_flush_close_unref(bus);
}

Result<UserBus> openUserBus() {
    sd_bus* opened = nullptr;
    const int found = sd_bus_open_user(&opened);
    UserBus bus(opened);
    if (found < 0) {
        return Error{Cause::notFound, {}, "No session of a desktop or of systemd was there to be asked."};
    }
    return bus;
}

} // namespace sober
