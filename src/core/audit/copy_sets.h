#pragma once

#include "core/catalogue/catalogue.h"
#include "core/catalogue/findings.h"

#include <span>

namespace sober {

/// The copy sets of all present holdings: same bytes, same audio data, same samples, and what the recording
/// pairs say. Links that tell one waveform at one length are taken along a chain; weaker ones (another
/// master, a part) join a content to the one that it was compared with and no further, so that a chain of
/// weak links does not merge two recordings. Then, apart, holdings of which only the tags look alike.
Result<std::vector<FoundSet>> findCopySets(const Catalogue& catalogue, std::span<const Volume> volumes);

} // namespace sober
