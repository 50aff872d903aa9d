#include "core/disc/disc_tags.h"

#include <fmt/format.h>

#include <algorithm>

namespace sober {
namespace {

constexpr const char* severalArtists = "Various Artists";

std::string albumArtistOf(const DiscNames& names) {
    return names.artist.empty() && names.isOfSeveral() ? severalArtists : names.artist;
}

std::string albumOf(const RippedDisc& disc) {
    return disc.names.title.empty() ? "Disc " + disc.id.substr(0, 8) : disc.names.title;
}

DiscNames::Track namedTrack(const RippedDisc& disc, int number) {
    const auto at = audioPlace(disc.contents, number);
    DiscNames::Track named =
        at && *at < disc.names.tracks.size() ? disc.names.tracks[*at] : DiscNames::Track{};
    named.artist = named.artist.empty() ? disc.names.artist : named.artist;
    if (number == wholeDisc) {
        named.title = albumOf(disc);
        named.artist = albumArtistOf(disc.names);
    }
    if (named.title.empty()) {
        named.title = number == 0 ? "Hidden before the first" : fmt::format("Track {:02}", number);
    }
    return named;
}

std::string discNumber(const DiscNames& names) {
    return names.disc == 0    ? std::string()
           : names.discs == 0 ? std::to_string(names.disc)
                              : fmt::format("{}/{}", names.disc, names.discs);
}

} // namespace

std::optional<std::size_t> audioPlace(const DiscContents& contents, int number) {
    std::size_t place = 0;
    for (const auto& track : contents.tracks) {
        if (track.number == number) {
            return track.isAudio ? std::optional(place) : std::nullopt;
        }
        place += track.isAudio ? 1 : 0;
    }
    return std::nullopt;
}

TagChange tagsOfTrack(const RippedDisc& disc, int number, bool plain) {
    TagChange change;
    const auto add = [&change](const char* field, const std::string& value) {
        if (!value.empty()) {
            change.fields[field] = {value};
        }
    };
    const auto named = namedTrack(disc, number);
    add("TITLE", named.title);
    add("ARTIST", named.artist);
    add("ALBUM", albumOf(disc));
    add("ALBUMARTIST", albumArtistOf(disc.names));
    if (number != wholeDisc) {
        add("TRACKNUMBER", fmt::format("{}/{}", number, disc.contents.tracks.size()));
    }
    add("DISCNUMBER", discNumber(disc.names));
    if (plain) {
        return change;
    }
    add("DATE", disc.names.date);
    add("GENRE", disc.names.genre);
    add("COMPOSER", named.composer);
    add("COMMENT", named.comment);
    add("DISCID", disc.id);
    add("MCN", disc.contents.mediaNumber);
    for (const auto& track : disc.contents.tracks) {
        if (track.number == number) {
            add("ISRC", track.isrc);
            add("PREEMPHASIS", track.preEmphasis ? "1" : "");
        }
    }
    return change;
}

std::vector<TaggedFile> tableOfNames(const RippedDisc& disc) {
    std::vector<TaggedFile> files;
    for (const auto& track : disc.contents.tracks) {
        if (track.isAudio) {
            TagFields tags{tagsOfTrack(disc, track.number, false).fields, {}};
            files.push_back(
                {fmt::format("{:02} {}", track.number, tags.fields.at("TITLE").front()), std::move(tags)});
        }
    }
    return files;
}

DiscNames namesFrom(const TagTable& table, const DiscNames& before) {
    const auto text = [&table](std::size_t row, std::string_view field) {
        const auto at = std::ranges::find(TagTable::fields, field) - TagTable::fields.begin();
        return table.textAt({row, static_cast<std::size_t>(at)});
    };
    auto names = before;
    names.source = "yourself";
    names.title = text(0, "ALBUM");
    names.artist = text(0, "ALBUMARTIST");
    names.date = text(0, "DATE");
    names.genre = text(0, "GENRE");
    const auto disc = text(0, "DISCNUMBER");
    names.disc = std::atoi(disc.c_str());
    names.discs = disc.find('/') == std::string::npos ? 0 : std::atoi(disc.c_str() + disc.find('/') + 1);
    names.tracks.clear();
    for (std::size_t row = 0; row < table.rows(); ++row) {
        names.tracks.push_back(
            {text(row, "TITLE"), text(row, "ARTIST"), text(row, "COMPOSER"), text(row, "COMMENT")});
    }
    return names;
}

Holding holdingOfTrack(const RippedDisc& disc, int number) {
    const auto named = namedTrack(disc, number);
    Holding holding;
    holding.path = fmt::format("{:02} {}", number, named.title);
    holding.tags = {named.title, named.artist, albumOf(disc),
                    number == wholeDisc ? std::string() : std::to_string(number), disc.names.date};
    holding.filing.albumArtist = albumArtistOf(disc.names);
    holding.filing.genre = disc.names.genre;
    holding.filing.disc = discNumber(disc.names);
    return holding;
}

} // namespace sober
