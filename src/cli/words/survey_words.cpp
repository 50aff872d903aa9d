// What is read into the catalogue, and evidence of single files.
#include "cli/command_line.h"
#include "cli/examine_command.h"
#include "cli/words/words.h"

namespace sober::cli {
namespace {

/// What was said after "survey"; of the choices that a volume keeps, those that were said.
struct SurveyWords {
    SurveyOptions survey;
    std::string label;
    std::string effort;
    std::optional<bool> leaveHidden;
    std::vector<std::string> leavePatterns;
    std::optional<std::int64_t> minSize, maxSize; ///< bytes
    std::optional<int> maxDepth;                  ///< folders
    std::optional<bool> followLinks, lookInside, keepExcerpts;
    bool takeAll = false;

    void change(SurveyChoices& kept) const {
        kept = takeAll ? SurveyChoices{} : kept;
        kept.leaveHidden = leaveHidden.value_or(kept.leaveHidden);
        kept.leavePatterns = leavePatterns.empty() ? kept.leavePatterns : leavePatterns;
        kept.minSize = minSize ? static_cast<std::uint64_t>(*minSize) : kept.minSize;
        kept.maxSize = maxSize ? static_cast<std::uint64_t>(*maxSize) : kept.maxSize;
        kept.maxDepth = maxDepth.value_or(kept.maxDepth);
        kept.lookInside = lookInside.value_or(kept.lookInside);
        kept.keepExcerpts = keepExcerpts.value_or(kept.keepExcerpts);
        kept.followLinks = followLinks.value_or(kept.followLinks);
    }
};

/// A flag that is not said says nothing.
std::function<void(std::int64_t)> saidInto(std::optional<bool>& flag) {
    return [&flag](std::int64_t times) { flag = times > 0; };
}

int surveyWith(const CommonOptions& common, const SurveyWords& words, RunControl& control) {
    auto survey = words.survey;
    if (!words.label.empty()) {
        survey.label = words.label;
    }
    if (!words.effort.empty()) {
        survey.effort = words.effort == "full" ? Effort::full : Effort::index;
    }
    if (words.maxDepth.value_or(0) < 0) {
        return wrongUsage("--depth counts folders: 0 for all of them, 1 for what lies directly in PATH.");
    }
    const auto least = words.minSize.value_or(0);
    const auto most = words.maxSize.value_or(0);
    if (least < 0 || most < 0) {
        return wrongUsage("--min-size and --max-size are numbers of bytes, 0 or more.");
    }
    if (most > 0 && least > most) {
        return wrongUsage("--min-size is above --max-size: everything would be left out.");
    }
    survey.changeChoices = [&words](SurveyChoices& kept) { words.change(kept); };
    if (survey.label && survey.paths.size() > 1) {
        return wrongUsage("--label names one volume: survey the folders one by one.");
    }
    return runSurvey(common, survey, control);
}

} // namespace

void addExamine(CommandLine& line) {
    auto* examineCommand = line.app().add_subcommand("examine", "evidence and verdict for single files");
    auto& examined = line.keep<std::vector<BytePath>>();
    examineCommand->add_option("FILE", examined, "the files")->required();

    line.add(examineCommand, [&examined](const CommonOptions& common, RunControl& control) {
        return runExamine(common, examined, control);
    });
}

void addSurvey(CommandLine& line) {
    auto* command = line.app().add_subcommand("survey", "read folders and drives into the catalogue");
    auto& words = line.keep<SurveyWords>();
    command->add_option("PATH", words.survey.paths, "folders or drives")->required();
    command->add_option("--label", words.label, "the volume's name");
    command->add_option("--effort", words.effort, "index (default) or full")
        ->check(CLI::IsMember({"index", "full"}));
    command->add_flag_function("--leave-hidden", saidInto(words.leaveHidden),
                               "leave out hidden files and folders");
    command->add_option("--leave", words.leavePatterns, "leave out what matches this shell pattern");
    command->add_option("--min-size", words.minSize, "leave out files below this many bytes");
    command->add_option("--max-size", words.maxSize, "leave out files above this many bytes (0: no limit)");
    command->add_option("--depth", words.maxDepth, "how many folders deep (0: all)");
    command->add_flag_function("--follow-links", saidInto(words.followLinks), "follow symbolic links");
    command->add_flag_function(
        "--look-inside", saidInto(words.lookInside),
        "take in the audio inside archives (zip, tar, 7z, rar, iso) and images of drives (img, dd)");
    command->add_flag_function(
        "--keep-excerpts", saidInto(words.keepExcerpts),
        "at full effort, keep 20 seconds of each to listen to while its drive is away (about 86 kB each)");
    command->add_flag("--take-all", words.takeAll,
                      "forget the choices kept with the volume; those said beside it are kept then");

    line.add(command, [&words](const CommonOptions& common, RunControl& control) {
        return surveyWith(common, words, control);
    });
}

} // namespace sober::cli
