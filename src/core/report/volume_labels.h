#pragma once

#include "core/catalogue/catalogue.h"

#include <string>

namespace sober {

/// A page (HTML) of labels to be cut out and put on the drives: each volume's running number, its label, what
/// tells the drive from another in the hand, and what is on it.
Result<std::string> volumeLabels(const Catalogue& catalogue);

} // namespace sober
