#pragma once

#include "core/transfer/chosen.h"

#include <span>

namespace sober {

/// What was chosen to come along, in words: "all that lantern knows, what no list names".
Result<std::string> wordsOf(const Catalogue& catalogue, const TransferChoice& choice,
                            std::span<const Volume> volumes);

} // namespace sober
