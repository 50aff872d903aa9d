// bench-transfer FOLDER [copy|plan|reorder|encode]…: transfers against general-purpose tools on the same
// files in the same run, three times in turn; medians of the ratios. FOLDER needs 8 GB.
#include "bench/bench_support.h"
#include "core/catalogue/holding_writer.h"
#include "core/catalogue/volumes.h"
#include "core/players/read_players.h"
#include "core/survey/survey.h"
#include "core/transfer/plan.h"
#include "core/work/prove_transfer.h"
#include "core/work/run_transfer.h"

#include <fmt/format.h>

#include <chrono>
#include <cstdlib>
#include <filesystem>
#include <fstream>
#include <set>

namespace {

using namespace sober;
namespace fs = std::filesystem;

constexpr int times = 3;

using bench::orEnd;
using bench::secondsOf;

void shell(const std::string& command) {
    if (std::system(command.c_str()) != 0) {
        fmt::print(stderr, "failed: {}\n", command);
        std::exit(1);
    }
}

void report(const std::string& what, const std::vector<double>& ratios, const std::string& limit,
            const std::string& more = {}) {
    fmt::print("{}: {:.2f} (limit {}){}\n", what, bench::median(ratios), limit, more);
    std::fflush(stdout);
}

void writeNoise(const BytePath& path, std::uint32_t bytes, std::uint32_t seed) {
    fs::create_directories(fs::path(path).parent_path());
    std::ofstream(path, std::ios::binary) << bench::noiseWav(bytes, seed);
}

Catalogue surveyed(const BytePath& folder, const std::string& name) {
    auto catalogue = orEnd(Catalogue::openForWriting(joinPath(folder, name)));
    RunControl control;
    orEnd(surveyVolume(catalogue, {joinPath(folder, "V"), {}, {}, {}}, control, [](const Progress&) {}));
    return catalogue;
}

TransferRequest allOf(const Catalogue& catalogue, const BytePath& to) {
    TransferRequest request;
    request.choice.volumes = {orEnd(Volumes(catalogue).all()).front().id};
    request.to = to;
    return request;
}

SettledTransfer carriedOut(Catalogue& catalogue, const TransferRequest& request) {
    RunControl control;
    const auto plan = orEnd(planTransfer(catalogue, request, control));
    auto run = orEnd(runTransfer(catalogue, orEnd(keepPlan(catalogue, plan)), control, {}));
    if (!run.carried.refused.empty()) {
        fmt::print(stderr, "refused: {}\n", run.carried.refused.front().sentence);
        std::exit(1);
    }
    return std::move(run.settled);
}

/// Copying, each file read back before it counts, against cp, sync and sha256sum -c; then the proof beside
/// it.
void benchCopy(const BytePath& folder, int count, std::uint32_t bytes) {
    fs::remove_all(folder);
    for (int i = 0; i < count; ++i) {
        writeNoise(fmt::format("{}/V/{}/{}.wav", folder, i / 100, i), bytes, static_cast<std::uint32_t>(i));
    }
    shell(fmt::format("cd {0}/V && find . -type f -print0 | xargs -0 sha256sum > {0}/sums && sync", folder));
    std::vector<double> ratios;
    std::vector<double> withProof;
    for (int i = 0; i < times; ++i) {
        const auto plain = secondsOf([&] {
            // The caches cannot be dropped by everybody: what it reads again may come from memory, which ours
            // does not.
            shell(fmt::format(
                "cp -r {0}/V {0}/plain{1} && sync && cd {0}/plain{1} && sha256sum --quiet -c {0}/sums",
                folder, i));
        });
        auto catalogue = surveyed(folder, fmt::format("c{}.sqlite", i));
        SettledTransfer settled;
        const auto ours = secondsOf(
            [&] { settled = carriedOut(catalogue, allOf(catalogue, fmt::format("{}/T{}", folder, i))); });
        RunControl control;
        const auto proof = secondsOf(
            [&] { orEnd(proveTransfer(catalogue, settled.transfer.id, control, [](const Progress&) {})); });
        ratios.push_back(ours / plain);
        withProof.push_back((ours + proof) / plain);
        fs::remove_all(fmt::format("{}/T{}", folder, i));
        fs::remove_all(fmt::format("{}/plain{}", folder, i));
    }
    report(fmt::format("copying {} files of {} bytes, read back, against cp + sync + sha256sum -c", count,
                       bytes),
           ratios, "1.2",
           fmt::format("; with the whole proof, every entry played: {:.2f}", bench::median(withProof)));
    fs::remove_all(folder);
}

/// A catalogue of so many made-up holdings, without files.
void benchPlan(const BytePath& folder, int count) {
    fs::create_directories(folder + "/V");
    auto catalogue = surveyed(folder, "plan.sqlite");
    const auto volume = orEnd(Volumes(catalogue).all()).front();
    HoldingWriter writer(catalogue, volume.id, timeNow());
    for (int i = 0; i < count; ++i) {
        FileRecord record;
        record.stamp.size = 4'000'000 + static_cast<std::uint64_t>(i);
        record.checksums.file.bytes = {static_cast<std::uint8_t>(i), static_cast<std::uint8_t>(i >> 8),
                                       static_cast<std::uint8_t>(i >> 16)};
        record.claims.codec = "flac";
        record.claims.duration = 200;
        record.claims.lossless = true;
        record.tags = {fmt::format("Title: {}?", i % 5000), fmt::format("Artist {}", i / 300),
                       fmt::format("Album {}", i / 12), std::to_string(i % 12), "1999"};
        writer.add(fmt::format("{}/{}.flac", i / 100, i), record, false);
    }
    orEnd(writer.commit());
    auto request = allOf(catalogue, folder + "/nowhere");
    request.layout = R"(albumartist|artist / album / track.2 " " title)";
    request.rules = "fat32";
    RunControl control;
    const auto before = bench::residentMegabytes();
    std::vector<double> seconds;
    std::vector<double> previews;
    double most = 0;
    for (int i = 0; i < times; ++i) {
        std::optional<TransferPlan> plan;
        seconds.push_back(secondsOf([&] { plan = orEnd(planTransfer(catalogue, request, control)); }));
        most = std::max(most, bench::residentMegabytes() - before);
        previews.push_back(secondsOf([&] {
            orEnd(previewNames(plan->sample, request.layout, *plan->place.rules, usualReplacements(), {}));
        }));
    }
    fmt::print(
        "plan of {} holdings by tags for FAT32: {:.2f} s (limit 5), {:.0f} MB more than before (limit 300); "
        "preview {:.1f} ms (limit 100)\n",
        count, bench::median(seconds), most, 1000 * bench::median(previews));
    fs::remove_all(folder);
}

/// Renaming a folder in place with the references of three players, against a C program that only renames.
void benchReorder(const BytePath& folder, int count) {
    std::vector<double> ratios;
    for (int i = 0; i < times; ++i) {
        fs::remove_all(folder);
        std::string list = "#EXTM3U\n";
        for (int n = 0; n < count; ++n) {
            writeNoise(fmt::format("{}/V/{}/{}.wav", folder, n / 500, n), 512, static_cast<std::uint32_t>(n));
            writeNoise(fmt::format("{}/from/{}/{}.wav", folder, n / 500, n), 512,
                       static_cast<std::uint32_t>(n));
            list += fmt::format("{}/V/{}/{}.wav\n", folder, n / 500, n);
        }
        auto catalogue = surveyed(folder, "reorder.sqlite");
        RunControl control;
        for (const char* name : {"one", "two", "three"}) {
            Player player;
            player.name = name;
            player.places = {fmt::format("{}/{}", folder, name)};
            fs::create_directories(player.places.front());
            std::ofstream(player.places.front() + "/all.m3u8") << list;
            orEnd(takeInPlayer(catalogue, player, control));
        }
        auto request = allOf(catalogue, folder + "/V");
        request.mode = TransferMode::reorder;
        request.layout = R"("in order" / folders / name)";
        shell("sync");
        const auto ours = secondsOf([&] { carriedOut(catalogue, request); });
        fs::create_directories(folder + "/to");
        const auto plain = secondsOf(
            [&] { shell(fmt::format("{} {}/from {}/to {}", RENAME_BASELINE, folder, folder, count)); });
        ratios.push_back(ours / plain);
    }
    report(fmt::format("reordering {} files in place with three players' references, against renames alone",
                       count),
           ratios, "3");
    fs::remove_all(folder);
}

/// Encoding, every result decoded, examined and laid over its source, against one ffmpeg after another.
void benchEncode(const BytePath& folder, int count, const std::string& form, const std::string& options,
                 const std::string& ending) {
    std::vector<double> speeds;
    for (int i = 0; i < times; ++i) {
        fs::remove_all(folder);
        fs::create_directories(folder + "/V");
        for (int n = 0; n < count; ++n) {
            shell(fmt::format("ffmpeg -v error -f lavfi -i "
                              "anoisesrc=c=pink:a=0.3:seed={1}:d=120,aformat=channel_layouts=stereo:"
                              "sample_fmts=s16 {0}/V/{1}.flac",
                              folder, n));
        }
        auto catalogue = surveyed(folder, "encode.sqlite");
        const auto plain = secondsOf([&] {
            for (int n = 0; n < count; ++n) {
                shell(fmt::format("ffmpeg -v error -i {0}/V/{1}.flac {2} {0}/{1}.{3}", folder, n, options,
                                  ending));
            }
        });
        auto request = allOf(catalogue, folder + "/T");
        request.forms = {orEnd(formRuleFrom("lossless=" + form))};
        speeds.push_back(plain / secondsOf([&] { carriedOut(catalogue, request); }));
    }
    report(fmt::format(
               "encoding {} files of two minutes to {}, examined and compared: times as fast as one ffmpeg",
               count, form),
           speeds, "at least 1.8");
    fs::remove_all(folder);
}

} // namespace

int main(int argc, char** argv) {
    if (argc < 2) {
        fmt::print(stderr, "bench-transfer FOLDER [copy|plan|reorder|encode]…\n");
        return 2;
    }
    const auto folder = joinPath(fs::absolute(argv[1]).string(), "bench-transfer");
    const std::set<std::string> parts(argv + 2, argv + argc);
    const auto wants = [&](const char* part) { return parts.empty() || parts.contains(part); };
    if (wants("plan")) {
        benchPlan(folder, 100'000);
    }
    if (wants("encode")) {
        benchEncode(folder, 6, "mp3:V0", "-q:a 0", "mp3");
        benchEncode(folder, 6, "aac:160", "-c:a aac -b:a 160k", "m4a");
        benchEncode(folder, 6, "opus:128", "-c:a libopus -b:a 128k", "opus");
    }
    if (wants("reorder")) {
        benchReorder(folder, 20'000);
    }
    if (wants("copy")) {
        benchCopy(folder, 400, 5'000'000);
        benchCopy(folder, 20'000, 4'000);
    }
    return 0;
}
