// What the catalogue knows, looked for and looked at.
#include "cli/command_line.h"
#include "cli/examine_command.h"
#include "cli/find_command.h"
#include "cli/words/words.h"

namespace sober::cli {
namespace {

std::vector<std::string> verdictWords() {
    std::vector<std::string> words;
    for (const auto verdict : everyVerdict) {
        words.emplace_back(wordFor(verdict));
    }
    return words;
}

} // namespace

void addFind(CommandLine& line) {
    auto* findCommand =
        line.app().add_subcommand("find", "look for holdings by words in their tags, names, paths and lists");
    auto& find = line.keep<FindOptions>();
    findCommand->add_option("WORDS", find.words, "all of them have to be found; parts of words too");
    findCommand->add_option("--volume", find.volume, "only on this volume");
    findCommand->add_option("--codec", find.filter.codec, "only of this codec, as \"flac\"");
    findCommand->add_option("--verdict", find.verdict, "genuine, doubtful, transcoded or undetermined")
        ->check(CLI::IsMember(verdictWords()));
    auto& unlisted = line.keep<bool>(false);
    findCommand->add_flag("--unlisted", unlisted, "only what no list leads to");
    findCommand->add_option("--bitrate", find.bitrate, "FROM-TO in kbit/s, either may be left out");
    findCommand->add_option("--length", find.length, "FROM-TO in seconds, likewise");
    findCommand->add_option("--years", find.years, "FROM-TO, likewise");
    findCommand->add_option("--limit", find.limit, "show at most so many");
    findCommand->add_option("--keep-as", find.keepAs,
                            "keep what was looked for as a standing list of this name");

    line.add(findCommand, [&find, &unlisted](const CommonOptions& common, RunControl& control) {
        find.filter.listed = unlisted ? HoldingFilter::Listed::inNoList : HoldingFilter::Listed::any;
        return runFind(common, find, control);
    });
}

void addBrowse(CommandLine& line) {
    auto* browseCommand =
        line.app().add_subcommand("browse", "the folders of a volume, at hand or away, and what they hold");
    auto& browsed = line.keep<BytePath>();
    browseCommand->add_option("VOLUME", browsed, "its label, or label/folder")->required();

    line.add(browseCommand,
             [&browsed](const CommonOptions& common, RunControl&) { return runBrowse(common, browsed); });
}

void addCondition(CommandLine& line) {
    auto* conditionCommand = line.app().add_subcommand("condition", "the collection's state in figures");

    line.add(conditionCommand, [](const CommonOptions& common, RunControl&) { return runCondition(common); });
}

void addCopies(CommandLine& line) {
    auto* copiesCommand = line.app().add_subcommand("copies", "the copy sets with a reasoned suggestion");

    line.add(copiesCommand, [](const CommonOptions& common, RunControl&) { return runCopies(common); });
}

void addClaims(CommandLine& line) {
    auto* claimsCommand = line.app().add_subcommand(
        "claims", "the holdings whose evidence contradicts their claim, worst first");

    line.add(claimsCommand, [](const CommonOptions& common, RunControl&) { return runClaims(common); });
}

} // namespace sober::cli
