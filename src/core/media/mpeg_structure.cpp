#include "core/media/mpeg_structure.h"

#include "core/base/text.h"
#include "core/media/layer3_frame.h"
#include "core/media/tag_lengths.h"

#include <fmt/format.h>

#include <algorithm>
#include <cstring>

namespace sober {
namespace {

using namespace std::string_view_literals;
using Bytes = std::span<const std::uint8_t>;

/// Of so many granules and channels not more than one in a hundred may be odd: some encoders leave bits over
/// in many.
constexpr std::uint64_t leastCounted = 200;
constexpr std::uint64_t leastEvenForEachOdd = 100;

bool sameKind(const MpegFrame& a, const MpegFrame& b) {
    return a.version == b.version && a.layer == b.layer && a.sampleRate == b.sampleRate;
}

} // namespace

/// The length of a tag that begins here, 0 where none does. ID3v1 stands in the last 128 bytes.
std::uint64_t MpegStructure::tagLength(Bytes held) const {
    if (const auto length = id3Length(held); length > 0) {
        return length;
    }
    if (beginsWith(held, "TAG") && left() == 128) {
        return 128;
    }
    if (beginsWith(held, "TAG+") && left() == 227 + 128) {
        return 227;
    }
    if (const auto length = apeLength(held); length > 0) {
        return length;
    }
    if (beginsWith(held, "LYRICSBEGIN") && left() > 128 && left() < (256U << 10)) {
        return left() - 128;
    }
    return 0;
}

bool MpegStructure::isConfirmed(const MpegFrame& frame, Bytes held, bool atEnd) const {
    if (frame.bytes >= left()) {
        return frame.bytes == left();
    }
    const auto rest = held.subspan(std::min(frame.bytes, held.size()));
    const auto next = readMpegFrame(rest);
    if (next && sameKind(*next, frame)) {
        return true;
    }
    const bool tagFollows = beginsWith(rest, "TAG") || beginsWith(rest, "APETAGEX") ||
                            beginsWith(rest, "ID3") || beginsWith(rest, "LYRICSBEGIN");
    return tagFollows || (atEnd && rest.empty());
}

std::uint64_t MpegStructure::parse(Bytes held, bool atEnd) {
    if (givenUp_) {
        return std::max<std::uint64_t>(left(), held.size());
    }
    if (held.size() < longestTagHead && !atEnd) {
        return 0;
    }
    if (const auto tag = tagLength(held); tag > 0) {
        if (beginsWith(held, "APETAGEX") && tag == 32 && inJunk_) {
            // What stood before this footer were the tag's entries.
            const auto entries = littleEndian(held.subspan(12, 4));
            const auto forgiven = std::min(junkLength_, entries > 32 ? entries - 32 : 0);
            junkLength_ -= forgiven;
            report_.junk.back().second -= forgiven;
        }
        return tag;
    }
    if (stream_ == std::nullopt && beginsWith(held, "fLaC")) {
        givenUp_ = true;
        return held.size();
    }
    const auto frame = readMpegFrame(held);
    if (!frame || (stream_ && frame->layer != stream_->layer)) {
        return takeJunk(held);
    }
    if (frame->bitrate == 0) {
        return takeJunk(held); // free format, which is not decoded either
    }
    const bool fits = inSync_ && stream_ && sameKind(*frame, *stream_);
    if (held.size() < frame->bytes + 12 && !atEnd && held.size() < left()) {
        return 0;
    }
    if (!fits && !isConfirmed(*frame, held, atEnd)) {
        return takeJunk(held);
    }
    if (frame->bytes > left() || held.size() < frame->bytes) {
        cut_ = true;
        problem("truncated", seconds_, "the file ends within a frame");
        return std::max<std::uint64_t>(left(), held.size());
    }
    takeFrame(*frame, held.first(frame->bytes));
    return frame->bytes;
}

void MpegStructure::takeFrame(const MpegFrame& frame, Bytes bytes) {
    const bool afterJunk = inJunk_;
    endJunk();
    inSync_ = true;
    if (afterJunk) {
        spare_ = 0;
        accounts_.forget();
    }
    ++report_.units;
    const auto side = mpegHeaderLength(bytes) + (frame.layer == 3 ? sideInfoLength(frame) : 0);
    if (!stream_) {
        stream_ = frame;
        stated_ = readStatedFrames(frame, bytes);
        if (stated_) {
            return;
        }
    }
    compareWithStream(frame);
    if (frame.layer == 3 && bytes.size() >= side) {
        checkMainData(frame, bytes);
        accounts_.take(frame, bytes, seconds_);
    }
    samples_ += static_cast<std::uint64_t>(frame.samples);
    seconds_ += static_cast<double>(frame.samples) / frame.sampleRate;
}

void MpegStructure::compareWithStream(const MpegFrame& frame) {
    varies_ = varies_ || frame.bitrate != stream_->bitrate;
    if (!sameKind(frame, *stream_) || frame.channels != stream_->channels) {
        problem("damaged", seconds_,
                fmt::format("from {} Hz and {} to {} Hz and {}", stream_->sampleRate,
                            counted(static_cast<std::uint64_t>(stream_->channels), "channel"),
                            frame.sampleRate,
                            counted(static_cast<std::uint64_t>(frame.channels), "channel")));
        const auto bitrate = stream_->bitrate;
        stream_ = frame;
        stream_->bitrate = bitrate;
    }
}

void MpegStructure::checkMainData(const MpegFrame& frame, Bytes bytes) {
    const auto header = mpegHeaderLength(bytes);
    const auto sideLength = sideInfoLength(frame);
    const auto side = bytes.subspan(header, sideLength);
    if (hasMpegCrc(bytes) && mpegCrc(side, mpegCrc(bytes.subspan(2, 2))) != bigEndian(bytes.subspan(4, 2))) {
        problem("damaged", seconds_, "the check value of a frame does not hold");
    }
    const auto info = readSideInfo(frame, side);
    const auto own = static_cast<std::int64_t>(bytes.size() - header - sideLength);
    const auto begin = static_cast<std::int64_t>(info.mainDataBegin);
    const auto taken = static_cast<std::int64_t>((info.bits + 7) / 8);
    if (begin > spare_) {
        if (samples_ == 0 || begunWithin_) {
            begunWithin_ = true;
        } else {
            problem("damaged", seconds_, "a frame refers to data that is not there");
        }
        spare_ = begin;
    } else {
        begunWithin_ = false;
    }
    if (taken > begin + own) {
        problem("damaged", seconds_, "a frame states more data than there is room for");
    }
    spare_ = std::max<std::int64_t>(0, begin + own - taken);
}

std::uint64_t MpegStructure::takeJunk(Bytes held) {
    if (!inJunk_) {
        inJunk_ = true;
        junkSince_ = offset();
        junkLength_ = 0;
    }
    inSync_ = false;
    // On to the next byte that may begin a frame or a tag.
    std::size_t next = 1;
    while (next < held.size() && held[next] != 0xFF && held[next] != 'T' && held[next] != 'A' &&
           held[next] != 'I' && held[next] != 'L') {
        ++next;
    }
    junk(next);
    junkLength_ += next;
    return next;
}

void MpegStructure::endJunk() {
    if (!inJunk_) {
        return;
    }
    inJunk_ = false;
    const auto detail = fmt::format("{} that belong to no frame, from byte {} on",
                                    counted(junkLength_, "byte"), humanCount(junkSince_));
    if (report_.units == 0) {
        remark("junk", seconds_, detail);
    } else {
        problem("damaged", seconds_, detail);
    }
}

/// A frame that decodes and is not what its encoder wrote: no proof, and so no more than a remark.
void MpegStructure::remarkOddBits() {
    const auto odd = accounts_.odd();
    if (odd > 0 && accounts_.counted() >= leastCounted && odd * leastEvenForEachOdd <= accounts_.counted()) {
        remark("odd-bits", accounts_.firstOdd(),
               fmt::format("the bits of {} of {} do not come out even, those of all others do: they were "
                           "changed, perhaps",
                           humanCount(odd), counted(accounts_.counted(), "frame part")));
    }
}

void MpegStructure::conclude() {
    if (inJunk_ && junkLength_ > 0) {
        remark("junk", seconds_, fmt::format("{} after the last frame", counted(junkLength_, "byte")));
    }
    const std::uint64_t frames = report_.units - (stated_ ? 1 : 0);
    if (stated_ && stated_->frames > 0) {
        // Some writers count the frame that states it.
        const auto detail =
            fmt::format("states {} and holds {}", counted(stated_->frames, "frame"), humanCount(frames));
        if (frames + 1 < stated_->frames && !cut_) {
            problem("truncated", seconds_, detail);
        } else if (frames > stated_->frames + 1) {
            problem("length-mismatch", seconds_, detail);
        }
    }
    if (stated_ && frames > 0 && static_cast<std::uint64_t>(stated_->delay + stated_->padding) >= samples_) {
        remark("gapless", 0, "what it says of its silent ends is more than it holds");
    }
    remarkOddBits();
    if (varies_ && (!stated_ || stated_->frames == 0)) {
        remark("unstated-length", 0, "its bitrate varies and it does not state how long it is");
    }
}

} // namespace sober
