#pragma once

#include "core/base/run_control.h"
#include "core/catalogue/salvage_store.h"
#include "core/media/byte_source.h"

#include <set>
#include <unordered_set>
#include <vector>

namespace sober {

/// A place of an image at which the beginning of a remembered part stands, and its checksum.
using MetStart = std::pair<std::uint64_t, std::uint64_t>;

/// A missing holding laid together from where its parts lie in an image.
struct Assembled {
    HoldingId holding = 0;
    std::vector<ByteRange> extents; ///< as long as the holding; what is lost lies at ExtentSource::nowhere
    std::uint64_t proven = 0;       ///< bytes in parts whose checksum holds
    std::uint64_t size = 0;
    std::vector<std::size_t> lost; ///< parts that are not proven
};

/// What the catalogue remembers of the parts of missing holdings, to know them again where no file system
/// does.
class PartMemory {
  public:
    static Result<PartMemory> of(const Catalogue& catalogue);

    bool isEmpty() const { return starts_.empty(); }
    /// A missing holding that is remembered.
    const SalvageStore::Remembered& remembered(HoldingId holding) const;
    /// Sectors at which a part begins. `bytes` lie at `at` of the image; only the first `length` are asked
    /// of, what follows is there to be looked into.
    void lookUp(std::span<const std::uint8_t> bytes, std::size_t length, std::uint64_t at,
                std::vector<MetStart>& met) const;
    /// Lays the missing together, but for those whose content is `known` to be found. Where a part is broken
    /// off within, its rest is looked for before the next part and at `boundaries` (in order), where other
    /// files end.
    std::vector<Assembled> assemble(ByteSource& image, std::span<const MetStart> met,
                                    std::span<const std::uint64_t> boundaries,
                                    const std::set<Checksum128>& known, RunControl& control) const;

  private:
    std::vector<SalvageStore::Remembered> missing_;
    std::unordered_set<std::uint64_t> starts_;
};

} // namespace sober
