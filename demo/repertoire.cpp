#include "demo/repertoire.h"

#include <fmt/format.h>

#include <array>

namespace sober::demo {
namespace {

struct Album {
    const char* performer;
    const char* title;
    int year;
    Voice voice;
    std::array<const char*, albumLength> pieces;
    std::array<const char*, 3> endings; ///< used in turn
};

constexpr std::array<Album, 8> albums{{
    {"Pell Harbour Choral Union",
     "Songs for the Lifeboat Hall",
     1998,
     Voice::choir,
     {"The Slipway at Evening", "Grace for the Herring Fleet", "Lanterns on Cable Street",
      "Turn Again, Marian Rose", "The Ropewalk", "Sabbath Bell", "Three Boats Came Home",
      "Lullaby for a Lamp Trimmer", "Windward, Windward", "The Widow's Kitchen", "Low Water Carol",
      "Farewell to the Mole"},
     {"flac", "flac", "mp3"}},
    {"Pell Silver Band",
     "Bandstand Sundays",
     2003,
     Voice::brass,
     {"March of the Dredgermen", "Harbourmaster's Waltz", "Pilot Cutter", "Cornet Solo: Alderney Row",
      "The Regatta", "Hymn: Stonecrop", "Polka at the Ice House", "The New Pier", "Gasworks Quickstep",
      "Slow Melody for Tenor Horn", "Coal Quay", "Good Night, Bandsmen"},
     {"mp3", "mp3", "flac"}},
    {"Adela Threlkeld",
     "Harmonium Evenings",
     1994,
     Voice::harmonium,
     {"Voluntary in D", "Improvisation on Rain", "The Draper's Daughter", "Elegy for a Tram",
      "Chorale with Tremulant", "Small Fugue", "Evening in the Reading Room", "Hymn for Empty Chairs",
      "Pastoral, Unfinished", "The Blue Stop", "Slow Air", "Last Voluntary"},
     {"wav", "flac", "ogg"}},
    {"Tidewrack Strings",
     "Kelp and Rosin",
     2009,
     Voice::plucked,
     {"Oyster Reel", "The Crooked Stile", "Maggie Penhale's Fancy", "Salt Jig", "Wreckers' Hornpipe",
      "The Long Ladder", "Gorse", "Two Pence Short", "The Quarryman's Rant", "Marram", "Thursday's Child",
      "Home by the Cliff"},
     {"mp3", "opus", "m4a"}},
    {"Station Road Ringers",
     "Handbells through the Year",
     2012,
     Voice::bells,
     {"New Year's Morning", "Candlemas", "Plough Monday", "Rogation", "May Garland", "Midsummer Round",
      "Lammas", "Regatta Peal", "Harvest Home", "All Souls", "Advent Round", "The Long Night"},
     {"ogg", "mp3", "opus"}},
    {"Pell Harbour Players",
     "Radio Plays from the Net Loft",
     1987,
     Voice::speech,
     {"The Inspector of Lights, part 1", "The Inspector of Lights, part 2", "The Inspector of Lights, part 3",
      "A Parcel for Mrs Vane, part 1", "A Parcel for Mrs Vane, part 2", "The Wrong Ferry, part 1",
      "The Wrong Ferry, part 2", "Weather in the Passage", "The Man Who Sold Fog", "Nine Fathoms",
      "The Understudy", "Closing Announcement"},
     {"mp3", "wav", "mp3"}},
    {"Harbour Sound Survey",
     "Signals and Shore",
     2016,
     Voice::fogSignal,
     {"Fog Signal, North Mole", "Fog Signal, South Mole", "Fog Signal and Bell Buoy", "Diaphone, Test Blast",
      "Fog Signal at Two Miles", "Fog Signal from the Church Tower", "Both Moles, Answering",
      "The Old Reed Horn", "Fog Signal, Morning", "Fog Signal with Gulls", "Signal Station, Indoors",
      "Last Blast Before Closing"},
     {"flac", "wav", "flac"}},
    {"Harbour Sound Survey",
     "Twelve Tides",
     2018,
     Voice::surf,
     {"January, Shingle", "February, Sea Wall", "March, Slack Water", "April, Spring Tide", "May, Rock Pools",
      "June, Calm", "July, Swimmers Gone", "August, Groynes", "September, Swell", "October, Gale",
      "November, Undertow", "December, Harbour Bar"},
     {"flac", "ogg", "m4a"}},
}};

} // namespace

BytePath homeOf(const Recording& recording) {
    return fmt::format("GANNET/Music/{}/{}/{:02} {}.{}", recording.tags.artist, recording.tags.album,
                       recording.tags.track, recording.tags.title, recording.ending);
}

std::vector<Recording> repertoire() {
    std::vector<Recording> all;
    std::uint32_t seed = 100;
    for (const auto& album : albums) {
        for (std::size_t i = 0; i < album.pieces.size(); ++i) {
            Recording recording;
            recording.ending = album.endings[i % album.endings.size()];
            // AAC is slow to encode, so those stay short; a few pieces run to forty seconds.
            const double seconds = recording.ending == "m4a" ? 5
                                   : i == 5                  ? 40
                                                             : 5 + static_cast<double>(seed * 7 % 9);
            recording.piece = {album.voice, seed, seconds, 72 + static_cast<double>(seed * 13 % 60)};
            recording.tags = {album.pieces[i], album.performer, album.title, static_cast<int>(i) + 1,
                              album.year};
            all.push_back(std::move(recording));
            ++seed;
        }
    }
    return all;
}

} // namespace sober::demo
