#include "cli/notify.h"

#include <systemd/sd-bus.h>

#include <memory>

namespace sober::cli {
namespace {

struct CloseBus {
    void operator()(sd_bus* bus) const { sd_bus_flush_close_unref(bus); }
};

} // namespace

Outcome notifyDesktop(const std::string& summary, const std::string& body) {
    sd_bus* opened = nullptr;
    const int found = sd_bus_open_user(&opened);
    const std::unique_ptr<sd_bus, CloseBus> bus(opened);
    const int told =
        found < 0
            ? found
            : sd_bus_call_method(bus.get(), "org.freedesktop.Notifications", "/org/freedesktop/Notifications",
                                 "org.freedesktop.Notifications", "Notify", nullptr, nullptr, "susssasa{sv}i",
                                 "Sober Archivist", 0U, "", summary.c_str(), body.c_str(), 0, 0, -1);
    return told < 0 ? Outcome(Error{Cause::notFound, {}, "No desktop was there to be told of it."}) : done();
}

} // namespace sober::cli
