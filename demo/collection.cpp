#include "demo/collection.h"

#include "core/base/text.h"
#include "demo/claims.h"
#include "demo/disc.h"
#include "demo/drift.h"
#include "demo/offers.h"
#include "demo/players.h"
#include "demo/repertoire.h"
#include "demo/wiped.h"

#include <fmt/format.h>
#include <nlohmann/json.hpp>
#include <sys/stat.h>

#include <algorithm>
#include <fcntl.h>
#include <filesystem>
#include <fstream>
#include <unistd.h>

namespace sober::demo {
namespace {

namespace fs = std::filesystem;
using Json = nlohmann::ordered_json;

/// A byte-identical copy to be made: the recording's place, the copy's, and how many days later.
struct Copy {
    std::size_t recording;
    BytePath place;
    int daysLater;
    bool hardLink = false;
};

/// What a card with FAT rules allows: no colons, no question marks, no trailing dots.
std::string cardName(std::string name) {
    std::erase_if(name,
                  [](char c) { return std::string_view("\\/:*?\"<>|").find(c) != std::string_view::npos; });
    return name;
}

std::vector<Copy> plannedCopies(const std::vector<Recording>& all) {
    std::vector<Copy> copies;
    const auto& at = [&](std::size_t album, std::size_t track) { return album * albumLength + track; };
    // The pocket player's card: two albums and a half, numbered as it likes them.
    int number = 1;
    for (const auto& [album, tracks] : {std::pair<std::size_t, std::size_t>{1, 12}, {3, 8}, {4, 6}}) {
        for (std::size_t track = 0; track < tracks; ++track) {
            const auto& recording = all[at(album, track)];
            copies.push_back({at(album, track),
                              fmt::format("TERN/MUSIC/{:04} {}.{}", number++, cardName(recording.tags.title),
                                          recording.ending),
                              900});
        }
    }
    // The archive drive: the losslessly kept albums, sorted by year.
    for (const std::size_t album : {std::size_t{0}, std::size_t{6}}) {
        for (std::size_t track = 0; track < albumLength; ++track) {
            const auto& recording = all[at(album, track)];
            copies.push_back({at(album, track),
                              fmt::format("PETREL/Archive/{} {}/{:02}.{}", recording.tags.year,
                                          recording.tags.album, recording.tags.track, recording.ending),
                              2400});
        }
    }
    // First heard out of a download folder, and left there.
    for (const std::size_t track : {0, 1, 2, 4, 7, 9}) {
        const auto& recording = all[at(5, track)];
        copies.push_back({at(5, track),
                          fmt::format("GANNET/Downloads/{} (1).{}", recording.tags.title, recording.ending),
                          -2});
    }
    copies.push_back({at(7, 3), "GANNET/Desktop/for Wilfred/spring tide.flac", 30});
    copies.push_back({at(2, 0), "GANNET/Desktop/untitled.wav", 12});
    copies.push_back({at(2, 0), "PETREL/Inbox/untitled.wav", 1800});
    copies.push_back({at(2, 0), "PETREL/Archive/1994 Harmonium Evenings/Voluntary in D.wav", 1810});
    for (const std::size_t track : {0, 3, 6, 9}) {
        const auto& recording = all[at(6, track)];
        copies.push_back({at(6, track),
                          fmt::format("GANNET/Best of/{}.{}", recording.tags.title, recording.ending), 0,
                          true});
    }
    return copies;
}

/// Names that go wrong elsewhere; each holds a recording of its own.
std::vector<BytePath> oddNames() {
    const BytePath folder = "GANNET/Odd names/";
    std::string longName;
    while (longName.size() < 240) {
        longName +=
            longName.empty() ? "A very long name that somebody typed in one go" : " and went on typing";
    }
    return {folder + "Caf\xE9 concert.flac",
            folder + "First line\nsecond line.mp3",
            folder + longName.substr(0, 250) + ".ogg",
            folder + "Harbour.flac",
            folder + "harbour.flac",
            folder + "S\xC3\xA9r\xC3\xA9nade.mp3",   // composed
            folder + "Se\xCC\x81re\xCC\x81nade.mp3", // decomposed
            folder + "100% \xE2\x80\x9Cquoted\xE2\x80\x9D #1.mp3"};
}

struct Gone {
    std::size_t recording;
    bool copyElsewhere; ///< the same bytes are still on another volume
};

/// Surveyed once, and no longer there.
std::vector<Gone> goneRecordings() {
    return {{0 * albumLength + 2, true},  {0 * albumLength + 8, true},  {1 * albumLength + 4, true},
            {2 * albumLength + 5, false}, {2 * albumLength + 6, false}, {5 * albumLength + 10, false},
            {7 * albumLength + 1, false}, {7 * albumLength + 2, false}, {7 * albumLength + 10, false}};
}

/// Moved within GANNET by hand: the whole album's first three into another folder.
std::vector<std::pair<BytePath, BytePath>> movedFiles(const std::vector<Recording>& all) {
    std::vector<std::pair<BytePath, BytePath>> moves;
    for (std::size_t track = 8; track < 11; ++track) {
        const auto& recording = all[3 * albumLength + track];
        moves.emplace_back(homeOf(recording), fmt::format("GANNET/Music/Strings, sorted/{}.{}",
                                                          recording.tags.title, recording.ending));
    }
    return moves;
}

constexpr std::size_t editedRecording = 4 * albumLength + 8;

void setTime(const BytePath& path, int year, int days) {
    const std::time_t seconds = 86400L * (365L * (year - 1970) + (year - 1969) / 4 + 100 + days) + 41000;
    const timespec times[2] = {{seconds, 0}, {seconds, 0}};
    utimensat(AT_FDCWD, path.c_str(), times, AT_SYMLINK_NOFOLLOW);
}

void makeFoldersFor(const BytePath& path) {
    fs::create_directories(fs::path(path).parent_path());
}

bool makeRecordings(const BytePath& folder, const std::vector<Recording>& all) {
    std::vector<Recorded> recorded;
    for (const auto& recording : all) {
        recorded.push_back({recording.piece, recording.tags, joinPath(folder, homeOf(recording))});
    }
    const bool good = recordAll(recorded);
    for (std::size_t i = 0; good && i < all.size(); ++i) {
        setTime(recorded[i].target, all[i].tags.year + 3, static_cast<int>(i));
    }
    return good;
}

void makeCopies(const BytePath& folder, const std::vector<Recording>& all) {
    for (const auto& copy : plannedCopies(all)) {
        const auto& recording = all[copy.recording];
        const BytePath from = joinPath(folder, homeOf(recording));
        const BytePath to = joinPath(folder, copy.place);
        makeFoldersFor(to);
        if (copy.hardLink) {
            fs::create_hard_link(from, to);
        } else {
            fs::copy_file(from, to);
            setTime(to, recording.tags.year + 3, static_cast<int>(copy.recording) + copy.daysLater);
        }
    }
}

bool makeOddities(const BytePath& folder) {
    const BytePath odd = joinPath(folder, "GANNET/Odd names/");
    std::vector<Recorded> recorded;
    std::uint32_t seed = 700;
    for (const auto& name : oddNames()) {
        recorded.push_back(
            {{Voice::bells, seed, 5, 110},
             {fmt::format("Test Peal {}", seed - 699), "Station Road Ringers", "Odds and Ends", 0, 2014},
             joinPath(folder, name)});
        ++seed;
    }
    const auto record = [&](const Piece& piece, const char* title, const char* artist, const char* name) {
        recorded.push_back({piece, {title, artist, "Odds and Ends", 0, 2014}, odd + name});
    };
    record({Voice::choir, 720, 6, 80}, "Cut Short", "Pell Harbour Choral Union", "cut short.m4a");
    record({Voice::choir, 721, 6, 80}, "Cut Short, Lossless", "Pell Harbour Choral Union", "cut short.flac");
    record({Voice::brass, 722, 5, 90}, "Sealed", "Pell Silver Band", "sealed.mp3");
    if (!recordAll(recorded)) {
        return false;
    }
    for (std::size_t i = 0; i < oddNames().size(); ++i) {
        setTime(recorded[i].target, 2015, static_cast<int>(i));
    }
    const std::ofstream empty(odd + "empty.mp3");
    std::ofstream(odd + "letter to the editor.mp3") << "Sir, the fog signal was heard again on Tuesday.\n";
    fs::resize_file(odd + "cut short.m4a", fs::file_size(odd + "cut short.m4a") / 2);
    fs::resize_file(odd + "cut short.flac", fs::file_size(odd + "cut short.flac") / 2);
    fs::permissions(odd + "sealed.mp3", fs::perms::none);
    fs::create_directory_symlink(".", odd + "round and round");
    mkfifo((odd + "pipe.wav").c_str(), 0600);
    std::ofstream(odd + "inlay card.txt") << "Recorded in the Reading Room.\n";
    return true;
}

Json shown(const BytePath& path) {
    return percentEncodeOffending(path);
}

} // namespace

bool makeCollection(const BytePath& folder) {
    const auto all = repertoire();
    if (!makeRecordings(folder, all)) {
        return false;
    }
    makeCopies(folder, all);
    return makeOddities(folder) && makeClaims(folder) && makeDriftable(folder) && makePlayed(folder);
}

bool letTimePass(const BytePath& folder) {
    const auto all = repertoire();
    std::vector<BytePath> going;
    for (const auto& gone : goneRecordings()) {
        if (!gone.copyElsewhere) {
            going.push_back(homeOf(all[gone.recording]));
        }
    }
    if (!makeWiped(folder, going)) {
        return false;
    }
    for (const auto& gone : goneRecordings()) {
        fs::remove(joinPath(folder, homeOf(all[gone.recording])));
    }
    for (const auto& [from, to] : movedFiles(all)) {
        makeFoldersFor(joinPath(folder, to));
        fs::rename(joinPath(folder, from), joinPath(folder, to));
    }
    auto edited = all[editedRecording];
    edited.tags.title += " (corrected title)";
    const BytePath path = joinPath(folder, homeOf(all[editedRecording]));
    std::vector<Recorded> recorded{{edited.piece, edited.tags, path}};
    for (int take = 1; take <= 3; ++take) {
        recorded.push_back({{Voice::harmonium, 800U + static_cast<std::uint32_t>(take), 7, 84},
                            {fmt::format("Reading Room, take {}", take), "Adela Threlkeld", "", take, 2021},
                            joinPath(folder, fmt::format("PETREL/Inbox/Reading Room, take {}.flac", take))});
    }
    return recordAll(recorded) && letPlayersFallBehind(folder);
}

bool writeTruth(const BytePath& folder) {
    const auto all = repertoire();
    const auto gone = goneRecordings();
    const auto isGone = [&](std::size_t recording) {
        return std::ranges::any_of(gone, [&](const Gone& one) { return one.recording == recording; });
    };
    Json sets = Json::array();
    for (std::size_t i = 0; i < all.size(); ++i) {
        Json members = Json::array();
        Json links = Json::array();
        if (!isGone(i)) {
            members.push_back(shown(homeOf(all[i])));
        }
        for (const auto& copy : plannedCopies(all)) {
            if (copy.recording == i) {
                members.push_back(shown(copy.place));
                if (copy.hardLink) {
                    links = {shown(homeOf(all[i])), shown(copy.place)};
                }
            }
        }
        if (members.size() > 1 && i != editedRecording) {
            sets.push_back({{"sameness", "bytes"}, {"members", members}, {"hard_links", links}});
        }
    }
    for (const auto& set : formsTruth()) {
        sets.push_back(set);
    }
    Json missing = Json::array();
    for (const auto& one : gone) {
        missing.push_back(
            {{"path", shown(homeOf(all[one.recording]))}, {"copy_elsewhere", one.copyElsewhere}});
    }
    Json moved = Json::array();
    for (const auto& [from, to] : movedFiles(all)) {
        moved.push_back({{"from", shown(from)}, {"to", shown(to)}});
    }
    Json odd = Json::array();
    for (const auto& name : oddNames()) {
        odd.push_back(shown(name));
    }
    Json drift = driftTruth();
    drift.push_back({{"path", shown(homeOf(all[editedRecording]))}, {"kind", "tags-edited"}});
    Json alike = alikeTagsTruth();
    alike.push_back(namesakesTruth());
    const Json truth{
        {"seed", 100},
        {"volumes", {"GANNET", "TERN", "PETREL"}},
        {"copy_sets", sets},
        {"missing", missing},
        {"wiped", wipedTruth(folder)},
        {"arrivals",
         {{"opening_march.flac", "replace"},
          {"shipping forecast (1).mp3", "retire"},
          {"04 - Adela Threlkeld - Tide  Table.flac", "take-in"},
          {"02 bucht.flac", "take-in"},
          {"quay dance.flac", "leave"},
          {"evening bells.flac", "leave"}}},
        {"offers", offersTruth()},
        {"disc", discTruth()},
        {"moved", moved},
        {"changed", {shown(homeOf(all[editedRecording]))}},
        {"added_later",
         {"PETREL/Inbox/Reading Room, take 1.flac", "PETREL/Inbox/Reading Room, take 2.flac",
          "PETREL/Inbox/Reading Room, take 3.flac"}},
        {"odd_names", odd},
        {"not_audio", {"GANNET/Odd names/empty.mp3", "GANNET/Odd names/letter to the editor.mp3"}},
        {"truncated", {"GANNET/Odd names/cut short.m4a", "GANNET/Odd names/cut short.flac"}},
        {"no_permission", {"GANNET/Odd names/sealed.mp3"}},
        {"link_loop", "GANNET/Odd names/round and round"},
        {"fifo", "GANNET/Odd names/pipe.wav"},
        {"claims", claimsTruth()},
        {"drift", drift},
        {"references", playersTruth()},
        {"odd", unsoundTruth()},
        {"only_tags_alike", alike},
        {"keepers", keepersTruth()}};
    std::ofstream file(joinPath(folder, "truth.json"));
    file << truth.dump(2) << '\n';
    return static_cast<bool>(file);
}

} // namespace sober::demo
