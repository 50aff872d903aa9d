// bench-actions FOLDER [COUNT [retire|move]]: moves and retires so many small files that are all in a
// player's list, takes both back, and holds each against a C program that renames as many and flushes their
// folders once for each 256, and one that adds no more than what no move can do without that is to be taken
// back after any interruption. A few times in turn; the median of the ratios.
#include "bench/bench_support.h"
#include "core/audit/plan_places.h"
#include "core/base/text.h"
#include "core/catalogue/docket_store.h"
#include "core/catalogue/holdings.h"
#include "core/players/read_players.h"
#include "core/survey/survey.h"
#include "core/work/carry_out.h"

#include <fmt/format.h>

#include <algorithm>
#include <chrono>
#include <cstdlib>
#include <filesystem>
#include <fstream>
#include <thread>

namespace {

using namespace sober;
namespace fs = std::filesystem;

BytePath nameOfFile(int number) {
    return fmt::format("{}/{}.wav", number / 500, number);
}

void write(const BytePath& path, const std::string& content) {
    fs::create_directories(fs::path(path).parent_path());
    std::ofstream(path, std::ios::binary) << content;
}

using bench::orEnd;

class Bench {
  public:
    Bench(BytePath folder, int count)
        : folder_(std::move(folder)),
          count_(count),
          catalogue_(orEnd(Catalogue::openForWriting(joinPath(folder_, "catalogue.sqlite")))) {
        std::string list = "#EXTM3U\n";
        for (int i = 0; i < count_; ++i) {
            const auto content = bench::noiseWav(512, static_cast<std::uint32_t>(i));
            for (const auto* part : {"V/goes", "V/stays"}) {
                write(joinPath(joinPath(folder_, part), nameOfFile(i)), content);
            }
            write(joinPath(joinPath(folder_, "plain/from"), nameOfFile(i)), content);
            list += joinPath(joinPath(folder_, "V/goes"), nameOfFile(i)) + "\n";
        }
        write(joinPath(folder_, "player/all.m3u8"), list);
        RunControl control;
        orEnd(
            surveyVolume(catalogue_, {joinPath(folder_, "V"), {}, {}, {}}, control, [](const Progress&) {}));
        Player player;
        player.name = "bench";
        player.places = {joinPath(folder_, "player")};
        orEnd(takeInPlayer(catalogue_, player, control));
    }

    void decideRetire() {
        std::vector<DocketAction> actions;
        orEnd(Holdings(catalogue_).eachPresent([&](PresentHolding&& holding) {
            if (holding.path.starts_with("goes/")) {
                actions.push_back({0, ActionKind::retire, holding.id, "", timeNow()});
            }
        }));
        orEnd(DocketStore(catalogue_).add(actions));
    }
    void decideMove() {
        orEnd(planMove(catalogue_, joinPath(folder_, "V/goes"), joinPath(folder_, "V/gone/"), ""));
    }

    double forth() {
        RunControl control;
        const auto began = std::chrono::steady_clock::now();
        const auto carried = orEnd(carryOut(catalogue_, control, {}));
        const double seconds = since(began);
        entry_ = carried.entry;
        check(carried);
        return seconds;
    }
    double back() {
        RunControl control;
        const auto began = std::chrono::steady_clock::now();
        const auto undone = orEnd(undoEntry(catalogue_, entry_, control, {}));
        const double seconds = since(began);
        check(undone);
        return seconds;
    }
    double plain(bool back) const { return renamed(RENAME_BASELINE, back, ""); }
    /// With all that is promised; what it renamed is renamed back.
    double promised(bool retire) const {
        const double seconds =
            renamed(PROMISED_BASELINE, false, retire ? joinPath(folder_, "V/stays") : BytePath());
        plain(true);
        fs::remove_all(joinPath(folder_, "plain/to"));
        return seconds;
    }

  private:
    double renamed(const char* program, bool back, const BytePath& stays) const {
        const auto from = joinPath(folder_, back ? "plain/to" : "plain/from");
        const auto to = joinPath(folder_, back ? "plain/from" : "plain/to");
        fs::create_directories(to);
        const auto command = fmt::format("{} {} {} {} {}", program, from, to, count_, stays);
        const auto began = std::chrono::steady_clock::now();
        if (std::system(command.c_str()) != 0) {
            std::exit(1);
        }
        return since(began);
    }
    static double since(std::chrono::steady_clock::time_point began) {
        return std::chrono::duration<double>(std::chrono::steady_clock::now() - began).count();
    }
    static void check(const CarriedOut& result) {
        if (!result.refused.empty()) {
            fmt::print(stderr, "{} refused: {}\n", result.refused.size(), result.refused.front().sentence);
            std::exit(1);
        }
    }

    BytePath folder_;
    int count_;
    Catalogue catalogue_;
    EntryId entry_ = 0;
};

double median(std::vector<double> values) {
    std::ranges::sort(values);
    return values[values.size() / 2];
}

} // namespace

int main(int argc, char** argv) {
    if (argc < 2) {
        fmt::print(
            stderr,
            "bench-actions FOLDER [COUNT [retire|move]]: needs an empty folder on a lasting file system\n");
        return 2;
    }
    const int count = argc > 2 ? std::atoi(argv[2]) : 20'000;
    const auto folder = joinPath(realPathOf(argv[1]).value_or(argv[1]), "bench-actions");
    fs::remove_all(folder);
    fs::create_directories(folder);
    setenv("XDG_DATA_HOME", joinPath(folder, "home").c_str(), 1);
    Bench bench(folder, count);
    for (const bool move : {false, true}) {
        if (argc > 3 && std::string_view(argv[3]) != (move ? "move" : "retire")) {
            continue;
        }
        std::vector<double> forth;
        std::vector<double> back;
        std::vector<double> promised;
        for (int turn = 0; turn < 3; ++turn) {
            move ? bench.decideMove() : bench.decideRetire();
            // ext4 searches long for an inode that was not deleted within the last five seconds.
            const auto forget = [] { std::this_thread::sleep_for(std::chrono::seconds(6)); };
            forget();
            const double least = bench.promised(!move);
            forget();
            const double plainForth = bench.plain(false);
            const double ours = bench.forth();
            const double plainBack = bench.plain(true);
            const double oursBack = bench.back();
            fmt::print("{} {}: {:.2f} s against {:.2f} s; back {:.2f} s against {:.2f} s\n",
                       move ? "moved" : "retired", humanCount(static_cast<std::uint64_t>(count)), ours,
                       plainForth, oursBack, plainBack);
            fmt::print("  {:.2f} s by what does no more than is promised\n", least);
            std::fflush(stdout);
            forth.push_back(ours / plainForth);
            promised.push_back(ours / least);
            back.push_back(oursBack / plainBack);
        }
        fmt::print(
            "{}: {:.1f} times as long in the median, back {:.1f} times; {:.1f} times what does no more than "
            "is promised\n",
            move ? "move" : "retire", median(forth), median(back), median(promised));
    }
    fs::remove_all(folder);
    return 0;
}
