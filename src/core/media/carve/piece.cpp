#include "core/media/carve/piece.h"

#include <algorithm>

namespace sober {
namespace {

struct Words {
    PieceKind kind;
    std::string_view word;
    std::string_view ending;
};

constexpr Words pieceWords[]{{PieceKind::mp3, "mp3", "mp3"},    {PieceKind::aac, "aac", "aac"},
                        {PieceKind::flac, "flac", "flac"}, {PieceKind::ogg, "ogg", "ogg"},
                        {PieceKind::wav, "wav", "wav"},    {PieceKind::aiff, "aiff", "aiff"},
                        {PieceKind::mp4, "mp4", "m4a"},    {PieceKind::wavpack, "wavpack", "wv"},
                        {PieceKind::asf, "asf", "wma"},    {PieceKind::musepack, "musepack", "mpc"}};

} // namespace

std::string_view word(PieceKind kind) {
    return std::ranges::find(pieceWords, kind, &Words::kind)->word;
}

std::optional<PieceKind> pieceKindOf(std::string_view word) {
    const auto* const found = std::ranges::find(pieceWords, word, &Words::word);
    return found == std::end(pieceWords) ? std::nullopt : std::optional(found->kind);
}

std::string_view endingFor(PieceKind kind) {
    return std::ranges::find(pieceWords, kind, &Words::kind)->ending;
}

} // namespace sober
