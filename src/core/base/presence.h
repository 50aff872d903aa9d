#pragma once

#include "core/base/paths.h"

namespace sober {

/// Whether anything stands at a path. A path that cannot be looked at is neither there nor gone: a server or
/// a file system of a process that does not answer, a drive that fails, a folder that may not be entered.
enum class Presence {
    there,
    gone,
    unknown,
};

/// Of what stands there itself, links not followed. Of what lies inside an archive (inner_path.h): of that
/// one, by which a survey knows it unchanged.
Presence presenceOf(const BytePath& path);

} // namespace sober
