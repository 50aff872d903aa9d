#pragma once

#include "cli/commands.h"
#include "core/base/run_control.h"

#include <CLI/CLI.hpp>

#include <functional>
#include <memory>
#include <utility>
#include <vector>

namespace sober::cli {

/// What may be said to the program: words/ adds commands, with where their options are read into and what
/// they do.
class CommandLine {
  public:
    /// What a command does; yields the exit code.
    using Deed = std::function<int(const CommonOptions&, RunControl&)>;

    CommandLine();

    CLI::App& app() { return app_; }

    /// A value that options are read into; it stays where it is as long as the line.
    template <typename T>
    T& keep(T initial = {}) {
        auto kept = std::make_shared<T>(std::move(initial));
        auto& value = *kept;
        kept_.push_back(std::move(kept));
        return value;
    }

    /// `deed` is done where `command` was said. Of a command and those below it, those below come first.
    void add(const CLI::App* command, Deed deed) { deeds_.emplace_back(command, std::move(deed)); }

    /// Reads the words and does what they say; interrupt and terminate signals cancel it.
    int run(int argc, char** argv);

  private:
    CLI::App app_;
    CommonOptions common_;
    std::vector<std::shared_ptr<void>> kept_;
    std::vector<std::pair<const CLI::App*, Deed>> deeds_;
};

/// Says what is right; yields the exit code.
int wrongUsage(const std::string& sentence);

} // namespace sober::cli
