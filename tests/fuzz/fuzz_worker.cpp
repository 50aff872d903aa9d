// fuzz-worker SECONDS FOLDER [SEED]: hands files that were changed in their structure to a worker by every
// question there is. Whatever the decoders do, each question is answered by a record or a sentence, in time,
// and the next is too.
#include "core/evidence/worker/caged_archive.h"
#include "core/evidence/worker/caged_listening.h"
#include "core/evidence/worker/evidence_worker.h"
#include "mutations.h"

#include <fmt/format.h>

#include <chrono>
#include <cstdlib>
#include <filesystem>
#include <fstream>

using namespace sober;

namespace {

struct Counts {
    std::uint64_t files = 0;
    std::uint64_t questions = 0;
    std::uint64_t broke = 0; ///< the worker died of it, and said so
    double longest = 0;      ///< seconds
};

class Asking {
  public:
    void ask(const BytePath& path, const std::string& bytes) {
        RunControl control;
        const auto onBytes = [](std::uint64_t) {};
        judge(path,
              worker_.examine(path, control, onBytes, counts.files % 2 == 0)); // with an excerpt, and without
        judge(path, worker_.passOver(path, control, onBytes));
        judge(path, worker_.probe(path));
        judge(path, worker_.readTags(path));
        judge(path, worker_.junkIn(path, control));
        judge(path, worker_.compare(path, path, 0, control));
        judge(path, worker_.timePicture(path, 64, control));
        judge(path, worker_.picture(bytes, 64));
        if (const auto image = openImage(path)) {
            judge(path, worker_.fileSystems(*image, path, control));
            const auto scanned =
                worker_.scan(*image, path, {0, image->size, PieceKinds::all(), {}}, control, onBytes);
            judge(path, scanned);
            judge(path,
                  worker_.join(*image, path, scanned ? scanned->pieces : std::vector<Piece>{}, control));
            judge(path, worker_.examinePart(*image, path, path, {{0, image->size}}, control, onBytes));
            judge(path, worker_.measure(*image, path, control));
            for (const auto kind : everyPieceKind) {
                judge(path, worker_.byteParts(*image, {path, {}, {{0, image->size}}}, kind, {0, 65'536}));
            }
        }
        if (auto listening = CagedListening::open(path)) {
            std::vector<std::int16_t> stereo(8192);
            listening->read(stereo);
            listening->seek(1e9);
            listening->read(stereo);
        }
        const auto archive = CagedArchive::open(path);
        judge(path, archive);
        for (int files = 0; archive && files < 16; ++files) {
            const auto file = (*archive)->next();
            judge(path, file);
            if (!file || !*file) {
                break;
            }
            judge(path, (*archive)->unpack(control));
        }
        ++counts.files;
    }
    Counts counts;

  private:
    template <typename T>
    void judge(const BytePath& path, const Result<T>& result) {
        const auto now = std::chrono::steady_clock::now();
        counts.longest = std::max(counts.longest, std::chrono::duration<double>(now - last_).count());
        last_ = now;
        ++counts.questions;
        const auto sentence = result ? std::string() : result.error().sentence;
        counts.broke += sentence.find("the decoder broke") != std::string::npos ? 1 : 0;
        if (!result && sentence.size() < 10) {
            fmt::print(stderr, "{}: an error without a sentence\n", path);
            std::exit(1);
        }
    }

    EvidenceWorker worker_{WorkerLimits{1ULL << 30, 20, 2}};
    std::chrono::steady_clock::time_point last_ = std::chrono::steady_clock::now();
};

/// Archives of a few of the seeds, by libarchive's own tool.
std::vector<std::string> archivesOf(const std::vector<std::string>& seeds, const std::string& folder) {
    std::string names;
    for (std::size_t i = 0; i < std::min<std::size_t>(seeds.size(), 3); ++i) {
        names += " seed" + std::to_string(i);
        std::ofstream(folder + "/seed" + std::to_string(i), std::ios::binary) << seeds[i].substr(0, 20'000);
    }
    for (const auto* format : {"zip", "7zip", "gnutar", "iso9660", "gnutar --gzip", "gnutar --zstd"}) {
        const auto packed = folder + "/" + std::to_string(std::hash<std::string>()(format)) + ".packed";
        const auto line =
            fmt::format("cd {0} && bsdtar -cf {1} --format {2}{3}", folder, packed, format, names);
        if (std::system(line.c_str()) != 0) { // NOLINT: our own words
            fmt::print(stderr, "bsdtar could not write {}\n", format);
            std::exit(1);
        }
    }
    for (const auto& name : {"/seed0", "/seed1", "/seed2"}) {
        std::filesystem::remove(folder + name);
    }
    auto archives = seedsBelow(folder, 1U << 20);
    std::filesystem::remove_all(folder);
    std::filesystem::create_directory(folder);
    return archives;
}

} // namespace

int main(int argc, char** argv) {
    if (argc < 3) {
        fmt::print(stderr, "fuzz-worker SECONDS FOLDER [SEED]\n");
        return 2;
    }
    constexpr std::size_t mostOfASeed = 256U << 10; // bytes
    const auto seeds = seedsBelow(argv[2], mostOfASeed);
    std::mt19937_64 random(argc > 3 ? std::strtoull(argv[3], nullptr, 10) : 20261125);
    std::string folder = (std::filesystem::temp_directory_path() / "sober-fuzz-XXXXXX").string();
    if (mkdtemp(folder.data()) == nullptr) {
        return 2;
    }
    const auto archives = archivesOf(seeds, folder);
    const auto path = joinPath(folder, "input");
    Asking asking;
    using Clock = std::chrono::steady_clock;
    for (const auto until = Clock::now() + std::chrono::seconds(std::atol(argv[1])); Clock::now() < until;) {
        const auto& among = random() % 4 == 0 ? archives : seeds;
        const auto bytes = mutated(among[random() % among.size()], random);
        std::ofstream(path, std::ios::binary) << bytes;
        asking.ask(path, bytes);
    }
    std::filesystem::remove_all(folder);
    const auto& counts = asking.counts;
    fmt::print(
        "{} files, {} questions, all answered; {} times a decoder broke; the longest answer took {:.1f} s\n",
        counts.files, counts.questions, counts.broke, counts.longest);
    return counts.files > 0 ? 0 : 1;
}
