#include "core/exchange/playlist.h"
#include "support/run_program.h"
#include "support/small_audio.h"
#include "support/temp_folder.h"

#include <catch2/catch.hpp>

#include <filesystem>

using namespace sober;
using namespace sober::test;

namespace {

std::vector<std::string> locationsOf(const Playlist& list) {
    std::vector<std::string> locations;
    for (const auto& entry : list.entries) {
        locations.push_back(entry.location);
    }
    return locations;
}

Playlist read(const std::string& text, const BytePath& name) {
    auto list = parsePlaylist(text, name);
    INFO((list ? std::string() : list.error().sentence));
    REQUIRE(list.ok());
    return *list;
}

std::string xspf(const std::string& tracks) {
    return "<?xml version=\"1.0\" encoding=\"UTF-8\"?>\n<playlist version=\"1\" "
           "xmlns=\"http://xspf.org/ns/0/\">\n"
           "  <trackList>\n" +
           tracks + "  </trackList>\n</playlist>\n";
}

} // namespace

TEST_CASE("lists of every kind are read, whatever writes them") {
    struct Row {
        std::string what;
        std::string name;
        std::string text;
        std::vector<std::string> locations;
    };
    const std::vector<Row> rows{
        {"plain M3U", "a.m3u", "one.mp3\nsub/two.mp3\n", {"one.mp3", "sub/two.mp3"}},
        {"without a last line end", "a.m3u", "one.mp3\ntwo.mp3", {"one.mp3", "two.mp3"}},
        {"CRLF, a mark and EXTINF",
         "a.m3u8",
         "\xEF\xBB\xBF#EXTM3U\r\n#EXTINF:123,Band - Tide\r\nC:\\Music\\tide.mp3\r\n",
         {"C:\\Music\\tide.mp3"}},
        {"comments, blank lines, doubles",
         "a.m3u",
         "# mine\n\none.mp3\n  \none.mp3\n#two.mp3\n",
         {"one.mp3", "one.mp3"}},
        {"Latin-1", "a.m3u", "Caf\xE9.mp3\n", {"Caf\xE9.mp3"}},
        {"a file: URI and a stream",
         "a.m3u8",
         "file:///m/a%20b.mp3\nhttp://example.org/x\n",
         {"file:///m/a%20b.mp3", "http://example.org/x"}},
        {"known by its beginning", "list.txt", "#EXTM3U\none.mp3\n", {"one.mp3"}},
        {"PLS",
         "a.pls",
         "[playlist]\nFile2=two.mp3\nTitle2=Two\nLength2=12\nFile1=one.mp3\nNumberOfEntries=2\nVersion=2\n",
         {"one.mp3", "two.mp3"}},
        {"PLS with other keys",
         "a.pls",
         "[playlist]\nfile1 = one.mp3\nFileX=no\nTitle9=lonely\n",
         {"one.mp3"}},
        {"XSPF",
         "a.xspf",
         xspf("<track><location>file:///m/a%20b.mp3</location><title>A &amp; B</title></track>"),
         {"file:///m/a%20b.mp3"}},
        {"XSPF with blanks and entities",
         "a.xspf",
         xspf("<track><location>\n  file:///m/a&amp;b.mp3\n</location></track>"),
         {"file:///m/a&b.mp3"}},
        {"XSPF in character data",
         "a.xspf",
         xspf("<track><location><![CDATA[file:///m/a.mp3]]></location></track>"),
         {"file:///m/a.mp3"}},
        {"several locations, identifiers, extensions",
         "a.xspf",
         xspf("<track><location>a.mp3</location><location>b.mp3</location><identifier>urn:x</identifier>"
              "<extension "
              "application=\"urn:y\"><z/></extension></track><track><title>nowhere</title></track>"),
         {"a.mp3"}},
        {"an empty list", "a.m3u8", "#EXTM3U\n", {}},
    };
    for (const auto& row : rows) {
        CAPTURE(row.what);
        const auto list = read(row.text, row.name);
        CHECK(locationsOf(list) == row.locations);
        // Each location can be told apart in the text, and written back it changes nothing.
        std::vector<NewLocation> same;
        for (std::size_t i = 0; i < list.entries.size(); ++i) {
            same.push_back({i, list.entries[i].location});
        }
        CHECK(withLocations(row.text, list, {}).value() == row.text);
        CHECK(withLocations(row.text, list, same).value() == row.text);
    }
}

TEST_CASE("titles and lengths are those that the list states") {
    const auto m3u = read("#EXTINF:123,Band - Tide\na.mp3\nb.mp3\n#EXTINF:-1,Radio\nhttp://x/\n", "a.m3u8");
    CHECK(m3u.entries[0].title == "Band - Tide");
    CHECK(m3u.entries[0].seconds == 123);
    CHECK(m3u.entries[1].title.empty());
    CHECK(m3u.entries[1].seconds == -1);
    CHECK(m3u.entries[2].seconds == -1);
    const auto pls = read("[playlist]\nFile1=a.mp3\nTitle1=Tide\nLength1=61\n", "a.pls");
    CHECK(pls.entries[0].title == "Tide");
    CHECK(pls.entries[0].seconds == 61);
    const auto tracks = read(
        xspf("<track><location>a</location><title>T</title><duration>2500</duration></track>"), "a.xspf");
    CHECK(tracks.entries[0].title == "T");
    CHECK(tracks.entries[0].seconds == 2.5);
}

TEST_CASE("a location is replaced and every other byte stays") {
    const std::string m3u =
        "\xEF\xBB\xBF#EXTM3U\r\n#EXTINF:1,x\r\nold.mp3\r\n\r\n# kept \xE9\r\nold.mp3\r\n  other.mp3 \r\n";
    const auto list = read(m3u, "a.m3u8");
    REQUIRE(list.entries.size() == 3);
    const std::vector<NewLocation> changes{{1, "new place/new.mp3"}, {2, "x"}};
    CHECK(withLocations(m3u, list, changes)
              .value() == "\xEF\xBB\xBF#EXTM3U\r\n#EXTINF:1,x\r\nold.mp3\r\n\r\n# kept \xE9\r\nnew "
                          "place/new.mp3\r\n  x\r\n"); // blanks at the end may belong to the name

    const auto text =
        xspf("<!-- kept --><track ><location>a.mp3</location><location>b.mp3</location></track>");
    const auto tracks = read(text, "a.xspf");
    const std::vector<NewLocation> change{{0, "file:///m/a&b%20c.mp3"}};
    const auto written = withLocations(text, tracks, change).value();
    CHECK(written ==
          xspf("<!-- kept --><track "
               "><location>file:///m/a&amp;b%20c.mp3</location><location>b.mp3</location></track>"));
    CHECK(read(written, "a.xspf").entries[0].location == "file:///m/a&b%20c.mp3");

    // The entries of a PLS list need not stand in their order.
    const std::string pls = "[playlist]\nFile2=two\nFile1=one\n";
    const std::vector<NewLocation> both{{0, "first"}, {1, "second"}};
    CHECK(withLocations(pls, read(pls, "a.pls"), both).value() == "[playlist]\nFile2=second\nFile1=first\n");

    for (const std::string bad : {"", "a\nb", "#a", " a", "a\r"}) {
        CAPTURE(bad);
        const std::vector<NewLocation> wrong{{0, bad}};
        CHECK_FALSE(withLocations(m3u, list, wrong).ok());
    }
}

TEST_CASE("what is no list is refused with a sentence, and bombs do not go off") {
    for (const auto& [name, text] : std::vector<std::pair<std::string, std::string>>{
             {"a.txt", "Sir, the fog signal was heard again.\n"},
             {"a.xspf", "<playlist"},
             {"a.xspf", "<html><body/></html>"},
             {"a.m3u", std::string("one.mp3\0two", 11)},
         }) {
        CAPTURE(name, text);
        const auto list = parsePlaylist(text, name);
        REQUIRE_FALSE(list.ok());
        CHECK(list.error().sentence.ends_with("."));
    }
    std::string bomb = "<?xml version=\"1.0\"?><!DOCTYPE l [<!ENTITY a0 \"x\">";
    for (int i = 1; i < 30; ++i) {
        bomb += "<!ENTITY a" + std::to_string(i) + " \"&a" + std::to_string(i - 1) + ";&a" +
                std::to_string(i - 1) + ";\">";
    }
    bomb += "<!ENTITY f SYSTEM "
            "\"file:///etc/passwd\">]><playlist><trackList><track><location>&a29;&f;</location></track>"
            "</trackList></playlist>";
    const auto list = parsePlaylist(bomb, "a.xspf");
    REQUIRE(list.ok());
    CHECK(list->entries.at(0).location == "&a29;&f;");

    const auto line = std::string(10'000'000, 'x');
    CHECK(read(line + "\n", "a.m3u").entries.at(0).location.size() == line.size());
    std::string many;
    for (int i = 0; i < 1'000'000; ++i) {
        many += "a.mp3\n";
    }
    CHECK(read(many, "a.m3u").entries.size() == 1'000'000);
}

// An independent reader: FFmpeg's concat and HLS demuxers do not read these lists; xmllint reads what is
// written of XSPF.
TEST_CASE("XSPF that was rewritten is well-formed for another parser, with the location that was meant") {
    const TempFolder folder;
    const auto text =
        xspf("<track><location>a.mp3</location></track><track><location>b.mp3</location></track>");
    const std::vector<NewLocation> change{{1, "file:///m/%3C%26%3E/a&b'c\".mp3"}};
    writeFile(folder / "a.xspf", withLocations(text, read(text, "a.xspf"), change).value());
    const auto out =
        run({"xmllint", "--xpath", "string((//*[local-name()='location'])[2])", folder / "a.xspf"});
    CHECK(out.code == 0);
    CHECK(out.out == "file:///m/%3C%26%3E/a&b'c\".mp3\n");
}
