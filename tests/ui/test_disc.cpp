// The page about discs over the demo's scratched one: what it is, how it is read, the docket, the files on
// the disk; names that are chosen and changed, services that are set up, a reading that is stopped and gone
// on with.
#include "app/charts/disc_band.h"
#include "app/desks/disc/disc_desk.h"
#include "app/desks/disc/disc_services_window.h"
#include "app/desks/tags/tag_table_window.h"
#include "core/catalogue/docket_store.h"
#include "core/catalogue/service_store.h"
#include "support/run_program.h"
#include "support/running_service.h"
#include "ui/chart_probe.h"
#include "ui/desktop.h"

#include <QComboBox>
#include <QLineEdit>
#include <QPushButton>
#include <QTableView>

#include <catch2/catch.hpp>
#include <nlohmann/json.hpp>

#include <filesystem>

using namespace sober;
using namespace sober::test;
namespace fs = std::filesystem;

namespace {

struct DiscDesktop : Desktop {
    /// A surveyed collection in which the record of the disc is held, and a drive that misreads.
    DiscDesktop() : Desktop({{"GANNET", Effort::full}}) {
        setenv("SOBER_TRAY", UNSTEADY_TRAY, 1);
        press(Qt::Key_0, Qt::AltModifier);
        settle();
        press(Qt::Key_D);
        settle();
    }
    ~DiscDesktop() { unsetenv("SOBER_TRAY"); }
    app::DiscDesk& page() { return *app::visibleOf<app::DiscDesk>(window()); }
    /// The drive's faults, without the time that it takes.
    void hurry() {
        const auto table = demo / "DISC/KELP.faults";
        auto faults = readFile(table);
        faults.erase(faults.find("slow"), faults.find('\n', faults.find("slow")) - faults.find("slow") + 1);
        writeFile(table, faults);
    }
    void choose() {
        page().setDisc(demo / "DISC/KELP.cue");
        wait();
    }
    void wait() {
        REQUIRE(waitFor([&] { return !workbench().isBusy() && workbench().isIdle(); }, 90'000));
        settle();
    }
    QComboBox& names() { return *qobject_cast<QComboBox*>(find("What it is called")); }
    void push(QWidget& in, const QString& name) {
        for (auto* button : in.findChildren<QPushButton*>()) {
            if (button->accessibleName() == name || button->text() == name) {
                QTest::mouseClick(button, Qt::LeftButton);
            }
        }
        settle();
    }
};

} // namespace

TEST_CASE("a scratched disc is read, shown, and put in its place by the docket") {
    DiscDesktop desktop;
    const RunningService services(DISC_SERVICES, desktop.demo / "DISC");
    desktop.press(Qt::Key_S);
    desktop.settle();
    auto* window = app::visibleOf<app::DiscServicesWindow>(desktop.window());
    REQUIRE(window != nullptr);
    for (auto* line : window->findChildren<QLineEdit*>()) {
        line->setText(QString::fromStdString(services.address()) +
                      (line->accessibleName() == "Lookup" ? "/lookup" : "/register"));
    }
    desktop.push(*window, "Set up");
    desktop.hurry();
    desktop.choose();
    CHECK(desktop.list("Tracks")->model()->rowCount() == 6);
    CHECK(desktop.text("The disc").contains("as long as what is held in Kelp and Rosin"));
    CHECK(desktop.names().currentText().startsWith("Tidewrack Strings: Kelp and Rosin"));
    CHECK(desktop.names().count() >= 3); // by the collection, the lookup, the disc itself

    auto* band = app::visibleOf<app::DiscBand>(desktop.window());
    REQUIRE(band != nullptr);
    desktop.page().setTarget(desktop.demo / "GANNET/Discs");
    desktop.press(Qt::Key_R);
    desktop.wait();
    CHECK(desktop.text("Message").contains("The register proves an offset of 30 samples"));
    const auto truth = demoTruth().at("disc");
    for (int row = 0; row < 6; ++row) {
        CHECK(desktop.cell("Tracks", row, "As read") == (row == 2 ? "doubtful in 6 sectors" : "agreed"));
        CHECK(desktop.cell("Tracks", row, "Register") == (row == 2 ? "others differ" : "12 others got the same"));
    }
    CHECK(desktop.cell("Tracks", 0, "Held already").startsWith("01 Oyster Reel"));
    QTest::mouseClick(band, Qt::LeftButton, {},
                      QPoint(band->width() * truth.at("unread")[0].get<int>() / 4'575, 80));
    desktop.settle();
    CHECK(desktop.text("The chosen track").startsWith("3: "));
    CHECK(desktop.text("How the chosen track was read").contains("Doubtful at "));

    // Nothing has changed on the drive yet, and the docket carries it out.
    const auto folder = desktop.demo / "GANNET/Discs/Tidewrack Strings/Kelp and Rosin";
    CHECK_FALSE(fs::exists(folder));
    desktop.workbench().carryOut();
    desktop.wait();
    const auto first = folder + "/01 Oyster Reel.flac";
    REQUIRE(fs::exists(first));
    CHECK(run({"flac", "--silent", "--test", first}).code == 0);
    const auto raw = desktop.demo / "first.raw";
    REQUIRE(run({"flac", "--silent", "--decode", "--force-raw-format", "--endian=little", "--sign=signed",
                 "-o", raw, first})
                .code == 0);
    const auto bin = readFile(desktop.demo / "DISC/KELP.bin");
    const auto bytes = readFile(raw);
    CHECK((bytes == bin.substr(0, bytes.size())));
    CHECK(readFile(folder + "/how it was read.txt").find("never read") != std::string::npos);
    CHECK(fs::exists(folder + "/disc.cue"));
}

TEST_CASE("names are chosen and changed before a disc is read; a reading is stopped and gone on with") {
    DiscDesktop desktop;
    fs::remove(desktop.demo / "DISC/KELP.faults");
    writeFile(desktop.demo / "DISC/KELP.faults", "slow 20\n");
    desktop.choose();
    desktop.press(Qt::Key_N);
    desktop.settle();
    auto* window = app::visibleOf<app::TagTableWindow>(desktop.window());
    REQUIRE(window != nullptr);
    auto* cells = desktop.list("Tags, a row for each file")->model();
    const auto columnOf = [&](const QString& name) {
        for (int column = 0; column < cells->columnCount(); ++column) {
            if (cells->headerData(column, Qt::Horizontal).toString() == name) {
                return column;
            }
        }
        FAIL("no such column");
        return 0;
    };
    for (int row = 0; row < 6; ++row) {
        cells->setData(cells->index(row, columnOf("Album")), "Rosin");
        cells->setData(cells->index(row, columnOf("Disc")), "2/2");
    }
    cells->setData(cells->index(1, columnOf("Title")), "Stile: the crooked one");
    desktop.push(*window, "Take these names");
    CHECK(desktop.cell("Tracks", 1, "Title") == "Stile: the crooked one");
    desktop.list("Tracks")->setFocus();

    desktop.page().setTarget(desktop.demo / "GANNET/Discs");
    auto stopping = QObject::connect(&desktop.workbench(), &app::Workbench::discSectors, &desktop.workbench(),
                                     [&] { desktop.workbench().cancel(); });
    desktop.press(Qt::Key_R);
    desktop.wait();
    QObject::disconnect(stopping);
    CHECK(desktop.cell("Tracks", 5, "As read") == "not read yet");
    CHECK(DocketStore(*Catalogue::openForReading(desktop.demo.cataloguePath())).all()->empty());

    fs::remove(desktop.demo / "DISC/KELP.faults");
    desktop.press(Qt::Key_R);
    desktop.wait();
    CHECK(desktop.cell("Tracks", 5, "As read") == "agreed");
    // Read again under another name: what waited under the former is no longer on the docket.
    const auto waiting = [&] {
        return DocketStore(*Catalogue::openForReading(desktop.demo.cataloguePath())).all()->size();
    };
    CHECK(waiting() == 9);
    desktop.names().setCurrentIndex(1);
    emit desktop.names().activated(1);
    desktop.press(Qt::Key_R);
    desktop.wait();
    CHECK(waiting() == 9);
    desktop.names().setCurrentIndex(0);
    emit desktop.names().activated(0);
    desktop.press(Qt::Key_R);
    desktop.wait();
    CHECK(waiting() == 9);
    desktop.workbench().carryOut();
    desktop.wait();
    CHECK(fs::exists(desktop.demo / "GANNET/Discs/Tidewrack Strings/Rosin/2-02 Stile: the crooked one.flac"));
    desktop.press(Qt::Key_W);
    desktop.settle();
    CHECK(app::visibleOf<app::DiscDesk>(desktop.window()) ==
          nullptr); // what could be better has taken its place
}

TEST_CASE("what is no disc is a sentence, and nothing is begun") {
    DiscDesktop desktop;
    desktop.press(Qt::Key_R);
    CHECK(desktop.text("Message") == "Choose a disc first.");
    writeFile(desktop.demo / "DISC/none.cue", "FILE \"none.bin\" BINARY\n");
    desktop.page().setDisc(desktop.demo / "DISC/none.cue");
    desktop.wait();
    CHECK(desktop.text("Message").contains("is missing"));
    CHECK(desktop.list("Tracks")->model()->rowCount() == 0);
}
