// bench-salvage FOLDER [GB]: looking through an image with all kinds, against sha256sum of the same file,
// three times in turn; medians of the ratios, and the memory of the process. FOLDER needs the size of the
// image (4 GB).
#include "bench/bench_support.h"
#include "core/salvage/scan_image.h"

#include <fmt/format.h>
#include <sys/resource.h>

#include <cstdlib>
#include <cstring>
#include <filesystem>
#include <fstream>
#include <malloc.h>
#include <random>
#include <sstream>

namespace {

using namespace sober;
namespace fs = std::filesystem;

/// Random bytes, what is no audio, zeros, and sound of every form between them: about a third of it is sound.
void writeImage(const BytePath& path, const BytePath& audio, std::uint64_t size) {
    std::vector<std::string> files;
    for (const auto& entry : fs::recursive_directory_iterator(audio)) {
        if (entry.is_regular_file() && entry.file_size() > 50'000 && entry.file_size() < (8U << 20)) {
            std::ostringstream content;
            content << std::ifstream(entry.path(), std::ios::binary).rdbuf();
            files.push_back(std::move(content).str());
        }
    }
    std::mt19937_64 random(6);
    std::ofstream image(path, std::ios::binary);
    std::uint64_t at = 0;
    const auto put = [&](const std::string& bytes) {
        image.write(bytes.data(), static_cast<std::streamsize>(bytes.size()));
        at += bytes.size();
        const std::string rest((4096 - at % 4096) % 4096, '\0');
        image.write(rest.data(), static_cast<std::streamsize>(rest.size()));
        at += rest.size();
    };
    while (at < size) {
        std::string other(1U << 20, '\0');
        if (random() % 4 != 0) {
            for (std::size_t i = 0; i < other.size(); i += 8) {
                const auto value = random();
                std::memcpy(other.data() + i, &value, 8);
            }
        }
        put(other);
        if (!files.empty() && random() % 2 == 0) {
            auto sound = files[random() % files.size()];
            sound[sound.size() / 2] = static_cast<char>(random()); // each is another recording's bytes
            put(sound);
        }
    }
}

} // namespace

int main(int argc, char** argv) {
    if (argc < 3) {
        fmt::print(stderr, "bench-salvage FOLDER AUDIO [GB]\n");
        return 2;
    }
    const BytePath folder = fs::absolute(argv[1]).string();
    fs::create_directories(folder);
    const auto size = static_cast<std::uint64_t>((argc > 3 ? std::atof(argv[3]) : 4) * 1e9);
    const auto image = joinPath(folder, "image");
    writeImage(image, argv[2], size);
    const auto bytes = static_cast<double>(fs::file_size(image));
    malloc_trim(0); // what the image was made of
    double most = 0;
    std::vector<double> ratios;
    std::vector<double> all;
    for (int times = 0; times < 3; ++times) {
        const double reference = bench::secondsOf(
            [&] { (void)!std::system(fmt::format("sha256sum '{}' > /dev/null", image).c_str()); });
        fs::remove(joinPath(folder, "catalogue.sqlite"));
        const auto catalogue = bench::orEnd(Catalogue::openForWriting(joinPath(folder, "catalogue.sqlite")));
        RunControl control;
        double scanned = 0;
        const double whole = bench::secondsOf([&] {
            bench::orEnd(scanForAudio(catalogue, {image}, control, [&](const Progress& progress) {
                if (progress.totalFiles == 0) {
                    scanned = progress.elapsed;
                }
                most = std::max(most, bench::residentMegabytes());
            }));
        });
        ratios.push_back(reference / scanned);
        all.push_back(reference / whole);
        fmt::print(
            "sha256sum {:.0f} MB/s, looking through {:.0f} MB/s, with every find examined {:.0f} MB/s\n",
            bytes / reference / 1e6, bytes / scanned / 1e6, bytes / whole / 1e6);
    }
    rusage workers{};
    getrusage(RUSAGE_CHILDREN, &workers);
    fmt::print("rate of looking through over that of sha256sum: {:.2f} (limit 0.6 at least); with every find "
               "examined: "
               "{:.2f}\nmemory: {:.0f} MB here, {:.0f} MB in the largest worker (limit 300)\n",
               bench::median(ratios), bench::median(all), most, static_cast<double>(workers.ru_maxrss) / 1e3);
    fs::remove_all(folder);
    return 0;
}
