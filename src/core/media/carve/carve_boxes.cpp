#include "core/media/carve/carvings.h"
#include "core/media/push_parser.h"

#include <algorithm>
#include <array>

namespace sober {
namespace {

using namespace std::string_view_literals;

/// Boxes of the outermost level that are met (ISO/IEC 14496-12 table 1, and those of older files).
constexpr std::array outermost{"ftyp"sv, "moov"sv, "mdat"sv, "free"sv, "skip"sv, "wide"sv,
                               "pnot"sv, "udta"sv, "meta"sv, "uuid"sv, "moof"sv, "mfra"sv,
                               "sidx"sv, "styp"sv, "pdin"sv, "ssix"sv, "prft"sv};

struct Box {
    std::string_view name;
    std::uint64_t first = 0;
    std::uint64_t content = 0;
    std::uint64_t past = 0;
    bool isOpen = false; ///< it goes on to the end of the file, wherever that is
};

class BoxWalk {
  public:
    explicit BoxWalk(ImageWindow& window) : window_(window) {}

    /// The box at a place, ending at `limit` at the latest by its own size; nothing where there is none.
    std::optional<Box> boxAt(std::uint64_t at, std::uint64_t limit) {
        const auto head = window_.at(at, 16);
        if (head.size() < 8) {
            return std::nullopt;
        }
        std::copy_n(head.begin() + 4, 4, name_.begin());
        auto length = bigEndian(head.first(4));
        std::uint64_t headLength = 8;
        Box box;
        if (length == 1 && head.size() == 16) {
            length = bigEndian(head.subspan(8, 8));
            headLength = 16;
        }
        box.isOpen = length == 0;
        if (box.isOpen) {
            length = limit - at;
        }
        if (length < headLength || length > limit - at) {
            return std::nullopt;
        }
        box.name = {name_.data(), 4};
        box.first = at;
        box.content = at + headLength;
        box.past = at + length;
        return box;
    }

    /// What tracks there are, from the handlers of the table of contents.
    void readContents(const Box& moov) { walkWithin(moov.content, moov.past, 0); }

    bool hasSound = false;
    bool hasPictures = false;
    double seconds = 0;

  private:
    void walkWithin(std::uint64_t at, std::uint64_t past, int depth) {
        constexpr int mostBoxes = 10'000;
        for (int i = 0; i < mostBoxes && at < past; ++i) {
            const auto box = boxAt(at, past);
            if (!box) {
                return;
            }
            const auto name = std::string(box->name);
            if (depth < 3 && (name == "trak" || name == "mdia")) {
                walkWithin(box->content, box->past, depth + 1);
            } else if (name == "hdlr") {
                const auto handler = window_.at(box->content + 8, 4);
                hasSound = hasSound || beginsWith(handler, "soun"sv);
                hasPictures = hasPictures || beginsWith(handler, "vide"sv);
            } else if (name == "mvhd") {
                readHeader(box->content);
            }
            at = box->past;
        }
    }

    void readHeader(std::uint64_t content) {
        const auto bytes = window_.at(content, 32);
        if (bytes.size() < 32) {
            return;
        }
        const bool wide = bytes[0] == 1;
        const auto scale = bigEndian(bytes.subspan(wide ? 20 : 12, 4));
        const auto length = bigEndian(bytes.subspan(wide ? 24 : 16, wide ? 8 : 4));
        seconds = scale > 0 ? static_cast<double>(length) / static_cast<double>(scale) : 0;
    }

    ImageWindow& window_;
    std::array<char, 4> name_{};
};

} // namespace

std::optional<Piece> carveBoxes(ImageWindow& window, std::uint64_t at) {
    if (window.at(at, 8).size() < 8 || !beginsWith(window.at(at + 4, 4), "ftyp"sv)) {
        return std::nullopt;
    }
    BoxWalk walk(window);
    Piece piece;
    piece.kind = PieceKind::mp4;
    piece.first = at;
    bool hasContents = false;
    bool hasMedia = false;
    bool cut = false;
    auto next = at;
    while (next < window.size()) {
        const auto head = window.at(next, 8);
        if (head.size() < 8 ||
            std::ranges::none_of(outermost, [&](auto name) { return beginsWith(head.subspan(4), name); }) ||
            (next > at && next % sectorBytes == 0 && beginsWith(head.subspan(4), "ftyp"sv))) {
            break;
        }
        const bool isMedia = beginsWith(head.subspan(4), "mdat"sv);
        const bool isContents = beginsWith(head.subspan(4), "moov"sv);
        const auto box = walk.boxAt(next, window.size());
        if (!box || box->isOpen) {
            // Its content goes on behind the image's end, or nobody knows how far.
            cut = true;
            hasMedia = hasMedia || isMedia;
            next = isMedia ? window.size() : next;
            break;
        }
        if (isContents) {
            walk.readContents(*box);
        }
        hasContents = hasContents || isContents;
        hasMedia = hasMedia || isMedia;
        next = box->past;
    }
    piece.isVideo = walk.hasPictures;
    piece.past = next;
    piece.seconds = walk.seconds;
    piece.ends = hasContents && hasMedia && !cut;
    const bool isOne = hasMedia && (walk.hasSound || walk.hasPictures || !hasContents);
    return isOne ? std::optional(piece) : std::nullopt;
}

} // namespace sober
