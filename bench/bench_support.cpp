#include "bench/bench_support.h"

#include <sys/resource.h>
#include <sys/wait.h>

#include <algorithm>
#include <chrono>
#include <cstdio>
#include <cstdlib>
#include <fstream>
#include <random>
#include <unistd.h>

namespace sober::bench {

Cost costOf(const std::string& command) {
    const auto began = std::chrono::steady_clock::now();
    std::fflush(stdout);
    const pid_t child = fork();
    if (child == 0) {
        if (std::freopen("/dev/null", "w", stdout) == nullptr ||
            std::freopen("/dev/null", "w", stderr) == nullptr) {
            _exit(127);
        }
        execl("/bin/bash", "bash", "-c", command.c_str(), nullptr);
        _exit(127);
    }
    int status = 0;
    rusage usage{};
    wait4(child, &status, 0, &usage);
    const int code = WIFEXITED(status) ? WEXITSTATUS(status) : -1;
    if (code != 0 && code != 3) {
        std::printf("failed with %d: %s\n", code, command.c_str());
        std::exit(1);
    }
    const auto secondsOf = [](const timeval& time) {
        return static_cast<double>(time.tv_sec) + static_cast<double>(time.tv_usec) / 1e6;
    };
    return {std::chrono::duration<double>(std::chrono::steady_clock::now() - began).count(),
            secondsOf(usage.ru_utime) + secondsOf(usage.ru_stime),
            static_cast<double>(usage.ru_maxrss) / 1024};
}

double median(std::vector<double> values) {
    std::ranges::sort(values);
    return values[values.size() / 2];
}

void compare(const std::string& what, const std::string& ours, const std::string& theirs, double limit,
             const std::string& prepare) {
    std::vector<double> ratios;
    std::vector<double> ourSeconds;
    std::vector<double> ourMegabytes;
    for (int round = 0; round < 6; ++round) {
        if (!prepare.empty()) {
            costOf(prepare);
        }
        const Cost mine = costOf(ours);
        const Cost other = costOf(theirs);
        if (round > 0) {
            ratios.push_back(mine.seconds / other.seconds);
            ourSeconds.push_back(mine.seconds);
            ourMegabytes.push_back(mine.megabytes);
        }
    }
    const double ratio = median(ratios);
    std::printf("%-58s %5.2f x (limit %.2f: %s), ours %.2f s, %.0f MB\n", what.c_str(), ratio, limit,
                ratio <= limit ? "kept" : "BROKEN", median(ourSeconds), median(ourMegabytes));
    std::fflush(stdout);
}

double secondsOf(const std::function<void()>& work) {
    const auto began = std::chrono::steady_clock::now();
    work();
    return std::chrono::duration<double>(std::chrono::steady_clock::now() - began).count();
}

std::string noiseWav(std::uint32_t bytes, std::uint32_t seed) {
    std::string wav = "RIFF";
    const auto put = [&](std::uint32_t value, int count) {
        for (int i = 0; i < count; ++i) {
            wav.push_back(static_cast<char>(value >> (8 * i)));
        }
    };
    put(36 + bytes, 4);
    wav += "WAVEfmt ";
    put(16, 4), put(1, 2), put(1, 2), put(44100, 4), put(88200, 4), put(2, 2), put(16, 2);
    wav += "data";
    put(bytes, 4);
    std::mt19937 random(seed);
    for (std::uint32_t i = 0; i < bytes / 4; ++i) {
        put(static_cast<std::uint32_t>(random()), 4);
    }
    return wav;
}

double residentMegabytes() {
    std::ifstream statm("/proc/self/statm");
    double pages = 0;
    double resident = 0;
    statm >> pages >> resident;
    return resident * static_cast<double>(sysconf(_SC_PAGESIZE)) / (1 << 20);
}

} // namespace sober::bench
