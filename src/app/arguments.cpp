#include "app/arguments.h"

#include "cli/describe.h"
#include "core/base/paths.h"
#include "core/base/user_folders.h"

#include <QSettings>

#include <CLI/CLI.hpp>

#include <algorithm>
#include <cstdio>
#include <filesystem>
#include <string_view>

namespace sober::app {
namespace {

constexpr QLatin1String settingsOwner("sober-archivist");

constexpr cli::ManualPage manual{
    R"(Shows what a large collection of audio files is made of, what is wrong with it and what can be done about each
thing: copies, files that are not what they claim to be, missing and damaged ones, lists that lead nowhere. What
is decided waits on a docket, is read through, carried out, and can be taken back.

A folder that is named is surveyed, a list is taken in as a player's. Where the program is open on the catalogue
already, it gets the words and comes to the front.)",
    R"(.SH FILES
.TP
.I ~/.local/share/sober\-archivist/
The catalogue, unless \fB\-\-catalogue\fR names another; below $XDG_DATA_HOME where that is set.
)",
    "sober"};

} // namespace

void useSettingsOf(const BytePath& carried) {
    if (!carried.empty()) {
        QSettings::setDefaultFormat(QSettings::IniFormat);
        QSettings::setPath(QSettings::IniFormat, QSettings::UserScope,
                           QString::fromStdString(carried + "/settings"));
    }
}

int sizeWanted(int argc, const char* const* argv) {
    constexpr int least = 100;
    constexpr int most = 300;
    for (int i = 1; i + 1 < argc; ++i) {
        if (std::string_view(argv[i]) == "--carried") {
            useSettingsOf(argv[i + 1]);
        }
    }
    const QSettings settings(QSettings::defaultFormat(), QSettings::UserScope, settingsOwner, settingsOwner);
    return std::clamp(settings.value(QStringLiteral("size"), least).toInt(), least, most);
}

std::optional<Arguments> readArguments(int argc, char** argv, int& exitCode) {
    Arguments arguments;
    arguments.catalogue = defaultCatalogue();
    std::vector<std::string> places;
    CLI::App app{"audits a collection of audio files and carries out decisions", "sober-archivist"};
    app.set_version_flag("--version", "Sober Archivist " SOBER_VERSION, "the version");
    auto* catalogue = app.add_option("--catalogue", arguments.catalogue, "the catalogue file");
    app.add_option("--carried", arguments.carried, "a folder that a catalogue was carried along in")
        ->excludes(catalogue);
    app.add_option("PLACE", places, "folders to be surveyed, lists to be taken in");
    if (const auto code = cli::describe(app, argc, argv, manual)) {
        exitCode = *code;
        return {};
    }
    try {
        app.parse(argc, argv);
    } catch (const CLI::ParseError& error) {
        const int code = app.exit(error);
        exitCode = code == 0 ? 0 : 2;
        return {};
    }
    if (!arguments.carried.empty()) {
        std::error_code failed;
        const auto absolute = std::filesystem::absolute(arguments.carried, failed);
        arguments.carried = failed ? arguments.carried : absolute.string();
        arguments.catalogue = joinPath(arguments.carried, "catalogue.sqlite");
    }
    if (arguments.catalogue.empty()) {
        std::fputs("--catalogue needs the name of a file.\n", stderr);
        exitCode = 2;
        return {};
    }
    for (const auto& place : places) {
        std::error_code failed;
        const auto absolute = std::filesystem::absolute(place, failed);
        arguments.places.push_back(failed ? place : absolute.string());
    }
    return arguments;
}

} // namespace sober::app
