#include "core/remedy/fetch_offer.h"

#include "core/base/presence.h"
#include "core/base/text.h"
#include "core/evidence/file_content.h"
#include "core/remedy/actions/reach.h"
#include "core/remedy/changes/file_changes.h"

#include <algorithm>
#include <filesystem>

namespace sober {
namespace {

constexpr std::size_t longestEnding = 5;

/// Of the address; what is no plain ending is left away.
std::string endingFor(const Offer& offer) {
    const auto path = offer.address.substr(0, offer.address.find_first_of("?#"));
    auto ending = lowerAscii(endingOf(path));
    const bool isPlain =
        !ending.empty() && ending.size() <= longestEnding && std::ranges::all_of(ending, [](char each) {
            return (each >= 'a' && each <= 'z') || (each >= '0' && each <= '9');
        });
    return isPlain ? "." + ending : std::string();
}

} // namespace

BytePath fetchedFolder(const BytePath& catalogue) {
    return catalogue + ".offers";
}

Result<BytePath> fetchOffer(const OfferShelf& shelf, const Offer& offer, const BytePath& folder,
                            RunControl& control, const std::function<void(std::uint64_t)>& onBytes) {
    const auto path = joinPath(folder, toHex(offer.sha256) + endingFor(offer));
    if (presenceOf(path) == Presence::there) {
        return path; // named only once it was what was promised
    }
    Unflushed unflushed;
    const auto made = makeFolder(folder, 0700, unflushed);
    const auto room = made ? hasRoomFor(path, offer.bytes) : made;
    RETURN_IF_FAILED(room);
    const auto part = path + ".part";
    auto fetched = removeFile(part, unflushed);
    fetched = fetched ? writeNewFile(part, {}, unflushed) : fetched;
    ChecksumPass pass(true);
    if (fetched) {
        fetched = shelf.fetch(
            offer,
            [&](std::string_view bytes) {
                pass.feed({reinterpret_cast<const std::uint8_t*>(bytes.data()), bytes.size()});
                onBytes(bytes.size());
                return appendTo(part, bytes);
            },
            control);
    }
    if (fetched && pass.finish().sha256 != offer.sha256) {
        fetched = Error{
            Cause::damaged, {}, "What the offer shelf sent is not what it promised: its SHA-256 is another."};
    }
    fetched = fetched ? flushFile(part) : fetched;
    fetched = fetched ? moveEntry(part, path, unflushed) : fetched;
    if (!fetched) {
        removeFile(part, unflushed).ok(); // tidied by the next at the latest
        return fetched.error();
    }
    return path;
}

Outcome forgetFetched(const BytePath& folder, std::span<const BytePath> needed) {
    Unflushed unflushed;
    std::error_code failed;
    for (const auto& entry : std::filesystem::directory_iterator(folder, failed)) {
        const BytePath path = entry.path().string();
        if (std::ranges::find(needed, path) == needed.end()) {
            if (const auto removed = removeFile(path, unflushed); !removed) {
                return removed;
            }
        }
    }
    return done();
}

} // namespace sober
