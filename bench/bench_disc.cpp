// bench-disc FOLDER [MINUTES]: reading the image of a disc and writing it as FLAC and MP3, everything read
// back and decoded, against the slower of one `flac -5` and one encode by FFmpeg's libmp3lame of the same
// samples, three times in turn; the median of the ratios. The music is the demo's.
#include "bench/bench_support.h"
#include "core/disc/disc_contents.h"
#include "core/work/read_disc.h"
#include "demo/synth.h"

#include <fmt/format.h>

#include <cstdlib>
#include <filesystem>
#include <fstream>

namespace {

using namespace sober;
namespace fs = std::filesystem;

/// Twelve tracks in a row; each a piece of three minutes, again and again with its channels turned.
void makeImage(const BytePath& folder, int minutes) {
    if (fs::exists(joinPath(folder, "disc.cue"))) {
        return;
    }
    constexpr int tracks = 12;
    const int sectors = minutes * 60 * sectorsPerSecond / tracks;
    std::ofstream bin(joinPath(folder, "disc.bin"), std::ios::binary);
    std::ofstream sheet(joinPath(folder, "disc.cue"));
    sheet << "FILE \"disc.bin\" BINARY\n";
    for (int track = 0; track < tracks; ++track) {
        const demo::Piece piece{static_cast<demo::Voice>(track % 6), static_cast<std::uint32_t>(70 + track),
                                90, 96};
        const auto samples = demo::synthesise(piece);
        DiscSamples filled(static_cast<std::size_t>(sectors) * sectorNumbers);
        for (std::size_t i = 0; i < filled.size(); ++i) {
            const auto round = i / samples.size();
            filled[i] = samples[(i % samples.size()) ^ (round & 1U)];
        }
        bin.write(reinterpret_cast<const char*>(filled.data()),
                  static_cast<std::streamsize>(filled.size() * 2));
        const int begin = track * sectors;
        sheet << fmt::format("  TRACK {:02} AUDIO\n    INDEX 01 {:02}:{:02}:{:02}\n", track + 1,
                             begin / 75 / 60, begin / 75 % 60, begin % 75);
    }
}

double secondsOfShell(const std::string& command) {
    return bench::secondsOf([&] {
        if (std::system(command.c_str()) != 0) {
            fmt::print(stderr, "failed: {}\n", command);
            std::exit(1);
        }
    });
}

} // namespace

int main(int argc, char** argv) {
    if (argc < 2) {
        fmt::print(stderr, "bench-disc FOLDER [MINUTES]\n");
        return 2;
    }
    const BytePath folder = fs::absolute(argv[1]).string();
    fs::create_directories(folder);
    makeImage(folder, argc > 2 ? std::atoi(argv[2]) : 70);
    const auto raw = joinPath(folder, "disc.bin");
    std::vector<double> ratios;
    for (int times = 0; times < 3; ++times) {
        const double flac =
            secondsOfShell("flac -5 -s -f --force-raw-format --endian=little --sign=signed --channels=2 "
                           "--bps=16 --sample-rate=44100 -o '" +
                           folder + "/one.flac' '" + raw + "'");
        const double mp3 = secondsOfShell("ffmpeg -v error -y -f s16le -ar 44100 -ac 2 -i '" + raw +
                                          "' -c:a libmp3lame -q:a 0 '" + folder + "/one.mp3'");
        fs::remove_all(joinPath(folder, "out"));
        for (const auto* ending : {"", "-wal", "-shm", ".lock", ".discs"}) {
            fs::remove_all(joinPath(folder, std::string("c.sqlite") + ending));
        }
        auto catalogue = bench::orEnd(Catalogue::openForWriting(joinPath(folder, "c.sqlite")));
        RunControl control;
        DiscRequest request;
        request.disc = joinPath(folder, "disc.cue");
        request.to = joinPath(folder, "out");
        request.forms = {"flac", "mp3:V0"};
        double reading = 0;
        const double ours = bench::secondsOf([&] {
            std::optional<DiscRead> read;
            reading =
                bench::secondsOf([&] { read = bench::orEnd(readDisc(catalogue, request, control, {})); });
            const auto carried = bench::orEnd(placeDisc(catalogue, *read, control, {}));
            if (!carried.refused.empty() || !read->failed.empty()) {
                fmt::print(stderr, "not everything was written\n");
                std::exit(1);
            }
        });
        ratios.push_back(ours / std::max(flac, mp3));
        fmt::print(
            "flac {:.1f} s, lame {:.1f} s; ours {:.1f} s, of which {:.1f} s until all was made: {:.2f} x\n",
            flac, mp3, ours, reading, ratios.back());
    }
    fmt::print("median {:.2f} x (limit 1.15); memory {:.0f} MB\n", bench::median(ratios),
               bench::residentMegabytes());
    return 0;
}
