#include "core/base/user_folders.h"
#include "core/remedy/scheduled_check.h"
#include "support/run_program.h"
#include "support/temp_folder.h"

#include <catch2/catch.hpp>

#include <filesystem>

using namespace sober;
using namespace sober::test;
namespace fs = std::filesystem;

// systemd-analyze reads the units as systemd would.
TEST_CASE("the units are what systemd accepts, whatever the paths hold") {
    const BytePath catalogue =
        GENERATE(as<std::string>(), "/home/me/catalogue.sqlite", "/home/me/100% \"mine\" $HOME\\x.sqlite");
    const auto every = GENERATE(CheckEvery::day, CheckEvery::week, CheckEvery::month);
    const TempFolder folder;
    std::vector<std::string> words{"systemd-analyze", "--user", "--man=no", "verify"};
    for (const auto& unit : scheduledCheckUnits("/usr/bin/env", catalogue, every)) {
        const auto path = folder / BytePath(nameOf(unit.path));
        writeFile(path, unit.text);
        words.push_back(path);
    }
    REQUIRE(words.size() == 6);
    const auto analysed = run(words);
    CAPTURE(analysed.err);
    CHECK(analysed.code == 0);
    CHECK(analysed.err.find("sober-archivist-check") == std::string::npos);
}

TEST_CASE("a schedule is written into the user's own folder and removed again without a trace") {
    const auto units = joinPath(configHome(), "systemd/user");
    REQUIRE(nameOf(parentOf(configHome())).starts_with("sober-test-")); // of the tests
    CHECK_FALSE(isCheckScheduled());
    // Where no systemd answers, the sentence says what is left to do.
    setenv("DBUS_SESSION_BUS_ADDRESS", "unix:path=/nowhere", 1); // NOLINT: one thread
    const auto scheduled = scheduleCheck("/usr/bin/env", "/tmp/catalogue.sqlite", CheckEvery::week);
    REQUIRE_FALSE(scheduled.ok());
    CHECK(scheduled.error().sentence.find("systemctl --user enable") != std::string::npos);
    CHECK(isCheckScheduled());
    CHECK(readFile(joinPath(units, "sober-archivist-check.service")).find("verify --due --notify") !=
          std::string::npos);
    CHECK(readFile(joinPath(units, "sober-archivist-check.timer")).find("OnCalendar=weekly") !=
          std::string::npos);
    // Anew, as often as one likes.
    scheduleCheck("/usr/bin/env", "/tmp/catalogue.sqlite", CheckEvery::day).ok();
    CHECK(readFile(joinPath(units, "sober-archivist-check.timer")).find("OnCalendar=daily") !=
          std::string::npos);
    CHECK(unscheduleCheck().ok());
    CHECK_FALSE(isCheckScheduled());
    CHECK(fs::is_empty(units));
}
