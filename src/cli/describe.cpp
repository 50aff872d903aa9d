#include "cli/describe.h"

#include <CLI/CLI.hpp>
#include <fmt/format.h>

#include <algorithm>
#include <cstdio>
#include <functional>

namespace sober::cli {
namespace {

using Options = std::vector<const CLI::Option*>;
using Commands = std::vector<const CLI::App*>;

Commands commandsOf(const CLI::App& app) {
    return app.get_subcommands([](const CLI::App* each) { return !each->get_name().empty(); });
}

Options optionsOf(const CLI::App& app, bool positional) {
    Options options;
    for (const auto* option : app.get_options()) {
        const bool isPositional = option->get_lnames().empty() && option->get_snames().empty();
        if (isPositional == positional) {
            options.push_back(option);
        }
    }
    return options;
}

/// "--to", or "-h" where there is no long one.
std::string nameOf(const CLI::Option& option) {
    return !option.get_lnames().empty() ? "--" + option.get_lnames().front()
                                        : "-" + option.get_snames().front();
}

bool takesWord(const CLI::Option& option) {
    return option.get_expected_max() > 0 && option.get_items_expected_max() > 0;
}

/// Text in roff: nothing in it is a request.
std::string roff(std::string_view text) {
    std::string escaped;
    for (const char c : text) {
        escaped += c == '\\' ? std::string("\\e") : c == '-' ? std::string("\\-") : std::string(1, c);
    }
    return escaped.starts_with('.') || escaped.starts_with('\'') ? "\\&" + escaped : escaped;
}

std::string positionalWord(const CLI::Option& option) {
    auto word = option.get_name(true);
    word += option.get_expected_max() > 1 ? "..." : "";
    return option.get_required() ? word : "[" + word + "]";
}

std::string optionLines(const CLI::App& app) {
    std::string lines;
    for (const auto* option : optionsOf(app, false)) {
        if (app.get_parent() != nullptr && option->get_lnames() == std::vector<std::string>{"help"}) {
            continue; // said once
        }
        std::string names;
        for (const auto& name : option->get_snames()) {
            names += (names.empty() ? "\\fB\\-" : ", \\fB\\-") + roff(name) + "\\fR";
        }
        for (const auto& name : option->get_lnames()) {
            names += (names.empty() ? "\\fB\\-\\-" : ", \\fB\\-\\-") + roff(name) + "\\fR";
        }
        lines += ".TP\n" + names + (takesWord(*option) ? " \\fI" + roff("WORD") + "\\fR" : "") + "\n" +
                 roff(option->get_description()) + "\n";
    }
    return lines;
}

void commandLines(const CLI::App& app, const std::string& path, std::string& out) {
    for (const auto* command : commandsOf(app)) {
        const auto name = path + " " + command->get_name();
        std::string words;
        for (const auto* option : optionsOf(*command, true)) {
            words += " \\fI" + roff(positionalWord(*option)) + "\\fR";
        }
        out += ".SS " + roff(name) + words + "\n" + roff(command->get_description()) + ".\n" +
               optionLines(*command);
        commandLines(*command, name, out);
    }
}

/// Each command with those above it, "" for none.
void visit(const CLI::App& app, const std::string& path,
           const std::function<void(const std::string& path, const CLI::App& app)>& each) {
    each(path, app);
    for (const auto* command : commandsOf(app)) {
        visit(*command, path.empty() ? command->get_name() : path + " " + command->get_name(), each);
    }
}

std::string quoted(std::string text, std::string_view offending, std::string_view with) {
    for (auto at = text.find(offending); at != std::string::npos;
         at = text.find(offending, at + with.size())) {
        text.replace(at, offending.size(), with);
    }
    return text;
}

std::string wordsAt(const CLI::App& app) {
    std::string words;
    for (const auto* command : commandsOf(app)) {
        words += (words.empty() ? "" : " ") + command->get_name();
    }
    for (const auto* option : optionsOf(app, false)) {
        words += (words.empty() ? "" : " ") + nameOf(*option);
    }
    return words;
}

std::string manualPage(const CLI::App& app, const ManualPage& page) {
    auto upper = app.get_name();
    std::ranges::transform(upper, upper.begin(), [](char c) { return static_cast<char>(std::toupper(c)); });
    std::string out = fmt::format(
        ".TH {} 1 \"\" \"Sober Archivist {}\" \"User Commands\"\n.SH NAME\n{} \\- {}\n.SH "
        "SYNOPSIS\n\\fB{}\\fR [\\fIOPTION\\fR...]",
        roff(upper), SOBER_VERSION, roff(app.get_name()), roff(app.get_description()), roff(app.get_name()));
    if (!commandsOf(app).empty()) {
        out += " \\fICOMMAND\\fR [\\fIWORD\\fR...]";
    }
    for (const auto* option : optionsOf(app, true)) {
        out += " \\fI" + roff(positionalWord(*option)) + "\\fR";
    }
    out += "\n.SH DESCRIPTION\n";
    std::string_view left = page.description;
    while (!left.empty()) {
        const auto end = left.find("\n\n");
        out += roff(left.substr(0, end)) + "\n" + (end == std::string_view::npos ? "" : ".PP\n");
        left = end == std::string_view::npos ? std::string_view() : left.substr(end + 2);
    }
    out += ".SH OPTIONS\n" + optionLines(app);
    if (!commandsOf(app).empty()) {
        out += ".SH COMMANDS\n";
        commandLines(app, app.get_name(), out);
    }
    out += page.after;
    return out + fmt::format(".SH SEE ALSO\n.BR {} (1)\n", page.seeAlso);
}

std::string bashCompletion(const CLI::App& app) {
    const auto function = "_" + quoted(app.get_name(), "-", "_");
    std::string cases;
    visit(app, "", [&](const std::string& path, const CLI::App& at) {
        cases += fmt::format("    \"{}\") words=\"{}\" ;;\n", path, wordsAt(at));
    });
    std::string common;
    for (const auto* option : optionsOf(app, false)) {
        common += (common.empty() ? "" : " ") + nameOf(*option);
    }
    // The command so far is made of the words that are commands there; what follows an option is its own.
    return fmt::format(
        R"(# Completions of {0}, written by it: {0} --describe bash
{1}_words() {{
  local words=""
  case "$1" in
{2}    *) return 1 ;;
  esac
  printf '%s' "$words"
}}
{1}() {{
  local current="${{COMP_WORDS[COMP_CWORD]}}" path="" offered="" longer word i
  for ((i = 1; i < COMP_CWORD; i++)); do
    word="${{COMP_WORDS[i]}}"
    longer="${{path:+$path }}$word"
    [[ $word != -* ]] && {1}_words "$longer" >/dev/null && path="$longer"
  done
  for word in $({1}_words "$path") {3}; do
    [[ ($current == -* && $word == -*) || ($current != -* && $word != -*) ]] && offered+=" $word"
  done
  mapfile -t COMPREPLY < <(compgen -W "$offered" -- "$current")
  if [[ ${{#COMPREPLY[@]}} -eq 0 ]]; then
    compopt -o filenames 2>/dev/null
    mapfile -t COMPREPLY < <(compgen -f -- "$current")
  fi
}}
complete -F {1} {0}
)",
        app.get_name(), function, cases, common);
}

std::string zshCompletion(const CLI::App& app) {
    const auto function = "_" + quoted(app.get_name(), "-", "_");
    std::string cases;
    visit(app, "", [&](const std::string& path, const CLI::App& at) {
        std::string rows;
        for (const auto* command : commandsOf(at)) {
            rows += fmt::format("      '{}:{}'\n", command->get_name(),
                                quoted(command->get_description(), "'", "'\\''"));
        }
        for (const auto* option : optionsOf(at, false)) {
            rows += fmt::format("      '{}:{}'\n", nameOf(*option),
                                quoted(option->get_description(), "'", "'\\''"));
        }
        cases += fmt::format("    '{}') found=(\n{}      ) ;;\n", path, rows);
    });
    return fmt::format(R"(#compdef {0}
# Completions of {0}, written by it: {0} --describe zsh
{1}_words() {{
  case "$1" in
{2}    *) return 1 ;;
  esac
}}
{1}() {{
  local -a found
  local path_so_far="" longer word
  for word in "${{words[@]:1:$((CURRENT - 2))}}"; do
    longer="${{path_so_far:+$path_so_far }}$word"
    [[ $word != -* ]] && {1}_words "$longer" && path_so_far="$longer"
  done
  {1}_words "$path_so_far"
  _describe '{0}' found
  _files
}}
{1} "$@"
)",
                       app.get_name(), function, cases);
}

std::string fishCompletion(const CLI::App& app) {
    std::string lines =
        fmt::format("# Completions of {0}, written by it: {0} --describe fish\n", app.get_name());
    const auto description = [](const std::string& text) {
        return quoted(quoted(text, "\\", "\\\\"), "'", "\\'");
    };
    visit(app, "", [&](const std::string& path, const CLI::App& at) {
        // Within a command once all its words were given, and none of those below it.
        std::string condition;
        for (auto rest = path; !rest.empty();) {
            const auto end = rest.find(' ');
            condition += (condition.empty() ? "" : "; and ") + std::string("__fish_seen_subcommand_from ") +
                         rest.substr(0, end);
            rest = end == std::string::npos ? std::string() : rest.substr(end + 1);
        }
        if (!commandsOf(at).empty()) {
            std::string below;
            for (const auto* command : commandsOf(at)) {
                below += " " + command->get_name();
            }
            const auto here = (condition.empty() ? "" : condition + "; and ") +
                              std::string("not __fish_seen_subcommand_from") + below;
            for (const auto* command : commandsOf(at)) {
                lines += fmt::format("complete -c {} -n '{}' -a {} -d '{}'\n", app.get_name(), here,
                                     command->get_name(), description(command->get_description()));
            }
        }
        for (const auto* option : optionsOf(at, false)) {
            lines += fmt::format("complete -c {}{} {}{} -d '{}'\n", app.get_name(),
                                 condition.empty() ? "" : " -n '" + condition + "'",
                                 option->get_lnames().empty() ? "-s " + option->get_snames().front()
                                                              : "-l " + option->get_lnames().front(),
                                 takesWord(*option) ? " -r" : "", description(option->get_description()));
        }
    });
    return lines;
}

} // namespace

std::optional<int> describe(const CLI::App& app, int argc, char** argv, const ManualPage& page) {
    if (argc != 3 || argv[1] != std::string_view("--describe")) {
        return {};
    }
    const std::string_view form = argv[2];
    const auto text = form == "man"    ? manualPage(app, page)
                      : form == "bash" ? bashCompletion(app)
                      : form == "zsh"  ? zshCompletion(app)
                      : form == "fish" ? fishCompletion(app)
                                       : std::string();
    if (text.empty()) {
        std::fputs("--describe takes man, bash, zsh or fish.\n", stderr);
        return 2;
    }
    std::fwrite(text.data(), 1, text.size(), stdout);
    return 0;
}

} // namespace sober::cli
