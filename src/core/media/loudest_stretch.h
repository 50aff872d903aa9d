#pragma once

#include <cstddef>
#include <deque>

namespace sober {

/// Finds the stretch of so many seconds with the most energy, the first of equal ones, while the energy of
/// each second is heard once.
class LoudestStretch {
  public:
    explicit LoudestStretch(std::size_t seconds) : length_(seconds) {}

    /// Whether the stretch that ends with this second is the loudest so far.
    bool take(double energy) {
        last_.push_back(energy);
        sum_ += energy;
        if (last_.size() > length_) {
            sum_ -= last_.front();
            last_.pop_front();
        }
        ++taken_;
        const bool isLoudest = last_.size() == length_ && sum_ > best_;
        if (isLoudest) {
            best_ = sum_;
            begins_ = taken_ - length_;
        }
        return isLoudest;
    }

    std::size_t begins() const { return begins_; } ///< seconds; 0 before there was a whole stretch

  private:
    std::size_t length_;
    std::deque<double> last_;
    double sum_ = 0;
    double best_ = -1;
    std::size_t taken_ = 0;
    std::size_t begins_ = 0;
};

} // namespace sober
