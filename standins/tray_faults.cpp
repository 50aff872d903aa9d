#include "standins/tray_faults.h"

#include <algorithm>
#include <chrono>
#include <sstream>
#include <thread>

namespace standins {
namespace {

constexpr std::size_t sectorSamples = 588;
constexpr std::size_t sectorNumbers = 2 * sectorSamples;

} // namespace

TrayFaults TrayFaults::parse(const std::string& table) {
    TrayFaults faults;
    std::istringstream lines(table);
    for (std::string line; std::getline(lines, line);) {
        std::istringstream words(line);
        std::string kind;
        words >> kind;
        if (kind == "seed") {
            words >> faults.seed;
        } else if (kind == "offset") {
            words >> faults.offset;
        } else if (kind == "cache") {
            words >> faults.cache;
        } else if (kind == "slow") {
            words >> faults.slow;
        } else if (kind == "pulled") {
            words >> faults.pulled;
        } else if (kind == "silent") {
            words >> faults.silent;
        } else if (kind == "unread") {
            Stretch stretch{kind, 0, 0, 0, 0};
            words >> stretch.first >> stretch.last >> stretch.most;
            faults.stretches.push_back(stretch);
        } else if (kind == "jitter" || kind == "unsteady" || kind == "noise") {
            Stretch stretch{kind, 0, 0, 0, 0};
            words >> stretch.first >> stretch.last >> stretch.share >> stretch.most;
            faults.stretches.push_back(stretch);
        }
    }
    return faults;
}

const TrayFaults::Stretch* FaultyDrive::at(const std::string& kind, int sector) const {
    for (const auto& stretch : faults_.stretches) {
        if (stretch.kind == kind && sector >= stretch.first && sector <= stretch.last) {
            return &stretch;
        }
    }
    return nullptr;
}

FaultyDrive::Came FaultyDrive::read(int first, int count, std::int16_t* into) {
    if (faults_.slow > 0) {
        std::this_thread::sleep_for(std::chrono::microseconds(faults_.slow) * count);
    }
    given_ += count;
    if (faults_.pulled > 0 && given_ > faults_.pulled) {
        return Came::gone;
    }
    if (faults_.silent > 0 && given_ > faults_.silent) {
        std::this_thread::sleep_for(std::chrono::hours(1));
    }
    std::int64_t displaced = 0;
    if (const auto* jitter = at("jitter", first); jitter != nullptr && happens(jitter->share)) {
        displaced = std::uniform_int_distribution<>(-jitter->most, jitter->most)(random_);
    }
    for (int sector = first; sector < first + count; ++sector) {
        if (const auto* unread = at("unread", sector)) {
            auto failed = std::ranges::find(failed_, sector, &std::pair<int, int>::first);
            if (failed == failed_.end()) {
                failed = failed_.insert(failed_.end(), {sector, 0});
            }
            if (unread->most == 0 || failed->second++ < unread->most) {
                return Came::unreadable;
            }
        }
        auto* samples = into + static_cast<std::size_t>(sector - first) * sectorNumbers;
        const auto cached = std::ranges::find(cache_, sector, &Cached::sector);
        if (cached != cache_.end()) {
            std::ranges::copy(cached->samples, samples);
            continue;
        }
        right_(static_cast<std::int64_t>(sector) * static_cast<std::int64_t>(sectorSamples) + displaced -
                   faults_.offset,
               sectorSamples, samples);
        if (const auto* unsteady = at("unsteady", sector); unsteady != nullptr && happens(unsteady->share)) {
            for (int i = 0; i < 20; ++i) {
                samples[random_() % sectorNumbers] = static_cast<std::int16_t>(random_());
            }
        }
        if (const auto* noise = at("noise", sector); noise != nullptr && happens(noise->share)) {
            std::generate_n(samples, sectorNumbers, [this] { return static_cast<std::int16_t>(random_()); });
        }
        if (faults_.cache > 0) {
            cache_.push_back({sector, {samples, samples + sectorNumbers}});
            if (cache_.size() > static_cast<std::size_t>(faults_.cache)) {
                cache_.erase(cache_.begin());
            }
        }
    }
    return Came::sectors;
}

} // namespace standins
