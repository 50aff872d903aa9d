#include "core/evidence/byte_difference.h"
#include "core/exchange/checksum_list.h"
#include "support/collection.h"
#include "support/run_program.h"
#include "support/small_audio.h"

#include <catch2/catch.hpp>

#include <filesystem>

using namespace sober;
using namespace sober::test;

namespace {

/// Runs a tool of coreutils in a folder, its output into a file there.
void listBy(const std::string& tool, const BytePath& folder, const BytePath& to,
            const std::string& options = "") {
    const auto made =
        run({"sh", "-c", "cd \"$1\" && " + tool + " " + options + " -- *.wav > \"$2\"", "sh", folder, to});
    REQUIRE(made.code == 0);
}

/// Files with every name that a list has to escape.
struct Folder : TempFolder {
    Folder() {
        for (const BytePath name :
             {"a.wav", "with space.wav", "back\\slash.wav", "new\nline.wav", "not \xFF utf8.wav"}) {
            writeFile(*this / ("f/" + name), smallWav(static_cast<std::uint32_t>(name.size())));
        }
    }
    BytePath files() const { return *this / "f"; }
};

ChecksumList parsed(const BytePath& path) {
    const auto list = parseChecksumList(readFile(path), path);
    REQUIRE(list.ok());
    return *list;
}

} // namespace

TEST_CASE("lists that coreutils writes are understood, whichever the checksum and form") {
    struct Row {
        std::string tool, options;
        ListedChecksum kind;
    };
    const auto row = GENERATE(values<Row>({{"md5sum", "", ListedChecksum::md5},
                                           {"sha1sum", "", ListedChecksum::sha1},
                                           {"sha256sum", "", ListedChecksum::sha256},
                                           {"sha256sum", "--binary", ListedChecksum::sha256},
                                           {"sha256sum", "--tag", ListedChecksum::sha256},
                                           {"sha512sum", "", ListedChecksum::sha512},
                                           {"b2sum", "", ListedChecksum::blake2b},
                                           {"b2sum", "--tag", ListedChecksum::blake2b}}));
    CAPTURE(row.tool, row.options);
    const Folder folder;
    const BytePath list = folder / ("list." + row.tool);
    listBy(row.tool, folder.files(), list, row.options);
    const auto read = parsed(list);
    CHECK(read.kind == row.kind);
    CHECK(read.files.size() == 5);
    CHECK(read.problems.empty());
    RunControl control;
    CHECK(checkAgainst(read, folder.files(), control).good == 5);

    // And ours by theirs.
    writeFile(folder / "ours", checksumListText(read.kind, read.files));
    const auto checked = run({"sh", "-c", "cd \"$1\" && " + row.tool + " --strict --check \"$2\"", "sh",
                              folder.files(), folder / "ours"});
    INFO(checked.err);
    CHECK(checked.code == 0);
}

TEST_CASE("what differs, is missing or cannot be read is told apart") {
    const Folder folder;
    listBy("sha256sum", folder.files(), folder / "list");
    auto content = readFile(folder / "f/a.wav");
    content.back() = static_cast<char>(content.back() ^ 1);
    writeFile(folder / "f/a.wav", content);
    std::filesystem::remove(folder / "f/with space.wav");
    std::filesystem::remove(folder / "f/back\\slash.wav");
    std::filesystem::create_directory(folder / "f/back\\slash.wav");
    RunControl control;
    const auto check = checkAgainst(parsed(folder / "list"), folder.files(), control);
    CHECK(check.good == 2);
    CHECK(check.differing == std::vector<BytePath>{"a.wav"});
    CHECK(check.missing == std::vector<BytePath>{"with space.wav"});
    CHECK(check.unreadable.size() == 1);
    control.cancel();
    CHECK(checkAgainst(parsed(folder / "list"), folder.files(), control).interrupted);
}

TEST_CASE("SFV and published values") {
    const TempFolder folder;
    // CRC-32 of "123456789" is cbf43926: the check value of the catalogue of parametrised CRC algorithms. MD5
    // of "abc": RFC 1321, A.5. SHA-256 of "abc": FIPS 180-4, as NIST's examples give it.
    writeFile(folder / "nine", "123456789");
    writeFile(folder / "abc", "abc");
    RunControl control;
    CHECK(*checksumOfFile(folder / "nine", ListedChecksum::crc32, control) == "cbf43926");
    CHECK(*checksumOfFile(folder / "abc", ListedChecksum::md5, control) ==
          "900150983cd24fb0d6963f7d28e17f72");
    CHECK(*checksumOfFile(folder / "abc", ListedChecksum::sha256, control) ==
          "ba7816bf8f01cfea414140de5dae2223b00361a396177a9cb410ff61f20015ad");
    const auto list =
        parseChecksumList("; made by hand\r\nnine CBF43926\r\nsub\\abc   352441C2\r\n", "x.sfv");
    REQUIRE(list.ok());
    REQUIRE(list->files.size() == 2);
    CHECK(list->files[1].path == "sub/abc");
    CHECK(checkAgainst(*list, folder.path(), control).good == 1);
}

TEST_CASE("lines that cannot be trusted are problems, never files") {
    const std::string hash(64, 'a');
    struct Row {
        std::string line, says;
    };
    const auto row = GENERATE_COPY(values<Row>({
        {hash + "  /etc/passwd", "absolute"},
        {hash + "  C:\\music\\a.wav", "absolute"},
        {hash + "  ../a.wav", "leaves"},
        {hash + "  x/../../a.wav", "leaves"},
        {hash + "  good.wav", "second time"},
        {hash + " a.wav", "no sense"},
        {"\\" + hash + "  bad\\escape", "no sense"},
        {"zz" + hash.substr(2) + "  a.wav", "no sense"},
        {hash.substr(1) + "  a.wav", "no sense"},
        {std::string(32, 'a') + "  a.wav", "another kind"},
        {"plain words", "no sense"},
    }));
    const auto list = parseChecksumList(hash + "  good.wav\n# a comment\n\n" + row.line + "\n", "list");
    REQUIRE(list.ok());
    CAPTURE(row.line);
    CHECK(list->files.size() == 1);
    REQUIRE(list->problems.size() == 1);
    CHECK(list->problems.front().line == 4);
    CHECK(list->problems.front().sentence.find(row.says) != std::string::npos);
    CHECK(parseChecksumList("", "empty").error().cause == Cause::invalid);
}

TEST_CASE("a list of a volume is accepted by coreutils, and checked by the command") {
    Collection collection;
    writeFile(collection / "V/x/new\nline.wav", smallWav(1));
    writeFile(collection / "V/b.wav", smallWav(2));
    collection.survey("V");
    std::string text;
    collection.whileClosed([&] {
        text = sober::test::sober(collection.cataloguePath(), {"list", "write", collection / "V"}).out;
        writeFile(collection / "V/list.sha256", text);
        CHECK(sober::test::sober(collection.cataloguePath(), {"list", "check", collection / "V/list.sha256"})
                  .code == 0);
        const auto below = sober::test::sober(collection.cataloguePath(),
                                              {"list", "write", collection / "V/x", "--kind", "md5"});
        CHECK(below.out.find("  new\\nline.wav") != std::string::npos);
    });
    const auto checked =
        run({"sh", "-c", "cd \"$1\" && sha256sum --strict --check list.sha256", "sh", collection / "V"});
    INFO(checked.out << checked.err);
    CHECK(checked.code == 0);
}

TEST_CASE("the first difference of two files is found, with what stands around it") {
    const TempFolder folder;
    std::string content(3000, 'a');
    writeFile(folder / "one", content);
    struct Row {
        std::size_t at, from;
        std::uint64_t begins;
    };
    const auto row =
        GENERATE(values<Row>({{0, 0, 0}, {5, 0, 0}, {100, 0, 80}, {2999, 1000, 1000 + 1984 - 16}}));
    content[row.at] = 'b';
    writeFile(folder / "two", content);
    const auto found = firstDifference(folder / "one", folder / "two", row.from);
    REQUIRE((found.ok() && found->has_value()));
    CHECK((*found)->at == row.at);
    CHECK((*found)->begins == row.begins);
    CHECK((*found)->second[row.at - row.begins] == 'b');
    writeFile(folder / "two", content.substr(0, row.at));
    CHECK((*firstDifference(folder / "one", folder / "two", row.from))->at == row.at);
    CHECK_FALSE(firstDifference(folder / "one", folder / "one", row.from)->has_value());
    CHECK_FALSE(firstDifference(folder / "one", folder / "none", 0).ok());
}
