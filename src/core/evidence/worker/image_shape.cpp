#include "core/evidence/worker/image_shape.h"

#include <algorithm>

namespace sober {

Json shapeOf(const OpenedImage& image, const BytePath& path) {
    return {{"path", bytesShape(path)},
            {"lengths", image.lengths},
            {"packing", static_cast<int>(image.packing)},
            {"others", image.otherLengths},
            {"device", image.isDevice},
            {"mtime", image.mtime}};
}

std::vector<const FileHandle*> imageFiles(const OpenedImage& image) {
    std::vector<const FileHandle*> files;
    for (const auto* each : {&image.files, &image.others}) {
        std::ranges::transform(*each, std::back_inserter(files),
                               [](const FileHandle& file) { return &file; });
    }
    return files;
}

OpenedImage imageFrom(const Json& shape, std::vector<FileHandle> files) {
    OpenedImage image;
    image.lengths = shape.at("lengths").get<std::vector<std::uint64_t>>();
    image.otherLengths = shape.at("others").get<std::vector<std::uint64_t>>();
    image.packing = static_cast<ImagePacking>(shape.at("packing").get<int>());
    image.isDevice = shape.at("device");
    image.mtime = shape.at("mtime");
    files.resize(std::min(files.size(), image.lengths.size() + image.otherLengths.size()));
    image.lengths.resize(std::min(files.size(), image.lengths.size()));
    const auto own = files.begin() + static_cast<std::ptrdiff_t>(image.lengths.size());
    image.others.assign(std::make_move_iterator(own), std::make_move_iterator(files.end()));
    files.erase(own, files.end());
    image.files = std::move(files);
    return image;
}

Json shapeOf(const std::vector<PackedUnit>& units) {
    Json all = Json::array();
    for (const auto& unit : units) {
        all.push_back({unit.packedAt, unit.packedLength, unit.at, unit.length});
    }
    return all;
}
void takeFrom(const Json& json, std::vector<PackedUnit>& units) {
    for (const auto& each : json) {
        units.push_back({each.at(0), each.at(1), each.at(2), each.at(3)});
    }
}

} // namespace sober
