#include "app/charts/block_map.h"
#include "app/charts/check_chart.h"
#include "core/base/user_folders.h"
#include "core/catalogue/fixity_store.h"
#include "support/temp_folder.h"
#include "ui/desktop.h"

#include <QComboBox>
#include <QFileDialog>
#include <QLineEdit>
#include <QPlainTextEdit>
#include <QSpinBox>
#include <QTableView>

#include <catch2/catch.hpp>
#include <sys/stat.h>

#include <fcntl.h>
#include <filesystem>
#include <unistd.h>

using namespace sober;
using namespace sober::test;

namespace {

const QString drifted = "Holdings that are not what was recorded";

/// Some bytes of a file become others while its size and times stay.
void damageSilently(const BytePath& path, std::size_t at) {
    struct stat status {};
    REQUIRE(stat(path.c_str(), &status) == 0);
    auto content = readFile(path);
    content.replace(at, 6, "damage");
    writeFile(path, content);
    const timespec times[2] = {status.st_atim, status.st_mtim};
    REQUIRE(utimensat(AT_FDCWD, path.c_str(), times, 0) == 0);
}

/// The demo, surveyed; then one file damaged of which there is a copy, and one without.
struct FixityDesktop : Desktop {
    FixityDesktop() {
        before = readFile(copied);
        damageSilently(copied, 1'200'000);
        damageSilently(alone, 5000);
        press(Qt::Key_4, Qt::AltModifier);
    }
    int rowOf(const QString& ending) {
        for (int row = 0; row < list(drifted)->model()->rowCount(); ++row) {
            if (cell(drifted, row, "File").endsWith(ending)) {
                return row;
            }
        }
        FAIL("nothing drifted ends in " << ending.toStdString());
        return -1;
    }
    BytePath copied = demo / "PETREL/Archive/2016 Signals and Shore/05.wav";
    BytePath alone = demo / "PETREL/Inbox/From a swap meet/01 Sea Wall March.flac";
    std::string before;
};

} // namespace

TEST_CASE("a verification finds what changed by itself, shows where, and a healthy copy mends it") {
    FixityDesktop desktop;
    CHECK(desktop.list(drifted)->model()->rowCount() == 0);
    desktop.press(Qt::Key_V);
    REQUIRE(desktop.waitFor([&] { return desktop.text("Message").startsWith("Verified: "); }));
    desktop.settle();
    REQUIRE(desktop.list(drifted)->model()->rowCount() == 2);
    const int row = desktop.rowOf("05.wav");
    CHECK(desktop.cell(drifted, row, "What happened") == "silent change");
    CHECK(desktop.cell(drifted, row, "Healthy copies") == "1");
    CHECK(desktop.cell(drifted, desktop.rowOf("01 Sea Wall March.flac"), "Healthy copies") == "none at hand");
    desktop.list(drifted)->selectRow(row);
    desktop.settle();
    CHECK(desktop.text("What happened").startsWith("Bits changed by themselves"));
    const QString bytes = desktop.text("Bytes around the first difference");
    CHECK(bytes.contains("now, from byte 1,200,000"));
    CHECK(bytes.contains("64</span></b> <b><span style=\"color:#9b2f2a\">61")); // "da" of "damage"
    const auto map = desktop.window().findChild<app::BlockMap*>()->grab().toImage();

    desktop.list(drifted)->selectRow(desktop.rowOf("01 Sea Wall March.flac"));
    desktop.settle();
    CHECK(desktop.window().findChild<app::BlockMap*>()->grab().toImage() != map);
    desktop.press(Qt::Key_R);
    CHECK(desktop.text("What happened").startsWith("No copy at hand holds what was recorded"));
    CHECK(desktop.text("What waits on the docket").startsWith("empty"));

    desktop.list(drifted)->selectRow(desktop.rowOf("05.wav"));
    desktop.settle();
    desktop.press(Qt::Key_R);
    CHECK(desktop.cell(drifted, desktop.rowOf("05.wav"), "On the docket") == "restore");
    CHECK(readFile(desktop.copied) != desktop.before);
    desktop.press(Qt::Key_D, Qt::ControlModifier);
    desktop.press(Qt::Key_Return, Qt::ControlModifier, desktop.find("Actions on the docket"));
    REQUIRE(desktop.waitFor([&] { return desktop.text("Outcome").startsWith("Carried out: 1 action"); }));
    CHECK(readFile(desktop.copied) == desktop.before);
    desktop.press(Qt::Key_Escape, Qt::NoModifier, desktop.find("Actions on the docket"));
    CHECK(desktop.list(drifted)->model()->rowCount() == 1);
}

TEST_CASE("a change is accepted with a reason, and not before the docket is carried out") {
    FixityDesktop desktop;
    desktop.press(Qt::Key_V);
    REQUIRE(desktop.waitFor([&] { return desktop.text("Message").startsWith("Verified: "); }));
    desktop.settle();
    desktop.list(drifted)->selectRow(desktop.rowOf("01 Sea Wall March.flac"));
    desktop.settle();
    desktop.press(Qt::Key_A);
    CHECK_FALSE(
        desktop.button("Put on the docket")->isEnabled()); // bits changed by themselves: no reason is offered
    auto* reason = static_cast<QComboBox*>(desktop.find("Accept the change"))->lineEdit();
    QTest::keyClicks(reason, "no other copy is left");
    desktop.click(desktop.button("Put on the docket"));
    CHECK(desktop.list(drifted)->model()->rowCount() == 2);
    CHECK(desktop.cell(drifted, desktop.rowOf("01 Sea Wall March.flac"), "On the docket") == "accept");
    desktop.press(Qt::Key_D, Qt::ControlModifier);
    desktop.press(Qt::Key_Return, Qt::ControlModifier, desktop.find("Actions on the docket"));
    REQUIRE(desktop.waitFor([&] { return desktop.text("Outcome").startsWith("Carried out: 1 action"); }));
    desktop.press(Qt::Key_Escape, Qt::NoModifier, desktop.find("Actions on the docket"));
    CHECK(desktop.list(drifted)->model()->rowCount() == 1);
    // What is due is nothing: all was read just now.
    desktop.press(Qt::Key_D);
    REQUIRE(desktop.waitFor([&] { return desktop.text("Message").startsWith("Verified: 0 holdings read"); }));
    desktop.settle();
    auto* period = static_cast<QSpinBox*>(desktop.find("Days after which a holding is due to be read again"));
    CHECK(period->value() == 180);
    desktop.click(period);
    period->selectAll();
    QTest::keyClicks(period, "30");
    desktop.press(Qt::Key_Return, Qt::NoModifier, period);
    desktop.settle();
    const auto reader = Catalogue::openForReading(desktop.demo.cataloguePath());
    for (const VolumeId volume : {1, 2, 3}) {
        CHECK(*FixityStore(*reader).periodOf(volume) == 30);
    }
    auto* whose = static_cast<QComboBox*>(desktop.find("Whose period"));
    whose->setFocus();
    desktop.press(Qt::Key_Down, Qt::NoModifier, whose);
    CHECK(whose->currentText().startsWith("GANNET ("));
    desktop.click(period);
    period->selectAll();
    QTest::keyClicks(period, "90");
    desktop.press(Qt::Key_Return, Qt::NoModifier, period);
    desktop.settle();
    CHECK(*FixityStore(*reader).periodOf(1) == 90);
    CHECK(*FixityStore(*reader).periodOf(2) == 30);
    desktop.press(Qt::Key_Up, Qt::NoModifier, whose);
    CHECK(period->value() == 90); // of all of them the longest
    const auto checks = FixityStore(*reader).checks();
    REQUIRE(checks->size() == 6); // each volume whole, then each as due
    CHECK(std::ranges::all_of(*checks, [](const FixityCheck& check) { return check.ended != 0; }));
}

TEST_CASE("what was never sound is listed with its seconds, and stray bytes are left out on request") {
    Desktop desktop(false);
    desktop.workbench().survey({{desktop.demo / "PETREL", {}, {}, Effort::full}});
    desktop.settle();
    const QString unsound = "Holdings that were never sound";
    const auto march = desktop.demo / "PETREL/Wireless/Opening March.mp3";
    const auto before = readFile(march);
    desktop.press(Qt::Key_4, Qt::AltModifier);
    auto* which = static_cast<QComboBox*>(desktop.find("Which holdings"));
    CHECK(which->itemText(1).endsWith("(3)"));
    which->setFocus();
    desktop.press(Qt::Key_Down, Qt::NoModifier, which);
    desktop.settle();
    REQUIRE(desktop.list(unsound)->model()->rowCount() == 3);
    // The unsound first: a FLAC that was cut short.
    CHECK(desktop.cell(unsound, 0, "File") == "Wireless/Evening Hymn.flac");
    CHECK(desktop.text("What happened").contains("ends too early"));
    desktop.list(unsound)->selectRow(2);
    desktop.settle();
    CHECK(desktop.cell(unsound, 2, "What is wrong") == "drops out");
    CHECK(desktop.cell(unsound, 2, "At") == "3.0 s");
    desktop.press(Qt::Key_R);
    CHECK(desktop.text("What happened").startsWith("It was like this when it was recorded."));
    desktop.list(unsound)->selectRow(1);
    desktop.settle();
    CHECK(desktop.text("What happened")
              .startsWith("junk beside the audio at 6.0 s: 1,300 bytes after the last frame"));
    desktop.press(Qt::Key_R);
    desktop.settle();
    CHECK(desktop.cell(unsound, 1, "On the docket") == "rewrite");
    CHECK((readFile(march) == before));
    desktop.press(Qt::Key_D, Qt::ControlModifier);
    desktop.press(Qt::Key_Return, Qt::ControlModifier, desktop.find("Actions on the docket"));
    REQUIRE(desktop.waitFor([&] { return desktop.text("Outcome").startsWith("Carried out: 1 action"); }));
    CHECK(readFile(march).size() == before.size() - 1300);
    desktop.press(Qt::Key_Escape, Qt::NoModifier, desktop.find("Actions on the docket"));
    desktop.settle();
    CHECK(desktop.list(unsound)->model()->rowCount() == 2);
    desktop.press(Qt::Key_6, Qt::AltModifier);
    desktop.press(Qt::Key_T);
    REQUIRE(desktop.waitFor([&] { return desktop.text("Message").startsWith("Taken back: 1 action"); }));
    CHECK((readFile(march) == before));
}

TEST_CASE("what is missing is found in a folder that is no volume, and brought back from Whereabouts") {
    Desktop desktop;
    const auto place = desktop.demo / "PETREL/Inbox/Reading Room, take 1.flac";
    const auto content = readFile(place);
    std::filesystem::create_directories(desktop.demo / "backup");
    std::filesystem::rename(place, desktop.demo / "backup/unnamed");
    desktop.press(Qt::Key_F5);
    desktop.settle();
    desktop.press(Qt::Key_1, Qt::AltModifier);
    CHECK(desktop.button("Track down 1 missing holding") != nullptr);
    desktop.press(Qt::Key_4, Qt::AltModifier);
    desktop.press(Qt::Key_L);
    auto* dialog = desktop.window().findChild<QFileDialog*>();
    REQUIRE(dialog != nullptr);
    auto* line = dialog->findChild<QLineEdit*>("fileNameEdit");
    REQUIRE(line != nullptr);
    line->setText(QString::fromStdString(desktop.demo / "backup"));
    QTest::keyClick(line, Qt::Key_Return);
    REQUIRE(
        desktop.waitFor([&] { return desktop.text("Message").startsWith("Looked through 1 file: 1 copy"); }));
    desktop.press(Qt::Key_5, Qt::AltModifier);
    const QString missing = "Missing holdings";
    REQUIRE(desktop.list(missing)->model()->rowCount() == 1);
    CHECK(desktop.cell(missing, 0, "Same bytes at").endsWith("backup/unnamed"));
    desktop.press(Qt::Key_R);
    desktop.settle();
    CHECK(desktop.cell(missing, 0, "State") == "to bring back");
    CHECK(access(place.c_str(), F_OK) != 0);
    desktop.press(Qt::Key_D, Qt::ControlModifier);
    desktop.press(Qt::Key_Return, Qt::ControlModifier, desktop.find("Actions on the docket"));
    REQUIRE(desktop.waitFor([&] { return desktop.text("Outcome").startsWith("Carried out: 1 action"); }));
    CHECK((readFile(place) == content));
    desktop.press(Qt::Key_Escape, Qt::NoModifier, desktop.find("Actions on the docket"));
    CHECK(desktop.list(missing)->model()->rowCount() == 0);
}

TEST_CASE("Condition leads to what drifted; the scheduled check is shown whole, written and removed") {
    FixityDesktop desktop;
    desktop.press(Qt::Key_V);
    REQUIRE(desktop.waitFor([&] { return desktop.text("Message").startsWith("Verified: "); }));
    desktop.settle();
    desktop.press(Qt::Key_1, Qt::AltModifier);
    desktop.click(desktop.button("Look at 2 holdings that are no longer what was recorded"));
    CHECK(desktop.list(drifted)->isVisible());

    const auto folder = joinPath(configHome(), "systemd/user");
    desktop.press(Qt::Key_T, Qt::ControlModifier);
    auto* files = static_cast<QPlainTextEdit*>(desktop.find("The files"));
    CHECK(files->toPlainText().contains("verify --due --notify"));
    CHECK(files->toPlainText().contains("OnCalendar=weekly"));
    CHECK_FALSE(std::filesystem::exists(folder + "/sober-archivist-check.timer"));
    auto* often = desktop.find("How often");
    desktop.press(Qt::Key_Up, Qt::NoModifier, often);
    CHECK(files->toPlainText().contains("OnCalendar=daily"));
    desktop.click(desktop.button("Install it"));
    CHECK(readFile(folder + "/sober-archivist-check.timer").find("OnCalendar=daily") != std::string::npos);
    CHECK_FALSE(often->isEnabled());
    desktop.click(desktop.button("Remove it"));
    CHECK(desktop.text("Whether a check is scheduled") == "No check is scheduled.");
    CHECK(std::filesystem::is_empty(folder));
}
