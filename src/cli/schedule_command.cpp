#include "cli/schedule_command.h"

#include "cli/answers.h"
#include "core/base/text.h"
#include "core/remedy/scheduled_check.h"

#include <fmt/format.h>

namespace sober::cli {

int runSchedule(const CommonOptions& common, const std::string& what, const std::string& every) {
    const auto often = every == "day"     ? CheckEvery::day
                       : every == "month" ? CheckEvery::month
                                          : CheckEvery::week;
    const auto program = realPathOf("/proc/self/exe");
    const auto catalogue = placeOf(common.catalogue).value_or(common.catalogue);
    if (!program) {
        return fail({Cause::notFound, {}, "Where this program lies could not be found out."});
    }
    if (what == "show") {
        for (const auto& unit : scheduledCheckUnits(*program, catalogue, often)) {
            say("# {}\n{}\n", displayPath(unit.path), unit.text);
        }
        say("# To remove it:\n{}", howToUnschedule());
        return exitDone;
    }
    const auto outcome = what == "install" ? scheduleCheck(*program, catalogue, often) : unscheduleCheck();
    if (!outcome) {
        return fail(outcome.error());
    }
    say("{}\n", what == "install" ? fmt::format("What is due is read again every {}.", word(often))
                                  : std::string("No check is scheduled any more."));
    return exitDone;
}

} // namespace sober::cli
