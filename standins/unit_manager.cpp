#include "standins/session_service.h"

#include <cstring>

namespace {

/// What was asked for, a line each, into the file that is the object's data: the method and the unit.
int note(sd_bus_message* message, void* file, const char* unit) {
    auto* out = static_cast<std::FILE*>(file);
    std::fprintf(out, "%s%s%s\n", sd_bus_message_get_member(message), *unit != '\0' ? " " : "", unit);
    return std::fflush(out);
}

int reload(sd_bus_message* message, void* file, sd_bus_error* /*error*/) {
    note(message, file, "");
    return sd_bus_reply_method_return(message, "");
}

/// EnableUnitFiles and DisableUnitFiles, of one unit.
int unitFiles(sd_bus_message* message, void* file, sd_bus_error* /*error*/) {
    const char* unit = nullptr;
    int read = sd_bus_message_enter_container(message, 'a', "s");
    read = read < 0 ? read : sd_bus_message_read(message, "s", &unit);
    if (read <= 0) {
        return read;
    }
    note(message, file, unit);
    return std::strcmp(sd_bus_message_get_member(message), "EnableUnitFiles") == 0
               ? sd_bus_reply_method_return(message, "ba(sss)", 1, 0)
               : sd_bus_reply_method_return(message, "a(sss)", 0);
}

/// StartUnit and StopUnit.
int job(sd_bus_message* message, void* file, sd_bus_error* /*error*/) {
    const char* unit = nullptr;
    const char* mode = nullptr;
    const int read = sd_bus_message_read(message, "ss", &unit, &mode);
    if (read < 0) {
        return read;
    }
    note(message, file, unit);
    return sd_bus_reply_method_return(message, "o", "/org/freedesktop/systemd1/job/1");
}

const sd_bus_vtable methods[] = {SD_BUS_VTABLE_START(0),
                                 SD_BUS_METHOD("Reload", "", "", reload, 0),
                                 SD_BUS_METHOD("EnableUnitFiles", "asbb", "ba(sss)", unitFiles, 0),
                                 SD_BUS_METHOD("DisableUnitFiles", "asb", "a(sss)", unitFiles, 0),
                                 SD_BUS_METHOD("StartUnit", "ss", "o", job, 0),
                                 SD_BUS_METHOD("StopUnit", "ss", "o", job, 0),
                                 SD_BUS_VTABLE_END};

} // namespace

/// unit-manager FILE: stands in for the manager of a person's units (org.freedesktop.systemd1(5)) on the
/// session bus, and writes what it is asked for to FILE.
int main(int argc, char** argv) {
    return standins::serveOnSessionBus(argc, argv, "org.freedesktop.systemd1", "/org/freedesktop/systemd1",
                                       "org.freedesktop.systemd1.Manager", methods);
}
