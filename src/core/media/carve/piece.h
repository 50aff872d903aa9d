#pragma once

#include <array>
#include <cstdint>
#include <optional>
#include <string_view>

namespace sober {

/// The formats that are recognised where no file system names them.
enum class PieceKind { mp3, aac, flac, ogg, wav, aiff, mp4, wavpack, asf, musepack };

inline constexpr std::array everyPieceKind{
    PieceKind::mp3,  PieceKind::aac, PieceKind::flac,    PieceKind::ogg, PieceKind::wav,
    PieceKind::aiff, PieceKind::mp4, PieceKind::wavpack, PieceKind::asf, PieceKind::musepack};

/// Its word in the command, the catalogue and the windows.
std::string_view word(PieceKind kind);
std::optional<PieceKind> pieceKindOf(std::string_view word);
/// The usual ending of such a file's name, without the dot.
std::string_view endingFor(PieceKind kind);

/// A row of bytes that one format's rules hold together.
struct Piece {
    PieceKind kind = PieceKind::mp3;
    std::uint64_t first = 0; ///< byte of the image
    std::uint64_t past = 0;  ///< one past its last byte
    bool begins = true;      ///< it has its format's beginning
    bool ends = false;       ///< it has its format's end, as far as the format can tell
    double seconds = 0;
    std::uint64_t stream = 0;    ///< what continuations have in common: a serial number, or parameters packed
    std::uint64_t firstUnit = 0; ///< number of its first page or frame, where the format counts them
    std::uint64_t nextUnit = 0;  ///< of the one that would follow
    std::uint64_t lastUnit = 0;  ///< byte of the image at which its last whole frame begins, of MPEG
    std::uint64_t unitSamples = 0; ///< of FLAC: samples of a frame; 0: they differ
    std::uint64_t stated = 0;      ///< samples or frames in all that its beginning states; 0: it does not
    /// Of what only says how long it is: from here to its end, and behind that, nothing was written; 0: not
    /// so.
    std::uint64_t emptyFrom = 0;
    /// It holds moving pictures: passed over, and no find.
    bool isVideo = false;
};

} // namespace sober
