#include "core/disc/rip_report.h"

#include "core/base/text.h"
#include "core/base/times.h"

#include <fmt/format.h>
#include <nlohmann/json.hpp>

#include <cmath>

namespace sober {
namespace {

using Json = nlohmann::json;

std::string hexOf(std::uint32_t crc) {
    return fmt::format("{:08x}", crc);
}

std::string offsetWords(const RippedDisc& disc) {
    const auto* const source = disc.isOffsetProven ? ", as the register proves" : ", as was said";
    return disc.offset != 0
               ? fmt::format("The drive reads {} {}{}; this is put right.",
                             counted(static_cast<std::uint64_t>(std::abs(disc.offset)), "sample"),
                             disc.offset < 0 ? "early" : "late", source)
           : disc.isOffsetProven
               ? std::string("The drive reads at the right place, as the register proves.")
               : std::string("Whether the drive reads some samples early or late is not known.");
}

std::string placesWords(const RippedTrack& track, const DiscContents& contents) {
    std::string words;
    const auto* of = &contents.tracks.front();
    for (const auto& each : contents.tracks) {
        of = each.number == track.number ? &each : of;
    }
    const int begin = track.number == 0 ? 0 : of->firstSector;
    for (const auto& [first, last] : track.doubtful) {
        words += fmt::format("      {} to {} of the track (sectors {} to {} of the disc)\n",
                             sectorTime(first - begin), sectorTime(last - begin), first, last);
    }
    return words;
}

} // namespace

std::string reportText(const RippedDisc& disc) {
    std::string text = "Sober Archivist: how this disc was read\n\n";
    text +=
        fmt::format("{}{}{}\n", disc.names.artist, disc.names.artist.empty() ? "" : ": ", disc.names.title);
    text +=
        fmt::format("Read {} from {}\nDisc {}", isoUtc(disc.when),
                    disc.contents.device == "image" ? "an image of the disc" : disc.contents.device, disc.id);
    text += disc.contents.mediaNumber.empty() ? "\n"
                                              : fmt::format(", media number {}\n", disc.contents.mediaNumber);
    if (!disc.registerAddress.empty()) {
        text += fmt::format("Register {}{}\n", disc.registerAddress,
                            disc.problem.empty() ? "" : ": " + disc.problem);
    }
    text += offsetWords(disc) + "\n\n";
    if (disc.missing > 0) {
        text += fmt::format("{} at the {} of the disc lie beyond what the drive reads, and are zeros.\n\n",
                            counted(static_cast<std::uint64_t>(disc.missing), "sample"),
                            disc.offset < 0 ? "beginning" : "end");
    }
    for (const auto& track : disc.tracks) {
        text += fmt::format("{:02}  {}\n", track.number,
                            track.number == 0 ? "(hidden before the first track)" : track.title);
        text += fmt::format("    {}  CRC-32 {}  peak {:.4f}{}\n", sectorTime(track.sectors), hexOf(track.crc),
                            track.peak, track.preEmphasis ? "  with pre-emphasis" : "");
        text += track.agreed()
                    ? fmt::format("    agreed, read up to {} times", track.readings)
                    : fmt::format("    DOUBTFUL, read up to {} times, {} never read", track.readings,
                                  counted(static_cast<std::uint64_t>(track.unread), "sector"));
        text += track.late > 0 ? fmt::format(", {} only after readings that differed\n",
                                             counted(static_cast<std::uint64_t>(track.late), "sector"))
                               : "\n";
        text += placesWords(track, disc.contents);
        if (track.word) {
            text += "    register: " + registerWords(*track.word) + "\n";
        }
        if (!track.heldAs.empty()) {
            text += "    held already: " + displayPath(track.heldAs) + "\n";
        }
    }
    for (const auto& track : disc.contents.tracks) {
        if (!track.isAudio) {
            text += fmt::format("\nTrack {} holds data and was left out.\n", track.number);
        }
    }
    return text;
}

std::string reportJson(const RippedDisc& disc) {
    Json json{{"schema", "sober.disc-read/1"},
              {"id", disc.id},
              {"title", disc.names.title},
              {"artist", disc.names.artist},
              {"time", isoUtc(disc.when)},
              {"device", disc.contents.device},
              {"media_number", disc.contents.mediaNumber.empty() ? Json() : Json(disc.contents.mediaNumber)},
              {"offset", disc.offset},
              {"offset_proven", disc.isOffsetProven},
              {"missing_samples", disc.missing},
              {"register_problem", disc.problem.empty() ? Json() : Json(disc.problem)},
              {"tracks", Json::array()}};
    for (const auto& track : disc.tracks) {
        Json each{{"number", track.number},
                  {"title", track.title},
                  {"sectors", track.sectors},
                  {"files", Json::array()},
                  {"crc32", hexOf(track.crc)},
                  {"readings", track.readings},
                  {"agreed", track.agreed()},
                  {"agreed_late", track.late},
                  {"doubtful_sectors", Json::array()},
                  {"unread_sectors", track.unread},
                  {"peak", track.peak},
                  {"pre_emphasis", track.preEmphasis},
                  {"held_as", track.heldAs.empty() ? Json() : Json(percentEncodeOffending(track.heldAs))},
                  {"register", nullptr}};
        for (const auto& file : track.files) {
            each["files"].push_back(percentEncodeOffending(file));
        }
        for (const auto& [first, last] : track.doubtful) {
            each["doubtful_sectors"].push_back({first, last});
        }
        if (track.word) {
            each["register"] = {
                {"agree", track.word->agree}, {"offset", track.word->offset}, {"known", track.word->isKnown}};
        }
        json["tracks"].push_back(std::move(each));
    }
    return json.dump(2) + "\n";
}

} // namespace sober
