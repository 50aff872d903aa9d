#include "core/media/attached_picture.h"

#include "core/media/av_input.h"

namespace sober {

std::string attachedPictureOf(ByteSource& source) {
    constexpr int mostBytes = 32 << 20;
    AvInput input(source);
    if (!input.open()) {
        return {};
    }
    const auto* format = input.format();
    for (unsigned i = 0; i < format->nb_streams; ++i) {
        const auto& stream = *format->streams[i];
        const auto& picture = stream.attached_pic;
        if ((stream.disposition & AV_DISPOSITION_ATTACHED_PIC) != 0 && picture.size > 0 &&
            picture.size <= mostBytes) {
            return {reinterpret_cast<const char*>(picture.data), static_cast<std::size_t>(picture.size)};
        }
    }
    return {};
}

} // namespace sober
