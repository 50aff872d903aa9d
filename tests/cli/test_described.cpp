// What the manual and the shells know of a program is what its help says; an installed program works from
// where it stands. Held against man-db, the shells themselves, desktop-file-utils and appstreamcli.
#include "support/run_program.h"
#include "support/small_audio.h"
#include "support/temp_folder.h"

#include <catch2/catch.hpp>
#include <nlohmann/json.hpp>

#include <filesystem>
#include <regex>
#include <set>

using namespace sober;
using namespace sober::test;
namespace fs = std::filesystem;

namespace {

std::set<std::string> allOf(const std::string& text, const std::string& pattern) {
    std::set<std::string> found;
    const std::regex wanted(pattern);
    for (auto at = std::sregex_iterator(text.begin(), text.end(), wanted); at != std::sregex_iterator();
         ++at) {
        found.insert((*at)[1]);
    }
    return found;
}

struct Command {
    std::vector<std::string> words;
    std::set<std::string> options;
    std::set<std::string> commands;
};

/// What --help says of a program, command by command.
void readHelp(const std::string& program, const std::vector<std::string>& words, std::vector<Command>& all) {
    std::vector<std::string> line{program};
    line.insert(line.end(), words.begin(), words.end());
    line.emplace_back("--help");
    const auto help = run(line).out;
    const auto at = help.find("Subcommands:");
    auto options = allOf(help.substr(0, at), "\n  (?:-\\w,)?(--[a-z][a-z-]*)");
    options.erase("--help");
    const auto commands =
        at == std::string::npos ? std::set<std::string>() : allOf(help.substr(at), "\n  ([a-z][a-z-]*) ");
    all.push_back({words, options, commands});
    for (const auto& command : commands) {
        auto longer = words;
        longer.push_back(command);
        readHelp(program, longer, all);
    }
}

std::string described(const std::string& program, const std::string& form) {
    const auto ran = run({program, "--describe", form});
    REQUIRE(ran.code == 0);
    return ran.out;
}

/// What bash offers for words, the last of which is not finished.
std::set<std::string> offered(const BytePath& completions, const std::vector<std::string>& words) {
    std::string line;
    for (const auto& word : words) {
        line += "'" + word + "' ";
    }
    const auto ran =
        run({"bash", "-c",
             "source \"$0\"; COMP_WORDS=(" + line + "); COMP_CWORD=" + std::to_string(words.size() - 1) +
                 "; _sober; printf '%s\\n' \"${COMPREPLY[@]}\"",
             completions});
    INFO(ran.err);
    REQUIRE(ran.code == 0);
    return allOf(ran.out, "([^\n]+)\n");
}

} // namespace

TEST_CASE("every command and option of the help stands in the manual and in the completions") {
    for (const std::string program : {SOBER_PROGRAM, SOBER_ARCHIVIST}) {
        std::vector<Command> all;
        readHelp(program, {}, all);
        CHECK(all.size() > (program == SOBER_PROGRAM ? 50U : 0U));
        auto manual = described(program, "man");
        manual = std::regex_replace(manual, std::regex("\\\\-"), "-");
        const auto bash = described(program, "bash");
        const auto zsh = described(program, "zsh");
        const auto fish = described(program, "fish");
        for (const auto& command : all) {
            std::string path;
            for (const auto& word : command.words) {
                path += (path.empty() ? "" : " ") + word;
            }
            CAPTURE(path);
            const auto begins = path.empty() ? std::size_t{0} : manual.find("\n.SS sober " + path);
            REQUIRE(begins != std::string::npos);
            const auto ends = manual.find(path.empty() ? "\n.SH COMMANDS" : "\n.SS ", begins + 1);
            const auto section = manual.substr(begins, ends - begins);
            for (const auto& option : command.options) {
                CAPTURE(option);
                CHECK(section.find("\\fB" + option + "\\fR") != std::string::npos);
                CHECK(bash.find(option) != std::string::npos);
                CHECK(zsh.find("'" + option + ":") != std::string::npos);
                CHECK(fish.find("-l " + option.substr(2) + " ") != std::string::npos);
            }
        }
    }
}

TEST_CASE("the manual is one that man shows without a complaint") {
    for (const std::string program : {SOBER_PROGRAM, SOBER_ARCHIVIST}) {
        const TempFolder folder;
        writeFile(folder / "page.1", described(program, "man"));
        const auto shown =
            run({"env", "LC_ALL=C.UTF-8", "MANWIDTH=80", "man", "--warnings", "-l", folder / "page.1"});
        CHECK(shown.code == 0);
        CHECK(shown.err.empty());
        CHECK(shown.out.find("SYNOPSIS") != std::string::npos);
    }
}

TEST_CASE("the shells complete commands and options") {
    const TempFolder folder;
    for (const auto* form : {"bash", "zsh", "fish"}) {
        writeFile(folder / form, described(SOBER_PROGRAM, form));
        writeFile(folder / (std::string("w") + form), described(SOBER_ARCHIVIST, form));
        for (const auto& file : {folder / form, folder / (std::string("w") + form)}) {
            const auto checked = run({form, "-n", file});
            INFO(form << checked.err);
            CHECK(checked.code == 0);
        }
    }
    using Words = std::set<std::string>;
    CHECK(offered(folder / "bash", {"sober", "transfer", "p"}) == Words{"plan", "prove"});
    CHECK(offered(folder / "bash", {"sober", "report", "--f"}) == Words{"--form"});
    CHECK(offered(folder / "bash", {"sober", "report", "--q"}) == Words{"--quiet"});
    CHECK(offered(folder / "bash", {"sober", "--catalogue", "x", "ledg"}) == Words{"ledger"});
    writeFile(folder / "only.flac", "");
    CHECK(offered(folder / "bash", {"sober", "examine", folder / "on"}) == Words{folder / "only.flac"});
    const auto fish = run(
        {"fish", "--no-config", "-c", "source $argv[1]; complete -C 'sober salvage ta'", folder / "fish"});
    INFO(fish.err);
    CHECK(fish.out.find("take\t") != std::string::npos);
    for (const std::string program : {SOBER_PROGRAM, SOBER_ARCHIVIST}) {
        const auto wrong = run({program, "--describe", "csh"});
        CHECK(wrong.code == 2);
        CHECK(wrong.err == "--describe takes man, bash, zsh or fish.\n");
    }
}

TEST_CASE("what the desktop is told is valid") {
    const auto entry = run({"desktop-file-validate", SOURCE_FOLDER "/data/sober-archivist.desktop"});
    INFO(entry.out << entry.err);
    CHECK(entry.code == 0);
    const auto info =
        run({"appstreamcli", "validate", "--no-net", SOURCE_FOLDER "/data/sober-archivist.metainfo.xml"});
    INFO(info.out);
    CHECK(info.code == 0);
}

TEST_CASE("an installed program finds its helpers, and the others say their version") {
    const TempFolder folder;
    const auto installed = run({"cmake", "--install", BUILD_FOLDER, "--prefix", folder / "usr"});
    INFO(installed.err);
    REQUIRE(installed.code == 0);
    writeFile(folder / "V/a.wav", smallWav(1, 2));
    const auto examined = run(
        {"env", "-u", "SOBER_EVIDENCE", folder / "usr/bin/sober", "--json", "examine", folder / "V/a.wav"});
    INFO(examined.out << examined.err);
    REQUIRE(examined.code == 0);
    CHECK(nlohmann::json::parse(examined.out)["holdings"].size() == 1);
    // Without a display, wherever the word stands.
    for (const std::vector<std::string>& words :
         {std::vector<std::string>{"--version"}, {"--catalogue", folder / "c.sqlite", "--version"}}) {
        std::vector<std::string> line{"env", "-u",      "QT_QPA_PLATFORM",
                                      "-u",  "DISPLAY", folder / "usr/bin/sober-archivist"};
        line.insert(line.end(), words.begin(), words.end());
        CHECK(run(line).out == "Sober Archivist 0.1.0\n");
    }
    CHECK(run({folder / "usr/bin/sober", "--version"}).out == "Sober Archivist 0.1.0\n");
    CHECK(fs::exists(folder / "usr/share/man/man1/sober.1"));
    CHECK(fs::exists(folder / "usr/share/icons/hicolor/48x48/apps/sober-archivist.png"));
}
