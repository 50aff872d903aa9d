#include "core/salvage/part_memory.h"

#include "core/media/carve/image_window.h"

#include <algorithm>
#include <cstring>
#include <optional>
#include <unordered_map>

namespace sober {
namespace {

using Remembered = SalvageStore::Remembered;
using Places = std::unordered_map<std::uint64_t, std::vector<std::uint64_t>>;

constexpr std::size_t mostPlaces = 64; // of one beginning: more is filling that many files have

bool isOneByte(std::span<const std::uint8_t> bytes) {
    return std::memcmp(bytes.data(), bytes.data() + 1, bytes.size() - 1) == 0;
}

/// Lays one holding together.
class Assembly {
  public:
    Assembly(ByteSource& image, const Remembered& holding, const Places& places,
             std::span<const std::uint64_t> boundaries)
        : image_(image),
          holding_(holding),
          places_(places),
          boundaries_(boundaries),
          parts_(holding.parts.size()),
          partLength_(partLengthFor(holding.size)) {}

    std::optional<Assembled> run() {
        const bool wasMet = std::ranges::any_of(
            holding_.parts, [&](const PartChecksum& part) { return places_.contains(part.start); });
        if (!wasMet) {
            return std::nullopt;
        }
        for (std::size_t i = 0; i < parts_.size(); ++i) {
            findWhole(i);
        }
        // What is next to a broken one is known by now.
        for (std::size_t i = 0; i < parts_.size(); ++i) {
            if (!parts_[i]) {
                findWhole(i);
            }
            if (!parts_[i]) {
                findBroken(i);
            }
        }
        if (!parts_.empty() && !parts_.back()) {
            findLast();
        }
        return result();
    }

  private:
    std::size_t lengthOf(std::size_t part) const {
        return static_cast<std::size_t>(
            std::min<std::uint64_t>(partLength_, holding_.size - part * partLength_));
    }

    /// Places at which a part may begin: behind the one before it, and where its beginning was met.
    std::vector<std::uint64_t> beginningsOf(std::size_t part) const {
        std::vector<std::uint64_t> places;
        if (part > 0 && parts_[part - 1]) {
            places.push_back(parts_[part - 1]->back().second);
        }
        if (const auto met = places_.find(holding_.parts[part].start); met != places_.end()) {
            places.insert(places.end(), met->second.begin(),
                          met->second.begin() +
                              static_cast<std::ptrdiff_t>(std::min(met->second.size(), mostPlaces)));
        }
        return places;
    }

    bool read(std::uint64_t at, std::span<std::uint8_t> into) const {
        return at < image_.size() && image_.readAt(at, into) == static_cast<std::int64_t>(into.size());
    }

    void findWhole(std::size_t part) {
        std::vector<std::uint8_t> bytes(lengthOf(part));
        for (const auto place : beginningsOf(part)) {
            if (read(place, bytes) && partChecksumOf(bytes) == holding_.parts[part]) {
                parts_[part] = std::vector<ByteRange>{{place, place + bytes.size()}};
                return;
            }
        }
    }

    /// A part that is broken off within: so much of it from its beginning on, the rest before the next part
    /// or at another place where a file may go on.
    void findBroken(std::size_t part) {
        const auto length = lengthOf(part);
        for (const auto place : beginningsOf(part)) {
            for (const auto next :
                 part + 1 < parts_.size() ? placesOfNext(part + 1) : std::vector<std::uint64_t>{}) {
                if (next >= length &&
                    joins(part, place, [&](std::size_t before) { return next - (length - before); })) {
                    return;
                }
            }
            if (restIsAtBoundary(part, place) || (part + 1 == parts_.size() && restIsNear(part, place))) {
                return;
            }
        }
    }

    /// Where other files end, those that follow first; so many as can be tried in a moment.
    bool restIsAtBoundary(std::size_t part, std::uint64_t place) {
        constexpr std::size_t mostTried = 512U << 20; // bytes
        const auto cost = std::max<std::size_t>(1, lengthOf(part) / sectorBytes * lengthOf(part));
        const auto count = std::min(boundaries_.size(), std::max<std::size_t>(1, mostTried / cost));
        const auto from =
            static_cast<std::size_t>(std::ranges::upper_bound(boundaries_, place) - boundaries_.begin());
        for (std::size_t i = 0; i < count; ++i) {
            const auto rest = boundaries_[(from + i) % boundaries_.size()];
            if (joins(part, place, [&](std::size_t /*before*/) { return rest; })) {
                return true;
            }
        }
        return false;
    }

    /// A last part that is too short to be looked up, broken off just before it: where other files end, or in
    /// the units that follow.
    void findLast() {
        const auto part = parts_.size() - 1;
        std::vector<std::uint8_t> bytes(lengthOf(part));
        const auto isAt = [&](std::uint64_t place) {
            if (!read(place, bytes) || partChecksumOf(bytes) != holding_.parts[part]) {
                return false;
            }
            parts_[part] = std::vector<ByteRange>{{place, place + bytes.size()}};
            return true;
        };
        if (std::ranges::any_of(boundaries_, isAt) || part == 0 || !parts_[part - 1]) {
            return;
        }
        const auto from = parts_[part - 1]->back().second;
        for (auto place = from; place < std::min(from + farthest, image_.size()); place += usualUnit) {
            if (isAt(place)) {
                return;
            }
        }
    }

    static constexpr std::size_t usualUnit =
        4096; // of most file systems, or a multiple; common practice, no source
    static constexpr std::uint64_t farthest = 8U << 20; // bytes; no source

    /// Nothing says where the rest of the last part may lie: the units of a file system that follow are
    /// tried.
    bool restIsNear(std::size_t part, std::uint64_t place) {
        for (auto rest = place + usualUnit; rest < std::min(place + farthest, image_.size());
             rest += usualUnit) {
            if (joins(
                    part, place, [&](std::size_t /*before*/) { return rest; }, usualUnit)) {
                return true;
            }
        }
        return false;
    }

    std::vector<std::uint64_t> placesOfNext(std::size_t part) const {
        if (parts_[part]) {
            return {parts_[part]->front().first};
        }
        const auto met = places_.find(holding_.parts[part].start);
        return met == places_.end() || met->second.size() > mostPlaces ? std::vector<std::uint64_t>{}
                                                                       : met->second;
    }

    /// Tries every way to break the part off at a multiple of `unit`; `restAt` says where the rest lies then.
    template <typename RestAt>
    bool joins(std::size_t part, std::uint64_t place, RestAt restAt, std::size_t unit = sectorBytes) {
        const auto length = lengthOf(part);
        const auto readable = static_cast<std::size_t>(
            std::min<std::uint64_t>(length, image_.size() > place ? image_.size() - place : 0));
        std::vector<std::uint8_t> head(readable);
        if (!read(place, head)) {
            return false;
        }
        std::vector<std::uint8_t> whole(length);
        for (std::size_t before = unit; before < length && before <= readable; before += unit) {
            const auto rest = restAt(before);
            std::copy_n(head.begin() + static_cast<std::ptrdiff_t>(before - unit), unit,
                        whole.begin() + static_cast<std::ptrdiff_t>(before - unit));
            if (rest == place + before || !read(rest, std::span(whole).subspan(before))) {
                continue;
            }
            if (partChecksumOf(whole) == holding_.parts[part]) {
                parts_[part] =
                    std::vector<ByteRange>{{place, place + before}, {rest, rest + length - before}};
                return true;
            }
        }
        return false;
    }

    Assembled result() const {
        Assembled assembled{holding_.holding, {}, 0, holding_.size, {}};
        const auto add = [&](ByteRange range) {
            auto& extents = assembled.extents;
            if (!extents.empty() && extents.back().second == range.first) {
                extents.back().second = range.second;
            } else {
                extents.push_back(range);
            }
        };
        for (std::size_t i = 0; i < parts_.size(); ++i) {
            if (parts_[i]) {
                assembled.proven += lengthOf(i);
                std::ranges::for_each(*parts_[i], add);
                continue;
            }
            assembled.lost.push_back(i);
            const auto place = placeOfLost(i);
            add({place, place + lengthOf(i)});
        }
        return assembled;
    }

    /// Where a part that is not proven would lie if nothing had broken the file off there: between what is
    /// known before and behind it, or from a beginning that was met. Else it is lost.
    std::uint64_t placeOfLost(std::size_t part) const {
        std::size_t before = part;
        while (before > 0 && !parts_[before]) {
            --before;
        }
        std::size_t behind = part;
        while (behind < parts_.size() && !parts_[behind]) {
            ++behind;
        }
        if (parts_[before]) {
            const auto from = parts_[before]->back().second;
            const auto skipped = (part - before - 1) * partLength_;
            const auto all = (behind - before - 1) * partLength_;
            if (behind < parts_.size() ? parts_[behind]->front().first == from + all
                                       : from + skipped + lengthOf(part) <= image_.size()) {
                return from + skipped;
            }
        }
        const auto met = places_.find(holding_.parts[part].start);
        return met != places_.end() && met->second.front() + lengthOf(part) <= image_.size()
                   ? met->second.front()
                   : ExtentSource::nowhere;
    }

    ByteSource& image_;
    const Remembered& holding_;
    const Places& places_;
    std::span<const std::uint64_t> boundaries_;
    std::vector<std::optional<std::vector<ByteRange>>> parts_;
    std::size_t partLength_;
};

} // namespace

Result<PartMemory> PartMemory::of(const Catalogue& catalogue) {
    PartMemory memory;
    const auto read = SalvageStore(catalogue).eachMissing([&](Remembered&& remembered) {
        const auto each = partLengthFor(remembered.size);
        for (std::size_t i = 0; i < remembered.parts.size(); ++i) {
            // What is shorter than what is looked up is met by nothing.
            if (remembered.size - i * each >= partStart) {
                memory.starts_.insert(remembered.parts[i].start);
            }
        }
        if (remembered.parts.size() == (remembered.size + each - 1) / each) {
            memory.missing_.push_back(std::move(remembered));
        }
    });
    return read ? Result(std::move(memory)) : Result<PartMemory>(read.error());
}

const SalvageStore::Remembered& PartMemory::remembered(HoldingId holding) const {
    return *std::ranges::find(missing_, holding, &SalvageStore::Remembered::holding);
}

void PartMemory::lookUp(std::span<const std::uint8_t> bytes, std::size_t length, std::uint64_t at,
                        std::vector<MetStart>& met) const {
    for (std::size_t place = 0; place < length && place + partStart <= bytes.size(); place += sectorBytes) {
        const auto here = bytes.subspan(place, partStart);
        if (isOneByte(here)) {
            continue;
        }
        const auto start = partChecksumOf(here).start;
        if (starts_.contains(start)) {
            met.emplace_back(at + place, start);
        }
    }
}

std::vector<Assembled> PartMemory::assemble(ByteSource& image, std::span<const MetStart> met,
                                            std::span<const std::uint64_t> boundaries,
                                            const std::set<Checksum128>& known, RunControl& control) const {
    Places places;
    for (const auto& [place, start] : met) {
        places[start].push_back(place);
    }
    std::vector<Assembled> all;
    std::vector<std::uint64_t> ends(boundaries.begin(), boundaries.end());
    // Where the pieces of one end those of another go on: what is not whole is tried again once those are
    // known.
    for (const int round : {1, 2}) {
        std::vector<Assembled> found;
        for (const auto& holding : missing_) {
            const auto before = std::ranges::find(all, holding.holding, &Assembled::holding);
            const bool isLeft = round == 1 ? !known.contains(holding.checksum)
                                           : before != all.end() && before->proven < before->size;
            auto assembled =
                isLeft && control.proceed() ? Assembly(image, holding, places, ends).run() : std::nullopt;
            if (assembled && assembled->proven > 0) {
                found.push_back(std::move(*assembled));
            }
        }
        for (auto& each : found) {
            for (const auto& [first, past] : each.extents) {
                ends.push_back((past + sectorBytes - 1) / sectorBytes * sectorBytes);
            }
            const auto before = std::ranges::find(all, each.holding, &Assembled::holding);
            if (before == all.end()) {
                all.push_back(std::move(each));
            } else if (each.proven > before->proven) {
                *before = std::move(each);
            }
        }
        std::ranges::sort(ends);
        ends.erase(std::ranges::unique(ends).begin(), ends.end());
    }
    return all;
}

} // namespace sober
