#include "core/media/carve/join_pieces.h"

#include "core/media/carve/image_window.h"
#include "core/media/carve/join_mpeg.h"
#include "core/media/flac_frame.h"
#include "core/media/ogg_page.h"

#include <algorithm>

namespace sober {
namespace {

constexpr std::size_t longestUnit = 128U << 10; // a page of Ogg, a frame of FLAC with some to spare

/// How one format tells its units.
struct UnitRules {
    /// The number of units between a piece and its continuation: the one that lies across the break.
    bool (*follows)(const Piece& piece, const Piece& next);
    /// Whether bytes are one whole unit, with its check value.
    bool (*holds)(std::span<const std::uint8_t> unit, const Piece& piece);
    /// The length of the unit that begins the bytes, where that much of it tells; 0 where it does not.
    std::size_t (*lengthOf)(std::span<const std::uint8_t> head);
    /// A unit is never longer.
    std::size_t (*most)(const Piece& piece);
};

std::size_t pageLengthIn(std::span<const std::uint8_t> head) {
    if (head.size() < 27 || head.size() < std::size_t{27} + head[26]) {
        return 0;
    }
    std::size_t length = std::size_t{27} + head[26];
    for (const auto segment : head.subspan(27, head[26])) {
        length += segment;
    }
    return length;
}
std::size_t noLength(std::span<const std::uint8_t> /*head*/) {
    return 0;
}
std::size_t longestPageOf(const Piece& /*piece*/) {
    return longestUnit;
}
/// As many bytes as its samples take as they are, and some more.
std::size_t longestFrame(const Piece& piece) {
    const auto channels = piece.stream >> 8 & 255;
    const auto bits = piece.stream & 255;
    return std::min<std::size_t>(longestUnit, piece.unitSamples * channels * (bits + 1) / 8 + 256);
}

bool pageFollows(const Piece& piece, const Piece& next) {
    return piece.stream == next.stream &&
           (next.firstUnit == piece.nextUnit || next.firstUnit == piece.nextUnit + 1);
}

bool pageHolds(std::span<const std::uint8_t> unit, const Piece& piece) {
    const auto page = OggPage::at(unit);
    return page && page->length() == unit.size() && page->holds() &&
           (page->serial() & 255) == (piece.stream & 255);
}

bool frameFollows(const Piece& piece, const Piece& next) {
    const auto step = piece.unitSamples > 0 ? 1 : 0;
    return piece.stream == next.stream && piece.unitSamples == next.unitSamples && step == 1 &&
           (next.firstUnit == piece.nextUnit || next.firstUnit == piece.nextUnit + 1);
}

bool frameHolds(std::span<const std::uint8_t> unit, const Piece& piece) {
    const auto frame = readFlacFrame(unit);
    return frame && frame->number == piece.nextUnit && flacCrc(unit) == 0 &&
           flacFrameLength(unit, static_cast<unsigned>(piece.stream & 255)) == unit.size();
}

std::optional<UnitRules> rulesOf(PieceKind kind) {
    return kind == PieceKind::ogg
               ? std::optional(UnitRules{pageFollows, pageHolds, pageLengthIn, longestPageOf})
           : kind == PieceKind::flac
               ? std::optional(UnitRules{frameFollows, frameHolds, noLength, longestFrame})
               : std::nullopt;
}

class Joining {
  public:
    Joining(ByteSource& image, const std::vector<Piece>& pieces)
        : image_(image), window_(image), pieces_(pieces) {}

    std::vector<Joined> run() {
        std::vector<bool> used(pieces_.size(), false);
        std::vector<Joined> all;
        for (std::size_t i = 0; i < pieces_.size(); ++i) {
            if (used[i] || !pieces_[i].begins || pieces_[i].ends ||
                (!rulesOf(pieces_[i].kind) && pieces_[i].kind != PieceKind::mp3)) {
                continue;
            }
            auto joined = follow(i, used);
            if (joined.parts.size() > 1) {
                all.push_back(std::move(joined));
            }
        }
        return all;
    }

  private:
    Joined follow(std::size_t first, std::vector<bool>& used) {
        Joined joined{pieces_[first], {{pieces_[first].first, pieces_[first].past}}, {first}};
        while (!joined.piece.ends) {
            const auto next = continuationOf(joined.piece, used);
            if (!next) {
                break;
            }
            const auto& [at, across] = *next;
            joined.extents.back().second = across.past;
            joined.extents.emplace_back(across.first, pieces_[at].past);
            joined.parts.push_back(at);
            joined.piece.past = pieces_[at].past;
            joined.piece.nextUnit =
                joined.piece.kind == PieceKind::mp3
                    ? joined.piece.nextUnit + pieces_[at].nextUnit + (across.isWithin ? 1 : 0)
                    : pieces_[at].nextUnit;
            joined.piece.lastUnit = pieces_[at].lastUnit;
            joined.piece.seconds += pieces_[at].seconds;
            joined.piece.ends = pieces_[at].ends || reachesEnd(joined.piece);
            used[at] = true;
        }
        return joined;
    }

    /// The beginning states how many samples or frames there are; a piece from the middle cannot know that it
    /// has the last of them.
    static bool reachesEnd(const Piece& piece) {
        return piece.kind == PieceKind::mp3
                   ? piece.stated > 0 && piece.nextUnit >= piece.stated
                   : piece.kind == PieceKind::flac && piece.stated > 0 && piece.unitSamples > 0 &&
                         piece.nextUnit * piece.unitSamples >= piece.stated;
    }

    std::optional<std::pair<std::size_t, Break>> continuationOf(const Piece& piece,
                                                                const std::vector<bool>& used) {
        if (piece.kind == PieceKind::mp3) {
            return continuationOfMpeg(piece, used);
        }
        const auto rules = *rulesOf(piece.kind);
        for (std::size_t i = 0; i < pieces_.size(); ++i) {
            const auto& next = pieces_[i];
            if (used[i] || next.begins || next.kind != piece.kind || next.first == piece.first ||
                !rules.follows(piece, next)) {
                continue;
            }
            if (next.firstUnit == piece.nextUnit) {
                return std::pair(i, Break{piece.past, next.first, false}); // broken off just between two
            }
            if (const auto across = breakWithin(rules, piece, next)) {
                return std::pair(i, *across);
            }
        }
        return std::nullopt;
    }

    /// The only one that fits: chance has too many others where two do.
    std::optional<std::pair<std::size_t, Break>> continuationOfMpeg(const Piece& piece,
                                                                    const std::vector<bool>& used) {
        const auto last = mpegReachAt(image_, piece.lastUnit, piece.stream);
        std::optional<std::pair<std::size_t, Break>> only;
        firsts_.resize(pieces_.size());
        for (std::size_t i = 0; i < pieces_.size(); ++i) {
            const auto& next = pieces_[i];
            const bool mayBe = last && !used[i] && !next.begins && next.kind == piece.kind &&
                               next.stream == piece.stream && next.first != piece.first;
            if (mayBe && !firsts_[i]) {
                firsts_[i] = mpegReachAt(image_, next.first, next.stream);
            }
            const auto across =
                mayBe && firsts_[i] ? mpegBreak(image_, piece, *last, next, *firsts_[i]) : std::nullopt;
            if (across && only) {
                return std::nullopt;
            }
            if (across) {
                only = std::pair(i, *across);
            }
        }
        return only;
    }

    /// The unit that lies across: every way to break it off at a sector is tried until its check value holds.
    std::optional<Break> breakWithin(const UnitRules& rules, const Piece& piece, const Piece& next) {
        const auto most = rules.most(piece);
        const auto ahead = window_.at(piece.past, most);
        const std::vector<std::uint8_t> head(ahead.begin(), ahead.end());
        const auto reach = std::min<std::uint64_t>(next.first, most);
        const auto behind = window_.at(next.first - reach, static_cast<std::size_t>(reach));
        const std::vector<std::uint8_t> tail(behind.begin(), behind.end());
        std::vector<std::uint8_t> unit;
        const auto firstEnd = (piece.past / sectorBytes + 1) * sectorBytes;
        for (auto past = firstEnd; past - piece.past <= head.size(); past += sectorBytes) {
            const auto before = static_cast<std::size_t>(past - piece.past);
            const auto length = rules.lengthOf(std::span(head).first(before));
            for (auto from = next.first / sectorBytes * sectorBytes; next.first - from <= tail.size();
                 from -= sectorBytes) {
                const auto rest = static_cast<std::size_t>(next.first - from);
                if (before + rest > most || from == 0) {
                    break;
                }
                if (length > 0 && before + rest != length) {
                    continue;
                }
                unit.assign(head.begin(), head.begin() + static_cast<std::ptrdiff_t>(before));
                unit.insert(unit.end(), tail.end() - static_cast<std::ptrdiff_t>(rest), tail.end());
                if (rules.holds(unit, piece)) {
                    return Break{past, from, true};
                }
            }
        }
        return std::nullopt;
    }

    ByteSource& image_;
    ImageWindow window_;
    std::vector<std::optional<Reach>> firsts_; ///< of pieces of MPEG audio, once they were asked for
    const std::vector<Piece>& pieces_;
};

} // namespace

std::vector<Joined> joinPieces(ByteSource& image, const std::vector<Piece>& pieces) {
    return Joining(image, pieces).run();
}

} // namespace sober
