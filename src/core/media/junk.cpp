#include "core/media/junk.h"

#include "core/media/structure.h"

namespace sober {

Result<std::vector<ByteRange>> junkIn(const FileHandle& file, const BytePath& path, RunControl& control) {
    constexpr std::size_t pieceLength = 1U << 20;
    const auto stamp = stampOf(file, path);
    RETURN_IF_FAILED(stamp);
    std::unique_ptr<StructureCheck> check;
    std::vector<std::uint8_t> piece(pieceLength);
    for (std::uint64_t at = 0; at < stamp->size; at += pieceLength) {
        const auto got = readAt(file, path, at, piece);
        RETURN_IF_FAILED(got);
        if (!control.proceed()) {
            return Error{Cause::interrupted, path, "Stopped."};
        }
        const auto bytes = std::span<const std::uint8_t>(piece).first(*got);
        if (at == 0) {
            check = structureCheckFor(bytes, stamp->size);
        }
        if (check) {
            check->feed(bytes);
        }
    }
    return check ? check->finish().junk : std::vector<ByteRange>{};
}

} // namespace sober
