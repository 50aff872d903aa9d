#pragma once

#include "core/salvage/part_memory.h"

namespace sober {

/// Fills what an image has lost of a holding by what other files that are as long still have at the same
/// place, however damaged they are themselves. Each part is read and proven by its recorded checksum. Where
/// one lends, its path is added to `others` and the extents lead there.
void lendTo(Assembled& assembled, const SalvageStore::Remembered& holding, std::span<const BytePath> lenders,
            std::vector<BytePath>& others);

} // namespace sober
