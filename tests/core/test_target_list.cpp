// Lists as they are written for another place: every form, what stays of the source's text, and in which
// order files can be moved.
#include "core/transfer/move_order.h"
#include "core/transfer/target_list.h"

#include <catch2/catch.hpp>

#include <algorithm>

using namespace sober;

namespace {

ReadList listOf(const std::string& text, const BytePath& name) {
    auto parsed = parsePlaylist(text, name);
    REQUIRE(parsed.ok());
    return {text, std::move(*parsed), {}};
}

TargetEntry at(const BytePath& place, const std::string& title = "", const std::string& artist = "") {
    return {place, title, artist, "", 61.4};
}

const TargetEntry gone{std::nullopt, "", "", "", -1};

} // namespace

TEST_CASE("an M3U list keeps its comments and line ends; what does not come goes with its own lines") {
    const auto source = listOf("\xEF\xBB\xBF#EXTM3U\r\n# mine\r\n#EXTINF:1,A\r\na.mp3\r\n#EXTINF:2,B\r\n# "
                               "about b\r\nb.mp3\r\n#EXTINF:3,C\r\n"
                               "c.mp3\r\n# last\r\n",
                               "x.m3u");
    const std::vector<TargetEntry> entries{at("new/a.mp3"), gone, at("new/c.mp3")};
    CHECK(listAtTarget(source, entries, {}, true, "/card") ==
          "\xEF\xBB\xBF#EXTM3U\r\n# mine\r\n#EXTINF:1,A\r\nnew/a.mp3\r\n# about "
          "b\r\n#EXTINF:3,C\r\nnew/c.mp3\r\n# last\r\n");
    CHECK(listAtTarget(source, std::vector{gone, gone, gone}, {}, true, "/card") ==
          "\xEF\xBB\xBF#EXTM3U\r\n# mine\r\n# about b\r\n# last\r\n");
    // Without an end to its last line, and none that comes first.
    const auto bare = listOf("a.mp3\nb.mp3", "x.m3u8");
    CHECK(listAtTarget(bare, std::vector{gone, at("b.mp3")}, {}, false, "/card") == "/card/b.mp3");
    CHECK(listAtTarget(bare, std::vector{at("a.mp3"), gone}, {}, true, "/card") == "a.mp3\n");
}

TEST_CASE("an XSPF list keeps all but the tracks that do not come, and writes URIs") {
    const std::string head = "<?xml version=\"1.0\"?>\n<playlist version=\"1\" "
                             "xmlns=\"http://xspf.org/ns/0/\">\n<title>T</title>\n<trackList>\n";
    const std::string foot = "\n</trackList>\n</playlist>\n";
    const auto source =
        listOf(head +
                   "<track><location>file:///a.mp3</location><annotation>x</annotation></track>\n"
                   "<track><location>file:///b.mp3</location></track>" +
                   foot,
               "x.xspf");
    CHECK(listAtTarget(source, std::vector{at("B & C/a b.mp3"), gone}, {}, false, "/card") ==
          head +
              "<track><location>file:///card/B%20%26%20C/a%20b.mp3</location><annotation>x</annotation></"
              "track>" +
              foot);
    CHECK(listAtTarget(source, std::vector{gone, at("b.mp3")}, {}, true, "/card") ==
          head.substr(0, head.size() - 1) + "\n<track><location>b.mp3</location></track>" + foot);
}

TEST_CASE("a list in another form says titles, lengths and places as its player wants them") {
    const auto source =
        listOf("[playlist]\nFile1=a.mp3\nTitle1=One\nFile2=b.mp3\nNumberOfEntries=2\n", "x.pls");
    const std::vector<TargetEntry> entries{at("f/a.mp3", "One", "Ann"), at("#b.mp3")};
    ListWay way;
    way.format = PlaylistFormat::m3u;
    CHECK(listAtTarget(source, entries, way, true, "/card") ==
          "#EXTM3U\n#EXTINF:61,Ann - One\nf/a.mp3\n./#b.mp3\n");
    way = {PlaylistFormat::pls, ListWay::Places::prefixed, "D:\\Music"};
    CHECK(listAtTarget(source, entries, way, false, "/card") ==
          "[playlist]\nFile1=D:\\Music\\f\\a.mp3\nTitle1=Ann - "
          "One\nLength1=61\nFile2=D:\\Music\\#b.mp3\nLength2=61\n"
          "NumberOfEntries=2\nVersion=2\n");
    way.format = PlaylistFormat::xspf;
    CHECK(listAtTarget(source, entries, way, false, "/card")
              .find("<location>file:///D:/Music/f/a.mp3</location>") != std::string::npos);
    // What no line can hold is said as a URI.
    CHECK(newList(std::vector{at("a\nb.mp3")}, PlaylistFormat::m3u, {}, true, "/card") ==
          "#EXTM3U\nfile:///card/a%0Ab.mp3\n");
}

TEST_CASE("files are moved in an order in which each finds its place free") {
    using Places = std::vector<std::pair<BytePath, BytePath>>;
    const auto order =
        orderOfMoves(Places{{"a", "b"}, {"b", "c"}, {"x", "y"}, {"p", "q"}, {"q", "p"}, {"c", "d"}});
    REQUIRE(order.first.size() == 4);
    const auto place = [&](std::size_t who) {
        return std::ranges::find(order.first, who) - order.first.begin();
    };
    CHECK(place(5) < place(1));
    CHECK(place(1) < place(0));
    REQUIRE(order.rounds.size() == 1);
    CHECK(order.rounds.front() == std::vector<std::size_t>{3, 4});
    CHECK(orderOfMoves(Places{{"a", "a"}}).first == std::vector<std::size_t>{0});
    CHECK(orderOfMoves(Places{{"a", "b"}, {"b", "c"}, {"c", "a"}}).rounds.front().size() == 3);
    CHECK(orderOfMoves({}).first.empty());
}
