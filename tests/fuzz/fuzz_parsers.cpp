#include "core/media/mpeg_frame.h"
#include "core/media/sniff.h"

#include <cstdlib>

/// One input for everything that reads foreign bytes by our own hand: also the entry of libFuzzer
/// and its like. Results are held against what must be true of any.
extern "C" int LLVMFuzzerTestOneInput(const std::uint8_t* data, std::size_t size) {
    const std::span bytes(data, size);
    sober::sniff(bytes);
    for (std::size_t at = 0; at + 4 <= size && at < 64; ++at) {
        const auto frame = sober::readMpegFrame(bytes.subspan(at));
        if (frame && (frame->sampleRate < 8000 || frame->sampleRate > 48000 || frame->samples % 192 != 0 ||
                      (frame->bitrate > 0 && frame->bytes < 4))) {
            std::abort();
        }
    }
    return 0;
}
