#pragma once

#include "core/catalogue/catalogue.h"

namespace sober {

/// Takes what holdings are called now (path and tags) into what is searched, where it has
/// changed. In pieces of some thousand, each a transaction.
Outcome refreshSearchTexts(const Catalogue& catalogue);

} // namespace sober
