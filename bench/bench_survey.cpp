#include "bench/bench_support.h"

#include <cstdint>
#include <cstdio>
#include <filesystem>
#include <fstream>
#include <random>

namespace {

namespace fs = std::filesystem;

/// A WAV file of noise, written straight to disk.
void writeNoise(const fs::path& path, std::uint32_t seed, std::uint32_t bytes) {
    std::string wav = "RIFF....WAVEfmt \x10";
    const auto put = [&](std::uint32_t value, int length) {
        for (int i = 0; i < length; ++i) {
            wav.push_back(static_cast<char>(value >> (8 * i)));
        }
    };
    wav.append(3, '\0');
    put(1, 2);
    put(2, 2);
    put(44100, 4);
    put(176400, 4);
    put(4, 2);
    put(16, 2);
    wav += "data";
    put(bytes, 4);
    std::mt19937 random(seed);
    while (wav.size() < bytes + 44) {
        put(random(), 4);
    }
    std::ofstream(path, std::ios::binary) << wav;
}

void makeFiles(const fs::path& folder, int count, std::uint32_t bytes, int perFolder) {
    if (fs::exists(folder / "complete")) {
        return;
    }
    for (int i = 0; i < count; ++i) {
        const fs::path below = folder / "files" / std::to_string(i / perFolder);
        fs::create_directories(below);
        writeNoise(below / (std::to_string(i) + ".wav"), static_cast<std::uint32_t>(i), bytes);
    }
    std::ofstream(folder / "complete") << "\n";
}

} // namespace

/// bench-survey FOLDER: surveys against general-purpose tools on the same files, warm, medians of 5.
/// Needs 2.3 GB in FOLDER, which it fills once.
int main(int argc, char** argv) {
    if (argc != 2) {
        std::fprintf(stderr, "bench-survey FOLDER\n");
        return 2;
    }
    const fs::path folder = argv[1];
    const std::string sober = SOBER_PROGRAM;
    const auto quoted = [](const fs::path& path) { return "'" + path.string() + "'"; };

    const fs::path large = folder / "large";
    makeFiles(large, 400, 5'000'000, 20);
    const std::string catalogue = quoted(folder / "large.sqlite");
    const std::string files = quoted(large / "files");
    const std::string survey = sober + " --quiet --catalogue " + catalogue + " survey " + files;
    const std::string forget = "rm -f " + catalogue + "*";
    sober::bench::compare("first survey, 400 files of 5 MB, against sha256sum", survey,
                          "find " + files + " -type f -print0 | xargs -0 -P2 -n 50 sha256sum", 0.4, forget);
    sober::bench::compare("first survey, 400 files of 5 MB, against xxhsum -H2", survey,
                          "find " + files + " -type f -print0 | xargs -0 -P2 -n 50 xxhsum -H2", 2.5, forget);

    const fs::path small = folder / "small";
    makeFiles(small, 100'000, 400, 100);
    const std::string smallCatalogue = quoted(folder / "small.sqlite");
    const std::string again =
        sober + " --quiet --catalogue " + smallCatalogue + " survey " + quoted(small / "files");
    if (!fs::exists(folder / "small.sqlite")) {
        const auto first = sober::bench::costOf(again);
        std::printf("first survey of 100,000 small files: %.1f s, %.0f MB\n", first.seconds, first.megabytes);
    }
    sober::bench::compare("second survey, 100,000 unchanged files, against find", again,
                          "find " + quoted(small / "files") + " -printf '%s %T@ %p\\n'", 1.5);
    return 0;
}
