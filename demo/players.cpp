#include "demo/players.h"

#include "core/base/text.h"
#include "core/players/location.h"
#include "demo/encode.h"
#include "demo/repertoire.h"
#include "demo/synth.h"

#include <fmt/format.h>
#include <nlohmann/json.hpp>

#include <algorithm>
#include <array>
#include <filesystem>
#include <fstream>

namespace sober::demo {
namespace {

namespace fs = std::filesystem;
using Json = nlohmann::ordered_json;

const BytePath oldMachine = "/home/wilfred/Music";

/// A file that is listed under one place and is at another now.
struct Moved {
    BytePath before; ///< relative to the demo's folder
    BytePath now;
    TagSet tags;
    Piece piece;
};

TagSet tagsOf(const std::string& title, const std::string& album, int track) {
    return {title, "Pell Harbour Evening Institute", album, track, 1991};
}

/// A renamed tree: cassettes, labelled at last.
std::vector<Moved> cassettes() {
    constexpr std::array<const char*, 12> titles{
        "Opening Hymn",      "Reading of the Names", "Duet for Two Kettles", "The Vicar's Encore",
        "Bring and Buy",     "Raffle Waltz",         "Thanks to the Ladies", "Collection for the Roof",
        "Children's Chorus", "Wet Saturday",         "Interval Chatter",     "Closing Prayer"};
    std::vector<Moved> all;
    for (std::size_t i = 0; i < titles.size(); ++i) {
        const auto side = fmt::format("Side {}/{}.mp3", i / 4 + 1, titles[i]);
        all.push_back({"GANNET/Cassettes/" + side,
                       "GANNET/Tapes, labelled/" + side,
                       tagsOf(titles[i], "Harvest Supper", static_cast<int>(i) + 1),
                       {static_cast<Voice>(i % 6), 970U + static_cast<std::uint32_t>(i), 4, 90}});
    }
    return all;
}

/// A flattened one, whose names collided.
std::vector<Moved> classes() {
    std::vector<Moved> all;
    for (int week = 1; week <= 3; ++week) {
        int track = 0;
        for (const auto* title : {"Warm-up", "Piece of the Week", "Reading at Sight"}) {
            ++track;
            const auto name = fmt::format("{:02} {}", track, title);
            const auto number = week == 1 ? std::string() : fmt::format(" ({})", week);
            all.push_back({fmt::format("GANNET/Evening classes/Week {}/{}.ogg", week, name),
                           fmt::format("GANNET/Evening classes, all/{}{}.ogg", name, number),
                           tagsOf(fmt::format("{}, week {}", title, week), "Evening classes", track),
                           {Voice::choir, static_cast<std::uint32_t>(990 + 10 * week + track), 4, 80}});
        }
    }
    return all;
}

std::vector<Moved> moved() {
    auto all = cassettes();
    std::ranges::move(classes(), std::back_inserter(all));
    return all;
}

/// Two recordings of one name, one length and the same words.
constexpr std::array<const char*, 2> namesakes{"GANNET/Rehearsals/Take Home.flac",
                                               "PETREL/Inbox/Take Home.flac"};

/// Where the old machine had it: nobody has ever surveyed that.
BytePath oldHomeOf(const Recording& recording) {
    return joinPath(oldMachine, homeOf(recording).substr(std::string_view("GANNET/Music/").size()));
}

std::span<const Recording> albumOf(const std::vector<Recording>& all, std::size_t album) {
    return std::span(all).subspan(album * albumLength, albumLength);
}

/// An XSPF list, written entry by entry.
class Xspf {
  public:
    explicit Xspf(const std::string& title)
        : text_("<?xml version=\"1.0\" encoding=\"UTF-8\"?>\n<playlist version=\"1\" "
                "xmlns=\"http://xspf.org/ns/0/\">\n  <title>" +
                escaped(title) + "</title>\n  <trackList>\n") {}

    void add(const std::string& location, const TagSet& tags = {}, double seconds = 0) {
        text_ += "    <track><location>" + escaped(location) + "</location>";
        if (!tags.title.empty()) {
            text_ += fmt::format("<title>{}</title><creator>{}</creator><album>{}</album>",
                                 escaped(tags.title), escaped(tags.artist), escaped(tags.album));
        }
        if (seconds > 0) {
            text_ += fmt::format("<duration>{:.0f}</duration>", seconds * 1000);
        }
        text_ +=
            "<extension application=\"http://lantern.example/played\"><count>3</count></extension></track>\n";
    }
    bool write(const BytePath& path) const {
        fs::create_directories(fs::path(path).parent_path());
        std::ofstream file(path, std::ios::binary);
        file << text_ << "  </trackList>\n</playlist>\n";
        return static_cast<bool>(file);
    }

  private:
    static std::string escaped(std::string_view text) {
        std::string out;
        for (const char c : text) {
            if (c == '&' || c == '<') {
                out += c == '&' ? "&amp;" : "&lt;";
            } else {
                out += c;
            }
        }
        return out;
    }
    std::string text_;
};

bool writeLantern(const BytePath& folder, const std::vector<Recording>& all) {
    const auto uri = [&](const BytePath& relative) { return fileUriOf(joinPath(folder, relative)); };
    Xspf library("Library");
    for (const auto& recording : all) {
        library.add(uri(homeOf(recording)), recording.tags, recording.piece.seconds);
    }
    for (const auto& each : moved()) {
        library.add(uri(each.before), each.tags, each.piece.seconds);
    }
    Xspf sunday("Sunday");
    for (const auto& each : cassettes()) {
        sunday.add(uri(each.before), each.tags, each.piece.seconds);
    }
    sunday.add(uri(cassettes().front().before), cassettes().front().tags, 4);
    for (const std::size_t track : {0, 1}) {
        const auto& recording = all[5 * albumLength + track];
        sunday.add(uri(fmt::format("GANNET/Downloads/{} (1).{}", recording.tags.title, recording.ending)),
                   recording.tags, recording.piece.seconds);
    }
    sunday.add(uri("GANNET/Desktop/for Wilfred/spring tide.flac"));
    sunday.add("http://radio.pellharbour.example/live");
    Xspf inherited("From the old machine");
    for (const auto& recording : albumOf(all, 3)) {
        inherited.add(fileUriOf(oldHomeOf(recording)), recording.tags, recording.piece.seconds);
    }
    inherited.add(fileUriOf("/home/wilfred/Recordings/Take Home.flac"), tagsOf("Take Home", "Rehearsals", 0),
                  5);
    inherited.add(fileUriOf(notMissed()));
    return library.write(joinPath(folder, "lantern/library.xspf")) &&
           sunday.write(joinPath(folder, "lantern/lists/Sunday.xspf")) &&
           inherited.write(joinPath(folder, "lantern/lists/From the old machine.xspf"));
}

/// The card's files by name, as its first survey will meet them.
std::vector<BytePath> cardFiles(const BytePath& folder) {
    std::vector<BytePath> names;
    for (const auto& file : fs::directory_iterator(joinPath(folder, "TERN/MUSIC"))) {
        names.push_back(file.path().filename().string());
    }
    std::ranges::sort(names);
    return names;
}

/// Relative, with carriage returns, one in another letter case, and some in a folder that the card once had.
bool writeTern(const BytePath& folder) {
    const auto names = cardFiles(folder);
    std::string bus = "\xEF\xBB\xBF#EXTM3U\r\n# made on the bus\r\n";
    std::string radio = "#EXTM3U\r\n";
    for (std::size_t i = 0; i < names.size(); ++i) {
        const auto title = stemOf(names[i]).substr(5);
        if (i < 12) {
            bus += fmt::format("#EXTINF:8,{}\r\n..\\{}\\{}\r\n", title, i == 3 ? "Music" : "MUSIC", names[i]);
        } else if (i >= names.size() - 6) {
            radio += fmt::format("#EXTINF:-1,{}\r\n../MUSIC/RINGERS/{}\r\n", title, names[i]);
        }
    }
    fs::create_directories(joinPath(folder, "TERN/LISTS"));
    std::ofstream(joinPath(folder, "TERN/LISTS/Bus ride.m3u8"), std::ios::binary) << bus;
    std::ofstream file(joinPath(folder, "TERN/LISTS/Ringers.m3u8"), std::ios::binary);
    file << radio;
    return static_cast<bool>(file);
}

} // namespace

BytePath notMissed() {
    return "/home/wilfred/Music/Jingles/Old jingle.mp3";
}

bool makePlayed(const BytePath& folder) {
    std::vector<Recorded> recorded;
    for (const auto& each : moved()) {
        recorded.push_back({each.piece, each.tags, joinPath(folder, each.before)});
    }
    std::uint32_t seed = 1040;
    for (const auto* path : namesakes) {
        recorded.push_back(
            {{Voice::brass, seed++, 5, 100}, tagsOf("Take Home", "Rehearsals", 0), joinPath(folder, path)});
    }
    return recordAll(recorded) && writeLantern(folder, repertoire()) && writeTern(folder);
}

bool letPlayersFallBehind(const BytePath& folder) {
    for (const auto& each : moved()) {
        const auto to = joinPath(folder, each.now);
        fs::create_directories(fs::path(to).parent_path());
        fs::rename(joinPath(folder, each.before), to);
    }
    fs::remove_all(joinPath(folder, "GANNET/Cassettes"));
    fs::remove_all(joinPath(folder, "GANNET/Evening classes"));
    return true;
}

Json namesakesTruth() {
    return Json::array({namesakes[0], namesakes[1]});
}

Json playersTruth() {
    const auto all = repertoire();
    Json links = Json::object();
    for (const auto& each : moved()) {
        links[each.before] = each.now;
    }
    // Three of this album were moved under other names: nobody can know where the old machine's went.
    for (const auto& recording : albumOf(all, 3)) {
        const bool found = recording.tags.track < 9 || recording.tags.track > 11;
        links[oldHomeOf(recording)] = found ? Json(homeOf(recording)) : Json();
    }
    return {{"players", {"lantern", "tern-player"}},
            {"links", links},
            {"ambiguous", {{"/home/wilfred/Recordings/Take Home.flac", namesakes}}},
            {"written_off", {notMissed()}},
            {"passing_places", 3},
            {"twice", 1},
            {"streams", 1}};
}

} // namespace sober::demo
