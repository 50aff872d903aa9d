#pragma once

#include "core/remedy/carried_folder.h"

namespace sober {

/// This program as it runs here, with all that it needs of the system but the C library.
struct CarriedProgram {
    std::vector<CarriedFile> files; ///< to stand below one folder
    std::uint64_t bytes = 0;
    /// On which machines it runs, as in "Linux on x86_64 with the C library 2.36 or newer".
    std::string machines;
};

/// Finds it: the window, the command, their helpers, the libraries that the system's loader takes for them,
/// Qt's plugins, fonts and the terms under which they are given on. A program that was carried itself is
/// carried as it is. Cause::notFound where one of them is not there, or the loader cannot be asked.
Result<CarriedProgram> programToCarry();

} // namespace sober
