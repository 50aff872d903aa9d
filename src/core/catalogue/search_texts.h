#pragma once

#include "core/catalogue/catalogue.h"

namespace sober {

/// Takes what holdings are called now (path, title, artist, album, date) into what is searched, where it has
/// changed. In pieces of some thousand, each a transaction.
Outcome refreshSearchTexts(const Catalogue& catalogue);

} // namespace sober
