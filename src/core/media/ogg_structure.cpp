#include "core/media/ogg_structure.h"

#include "core/base/text.h"
#include "core/media/ogg_page.h"

#include <fmt/format.h>

namespace sober {

std::uint64_t OggStructure::parse(std::span<const std::uint8_t> held, bool atEnd) {
    if (held.size() < 4 && !atEnd) {
        return 0;
    }
    if (!beginsWith(held, "OggS")) {
        return takeJunk(held);
    }
    if (held.size() < OggPage::shortestHeader) {
        return atEnd ? takeJunk(held) : 0;
    }
    const std::size_t segments = held[26];
    const std::size_t headerLength = OggPage::shortestHeader + segments;
    if (held.size() < headerLength) {
        return atEnd ? takeJunk(held) : 0;
    }
    std::size_t length = headerLength;
    for (std::size_t i = 0; i < segments; ++i) {
        length += held[OggPage::shortestHeader + i];
    }
    if (length > left() && held[4] == 0) {
        endJunk();
        cut_ = true;
        problem("truncated", seconds_, "the file ends within a page");
        return left() > 0 ? left() : held.size();
    }
    const bool follows = length + 4 <= held.size();
    if (!follows && !atEnd && length < left()) {
        return 0;
    }
    if (held.size() < length) {
        return atEnd ? takeJunk(held) : 0;
    }
    const OggPage page(held.first(length), headerLength);
    if (held[4] != 0 || !page.holds()) {
        // Where another page follows at once, this is a page, and damaged; else it only looks like one.
        if (follows && !beginsWith(held.subspan(length), "OggS")) {
            return takeJunk(held);
        }
        problem("damaged", seconds_, "the check value of a page does not hold");
    }
    endJunk();
    ++report_.units;
    takePage(page);
    return length;
}

void OggStructure::takePage(const OggPage& page) {
    const auto sequence = page.sequence();
    const auto granule = page.granule();
    auto& stream = streams_[page.serial()];
    if (page.begins()) {
        stream = {oggRateOf(page.body()), sequence, 0, false};
    }
    if (sequence != stream.next) {
        problem("damaged", seconds_,
                sequence > stream.next
                    ? fmt::format("{} missing", counted(sequence - stream.next, "page"))
                    : fmt::format("page {} where page {} should be", sequence, stream.next));
    }
    stream.next = sequence + 1;
    if (granule >= 0 && stream.rate > 0) {
        if (granule < stream.granule) {
            problem("damaged", seconds_, "the time of a page lies before that of the page before it");
        }
        stream.granule = granule;
        seconds_ = static_cast<double>(granule) / stream.rate;
    }
    stream.ended = stream.ended || page.ends();
}

std::uint64_t OggStructure::takeJunk(std::span<const std::uint8_t> held) {
    if (!inJunk_) {
        inJunk_ = true;
        junkSince_ = offset();
    }
    // On to the next byte that might begin a page.
    const void* found = held.size() > 1 ? std::memchr(held.data() + 1, 'O', held.size() - 1) : nullptr;
    const auto next = found != nullptr
                          ? static_cast<std::size_t>(static_cast<const std::uint8_t*>(found) - held.data())
                          : held.size();
    junk(next);
    return next;
}

void OggStructure::endJunk() {
    if (!inJunk_) {
        return;
    }
    inJunk_ = false;
    const auto detail = fmt::format("{} that belong to no page, from byte {} on",
                                    counted(offset() - junkSince_, "byte"), humanCount(junkSince_));
    if (report_.units == 0) {
        remark("junk", 0, detail);
    } else {
        problem("damaged", seconds_, detail);
    }
}

void OggStructure::conclude() {
    if (inJunk_) {
        remark("junk", seconds_,
               fmt::format("{} after the last page", counted(offset() - junkSince_, "byte")));
    }
    for (const auto& [serial, stream] : streams_) {
        if (!stream.ended && !cut_) {
            problem("truncated", seconds_, "the mark that ends the stream is not there");
            return;
        }
    }
}

} // namespace sober
