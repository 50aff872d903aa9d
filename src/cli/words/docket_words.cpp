// What waits to be carried out, what was done, and what is taken back.
#include "cli/command_line.h"
#include "cli/docket_command.h"
#include "cli/ledger_command.h"
#include "cli/words/words.h"
#include "core/base/file_handle.h"
#include "core/base/text.h"
#include "core/remedy/docket/review.h"

#include <fmt/format.h>

namespace sober::cli {
namespace {

/// What can be said after "docket add".
std::vector<std::string> kindsToAdd() {
    std::vector<std::string> words;
    for (const auto kind : everyKind) {
        if (kind != ActionKind::acceptChange && kind != ActionKind::bringBack &&
            kind != ActionKind::salvage && kind != ActionKind::discard && kind != ActionKind::rip &&
            !isTransfers(kind)) {
            words.emplace_back(word(kind));
        }
    }
    words.emplace_back("suggested");
    return words;
}

/// What was said after "docket add".
struct DocketAddWords {
    std::string asked; ///< a kind, or "suggested"
    std::vector<BytePath> paths;
    std::string reason;
    BytePath target;
    std::optional<std::string> layout;
    std::vector<BytePath> others;
    bool consent = false;
    std::string policy;
};

int addToDocket(const CommonOptions& common, const DocketAddWords& words, RunControl& control) {
    if ((words.asked == "suggested") != words.paths.empty()) {
        return wrongUsage(words.paths.empty()
                              ? "Name the files: sober docket add KIND PATH…"
                              : "\"suggested\" takes no files: it adds what \"sober copies\" suggests.");
    }
    const auto kind = actionKindOf(words.asked);
    if (words.layout) {
        if (kind != ActionKind::move || !words.target.empty()) {
            return wrongUsage("--layout orders folders: sober docket add move FOLDER… --layout LAYOUT");
        }
        return runDocketAddReorder(common, words.paths, *words.layout, words.reason);
    }
    const bool goesSomewhere = kind && needsTarget(*kind);
    if (goesSomewhere != !words.target.empty()) {
        return wrongUsage(fmt::format("Say where to: sober docket add {} PATH… --to TARGET",
                                      word(goesSomewhere ? *kind : ActionKind::repoint)));
    }
    if (words.consent && (kind != ActionKind::retire || words.paths.size() != 1)) {
        return wrongUsage("--consent is given for one file that is to be retired, never for many at once.");
    }
    if (!kind) {
        return runDocketAddSuggested(common, words.policy, control);
    }
    if ((kind == ActionKind::retag) != !words.others.empty() ||
        (kind == ActionKind::retag && words.paths.size() != 1)) {
        return wrongUsage("Say which file gets tags from which: sober docket add retag FILE --from OTHER…");
    }
    if (kind == ActionKind::retag) {
        return runDocketAddRetag(common, words.paths.front(), words.others);
    }
    if (!words.policy.empty()) {
        return wrongUsage("--policy goes with \"suggested\".");
    }
    if (kind && isPlaced(*kind) && words.paths.size() > 1 && !words.target.ends_with('/') &&
        !isFolder(words.target)) {
        return wrongUsage(
            displayPath(words.target) +
            " is no folder: several files cannot get one name. End it with \"/\" to have it made.");
    }
    const auto reason =
        words.reason.empty() && kind == ActionKind::accept ? "accepted as it is" : words.reason;
    return runDocketAdd(common, *kind, words.paths, words.target, reason, words.consent);
}

} // namespace

void addDocket(CommandLine& line) {
    auto* docketCommand = line.app().add_subcommand("docket", "what waits to be carried out");
    const auto kinds = kindsToAdd();
    docketCommand->require_subcommand(0, 1);
    auto* addCommand = docketCommand->add_subcommand("add", "put actions on the docket");
    auto& words = line.keep<DocketAddWords>();
    addCommand->add_option("KIND", words.asked, fmt::format("{}", fmt::join(kinds, ", ")))
        ->required()
        ->check(CLI::IsMember(kinds));
    addCommand->add_option("PATH", words.paths, "the files");
    addCommand->add_option("--reason", words.reason, "why, in your words");
    addCommand->add_option(
        "--to", words.target,
        "with move and copy: a folder or the new path; with repoint: where references are to lead");
    addCommand->add_option("--layout", words.layout,
                           "with move, for folders: put what is in them in this order, "
                           "as 'albumartist|artist / album / track.2 \" \" title'");
    addCommand->add_option("--from", words.others, "with retag: the copies whose fields the file lacks");
    addCommand->add_flag("--consent", words.consent,
                         "with retire, for one file: consent to the loss that the docket names for it");
    addCommand->add_option("--policy", words.policy, "with suggested: decide by the policy of this name");
    auto* removeCommand = docketCommand->add_subcommand("remove", "take actions off the docket");
    auto& taken = line.keep<std::vector<std::string>>();
    removeCommand->add_option("ACTION", taken, "their numbers, or the paths that they are about")->required();
    auto* clearCommand = docketCommand->add_subcommand("clear", "empty the docket");
    auto* carryCommand = docketCommand->add_subcommand("carry-out", "do what the docket says");

    line.add(addCommand, [&words](const CommonOptions& common, RunControl& control) {
        return addToDocket(common, words, control);
    });
    line.add(removeCommand,
             [&taken](const CommonOptions& common, RunControl&) { return runDocketRemove(common, taken); });
    line.add(clearCommand, [](const CommonOptions& common, RunControl&) { return runDocketClear(common); });
    line.add(carryCommand,
             [](const CommonOptions& common, RunControl& control) { return runCarryOut(common, control); });
    line.add(docketCommand, [](const CommonOptions& common, RunControl&) { return runDocket(common); });
}

void addLedger(CommandLine& line) {
    auto* ledgerCommand = line.app().add_subcommand("ledger", "what was observed and done");
    auto& premis = line.keep<bool>(false);
    ledgerCommand->add_flag("--premis", premis, "as events of PREMIS 3.0, in XML");
    auto& shownEntry = line.keep<std::string>();
    ledgerCommand->add_option("ENTRY", shownEntry, "one entry's number: its files and reasons");

    line.add(ledgerCommand, [&premis, &shownEntry](const CommonOptions& common, RunControl&) {
        return premis                ? runLedgerPremis(common)
               : !shownEntry.empty() ? runLedgerEntry(common, shownEntry)
                                     : runLedger(common);
    });
}

void addUndo(CommandLine& line) {
    auto* undoCommand = line.app().add_subcommand("undo", "take an entry back");
    auto& entry = line.keep<std::string>();
    undoCommand->add_option("ENTRY", entry, "its number in the ledger, or last")->required();

    line.add(undoCommand, [&entry](const CommonOptions& common, RunControl& control) {
        return runUndo(common, entry, control);
    });
}

} // namespace sober::cli
