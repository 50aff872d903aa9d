#include "core/disc/disc_contents.h"

#include "core/base/text.h"

#include <fmt/format.h>
#include <openssl/evp.h>

#include <algorithm>
#include <array>

namespace sober {
namespace {

constexpr int betweenSessions = 11'400;
constexpr int mostSectors = 100 * 60 * sectorsPerSecond; // as far as times on a disc can count

Outcome contradicts(const BytePath& disc, const std::string& how) {
    return Error{Cause::damaged, disc,
                 "The table of contents of " + displayPath(disc) + " contradicts itself: " + how + "."};
}

std::string base64(std::span<const std::uint8_t> bytes) {
    std::string text((bytes.size() + 2) / 3 * 4 + 1, '\0');
    const int length = EVP_EncodeBlock(reinterpret_cast<std::uint8_t*>(text.data()), bytes.data(),
                                       static_cast<int>(bytes.size()));
    text.resize(static_cast<std::size_t>(length));
    for (auto& letter : text) {
        letter = letter == '+' ? '.' : letter == '/' ? '_' : letter == '=' ? '-' : letter;
    }
    return text;
}

} // namespace

int DiscContents::hiddenSectors() const {
    return tracks.empty() || !tracks.front().isAudio ? 0 : tracks.front().firstSector;
}

int DiscContents::audioBegin() const {
    const auto first = std::ranges::find_if(tracks, &DiscTrack::isAudio);
    return first == tracks.begin() || first == tracks.end() ? 0 : first->firstSector;
}

int DiscContents::audioEnd() const {
    int end = 0;
    for (const auto& track : tracks) {
        end = track.isAudio ? track.end() : end;
    }
    return end;
}

Outcome isReadable(const DiscContents& contents, const BytePath& disc) {
    const auto& tracks = contents.tracks;
    if (tracks.empty()) {
        return Error{Cause::notAudio, disc, displayPath(disc) + " is blank: it has no tracks."};
    }
    if (static_cast<int>(tracks.size()) > mostTracks || tracks.front().number < 1 ||
        tracks.back().number > mostTracks) {
        return contradicts(disc, "there are tracks above 99");
    }
    for (std::size_t i = 0; i < tracks.size(); ++i) {
        const auto& track = tracks[i];
        if (track.firstSector < 0 || track.sectors <= 0 || track.end() > contents.leadOut) {
            return contradicts(disc, fmt::format("track {} begins at {} and ends at {}, and the disc at {}",
                                                 track.number, sectorTime(track.firstSector),
                                                 sectorTime(track.end()), sectorTime(contents.leadOut)));
        }
        if (i > 0 && (track.firstSector < tracks[i - 1].end() || track.number != tracks[i - 1].number + 1)) {
            return contradicts(disc, fmt::format("track {} does not come after track {}", track.number,
                                                 tracks[i - 1].number));
        }
    }
    if (contents.leadOut > mostSectors) {
        return contradicts(disc, "it would be longer than 100 minutes");
    }
    const bool hasAudio = std::ranges::any_of(tracks, &DiscTrack::isAudio);
    return hasAudio ? done()
                    : Outcome(Error{Cause::notAudio, disc,
                                    displayPath(disc) + " holds data only, and no audio track."});
}

std::string discId(const DiscContents& contents) {
    auto tracks = contents.tracks;
    int leadOut = contents.leadOut;
    while (tracks.size() > 1 && !tracks.back().isAudio) {
        leadOut = std::max(tracks.back().firstSector - betweenSessions, 0);
        tracks.pop_back();
    }
    if (tracks.empty()) {
        return {};
    }
    std::array<int, mostTracks + 1> begins{};
    begins[0] = leadOut + sectorsOfLeadIn;
    for (const auto& track : tracks) {
        begins.at(static_cast<std::size_t>(std::clamp(track.number, 1, mostTracks))) =
            track.firstSector + sectorsOfLeadIn;
    }
    auto text = fmt::format("{:02X}{:02X}", tracks.front().number, tracks.back().number);
    for (const int begin : begins) {
        text += fmt::format("{:08X}", static_cast<unsigned>(begin));
    }
    std::array<std::uint8_t, 20> digest{};
    unsigned size = 0;
    EVP_Digest(text.data(), text.size(), digest.data(), &size, EVP_sha1(), nullptr);
    return base64(digest);
}

const DiscTrack* trackAt(const DiscContents& contents, int sector) {
    const DiscTrack* found = nullptr;
    for (const auto& track : contents.tracks) {
        found = track.firstSector <= sector ? &track : found;
    }
    return found;
}

std::string sectorTime(int sector) {
    return fmt::format("{:02}:{:02}.{:02}", sector / sectorsPerSecond / 60, sector / sectorsPerSecond % 60,
                       sector % sectorsPerSecond);
}

} // namespace sober
