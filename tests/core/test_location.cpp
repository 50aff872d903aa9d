#include "core/players/location.h"
#include "support/run_program.h"

#include <catch2/catch.hpp>

using namespace sober;
using namespace sober::test;

namespace {

const BytePath folder = "/media/card/lists";

} // namespace

TEST_CASE("a location leads where its writer meant, whatever he wrote") {
    struct Row {
        std::string location;
        bool asUri;
        LocationKind kind;
        std::vector<BytePath> paths;
        bool relative = false;
    };
    using enum LocationKind;
    const std::vector<Row> rows{
        {"/m/a.mp3", false, file, {"/m/a.mp3"}},
        {"a.mp3", false, file, {"/media/card/lists/a.mp3"}, true},
        {"../Music/./a.mp3", false, file, {"/media/card/Music/a.mp3"}, true},
        {"../../../../../x", false, file, {"/x"}, true},
        {"..\\Music\\a.mp3",
         false,
         file,
         {"/media/card/Music/a.mp3", "/media/card/lists/..\\Music\\a.mp3"},
         true},
        {"\\Music\\a.mp3", false, file, {"/Music/a.mp3", "/\\Music\\a.mp3"}},
        {"100%25.mp3", false, file, {"/media/card/lists/100%25.mp3", "/media/card/lists/100%.mp3"}, true},
        {"50% off.mp3", false, file, {"/media/card/lists/50% off.mp3"}, true},
        {"Caf\xE9.mp3",
         false,
         file,
         {"/media/card/lists/Caf\xE9.mp3", "/media/card/lists/Caf\xC3\xA9.mp3"},
         true},
        {"Live: at the pier.mp3", false, file, {"/media/card/lists/Live: at the pier.mp3"}, true},
        {"C:\\Music\\a.mp3", false, foreign, {"C:/Music/a.mp3"}},
        {"d:/Music/a.mp3", false, foreign, {"d:/Music/a.mp3"}},
        {"\\\\server\\share\\a.mp3", false, foreign, {"//server/share/a.mp3"}},
        {"file:///m/a%20b.mp3", false, file, {"/m/a b.mp3"}},
        {"FILE://localhost/m/a.mp3", true, file, {"/m/a.mp3"}},
        {"file:/m/a.mp3", true, file, {"/m/a.mp3"}},
        {"file:///m/%00%zz%e", true, file, {"/m/%00%zz%e"}},
        {"file:///C:/Music/a%20b.mp3", true, foreign, {"C:/Music/a b.mp3"}},
        {"file://server/share/a.mp3", true, foreign, {"//server/share/a.mp3"}},
        {"a%20b/%C3%A9.mp3", true, file, {"/media/card/lists/a b/\xC3\xA9.mp3"}, true},
        {"http://example.org/stream", false, stream, {}},
        {"urn:x", true, stream, {}},
        {"mms://example.org/x", false, stream, {}},
    };
    for (const auto& row : rows) {
        CAPTURE(row.location);
        const auto meaning = meaningOf(row.location, row.asUri, folder);
        CHECK(meaning.kind == row.kind);
        CHECK(meaning.paths == row.paths);
        CHECK(meaning.relative == row.relative);
    }
}

// Python's urllib, an independent implementation of RFC 3986, decodes what is encoded.
TEST_CASE("file URIs hold every byte of a path, and lead back to it") {
    for (const BytePath path :
         {"/m/a.mp3", "/m/A b&c<d>\"e'.mp3", "/m/100%.mp3", "/m/\xC3\xA9\xFF\n.mp3", "/m/#?;~_-.mp3", "/"}) {
        CAPTURE(path);
        const auto uri = fileUriOf(path);
        CHECK(uri.find_first_of(" \"<>\n\xFF") == std::string::npos);
        CHECK(meaningOf(uri, true, folder).paths == std::vector<BytePath>{path});
        const auto decoded = run(
            {"python3", "-c",
             "import sys, urllib.parse as u; sys.stdout.buffer.write(u.unquote_to_bytes(sys.argv[1]))", uri});
        CHECK(decoded.out == "file://" + path);
    }
}
