#pragma once

#include <malloc.h>

namespace sober::app {

/// The threads of the program share two heaps: of more, each keeps what was given back to it. To be called
/// before any thread is started.
inline void shareHeaps() {
    mallopt(M_ARENA_MAX, 2);
}

} // namespace sober::app
