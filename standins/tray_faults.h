#pragma once

#include <cstdint>
#include <functional>
#include <random>
#include <string>
#include <vector>

namespace standins {

/// What a drive and a scratched disc do to readings, by a table with a line for each fault:
///
///     seed 7
///     offset 30                  every reading is that many samples late
///     cache 400                  sectors that were read are given from memory until so many others were
///     slow 200                   microseconds a sector
///     pulled 5000                the disc is gone after so many sectors
///     silent 5000                no answer comes after so many sectors
///     jitter 100 180 0.4 300     a call that begins at a sector from … to … is displaced, at that share of
///                                times, by up to so many samples
///     unsteady 40 45 0.6         a reading of these sectors is wrong at that share of times
///     noise 70 71 1              the same, and nothing of such a reading is right
///     unread 60 61 3             these sectors cannot be read the first so many times; 0: never
struct TrayFaults {
    struct Stretch {
        std::string kind;
        int first = 0;
        int last = 0;
        double share = 0;
        int most = 0;
    };
    unsigned seed = 1;
    int offset = 0;
    int cache = 0;
    int slow = 0;
    int pulled = 0;
    int silent = 0;
    std::vector<Stretch> stretches;

    static TrayFaults parse(const std::string& table);
};

/// Gives the sectors of a disc as such a drive would.
class FaultyDrive {
  public:
    enum class Came { sectors, unreadable, gone };
    /// Samples from a place on; outside the disc zeros.
    using Samples = std::function<void(std::int64_t firstSample, std::size_t samples, std::int16_t* into)>;

    FaultyDrive(TrayFaults faults, Samples right)
        : faults_(std::move(faults)), right_(std::move(right)), random_(faults_.seed) {}
    Came read(int first, int count, std::int16_t* into);

  private:
    struct Cached {
        int sector = 0;
        std::vector<std::int16_t> samples;
    };
    bool happens(double share) { return std::uniform_real_distribution<>(0, 1)(random_) < share; }
    const TrayFaults::Stretch* at(const std::string& kind, int sector) const;

    TrayFaults faults_;
    Samples right_;
    std::mt19937 random_;
    std::vector<Cached> cache_;
    std::vector<std::pair<int, int>> failed_; ///< sector: how often
    int given_ = 0;
};

} // namespace standins
