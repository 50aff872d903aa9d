#pragma once

#include "core/evidence/worker/answers.h"
#include "core/media/packed_image.h"

namespace sober {

/// What a worker has to be told of an image whose files it is handed (imageFiles).
Json shapeOf(const OpenedImage& image, const BytePath& path);
std::vector<const FileHandle*> imageFiles(const OpenedImage& image);
/// The other way round, in the worker. Throws Json::exception where the shape is no such thing.
OpenedImage imageFrom(const Json& shape, std::vector<FileHandle> files);

Json shapeOf(const std::vector<PackedUnit>& units);
void takeFrom(const Json& json, std::vector<PackedUnit>& units);

} // namespace sober
