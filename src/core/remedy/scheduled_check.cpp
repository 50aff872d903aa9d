#include "core/remedy/scheduled_check.h"

#include "core/base/file_handle.h"
#include "core/base/user_bus.h"
#include "core/base/user_folders.h"
#include "core/remedy/changes/file_changes.h"

#include <fmt/format.h>
#include <systemd/sd-bus.h>

namespace sober {
namespace {

constexpr const char* service = "sober-archivist-check.service";
constexpr const char* timer = "sober-archivist-check.timer";

BytePath unitPath(const char* name) {
    return joinPath(joinPath(configHome(), "systemd/user"), name);
}

/// A word of ExecStart=: quoted, and nothing in it expanded (systemd.service(5), "Command lines").
std::string quoted(const BytePath& word) {
    std::string text = "\"";
    for (const char c : word) {
        // Doubled or escaped, each in the way that systemd undoes it.
        if (c == '"' || c == '\\') {
            text += '\\';
        } else if (c == '%' || c == '$') {
            text += c;
        }
        if (c == '\n') {
            text += "\\n";
        } else {
            text += c;
        }
    }
    return text + "\"";
}

std::string_view calendar(CheckEvery every) {
    return every == CheckEvery::day ? "daily" : every == CheckEvery::week ? "weekly" : "monthly";
}

Outcome writeAnew(const UnitFile& file) {
    Unflushed unflushed;
    if (const auto made = makeFolder(BytePath(parentOf(file.path)), 0755, unflushed); !made) {
        return made;
    }
    if (const auto removed = removeFile(file.path, unflushed); !removed) {
        return removed;
    }
    const auto written = writeNewFile(file.path, file.text, unflushed);
    unflushed.flush();
    return written ? flushFile(file.path) : written;
}

/// The manager of the person's units, by its D-Bus interface (org.freedesktop.systemd1(5)); a negative errno
/// where it did not do what it was asked.
template <typename... Values>
int askManager(sd_bus* bus, const char* method, const char* types, Values... values) {
    return sd_bus_call_method(bus, "org.freedesktop.systemd1", "/org/freedesktop/systemd1",
                              "org.freedesktop.systemd1.Manager", method, nullptr, nullptr, types, values...);
}

/// The timer runs from now on, and after each start.
bool beginTimer() {
    const auto bus = openUserBus();
    return bus && askManager(bus->get(), "Reload", "") >= 0 &&
           askManager(bus->get(), "EnableUnitFiles", "asbb", 1, timer, 0, 0) >= 0 &&
           askManager(bus->get(), "Reload", "") >= 0 &&
           askManager(bus->get(), "StartUnit", "ss", timer, "replace") >= 0;
}

/// The timer is not known any more once its files are gone. Where systemd does not run, there is none.
void endTimer(sd_bus* bus) {
    askManager(bus, "DisableUnitFiles", "asb", 1, timer, 0);
    askManager(bus, "StopUnit", "ss", timer, "replace");
}

} // namespace

std::string_view word(CheckEvery every) {
    return every == CheckEvery::day ? "day" : every == CheckEvery::week ? "week" : "month";
}

std::vector<UnitFile> scheduledCheckUnits(const BytePath& program, const BytePath& catalogue,
                                          CheckEvery every) {
    return {{unitPath(service), fmt::format("[Unit]\n"
                                            "Description=Sober Archivist: read again what is due\n\n"
                                            "[Service]\n"
                                            "Type=oneshot\n"
                                            "Nice=10\n"
                                            "IOSchedulingClass=idle\n"
                                            "ExecStart={} --catalogue {} --quiet verify --due --notify\n"
                                            "SuccessExitStatus=3\n",
                                            quoted(program), quoted(catalogue))},
            {unitPath(timer), fmt::format("[Unit]\n"
                                          "Description=Sober Archivist: a check every {}\n\n"
                                          "[Timer]\n"
                                          "OnCalendar={}\n"
                                          "RandomizedDelaySec=1h\n"
                                          "Persistent=true\n\n"
                                          "[Install]\n"
                                          "WantedBy=timers.target\n",
                                          word(every), calendar(every))}};
}

bool isCheckScheduled() {
    return isTaken(unitPath(timer));
}

Outcome scheduleCheck(const BytePath& program, const BytePath& catalogue, CheckEvery every) {
    for (const auto& file : scheduledCheckUnits(program, catalogue, every)) {
        if (const auto written = writeAnew(file); !written) {
            return written;
        }
    }
    if (!beginTimer()) {
        return Error{Cause::busy, unitPath(timer),
                     fmt::format("The files are written, but systemd did not answer. Run: systemctl --user "
                                 "daemon-reload && systemctl --user enable --now {}",
                                 timer)};
    }
    return done();
}

Outcome unscheduleCheck() {
    const auto bus = openUserBus();
    if (bus) {
        endTimer(bus->get());
    }
    Unflushed unflushed;
    for (const char* name : {timer, service}) {
        if (const auto removed = removeFile(unitPath(name), unflushed); !removed) {
            return removed;
        }
    }
    if (bus) {
        askManager(bus->get(), "Reload", "");
    }
    return done();
}

std::string howToUnschedule() {
    return fmt::format("systemctl --user disable --now {}\nrm {} {}\nsystemctl --user daemon-reload\n", timer,
                       unitPath(timer), unitPath(service));
}

} // namespace sober
