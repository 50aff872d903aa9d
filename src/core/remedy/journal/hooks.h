#pragma once

#include "core/base/run_control.h"

#include <functional>

namespace sober {

/// The instants of an action between which a crash must do no harm.
enum class Instant {
    checked,
    journalled,
    made, ///< what replaces the file, or is to be the list, is made and right
    noteWritten,
    moved,
    replaced,
    recorded,
};

/// Called as ProgressSink is: where files are made beside each other, from any of the threads that make them.
struct CarryOutHooks {
    ProgressSink onProgress = [](const Progress&) {};
    /// Hears of each instant right after it: for progress by steps, and for tests that end there.
    std::function<void(Instant)> onInstant = [](Instant) {};
};

} // namespace sober
