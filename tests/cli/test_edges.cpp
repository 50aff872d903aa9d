// The command at its edges: what cannot be written out, wrong values, single lines of the docket, choices,
// names.
#include "core/base/file_handle.h"
#include "support/mounts.h"
#include "support/run_program.h"
#include "support/small_audio.h"
#include "support/temp_folder.h"

#include <sys/stat.h>

#include <filesystem>
#include <fstream>
#include <unistd.h>

using namespace sober;
using namespace sober::test;
using nlohmann::json;
namespace fs = std::filesystem;

namespace {

/// Two copies and a single file, surveyed.
struct Small : TempFolder {
    Small() {
        writeFile(*this / "V/a.wav", smallWav(1));
        writeFile(*this / "V/b.wav", smallWav(1));
        writeFile(*this / "V/only.wav", smallWav(2));
        REQUIRE(say({"survey", *this / "V"}).code == 0);
    }
    ProgramRun say(const std::vector<std::string>& words) const {
        return sober::test::sober(*this / "c.sqlite", words);
    }
    json ask(std::vector<std::string> words, int code = 0) const {
        words.emplace_back("--json");
        const auto result = say(words);
        INFO(result.out << result.err);
        CHECK(result.code == code);
        return json::parse(result.out);
    }
    /// The same with its output into a device that is always full.
    ProgramRun sayIntoFull(const std::string& words) const {
        return run({"sh", "-c",
                    std::string(SOBER_PROGRAM) + " --catalogue " + (*this / "c.sqlite") + " " + words +
                        " > /dev/full"});
    }
};

bool holds(const std::string& text, const std::string& part) {
    INFO(text);
    return text.find(part) != std::string::npos;
}

} // namespace

TEST_CASE("output that could not be written is a failure with a sentence") {
    const Small small;
    for (const std::string words : {"copies", "copies --json", "condition --json", "ledger --premis",
                                    "docket", "ledger 1", "players"}) {
        CAPTURE(words);
        const auto result = small.sayIntoFull(words);
        CHECK(result.code == 1);
        CHECK(holds(result.err, "could not be written: No space left on device"));
    }
    const auto list = small.sayIntoFull("list write " + (small / "V"));
    CHECK(list.code == 1);
}

TEST_CASE("wrong values get the sentence that is meant for them") {
    const Small small;
    struct Row {
        std::vector<std::string> words;
        const char* says;
    };
    const auto row = GENERATE(values<Row>({
        {{"survey", "/tmp", "--depth", "-3"}, "--depth counts folders"},
        {{"survey", "/tmp", "--min-size", "9", "--max-size", "5"}, "--min-size is above --max-size"},
        {{"survey", "/tmp", "--min-size", "-1"}, "numbers of bytes"},
        {{"verify", "--slowly", "0"}, "megabytes a second, above 0"},
        {{"verify", "--slowly", "-2"}, "megabytes a second, above 0"},
        {{"frobnicate"}, "There is no command \"frobnicate\""},
        {{"--quiet", "surveys", "/tmp"}, "There is no command \"surveys\""},
        {{"docket", "add", "suggested", "--consent"}, "never for many at once"},
        {{"docket", "add", "retire", "/a", "/b", "--consent"}, "never for many at once"},
        {{"docket", "add", "move", "/a", "/b", "--to", "/nowhere/at/all"}, "is no folder"},
        {{"docket", "remove"}, "ACTION"},
        {{"ledger", "yesterday"}, "is no entry"},
        {{"undo", "yesterday"}, "lists it, or \"last\""},
    }));
    const auto result = small.say(row.words);
    CHECK(result.code == 2);
    CHECK(result.out.empty());
    CHECK(holds(result.err, row.says));
    const auto empty = run({SOBER_PROGRAM, "--catalogue", "", "condition"});
    CHECK(empty.code == 2);
    CHECK(holds(empty.err, "--catalogue needs the name of a file"));
}

TEST_CASE("several files are moved into a folder, never onto one name") {
    const Small small;
    CHECK(small.say({"docket", "add", "move", small / "V/a.wav", small / "V/b.wav", "--to", small / "V/new/"})
              .code == 0);
    CHECK(small.ask({"docket", "carry-out"})["done"] == 2);
    CHECK(readFile(small / "V/new/a.wav") == smallWav(1));
    CHECK(readFile(small / "V/new/b.wav") == smallWav(1));
}

TEST_CASE("what is put on the docket is told line by line; one bad path does not drop the others") {
    const Small small;
    const auto refused = small.ask({"docket", "add", "retire", small / "V/only.wav"}, 1);
    CHECK(refused["actions"][0]["refused"] == "It is the only copy at hand.");
    const auto some = small.ask({"docket", "add", "retire", small / "V/a.wav", small / "V/nowhere.wav"}, 3);
    CHECK(some["actions"].size() == 2);
    CHECK(small.say({"docket", "add", "retire", small / "V/nowhere.wav"}).code == 1);

    const auto id = std::to_string(some["actions"][0]["id"].get<int>());
    CHECK(small.ask({"docket", "remove", id})["actions"].size() == 1);
    CHECK(small.ask({"docket", "remove", "777"}, 1)["actions"].size() == 1);
    CHECK(small.ask({"docket", "remove", small / "V/a.wav", "777"}, 3)["actions"].empty());
    CHECK(isTaken(small / "V/a.wav"));
}

TEST_CASE("an entry of the ledger is told with its files and reasons") {
    const Small small;
    small.say({"docket", "add", "retire", small / "V/a.wav"});
    small.say({"docket", "add", "retire", small / "V/only.wav"});
    const auto carried = small.ask({"docket", "carry-out"}, 3);
    const auto entry = carried["entry"].get<std::string>();
    const auto told = small.say({"ledger", entry});
    CHECK(told.code == 0);
    CHECK(holds(told.out, "carried out  " + (small / "V/a.wav")));
    CHECK(holds(told.out, "refused      " + (small / "V/only.wav")));
    CHECK(holds(told.out, "It is the only copy at hand."));
    const auto files = small.ask({"ledger", entry})["entries"][0]["files"];
    CHECK(files.size() == 2);
    CHECK(small.say({"ledger", "4711"}).code == 1);
}

TEST_CASE("what the choices leave out is left out, and neither missing nor to be written off") {
    const Small small;
    writeFile(small / "V/samples/deep/c.wav", smallWav(3));
    writeFile(small / "V/.hidden.wav", smallWav(4));
    writeFile(small / "V/big.wav", smallWav(5, 2));
    small.ask({"survey", small / "V"});
    struct Row {
        std::vector<std::string> choice;
        int left;
        const char* path;
    };
    const auto row = GENERATE(values<Row>({{{"--leave", "samples"}, 1, "V/samples/deep/c.wav"},
                                           {{"--leave-hidden"}, 1, "V/.hidden.wav"},
                                           {{"--max-size", "100000"}, 1, "V/big.wav"},
                                           {{"--min-size", "100000"}, 5, "V/a.wav"},
                                           {{"--depth", "1"}, 1, "V/samples/deep/c.wav"}}));
    std::vector<std::string> words{"survey", small / "V"};
    words.insert(words.end(), row.choice.begin(), row.choice.end());
    const auto surveyed = small.ask(words);
    CAPTURE(row.choice.front());
    CHECK(surveyed["missing"] == 0);
    CHECK(surveyed["left_out"] == row.left);
    CHECK(small.ask({"condition"})["findings"]["missing"] == 0);
    const auto off = small.say({"docket", "add", "write-off", small / row.path});
    CHECK(off.code == 1);
    CHECK(holds(off.err, "not missing"));
    CHECK(small.ask({"verify"})["drift"].empty());
    // Another choice is added to those that are kept; to take all is to forget them.
    CHECK(small.ask({"survey", small / "V", "--follow-links"})["left_out"] == row.left);
    const auto all = small.ask({"survey", small / "V", "--take-all"});
    CHECK(all["left_out"] == 0);
    CHECK(all["seen"] == 6);
    CHECK(all["bytes_read"] == 0);
}

TEST_CASE("one path that cannot be surveyed does not keep the others from being read") {
    const Small small;
    writeFile(small / "A/x.wav", smallWav(6));
    writeFile(small / "C/y.wav", smallWav(7));
    const auto result = small.say({"survey", small / "A", small / "nope", small / "C", "--json"});
    CHECK(result.code == 1);
    CHECK(holds(result.err, "There is no folder " + (small / "nope")));
    CHECK(json::parse(result.out)["added"] == 2);
}

TEST_CASE("a catalogue is read where it may not be written, and no other database is touched") {
    const Small small;
    fs::create_directories(small / "ro");
    fs::copy(small / "c.sqlite", small / "ro/c.sqlite");
    fs::permissions(small / "ro/c.sqlite", fs::perms(0444));
    fs::permissions(small / "ro", fs::perms(0555));
    fs::permissions(small.path(), fs::perms(0755));
    const auto read = soberUnprivileged(small / "ro/c.sqlite", {"condition", "--json"});
    INFO(read.err);
    CHECK(read.code == 0);
    CHECK(json::parse(read.out)["holdings"] == 3);
    fs::permissions(small / "ro", fs::perms(0755));

    const auto foreign = small / "foreign.sqlite";
    REQUIRE(run({"python3", "-c",
                 "import sqlite3,sys; c=sqlite3.connect(sys.argv[1]); c.execute('create table theirs(x)'); "
                 "c.commit()",
                 foreign})
                .code == 0);
    const auto before = readFile(foreign);
    const auto refused = sober::test::sober(foreign, {"survey", small / "V"});
    CHECK(refused.code == 1);
    CHECK(holds(refused.err, "is not a catalogue"));
    CHECK(readFile(foreign) == before);
}

TEST_CASE("a full disk is told as a full disk") {
    if (!canMount()) {
        WARN("not run: mounting is not allowed here");
        return;
    }
    const Small small;
    TestMounts mounts;
    mounts.mount({"-t", "tmpfs", "-o", "size=300k", "none", small / "tiny"});
    for (int i = 0; i < 400; ++i) {
        writeFile(small / ("W/a long enough name of a file number " + std::to_string(i) + ".wav"),
                  smallWav(100 + i, 0.02));
    }
    const auto result = sober::test::sober(small / "tiny/c.sqlite", {"survey", small / "W"});
    CHECK(result.code == 1);
    CHECK(holds(result.err, "no space is left"));
}

TEST_CASE("names reach a terminal without steering it, and scripts with all that they hold") {
    const Small small;
    const std::string name = "V/x\x1b[31m\u202Egnp\u0085.wav";
    writeFile(small / name, smallWav(1));
    writeFile(small / "V/100%\xff.wav", smallWav(1));
    small.say({"survey", small / "V"});
    const auto spoken = small.say({"copies"}).out;
    CHECK(spoken.find('\x1b') == std::string::npos);
    CHECK(spoken.find("\u202E") == std::string::npos);
    CHECK(spoken.find("\u0085") == std::string::npos);
    bool met = false;
    const auto copies = small.ask({"copies"});
    for (const auto& set : copies["sets"]) {
        for (const auto& member : set["members"]) {
            met = met ||
                  (member["path"] == (small / "V/100%25%FF.wav") && member["path_encoding"] == "percent");
        }
    }
    CHECK(met);
}

TEST_CASE("every name that a list can hold is read back from it by us, and no other is written") {
    const Small small;
    const std::vector<std::string> names{" lead.wav",     "trail.wav ",     "tab\t.wav\t", ";semi.wav",
                                         "#hash.wav",     "C:\\x.wav",      "D:/y.wav",    "back\\slash.wav",
                                         "new\nline.wav", "two  blanks.wav"};
    for (std::size_t i = 0; i < names.size(); ++i) {
        writeFile(small / ("N/" + names[i]), smallWav(static_cast<unsigned>(50 + i)));
    }
    small.say({"survey", small / "N"});
    const std::string kind = GENERATE("sfv", "md5", "sha256");
    const auto list = small.say({"list", "write", small / "N", "--kind", kind});
    writeFile(small / ("list." + kind), list.out);
    const auto checked = small.ask({"list", "check", small / ("list." + kind), "--in", small / "N"});
    CAPTURE(kind, list.out, list.err);
    const int left = kind == "sfv" ? 5 : 0; // blanks at the end, backslashes, line ends
    CHECK(list.code == (left > 0 ? 3 : 0));
    CHECK(checked["good"] == names.size() - static_cast<std::size_t>(left));
    if (kind == "md5") {
        const auto theirs =
            run({"sh", "-c", "cd " + (small / "N") + " && md5sum -c " + (small / "list.md5")});
        CHECK(theirs.code == 0);
    }
}

TEST_CASE("what was mounted within a volume and is away is not missing") {
    if (!canMount()) {
        WARN("not run: mounting is not allowed here");
        return;
    }
    const Small small;
    TestMounts mounts;
    TestMounts::makeExt4(small / "image");
    mounts.mount({"-o", "loop", small / "image", small / "V/card"});
    writeFile(small / "V/card/c.wav", smallWav(1));
    writeFile(small / "V/card/d.wav", smallWav(8));
    CHECK(small.ask({"survey", small / "V"})["added"] == 2);
    mounts.unmount(small / "V/card");
    const auto surveyed = small.ask({"survey", small / "V"}, 3);
    CHECK(surveyed["missing"] == 0);
    CHECK(surveyed["away"] == 2);
    CHECK(holds(surveyed["errors"][0]["error"], "is away"));
    CHECK(small.ask({"verify"})["drift"].empty());
    CHECK(small.ask({"condition"})["findings"]["missing"] == 0);
    // The copy on it is not at hand, and nothing can be done there.
    small.say({"docket", "add", "retire", small / "V/a.wav"});
    const auto lines = small.ask({"docket", "add", "retire", small / "V/b.wav"}, 1)["actions"];
    CHECK(lines[0]["refused"].is_string());
    CHECK(holds(small.say({"docket", "add", "retire", small / "V/card/c.wav"}).out, "is away"));
    small.say({"docket", "clear"});
    mounts.mount({"-o", "loop", small / "image", small / "V/card"});
    const auto back = small.ask({"survey", small / "V"});
    CHECK(back["away"] == 0);
    CHECK(back["unchanged"] == 5);
    CHECK(back["bytes_read"] == 0);
}

TEST_CASE("what lies below a bound folder goes to the trash of that mount, and comes back") {
    if (!canMount()) {
        WARN("not run: mounting is not allowed here");
        return;
    }
    const Small small;
    const char* home = std::getenv("XDG_DATA_HOME");
    REQUIRE(home != nullptr);
    const BytePath bound = joinPath(home, "bound-" + std::to_string(getpid()));
    TestMounts mounts;
    fs::create_directories(bound);
    writeFile(small / "music/a.wav", smallWav(11));
    writeFile(small / "music/b.wav", smallWav(11));
    mounts.mount({"--bind", small / "music", bound});
    small.ask({"survey", bound});
    small.say({"docket", "add", "retire", bound + "/a.wav"});
    CHECK(small.ask({"docket", "carry-out"})["done"] == 1);
    CHECK(isTaken(small / ("music/.Trash-" + std::to_string(getuid()) + "/files/a.wav")));
    CHECK(small.ask({"undo", "last"})["done"] == 1);
    CHECK(readFile(small / "music/a.wav") == smallWav(11));
}

TEST_CASE("no trash is taken that is a link or another user's") {
    if (geteuid() != 0 || !canMount()) {
        WARN("not run: it takes the rights of root");
        return;
    }
    const bool isLink = GENERATE(true, false);
    const Small small;
    TestMounts mounts;
    mounts.mount({"-t", "tmpfs", "-o", "size=4m", "none", small / "card"});
    writeFile(small / "card/a.wav", smallWav(12));
    writeFile(small / "card/b.wav", smallWav(12));
    const auto trash = small / ("card/.Trash-" + std::to_string(getuid()));
    fs::create_directories(small / "elsewhere");
    if (isLink) {
        fs::create_directories(trash + "/info");
        fs::create_directory_symlink(small / "elsewhere", trash + "/files");
    } else {
        fs::create_directories(trash);
        REQUIRE(chown(trash.c_str(), 65534, 65534) == 0);
    }
    small.ask({"survey", small / "card"});
    small.say({"docket", "add", "retire", small / "card/a.wav"});
    const auto carried = small.ask({"docket", "carry-out"}, 1);
    CHECK(carried["done"] == 0);
    CHECK(holds(carried["refused"][0]["error"], isLink ? "is a link" : "belongs to another user"));
    CHECK(isTaken(small / "card/a.wav"));
    CHECK(fs::is_empty(small / "elsewhere"));
}

TEST_CASE("the consent to a loss is said on the docket's line, and for one file") {
    const Small small;
    CHECK(holds(small.say({"docket", "add", "retire", small / "V/a.wav", "--consent"}).err,
                "nothing to consent to"));
    const auto line = small.ask({"docket"})["actions"][0];
    CHECK(line["loss"].is_null());
    CHECK(line["consented"] == false);
}

TEST_CASE("what its drive cannot read any more is mended from a copy, whole or by its healthy blocks") {
    const bool whole = GENERATE(true, false);
    const TempFolder folder;
    const auto content = smallWav(21, 40); // more than three blocks of a mebibyte
    REQUIRE(content.size() > 3U << 20);
    writeFile(folder / "V/tape.wav", content);
    writeFile(folder / "W/copy.wav", content);
    const auto ask = [&](std::vector<std::string> words, bool failing, int code) {
        words.insert(words.begin(), {SOBER_PROGRAM, "--catalogue", folder / "c.sqlite", "--quiet", "--json"});
        if (failing) {
            words.insert(words.begin(),
                         {"env", std::string("LD_PRELOAD=") + FAILING_READS, "FAILING_FILE=/V/tape.wav",
                          "FAILING_FIRST=8192", "FAILING_PAST=20000"});
        }
        const auto result = run(words);
        INFO(result.out << result.err);
        CHECK(result.code == code);
        return result.out.empty() ? json() : json::parse(result.out);
    };
    ask({"survey", folder / "V", folder / "W"}, false, 0);
    if (!whole) {
        auto damaged = content;
        damaged[2'500'000] ^= 1;
        writeFile(folder / "W/copy.wav", damaged);
        ask({"survey", folder / "W"}, false, 0);
    }
    const auto verified = ask({"verify"}, true, 3);
    CHECK(holds(verified["errors"][0]["error"], "the drive could not read"));
    const auto line =
        ask({"docket", "add", whole ? "restore" : "repair", folder / "V/tape.wav"}, true, 0)["actions"][0];
    CHECK(line["refused"].is_null());
    CHECK(ask({"docket", "carry-out"}, true, 0)["done"] == 1);
    CHECK((readFile(folder / "V/tape.wav") == content));
    CHECK(ask({"verify", folder / "V"}, false, 0)["unchanged"] == 1);
    CHECK(ask({"undo", "last"}, false, 0)["done"] == 1);
    CHECK((readFile(folder / "V/tape.wav") == content));
}
