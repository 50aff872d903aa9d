#pragma once

#include "core/base/result.h"

#include <string>
#include <vector>

namespace sober {

/// How often what is due is read again.
enum class CheckEvery {
    day,
    week,
    month,
};
/// "day", "week", "month".
std::string_view word(CheckEvery every);

struct UnitFile {
    BytePath path; ///< absolute
    std::string text;
};

/// The user's systemd units (systemd.service(5), systemd.timer(5)) that read again what is due and tell the
/// desktop of what is found: a service and its timer. `program` is the absolute path of the headless command.
std::vector<UnitFile> scheduledCheckUnits(const BytePath& program, const BytePath& catalogue,
                                          CheckEvery every);

/// True where the timer's file is there.
bool isCheckScheduled();
/// Writes the units into the user's own folder and has systemd start the timer. Where systemd does not
/// answer, the files stay and the Error says which commands are left.
Outcome scheduleCheck(const BytePath& program, const BytePath& catalogue, CheckEvery every);
/// Stops the timer and removes the files.
Outcome unscheduleCheck();

/// The commands that remove it by hand, a line each.
std::string howToUnschedule();

} // namespace sober
