#include "app/charts/lineage_chart.h"
#include "app/charts/overlay_chart.h"
#include "core/media/tag_fields.h"
#include "support/run_program.h"
#include "support/temp_folder.h"
#include "ui/desktop.h"

#include <QComboBox>
#include <QTableView>

#include <catch2/catch.hpp>

#include <filesystem>

using namespace sober;
using namespace sober::app;
using namespace sober::test;

namespace {

const QString sets = "Copy sets";
const QString members = "Members of the set";

/// The demo with the archive and the player's card examined, at one recording in five forms.
struct CopiesDesktop : Desktop {
    CopiesDesktop() : Desktop({{"PETREL", Effort::full}, {"TERN", Effort::full}}) {
        press(Qt::Key_2, Qt::AltModifier);
        choose("How the members are the same", "other master");
    }
    void choose(const QString& box, const QString& item) {
        auto* combo = static_cast<QComboBox*>(find(box));
        const int index = combo->findText(item);
        REQUIRE(index >= 0);
        combo->setCurrentIndex(index);
        settle();
    }
    int rowOf(const QString& ending) {
        for (int row = 0; row < list(members)->model()->rowCount(); ++row) {
            if (cell(members, row, "Path").endsWith(ending)) {
                return row;
            }
        }
        FAIL("no member ends in " << ending.toStdString());
        return -1;
    }
};

} // namespace

TEST_CASE("a set of several forms shows its lineage, what differs, and why") {
    CopiesDesktop desktop;
    REQUIRE(desktop.list(sets)->model()->rowCount() == 1);
    CHECK(desktop.cell(sets, 0, "Same") == "other master");
    REQUIRE(desktop.list(members)->model()->rowCount() == 5);
    auto* lineage = desktop.window().findChild<LineageChart*>();
    REQUIRE(lineage != nullptr);
    CHECK(lineage->isVisible());

    const int keeper = desktop.rowOf("Fog Signal Polka.m4a");
    CHECK(desktop.cell(members, keeper, "Decision") == "keep (advised)");
    CHECK(desktop.cell(members, desktop.rowOf("quieter.flac"), "Decision") == "open");
    CHECK(desktop.cell(members, desktop.rowOf("11 Fog Signal Polka.mp3"), "Decision") == "retire (advised)");
    CHECK(desktop.text("Alike in all members").contains("Fog Signal Polka"));
    CHECK(desktop.list(members)->isColumnHidden(5)); // tags: the same of all, said above

    // A click on the second line of the lineage chooses that member and lays it over the keeper.
    CHECK(desktop.list(members)->currentIndex().row() == keeper);
    desktop.click(lineage, {60, 40});
    CHECK(desktop.list(members)->currentIndex().row() != keeper);
    desktop.list(members)->selectRow(desktop.rowOf("quieter.flac"));
    desktop.settle();
    CHECK(desktop.text("Reasons").contains("3.0 dB quieter"));
    auto* overlay = desktop.window().findChild<OverlayChart*>();
    const auto withResidual = overlay->grab().toImage();
    desktop.list(members)->selectRow(keeper);
    desktop.settle();
    CHECK(overlay->grab().toImage() != withResidual);
}

TEST_CASE("as advised retires what the evidence decides and leaves what the ear has to") {
    CopiesDesktop desktop;
    namespace fs = std::filesystem;
    const BytePath keeper = desktop.demo / "PETREL/Archive/2008 Bandstand Evenings/Fog Signal Polka.m4a";
    const BytePath quieter =
        desktop.demo / "PETREL/Archive/2008 Bandstand Evenings/Fog Signal Polka, quieter.flac";
    const BytePath falseOne = desktop.demo / "PETREL/Inbox/From a swap meet/11 Fog Signal Polka.mp3";
    const auto kept = readFile(keeper);
    desktop.press(Qt::Key_D, Qt::NoModifier, desktop.find(sets));
    CHECK(desktop.text("What waits on the docket").startsWith("3 actions wait"));
    CHECK(fs::exists(falseOne));
    desktop.press(Qt::Key_D, Qt::ControlModifier);
    desktop.press(Qt::Key_Return, Qt::ControlModifier, desktop.find("Actions on the docket"));
    REQUIRE(desktop.waitFor([&] { return desktop.text("Outcome").startsWith("Carried out: 3 actions"); }));
    CHECK_FALSE(fs::exists(falseOne));
    CHECK(fs::exists(quieter));
    CHECK(readFile(keeper) == kept);
    desktop.press(Qt::Key_Escape, Qt::NoModifier, desktop.find("Actions on the docket"));
    desktop.press(Qt::Key_6, Qt::AltModifier);
    desktop.press(Qt::Key_T);
    CHECK(desktop.text("Message") == "Taken back: 3 actions.");
    CHECK(fs::exists(falseOne));
}

TEST_CASE("what another copy knows is taken over into the one that stays, and given back") {
    CopiesDesktop desktop;
    const BytePath keeper = desktop.demo / "PETREL/Archive/2008 Bandstand Evenings/Fog Signal Polka.m4a";
    const auto before = readFile(keeper);
    const auto tagsBefore = *readTagFields(keeper);
    desktop.press(Qt::Key_T);
    auto* comment = static_cast<QComboBox*>(desktop.find("What comment shall say"));
    auto* composer = static_cast<QComboBox*>(desktop.find("What composer shall say"));
    CHECK(comment->currentText().startsWith("from the card"));
    CHECK(composer->currentText().startsWith("as now"));
    CHECK(desktop.text("What would be written").startsWith("Would write COMMENT: from the card."));
    composer->setCurrentIndex(1);
    CHECK(desktop.text("What would be written").contains("COMPOSER: I. Corrigan"));
    desktop.click(desktop.button("Put on the docket"));
    CHECK(desktop.text("What waits on the docket").startsWith("1 action waits"));
    CHECK(readFile(keeper) == before);

    desktop.press(Qt::Key_D, Qt::ControlModifier);
    CHECK(desktop.cell("Actions on the docket", 0, "Action") == "retag");
    desktop.press(Qt::Key_Return, Qt::ControlModifier, desktop.find("Actions on the docket"));
    REQUIRE(desktop.waitFor([&] { return desktop.text("Outcome").startsWith("Carried out: 1 action"); }));
    const auto after = *readTagFields(keeper);
    CHECK(after.fields.at("COMMENT") == std::vector<std::string>{"from the card"});
    CHECK(after.fields.at("COMPOSER") == std::vector<std::string>{"I. Corrigan"});
    CHECK(after.fields.at("GENRE") == tagsBefore.fields.at("GENRE"));
    CHECK(after.pictures == tagsBefore.pictures);
    desktop.press(Qt::Key_Escape, Qt::NoModifier, desktop.find("Actions on the docket"));
    CHECK(desktop.list(members)->model()->rowCount() == 5); // still one recording in five forms
    desktop.press(Qt::Key_6, Qt::AltModifier);
    desktop.press(Qt::Key_T);
    CHECK(desktop.text("Message") == "Taken back: 1 action.");
    CHECK(readFile(keeper) == before);
}

TEST_CASE("sets are narrowed by how they are the same and ordered by doubt") {
    CopiesDesktop desktop;
    desktop.choose("How the members are the same", "lossy copy");
    CHECK(desktop.list(sets)->model()->rowCount() == 3); // the false 320, and two low bitrates
    desktop.choose("Order of the sets", "doubtful first");
    CHECK(desktop.cell(sets, 0, "Recording") == "Gale Warning");
    CHECK(desktop.cell(members, desktop.rowOf("0302 Gale Warning.mp3"), "Decision") == "keep (advised)");
    desktop.choose("How the members are the same", "all copies");
    CHECK(desktop.list(sets)->model()->rowCount() > 3);
}

TEST_CASE("a loss is named on the docket's line and consented to there, for the one line that is chosen") {
    CopiesDesktop desktop;
    namespace fs = std::filesystem;
    const BytePath quieter =
        desktop.demo / "PETREL/Archive/2008 Bandstand Evenings/Fog Signal Polka, quieter.flac";
    const auto before = readFile(quieter);
    desktop.list(members)->selectRow(desktop.rowOf("quieter.flac"));
    desktop.settle();
    desktop.press(Qt::Key_R, Qt::NoModifier, desktop.find(sets));
    desktop.list(members)->selectRow(desktop.rowOf("11 Fog Signal Polka.mp3"));
    desktop.settle();
    desktop.press(Qt::Key_R, Qt::NoModifier, desktop.find(sets));
    desktop.press(Qt::Key_D, Qt::ControlModifier);
    const QString actions = "Actions on the docket";
    REQUIRE(desktop.waitFor([&] { return desktop.list(actions)->model()->rowCount() == 2; }));
    CHECK(desktop.cell(actions, 0, "Action") == "needs consent");
    CHECK(desktop.cell(actions, 0, "Why").contains("no copy of this master would be left"));
    CHECK(desktop.cell(actions, 1, "Action") == "retire");
    CHECK(desktop.text("What carrying out would do").contains("a loss that you have to consent to first"));

    // Not by many at once, and not for a line that needs none.
    desktop.list(actions)->selectAll();
    desktop.settle();
    CHECK_FALSE(desktop.button("Consent to this loss")->isEnabled());
    const auto choose = [&](int row) {
        auto* view = desktop.list(actions);
        desktop.click(view->viewport(), view->visualRect(view->model()->index(row, 0)).center());
    };
    choose(1);
    CHECK_FALSE(desktop.button("Consent to this loss")->isEnabled());
    choose(0);
    REQUIRE(desktop.button("Consent to this loss")->isEnabled());
    desktop.press(Qt::Key_C, Qt::NoModifier, desktop.find(actions));
    REQUIRE(desktop.waitFor([&] { return desktop.cell(actions, 0, "Action") == "retire"; }));
    CHECK(desktop.cell(actions, 0, "Why").startsWith("Consented: no copy of this master"));
    CHECK(desktop.list(actions)->selectionModel()->selectedRows().front().row() == 0);

    desktop.press(Qt::Key_Return, Qt::ControlModifier, desktop.find(actions));
    REQUIRE(desktop.waitFor([&] { return desktop.text("Outcome").startsWith("Carried out: 2 actions"); }));
    CHECK_FALSE(fs::exists(quieter));
    desktop.press(Qt::Key_Escape, Qt::NoModifier, desktop.find(actions));
    desktop.press(Qt::Key_6, Qt::AltModifier);
    desktop.press(Qt::Key_T);
    CHECK(desktop.text("Message") == "Taken back: 2 actions.");
    CHECK((readFile(quieter) == before));
}

TEST_CASE("the members of a set say what players' lists lead to, in the list, said once, and in the advice") {
    CopiesDesktop desktop;
    CHECK(desktop.text("Alike in all members").contains("References: none"));
    const BytePath folder = desktop.demo / "PETREL/Archive/2008 Bandstand Evenings";
    const BytePath gone = desktop.demo / "PETREL/Inbox/From a swap meet/11 Fog Signal Polka.mp3";
    writeFile(desktop.demo / "evening.m3u8",
              "#EXTM3U\n" + folder + "/Fog Signal Polka.m4a\n" + gone + "\n" + gone + "\n");
    Player player;
    player.name = "evening";
    player.places = {desktop.demo / "evening.m3u8"};
    desktop.workbench().takeInPlayer(player);
    desktop.settle();
    desktop.press(Qt::Key_1, Qt::AltModifier);
    desktop.press(Qt::Key_2, Qt::AltModifier);
    REQUIRE(desktop.waitFor([&] {
        return desktop.cell(members, desktop.rowOf("11 Fog Signal Polka.mp3"), "References") == "2";
    }));
    CHECK(desktop.cell(members, desktop.rowOf("Fog Signal Polka.m4a"), "References") == "1");
    CHECK(desktop.cell(members, desktop.rowOf("quieter.flac"), "References") == "none");
    CHECK_FALSE(desktop.text("Alike in all members").contains("references"));
    desktop.list(members)->selectRow(desktop.rowOf("11 Fog Signal Polka.mp3"));
    desktop.settle();
    CHECK(
        desktop.text("Reasons").contains("2 references of players lead to it, and will lead to what stays"));
    desktop.list(members)->selectRow(desktop.rowOf("Fog Signal Polka.m4a"));
    desktop.settle();
    CHECK(desktop.text("Reasons").contains("1 reference of a player leads to it"));
}
