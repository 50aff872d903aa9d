// Volumes that get another label, leave the catalogue, or are somewhere else as another drive.
#include "core/audit/refresh_findings.h"
#include "core/catalogue/ledger_store.h"
#include "core/catalogue/search.h"
#include "core/catalogue/volume_leaving.h"
#include "core/work/succeed_volume.h"
#include "support/player_collection.h"
#include "support/small_audio.h"

#include <catch2/catch.hpp>

#include <filesystem>

using namespace sober;
using namespace sober::test;
namespace fs = std::filesystem;

namespace {

/// Two volumes that share one recording; a player's list leads into the first.
struct TwoVolumes : PlayerCollection {
    TwoVolumes() {
        writeFile(*this / "V/both.wav", smallWav(1));
        writeFile(*this / "V/only.wav", smallWav(2));
        writeFile(*this / "V/twin.wav", smallWav(3));
        writeFile(*this / "V/twin again.wav", smallWav(3));
        writeFile(*this / "W/both.wav", smallWav(1));
        writeFile(*this / "L/all.m3u8", m3u({*this / "V/both.wav", *this / "V/only.wav"}));
        addPlayer("one", "L");
        survey("V");
        survey("W");
        read();
        REQUIRE(refreshFindings(catalogue()).ok());
    }
    std::vector<std::string> labels() {
        const auto volumes = *Volumes(catalogue()).all();
        std::vector<std::string> all;
        std::ranges::transform(volumes, std::back_inserter(all), &Volume::label);
        return all;
    }
};

using Labels = std::vector<std::string>;

} // namespace

TEST_CASE("a volume is called otherwise, but never as another one or by nothing") {
    TwoVolumes all;
    REQUIRE(Volumes(all.catalogue()).relabel(all.volume("V"), "  The attic ").ok());
    CHECK(all.labels() == Labels{"The attic", "W"});
    for (const auto* label : {"W", "", "  ", "two\nlines", "\xFF"}) {
        CHECK_FALSE(Volumes(all.catalogue()).relabel(all.volume("The attic"), label).ok());
    }
    CHECK(all.labels() == Labels{"The attic", "W"});
}

TEST_CASE(
    "what is lost with a volume is said, and then all of it leaves the catalogue and nothing the disk") {
    TwoVolumes all;
    const auto leaving = *leavingOf(all.catalogue(), all.volume("V").id);
    CHECK(leaving.holdings == 4);
    CHECK(leaving.heldElsewhere == 1);
    CHECK(leaving.heldNowhereElse() == 3);
    CHECK(leaving.references == 2);
    CHECK(leaving.canBeUndone == 0);
    all.putOnDocket(ActionKind::retire, "V", "twin again.wav");
    const auto refused = forgetVolume(all.catalogue(), all.volume("V"));
    REQUIRE_FALSE(refused.ok());
    CHECK(refused.error().sentence.find("the docket holds 1 action") != std::string::npos);
    CHECK(all.carryOutAll().done == 1);
    CHECK(leavingOf(all.catalogue(), all.volume("V").id)->canBeUndone == 1);

    REQUIRE(forgetVolume(all.catalogue(), all.volume("V")).ok());
    REQUIRE(refreshFindings(all.catalogue()).ok());
    all.read();
    CHECK(all.labels() == Labels{"W"});
    CHECK(readFile(all / "V/only.wav") == smallWav(2));
    CHECK(Findings(all.catalogue()).setTotals()->sets == 0);
    RunControl control;
    HoldingFilter twins;
    twins.text = "twin";
    CHECK(search(all.catalogue(), twins, control, [](const std::vector<HoldingId>&) {})->ids.empty());
    // The history stays; nothing of it can be taken back.
    const auto last = *lastUndoable(all.catalogue());
    REQUIRE(last.has_value());
    const auto undone = undoEntry(all.catalogue(), *last, control, {});
    REQUIRE(undone.ok());
    CHECK(undone->done == 0);
    REQUIRE(undone->refused.size() == 1);
    CHECK(undone->refused[0].sentence.find("its volume was forgotten") != std::string::npos);
    // The folder may be surveyed again, as a volume that nobody knew, under the same label.
    CHECK(all.survey("V").added == 3);
    CHECK(all.labels() == Labels{"V", "W"});
}

TEST_CASE("a player whose lists lie on a volume keeps them when that is forgotten") {
    TwoVolumes all;
    writeFile(all / "W/lists/card.m3u8", m3u({"../both.wav", "../gone.wav"}));
    all.addPlayer("card", "W/lists");
    all.read();
    CHECK(all.figures("card").resolved == 1);
    CHECK(leavingOf(all.catalogue(), all.volume("W").id)->lists == 1);
    REQUIRE(forgetVolume(all.catalogue(), all.volume("W")).ok());
    all.read();
    CHECK(all.figures("card").references == 2);
    CHECK(all.figures("card").resolved == 1);
    // Also once it is a volume again, and when its list is written anew.
    all.survey("W");
    writeFile(all / "W/lists/card.m3u8", m3u({"../both.wav"}));
    all.read();
    CHECK(all.figures("card").references == 1);
    CHECK(all.figures("card").resolved == 1);
}

TEST_CASE("another drive takes a volume's place with all that is known of it") {
    TwoVolumes all;
    fs::copy(all / "V", all / "clone", fs::copy_options::recursive);
    const auto id = all.holding("V", "only.wav")->id;
    // The clone was surveyed before it was said what it is.
    all.survey("clone");
    CHECK(all.labels().size() == 3);
    fs::rename(all / "V", all / "cupboard");
    const auto succession = succeedVolume(all.catalogue(), all.volume("V"), all / "clone");
    INFO((succession ? std::string() : succession.error().sentence));
    REQUIRE(succession.ok());
    CHECK(succession->there == 4);
    CHECK(succession->notThere == 0);
    CHECK(all.labels() == Labels{"V", "W"});
    CHECK(all.volume("V").root == all / "clone");
    const auto report = all.survey("clone");
    CHECK(report.missing == 0);
    CHECK(report.added == 0);
    CHECK(all.holding("V", "only.wav")->id == id);
}

TEST_CASE("a folder that holds something else takes no volume's place") {
    TwoVolumes all;
    fs::create_directories(all / "other");
    fs::copy(all / "V/both.wav", all / "other/both.wav");
    struct Row {
        BytePath folder;
        const char* why;
    };
    for (const auto& row :
         {Row{all / "other", "of 4 holdings only 1 stands there"}, Row{all / "V", "it is that volume"},
          Row{all / "W", "of 4 holdings only 1 stands there"},
          Row{all.cataloguePath() + ".nowhere", "There is no folder"}}) {
        const auto refused = succeedVolume(all.catalogue(), all.volume("V"), row.folder);
        REQUIRE_FALSE(refused.ok());
        CAPTURE(refused.error().sentence);
        CHECK(refused.error().sentence.find(row.why) != std::string::npos);
    }
    // All of W is there, and more: V is a volume in its own right.
    const auto larger = succeedVolume(all.catalogue(), all.volume("W"), all / "V");
    REQUIRE_FALSE(larger.ok());
    CHECK(larger.error().sentence.find("holdings or a history of its own") != std::string::npos);
    CHECK(all.volume("V").root == all / "V");
}
