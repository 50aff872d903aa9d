#include "core/work/look_at_bytes.h"

#include "core/base/text.h"
#include "core/evidence/worker/evidence_worker.h"
#include "core/evidence/worker/image_bytes.h"

#include <algorithm>
#include <chrono>
#include <functional>

namespace sober {
namespace {

/// Names what a find has in a stretch of its image.
Outcome nameParts(EvidenceWorker& worker, const OpenedImage& image, const BytePath& path, const Find& find,
                  ByteRange stretch, std::vector<BytePart>& parts) {
    const auto kind = pieceKindOf(find.format);
    std::uint64_t at = 0; // of the find
    for (const auto& [first, past] : find.extents) {
        const auto begin = std::max(first, stretch.first);
        const auto end = std::min(past, stretch.second);
        if (kind && begin < end) {
            const auto named = worker.byteParts(image, {path, {}, find.extents}, *kind,
                                                {at + (begin - first), at + (end - first)});
            RETURN_IF_FAILED(named);
            for (const auto& part : *named) {
                const auto from = std::max(part.first, at) - at + first;
                const auto to = std::min(part.past - at + first, past);
                parts.push_back({from, to, part.name});
            }
        }
        at += past - first;
    }
    return done();
}

} // namespace

Result<ByteLook> lookAtBytes(const Catalogue& catalogue, const BytePath& path, std::uint64_t at,
                             std::size_t length, RunControl& control) {
    const auto image = openMeasured(path, control);
    RETURN_IF_FAILED(image);
    ByteLook look;
    look.at = std::min(at, image->size);
    look.size = image->size;
    look.bytes.resize(static_cast<std::size_t>(std::min<std::uint64_t>(length, image->size - look.at)));
    const auto bytes = bytesOf(*image, path);
    const auto got =
        bytes->readAt(look.at, {reinterpret_cast<std::uint8_t*>(look.bytes.data()), look.bytes.size()});
    if (got < 0) {
        return Error{Cause::unreadable, path, displayPath(path) + " cannot be read there."};
    }
    look.bytes.resize(static_cast<std::size_t>(got));
    const SalvageStore store(catalogue);
    const auto source = store.sourceOf(path);
    const auto finds = source && *source ? store.finds((*source)->id) : Result(std::vector<Find>{});
    if (!source || !finds) {
        return source ? finds.error() : source.error();
    }
    EvidenceWorker worker;
    const ByteRange stretch{look.at, look.at + look.bytes.size()};
    for (const auto& find : *finds) {
        if (overlapOf(find.extents, std::span(&stretch, 1)) == 0) {
            continue;
        }
        // What cannot be parsed has no names; its bytes are there all the same.
        const auto named = nameParts(worker, *image, path, find, stretch, look.parts);
        if (!named && named.error().cause == Cause::interrupted) {
            return named.error();
        }
    }
    std::ranges::stable_sort(look.parts, {}, &BytePart::first);
    return look;
}

Result<std::optional<std::uint64_t>> searchBytes(const BytePath& path, std::string_view wanted,
                                                 std::uint64_t from, RunControl& control,
                                                 const ProgressSink& onProgress) {
    constexpr std::size_t step = 4U << 20;
    const auto image = openMeasured(path, control);
    RETURN_IF_FAILED(image);
    if (wanted.empty() || wanted.size() > step) {
        return Error{Cause::invalid, path, "There is nothing to look for."};
    }
    const auto bytes = bytesOf(*image, path);
    const std::boyer_moore_horspool_searcher searcher(wanted.begin(), wanted.end());
    const auto began = std::chrono::steady_clock::now();
    Progress progress;
    progress.totalBytes = image->size - std::min(from, image->size);
    progress.at = displayPath(path);
    std::string held(step + wanted.size() - 1, '\0');
    for (auto at = from; at < image->size; at += step) {
        if (!control.proceed()) {
            return Error{Cause::interrupted, path, "Stopped before all was looked through."};
        }
        const auto got = bytes->readAt(at, {reinterpret_cast<std::uint8_t*>(held.data()), held.size()});
        if (got > 0) {
            const auto end = held.begin() + got;
            const auto found = std::search(held.begin(), end, searcher);
            if (found != end) {
                return std::optional(at + static_cast<std::uint64_t>(found - held.begin()));
            }
        }
        progress.bytes = std::min(at + step, image->size) - from;
        progress.elapsed = std::chrono::duration<double>(std::chrono::steady_clock::now() - began).count();
        onProgress(progress);
    }
    return std::optional<std::uint64_t>();
}

} // namespace sober
