// `sober volumes` and `sober catalogue`, as scripts use them.
#include "support/run_program.h"
#include "support/small_audio.h"
#include "support/temp_folder.h"

#include <catch2/catch.hpp>

#include <filesystem>
#include <map>

using namespace sober;
using namespace sober::test;
using nlohmann::json;
namespace fs = std::filesystem;

namespace {

struct Scripted : TempFolder {
    Scripted() {
        writeFile(*this / "V/a.wav", smallWav(1));
        writeFile(*this / "V/b.wav", smallWav(2));
        writeFile(*this / "W/a.wav", smallWav(1));
        ask({"survey", *this / "V"});
        ask({"survey", *this / "W"});
    }
    json ask(std::vector<std::string> words, int code = 0) const {
        words.insert(words.end(), {"--json", "--quiet"});
        const auto result = sober::test::sober(*this / "c.sqlite", words);
        INFO(result.out << result.err);
        REQUIRE(result.code == code);
        return result.out.empty() ? json() : json::parse(result.out);
    }
    std::vector<std::string> labels() const {
        std::vector<std::string> all;
        const auto volumes = ask({"volumes"});
        for (const auto& volume : volumes["volumes"]) {
            all.push_back(volume["label"]);
        }
        return all;
    }
};

using Labels = std::vector<std::string>;

} // namespace

TEST_CASE("volumes are listed, renamed, forgotten only when asked to, and succeeded by the command") {
    const Scripted all;
    CHECK(all.labels() == Labels{"V", "W"});
    all.ask({"volumes", "rename", "W", "Attic"});
    all.ask({"volumes", "rename", "V", "Attic"}, 1);
    all.ask({"volumes", "rename", "nobody", "X"}, 1);
    CHECK(all.labels() == Labels{"Attic", "V"});

    // What a transfer still takes from it is not let go of.
    fs::create_directories(all / "T");
    all.ask({"transfer", "plan", "--to", all / "T", "--volume", "V"});
    CHECK(all.ask({"volumes", "forget", "V"})["transfers"] == 1);
    all.ask({"volumes", "forget", "V", "--carry-out"}, 1);
    all.ask({"transfer", "forget", "1"});
    const auto said = all.ask({"volumes", "forget", "V"});
    CHECK(said["schema"] == "sober.forgetting/1");
    CHECK(said["holdings"] == 2);
    CHECK(said["held_elsewhere"] == 1);
    CHECK(said["held_nowhere_else"] == 1);
    CHECK(said["forgotten"] == false);
    CHECK(all.labels() == Labels{"Attic", "V"});

    fs::copy(all / "V", all / "clone", fs::copy_options::recursive);
    all.ask({"volumes", "succeed", "Attic", all / "V"}, 1);
    const auto succession = all.ask({"volumes", "succeed", "V", all / "clone"});
    CHECK(succession["there"] == 2);
    CHECK(succession["missing"] == 0);
    const auto volumes = all.ask({"volumes"});
    CHECK(volumes["volumes"][1]["root"] == all / "clone");

    CHECK(all.ask({"volumes", "forget", "V", "--carry-out"})["forgotten"] == true);
    CHECK(all.labels() == Labels{"Attic"});
    CHECK(all.ask({"condition"})["holdings"] == 1);
    CHECK(fs::exists(all / "clone/b.wav"));
}

TEST_CASE("the catalogue is saved beside a program that has it open, and brought back") {
    const Scripted all;
    const auto saved = all.ask({"catalogue", "save", all / "saved.sqlite"});
    CHECK(saved["bytes"] == fs::file_size(all / "saved.sqlite"));
    all.ask({"catalogue", "save", all / "saved.sqlite"}, 1);
    all.ask({"volumes", "forget", "V", "--carry-out"});
    const auto back = all.ask({"catalogue", "bring-back", all / "saved.sqlite"});
    CHECK(fs::exists(back["kept"].get<std::string>()));
    CHECK(all.labels() == Labels{"V", "W"});
    all.ask({"catalogue", "bring-back", all / "V/a.wav"}, 1);
}

TEST_CASE(
    "each volume has a running number of its own, which a page of labels tells, and none gets another's") {
    const Scripted all;
    const auto numbers = [&] {
        std::map<std::string, int> found;
        const auto told = all.ask({"volumes"});
        for (const auto& volume : told["volumes"]) {
            found[volume["label"]] = volume["number"];
        }
        return found;
    };
    const auto before = numbers();
    CHECK(before.at("V") != before.at("W"));
    all.ask({"volumes", "rename", "V", "A <b> & C"});
    all.ask({"volumes", "forget", "W", "--carry-out"});
    writeFile(all / "X/a.wav", smallWav(1));
    all.ask({"survey", all / "X"});
    CHECK(numbers().at("A <b> & C") == before.at("V"));
    CHECK(numbers().at("X") > before.at("W"));

    const auto page = all / "labels.html";
    const std::vector<std::string> write{"volumes", "labels", "--to", page};
    CHECK(sober::test::sober(all / "c.sqlite", write).code == 0);
    CHECK(sober::test::sober(all / "c.sqlite", write).code == 1); // never over something
    CHECK(readFile(page).find("A &lt;b&gt; &amp; C") != std::string::npos);
    CHECK(run({"tidy", "-q", "-e", page}).code == 0); // an HTML validator from Debian: no error, no warning
    CHECK(sober::test::sober(all / "c.sqlite", {"volumes", "labels"}).out == readFile(page));
}
