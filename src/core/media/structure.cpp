#include "core/media/structure.h"

#include "core/media/box_structure.h"
#include "core/media/chunk_structure.h"
#include "core/media/mpeg_structure.h"
#include "core/media/ogg_structure.h"

#include <algorithm>
#include <array>

namespace sober {

std::unique_ptr<StructureCheck> structureCheckFor(std::span<const std::uint8_t> head, std::uint64_t size) {
    using namespace std::string_view_literals;
    const auto holdsAt = [&](std::size_t at, std::string_view signature) {
        return head.size() >= at + signature.size() &&
               std::ranges::equal(head.subspan(at, signature.size()), signature,
                                  [](std::uint8_t a, char b) { return a == static_cast<std::uint8_t>(b); });
    };
    if (holdsAt(0, "OggS")) {
        return std::make_unique<OggStructure>(size);
    }
    if ((holdsAt(0, "RIFF") || holdsAt(0, "RF64") || holdsAt(0, "BW64")) && holdsAt(8, "WAVE")) {
        return std::make_unique<ChunkStructure>(ChunkStructure::Family::riff, size);
    }
    if (holdsAt(0, "FORM") && (holdsAt(8, "AIFF") || holdsAt(8, "AIFC"))) {
        return std::make_unique<ChunkStructure>(ChunkStructure::Family::aiff, size);
    }
    if (holdsAt(4, "ftyp")) {
        return std::make_unique<BoxStructure>(size);
    }
    // These begin with bytes of their own; MPEG audio may begin with a tag, with a frame or within one.
    const std::array others{"fLaC"sv,
                            "wvpk"sv,
                            "MAC "sv,
                            "TTA1"sv,
                            "MPCK"sv,
                            "MP+"sv,
                            "DSD "sv,
                            "caff"sv,
                            ".snd"sv,
                            "ADIF"sv,
                            "\x1A\x45\xDF\xA3"sv,
                            "\x30\x26\xB2\x75"sv};
    if (std::ranges::any_of(others, [&](std::string_view signature) { return holdsAt(0, signature); })) {
        return nullptr;
    }
    return std::make_unique<MpegStructure>(size);
}

} // namespace sober
