// Intake's desk over the demo: an inbox is named, what lies there is judged, read through, taken in, and the
// disk is looked at.
#include "app/charts/arrival_chart.h"
#include "app/desks/ask_window.h"
#include "app/desks/intake/intake_window.h"
#include "app/desks/intake/replace_window.h"
#include "core/catalogue/docket_store.h"
#include "ui/chart_probe.h"
#include "ui/desktop.h"

#include <QComboBox>
#include <QFileDialog>
#include <QLineEdit>
#include <QPlainTextEdit>
#include <QPushButton>
#include <QTableView>

#include <catch2/catch.hpp>

#include <filesystem>
#include <map>

using namespace sober;
using namespace sober::test;
namespace fs = std::filesystem;

namespace {

struct IntakeDesktop : Desktop {
    IntakeDesktop() : Desktop({{"PETREL/Wireless", Effort::full}}) {
        fs::create_directories(demo / "SHAG");
        press(Qt::Key_0, Qt::AltModifier);
        settle();
    }
    /// `latest`: the list that is kept of the latest, "" for none.
    void nameInbox(const BytePath& latest) {
        press(Qt::Key_N);
        choose(demo / "DOWNLOADS");
        choose(demo / "SHAG");
        for (int asked = 0; asked < 2; ++asked) { // in which folders; which list is kept of the latest
            auto* window = app::visibleOf<app::AskWindow>(this->window());
            REQUIRE(window != nullptr);
            if (asked == 1) {
                window->findChild<QComboBox*>()->setEditText(QString::fromStdString(latest));
            }
            QTest::keyClick(window, Qt::Key_Return);
        }
        REQUIRE(waitFor([&] { return !workbench().isBusy() && workbench().isIdle(); }, 60'000));
        settle();
    }
    int rowOf(const QString& name) {
        auto* rows = list("Arrivals");
        for (int row = 0; row < rows->model()->rowCount(); ++row) {
            if (cell("Arrivals", row, "Arrival") == name) {
                return row;
            }
        }
        return -1;
    }
};

} // namespace

TEST_CASE("what lies in an inbox is judged as the truth file says, shown beside what is held, and taken in") {
    IntakeDesktop desktop;
    desktop.nameInbox(desktop.demo / "SHAG/Latest.m3u8");
    const std::map<std::string, QString> words{{"replace", "replaces what is held"},
                                               {"retire", "held already"},
                                               {"take-in", "take in"},
                                               {"leave", "to be looked at"}};
    const auto truth = demoTruth()["arrivals"];
    REQUIRE(desktop.list("Arrivals")->model()->rowCount() == static_cast<int>(truth.size()));
    for (const auto& [name, advice] : truth.items()) {
        INFO(name);
        const int row = desktop.rowOf(QString::fromStdString(name));
        REQUIRE(row >= 0);
        CHECK(desktop.cell("Arrivals", row, "Advice") == words.at(advice));
    }
    auto* chart = app::visibleOf<app::ArrivalChart>(desktop.window());
    const int march = desktop.rowOf("opening_march.flac");
    desktop.list("Arrivals")->selectRow(march);
    desktop.settle();
    CHECK(desktop.text("Why").startsWith("It is better than "));
    CHECK(app::tipAt(*chart, QPoint(300, 20 + 24 * march + 12)).startsWith("opening_march.flac: "));
    QTest::mouseClick(chart, Qt::LeftButton, {}, QPoint(300, 30));
    desktop.settle();
    CHECK(desktop.list("Arrivals")->selectionModel()->selectedRows().front().row() == 0);

    desktop.list("Arrivals")->setFocus();
    desktop.list("Arrivals")->selectRow(march);
    desktop.settle();
    const auto better = readFile(desktop.demo / "DOWNLOADS/opening_march.flac");
    desktop.press(Qt::Key_T);
    auto* window = desktop.window().findChild<app::IntakeWindow*>();
    REQUIRE(window != nullptr);
    CHECK(
        window->findChild<QPlainTextEdit*>()->toPlainText().contains("Opening March.mp3 goes to the trash"));
    CHECK(fs::exists(desktop.demo / "PETREL/Wireless/Opening March.mp3")); // nothing has changed yet
    for (auto* button : window->findChildren<QPushButton*>()) {
        if (button->accessibleName() == "Carry out") {
            QTest::mouseClick(button, Qt::LeftButton);
        }
    }
    REQUIRE(desktop.waitFor([&] { return !desktop.workbench().isBusy() && desktop.workbench().isIdle(); },
                            60'000));
    desktop.settle();
    INFO(desktop.text("Message").toStdString());
    CHECK_FALSE(fs::exists(desktop.demo / "DOWNLOADS/opening_march.flac"));
    CHECK_FALSE(fs::exists(desktop.demo / "PETREL/Wireless/Opening March.mp3"));
    std::size_t filed = 0;
    for (const auto& [path, content] : contentsBelow(desktop.demo / "SHAG")) {
        filed += content == better ? 1 : 0;
    }
    CHECK(filed == 1);
    CHECK(
        QString::fromStdString(readFile(desktop.demo / "SHAG/Latest.m3u8")).contains("Opening March.flac\n"));

    desktop.list("Arrivals")->setFocus();
    desktop.press(Qt::Key_Delete);
    desktop.settle();
    CHECK(desktop.list("Arrivals")->model()->rowCount() == 0);
    CHECK(fs::exists(desktop.demo / "DOWNLOADS/02 bucht.flac"));
}

TEST_CASE("an inbox needs no list; what is held is replaced by an arrival, and one is retired, by keys on "
          "the docket") {
    IntakeDesktop desktop;
    desktop.nameInbox({});
    REQUIRE(desktop.list("Arrivals")->model()->rowCount() == 6);
    const auto choose = [&](const QString& name) {
        desktop.list("Arrivals")->setFocus();
        desktop.list("Arrivals")->selectRow(desktop.rowOf(name));
        desktop.settle();
    };
    choose("quay dance.flac");
    desktop.press(Qt::Key_W);
    CHECK(desktop.text("Message") == "Nothing at hand is held of it.");
    desktop.press(Qt::Key_R);
    desktop.settle();
    choose("opening_march.flac");
    desktop.press(Qt::Key_W);
    auto* window = app::visibleOf<app::ReplaceWindow>(desktop.window());
    REQUIRE(window != nullptr);
    QPushButton* put = nullptr;
    for (auto* button : window->findChildren<QPushButton*>()) {
        put = button->accessibleName() == "Put on the docket" ? button : put;
    }
    REQUIRE(desktop.waitFor([&] { return put->isEnabled(); }));
    QTest::mouseClick(put, Qt::LeftButton);
    REQUIRE(desktop.waitFor([&] { return !desktop.workbench().isBusy() && desktop.workbench().isIdle(); },
                            60'000));
    const auto catalogue = Catalogue::openForReading(desktop.demo / "catalogue.sqlite");
    std::map<ActionKind, int> kinds;
    const auto waiting = DocketStore(*catalogue).all();
    for (const auto& action : *waiting) {
        ++kinds[action.kind];
    }
    CHECK(kinds.size() == 2);
    CHECK(kinds[ActionKind::retire] == 1);
    CHECK(kinds[ActionKind::replace] == 1);
    desktop.workbench().carryOut();
    REQUIRE(desktop.waitFor([&] { return !desktop.workbench().isBusy() && desktop.workbench().isIdle(); },
                            60'000));
    // At the place of what was held; the only copy of the other stays.
    CHECK(fs::exists(desktop.demo / "PETREL/Wireless/Opening March.flac"));
    CHECK_FALSE(fs::exists(desktop.demo / "PETREL/Wireless/Opening March.mp3"));
    CHECK(fs::exists(desktop.demo / "DOWNLOADS/quay dance.flac"));
}
