#include "standins/session_service.h"

namespace {

/// Summary and body of a notification, a line each, into the file that is the object's data.
int notify(sd_bus_message* message, void* file, sd_bus_error* /*error*/) {
    const char* application = nullptr;
    const char* icon = nullptr;
    const char* summary = nullptr;
    const char* body = nullptr;
    unsigned replaces = 0;
    const int read = sd_bus_message_read(message, "susss", &application, &replaces, &icon, &summary, &body);
    if (read < 0) {
        return read;
    }
    auto* out = static_cast<std::FILE*>(file);
    std::fprintf(out, "%s: %s\n%s\n", application, summary, body);
    std::fflush(out);
    return sd_bus_reply_method_return(message, "u", 1U);
}

const sd_bus_vtable methods[] = {SD_BUS_VTABLE_START(0),
                                 SD_BUS_METHOD("Notify", "susssasa{sv}i", "u", notify, 0), SD_BUS_VTABLE_END};

} // namespace

/// notification-service FILE: stands in for a desktop's notification service (Desktop Notifications
/// Specification, freedesktop.org) on the session bus, and writes what it is told to FILE.
int main(int argc, char** argv) {
    return standins::serveOnSessionBus(argc, argv, "org.freedesktop.Notifications",
                                       "/org/freedesktop/Notifications", "org.freedesktop.Notifications",
                                       methods);
}
