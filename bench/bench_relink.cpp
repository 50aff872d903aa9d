#include "bench/bench_support.h"
#include "bench/moved_library.h"
#include "core/audit/relink.h"
#include "core/base/text.h"
#include "core/players/read_players.h"

#include <fmt/format.h>

#include <chrono>
#include <filesystem>
#include <fstream>

namespace {

using namespace sober;
namespace fs = std::filesystem;

double since(std::chrono::steady_clock::time_point began) {
    return std::chrono::duration<double>(std::chrono::steady_clock::now() - began).count();
}

std::string peakMemory() {
    std::ifstream status("/proc/self/status");
    for (std::string line; std::getline(status, line);) {
        if (line.starts_with("VmHWM:")) {
            return line.substr(6);
        }
    }
    return {};
}

/// Opens the library (first or again) in a process of its own.
int open(const BytePath& folder) {
    auto catalogue = Catalogue::openForWriting(joinPath(folder, "catalogue.sqlite"));
    RunControl control;
    Player player;
    player.name = "bench";
    player.places = {joinPath(folder, "player")};
    return catalogue && takeInPlayer(*catalogue, player, control) ? 0 : 1;
}

/// Relinks in a process of its own, whose memory is its own; writes what it linked.
int measure(const BytePath& folder) {
    const auto catalogue = Catalogue::openForWriting(joinPath(folder, "catalogue.sqlite"));
    RunControl control;
    const auto began = std::chrono::steady_clock::now();
    const auto relinking = relink(*catalogue, {}, control);
    const double seconds = since(began);
    if (!relinking) {
        fmt::print(stderr, "{}\n", relinking.error().sentence);
        return 1;
    }
    std::ofstream links(joinPath(folder, "links"));
    for (const auto& link : relinking->links) {
        links << relinking->lost[link.lost].path << '\n' << link.target << '\n';
    }
    fmt::print("{} references, {} resolved, {} after: {:.1f} s (limit 10), {} (limit 400 MB)\n",
               humanCount(relinking->references), humanCount(relinking->resolvedBefore),
               humanCount(relinking->resolvedAfter), seconds, peakMemory());
    fmt::print("{} to be asked, {} not found\n", humanCount(relinking->ambiguous.size()),
               humanCount(relinking->unresolved.size()));
    for (const auto& rule : relinking->rules) {
        fmt::print("  {:>6}  {} ({})\n", rule.count, wordsOf(rule), rule.grounds);
    }
    return 0;
}

void judgeLinks(const bench::MovedLibrary& library) {
    std::ifstream links(joinPath(library.folder, "links"));
    std::uint64_t right = 0;
    std::uint64_t rightKnowable = 0;
    std::uint64_t wrong = 0;
    for (std::string lost, target; std::getline(links, lost) && std::getline(links, target);) {
        const bool isRight = library.truth.at(lost) == target;
        right += isRight ? 1 : 0;
        rightKnowable += isRight && library.knowable.at(lost) ? 1 : 0;
        wrong += isRight ? 0 : 1;
        if (!isRight && wrong <= 5) {
            fmt::print("  wrong: {} to {}\n", lost, target);
        }
    }
    std::uint64_t knowable = 0;
    std::uint64_t there = 0;
    for (const auto& [place, known] : library.knowable) {
        knowable += known ? 1 : 0;
        there += library.truth.at(place).empty() ? 0 : 1;
    }
    fmt::print(
        "of {} that can be known {} are linked: {:.2f} % (limit 99.5); of all {} whose file is there {}; to "
        "another recording: {} (limit 0)\n",
        humanCount(knowable), humanCount(rightKnowable),
        100.0 * static_cast<double>(rightKnowable) / static_cast<double>(knowable), humanCount(there),
        humanCount(right), wrong);
}

} // namespace

/// bench-relink FOLDER: a library of 100,000 entries opened, against stat on each path; and 60,000 broken
/// references relinked. FOLDER is filled anew.
int main(int argc, char** argv) {
    if (argc == 3) {
        return std::string_view(argv[2]) == "open" ? open(argv[1]) : measure(argv[1]);
    }
    if (argc != 2) {
        fmt::print(stderr, "bench-relink FOLDER\n");
        return 2;
    }
    const BytePath folder = fs::absolute(argv[1]).string();
    fs::remove_all(folder);
    fs::create_directories(folder);
    const auto library = bench::makeMovedLibrary(folder);
    {
        std::ofstream paths(joinPath(folder, "paths"));
        const fs::path root = joinPath(folder, "V");
        for (const auto& [place, target] : library.truth) {
            paths << place << '\0';
        }
        for (int tree = 1; tree <= 4; ++tree) {
            for (const auto& file : fs::recursive_directory_iterator(root / fmt::format("stayed {}", tree))) {
                if (file.is_regular_file()) {
                    paths << file.path().string() << '\0';
                }
            }
        }
    }
    const auto quoted = [&](std::string_view name) { return "'" + joinPath(folder, name) + "'"; };
    const std::string self = fs::read_symlink("/proc/self/exe").string() + " '" + folder + "'";
    const std::string stat = "xargs -0 stat -c '%s %Y %n' < " + quoted("paths") + " 2>&1; true";
    const std::string fresh = "cp " + quoted("catalogue.sqlite") + " " + quoted("catalogue.fresh");
    if (std::system(fresh.c_str()) != 0) {
        return 1;
    }
    bench::compare("opening a library of 100,000 entries for the first time, against stat on each path",
                   self + " open", stat, 3,
                   "rm -f " + quoted("catalogue.sqlite") + "-*; cp " + quoted("catalogue.fresh") + " " +
                       quoted("catalogue.sqlite"));
    bench::compare("opening it again, unchanged, against stat on each path", self + " open", stat, 3);
    bench::compare("opening it after its player has written it anew, against stat on each path",
                   self + " open", stat, 3, "touch " + quoted("player/library.xspf"));
    if (std::system((self + " measure").c_str()) != 0) {
        return 1;
    }
    judgeLinks(library);
    return 0;
}
