#include "core/media/probe.h"

#include <algorithm>
#include <array>

namespace sober {

int Tags::filled() const {
    const std::array<const std::string*, 5> all{&title, &artist, &album, &track, &date};
    return static_cast<int>(std::ranges::count_if(all, [](const auto* tag) { return !tag->empty(); }));
}

} // namespace sober
