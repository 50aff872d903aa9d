#pragma once

#include <algorithm>
#include <atomic>
#include <span>
#include <thread>
#include <vector>

namespace sober::demo {

/// Calls `work` with each number below `count`, on all cores; false where one of the calls says so.
template <typename Work>
bool onAllCores(std::size_t count, const Work& work) {
    std::atomic<std::size_t> next = 0;
    std::atomic<bool> good = true;
    std::vector<std::jthread> workers;
    for (unsigned i = 0; i < std::max(1U, std::thread::hardware_concurrency()); ++i) {
        workers.emplace_back([&] {
            for (auto at = next++; at < count; at = next++) {
                if (!work(at)) {
                    good = false;
                }
            }
        });
    }
    workers.clear();
    return good;
}

/// The same with groups of what is enough for one call of a tool.
template <typename Each, typename Work>
bool inGroups(std::span<const Each> all, const Work& work) {
    constexpr std::size_t together = 6;
    return onAllCores((all.size() + together - 1) / together, [&](std::size_t group) {
        return work(all.subspan(group * together, std::min(together, all.size() - group * together)));
    });
}

} // namespace sober::demo
