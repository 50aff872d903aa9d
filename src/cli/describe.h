#pragma once

#include <string>
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

/// A page of section 1 (man(7)).
std::string manualPage(const CLI::App& app, const ManualPage& page);

/// Completions of commands and options; of anything else the shell's own, of files.
std::string bashCompletion(const CLI::App& app);
std::string zshCompletion(const CLI::App& app);
std::string fishCompletion(const CLI::App& app);

/// What `--describe man|bash|zsh|fish` prints; "" for another word.
std::string described(const CLI::App& app, std::string_view form, const ManualPage& page);

} // namespace sober::cli
