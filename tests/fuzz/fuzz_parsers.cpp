#include "core/base/text.h"
#include "core/disc/disc_lookup.h"
#include "core/disc/rip_register.h"
#include "core/exchange/bag_text.h"
#include "core/exchange/checksum_list.h"
#include "core/exchange/playlist.h"
#include "core/intake/offers.h"
#include "core/media/carve/byte_parts.h"
#include "core/media/carve/join_pieces.h"
#include "core/media/carve/scanner.h"
#include "core/media/flac_frame.h"
#include "core/media/mpeg_frame.h"
#include "core/media/packed_image.h"
#include "core/media/sniff.h"
#include "core/media/structure.h"
#include "core/players/location.h"
#include "core/salvage/image_map.h"
#include "core/salvage/trash_folders.h"
#include "support/memory_source.h"
#include "tray/cue_image.h"

#include <cstdlib>
#include <string>
#include <vector>

namespace {

/// What services and cue sheets say of a disc.
void disc(std::string_view text) {
    if (const auto pressings = sober::registerFrom(text)) {
        for (const auto& pressing : *pressings) {
            for (const auto& track : pressing.tracks) {
                if (track.number < 1 || track.number > sober::mostTracks || track.reported < 1) {
                    std::abort();
                }
            }
        }
    }
    sober::DiscContents contents;
    contents.tracks.resize(2);
    if (const auto names = sober::lookupFrom(text, contents)) {
        for (const auto& each : *names) {
            if (each.tracks.size() != 2 || !sober::isUtf8(each.title)) {
                std::abort();
            }
        }
    }
    for (const auto& [track, marks] : sober::cueMarks(std::string(text))) {
        for (const int mark : marks) {
            if (mark < 0 || mark >= 100 * 60 * sober::sectorsPerSecond) {
                std::abort();
            }
        }
    }
}

void salvage(std::span<const std::uint8_t> bytes) {
    sober::test::MemorySource image(bytes);
    sober::RunControl control;
    const auto scanned = sober::scanImage(image, {0, bytes.size(), sober::PieceKinds::all(), {}}, control,
                                          [](std::uint64_t) {});
    for (const auto& piece : scanned.pieces) {
        if (piece.past > bytes.size() || piece.first >= piece.past || !(piece.seconds >= 0)) {
            std::abort();
        }
    }
    for (const auto& joined : sober::joinPieces(image, scanned.pieces)) {
        if (joined.parts.size() < 2 || joined.extents.size() != joined.parts.size()) {
            std::abort();
        }
    }
    // One format a time: which, the input says.
    const auto kind =
        sober::everyPieceKind.at(bytes.empty() ? 0 : bytes.back() % sober::everyPieceKind.size());
    for (const auto& part : sober::bytePartsIn(image, kind, bytes.size() / 3, bytes.size())) {
        if (part.first >= part.past || part.past > bytes.size()) {
            std::abort();
        }
    }
    for (const auto packing : {sober::ImagePacking::gzip, sober::ImagePacking::zstd}) {
        auto units = sober::packedUnits(image, packing, "input");
        std::uint8_t some[512];
        if (units && sober::PackedImage(image, packing, std::move(*units)).readAt(100, some) > 512) {
            std::abort();
        }
    }
    const auto length = sober::flacFrameLength(bytes, 16);
    if (length > bytes.size()) {
        std::abort();
    }
    const std::string_view text(reinterpret_cast<const char*>(bytes.data()), bytes.size());
    sober::parseTrashNote(text);
    sober::parseRecycleRecord(text);
    if (const auto map = sober::ImageMap::parse(text); map && !sober::ImageMap::parse(map->text())) {
        std::abort();
    }
}

} // namespace

/// One input for everything that reads foreign bytes by our own hand: also the entry of libFuzzer
/// and its like. Results are held against what must be true of any.
extern "C" int LLVMFuzzerTestOneInput(const std::uint8_t* data, std::size_t size) {
    const std::span bytes(data, size);
    sober::sniff(bytes);
    salvage(bytes);
    for (std::size_t at = 0; at + 4 <= size && at < 64; ++at) {
        const auto frame = sober::readMpegFrame(bytes.subspan(at));
        if (frame && (frame->sampleRate < 8000 || frame->sampleRate > 48000 || frame->samples % 192 != 0 ||
                      (frame->bitrate > 0 && frame->bytes < 4))) {
            std::abort();
        }
    }
    if (const auto check = sober::structureCheckFor(bytes, size)) {
        // In two pieces, parted anywhere.
        const auto part = size > 0 ? data[size / 2] % size : 0;
        check->feed(bytes.first(part));
        check->feed(bytes.subspan(part));
        const auto report = check->finish();
        std::uint64_t past = 0;
        for (const auto& [first, end] : report.junk) {
            if (first < past || end < first || end > size) {
                std::abort();
            }
            past = end;
        }
    }
    const std::string_view text(reinterpret_cast<const char*>(data), size);
    if (const auto offers = sober::offersFrom(text, 3)) {
        for (const auto& offer : *offers) {
            if (offer.number >= 3 || offer.bytes == 0 || offer.address.empty() ||
                !(offer.claims.duration > 0)) {
                std::abort();
            }
        }
    }
    disc(text);
    for (const char* name : {"list.sha256", "list.b2", "list.sfv"}) {
        const auto list = sober::parseChecksumList(text, name);
        for (std::size_t i = 0; list && i < list->files.size(); ++i) {
            const auto& path = list->files[i].path;
            if (path.empty() || path.front() == '/' || path == ".." || path.starts_with("../") ||
                path.find("/../") != std::string::npos) {
                std::abort();
            }
        }
        // What is understood is understood again from what we write of it; SFV has no escapes.
        if (list && list->kind != sober::ListedChecksum::crc32) {
            const auto again =
                sober::parseChecksumList(sober::checksumListText(list->kind, list->files),
                                         list->kind == sober::ListedChecksum::blake2b ? "b2" : "x");
            if (list->files.empty() ? again.ok() : !again || again->files.size() != list->files.size()) {
                std::abort();
            }
        }
    }
    sober::parseBagInfo(text);
    sober::parseBagFetch(text);
    for (const bool payload : {true, false}) {
        const auto manifest = sober::parseBagManifest(text, payload);
        const auto again = sober::parseBagManifest(sober::bagManifestText(manifest.files), payload);
        if (again.files.size() != manifest.files.size() || !again.problems.empty()) {
            std::abort();
        }
        for (const auto& file : manifest.files) {
            if (file.path.front() == '/' || ("/" + file.path + "/").find("/../") != std::string::npos ||
                file.path.starts_with("data/") != payload) {
                std::abort();
            }
        }
    }
    for (const char* name : {"a.m3u", "a.pls", "a.xspf", "a.cue"}) {
        const auto list = sober::parsePlaylist(text, name);
        if (!list) {
            continue;
        }
        std::vector<sober::NewLocation> changes;
        for (std::size_t i = 0; i < list->entries.size(); ++i) {
            const auto& entry = list->entries[i];
            if (entry.begins >= entry.ends || entry.ends > size || entry.location.empty()) {
                std::abort();
            }
            changes.push_back({i, "new" + std::to_string(i)});
        }
        const auto written = sober::withLocations(text, *list, changes);
        const auto again = written ? sober::parsePlaylist(*written, name) : written.error();
        if (!again || again->entries.size() != changes.size()) {
            std::abort();
        }
        for (std::size_t i = 0; i < changes.size(); ++i) {
            if (again->entries[i].location != changes[i].location) {
                std::abort();
            }
        }
    }
    for (const bool asUri : {false, true}) {
        for (const auto& path : sober::meaningOf(text, asUri, "/a/b").paths) {
            if (path.empty() ||
                (path.front() == '/' && ("/" + path + "/").find("/../") != std::string::npos &&
                 !path.starts_with("//"))) {
                std::abort();
            }
        }
    }
    return 0;
}
