// bench-intake FOLDER [ARRIVALS] [HOLDINGS] [TIMES]: deciding on arrivals in a collection, against examining them
// alone in an empty one, three times in turn or as often as said; medians of the ratios. The arrivals are music of three minutes
// by the demo's synthesiser, as MP3 of 192 kbit/s; the collection is made up, and away.
#include "bench/away_catalogue.h"
#include "bench/bench_support.h"
#include "core/catalogue/inbox_store.h"
#include "core/survey/survey.h"
#include "core/work/take_arrivals.h"
#include "demo/encode.h"
#include "demo/synth.h"

#include <tbb/parallel_for.h>

#include <filesystem>

namespace {

using namespace sober;
namespace fs = std::filesystem;

void makeArrivals(const BytePath& folder, int count) {
    fs::create_directories(folder);
    tbb::parallel_for(0, count, [&](int number) {
        const auto path = joinPath(folder, fmt::format("{:04}.mp3", number));
        if (!fs::exists(path)) {
            const auto seed = static_cast<std::uint32_t>(10'000 + number);
            const demo::Piece piece{static_cast<demo::Voice>(number % 5), seed, 90, 80.0 + number % 60};
            auto samples = demo::synthesise(piece);
            const auto half = samples;
            samples.insert(samples.end(), half.begin(), half.end());
            demo::encode(samples, {fmt::format("Piece {}", number), "Bench", "", 0, 2000}, path,
                         {"-b:a", "192k"});
            fs::last_write_time(path, fs::file_time_type::clock::now() - std::chrono::hours(1));
        }
    });
}

} // namespace

int main(int argc, char** argv) {
    if (argc < 2) {
        fmt::print(stderr, "bench-intake FOLDER [ARRIVALS] [HOLDINGS] [TIMES]\n");
        return 2;
    }
    const BytePath folder = fs::absolute(argv[1]).string();
    const int arrivals = argc > 2 ? std::atoi(argv[2]) : 1'000;
    const int holdings = argc > 3 ? std::atoi(argv[3]) : 100'000;
    const int rounds = argc > 4 ? std::atoi(argv[4]) : 3;
    const auto inbox = joinPath(folder, "in");
    makeArrivals(inbox, arrivals);
    const auto whole = joinPath(folder, "whole.sqlite");
    fs::remove(whole);
    bench::writeAwayCatalogue(whole, holdings);
    std::vector<double> ratios;
    for (int round = 0; round < rounds; ++round) {
        RunControl control;
        const auto quiet = [](const Progress&) {};
        fs::remove(joinPath(folder, "empty.sqlite"));
        auto empty = bench::orEnd(Catalogue::openForWriting(joinPath(folder, "empty.sqlite")));
        const double alone = bench::secondsOf([&] {
            bench::orEnd(surveyVolume(empty, {inbox, {}, {}, Effort::full}, control, quiet));
        });
        const auto now = joinPath(folder, "now.sqlite");
        fs::remove(now);
        fs::copy_file(whole, now);
        auto catalogue = bench::orEnd(Catalogue::openForWriting(now));
        InboxStore(catalogue).keep({0, inbox, joinPath(folder, "filed"), "keep"}).ok();
        std::size_t seen = 0;
        const double decided = bench::secondsOf([&] {
            if (const auto surveyed = surveyInboxes(catalogue, control, quiet); !surveyed) {
                fmt::print(stderr, "{}\n", surveyed.error().sentence);
                std::exit(1);
            }
            seen = bench::orEnd(lookAtArrivals(catalogue, control)).size();
        });
        ratios.push_back(decided / alone);
        fmt::print("{} arrivals into {}: examined alone {:.1f} s, decided {:.1f} s, {:.2f} x\n", seen,
                   holdings, alone, decided, decided / alone);
    }
    fmt::print("median {:.2f} x (limit 1.15); memory {:.0f} MB\n", bench::median(ratios),
               bench::residentMegabytes());
    return 0;
}
