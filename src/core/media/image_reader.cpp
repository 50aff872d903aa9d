#include "core/media/image_reader.h"

namespace sober {

ImageReader::ImageReader(const OpenedImage& image, const BytePath& path, std::vector<PackedUnit> units)
    : joined_(image.files, image.lengths, path),
      packed_(image.packing == ImagePacking::none
                  ? std::nullopt
                  : std::optional<PackedImage>(std::in_place, joined_, image.packing, std::move(units))),
      helped_(whole(), image.others, image.otherLengths) {}

} // namespace sober
