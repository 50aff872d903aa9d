#pragma once

#include "core/evidence/trace_segments.h"

#include <span>

namespace sober {

/// One channel at another rate by a windowed sinc of 64 taps, for the few thousand samples that a trace looks
/// at. The rates may be fractions of each other's.
class SincResampling {
  public:
    SincResampling(double fromRate, double toRate);

    /// What `samples` are at the other rate, the first of it `shift` input samples later (a fraction of a
    /// sample is possible).
    std::vector<float> operator()(std::span<const float> samples, double shift) const;

  private:
    double step_;              ///< input samples between two of the output
    std::vector<float> table_; ///< [part of an input sample][tap], one row more than parts
};

/// A segment at `ratio` times its rate, `phase` samples of that rate later. No longer than it was; a little
/// shorter where the rate is about the same.
TraceSegment resampledSegment(const TraceSegment& segment, const SincResampling& resampling, double ratio,
                              double phase);

} // namespace sober
