#include "core/disc/ripped_file.h"

#include "core/evidence/worker/answers.h"

#include <algorithm>

namespace sober {

std::string packRippedFile(const RippedFile& file) {
    const auto& checksum = file.checksum.bytes;
    return packed(
        {{"file", bytesShape(file.file)},
         {"size", file.size},
         {"checksum", bytesShape({reinterpret_cast<const char*>(checksum.data()), checksum.size()})},
         {"samples", bytesShape(file.samples)},
         {"md5", file.md5},
         {"encoded", shapeOf(file.encoded)}});
}

std::optional<RippedFile> unpackRippedFile(std::string_view packed) {
    const auto json = unpacked(packed);
    try {
        RippedFile file;
        file.file = bytesFrom(json.at("file"));
        file.size = json.at("size");
        const auto checksum = bytesFrom(json.at("checksum"));
        if (checksum.size() != file.checksum.bytes.size()) {
            return std::nullopt;
        }
        std::ranges::copy(checksum, file.checksum.bytes.begin());
        file.samples = bytesFrom(json.at("samples"));
        file.md5 = json.at("md5");
        takeFrom(json.at("encoded"), file.encoded);
        return file;
    } catch (const Json::exception&) {
        return std::nullopt;
    }
}

} // namespace sober
