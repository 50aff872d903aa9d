#include "demo/claims.h"

#include "demo/encode.h"
#include "demo/on_all_cores.h"

#include <nlohmann/json.hpp>

#include <algorithm>
#include <array>
#include <cmath>
#include <filesystem>
#include <random>

namespace sober::demo {
namespace {

namespace fs = std::filesystem;
using Words = std::vector<std::string>;
using Json = nlohmann::ordered_json;

/// One file whose claim is in question.
struct PlantedClaim {
    BytePath place;
    TagSet tags;
    Piece piece;
    /// Encodes that the file has behind it, in order: an ending and the encoder's options.
    std::vector<std::pair<std::string, Words>> before;
    Words last;                        ///< the encoder's options of the file itself
    std::vector<std::string> expected; ///< verdicts that are right
    std::string sourceCodec;
    std::string what;  ///< for the truth file
    bool dull = false; ///< played back from an old tape first
};

/// Copies of one recording in every form that a collection gathers over the years.
std::vector<PlantedClaim> plannedForms();

const std::array<BytePath, 8> polkaPlaces{
    "GANNET/Music/Pell Silver Band/Bandstand Evenings/04 Fog Signal Polka.flac",
    "GANNET/Downloads/fog_signal_polka.wav",
    "PETREL/Archive/2008 Bandstand Evenings/Fog Signal Polka.m4a",
    "TERN/MUSIC/0301 Fog Signal Polka.mp3",
    "PETREL/Inbox/From a swap meet/11 Fog Signal Polka.mp3",
    "PETREL/Inbox/From a swap meet/12 Fog Signal Polka.flac",
    "PETREL/Archive/2008 Bandstand Evenings/Fog Signal Polka, quieter.flac",
    "GANNET/Music/Pell Silver Band/Bandstand Evenings/Fog Signal Polka, excerpt.mp3"};
const std::array<BytePath, 2> galePlaces{"TERN/MUSIC/0302 Gale Warning.mp3",
                                         "PETREL/Inbox/From a swap meet/10 Gale Warning.mp3"};
const std::array<BytePath, 2> hymnPlaces{
    "PETREL/Archive/1988 Evening Harmonium/07 Hymn for the Ebb.flac",
    "GANNET/Music/Adela Threlkeld/Evening Harmonium/Hymn for the Ebb.wav"};
const std::array<BytePath, 2> carolPlaces{"GANNET/Music/Pell Harbour Choral Union/Tide Carol.flac",
                                          "PETREL/Archive/Choral Union/Tide Carol.flac"};
const std::string concertPlace = "PETREL/Archive/2010 Kelp and Rosin, the Concert/";

const Words mp3At128{"-c:a", "libmp3lame", "-b:a", "128k"};

const Words mp3At192{"-c:a", "libmp3lame", "-b:a", "192k"};
// A cut of some samples, as every player's import makes one, lays the second encoder's grid elsewhere.
const Words cutTo320{"-af", "atrim=start_sample=211", "-c:a", "libmp3lame", "-b:a", "320k"};

std::vector<PlantedClaim> plannedClaims() {
    const std::string swapped = "PETREL/Inbox/From a swap meet/";
    const std::string tapes = "GANNET/Music/Adela Threlkeld/Reading Room Tapes/";
    const std::string card = "TERN/MUSIC/";
    const TagSet swap{"", "Pell Silver Band", "Sea Wall Concerts", 0, 2016};
    const auto titled = [](TagSet tags, const char* title, int track) {
        tags.title = title;
        tags.track = track;
        return tags;
    };
    const Words mp3At96{"-c:a", "libmp3lame", "-b:a", "96k"};
    const Words aacAt256{"-c:a", "aac", "-b:a", "256k"};
    const TagSet tape{"", "Adela Threlkeld", "Reading Room Tapes", 0, 1979};
    const TagSet strings{"", "Tidewrack Strings", "Kelp and Rosin, the Concert", 0, 2010};
    std::vector<PlantedClaim> claims{
        {swapped + "01 Sea Wall March.flac",
         titled(swap, "Sea Wall March", 1),
         {Voice::brass, 901, 18, 104},
         {{"mp3", mp3At128}},
         {},
         {"transcoded"},
         "mp3",
         "MP3 of 128 kbit/s inside FLAC"},
        {swapped + "02 The Gauge Board.flac",
         titled(swap, "The Gauge Board", 2),
         {Voice::brass, 902, 16, 88},
         {{"mp3", mp3At96}},
         {},
         {"transcoded"},
         "mp3",
         "MP3 of 96 kbit/s inside FLAC"},
        {swapped + "03 Fender and Rope.flac",
         titled(swap, "Fender and Rope", 3),
         {Voice::bells, 903, 16, 100},
         {{"mp3", {"-c:a", "libmp3lame", "-b:a", "192k"}}},
         {},
         {"transcoded"},
         "mp3",
         "MP3 of 192 kbit/s inside FLAC"},
        {swapped + "04 Night Watch.flac",
         titled(swap, "Night Watch", 4),
         {Voice::plucked, 904, 16, 92},
         {{"m4a", aacAt256}},
         {},
         {"transcoded"},
         "aac",
         "AAC of 256 kbit/s inside FLAC: no shelf to see"},
        {swapped + "05 Slack Tide.flac",
         titled(swap, "Slack Tide", 5),
         {Voice::choir, 905, 16, 80},
         {{"ogg", {"-c:a", "libvorbis", "-q:a", "6"}}},
         {},
         {"transcoded"},
         "vorbis",
         "Vorbis q6 inside FLAC"},
        {swapped + "06 Signal Mast.mp3",
         titled(swap, "Signal Mast", 6),
         {Voice::brass, 906, 18, 112},
         {{"mp3", mp3At128}},
         cutTo320,
         {"transcoded"},
         "mp3",
         "128 kbit/s encoded again at 320"},
        {swapped + "07 Capstan Song.mp3",
         titled(swap, "Capstan Song", 7),
         {Voice::choir, 907, 18, 96},
         {{"m4a", {"-c:a", "aac", "-b:a", "128k"}}},
         cutTo320,
         {"transcoded"},
         "aac",
         "AAC of 128 kbit/s encoded again as MP3 at 320"},
        {swapped + "08 High Water, 96 kHz.flac",
         titled(swap, "High Water", 8),
         {Voice::bells, 908, 14, 84},
         {},
         {"-ar", "96000", "-sample_fmt", "s32"},
         {"doubtful"},
         "",
         "44.1 kHz stored as 96 kHz and 24 bits"},
        {swapped + "09 Kelp Line.flac",
         titled(swap, "Kelp Line", 9),
         {Voice::plucked, 909, 14, 100},
         {},
         {},
         {"genuine"},
         "",
         "honest lossless among the others"},
        {tapes + "1 Rain on the Skylight.flac",
         titled(tape, "Rain on the Skylight", 1),
         {Voice::harmonium, 921, 18, 72},
         {},
         {},
         {"genuine", "undetermined"},
         "",
         "honest transfer of a dull tape",
         true},
        {tapes + "2 The Caretaker's Waltz.flac",
         titled(tape, "The Caretaker's Waltz", 2),
         {Voice::plucked, 922, 18, 90},
         {},
         {},
         {"genuine", "undetermined"},
         "",
         "honest transfer of a dull tape",
         true},
        {"PETREL/Archive/2010 Kelp and Rosin, the Concert/01.flac",
         titled(strings, "Chandler's Reel", 1),
         {Voice::plucked, 931, 16, 120},
         {},
         {},
         {"genuine"},
         "",
         "the better copy of a low one"},
        {"PETREL/Archive/2010 Kelp and Rosin, the Concert/02.flac",
         titled(strings, "Bollard Jig", 2),
         {Voice::plucked, 932, 16, 116},
         {},
         {},
         {"genuine"},
         "",
         "the better copy of a low one"},
        {card + "0101 Chandlers Reel.mp3",
         titled(strings, "Chandler's Reel", 1),
         {Voice::plucked, 931, 16, 120},
         {},
         mp3At128,
         {"genuine"},
         "",
         "low bitrate, a better copy is on PETREL"},
        {card + "0102 Bollard Jig.mp3",
         titled(strings, "Bollard Jig", 2),
         {Voice::plucked, 932, 16, 116},
         {},
         mp3At96,
         {"genuine"},
         "",
         "low bitrate, a better copy is on PETREL"},
    };
    const auto forms = plannedForms();
    claims.insert(claims.end(), forms.begin(), forms.end());
    return claims;
}

Words knowing(Words options, const std::vector<std::string>& fields) {
    for (const auto& field : fields) {
        options.insert(options.end(), {"-metadata", field});
    }
    return options;
}

std::vector<PlantedClaim> plannedForms() {
    const TagSet polka{"Fog Signal Polka", "Pell Silver Band", "Bandstand Evenings", 4, 2008};
    const TagSet gale{"Gale Warning", "Pell Harbour Choral Union", "Weather Songs", 2, 2012};
    const TagSet hymn{"Hymn for the Ebb", "Adela Threlkeld", "Evening Harmonium", 7, 1988};
    const TagSet carol{"Tide Carol", "Pell Harbour Choral Union", "", 0, 0};
    const Piece polkaPiece{Voice::brass, 941, 24, 96};
    const Piece galePiece{Voice::choir, 942, 18, 100};
    const Piece hymnPiece{Voice::harmonium, 943, 18, 72};
    const std::vector<std::string> honest{"genuine", "undetermined"};
    return {
        {polkaPlaces[0], polka, polkaPiece, {}, {}, honest, "", "one recording in eight forms"},
        {polkaPlaces[1], polka, polkaPiece, {}, {}, honest, "", "the same samples as WAV"},
        {polkaPlaces[2],
         polka,
         polkaPiece,
         {},
         knowing({"-c:a", "alac"}, {"genre=Polka", "composer=Ines Corrigan"}),
         honest,
         "",
         "the same samples as ALAC, with tags and a picture that the others lack"},
        {polkaPlaces[3],
         polka,
         polkaPiece,
         {},
         knowing(mp3At192, {"genre=polka", "composer=I. Corrigan", "track=4/12", "comment=from the card"}),
         honest,
         "",
         "an honest 192"},
        {polkaPlaces[4],
         polka,
         polkaPiece,
         {{"mp3", mp3At128}},
         cutTo320,
         {"transcoded"},
         "mp3",
         "128 kbit/s encoded again at 320"},
        {polkaPlaces[5],
         polka,
         polkaPiece,
         {{"mp3", mp3At128}},
         {},
         {"transcoded"},
         "mp3",
         "MP3 of 128 kbit/s inside FLAC"},
        {polkaPlaces[6],
         polka,
         polkaPiece,
         {},
         {"-af", "volume=-3dB", "-sample_fmt", "s16"},
         honest,
         "",
         "3 dB quieter"},
        {polkaPlaces[7],
         polka,
         polkaPiece,
         {},
         {"-ss", "6", "-t", "12", "-c:a", "libmp3lame", "-b:a", "192k"},
         honest,
         "",
         "twelve seconds of it"},
        {galePlaces[0], gale, galePiece, {}, mp3At192, honest, "", "an honest 192"},
        {galePlaces[1],
         gale,
         galePiece,
         {{"mp3", mp3At128}},
         cutTo320,
         {"transcoded"},
         "mp3",
         "a false 320 beside an honest 192"},
        {hymnPlaces[0], hymn, hymnPiece, {}, {}, honest, "", "the same samples in FLAC and WAV"},
        {hymnPlaces[1], hymn, hymnPiece, {}, {}, honest, "", "the same samples in FLAC and WAV"},
        {carolPlaces[0], carol, {Voice::choir, 951, 16, 76}, {}, {}, honest, "", "a first setting"},
        {carolPlaces[1],
         carol,
         {Voice::choir, 952, 19, 92},
         {},
         {},
         honest,
         "",
         "another setting under the same tags"},
    };
}

/// Old tape: a head that has lost its treble, hiss, a hum, the speed a little unsteady.
Samples fromTape(const Samples& clean, std::uint32_t seed) {
    std::mt19937 random(seed);
    std::normal_distribution<double> hiss(0, 25);
    Samples out(clean.size());
    double state[2][4] = {};
    const auto frames = clean.size() / 2;
    for (std::size_t i = 0; i < frames; ++i) {
        const double time = static_cast<double>(i) / sampleRate;
        const double wow =
            6 + 5 * std::sin(2 * 3.14159265 * 0.6 * time) + 0.4 * std::sin(2 * 3.14159265 * 7 * time);
        const double from = std::max(0.0, static_cast<double>(i) - wow);
        const auto before = static_cast<std::size_t>(from);
        const double share = from - static_cast<double>(before);
        const double hissNow = hiss(random);
        for (std::size_t channel = 0; channel < 2; ++channel) {
            const std::size_t after = std::min(before + 1, frames - 1);
            const double sample =
                clean[2 * before + channel] * (1 - share) + clean[2 * after + channel] * share;
            double heard = sample + hissNow;
            for (double& pole : state[channel]) {
                pole += 0.3 * (heard - pole);
                heard = pole;
            }
            const double hum = 20 * std::sin(2 * 3.14159265 * 50 * time);
            const double mixed = 20'000 * std::tanh((0.8 * heard + hum) / 20'000);
            out[2 * i + channel] = static_cast<std::int16_t>(std::lround(mixed));
        }
    }
    return out;
}

/// A file that a claim has behind it, on the way to its last encode.
BytePath middleOf(const BytePath& target, const PlantedClaim& claim) {
    return target + ".on the way." + claim.before.front().first;
}

/// The last encodes of those that have one behind them, by one call.
bool encodeAgain(const BytePath& folder, std::span<const PlantedClaim> claims) {
    Words words{"ffmpeg", "-nostdin", "-loglevel", "error", "-y"};
    Words outputs;
    std::vector<BytePath> middles;
    for (const auto& claim : claims) {
        if (claim.before.empty()) {
            continue;
        }
        const BytePath target = joinPath(folder, claim.place);
        const auto input = std::to_string(middles.size()) + ":a";
        middles.push_back(middleOf(target, claim));
        words.insert(words.end(), {"-i", "file:" + middles.back()});
        outputs.insert(outputs.end(), {"-map", input, "-fflags", "+bitexact", "-flags:a", "+bitexact"});
        for (const auto& more : {tagWords(claim.tags), claim.last}) {
            outputs.insert(outputs.end(), more.begin(), more.end());
        }
        if (endingOf(target) == "flac") {
            outputs.insert(outputs.end(), {"-sample_fmt", "s16"});
        }
        outputs.push_back("file:" + target);
    }
    words.insert(words.end(), outputs.begin(), outputs.end());
    const bool good = middles.empty() || runQuietly(words) == 0;
    for (const auto& middle : middles) {
        fs::remove(middle);
    }
    return good;
}

bool makeTogether(const BytePath& folder, std::span<const PlantedClaim> claims) {
    std::vector<Encoding> first;
    for (const auto& claim : claims) {
        const BytePath target = joinPath(folder, claim.place);
        fs::create_directories(fs::path(target).parent_path());
        auto samples = synthesise(claim.piece);
        if (claim.dull) {
            samples = fromTape(samples, claim.piece.seed);
        }
        if (claim.before.empty()) {
            first.push_back({std::move(samples), claim.tags, target, claim.last});
        } else {
            first.push_back(
                {std::move(samples), claim.tags, middleOf(target, claim), claim.before.front().second});
        }
    }
    return encodeTogether(first) && encodeAgain(folder, claims);
}

/// Gives a file a drawn cover: the harbour wall under a low sun.
bool addCover(const BytePath& target) {
    const BytePath middle = joinPath(parentOf(target), "on the way." + endingOf(target));
    const bool made =
        runQuietly({"ffmpeg",
                    "-nostdin",
                    "-loglevel",
                    "error",
                    "-y",
                    "-i",
                    target,
                    "-f",
                    "lavfi",
                    "-i",
                    "color=c=0x1D5C63:s=240x240:r=1:d=1,drawbox=x=0:y=150:w=240:h=90:c=0x1F2328:t=fill,"
                    "drawbox=x=150:y=60:w=44:h=44:c=0xF4F0E6:t=fill",
                    "-map",
                    "0:a",
                    "-map",
                    "1:v",
                    "-frames:v",
                    "1",
                    "-c:a",
                    "copy",
                    "-c:v",
                    "mjpeg",
                    "-disposition:v",
                    "attached_pic",
                    "-fflags",
                    "+bitexact",
                    "-flags:v",
                    "+bitexact",
                    middle}) == 0;
    if (made) {
        fs::rename(middle, target);
    }
    return made;
}

} // namespace

bool makeClaims(const BytePath& folder) {
    const auto claims = plannedClaims();
    return inGroups(std::span(claims), [&](auto group) { return makeTogether(folder, group); }) &&
           addCover(joinPath(folder, polkaPlaces[2]));
}

Json claimsTruth() {
    Json truth = Json::array();
    for (const auto& claim : plannedClaims()) {
        truth.push_back({{"path", claim.place},
                         {"verdict", claim.expected},
                         {"source_codec", claim.sourceCodec.empty() ? Json() : Json(claim.sourceCodec)},
                         {"what", claim.what}});
    }
    return truth;
}

Json formsTruth() {
    Json truth = Json::array();
    const auto set = [&](const char* sameness, auto... places) {
        truth.push_back(
            {{"sameness", sameness}, {"members", Json::array({places...})}, {"hard_links", Json::array()}});
    };
    set("part", polkaPlaces[0], polkaPlaces[1], polkaPlaces[2], polkaPlaces[3], polkaPlaces[4],
        polkaPlaces[5], polkaPlaces[6], polkaPlaces[7]);
    set("lossy-copy", galePlaces[0], galePlaces[1]);
    set("samples", hymnPlaces[0], hymnPlaces[1]);
    set("lossy-copy", concertPlace + "01.flac", "TERN/MUSIC/0101 Chandlers Reel.mp3");
    set("lossy-copy", concertPlace + "02.flac", "TERN/MUSIC/0102 Bollard Jig.mp3");
    return truth;
}

Json alikeTagsTruth() {
    return Json::array({Json::array({carolPlaces[0], carolPlaces[1]})});
}

Json keepersTruth() {
    return Json::array({Json::array({polkaPlaces[0], "lossless, in a place that lasts, and says what it is"}),
                        Json::array({galePlaces[0], "an honest 192 goes before a false 320"}),
                        Json::array({hymnPlaces[0], "the same samples, compressed without loss"})});
}

} // namespace sober::demo
