#pragma once

#include "core/catalogue/salvage_store.h"

#include <span>

namespace sober {

/// What a name points to and what its form shows begin at one place: the better of both stays, by its name.
/// Also of `finds`.
Outcome uniteNames(const SalvageStore& store, std::vector<Find>& finds);

/// Those of the finds that are parts of what was laid together, which gets their names: they lie in it, or
/// begin as it does and go on where a file system that knows no better, or nobody, said they would.
std::vector<FindId> partsOf(std::span<const Find> finds, std::span<Find> laid);

} // namespace sober
