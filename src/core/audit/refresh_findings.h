#pragma once

#include "core/catalogue/catalogue.h"

namespace sober {

/// Runs the rules over the catalogue where it has changed since they last ran, and writes down what
/// they find: the copy sets and the figures by volume and folder. One walk through two indices. What holdings
/// are searched by is brought up to date first.
Outcome refreshFindings(const Catalogue& catalogue);

} // namespace sober
