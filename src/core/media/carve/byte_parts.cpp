#include "core/media/carve/byte_parts.h"

#include "core/media/adts_frame.h"
#include "core/media/carve/carvings.h"
#include "core/media/flac_frame.h"
#include "core/media/layer3_frame.h"
#include "core/media/ogg_page.h"
#include "core/media/push_parser.h"
#include "core/media/tag_lengths.h"

#include <fmt/format.h>

#include <algorithm>
#include <array>

namespace sober {
namespace {

using namespace std::string_view_literals;
using Bytes = std::span<const std::uint8_t>;

constexpr std::size_t mostParts = 4096;    // that are named at once
constexpr std::size_t mostSteps = 200'000; // from the beginning of a file to what is looked at
constexpr std::uint64_t lookBack = 128U
                                   << 10; // bytes in which a frame or page begins that reaches into the range

/// Four letters as they are, others as dots.
std::string lettersOf(Bytes bytes) {
    std::string text;
    for (const auto byte : bytes) {
        text.push_back(byte >= 0x20 && byte < 0x7F ? static_cast<char>(byte) : '.');
    }
    while (text.size() > 1 && text.back() == ' ') {
        text.pop_back();
    }
    return text;
}

class Naming {
  public:
    Naming(ByteSource& file, std::uint64_t from, std::uint64_t to)
        : window_(file), from_(from), to_(std::min(to, file.size())) {}

    std::vector<BytePart> run(PieceKind kind) {
        switch (kind) {
        case PieceKind::mp3:
        case PieceKind::aac:
            nameFrames(kind);
            break;
        case PieceKind::flac:
            nameFlac();
            break;
        case PieceKind::ogg:
            namePages();
            break;
        case PieceKind::wav:
        case PieceKind::aiff:
            nameChunks(kind == PieceKind::aiff);
            break;
        case PieceKind::mp4:
            nameBoxes({}, 0, window_.size(), 0);
            break;
        case PieceKind::wavpack:
            nameInRow(0, 32, [](Bytes head) {
                return beginsWith(head, "wvpk")
                           ? std::pair(littleEndian(head.subspan(4, 4)) + 8, std::string("block"))
                           : std::pair(std::uint64_t{0}, std::string());
            });
            break;
        case PieceKind::asf:
            nameInRow(0, 24, [](Bytes head) {
                return std::pair(littleEndian(head.subspan(16, 8)), std::string("object"));
            });
            break;
        case PieceKind::musepack:
            namePackets();
            break;
        }
        return std::move(parts_);
    }

  private:
    bool isDone(std::uint64_t at) const { return at >= to_ || parts_.size() >= mostParts; }

    void add(std::uint64_t first, std::uint64_t past, std::string name) {
        if (past > from_ && first < to_ && past > first) {
            parts_.push_back({first, std::min(past, window_.size()), std::move(name)});
        }
    }

    /// What follows one another from a place on, told by the first bytes of each, and the tags behind.
    template <typename LengthAndName>
    void nameInRow(std::uint64_t at, std::size_t headLength, LengthAndName lengthAndName) {
        for (std::size_t i = 0; i < mostSteps && !isDone(at); ++i) {
            const auto head = window_.at(at, headLength);
            auto [length, name] =
                head.size() < headLength ? std::pair(std::uint64_t{0}, std::string()) : lengthAndName(head);
            if (length == 0) {
                break;
            }
            length = std::min(length, window_.size() - at); // of a file that breaks off
            add(at, at + length, std::move(name));
            at += length;
        }
        nameTags(at);
    }

    /// Tags that stand at a place; returns where they end.
    std::uint64_t nameTags(std::uint64_t at) {
        while (!isDone(at)) {
            const auto head = window_.at(at, longestTagHead);
            const auto id3 = id3Length(head);
            const auto ape = apeLength(head);
            const bool isOld = beginsWith(head, "TAG") && at + 128 == window_.size();
            const auto length = id3 > 0 ? id3 : ape > 0 ? ape : isOld ? 128 : 0;
            if (length == 0) {
                break;
            }
            add(at, at + length, id3 > 0 ? "ID3v2 tag" : ape > 0 ? "APE tag" : "ID3v1 tag");
            at += length;
        }
        return at;
    }

    std::uint64_t frameLength(PieceKind kind, std::uint64_t at) {
        const auto head = window_.at(at, 16);
        if (kind == PieceKind::aac) {
            const auto frame = readAdtsFrame(head);
            return frame ? frame->bytes : 0;
        }
        const auto frame = readMpegFrame(head);
        return frame ? frame->bytes : 0;
    }

    void nameFrames(PieceKind kind) {
        auto at = nameTags(0);
        // Frames state only their own length: two that follow one another are met shortly before the range.
        if (from_ > at + lookBack) {
            at = from_ - lookBack;
            while (at < to_) {
                const auto length = frameLength(kind, at);
                if (length > 0 && frameLength(kind, at + length) > 0) {
                    break;
                }
                ++at;
            }
        }
        while (!isDone(at)) {
            if (const auto length = frameLength(kind, at); length > 0) {
                const auto bytes = window_.at(at, 256);
                const auto frame = kind == PieceKind::mp3 ? readMpegFrame(bytes) : std::nullopt;
                add(at, at + length,
                    frame && readStatedFrames(*frame, bytes) ? "frame that states the length" : "frame");
                at += length;
            } else if (const auto behind = nameTags(at); behind > at) {
                at = behind;
            } else {
                ++at;
            }
        }
    }

    void nameFlac() {
        constexpr std::array names{"STREAMINFO"sv,     "PADDING"sv,  "APPLICATION"sv, "SEEKTABLE"sv,
                                   "VORBIS_COMMENT"sv, "CUESHEET"sv, "PICTURE"sv};
        auto at = nameTags(0);
        if (!beginsWith(window_.at(at, 4), "fLaC")) {
            return nameFlacFrames(at);
        }
        add(at, at + 4, "fLaC");
        at += 4;
        for (bool isLast = false; !isLast && !isDone(at);) {
            const auto head = window_.at(at, 4);
            if (head.size() < 4) {
                return;
            }
            isLast = (head[0] & 128) != 0;
            const auto length = 4 + bigEndian(head.subspan(1, 3));
            const std::size_t type = head[0] & 127;
            add(at, at + length, type < names.size() ? std::string(names[type]) : "metadata");
            at += length;
        }
        nameFlacFrames(at);
    }

    void nameFlacFrames(std::uint64_t at) {
        at = std::max(at, from_ > lookBack ? from_ - lookBack : 0);
        std::optional<std::pair<std::uint64_t, std::uint64_t>>
            open; // a frame goes on to where the next begins
        for (; at < window_.size() && parts_.size() < mostParts; ++at) {
            const auto bytes = window_.at(at, 4096);
            const auto sync = std::ranges::find(bytes, 0xFF);
            at += static_cast<std::uint64_t>(sync - bytes.begin());
            const auto frame = readFlacFrame(window_.at(at, 16));
            if (!frame) {
                continue;
            }
            if (open) {
                add(open->first, at, fmt::format("frame {}", open->second));
            }
            open = {at, frame->number};
            if (at >= to_) {
                return;
            }
        }
        if (open) {
            add(open->first, window_.size(), fmt::format("frame {}", open->second));
        }
    }

    void namePages() {
        auto at = from_ > lookBack ? from_ - lookBack : 0;
        while (!isDone(at)) {
            const auto bytes = window_.at(at, 65'536);
            const auto page = OggPage::at(bytes);
            if (!page) {
                const auto next =
                    std::ranges::find(bytes.subspan(std::min<std::size_t>(1, bytes.size())), 'O');
                at += 1 + static_cast<std::uint64_t>(next - bytes.begin() - (bytes.empty() ? 0 : 1));
                continue;
            }
            add(at, at + page->length(),
                fmt::format("page {} of stream {:08X}{}", page->sequence(), page->serial(),
                            page->holds() ? "" : ", damaged"));
            at += page->length();
        }
    }

    void nameChunks(bool bigFirst) {
        const auto head = window_.at(0, 12);
        if (head.size() < 12) {
            return;
        }
        add(0, 12, lettersOf(head.first(4)) + " " + lettersOf(head.subspan(8, 4)));
        nameInRow(12, 8, [&](Bytes chunk) {
            const auto stated = bigFirst ? bigEndian(chunk.subspan(4, 4)) : littleEndian(chunk.subspan(4, 4));
            return std::pair(8 + stated + stated % 2, lettersOf(chunk.first(4)));
        });
    }

    void nameBoxes(const std::string& above, std::uint64_t at, std::uint64_t past, int depth) {
        constexpr std::array holders{"moov"sv, "trak"sv, "mdia"sv, "minf"sv, "stbl"sv,
                                     "udta"sv, "ilst"sv, "moof"sv, "traf"sv, "edts"sv};
        constexpr int deepest = 8;
        for (std::size_t i = 0; i < mostSteps && at < past && !isDone(at); ++i) {
            const auto head = window_.at(at, 16);
            if (head.size() < 8) {
                return;
            }
            auto length = bigEndian(head.first(4));
            std::uint64_t content = 8;
            if (length == 1 && head.size() == 16) {
                length = bigEndian(head.subspan(8, 8));
                content = 16;
            }
            length = length == 0 || length > past - at ? past - at : length;
            if (length < content) {
                return;
            }
            const auto word = lettersOf(head.subspan(4, 4));
            const auto name = above.empty() ? word : above + "/" + word;
            const bool isHolder = std::ranges::find(holders, std::string_view(word)) != holders.end();
            const bool isMeta = word == "meta"; // a full box: its version comes first
            if ((isHolder || isMeta) && depth < deepest && at + length > from_) {
                const auto within = at + content + (isMeta ? 4 : 0);
                add(at, std::min(within, at + length), name);
                nameBoxes(name, within, at + length, depth + 1);
            } else {
                add(at, at + length, name);
            }
            at += length;
        }
    }

    void namePackets() {
        if (!beginsWith(window_.at(0, 4), "MPCK")) {
            return;
        }
        add(0, 4, "MPCK");
        nameInRow(4, 12, [](Bytes head) {
            std::uint64_t length = 0;
            std::size_t at = 2;
            do {
                length = length << 7 | (head[at] & 127);
            } while ((head[at++] & 128) != 0 && at < head.size());
            return std::pair(length >= at ? length : 0, "packet " + lettersOf(head.first(2)));
        });
    }

    ImageWindow window_;
    std::uint64_t from_;
    std::uint64_t to_;
    std::vector<BytePart> parts_;
};

} // namespace

std::vector<BytePart> bytePartsIn(ByteSource& file, PieceKind kind, std::uint64_t from, std::uint64_t to) {
    return Naming(file, from, to).run(kind);
}

} // namespace sober
