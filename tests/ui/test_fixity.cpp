#include "app/charts/block_map.h"
#include "app/charts/check_chart.h"
#include "core/catalogue/fixity_store.h"
#include "support/temp_folder.h"
#include "ui/desktop.h"

#include <QSpinBox>
#include <QTableView>

#include <catch2/catch.hpp>
#include <sys/stat.h>

#include <fcntl.h>

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
    CHECK(*FixityStore(*reader).periodOf(1) == 30);
    const auto checks = FixityStore(*reader).checks();
    REQUIRE(checks->size() == 6); // each volume whole, then each as due
    CHECK(std::ranges::all_of(*checks, [](const FixityCheck& check) { return check.ended != 0; }));
}
