#pragma once

#include "app/charts/salvage_strip.h"
#include "core/catalogue/salvage_store.h"
#include "core/salvage/image_map.h"

namespace sober::app {

/// Lays finds side by side, the newest first, each as wide as it is large; the band's pieces are theirs, in
/// their order.
void layTrash(SalvageStrip::Band& band, const std::vector<Find>& finds);
/// Its size, how far it was looked through, and its file systems.
void layImage(SalvageStrip::Band& band, const SalvageSource& source);
/// What of an image is read, what was not tried yet, and what could not be read.
SalvageStrip::Band bandOf(const ImageMap& map);

} // namespace sober::app
