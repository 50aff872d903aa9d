#include "bench/away_catalogue.h"
#include "bench/bench_support.h"
#include "core/audit/match_recordings.h"
#include "core/catalogue/catalogue.h"
#include "core/catalogue/landmark_store.h"
#include "core/catalogue/recording_pairs.h"

#include <sys/resource.h>

#include <chrono>
#include <cstdio>
#include <cstdlib>
#include <filesystem>
#include <set>

namespace {

using namespace sober;

/// Seconds that matching takes.
double match(const Catalogue& catalogue) {
    RunControl control;
    const auto began = std::chrono::steady_clock::now();
    if (const auto matched = matchRecordings(catalogue, control, [](const Progress&) {}); !matched) {
        std::fprintf(stderr, "%s\n", matched.error().sentence.c_str());
        std::exit(1);
    }
    return std::chrono::duration<double>(std::chrono::steady_clock::now() - began).count();
}

/// Seconds that matching takes where ten contents are new.
double matchTenMore(const Catalogue& catalogue) {
    const LandmarkStore store(catalogue);
    const auto owners = store.owners();
    std::vector<std::uint32_t> forgotten;
    for (std::size_t at = 0; owners && at < 10; ++at) {
        forgotten.push_back((*owners)[at * owners->size() / 10].number);
    }
    return store.forget(forgotten) ? match(catalogue) : 0;
}

double peakMegabytes() {
    rusage usage{};
    getrusage(RUSAGE_SELF, &usage);
    return static_cast<double>(usage.ru_maxrss) / 1024;
}

} // namespace

/// bench-matching [FOLDER]: finds the sets among 10,000, 30,000 and 100,000 fingerprints of a catalogue;
/// seconds, and how many times as long as sha256sum takes to read that catalogue.
int main(int argc, char** argv) {
    const std::filesystem::path folder = argc > 1 ? argv[1] : "/tmp/bench-matching";
    std::filesystem::create_directories(folder);
    double before = 0;
    for (const int count : {10'000, 30'000, 100'000}) {
        const auto path = (folder / (std::to_string(count) + ".sqlite")).string();
        std::filesystem::remove(path);
        const int planted = sober::bench::writeAwayCatalogue(path, count);
        const auto catalogue = Catalogue::openForWriting(path);
        const double seconds = match(*catalogue);
        const auto pairs = RecordingPairs(*catalogue).all();
        if (!pairs) {
            std::fprintf(stderr, "%s\n", pairs.error().sentence.c_str());
            return 1;
        }
        std::set<Checksum128> met;
        for (const auto& pair : *pairs) {
            met.insert({pair.first, pair.second});
        }
        const auto tool = sober::bench::costOf("sha256sum '" + path + "'");
        std::printf(
            "%7d fingerprints: %5.1f s (limit 60 for 100,000), %.1f x sha256sum; %zu of %d that have a "
            "fellow were met; %.0f MB (limit 1,500)%s\n",
            count, seconds, seconds / tool.seconds, met.size(), planted, peakMegabytes(),
            before > 0 ? ("; " + std::to_string(seconds / before).substr(0, 4) + " x the one before").c_str()
                       : "");
        std::printf("        ten more of them: %.2f s\n", matchTenMore(*catalogue));
        std::fflush(stdout);
        before = seconds;
        std::filesystem::remove(path);
    }
    return 0;
}
