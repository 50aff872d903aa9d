#pragma once

#include "core/base/run_control.h"
#include "core/media/carve/image_window.h"
#include "core/media/carve/piece.h"

#include <functional>
#include <vector>

namespace sober {

/// Which formats are looked for.
class PieceKinds {
  public:
    static PieceKinds all();
    void add(PieceKind kind) { bits_ |= bitOf(kind); }
    bool holds(PieceKind kind) const { return (bits_ & bitOf(kind)) != 0; }
    unsigned bits() const { return bits_; }
    static PieceKinds ofBits(unsigned bits);

    bool operator==(const PieceKinds&) const = default;

  private:
    static unsigned bitOf(PieceKind kind) { return 1U << static_cast<unsigned>(kind); }
    unsigned bits_ = 0;
};

struct ScanRequest {
    std::uint64_t from = 0; ///< a multiple of sectorBytes
    std::uint64_t to = 0;
    PieceKinds kinds = PieceKinds::all();
    std::vector<ByteRange> passedOver; ///< in order: what is somebody's file and readable there
};

struct Scanned {
    std::vector<Piece> pieces; ///< by their place
    std::uint64_t reached = 0; ///< all before this was looked at; a file goes on to its end behind `to`
};

/// Looks through a part of an image for what begins like audio at a sector, and for the middle of what does
/// not begin any more at any byte. Stops where the run is cancelled.
Scanned scanImage(ByteSource& source, const ScanRequest& request, RunControl& control,
                  const std::function<void(std::uint64_t)>& onBytes);

} // namespace sober
