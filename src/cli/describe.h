#pragma once

#include <optional>
#include <string_view>

namespace CLI {
class App;
}

namespace sober::cli {

// What a program can be told, written from the very words that its help is made of.

/// What a manual page says beside the options.
struct ManualPage {
    std::string_view description; ///< paragraphs, parted by empty lines
    std::string_view after;       ///< roff, after the commands: exit status, files
    std::string_view seeAlso;     ///< "sober\\-archivist"
};

/// Where the program was called with `--describe man|bash|zsh|fish` alone, that was printed: the manual page
/// (of section 1, man(7)) or completions of commands and options (of anything else the shell's own, of
/// files). The exit code then; nothing for any other call.
std::optional<int> describe(const CLI::App& app, int argc, char** argv, const ManualPage& page);

} // namespace sober::cli
