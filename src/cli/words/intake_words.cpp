// What arrived, and what takes the place of what is there.
#include "cli/command_line.h"
#include "cli/intake_command.h"
#include "cli/replace_command.h"
#include "cli/words/words.h"

namespace sober::cli {

void addIntake(CommandLine& line) {
    auto* intakeCommand =
        line.app().add_subcommand("intake", "what arrived in the inboxes, and what is to be done with it");
    auto* intakeAdd = intakeCommand->add_subcommand("add", "name an inbox, and where its arrivals are filed");
    auto& inbox = line.keep<InboxOptions>();
    intakeAdd->add_option("DIR", inbox.folder, "the folder where new audio lands")->required();
    intakeAdd->add_option("--into", inbox.into, "the folder into which it is filed")->required();
    intakeAdd->add_option("--layout", inbox.layout, "folders and names there, by fields and quoted text");
    intakeAdd->add_option("--latest", inbox.latest,
                          "a list of the latest arrivals that is kept for a player");
    auto* intakeRemove =
        intakeCommand->add_subcommand("remove", "name it no inbox any more; nothing of it changes");
    intakeRemove->add_option("DIR", inbox.folder, "the folder")->required();
    auto* intakeTake = intakeCommand->add_subcommand("take", "do what is advised with arrivals");
    auto& intaking = line.keep<IntakeTakeOptions>();
    intakeTake->add_option("PATH", intaking.arrivals, "arrivals");
    intakeTake->add_flag("--advised", intaking.advised, "all that are not to be left");
    intakeTake->add_option("--layout", intaking.layout, "folders and names, in place of the inbox's own");
    intakeTake->add_flag("--with-proposals", intaking.withProposals, "mend their tags first, as proposed");

    line.add(intakeAdd,
             [&inbox](const CommonOptions& common, RunControl&) { return runIntakeAdd(common, inbox); });
    line.add(intakeRemove, [&inbox](const CommonOptions& common, RunControl&) {
        return runIntakeRemove(common, inbox.folder);
    });
    line.add(intakeTake, [&intaking](const CommonOptions& common, RunControl& control) {
        return runIntakeTake(common, intaking, control);
    });
    line.add(intakeCommand,
             [](const CommonOptions& common, RunControl& control) { return runIntake(common, control); });
}

void addReplace(CommandLine& line) {
    auto* replaceCommand =
        line.app().add_subcommand("replace", "what could be better, and what may take its place");
    auto& replacing = line.keep<ReplaceOptions>();
    replaceCommand->add_option("PATH", replacing.holding, "the holding that is to be replaced");
    replaceCommand->add_option("--by", replacing.by, "a file, or the address of an offer");
    replaceCommand
        ->add_option("--tags", replacing.tags, "keep those of the old file (default), or take the new's")
        ->check(CLI::IsMember({"keep", "take"}));
    replaceCommand->add_option("--layout", replacing.layout,
                               "folders and name of the new file, in place of the old one's");
    replaceCommand->add_flag("--advised", replacing.advised, "all for which something better is at hand");
    auto& shelf = line.keep<std::string>();
    replaceCommand->add_option("--shelf", shelf,
                               "the address of an offer shelf that may be asked from now on");
    auto& noShelf = line.keep<bool>(false);
    replaceCommand->add_flag("--no-shelf", noShelf, "ask none any more");

    line.add(replaceCommand,
             [&replacing, &shelf, &noShelf](const CommonOptions& common, RunControl& control) {
                 if (noShelf || !shelf.empty()) {
                     return runReplaceShelf(common, noShelf ? "" : shelf);
                 }
                 if (replacing.holding.empty() != replacing.by.empty() ||
                     (replacing.advised && !replacing.by.empty())) {
                     return wrongUsage(
                         "Say a holding and, with --by, what replaces it; or --advised; or nothing to see "
                         "what could be better.");
                 }
                 return replacing.advised || !replacing.by.empty() ? runReplace(common, replacing, control)
                                                                   : runReplaceList(common, control);
             });
}

} // namespace sober::cli
