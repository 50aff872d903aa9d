#include "app/charts/transfer_chart.h"
#include "core/base/user_folders.h"
#include "core/catalogue/docket_store.h"
#include "core/catalogue/player_store.h"
#include "core/remedy/docket/review.h"
#include "ui/chart_probe.h"
#include "ui/desktop.h"

#include <QComboBox>
#include <QLineEdit>
#include <QTableView>

#include <catch2/catch.hpp>

#include <filesystem>

using namespace sober;
using namespace sober::test;
namespace fs = std::filesystem;

namespace {

const QString sources = "What can come along";
const QString changes = "What the transfer changes";

struct TransferDesktop : Desktop {
    TransferDesktop() {
        Player player;
        player.name = "tern-player";
        player.places = {demo / "TERN/LISTS"};
        workbench().takeInPlayer(player);
        settle();
        press(Qt::Key_8, Qt::AltModifier);
        settle();
    }
    /// Takes the line with these words in, or out again.
    void toggle(const QString& words) {
        auto* lines = list(sources);
        for (int row = 0; row < lines->model()->rowCount(); ++row) {
            if (lines->model()->index(row, 0).data().toString() == words) {
                lines->setFocus();
                lines->selectRow(row);
                press(Qt::Key_Space);
                return;
            }
        }
        FAIL("no line " << words.toStdString());
    }
    void choose(const QString& box, const QString& words) {
        auto* combo = static_cast<QComboBox*>(find(box));
        const int index = combo->findText(words);
        REQUIRE(index >= 0);
        combo->setFocus();
        while (combo->currentIndex() < index) {
            QTest::keyClick(combo, Qt::Key_Down);
        }
        while (combo->currentIndex() > index) {
            QTest::keyClick(combo, Qt::Key_Up);
        }
    }
    void type(const QString& line, const QString& words) {
        auto* edit = static_cast<QLineEdit*>(find(line));
        edit->setFocus();
        edit->selectAll();
        QTest::keyClick(edit, Qt::Key_Delete);
        QTest::keyClicks(edit, words);
    }
    void planned() {
        QTest::qWait(300); // the pause after the last key
        settle();
    }
    QString figures() { return text("What comes along, in figures"); }
    QString done() { return find("How far it has come")->accessibleDescription(); }
    BytePath card() const { return demo / "CARD"; }
};

} // namespace

TEST_CASE("a list goes to a card from the desk: planned, run, proven, and the old put on the docket") {
    TransferDesktop desktop;
    CHECK(desktop.figures().startsWith("Choose on the left"));
    CHECK_FALSE(desktop.button("Run")->isEnabled());
    // No key does anything yet.
    for (const auto key : {Qt::Key_G, Qt::Key_V, Qt::Key_L, Qt::Key_E, Qt::Key_Delete}) {
        desktop.press(key);
    }
    CHECK(desktop.text("What waits on the docket").startsWith("empty"));
    desktop.toggle("the list Bus ride.m3u8");
    CHECK(desktop.figures().startsWith("Say on the right where to"));
    desktop.type("The folder or drive that it goes to", QString::fromStdString(desktop.card()));
    desktop.choose("What it can hold", "a card with FAT32");
    desktop.choose("In which order", "in an order by tags");
    desktop.planned();
    CHECK(desktop.figures().contains("it fits"));
    const int rows = desktop.button("All ")->text().mid(4).toInt();
    REQUIRE(rows > 0);
    CHECK_FALSE(fs::exists(desktop.card())); // nothing has changed

    // A device that is too small for it; then as it is again.
    desktop.type("Room on a device that is not here, in megabytes", "0.01");
    desktop.planned();
    CHECK(desktop.figures().contains("it does not fit"));
    CHECK_FALSE(desktop.button("Run")->isEnabled());
    desktop.type("Room on a device that is not here, in megabytes", "");
    // Characters that the card cannot hold stand there as one says, and paths are no longer than its player
    // reads.
    desktop.click(desktop.button("Characters…"));
    auto* colon = static_cast<QLineEdit*>(desktop.find("What stands for :"));
    colon->setFocus();
    colon->selectAll();
    QTest::keyClicks(colon, "/~"); // a slash would part the name
    CHECK(colon->text() == "~");
    desktop.click(desktop.button("Use these"));
    desktop.type("The order, from its parts", "\"a:b\" / title");
    CHECK(desktop.text("What files will be called").contains("→ a~b/"));
    desktop.type("The longest path that the player reads, in characters", "20");
    desktop.planned();
    desktop.click(desktop.button("All "));
    CHECK(desktop.cell(changes, 0, "At the new place").size() <= 20);
    desktop.type("The longest path that the player reads, in characters", "");
    // The order is shown on what comes while it is typed.
    desktop.type("The order, from its parts", "\"Tonight\" / track.3 \" \" title");
    CHECK(desktop.text("What files will be called").contains("→ Tonight/0"));
    desktop.type("The order, from its parts", "\"Tonight\" /");
    CHECK(desktop.text("What files will be called").startsWith("The layout is wrong"));
    desktop.type("The order, from its parts", "\"Tonight\" / track.3 \" \" title");
    desktop.planned();
    desktop.click(desktop.button("All "));
    CHECK(desktop.cell(changes, 0, "At the new place").startsWith("Tonight/"));
    desktop.click(desktop.button("Does not come"));
    desktop.click(desktop.button("Lists "));
    CHECK(desktop.cell(changes, 0, "At the new place") == "Bus ride.m3u8");

    desktop.list(sources)->setFocus();
    desktop.press(Qt::Key_G);
    REQUIRE(desktop.waitFor([&] { return desktop.done() == "planned, copied"; }));
    CHECK(fs::exists(desktop.card() + "/Bus ride.m3u8"));
    CHECK(fs::exists(desktop.card() + "/Tonight"));
    const auto files = contentsBelow(desktop.card());
    CHECK(files.size() >= static_cast<std::size_t>(rows) + 2);

    desktop.press(Qt::Key_V);
    REQUIRE(desktop.waitFor([&] { return desktop.done() == "planned, copied, proven"; }));
    CHECK(desktop.text("Message").startsWith("The proof holds"));
    CHECK(fs::exists(desktop.demo / "proofs/transfer-1/report.html"));
    desktop.press(Qt::Key_L);
    desktop.settle();
    CHECK(desktop.text("What waits on the docket").startsWith(QString::number(rows)));
    CHECK((contentsBelow(desktop.card()) == files));

    // It is found again after a start, and a new one can be begun beside it.
    desktop.restart();
    desktop.press(Qt::Key_8, Qt::AltModifier);
    desktop.settle();
    auto* which = static_cast<QComboBox*>(desktop.find("Which transfer"));
    CHECK(which->count() == 2);
    which->setFocus();
    QTest::keyClick(which, Qt::Key_Down);
    REQUIRE(desktop.waitFor([&] { return desktop.done() == "planned, copied, proven"; }));
    QTest::keyClick(which, Qt::Key_Up);
    desktop.settle();
    CHECK(desktop.done() == "not begun");

    // Of what another list does not name, what lies there goes where the docket is carried out.
    desktop.workbench().decide([](const Catalogue& known) { return DocketStore(known).clear(); });
    desktop.settle();
    desktop.toggle("the list Ringers.m3u8");
    desktop.type("The folder or drive that it goes to", QString::fromStdString(desktop.card()));
    desktop.planned();
    CHECK(desktop.figures().contains(QString("%1 there would be no longer chosen").arg(rows)));
    desktop.list(sources)->setFocus();
    desktop.press(Qt::Key_E);
    desktop.settle();
    const auto catalogue = Catalogue::openForReading(desktop.demo.cataloguePath());
    REQUIRE(catalogue.ok());
    const auto waiting = *DocketStore(*catalogue).all();
    CHECK(waiting.size() == static_cast<std::size_t>(rows));
    const auto review = *reviewDocket(*catalogue);
    CHECK(std::ranges::all_of(review.actions, [&](const PlannedAction& planned) {
        return planned.action.kind == ActionKind::retire && !planned.refused &&
               isWithin(planned.path, desktop.card());
    }));
    CHECK((contentsBelow(desktop.card()) == files));
}

TEST_CASE("a plan is kept for later; what no list names is taken in by a key; what was found comes along") {
    TransferDesktop desktop;
    desktop.toggle("the list Bus ride.m3u8");
    desktop.type("The folder or drive that it goes to", QString::fromStdString(desktop.card()));
    desktop.planned();
    const int without = desktop.button("All ")->text().mid(4).toInt();
    CHECK(desktop.figures().contains("in no list would be left behind"));
    desktop.list(sources)->setFocus();
    desktop.press(Qt::Key_U);
    desktop.planned();
    CHECK(desktop.button("All ")->text().mid(4).toInt() > without);
    CHECK_FALSE(desktop.figures().contains("left behind"));
    desktop.press(Qt::Key_U);
    desktop.planned();
    desktop.press(Qt::Key_S, Qt::ControlModifier);
    REQUIRE(desktop.waitFor([&] { return desktop.done() == "planned"; }));
    CHECK_FALSE(fs::exists(desktop.card()));
    CHECK(desktop.button("Run")->isEnabled());
    CHECK_FALSE(desktop.button("Prove")->isEnabled());
    desktop.press(Qt::Key_Delete);
    REQUIRE(desktop.waitFor([&] { return desktop.done() == "not begun"; }));
    CHECK(static_cast<QComboBox*>(desktop.find("Which transfer"))->count() == 1);

    desktop.press(Qt::Key_F, Qt::ControlModifier);
    desktop.settle();
    auto* line = static_cast<QLineEdit*>(desktop.find("Words to find"));
    QTest::keyClicks(line, "polka");
    QTest::qWait(150);
    desktop.settle();
    desktop.list("What was found")->setFocus();
    desktop.press(Qt::Key_B);
    desktop.planned();
    CHECK(desktop.cell(sources, 0, "What comes along") == "found: polka");
    CHECK(desktop.figures().contains("come along"));
}

TEST_CASE("a drive is put in order where it lies, and the folders that are left empty are named and go") {
    TransferDesktop desktop;
    desktop.toggle("all of PETREL (3)");
    desktop.type("The folder or drive that it goes to", QString::fromStdString(desktop.demo / "PETREL"));
    desktop.choose("What becomes of the old", "Put in order in place, by renames");
    desktop.choose("In which order", "in an order by tags");
    desktop.planned();
    CHECK(desktop.figures().contains("3 folders left empty, for the trash"));
    desktop.click(desktop.button("Folders left empty 3"));
    const auto folder = desktop.cell(changes, 0, "At the new place").toStdString();
    CHECK(desktop.cell(changes, 0, "What and why") == "no file is left in it: it goes to the trash");
    REQUIRE(fs::is_directory(folder));
    desktop.list(sources)->setFocus();
    desktop.press(Qt::Key_G);
    REQUIRE(desktop.waitFor([&] { return desktop.done() == "planned, copied"; }));
    CHECK_FALSE(fs::exists(folder));
    CHECK(fs::is_directory(dataHome() + "/Trash/files/" + std::string(nameOf(folder))));
}

TEST_CASE("the chart of a transfer says what each place holds, and what does not fit") {
    app::TransferChart chart;
    app::TransferChart::Place from{"GANNET", false, true, 100'000'000, 40'000'000, 0, true};
    app::TransferChart::Place to{"CARD", true, true, 0, 40'000'000, 30'000'000, true};
    chart.setPlaces({from, to}, 0, false);
    app::pixelsOf(chart, 900);
    std::set<QString> values;
    for (int x = 0; x < 900; x += 4) {
        for (int y = 20; y < chart.height(); y += 8) {
            values.insert(app::tipAt(chart, {x, y}));
        }
    }
    CHECK(values.contains("GANNET: 40.0 MB that come along"));
    CHECK(values.contains("GANNET: 40.0 MB that are here and at the new place"));
    CHECK(values.contains("GANNET: 40.0 MB that can go once the new place is proven"));
    CHECK(values.contains("CARD: 10.0 MB that do not fit"));
    CHECK(values.contains("CARD: 30.0 MB that arrive"));
}
