// A folder of lists that cannot be flushed, once, at every instant of changing a list: nothing that a list
// was is lost, and what is said to be not done is not done.
#include "core/base/file_handle.h"
#include "support/run_program.h"
#include "support/small_audio.h"
#include "support/temp_folder.h"

using namespace sober;
using namespace sober::test;
namespace fs = std::filesystem;

namespace {

/// A file, a list of a player that leads to it, and a move or another lead that waits.
struct Waiting : TempFolder {
    explicit Waiting(const std::string& kind)
        : TempFolder(On::disk), target(*this / (kind == "move" ? "V/new/a.wav" : "V/b.wav")) {
        writeFile(*this / "V/a.wav", smallWav(1));
        writeFile(*this / "V/b.wav", smallWav(2));
        writeFile(list(), before());
        for (const auto& words : std::vector<std::vector<std::string>>{
                 {"survey", *this / "V"},
                 {"players", "add", *this / "lists", "--name", "pocket"},
                 {"docket", "add", kind, *this / "V/a.wav", "--to", target}}) {
            REQUIRE(sober::test::sober(*this / "c.sqlite", words).code == 0);
        }
    }
    BytePath list() const { return *this / "lists/one.m3u"; }
    std::string before() const { return "#kept as it is\n" + (*this / "V/a.wav") + "\n"; }
    std::string after() const { return "#kept as it is\n" + target + "\n"; }

    /// The command on a drive that does not flush the lists' folder the `flush`-th time.
    ProgramRun say(const std::string& words, int flush) const {
        return run(
            {"env", std::string("LD_PRELOAD=") + FAILING_READS, "FAILING_FOLDER=" + (*this / "lists"),
             "FAILING_FLUSH=" + std::to_string(flush), "sh", "-c",
             std::string(SOBER_PROGRAM) + " --quiet --catalogue " + (*this / "c.sqlite") + " " + words});
    }
    std::vector<std::string> names() const {
        std::vector<std::string> found;
        for (const auto& each : fs::directory_iterator(*this / "lists")) {
            found.push_back(each.path().filename());
        }
        return found;
    }

    BytePath target;
};

} // namespace

TEST_CASE("a list that could not be flushed is what the command says that it is, and is given back") {
    const std::string kind = GENERATE("move", "repoint");
    int unconfirmed = 0;
    for (int flush = 1; flush <= 6; ++flush) {
        CAPTURE(kind, flush);
        const Waiting waiting(kind);
        const auto said = waiting.say("docket carry-out", flush);
        // It is done; that it would outlast a loss of power is another thing.
        CHECK(said.code == 0);
        CHECK(readFile(waiting.list()) == waiting.after());
        CHECK(isTaken(waiting / "V/a.wav") == (kind == "repoint"));
        CHECK(waiting.names().size() == 1);
        unconfirmed +=
            said.err.find("one.m3u: done, but its drive has not confirmed") != std::string::npos ? 1 : 0;
        CHECK(waiting.say("undo last", 0).code == 0);
        CHECK(readFile(waiting.list()) == waiting.before());
        CHECK(isTaken(waiting / "V/a.wav"));
    }
    CHECK(unconfirmed > 0);
}

TEST_CASE("a list that could not be flushed while it is given back can be given back later") {
    const std::string kind = GENERATE("move", "repoint");
    for (int flush = 1; flush <= 6; ++flush) {
        CAPTURE(kind, flush);
        const Waiting waiting(kind);
        REQUIRE(waiting.say("docket carry-out", 0).code == 0);
        const int code = waiting.say("undo last", flush).code;
        CHECK(waiting.names().size() == 1);
        // A list follows the file that it leads to.
        const bool isBack = kind == "move" ? isTaken(waiting / "V/a.wav") : code == 0;
        CHECK(readFile(waiting.list()) == (isBack ? waiting.before() : waiting.after()));
        if (code != 0) {
            CHECK(waiting.say("undo last", 0).code == 0);
            CHECK(readFile(waiting.list()) == waiting.before());
        }
        CHECK(isTaken(waiting / "V/a.wav"));
    }
}
