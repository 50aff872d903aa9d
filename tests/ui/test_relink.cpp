#include "app/charts/ribbon_chart.h"
#include "core/catalogue/player_store.h"
#include "core/remedy/journal/taking_back.h"
#include "core/work/carry_out.h"
#include "support/small_audio.h"
#include "ui/desktop.h"

#include <QFileDialog>
#include <QTableView>

#include <catch2/catch.hpp>

#include <filesystem>

using namespace sober;
using namespace sober::test;
namespace fs = std::filesystem;

namespace {

const QString places = "Places that references lead to";
const QString figures = "References of each player";
const QString ribbons = "Broken references from where they lead to where their files are now";

/// The demo with a player of its own, whose list was left behind by a renamed folder.
struct PlayerDesktop : Desktop {
    PlayerDesktop() {
        std::string lines = "#EXTM3U\n";
        for (const auto& file : fs::directory_iterator(demo / "GANNET/Tapes, labelled/Side 1")) {
            lines += "#EXTINF:4,\n" + (demo / ("GANNET/Old tapes/" + file.path().filename().string())) + "\n";
        }
        lines += (demo / "GANNET/Old tapes/gone for good.mp3") + "\n";
        lines += "/elsewhere/Take Home.flac\n";
        writeFile(list_, lines);
        before = lines;
        Player player;
        player.name = "pocket";
        player.places = {list_};
        workbench().takeInPlayer(player);
        settle();
        press(Qt::Key_5, Qt::AltModifier);
        settle();
    }
    BytePath list_ = demo / "pocket.m3u8";
    std::string before;
};

} // namespace

TEST_CASE("broken references are looked through by ribbons, repointed through the docket, and the count goes "
          "down") {
    PlayerDesktop desktop;
    CHECK(desktop.text(figures) == "pocket: 6 of 6 references broken, 2 after this");
    CHECK(desktop.list(places)->model()->rowCount() == 6);
    CHECK(desktop.cell(places, 0, "State") == "asked");
    CHECK(desktop.cell(places, 0, "The file is at") == "2 candidates");
    CHECK(desktop.list("Candidates")->model()->rowCount() == 2);
    CHECK(desktop.cell("Candidates", 0, "Length") == "5.0 s");

    // The first ribbon is the rule of four: only its places are shown; off and on again.
    auto* chart = desktop.find(ribbons);
    desktop.click(chart, {chart->width() / 2, 37});
    CHECK(desktop.list(places)->model()->rowCount() == 4);
    CHECK(desktop.cell(places, 0, "State") == "found");
    desktop.press(Qt::Key_O, Qt::NoModifier, desktop.list(places));
    desktop.settle();
    CHECK(desktop.text(figures) == "pocket: 6 of 6 references broken");
    chart = desktop.find(ribbons);
    desktop.click(chart, {chart->width() / 2, 37});
    desktop.press(Qt::Key_O, Qt::NoModifier, desktop.list(places));
    desktop.settle();
    CHECK(desktop.text(figures) == "pocket: 6 of 6 references broken, 2 after this");

    // The second candidate is it.
    desktop.list(places)->selectRow(0);
    desktop.settle();
    desktop.list("Candidates")->selectRow(1);
    desktop.press(Qt::Key_T, Qt::NoModifier, desktop.list(places));
    desktop.settle();
    CHECK(desktop.text(figures) == "pocket: 6 of 6 references broken, 1 after this");

    // Put on the docket, read through as lines, carried out.
    desktop.press(Qt::Key_R, Qt::NoModifier, desktop.list(places));
    desktop.settle();
    CHECK(desktop.text("What waits on the docket").contains("takes 5 references along"));
    CHECK(readFile(desktop.list_) == desktop.before);
    desktop.press(Qt::Key_D, Qt::ControlModifier);
    desktop.settle();
    CHECK(desktop.list("Actions on the docket")->model()->rowCount() == 5);
    CHECK(desktop.list("Lines of lists that change")->model()->rowCount() == 5);
    CHECK(desktop.cell("Lines of lists that change", 0, "List") == "pocket: pocket.m3u8");
    CHECK(desktop.cell("Lines of lists that change", 0, "Before").contains("Old tapes"));
    CHECK(desktop.cell("Lines of lists that change", 0, "After").contains("Tapes, labelled"));
    desktop.click(desktop.button("Carry out"));
    desktop.settle();
    CHECK(desktop.text("Outcome").contains("5 references of players now lead elsewhere"));
    desktop.press(Qt::Key_Escape);
    desktop.settle();
    CHECK(desktop.text(figures) == "pocket: 1 of 6 references broken");
    const auto after = readFile(desktop.list_);
    CHECK(after.find("Old tapes/gone for good.mp3") != std::string::npos);
    CHECK(after.find("/elsewhere/") == std::string::npos);

    // What is not missed is written off, and does not come back.
    CHECK(desktop.cell(places, 0, "State") == "not found");
    desktop.list(places)->selectRow(0);
    desktop.press(Qt::Key_W, Qt::NoModifier, desktop.list(places));
    desktop.settle();
    CHECK(desktop.cell(places, 0, "State") == "to write off");
    desktop.workbench().carryOut();
    desktop.settle();
    CHECK(desktop.text(figures) == "pocket: all of 5 references lead to a file");
    desktop.restart();
    desktop.press(Qt::Key_5, Qt::AltModifier);
    desktop.settle();
    CHECK(desktop.text(figures) == "pocket: all of 5 references lead to a file");
}

TEST_CASE("one file that is shown is enough for the folder, and references that will not last are told") {
    PlayerDesktop desktop;
    writeFile(desktop.list_,
              "/gone/a/01.wav\n/gone/a/02.wav\n" + (desktop.demo / "GANNET/Downloads") + "/" +
                  fs::directory_iterator(desktop.demo / "GANNET/Downloads")->path().filename().string() +
                  "\n");
    for (const auto* name : {"01.wav", "02.wav"}) {
        writeFile(desktop.demo / ("shown/" + std::string(name)), smallWav(name[1] == '1' ? 1 : 2));
    }
    desktop.workbench().readPlayers();
    desktop.settle();
    CHECK(desktop.text(figures) == "pocket: 2 of 3 references broken");
    desktop.list(places)->selectRow(0);
    desktop.press(Qt::Key_E, Qt::NoModifier, desktop.list(places));
    auto* dialog = desktop.window().findChild<QFileDialog*>();
    REQUIRE(dialog != nullptr);
    dialog->selectFile(QString::fromStdString(desktop.demo / "shown/01.wav"));
    emit dialog->fileSelected(QString::fromStdString(desktop.demo / "shown/01.wav"));
    dialog->close();
    desktop.settle();
    CHECK(desktop.text(figures) == "pocket: 2 of 3 references broken, 0 after this");

    desktop.press(Qt::Key_3, Qt::NoModifier, desktop.list(places));
    desktop.settle();
    const QString troubled = "References that work today and should be looked at";
    REQUIRE(desktop.list(troubled)->model()->rowCount() > 0);
    CHECK(desktop.cell(troubled, 0, "What about it") == "will not last");
    CHECK(desktop.list("Holdings that no player's list points at")->model()->rowCount() > 100);
}

TEST_CASE("a player is taken in, folders are looked through, and a decision can wait, all by keys") {
    Desktop desktop;
    writeFile(desktop.demo / "lists/evening.m3u8",
              "#EXTM3U\n/gone/nocturne one.wav\n/gone/nocturne two.wav\n");
    writeFile(desktop.demo / "shoebox/nocturne one.wav", smallWav(11));
    writeFile(desktop.demo / "shoebox/nocturne two.wav", smallWav(12));
    desktop.press(Qt::Key_5, Qt::AltModifier);
    desktop.settle();
    // Nothing is known of players yet: what is missing comes first.
    CHECK(desktop.list("Missing holdings")->isVisible());
    desktop.press(Qt::Key_1, Qt::NoModifier, desktop.list("Missing holdings"));
    desktop.settle();
    CHECK(desktop.text(figures).startsWith("No player is known yet"));

    const auto choose = [&](Qt::Key key, const BytePath& folder) {
        desktop.press(key, Qt::NoModifier, desktop.list(places));
        auto* dialog = desktop.window().findChild<QFileDialog*>();
        REQUIRE(dialog != nullptr);
        emit dialog->fileSelected(QString::fromStdString(folder));
        dialog->close();
        desktop.settle();
    };
    choose(Qt::Key_N, desktop.demo / "lists");
    CHECK(desktop.text(figures) == "lists: 2 of 2 references broken");
    choose(Qt::Key_L, desktop.demo / "shoebox");
    CHECK(desktop.cell(places, 0, "State") == "asked");
    CHECK(desktop.cell("Candidates", 0, "Tags") == "none");
    desktop.press(Qt::Key_T, Qt::NoModifier, desktop.list(places));
    desktop.settle();
    CHECK(desktop.text(figures) ==
          "lists: 2 of 2 references broken, 0 after this"); // the other follows by the rule

    desktop.press(Qt::Key_R, Qt::NoModifier, desktop.list(places));
    desktop.settle();
    CHECK(desktop.cell(places, 0, "State") == "to repoint");
    desktop.list(places)->selectAll();
    desktop.press(Qt::Key_A, Qt::NoModifier, desktop.list(places));
    desktop.settle();
    CHECK(desktop.cell(places, 0, "State") == "found");
    CHECK(desktop.text("What waits on the docket").startsWith("empty"));
    desktop.press(Qt::Key_R, Qt::NoModifier, desktop.list(places));
    desktop.settle();

    // Taken off in the docket's own window, one of both.
    desktop.press(Qt::Key_D, Qt::ControlModifier);
    desktop.settle();
    desktop.list("Actions on the docket")->selectRow(0);
    desktop.press(Qt::Key_Delete, Qt::NoModifier, desktop.list("Actions on the docket"));
    desktop.settle();
    CHECK(desktop.list("Actions on the docket")->model()->rowCount() == 1);
    CHECK(desktop.list("Lines of lists that change")->model()->rowCount() == 1);
    desktop.press(Qt::Key_Escape);
    CHECK(readFile(desktop.demo / "lists/evening.m3u8").find("shoebox") == std::string::npos);
}

TEST_CASE("a reference that will not last is led to the copy that stays, and the ledger takes it back") {
    PlayerDesktop desktop;
    const auto copied = desktop.demo / "GANNET/Desktop/for Wilfred/spring tide.flac";
    writeFile(desktop.list_, copied + "\n");
    desktop.workbench().readPlayers();
    desktop.settle();
    desktop.press(Qt::Key_3, Qt::NoModifier, desktop.list(places));
    desktop.settle();
    const QString troubled = "References that work today and should be looked at";
    REQUIRE(desktop.list(troubled)->model()->rowCount() == 2);
    CHECK(desktop.cell(troubled, 1, "What about it") == "not the one to keep");
    desktop.list(troubled)->selectRow(1);
    desktop.press(Qt::Key_R, Qt::NoModifier, desktop.list(troubled));
    desktop.settle();
    CHECK(desktop.cell(troubled, 1, "What about it") == "to repoint");
    desktop.workbench().carryOut();
    desktop.settle();
    CHECK(desktop.list(troubled)->model()->rowCount() == 0);
    CHECK(readFile(desktop.list_) != copied + "\n");
    CHECK(fs::exists(readFile(desktop.list_).substr(0, readFile(desktop.list_).size() - 1)));
    desktop.press(Qt::Key_6, Qt::AltModifier);
    desktop.settle();
    desktop.press(Qt::Key_T);
    desktop.settle();
    CHECK(readFile(desktop.list_) == copied + "\n");
}
