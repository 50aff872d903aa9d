// Audio inside archives, made by the tools that people make them with.
#include "support/mounts.h"
#include "support/run_program.h"
#include "support/small_audio.h"
#include "support/temp_folder.h"

#include <catch2/catch.hpp>

#include <filesystem>
#include <map>
#include <set>

using namespace sober;
using namespace sober::test;
using nlohmann::json;
namespace fs = std::filesystem;

namespace {

struct Packed : TempFolder {
    Packed() {
        writeFile(*this / "in/one.wav", smallWav(1));
        writeFile(*this / "in/f/two.wav", smallWav(2));
        writeFile(*this / "in/f/cover.txt", "no audio");
        fs::create_directories(*this / "V");
    }
    json ask(std::vector<std::string> words, std::vector<int> codes = {0}) const {
        words.insert(words.end(), {"--json", "--quiet"});
        const auto result = sober::test::sober(*this / "c.sqlite", words);
        INFO(result.out << result.err);
        REQUIRE(std::ranges::find(codes, result.code) != codes.end());
        return result.out.empty() ? json() : json::parse(result.out);
    }
    json survey(std::vector<std::string> more = {}) const {
        more.insert(more.begin(), {"survey", *this / "V"});
        return ask(more, {0, 3}); // with errors
    }
    /// A command line in a shell, in the folder that holds what is packed; $1 is the archive.
    BytePath pack(const std::string& name, const std::string& line) const {
        const auto archive = *this / ("V/" + name);
        const auto ran = run({"sh", "-c", "cd " + (*this / "in") + " && " + line, "sh", archive});
        INFO(ran.err);
        REQUIRE(ran.code == 0);
        return archive;
    }
    BytePath zip(const std::string& name = "a.zip") const {
        return pack(name, "python3 -m zipfile -c \"$1\" one.wav f");
    }
    /// Paths of what is present, below V.
    std::set<std::string> present() const {
        std::set<std::string> all;
        const auto found = ask({"find", "wav"});
        for (const auto& holding : found["holdings"]) {
            if (holding["state"] == "present") {
                all.insert(holding["path"].get<std::string>().substr((*this / "V/").size()));
            }
        }
        return all;
    }
    std::string errorsOf(const json& survey) const {
        std::string all;
        for (const auto& error : survey["errors"]) {
            all += error["error"].get<std::string>() + "\n";
        }
        return all;
    }
};

using Paths = std::set<std::string>;

/// A RAR 5 archive of stored files, by the format's published description (rarlab.com/technote.htm): Debian
/// has nothing free that packs one.
constexpr const char* packRar = R"(python3 - "$1" one.wav f/two.wav <<'END'
import sys, zlib
def vint(n):
    out = b''
    while n > 127:
        out, n = out + bytes([n & 127 | 128]), n >> 7
    return out + bytes([n])
def block(*fields):
    body = b''.join(f if isinstance(f, bytes) else vint(f) for f in fields)
    body = vint(len(body)) + body
    return zlib.crc32(body).to_bytes(4, 'little') + body
with open(sys.argv[1], 'wb') as out:
    out.write(b'Rar!\x1a\x07\x01\x00' + block(1, 0, 0))
    for name in sys.argv[2:]:
        data = open(name, 'rb').read()
        out.write(block(2, 2, len(data), 4, len(data), 0o100644, zlib.crc32(data).to_bytes(4, 'little'), 0, 1,
                        len(name), name.encode()) + data)
    out.write(block(5, 0, 0))
END)";

} // namespace

TEST_CASE("what lies in an archive is taken in as if it lay beside it, whatever packed it") {
    const std::map<std::string, std::string> lines{
        {"a.zip", "python3 -m zipfile -c \"$1\" one.wav f"},
        {"a.tar", "tar -cf \"$1\" one.wav f"},
        {"a.tar.gz", "tar -czf \"$1\" ./one.wav ./f"},
        {"a.tar.xz", "tar -cJf \"$1\" one.wav f"},
        {"a.tar.zst", "tar --zstd -cf \"$1\" one.wav f"},
        {"a.7z", "bsdtar -cf \"$1\" --format 7zip one.wav f"},
        {"a.ISO", "xorriso -as mkisofs -quiet -J -R -o \"$1\" one.wav -graft-points f=f"},
        {"a.rar", packRar},
        {"a.img", "truncate -s 4M \"$1\" && mkfs.fat \"$1\" >/dev/null && mcopy -i \"$1\" -s one.wav f ::"},
    };
    for (const auto& [name, line] : lines) {
        CAPTURE(name);
        const Packed all;
        writeFile(all / "V/two beside.wav", smallWav(2));
        const auto archive = all.pack(name, line);
        const auto bytes = readFile(archive);
        const auto first = all.survey({"--look-inside"});
        CHECK(first["added"] == 3);
        CHECK(first["errors"].empty());
        CHECK(all.present() == Paths{name + "!/one.wav", name + "!/f/two.wav", "two beside.wav"});
        const auto copies = all.ask({"copies"});
        REQUIRE(copies["sets"].size() == 1);
        CHECK(copies["sets"][0]["members"].size() == 2);
        CHECK(copies["sets"][0]["reclaimable_bytes"] == 0); // an archive stays as it is

        const auto again = all.survey(); // the choice is kept
        CHECK(again["unchanged"] == 3);
        CHECK(again["missing"] == 0);
        CHECK(again["added"] == 0);
        CHECK(readFile(archive) == bytes);
    }
}

TEST_CASE(
    "an archive that changes, moves or goes takes along what it holds; one not looked into is left out") {
    const Packed all;
    all.zip();
    all.survey();
    CHECK(all.present().empty());
    all.survey({"--look-inside"});
    CHECK(all.present().size() == 2);

    writeFile(all / "in/one.wav", smallWav(3));
    writeFile(all / "in/f/three.wav", smallWav(4));
    all.zip();
    auto told = all.survey();
    CHECK(told["changed"] == 1);
    CHECK(told["added"] == 1);
    CHECK(all.present().size() == 3);

    fs::rename(all / "V/a.zip", all / "V/b.zip");
    told = all.survey();
    CHECK(told["moved"] == 3);
    CHECK(told["missing"] == 0);
    CHECK(all.present() == Paths{"b.zip!/one.wav", "b.zip!/f/two.wav", "b.zip!/f/three.wav"});

    // Packed anew with other names within, it holds the same recordings; what is there twice by then is new
    // once.
    fs::rename(all / "in/one.wav", all / "in/f/first.wav");
    fs::rename(all / "in/f/three.wav", all / "in/f/third.wav");
    writeFile(all / "in/f/a third time.wav", smallWav(4));
    writeFile(all / "in/f/twofold.wav", smallWav(2));
    fs::remove(all / "V/b.zip");
    all.pack(
        "b.zip",
        "cd f && python3 -m zipfile -c \"$1\" first.wav third.wav 'a third time.wav' two.wav twofold.wav");
    told = all.survey();
    CHECK(told["moved"] == 3); // two.wav stood in a folder
    CHECK(told["added"] == 2);
    CHECK(told["missing"] == 0);
    CHECK(all.present() == Paths{"b.zip!/first.wav", "b.zip!/third.wav", "b.zip!/a third time.wav",
                                 "b.zip!/two.wav", "b.zip!/twofold.wav"});
    fs::remove(all / "V/b.zip");
    all.pack("b.zip", "cd f && python3 -m zipfile -c \"$1\" twofold.wav two.wav third.wav");
    told = all.survey();
    CHECK(told["moved"] == 0);
    CHECK(told["missing"] == 2);
    CHECK(all.present().size() == 3);

    told = all.survey({"--take-all"});
    CHECK(told["missing"] == 0);
    CHECK(all.present().empty());
    told = all.survey({"--look-inside"});
    CHECK(all.present().size() == 3);

    fs::remove(all / "V/b.zip");
    told = all.survey();
    CHECK(told["missing"] == 3);
}

TEST_CASE("what is broken, locked, nested or made to do harm in an archive costs a sentence") {
    const Packed all;
    SECTION("cut short: what came before is known, what came after is not missing") {
        const auto archive = all.pack("a.tar", "tar -cf \"$1\" one.wav f/two.wav");
        all.survey({"--look-inside"});
        fs::resize_file(archive, fs::file_size(archive) - 12'000);
        const auto told = all.survey();
        CHECK(all.errorsOf(told).find("cannot be unpacked") != std::string::npos);
        CHECK(told["missing"] == 0);
        CHECK(all.present().size() == 2);
        CHECK(all.errorsOf(all.survey()) == all.errorsOf(told)); // not read again, said again
    }
    SECTION("locked by a password") {
        all.pack("a.zip",
                 "bsdtar -cf \"$1\" --format zip --options zip:encryption=zipcrypt --passphrase x one.wav");
        CHECK(all.errorsOf(all.survey({"--look-inside"})).find("locked by a password") != std::string::npos);
        CHECK(all.present().empty());
    }
    SECTION("an archive in an archive") {
        all.pack("a.zip", "python3 -m zipfile -c b.zip one.wav && python3 -m zipfile -c \"$1\" b.zip f");
        CHECK(all.errorsOf(all.survey({"--look-inside"})).find("archive within an archive") !=
              std::string::npos);
        CHECK(all.present() == Paths{"a.zip!/f/two.wav"});
    }
    SECTION("one that unpacks to far more than it is") {
        const auto archive = all.pack("a.zip", R"(python3 - "$1" <<'END'
import sys, zipfile
head = open('one.wav', 'rb').read(44)
with zipfile.ZipFile(sys.argv[1], 'w', zipfile.ZIP_DEFLATED, compresslevel=1) as packed:
    with packed.open('silence.wav', 'w', force_zip64=True) as file:
        file.write(head)
        for _ in range(270):
            file.write(bytes(1 << 20))
END)");
        CHECK(fs::file_size(archive) < 2'500'000);
        CHECK(all.errorsOf(all.survey({"--look-inside"})).find("unpacks to more than") != std::string::npos);
        CHECK(all.present().empty());
    }
    SECTION("no room to unpack: it is come back to") {
        if (!canMount()) {
            WARN("not run: mounting needs root");
            return;
        }
        all.zip();
        TestMounts mounts;
        mounts.mount({"-t", "tmpfs", "-o", "size=4k", "tmpfs", all / "small"});
        const auto ran = run({"env", "TMPDIR=" + (all / "small"), SOBER_PROGRAM, "--catalogue",
                              all / "c.sqlite", "survey", all / "V", "--look-inside", "--json", "--quiet"});
        CHECK(all.errorsOf(json::parse(ran.out)).find("no space is left") != std::string::npos);
        CHECK(all.survey()["added"] == 2);
    }
    SECTION("named like one and none") {
        writeFile(all / "V/a.zip", "no archive");
        writeFile(all / "V/b.zip", smallWav(9));
        const auto told = all.survey({"--look-inside"});
        CHECK(all.errorsOf(told).find("cannot be opened as one") != std::string::npos);
        CHECK(all.ask({"find", "b.zip"})["count"] == 1);
    }
    SECTION("a folder that is called like the inside of one") {
        writeFile(all / "V/a.zip!/x.wav", smallWav(1));
        CHECK(all.errorsOf(all.survey({"--look-inside"})).find("Rename the folder") != std::string::npos);
    }
}

TEST_CASE("nothing inside an archive is changed; it is copied out, verified, and given back from") {
    const Packed all;
    const auto archive = all.zip();
    writeFile(all / "V/two.wav", smallWav(2));
    writeFile(all / "V/list.m3u8", "two.wav\n");
    all.survey({"--look-inside", "--effort", "full"});
    const auto bytes = readFile(archive);
    const auto inner = archive + "!/one.wav";
    CHECK(all.ask({"verify"})["checked"] == 3);
    CHECK(all.ask({"verify"})["drift"].empty());
    CHECK(all.ask({"examine", inner})["holdings"][0]["path"] == inner);

    // The copy to keep is the one of its own, and nothing is told to go.
    const auto copies = all.ask({"copies"});
    for (const auto& member : copies["sets"][0]["members"]) {
        const bool isInside = member["path"].get<std::string>().find("!/") != std::string::npos;
        CHECK(member["suggestion"] == (isInside ? "decide" : "keep"));
    }
    for (auto line :
         std::vector<std::vector<std::string>>{{"retire", inner}, {"move", inner, "--to", all / "V/x.wav"}}) {
        line.insert(line.begin(), {"docket", "add"});
        const auto docket = all.ask(line, {1});
        CHECK(docket["actions"][0]["refused"].get<std::string>().find("never written to") !=
              std::string::npos);
        all.ask({"docket", "carry-out"}, {1});
        all.ask({"docket", "clear"});
    }
    // What is held outside does not go because an archive holds it too.
    all.ask({"docket", "add", "retire", all / "V/two.wav"}, {0, 1});
    all.ask({"docket", "carry-out"}, {1});
    all.ask({"docket", "clear"});
    CHECK(fs::exists(all / "V/two.wav"));

    all.ask({"docket", "add", "copy", inner, "--to", all / "V/out.wav"});
    const auto copied = all.ask({"docket", "carry-out"});
    CHECK(copied["done"] == 1);
    CHECK(readFile(all / "V/out.wav") == smallWav(1));
    all.ask({"undo", copied["entry"]});
    CHECK_FALSE(fs::exists(all / "V/out.wav"));
    all.ask({"docket", "add", "copy", archive + "!", "--to", all / "V/album"});
    CHECK(all.ask({"docket", "carry-out"})["done"] == 2);
    CHECK(readFile(all / "V/album/f/two.wav") == smallWav(2));
    all.ask({"docket", "add", "copy", all / "V/album/one.wav", "--to", inner + "2"}, {1});
    all.ask({"docket", "carry-out"}, {1});
    all.ask({"docket", "clear"});
    fs::remove_all(all / "V/album");

    fs::remove(all / "V/two.wav");
    CHECK(all.survey()["missing"] == 3);
    all.ask({"docket", "add", "restore", all / "V/two.wav"});
    CHECK(all.ask({"docket", "carry-out"})["done"] == 1);
    CHECK(readFile(all / "V/two.wav") == smallWav(2));
    CHECK(readFile(archive) == bytes);
}

TEST_CASE(
    "a transfer leaves what lies inside archives and says so; a list for other tools names none of it") {
    const Packed all;
    all.zip();
    writeFile(all / "V/own.wav", smallWav(5));
    all.survey({"--look-inside"});
    fs::create_directories(all / "T");
    const auto plan = all.ask({"transfer", "plan", "--to", all / "T", "--volume", "V"});
    CHECK(plan["items"].size() == 1);
    REQUIRE(plan["not_coming"].size() == 2);
    CHECK(plan["not_coming"][0]["why"] == "inside-archive");
}
