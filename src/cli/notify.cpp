#include "cli/notify.h"

#include "core/base/user_bus.h"

#include <systemd/sd-bus.h>

namespace sober::cli {

Outcome notifyDesktop(const std::string& summary, const std::string& body) {
    const auto bus = openUserBus();
    RETURN_IF_FAILED(bus);
    const int told =
        sd_bus_call_method(bus->get(), "org.freedesktop.Notifications", "/org/freedesktop/Notifications",
                           "org.freedesktop.Notifications", "Notify", nullptr, nullptr, "susssasa{sv}i",
                           "Sober Archivist", 0U, "", summary.c_str(), body.c_str(), 0, 0, -1);
    return told < 0 ? Outcome(Error{Cause::notFound, {}, "No desktop was there to be told of it."}) : done();
}

} // namespace sober::cli
