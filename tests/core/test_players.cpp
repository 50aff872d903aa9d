#include "core/audit/reference_findings.h"
#include "core/players/list_rewriting.h"
#include "support/player_collection.h"
#include "support/small_audio.h"

#include <catch2/catch.hpp>

#include <filesystem>
#include <unistd.h>

using namespace sober;
using namespace sober::test;
namespace fs = std::filesystem;

namespace {

std::vector<ReferenceState> statesOf(PlayerCollection& collection) {
    std::vector<ReferenceState> states;
    const auto references = PlayerStore(collection.catalogue()).references();
    std::ranges::transform(*references, std::back_inserter(states), &Reference::state);
    return states;
}

/// Troubles as "kind: file".
std::vector<std::string> troublesOf(PlayerCollection& collection) {
    std::vector<std::string> all;
    const auto found = referenceFindings(collection.catalogue());
    REQUIRE(found.ok());
    for (const auto& each : *found) {
        all.push_back(std::string(word(each.trouble)) + ": " + std::string(nameOf(each.reference.path)));
    }
    std::ranges::sort(all);
    return all;
}

} // namespace

TEST_CASE("a player's lists are taken in with what each entry leads to") {
    using enum ReferenceState;
    PlayerCollection collection;
    writeFile(collection / "V/S\xC3\xA9r\xC3\xA9nade.wav", smallWav(1)); // composed
    writeFile(collection / "V/b.wav", smallWav(2));
    writeFile(collection / "V/100%.wav", smallWav(3));
    collection.survey("V");
    const struct {
        std::string line;
        ReferenceState state;
    } rows[] = {{"../V/b.wav", resolved},
                {collection / "V/b.wav", resolved},
                {"file://" + collection / "V/b.wav", resolved},
                {"..\\V\\b.wav", resolved},
                {"../V/B.WAV", loosely},
                {"../V/Se\xCC\x81re\xCC\x81nade.wav", loosely}, // decomposed
                {"../V/100%25.wav", broken},
                {"../V", broken},
                {"C:\\Music\\b.wav", broken},
                {"../W/b.wav", broken},
                {"http://example.org/live", stream}};
    std::vector<std::string> lines;
    std::vector<ReferenceState> expected;
    for (const auto& row : rows) {
        lines.push_back(row.line);
        expected.push_back(row.state);
    }
    writeFile(collection / "L/all.m3u8", m3u(lines));
    writeFile(collection / "L/notes.txt", "no list");
    const auto player = collection.addPlayer("one", "L");
    CHECK(player.name == "one");
    CHECK(statesOf(collection) == expected);
    const auto figures = collection.figures("one");
    CHECK(figures.lists == 1);
    CHECK(figures.references == 10);
    CHECK(figures.resolved == 4);
    CHECK(figures.broken == 6);
    CHECK(figures.loosely == 2);
    CHECK(figures.streams == 1);
    const auto references = PlayerStore(collection.catalogue()).references();
    CHECK(references->front().holding == collection.holding("V", "b.wav")->id);
    CHECK(references->front().content == collection.holding("V", "b.wav")->checksum);

    // A player that ignores letter case finds what it wrote.
    collection.addPlayer("one", "L", true);
    CHECK(collection.figures("one").resolved == 6);

    // What changed is read again, what is gone is forgotten, what is taken in twice is one player.
    writeFile(collection / "L/all.m3u8", m3u({"../V/b.wav"}));
    CHECK(collection.read().read == 1);
    CHECK(collection.read().read == 0);
    CHECK(collection.figures("one").references == 1);
    collection.addPlayer("", "L");
    CHECK(PlayerStore(collection.catalogue()).all()->size() == 1);
    fs::remove(collection / "L/all.m3u8");
    collection.read();
    CHECK(PlayerStore(collection.catalogue()).lists()->empty());
    CHECK(PlayerStore(collection.catalogue()).references()->empty());
}

TEST_CASE("a link in a list whose file has gone counts as the place of that, and is relinked from there") {
    PlayerCollection collection;
    writeFile(collection / "V/f/a.wav", smallWav(1));
    collection.survey("V");
    fs::create_directories(collection / "L");
    fs::create_symlink("../V/f/a.wav", collection / "L/relative.wav");
    fs::create_symlink(collection / "V/f/a.wav", collection / "L/absolute.wav");
    fs::create_symlink("round.wav", collection / "L/round.wav");
    writeFile(collection / "L/all.m3u8", m3u({"relative.wav", "absolute.wav", "round.wav"}));
    collection.addPlayer("one", "L");
    CHECK(collection.figures("one").resolved == 2);

    fs::rename(collection / "V/f/a.wav", collection / "V/b.wav");
    collection.survey("V");
    collection.read();
    const auto references = *PlayerStore(collection.catalogue()).references();
    REQUIRE(references.size() == 3);
    CHECK(references[0].state == ReferenceState::broken);
    CHECK(references[0].path == collection / "V/f/a.wav");
    CHECK(references[1].path == collection / "V/f/a.wav");
    CHECK(references[2].path == collection / "L/round.wav");

    collection.plan(ActionKind::repoint, collection / "V/f/a.wav", collection / "V/b.wav");
    const auto carried = collection.carryOutAll();
    CHECK(carried.refused.empty());
    CHECK(carried.references == 2);
    CHECK(readFile(collection / "L/all.m3u8") == m3u({"../V/b.wav", "../V/b.wav", "round.wav"}));
    CHECK(collection.figures("one").resolved == 2);
}

TEST_CASE("what is no list, is gone or is empty makes a sentence and no player") {
    PlayerCollection collection;
    writeFile(collection / "V/a.wav", smallWav(1));
    fs::create_directories(collection / "empty");
    writeFile(collection / "L/rubbish.m3u", std::string("\x00\x01\x02 rubbish", 12));
    writeFile(collection / "L/bomb.xspf", "<!DOCTYPE x [<!ENTITY a \"aaaa\"><!ENTITY b "
                                          "\"&a;&a;&a;\">]><playlist><trackList><track><location>&b;"
                                          "</location></track></trackList></playlist>");
    RunControl control;
    for (const auto* place : {"V/a.wav", "empty", "nowhere"}) {
        CAPTURE(place);
        Player player;
        player.places = {collection / place};
        CHECK_FALSE(takeInPlayer(collection.catalogue(), player, control).ok());
    }
    CHECK(PlayerStore(collection.catalogue()).all()->empty());
    // A folder with one list that cannot be read is a player with a problem; the rest of it counts.
    writeFile(collection / "L/good.m3u", m3u({"../V/a.wav"}));
    collection.addPlayer("mixed", "L");
    const auto lists = PlayerStore(collection.catalogue()).lists();
    CHECK(std::ranges::count_if(*lists, [](const ListFile& list) { return !list.problem.empty(); }) == 1);
    CHECK(collection.figures("mixed").resolved == 1);
}

TEST_CASE("a device's own root and another machine's prefix stand for a folder here") {
    PlayerCollection collection;
    writeFile(collection / "V/Music/a.wav", smallWav(1));
    writeFile(collection / "V/Music/b.wav", smallWav(2));
    collection.survey("V");
    writeFile(collection / "V/Lists/root.m3u", m3u({"/Music/a.wav", "\\Music\\b.wav"}));
    const auto device = collection.addPlayer("device", "V/Lists");
    CHECK(device.writtenPrefix == "/");
    CHECK(device.standsFor == collection / "V");
    CHECK(collection.figures("device").resolved == 2);

    writeFile(collection / "L/other.m3u", m3u({"C:\\Audio\\a.wav", "c:/audio/b.wav", "D:\\Audio\\a.wav"}));
    collection.addPlayer(Player{0, "other", {collection / "L"}, false, "C:/Audio", collection / "V/Music"});
    CHECK(collection.figures("other").resolved == 2);
    CHECK(collection.figures("other").broken == 1);
}

TEST_CASE("a list is rewritten in its own way, and only where it must") {
    PlayerCollection collection;
    writeFile(collection / "V/new/a b.wav", smallWav(1));
    collection.survey("V");
    const BytePath old = collection / "V/old/a b.wav";
    const BytePath target = collection / "V/new/a b.wav";
    const auto uri = [](const BytePath& path) { return fileUriOf(path); };
    const struct {
        std::string name;
        std::string before;
        std::string after;
    } rows[] = {
        {"relative.m3u", "../V/old/a b.wav", "../V/new/a b.wav"},
        {"absolute.m3u8", old, target},
        {"backslashes.m3u", "..\\V\\old\\a b.wav", "..\\V\\new\\a b.wav"},
        {"uri.m3u", uri(old), uri(target)},
        {"uri.pls", uri(old), uri(target)},
        {"absolute.xspf", uri(old), uri(target)},
        {"relative.xspf", "../V/old/a%20b.wav", "../V/new/a%20b.wav"},
        {"quoted.cue", "../V/old/a b.wav", "../V/new/a b.wav"},
    };
    const auto listOf = [](const std::string& name, const std::string& location) {
        const auto ending = endingOf(name);
        return ending == "xspf"
                   ? "<?xml version=\"1.0\"?>\n<playlist version=\"1\" "
                     "xmlns=\"http://xspf.org/ns/0/\"><trackList>\n <track><!-- x --><location>" +
                         location + "</location><odd:x xmlns:odd=\"urn:odd\"/></track></trackList></playlist>"
               : ending == "pls"
                   ? "[playlist]\r\nFile1=" + location + "\r\nTitle1=kept\r\nNumberOfEntries=1\r\n"
               : ending == "cue"
                   ? "REM kept\nFILE \"" + location + "\" WAVE\n  TRACK 01 AUDIO\n"
                   : "\xEF\xBB\xBF#EXTM3U\r\n#EXTINF:1,x\r\n#kept\r\n" + location + "\r\n" + location;
    };
    for (const auto& row : rows) {
        CAPTURE(row.name);
        const BytePath path = collection / ("L/" + row.name);
        writeFile(path, listOf(row.name, row.before));
        const auto read = readList(path);
        REQUIRE(read.ok());
        ListFile list;
        list.path = path;
        list.asUri = read->playlist.format == PlaylistFormat::xspf;
        Resolver resolver({});
        const auto volumes = Volumes(collection.catalogue()).all();
        const auto rewritten =
            rewrittenList(list, *read, contextOf(list, {}), resolver, *volumes, {{old, target}});
        REQUIRE(rewritten.ok());
        CHECK(rewritten->unreachable.empty());
        CHECK(rewritten->text == listOf(row.name, row.after));
        CHECK(rewritten->changes.front().before == row.before);
        CHECK(rewritten->changes.front().after == row.after);
        // Nothing that leads elsewhere is touched.
        const auto same =
            rewrittenList(list, *read, contextOf(list, {}), resolver, *volumes, {{target, old}});
        CHECK(same->text == read->text);
    }
}

TEST_CASE("references that work today and will not last, or lead to the wrong copy, are told") {
    PlayerCollection collection;
    writeFile(collection / "V/Music/a.wav", smallWav(1));
    writeFile(collection / "V/Downloads/a.wav", smallWav(1));
    writeFile(collection / "V/Desktop/b.wav", smallWav(2));
    writeFile(collection / "V/plain.wav", smallWav(3));
    collection.survey("V");
    const Findings findings(collection.catalogue());
    writeFile(collection / "L/x.m3u8",
              m3u({"../V/Music/a.wav", "../V/Downloads/a.wav", "../V/desktop/b.wav", "../V/Desktop/b.wav",
                   "../V/plain.wav", "../V/plain.wav", "http://x/y"}));
    collection.addPlayer("one", "L", true);
    CHECK(troublesOf(collection) ==
          std::vector<std::string>{"passing-place: a.wav", "passing-place: b.wav", "passing-place: b.wav",
                                   "resolves-loosely: b.wav", "twice: b.wav", "twice: plain.wav"});
    // The list of places can be edited.
    REQUIRE(PlayerStore(collection.catalogue()).setPassingPlaces(std::vector<std::string>{"*/music/*"}).ok());
    CHECK(troublesOf(collection).front() == "passing-place: a.wav");
    CHECK(PlayerStore(collection.catalogue()).inNoList()->empty());
    writeFile(collection / "V/unheard.wav", smallWav(9));
    collection.survey("V");
    CHECK(*PlayerStore(collection.catalogue()).inNoList() ==
          std::vector{collection.holding("V", "unheard.wav")->id});
}

TEST_CASE("places that do not last, by where they are") {
    const std::vector<std::string> patterns{"*/downloads/*", "/media/*"};
    Volume volume;
    volume.root = "/media/ann/GANNET";
    const std::vector<Volume> volumes{volume};
    const struct {
        BytePath path;
        bool passing;
    } rows[] = {{"/home/ann/Downloads/x.mp3", true},
                {"/home/ann/music/x.mp3", false},
                {"/home/bob/music/x.mp3", true},
                {"/media/ann/STICK/x.mp3", true},
                {"/media/ann/GANNET/x.mp3", false}, // a volume that is catalogued
                {"/media/ann/GANNET/Downloads/x.mp3", true},
                {"/srv/x.mp3", false}};
    for (const auto& row : rows) {
        CAPTURE(row.path);
        CHECK(whyPassing(row.path, volumes, patterns, "/home/ann").has_value() == row.passing);
    }
}
