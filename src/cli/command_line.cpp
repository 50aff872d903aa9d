#include "cli/command_line.h"

#include "cli/answers.h"
#include "cli/describe.h"
#include "cli/manual.h"
#include "core/base/user_folders.h"

#include <algorithm>
#include <csignal>
#include <optional>
#include <pthread.h>
#include <thread>

namespace sober::cli {
namespace {

/// Turns the interrupt and terminate signals into a cancelled run, so that what was done is kept.
/// All threads started later inherit the mask and leave the signals to this one.
class SignalWatch {
  public:
    explicit SignalWatch(RunControl& control) {
        sigemptyset(&watched_);
        for (const int signal : {SIGINT, SIGTERM, SIGHUP, SIGUSR1}) {
            sigaddset(&watched_, signal);
        }
        pthread_sigmask(SIG_BLOCK, &watched_, nullptr);
        thread_ = std::thread([this, &control] {
            int signal = 0;
            while (sigwait(&watched_, &signal) == 0 && signal != SIGUSR1) {
                control.cancel();
            }
        });
    }
    ~SignalWatch() {
        pthread_kill(thread_.native_handle(), SIGUSR1);
        thread_.join();
    }
    SignalWatch(const SignalWatch&) = delete;
    SignalWatch& operator=(const SignalWatch&) = delete;

  private:
    sigset_t watched_{};
    std::thread thread_;
};

/// A command that nobody knows, said before anything else is found wrong.
std::optional<std::string> unknownCommand(const CLI::App& app, int argc, char** argv) {
    for (int at = 1; at < argc; ++at) {
        const std::string word = argv[at];
        if (word == "--catalogue") {
            ++at;
        } else if (!word.starts_with('-')) {
            const auto commands = app.get_subcommands([](const CLI::App*) { return true; });
            const bool known =
                std::ranges::any_of(commands, [&](const CLI::App* each) { return each->get_name() == word; });
            return known ? std::nullopt : std::optional(word);
        }
    }
    return std::nullopt;
}

} // namespace

int wrongUsage(const std::string& sentence) {
    sayOn(stderr, "{}\n", sentence);
    return exitUsage;
}

CommandLine::CommandLine()
    : app_("Sober Archivist without windows: audits a collection of audio files and carries out decisions.",
           "sober") {
    app_.require_subcommand(1);
    app_.fallthrough();
    app_.set_version_flag("--version", "Sober Archivist " SOBER_VERSION, "the version");
    common_.catalogue = defaultCatalogue();
    app_.add_option("--catalogue", common_.catalogue, "the catalogue file");
    app_.add_flag("--json", common_.json, "print one JSON document");
    app_.add_flag("--quiet", common_.quiet, "no progress");
}

int CommandLine::run(int argc, char** argv) {
    if (const auto code = describe(app_, argc, argv, manual)) {
        return *code;
    }
    if (const auto unknown = unknownCommand(app_, argc, argv)) {
        return wrongUsage("There is no command \"" + *unknown +
                          "\". Run \"sober --help\" for those that there are.");
    }
    try {
        app_.parse(argc, argv);
    } catch (const CLI::ParseError& error) {
        if (error.get_exit_code() == 0) {
            return app_.exit(error);
        }
        return wrongUsage(std::string(error.what()) + "\nRun \"sober --help\" for what is right.");
    }
    if (common_.catalogue.empty()) {
        return wrongUsage("--catalogue needs the name of a file.");
    }
    RunControl control;
    const SignalWatch signals(control);
    const auto said = std::ranges::find_if(deeds_, [](const auto& each) { return each.first->parsed(); });
    return said == deeds_.end() ? exitUsage : said->second(common_, control);
}

} // namespace sober::cli
