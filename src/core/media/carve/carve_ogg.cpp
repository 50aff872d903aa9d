#include "core/media/carve/carvings.h"
#include "core/media/ogg_page.h"
#include "core/media/push_parser.h"

#include <algorithm>
#include <map>

namespace sober {
namespace {

using namespace std::string_view_literals;

constexpr std::size_t longestPage = 27 + 255 + std::size_t{255} * 255;

struct OggStream {
    std::uint64_t next = 0;
    std::int64_t firstGranule = -1; ///< of a stream whose beginning is not there
    std::int64_t granule = 0;
    int rate = 0;
    bool begins = false;
    bool ended = false;

    double seconds() const {
        const auto from = begins ? 0 : std::max<std::int64_t>(firstGranule, 0);
        return rate > 0 && granule > from ? static_cast<double>(granule - from) / rate : 0;
    }
};

bool isMovingPictures(std::span<const std::uint8_t> packet) {
    return beginsWith(packet, "\x80theora"sv) || beginsWith(packet, "BBCD"sv) ||
           beginsWith(packet, "\x4FVP80"sv);
}

class PageChain {
  public:
    explicit PageChain(ImageWindow& window) : window_(window) {}

    std::optional<Piece> follow(std::uint64_t at) {
        Piece piece;
        piece.kind = PieceKind::ogg;
        piece.first = at;
        while (true) {
            const auto page = pageAt(at);
            if (!page || !take(*page, piece)) {
                break;
            }
            at += page->length();
        }
        if (pages_ == 0) {
            return std::nullopt;
        }
        piece.past = at;
        piece.ends = std::ranges::all_of(streams_, [](const auto& each) { return each.second.ended; });
        piece.seconds = before_ + longest();
        piece.nextUnit = streams_.at(static_cast<std::uint32_t>(piece.stream)).next;
        return piece;
    }

  private:
    /// A page whose check value holds.
    std::optional<OggPage> pageAt(std::uint64_t at) {
        const auto page = OggPage::at(window_.at(at, longestPage));
        return page && page->holds() ? page : std::nullopt;
    }

    double longest() const {
        double seconds = 0;
        for (const auto& [serial, stream] : streams_) {
            seconds = std::max(seconds, stream.seconds());
        }
        return seconds;
    }

    /// False where the page belongs to another file.
    bool take(const OggPage& page, Piece& piece) {
        const auto serial = page.serial();
        const std::uint64_t sequence = page.sequence();
        const auto granule = page.granule();
        const bool begins = page.begins();
        const auto packet = page.body();
        if (begins) {
            const bool all =
                std::ranges::all_of(streams_, [](const auto& each) { return each.second.ended; });
            if (pages_ > 0 && all) {
                if ((piece.first + taken_) % sectorBytes == 0) {
                    return false; // another file, side by side with this one
                }
                before_ += longest(); // streams in a chain
                streams_.clear();
            } else if (heldBack_) {
                return false;
            }
            piece.isVideo = piece.isVideo || isMovingPictures(packet);
        } else if (pages_ > 0 && !streams_.contains(serial)) {
            return false;
        }
        heldBack_ = heldBack_ || !begins;
        auto& stream = streams_[serial];
        if (pages_ == 0) {
            piece.begins = begins;
            piece.stream = serial;
            piece.firstUnit = sequence;
            stream.begins = begins;
        } else if (begins) {
            stream = {};
            stream.begins = true;
        } else if (sequence != stream.next || stream.ended) {
            return false;
        }
        if (begins) {
            stream.rate = oggRateOf(packet);
        } else if (!stream.begins && stream.rate == 0) {
            stream.rate = 48'000; // what is not known counts as what its length is usually told in
        }
        stream.next = (sequence + 1) & 0xFFFFFFFFU;
        stream.ended = page.ends();
        if (granule >= 0) {
            stream.firstGranule = stream.firstGranule < 0 ? granule : stream.firstGranule;
            stream.granule = granule;
        }
        ++pages_;
        taken_ += page.length();
        return true;
    }

    ImageWindow& window_;
    std::map<std::uint32_t, OggStream> streams_;
    std::uint64_t pages_ = 0;
    std::uint64_t taken_ = 0;
    double before_ = 0;     ///< seconds of earlier streams of the chain
    bool heldBack_ = false; ///< the beginnings of the streams are over
};

} // namespace

std::optional<Piece> carveOgg(ImageWindow& window, std::uint64_t at) {
    return PageChain(window).follow(at);
}

} // namespace sober
