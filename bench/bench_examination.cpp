#include "bench/bench_support.h"
#include "core/evidence/codec_trace.h"
#include "core/media/probe.h"

#include <algorithm>
#include <cstdio>
#include <ctime>
#include <filesystem>

namespace {

namespace fs = std::filesystem;
using sober::bench::costOf;
using sober::bench::median;

std::string quoted(const fs::path& path) {
    return "'" + path.string() + "'";
}

/// A first survey of a folder at full effort.
std::string surveyOf(const fs::path& folder, const fs::path& catalogue) {
    return "rm -f " + quoted(catalogue) + "*; " SOBER_PROGRAM " --quiet --catalogue " + quoted(catalogue) +
           " survey --effort full " + quoted(folder);
}

std::string toolsOn(const fs::path& folder) {
    return "for f in " + quoted(folder) +
           "/*; do ffmpeg -nostdin -v error -i \"$f\" -f null - && sha256sum \"$f\"; done";
}

/// Processor seconds that the search for grids takes of one file.
double traceSeconds(const std::string& path) {
    const auto file = sober::openForReading(path);
    sober::OpenFileSource source(*file, path, fs::file_size(path));
    const auto probed = sober::probe(source, path);
    sober::TraceSegmentPass pass;
    sober::RunControl control;
    const auto decoded = sober::decodeAudio(source, path, pass, control);
    const auto segments = pass.finish();
    const auto begun = std::clock();
    sober::TraceQuestion question;
    question.rate = decoded->format.sampleRate;
    question.ownCodec = probed->claims.lossless ? "" : probed->claims.codec;
    question.ownFrames = pass.blocksBegan();
    const auto trace = sober::findCodecTrace(segments, question);
    return static_cast<double>(std::clock() - begun) / CLOCKS_PER_SEC;
}

} // namespace

/// bench-examination FOLDER: what a survey at full effort costs against decoding with ffmpeg and
/// sha256sum, by folder of FOLDER (one for each codec), medians of 5. `examination-cost` fills it.
int main(int argc, char** argv) {
    if (argc != 2) {
        std::fprintf(stderr, "bench-examination FOLDER\n");
        return 2;
    }
    const fs::path root = argv[1];
    const fs::path catalogue = root / "bench.sqlite";
    std::vector<double> allRatios;
    double megabytes = 0;
    double files = 0;
    double ours = 0;
    for (const auto& entry : fs::directory_iterator(root)) {
        if (!entry.is_directory()) {
            continue;
        }
        std::vector<double> ratios;
        std::vector<double> seconds;
        for (int round = 0; round < 5; ++round) {
            const auto mine = costOf(surveyOf(entry.path(), catalogue));
            const auto tools = costOf(toolsOn(entry.path()));
            ratios.push_back(mine.processor / tools.processor);
            seconds.push_back(mine.processor);
            megabytes = std::max(megabytes, mine.megabytes);
        }
        const auto count = static_cast<double>(
            std::distance(fs::directory_iterator(entry.path()), fs::directory_iterator()));
        files += count;
        ours += median(seconds);
        allRatios.push_back(median(ratios));
        std::printf("%-8s processor time %.2f x ffmpeg and sha256sum, %.2f s a file\n",
                    entry.path().filename().c_str(), median(ratios), median(seconds) / count);
        std::fflush(stdout);
    }
    std::vector<double> walls;
    for (int round = 0; round < 5; ++round) {
        const auto two = costOf(surveyOf(root, catalogue));
        const auto one = costOf("taskset -c 0 bash -c \"" SOBER_PROGRAM " --quiet --catalogue " +
                                (root / "one.sqlite").string() + " survey --effort full " + root.string() +
                                "\"; rm -f " + quoted(root / "one.sqlite") + "*");
        walls.push_back(one.seconds / two.seconds);
    }
    std::vector<double> traces;
    for (const auto& entry : fs::recursive_directory_iterator(root)) {
        if (entry.is_regular_file() && entry.path().parent_path() != root) {
            traces.push_back(traceSeconds(entry.path()));
        }
    }
    std::printf("codec trace: %.2f s of processor time a file, %.2f at most (limit 0.35)\n", median(traces),
                *std::ranges::max_element(traces));
    std::printf("median of the codecs %.2f (limit 1.6); %.2f s a file on average\n", median(allRatios),
                ours / files);
    std::printf("two processors are %.2f times as fast as one (limit 1.8)\n", median(walls));
    std::printf("largest process %.0f MB (limit 400 for all three)\n", megabytes);
    return 0;
}
