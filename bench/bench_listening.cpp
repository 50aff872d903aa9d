// bench-listening FILE…: how long it takes from asking for a file to its first fifth of a second, decoded in
// a process of its own by the program with its windows, against the ffmpeg tool that decodes as much. Twenty
// times each in turn.
#include "core/evidence/worker/caged_listening.h"

#include <QApplication>

#include <fmt/format.h>

#include <algorithm>
#include <chrono>
#include <cstdlib>

namespace {

double median(std::vector<double> values) {
    std::ranges::sort(values);
    return values[values.size() / 2];
}

template <typename Work>
double millisecondsOf(Work work) {
    const auto began = std::chrono::steady_clock::now();
    work();
    return std::chrono::duration<double, std::milli>(std::chrono::steady_clock::now() - began).count();
}

} // namespace

int main(int argc, char** argv) {
    const QApplication application(argc, argv);
    for (int i = 1; i < argc; ++i) {
        std::vector<double> ours;
        std::vector<double> tools;
        for (int turn = 0; turn < 20; ++turn) {
            ours.push_back(millisecondsOf([&] {
                auto listening = sober::CagedListening::open(argv[i], 48'000);
                std::vector<std::int16_t> stereo(2 * 9'600);
                if (!listening || listening->read(stereo) == 0) {
                    fmt::print(stderr, "{} could not be played\n", argv[i]);
                    std::exit(1);
                }
            }));
            const auto command = fmt::format(
                "ffmpeg -nostdin -v quiet -i '{}' -t 0.2 -ar 48000 -f s16le - > /dev/null", argv[i]);
            tools.push_back(millisecondsOf([&] { (void)!std::system(command.c_str()); }));
        }
        fmt::print(
            "{}: {:.0f} ms in the median, {:.0f} ms at most (limit 200); ffmpeg {:.0f} ms, ratio {:.2f}\n",
            argv[i], median(ours), *std::ranges::max_element(ours), median(tools),
            median(ours) / median(tools));
    }
    return 0;
}
