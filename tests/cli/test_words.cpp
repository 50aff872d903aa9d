#include "core/base/file_handle.h"
#include "support/run_program.h"
#include "support/small_audio.h"
#include "support/temp_folder.h"

#include <catch2/catch.hpp>

#include <filesystem>

using namespace sober;
using namespace sober::test;
namespace fs = std::filesystem;

namespace {

/// A catalogue of two volumes with a pair of copies and a single file.
struct WordsCollection {
    WordsCollection() {
        writeFile(folder / "GANNET/a.wav", smallWav(1));
        writeFile(folder / "PETREL/Downloads/a (1).wav", smallWav(1));
        writeFile(folder / "GANNET/only.wav", smallWav(2));
        REQUIRE(sober::test::sober(catalogue(), {"survey", folder / "GANNET", folder / "PETREL"}).code == 0);
    }
    std::string catalogue() const { return folder / "c.sqlite"; }
    std::string say(const std::vector<std::string>& words) const {
        const auto result = sober::test::sober(catalogue(), words);
        INFO(result.err);
        CHECK(result.code == 0);
        return result.out;
    }
    TempFolder folder;
};

bool saysIn(const std::string& text, const std::string& part) {
    INFO(text);
    return text.find(part) != std::string::npos;
}

} // namespace

TEST_CASE("every command speaks to a person where no JSON is asked for") {
    const WordsCollection small;
    CHECK(saysIn(small.say({"survey", small.folder / "GANNET"}), "GANNET: 2 holdings (0 added"));
    const auto condition = small.say({"condition"});
    CHECK(saysIn(condition, "3 holdings"));
    CHECK(saysIn(condition, "1 set of identical copies"));
    CHECK(saysIn(condition, "1 held once only"));
    const auto copies = small.say({"copies"});
    CHECK(saysIn(copies, "keep    " + small.folder.path() + "/GANNET/a.wav"));
    CHECK(saysIn(copies, "named as a second copy"));
    CHECK(saysIn(copies, "the recording would then be on GANNET only"));
    CHECK(saysIn(small.say({"docket"}), "The docket is empty."));
    CHECK(saysIn(small.say({"docket", "add", "suggested"}), "1 action wait"));
    CHECK(saysIn(small.say({"docket", "add", "suggested"}), "Nothing has changed yet."));
    CHECK(isTaken(small.folder / "PETREL/Downloads/a (1).wav"));
    CHECK(saysIn(small.say({"docket", "carry-out"}), "1 action carried out, 0 refused."));
    CHECK_FALSE(isTaken(small.folder / "PETREL/Downloads/a (1).wav"));
    CHECK(saysIn(small.say({"undo", "last"}), "1 action taken back, 0 refused."));
    CHECK(isTaken(small.folder / "PETREL/Downloads/a (1).wav"));
    CHECK(saysIn(small.say({"ledger"}), "(taken back)"));
    CHECK(saysIn(small.say({"--help"}), "condition"));
}

TEST_CASE("standard output holds the one JSON document and nothing else, whatever goes wrong") {
    const WordsCollection small;
    writeFile(small.folder / "GANNET/fake.mp3", "no audio");
    const auto survey = sober::test::sober(small.catalogue(), {"survey", "--json", small.folder / "GANNET"});
    CHECK(survey.code == 3);
    CHECK(survey.out.front() == '{');
    CHECK(survey.out.ends_with("}\n"));
    CHECK(saysIn(survey.err, "holds no audio"));
}

TEST_CASE("paths are taken as a person gives them") {
    const WordsCollection small;
    fs::create_directory_symlink(small.folder / "GANNET", small.folder / "shortcut");
    CHECK(saysIn(small.say({"docket", "add", "retire", small.folder / "shortcut/a.wav"}), "GANNET/a.wav"));
    CHECK(saysIn(small.say({"docket", "add", "retire", small.folder / "GANNET/../GANNET/./a.wav"}),
                 "1 action wait"));
    CHECK(saysIn(small.say({"survey", small.folder / "shortcut"}), "GANNET: 2 holdings"));
}

TEST_CASE("one entry is taken back once") {
    const WordsCollection small;
    small.say({"docket", "add", "suggested"});
    small.say({"docket", "carry-out"});
    small.say({"undo", "last"});
    const auto again = sober::test::sober(small.catalogue(), {"undo", "3"});
    CHECK(again.code == 1);
    CHECK(saysIn(again.err, "taken back already"));
    CHECK(saysIn(sober::test::sober(small.catalogue(), {"undo", "1"}).err, "nothing that can be taken back"));
    CHECK(
        saysIn(sober::test::sober(small.catalogue(), {"undo", "99"}).err, "nothing that can be taken back"));
}

TEST_CASE("a missing file is written off by its path") {
    const WordsCollection small;
    fs::remove(small.folder / "GANNET/only.wav");
    small.say({"survey", small.folder / "GANNET"});
    CHECK(saysIn(small.say({"condition"}), "1 missing"));
    small.say({"docket", "add", "write-off", small.folder / "GANNET/only.wav"});
    CHECK(saysIn(small.say({"docket", "carry-out"}), "1 action carried out"));
    CHECK(saysIn(small.say({"condition"}), "0 missing"));
    CHECK(sober::test::sober(small.catalogue(), {"docket", "add", "retire", small.folder / "GANNET/only.wav"})
              .code == 1);
}
