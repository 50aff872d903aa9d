#pragma once

#include "core/base/result.h"

#include <string>
#include <vector>

namespace sober {

/// The folder that this program stands in.
BytePath ownFolder();

/// A program of ours by its name: beside this one, or where an installed one has its helpers.
BytePath ownHelper(const std::string& name);

/// The folder of the libraries that were carried along with this program; "" where it uses the system's.
BytePath carriedLibraries();

/// Of programs that this one opens (a file manager, a player), none is to get the libraries that were carried
/// along: they are the system's own. To be called once, before there are threads.
void keepCarriedLibrariesToOurselves();

/// What a program of ours is started with: the environment, and the libraries that were carried along.
std::vector<std::string> environmentOfHelpers();

} // namespace sober
