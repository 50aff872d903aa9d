#include "cli/examine_command.h"

#include "cli/json_shapes.h"
#include "core/base/file_handle.h"
#include "core/base/text.h"
#include "core/evidence/examination.h"

#include <fmt/format.h>
#include <sys/resource.h>
#include <sys/wait.h>

#include <array>
#include <csignal>
#include <cstdio>
#include <cstring>
#include <fcntl.h>
#include <poll.h>
#include <spawn.h>
#include <unistd.h>

extern char** environ;

namespace sober::cli {
namespace {

constexpr rlim_t mostMemory = 2ULL << 30;
constexpr rlim_t mostSeconds = 1800; // of processor time: hours of audio decode in minutes

Json orNull(bool known, Json value) {
    return known ? std::move(value) : Json();
}

Json traceShape(const CodecTrace& trace) {
    if (!trace.last) {
        return nullptr;
    }
    Json json{{"codec", trace.last->codec},
              {"strength", trace.last->strength},
              {"offset", trace.last->offset},
              {"period", trace.last->period}};
    if (trace.first) {
        json["earlier"] = {{"codec", trace.first->codec},
                           {"strength", trace.first->strength},
                           {"offset", trace.first->offset}};
    }
    return json;
}

Json holdingShape(const BytePath& path, const Examination& examination) {
    const auto& claims = examination.claims;
    const auto& levels = examination.levels;
    const auto& verdict = examination.verdict;
    Json json = withPath(path);
    json["claimed"] = {{"container", claims.container},
                       {"codec", claims.codec},
                       {"lossless", claims.lossless},
                       {"bitrate", orNull(claims.bitrate > 0, claims.bitrate)},
                       {"sample_rate", claims.sampleRate},
                       {"channels", claims.channels},
                       {"bit_depth", orNull(claims.bitDepth > 0, claims.bitDepth)},
                       {"duration", claims.duration}};
    json["measured"] = {
        {"cutoff_hz", orNull(examination.bandwidth.has_value(),
                             examination.bandwidth ? examination.bandwidth->cutoff : 0)},
        {"brickwall", examination.bandwidth && examination.bandwidth->brickwall},
        {"peak_dbtp", nullptr},
        {"peak_dbfs", levels.peak},
        {"rms_dbfs", levels.rms},
        {"loudness_lufs", nullptr},
        {"effective_bit_depth", orNull(levels.effectiveBitDepth > 0, levels.effectiveBitDepth)},
        {"clipped_samples", levels.clipped},
        {"identical_channels", levels.identicalChannels},
        {"duration", examination.decode.seconds()},
        {"trace", traceShape(examination.trace)}};
    json["verdict"] = {{"class", wordFor(verdict.verdict)},
                       {"confidence", verdict.confidence},
                       {"source_codec", orNull(!verdict.sourceCodec.empty(), verdict.sourceCodec)},
                       {"source_bitrate", orNull(verdict.sourceBitrate > 0, verdict.sourceBitrate)},
                       {"reasons", verdict.reasons}};
    Json problems = Json::array();
    for (const auto& problem : examination.problems) {
        problems.push_back({{"kind", problem.kind}, {"at", problem.at}, {"detail", problem.detail}});
    }
    json["soundness"] = {{"sound", examination.sound()}, {"problems", std::move(problems)}};
    json["checksums"] = {
        {"file_xxh3", examination.checksums.file.hex()},
        {"file_sha256", toHex(*examination.checksums.sha256)},
        {"payload_xxh3", examination.payload.hex()},
        {"samples_md5", orNull(examination.samplesMd5.has_value(),
                               examination.samplesMd5 ? Json(toHex(*examination.samplesMd5)) : Json())}};
    const auto& tags = examination.tags;
    json["tags"] = {{"title", tags.title},
                    {"artist", tags.artist},
                    {"album", tags.album},
                    {"track", tags.track},
                    {"date", tags.date}};
    return json;
}

struct WorkerAnswer {
    std::string output;
    int status = 0;
};

/// Runs the worker for one file and gathers what it prints.
WorkerAnswer runWorker(const BytePath& file, RunControl& control) {
    std::array<int, 2> ends{};
    WorkerAnswer answer{{}, -1};
    if (pipe2(ends.data(), O_CLOEXEC) != 0) {
        return answer;
    }
    const FileHandle reading(ends[0]);
    FileHandle writing(ends[1]);
    posix_spawn_file_actions_t actions;
    posix_spawn_file_actions_init(&actions);
    posix_spawn_file_actions_adddup2(&actions, writing.get(), STDOUT_FILENO);
    // The signals that this process watches on a thread would stay blocked in the worker.
    posix_spawnattr_t attributes;
    posix_spawnattr_init(&attributes);
    sigset_t none;
    sigemptyset(&none);
    posix_spawnattr_setsigmask(&attributes, &none);
    posix_spawnattr_setflags(&attributes, POSIX_SPAWN_SETSIGMASK);
    std::string name = "sober";
    std::string command = "examine-one";
    std::string path = file;
    std::array<char*, 4> words{name.data(), command.data(), path.data(), nullptr};
    pid_t child = 0;
    const int failed = posix_spawn(&child, "/proc/self/exe", &actions, &attributes, words.data(), environ);
    posix_spawn_file_actions_destroy(&actions);
    posix_spawnattr_destroy(&attributes);
    writing.reset();
    if (failed != 0) {
        return answer;
    }
    const rlimit memory{mostMemory, mostMemory};
    const rlimit time{mostSeconds, mostSeconds};
    prlimit(child, RLIMIT_AS, &memory, nullptr);
    prlimit(child, RLIMIT_CPU, &time, nullptr);
    std::array<char, 4096> piece{};
    pollfd waiting{reading.get(), POLLIN, 0};
    while (true) {
        if (control.isCancelled()) {
            kill(child, SIGKILL);
        }
        if (poll(&waiting, 1, 200) <= 0) {
            continue;
        }
        const auto got = read(reading.get(), piece.data(), piece.size());
        if (got <= 0) {
            break;
        }
        answer.output.append(piece.data(), static_cast<std::size_t>(got));
    }
    while (waitpid(child, &answer.status, 0) < 0 && errno == EINTR) {
    }
    return answer;
}

void printHolding(const Json& holding) {
    const auto& verdict = holding["verdict"];
    fmt::print("{}\n  {} ({} {}), {:.0f} % sure\n", displayPath(holding["path"].get<std::string>()),
               verdict["class"].get<std::string>(), holding["claimed"]["codec"].get<std::string>(),
               holding["claimed"]["container"].get<std::string>(), 100 * verdict["confidence"].get<double>());
    for (const auto& reason : verdict["reasons"]) {
        fmt::print("  {}\n", reason.get<std::string>());
    }
    for (const auto& problem : holding["soundness"]["problems"]) {
        fmt::print("  {} at {:.1f} s: {}\n", problem["kind"].get<std::string>(), problem["at"].get<double>(),
                   problem["detail"].get<std::string>());
    }
}

} // namespace

int runExamineWorker(const BytePath& file) {
    RunControl control;
    const auto examined = examineFile(file, control);
    Json json;
    if (examined) {
        json["holding"] = holdingShape(file, *examined);
    } else {
        json["error"] = examined.error().sentence;
    }
    fmt::print("{}", json.dump());
    return exitDone;
}

int runExamine(const CommonOptions& common, const std::vector<BytePath>& files, RunControl& control) {
    Json holdings = Json::array();
    Json errors = Json::array();
    for (const auto& file : files) {
        const auto answer = runWorker(file, control);
        if (control.isCancelled()) {
            break;
        }
        const auto json = Json::parse(answer.output, nullptr, false);
        if (!json.is_discarded() && json.contains("holding")) {
            holdings.push_back(json["holding"]);
            continue;
        }
        Json error = withPath(file);
        error["error"] = !json.is_discarded() && json.contains("error") ? json["error"].get<std::string>()
                         : WIFSIGNALED(answer.status) ? displayPath(file) + " broke the decoder (" +
                                                            strsignal(WTERMSIG(answer.status)) + ")."
                                                      : displayPath(file) + " could not be examined.";
        errors.push_back(std::move(error));
    }
    if (common.json) {
        fmt::print("{}\n",
                   Json{{"schema", "sober.examine/1"}, {"holdings", holdings}, {"errors", errors}}.dump(2));
    } else {
        for (const auto& holding : holdings) {
            printHolding(holding);
        }
    }
    for (const auto& error : errors) {
        fmt::print(stderr, "{}\n", error["error"].get<std::string>());
    }
    if (control.isCancelled()) {
        return exitInterrupted;
    }
    return errors.empty() ? exitDone : holdings.empty() ? exitCouldNot : exitSomeUnread;
}

} // namespace sober::cli
