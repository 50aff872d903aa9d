#include <systemd/sd-bus.h>

#include <csignal>
#include <cstdio>

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
/// Specification, freedesktop.org) on the session bus, and writes what it is told to FILE until it is ended.
/// Prints "ready" once it listens.
int main(int argc, char** argv) {
    sd_bus* bus = nullptr;
    std::FILE* out = argc == 2 ? std::fopen(argv[1], "w") : nullptr;
    if (out == nullptr || sd_bus_open_user(&bus) < 0 ||
        sd_bus_add_object_vtable(bus, nullptr, "/org/freedesktop/Notifications",
                                 "org.freedesktop.Notifications", methods, out) < 0 ||
        sd_bus_request_name(bus, "org.freedesktop.Notifications", 0) < 0) {
        return 1;
    }
    std::puts("ready");
    std::fflush(stdout);
    while (true) {
        const int done = sd_bus_process(bus, nullptr);
        if (done < 0 || (done == 0 && sd_bus_wait(bus, UINT64_MAX) < 0)) {
            return 0;
        }
    }
}
