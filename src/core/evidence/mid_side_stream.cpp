#include "core/evidence/mid_side_stream.h"

#include <algorithm>
#include <array>

namespace sober {

void MidSideStream::seek(std::int64_t sample) {
    reader_.seek(static_cast<double>(std::max<std::int64_t>(0, sample)) / rate);
    start_ = std::max<std::int64_t>(0, sample);
    middle_.clear();
    side_.clear();
    ended_ = false;
}

bool MidSideStream::at(std::int64_t sample, std::size_t count, std::vector<float>& middle,
                       double* sideEnergy) {
    if (sample < 0) {
        return false;
    }
    if (sample < start_ || sample > start_ + static_cast<std::int64_t>(middle_.size()) + 20 * rate) {
        seek(sample);
    }
    readTo(sample + static_cast<std::int64_t>(count));
    const auto from = static_cast<std::size_t>(sample - start_);
    if (from + count > middle_.size()) {
        return false;
    }
    middle.assign(middle_.begin() + static_cast<std::ptrdiff_t>(from),
                  middle_.begin() + static_cast<std::ptrdiff_t>(from + count));
    if (sideEnergy != nullptr) {
        for (std::size_t i = from; i < from + count; ++i) {
            *sideEnergy += static_cast<double>(side_[i] * side_[i]);
        }
    }
    return true;
}

void MidSideStream::readTo(std::int64_t end) {
    constexpr std::size_t frames = 8192;
    constexpr std::size_t more = std::size_t{4} * rate; // samples that may gather before some are dropped
    constexpr std::size_t kept = more + 65'536;
    std::array<std::int16_t, 2 * frames> stereo;
    while (!ended_ && start_ + static_cast<std::int64_t>(middle_.size()) < end) {
        const auto got = reader_.read(stereo);
        for (std::size_t i = 0; i < got; ++i) {
            const auto left = static_cast<float>(stereo[2 * i]);
            const auto right = static_cast<float>(stereo[2 * i + 1]);
            middle_.push_back(0.5F * (left + right));
            side_.push_back(0.5F * (left - right));
        }
        ended_ = got < frames;
        if (middle_.size() > kept + more) {
            const auto dropped = middle_.size() - kept;
            middle_.erase(middle_.begin(), middle_.begin() + static_cast<std::ptrdiff_t>(dropped));
            side_.erase(side_.begin(), side_.begin() + static_cast<std::ptrdiff_t>(dropped));
            start_ += static_cast<std::int64_t>(dropped);
        }
    }
}

} // namespace sober
