// Whether everything is still as it was recorded, and where else it may be.
#include "cli/command_line.h"
#include "cli/schedule_command.h"
#include "cli/seek_command.h"
#include "cli/verify_command.h"
#include "cli/words/words.h"

namespace sober::cli {

void addVerify(CommandLine& line) {
    auto* verifyCommand = line.app().add_subcommand("verify", "re-read and compare with what was recorded");
    auto& verify = line.keep<VerifyRequest>();
    verifyCommand->add_option("PATH", verify.paths,
                              "volumes, folders or files; all volumes where none is named");
    auto& due = line.keep<bool>(false);
    auto* dueFlag =
        verifyCommand->add_flag("--due", due, "only what was not read for longer than its volume's period");
    auto& sample = line.keep<double>(0);
    verifyCommand
        ->add_option("--sample", sample,
                     "read as many by chance as find damage of this share of the holdings, in percent")
        ->check(CLI::Range(0.0001, 100.0))
        ->excludes(dueFlag);
    auto& risk = line.keep<double>(5);
    verifyCommand->add_option("--risk", risk, "with --sample: probability of missing it, in percent (5)")
        ->check(CLI::Range(0.0001, 99.0));
    verifyCommand->add_flag("--strong", verify.reading.strong, "compare SHA-256 too, where it was recorded");
    auto& slowly = line.keep<double>(0);
    auto* slowlyOption =
        verifyCommand->add_option("--slowly", slowly, "read at most so many megabytes a second");
    auto& fromMemory = line.keep<bool>(false);
    verifyCommand->add_flag("--from-memory", fromMemory,
                            "take what the system still holds in memory for read");
    auto& notify = line.keep<bool>(false);
    verifyCommand->add_flag("--notify", notify, "tell the desktop when something is found");

    line.add(verifyCommand, [&verify, &due, &sample, &risk, &slowly, &fromMemory, &notify,
                             slowlyOption](const CommonOptions& common, RunControl& control) {
        if (slowlyOption->count() > 0 && !(slowly > 0)) {
            return wrongUsage("--slowly is a number of megabytes a second, above 0.");
        }
        verify.scope = due ? CheckScope::due : sample > 0 ? CheckScope::sample : CheckScope::whole;
        verify.extent = sample / 100;
        verify.missRisk = risk / 100;
        verify.reading.fromMedium = !fromMemory;
        verify.reading.mostPerSecond = static_cast<std::uint64_t>(slowly * 1e6);
        return runVerify(common, verify, notify, control);
    });
}

void addSchedule(CommandLine& line) {
    auto* scheduleCommand = line.app().add_subcommand(
        "schedule", "a check of what is due by systemd, with a desktop notification");
    auto& scheduled = line.keep<std::string>("show");
    scheduleCommand->add_option("WHAT", scheduled, "show, install or remove")
        ->check(CLI::IsMember({"show", "install", "remove"}));
    auto& every = line.keep<std::string>("week");
    scheduleCommand->add_option("--every", every, "day, week or month (week)")
        ->check(CLI::IsMember({"day", "week", "month"}));

    line.add(scheduleCommand, [&scheduled, &every](const CommonOptions& common, RunControl&) {
        return runSchedule(common, scheduled, every);
    });
}

void addSeek(CommandLine& line) {
    auto* seekCommand = line.app().add_subcommand(
        "seek", "look in other folders (a backup, a bag) for what drifted or is missing");
    auto& seekFolders = line.keep<std::vector<BytePath>>();
    seekCommand->add_option("FOLDER", seekFolders, "where to look")->required();

    line.add(seekCommand, [&seekFolders](const CommonOptions& common, RunControl& control) {
        return runSeek(common, seekFolders, control);
    });
}

} // namespace sober::cli
