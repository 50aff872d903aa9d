#pragma once

#include "core/disc/agreed_reading.h"
#include "standins/tray_faults.h"

#include <algorithm>
#include <random>

namespace sober::test {

/// A disc in memory with sound, silence and plain tones on it, read by a drive with faults.
class FaultyDisc final : public SectorSource {
  public:
    FaultyDisc(int sectors, unsigned seed, standins::TrayFaults faults = {})
        : sectors_(sectors),
          samples_(static_cast<std::size_t>(sectors) * sectorNumbers),
          drive_(std::move(faults), [this](std::int64_t first, std::size_t count, std::int16_t* into) {
              for (std::size_t i = 0; i < 2 * count; ++i) {
                  const auto at = 2 * first + static_cast<std::int64_t>(i);
                  into[i] = at >= 0 && at < static_cast<std::int64_t>(samples_.size())
                                ? samples_[static_cast<std::size_t>(at)]
                                : std::int16_t{0};
              }
          }) {
        std::mt19937 random(seed);
        int value = 0;
        for (std::size_t i = 0; i < samples_.size(); ++i) {
            const auto sector = static_cast<int>(i / sectorNumbers);
            const int kind = sector / 10 % 7;
            value = std::clamp(value + static_cast<int>(random() % 2001) - 1000, -30'000, 30'000);
            samples_[i] = static_cast<std::int16_t>(kind == 3 ? 0 : kind == 5 ? i / 2 % 100 * 80 : value);
        }
    }
    FaultyDisc(const FaultyDisc&) = delete;
    FaultyDisc& operator=(const FaultyDisc&) = delete;

    const DiscSamples& samples() const { return samples_; }
    int sectors() const { return sectors_; }
    int calls() const { return calls_; }

    Result<DiscSamples> read(int first, int count) override {
        ++calls_;
        DiscSamples into(static_cast<std::size_t>(count) * sectorNumbers);
        switch (drive_.read(first, count, into.data())) {
        case standins::FaultyDrive::Came::sectors:
            return into;
        case standins::FaultyDrive::Came::unreadable:
            return Error{Cause::unreadable, "disc", "unreadable"};
        case standins::FaultyDrive::Came::gone:
            break;
        }
        return Error{Cause::notFound, "disc", "gone"};
    }

  private:
    int sectors_;
    DiscSamples samples_;
    standins::FaultyDrive drive_;
    int calls_ = 0;
};

} // namespace sober::test
