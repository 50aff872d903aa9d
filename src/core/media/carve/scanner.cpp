#include "core/media/carve/scanner.h"

#include "core/media/carve/carvings.h"
#include "core/media/push_parser.h"

#include <algorithm>
#include <cstring>

namespace sober {
namespace {

using namespace std::string_view_literals;

using Sector = std::span<const std::uint8_t>;
using Carving = std::optional<Piece> (*)(ImageWindow&, std::uint64_t);

struct Signature {
    std::string_view bytes;
    std::size_t at;
    Carving carve;
};

/// What stands at the beginning of a file.
constexpr Signature signatures[]{{"ID3"sv, 0, carveTagged},   {"fLaC"sv, 0, carveFlac},
                                 {"OggS"sv, 0, carveOgg},     {"RIFF"sv, 0, carveWave},
                                 {"RF64"sv, 0, carveWave},    {"BW64"sv, 0, carveWave},
                                 {"FORM"sv, 0, carveAiff},    {"ftyp"sv, 4, carveBoxes},
                                 {"wvpk"sv, 0, carveWavPack}, {"\x30\x26\xB2\x75"sv, 0, carveAsf},
                                 {"MPCK"sv, 0, carveMusepack}};

/// Whether a format proves its content unit by unit; the others only say how long they are.
bool provesItself(PieceKind kind) {
    return kind == PieceKind::mp3 || kind == PieceKind::aac || kind == PieceKind::flac ||
           kind == PieceKind::ogg || kind == PieceKind::wavpack;
}

class Scanner {
  public:
    Scanner(ByteSource& source, const ScanRequest& request, RunControl& control,
            const std::function<void(std::uint64_t)>& onBytes)
        : window_(source), ahead_(source), request_(request), control_(control), onBytes_(onBytes) {
        for (const auto kind : {PieceKind::mp3, PieceKind::aac, PieceKind::flac, PieceKind::ogg}) {
            wantsUnits_ = wantsUnits_ || request.kinds.holds(kind);
        }
    }

    Scanned run() {
        auto at = request_.from;
        const auto end = [&] {
            return std::min(std::max(request_.to, openUntil() + (open_ ? sectorBytes : 0)), window_.size());
        };
        while (at < end() && control_.proceed()) {
            const auto before = at;
            at = step(at, end());
            onBytes_(std::min(at, window_.size()) - before);
            scanned_.reached = at;
        }
        scanned_.reached = std::min(std::max(scanned_.reached, request_.from), window_.size());
        return std::move(scanned_);
    }

  private:
    /// Of what only says how long it is: how far that would be.
    std::uint64_t openUntil() const { return open_ ? scanned_.pieces[*open_].past : 0; }

    /// Looks at the sectors from a place on, up to the next find or a good deal further; where to go on.
    std::uint64_t step(std::uint64_t at, std::uint64_t end) {
        constexpr std::uint64_t stretch = 1U << 20;
        auto until = std::min(end, at + stretch);
        const auto skipped = std::ranges::upper_bound(request_.passedOver, at, {}, &ByteRange::second);
        if (skipped != request_.passedOver.end()) {
            if (skipped->first <= at) {
                return nextSector(skipped->second);
            }
            until = std::min(until, nextSector(skipped->first));
        }
        while (at < until) {
            const auto bytes = window_.at(at, static_cast<std::size_t>(sectorBytes));
            if (bytes.empty()) {
                return nextSector(at + 1); // it cannot be read
            }
            if (isOneByte(bytes)) {
                countSilence(at);
            } else {
                silentSince_.reset();
                if (const auto past = lookInto(at)) {
                    return *past;
                }
            }
            at = nextSector(at + 1);
        }
        return at;
    }

    static std::uint64_t nextSector(std::uint64_t at) {
        return (at + sectorBytes - 1) / sectorBytes * sectorBytes;
    }
    static bool isOneByte(Sector bytes) {
        return std::memcmp(bytes.data(), bytes.data() + 1, bytes.size() - 1) == 0;
    }

    /// A recording that was never closed ends where nothing was written any more.
    void countSilence(std::uint64_t at) {
        constexpr std::uint64_t nothingMore = 256U << 10; // no source
        silentSince_ = silentSince_.value_or(at);
        if (!open_ || at - *silentSince_ < nothingMore) {
            return;
        }
        auto& piece = scanned_.pieces[*open_];
        if (!piece.ends) {
            piece.past = *silentSince_;
            open_.reset();
        } else if (at >= piece.past && *silentSince_ > piece.first &&
                   *silentSince_ + nothingMore <= piece.past) {
            // Silence to its end, and behind that as well: its end may never have been written.
            piece.emptyFrom = *silentSince_;
            piece.ends = false;
            open_.reset();
        }
    }

    /// Where to go on behind what begins in a sector; nothing where nothing does.
    std::optional<std::uint64_t> lookInto(std::uint64_t at) {
        if (open_ && at >= openUntil()) {
            open_.reset();
        }
        if (at % sectorBytes == 0) {
            const auto bytes = window_.at(at, 16);
            for (const auto& signature : signatures) {
                if (bytes.size() > signature.at && beginsWith(bytes.subspan(signature.at), signature.bytes)) {
                    if (const auto past = take(signature.carve(ahead_, at), true)) {
                        return past;
                    }
                }
            }
        }
        return open_ || !wantsUnits_ ? std::nullopt : lookForUnits(at);
    }

    /// Frames and pages of what does not begin here, at any byte of the sector.
    std::optional<std::uint64_t> lookForUnits(std::uint64_t at) {
        const auto past = nextSector(at + 1);
        const auto bytes = window_.at(at, static_cast<std::size_t>(past - at) + 16);
        const auto length = std::min(static_cast<std::size_t>(past - at), bytes.size());
        // What is found may move the window: positions are noted first.
        places_.clear();
        for (std::size_t i = 0; i < length;) {
            const auto* const found =
                static_cast<const std::uint8_t*>(std::memchr(bytes.data() + i, 0xFF, length - i));
            if (found == nullptr) {
                break;
            }
            i = static_cast<std::size_t>(found - bytes.data());
            if (i + 1 < bytes.size() && (found[1] & 0xE0) == 0xE0) {
                places_.push_back(i);
            }
            ++i;
        }
        if (const auto* const page = static_cast<const std::uint8_t*>(
                memmem(bytes.data(), std::min(length + 3, bytes.size()), "OggS", 4))) {
            places_.push_back(static_cast<std::size_t>(page - bytes.data()));
            std::ranges::sort(places_);
        }
        for (const auto place : places_) {
            const auto here = window_.at(at + place, 4);
            const auto second = here.size() > 1 ? here[1] : 0;
            const auto carve = !here.empty() && here[0] == 'O' ? carveOgg
                               : (second & 0xFE) == 0xF8       ? carveFlac
                               : (second & 0xF6) == 0xF0       ? carveAdts
                                                               : carveMpeg;
            if (const auto next = take(carve(ahead_, at + place), false)) {
                return next;
            }
        }
        return std::nullopt;
    }

    /// Takes in what was carved; where to go on. Nothing where it is nothing that was asked for.
    std::optional<std::uint64_t> take(std::optional<Piece> piece, bool hasSignature) {
        if (!piece || piece->past <= piece->first) {
            return std::nullopt;
        }
        if (piece->isVideo) {
            return piece->past;
        }
        if (open_) {
            const bool isSure = piece->ends || !provesItself(piece->kind) || piece->kind == PieceKind::flac ||
                                piece->kind == PieceKind::ogg;
            if (!hasSignature || !isSure) {
                return std::nullopt;
            }
            // Another file lies where this one would go on: it was broken off, or written over.
            auto& outer = scanned_.pieces[*open_];
            outer.past = std::min(outer.past, piece->first);
            outer.ends = false;
            open_.reset();
        }
        if (!request_.kinds.holds(piece->kind)) {
            return provesItself(piece->kind) ? std::optional(piece->past) : std::nullopt;
        }
        scanned_.pieces.push_back(*piece);
        if (provesItself(piece->kind)) {
            return piece->past;
        }
        open_ = scanned_.pieces.size() - 1;
        return nextSector(piece->first + 1);
    }

    ImageWindow window_;
    ImageWindow ahead_; ///< follows what was found
    const ScanRequest& request_;
    RunControl& control_;
    const std::function<void(std::uint64_t)>& onBytes_;
    Scanned scanned_;
    std::optional<std::size_t> open_; ///< the find whose length is only said
    std::optional<std::uint64_t> silentSince_;
    std::vector<std::size_t> places_;
    bool wantsUnits_ = false;
};

} // namespace

PieceKinds PieceKinds::all() {
    PieceKinds kinds;
    for (const auto kind : everyPieceKind) {
        kinds.add(kind);
    }
    return kinds;
}

PieceKinds PieceKinds::ofBits(unsigned bits) {
    PieceKinds kinds;
    kinds.bits_ = bits & all().bits_;
    return kinds;
}

Scanned scanImage(ByteSource& source, const ScanRequest& request, RunControl& control,
                  const std::function<void(std::uint64_t)>& onBytes) {
    return Scanner(source, request, control, onBytes).run();
}

} // namespace sober
