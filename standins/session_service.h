#pragma once

#include <systemd/sd-bus.h>

#include <cstdio>

namespace standins {

/// Serves one object on the session bus until it is ended; `methods` find the file that the only argument
/// names as the object's data. Prints "ready" once it listens. The exit status.
inline int serveOnSessionBus(int argc, char** argv, const char* name, const char* path, const char* interface,
                             const sd_bus_vtable* methods) {
    sd_bus* bus = nullptr;
    std::FILE* out = argc == 2 ? std::fopen(argv[1], "w") : nullptr;
    if (out == nullptr || sd_bus_open_user(&bus) < 0 ||
        sd_bus_add_object_vtable(bus, nullptr, path, interface, methods, out) < 0 ||
        sd_bus_request_name(bus, name, 0) < 0) {
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

} // namespace standins
