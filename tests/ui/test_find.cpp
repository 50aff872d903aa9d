#include "app/charts/hits_chart.h"
#include "app/lists/dragged.h"
#include "core/catalogue/docket_store.h"
#include "core/catalogue/standing_lists.h"
#include "core/catalogue/volumes.h"
#include "support/run_program.h"
#include "support/temp_folder.h"
#include "ui/chart_probe.h"
#include "ui/desktop.h"

#include <QCheckBox>
#include <QComboBox>
#include <QDropEvent>
#include <QLineEdit>
#include <QListView>
#include <QPushButton>
#include <QRegularExpression>
#include <QSignalSpy>
#include <QTableView>
#include <QTreeView>

#include <catch2/catch.hpp>

#include <filesystem>

using namespace sober;
using namespace sober::test;
namespace fs = std::filesystem;

namespace {

const QString foundList = "What was found";
const QString placesTree = "Volumes and their folders";

struct FindingDesktop : Desktop {
    FindingDesktop() { press(Qt::Key_F, Qt::ControlModifier); }

    int found() { return list(foundList)->model()->rowCount(); }
    void type(const QString& words) {
        auto* line = find("Words to find");
        line->setFocus();
        QTest::keyClick(line, Qt::Key_A, Qt::ControlModifier);
        QTest::keyClick(line, Qt::Key_Delete);
        QTest::keyClicks(line, words);
        QTest::qWait(150); // the pause after typing
        settle();
    }
    QTreeView& tree() { return *static_cast<QTreeView*>(find(placesTree)); }
    QModelIndex placeOf(const QString& name, const QModelIndex& parent = {}) {
        auto* model = tree().model();
        for (int row = 0; row < model->rowCount(parent); ++row) {
            if (model->index(row, 0, parent).data().toString().startsWith(name)) {
                return model->index(row, 0, parent);
            }
        }
        FAIL("no place " << name.toStdString());
        return {};
    }
    void choosePlace(const QModelIndex& index) {
        QTest::mouseClick(tree().viewport(), Qt::LeftButton, Qt::NoModifier,
                          tree().visualRect(index).center());
        settle();
    }
};

} // namespace

TEST_CASE("words find what is called so, on volumes that are away too, and say how to reach it") {
    FindingDesktop desktop;
    CHECK(desktop.find("Words to find")->hasFocus());
    const int all = desktop.found();
    CHECK(all > 200);
    desktop.type("REGATTA");
    REQUIRE(desktop.found() == 2);
    CHECK(desktop.text("How many were found") == "2 holdings");
    // What is typed into the line is never taken for a key of the desk.
    CHECK(static_cast<QLineEdit*>(desktop.find("Words to find"))->text() == "REGATTA");
    desktop.type("regatta zzz");
    CHECK(desktop.found() == 0);

    fs::rename(desktop.demo / "TERN", desktop.demo / "pulled");
    desktop.workbench().lookForVolumes();
    desktop.settle();
    desktop.type("regatta");
    REQUIRE(desktop.found() == 2);
    auto* view = desktop.list(foundList);
    for (int row = 0; row < 2; ++row) {
        if (desktop.cell(foundList, row, "Volume").startsWith("TERN (")) {
            view->selectRow(row);
        }
    }
    desktop.settle();
    CHECK(desktop.text("How to reach it")
              .contains(QRegularExpression("^on TERN \\(No\\. [0-9]+\\), away since ")));
    CHECK(desktop.text("Where it lies").contains("MUSIC"));
    CHECK(
        desktop.placeOf("TERN").data().toString().contains(QRegularExpression("^TERN \\([0-9]+\\), away$")));
}

TEST_CASE("a search is narrowed by place, boxes and spans, and kept as a standing list") {
    FindingDesktop desktop;
    const int all = desktop.found();
    const auto petrel = desktop.placeOf("PETREL");
    desktop.choosePlace(petrel);
    const int onPetrel = desktop.found();
    CHECK(onPetrel < all);
    CHECK(desktop.placeOf("PETREL").siblingAtColumn(1).data().toInt() <= onPetrel);
    desktop.tree().expand(desktop.placeOf("PETREL"));
    desktop.settle();
    desktop.choosePlace(desktop.placeOf("Archive", desktop.placeOf("PETREL")));
    const int inArchive = desktop.found();
    CHECK(inArchive < onPetrel);
    CHECK(desktop.placeOf("Archive", desktop.placeOf("PETREL")).siblingAtColumn(1).data().toInt() ==
          inArchive);
    desktop.choosePlace(desktop.placeOf("everything"));
    CHECK(desktop.found() == all);

    auto* codec = static_cast<QComboBox*>(desktop.find("Only of a codec"));
    auto* bitrate = static_cast<QLineEdit*>(desktop.find("Only within: kbit/s"));
    QTest::keyClicks(bitrate, "1-192");
    QTest::qWait(150);
    desktop.settle();
    const int low = desktop.found();
    CHECK(low > 0);
    CHECK(low < all);
    QTest::keyClicks(bitrate, "x");
    QTest::qWait(150);
    desktop.settle();
    CHECK(desktop.text("How many were found").startsWith("A span is FROM-TO"));
    QTest::keyClick(bitrate, Qt::Key_Backspace);
    QTest::qWait(150);
    desktop.settle();
    CHECK(desktop.found() == low);
    CHECK(codec->count() > 3);

    desktop.type("polka");
    const int polkas = desktop.found();
    REQUIRE(polkas > 0);
    desktop.click(desktop.button("Keep as list"));
    auto* asking = QApplication::activeModalWidget();
    REQUIRE(asking != nullptr);
    QTest::keyClick(asking->focusWidget(), Qt::Key_Return);
    desktop.settle();
    const auto catalogue = Catalogue::openForReading(desktop.demo.cataloguePath());
    const auto lists = StandingLists(*catalogue).all();
    const auto kept = std::ranges::find(*lists, "polka", &StandingList::name);
    REQUIRE(kept != lists->end());
    CHECK(kept->filter.bitrate == Span<std::int64_t>{1'000, 192'000});
    CHECK(kept->filter.text == "polka");

    // Used again without a word typed it finds the same.
    bitrate->clear();
    desktop.type("");
    CHECK(desktop.found() == all);
    auto* box = static_cast<QComboBox*>(desktop.find("Narrow to a standing list"));
    box->setCurrentIndex(box->findText("polka"));
    desktop.settle();
    CHECK(desktop.found() == polkas);
}

TEST_CASE("what was found goes on the docket and off again by keys") {
    FindingDesktop desktop;
    desktop.type("\"fog_signal_polka\"");
    REQUIRE(desktop.found() == 1);
    const auto path = desktop.demo / "GANNET/Downloads/fog_signal_polka.wav";
    REQUIRE(fs::exists(path));
    desktop.press(Qt::Key_Down);
    CHECK(desktop.list(foundList)->hasFocus());
    desktop.press(Qt::Key_R);
    CHECK(desktop.cell(foundList, 0, "State") == "to retire");
    desktop.press(Qt::Key_U);
    CHECK(desktop.cell(foundList, 0, "State") != "to retire");
    CHECK(fs::exists(path));
}

TEST_CASE("what was found is moved by a key, under another name, and the disk follows the docket") {
    FindingDesktop desktop;
    desktop.type("\"fog_signal_polka\"");
    REQUIRE(desktop.found() == 1);
    desktop.press(Qt::Key_Down);
    desktop.press(Qt::Key_M);
    auto* window = QApplication::activeModalWidget();
    REQUIRE(window != nullptr);
    desktop.settle();
    CHECK(desktop.text("Where it will be").startsWith("It is there now."));
    CHECK_FALSE(desktop.button("Put on the docket")->isEnabled());
    auto* name = static_cast<QLineEdit*>(desktop.find("Under the name"));
    auto* below = static_cast<QLineEdit*>(desktop.find("New folder below it"));
    name->setText("");
    CHECK_FALSE(desktop.button("Put on the docket")->isEnabled());
    name->setText("Fog Signal Polka.wav");
    below->setText("../above");
    CHECK_FALSE(desktop.button("Put on the docket")->isEnabled());
    below->setText("Sorted/Band");
    CHECK(desktop.text("Where it will be") == "in GANNET/Downloads/Sorted/Band/Fog Signal Polka.wav");
    desktop.click(desktop.button("Put on the docket"));
    CHECK(desktop.cell(foundList, 0, "State") == "to move");
    // Read through, the docket says where to.
    desktop.press(Qt::Key_D, Qt::ControlModifier);
    CHECK(desktop.cell("Actions on the docket", 0, "Why") ==
          "to Downloads/Sorted/Band/Fog Signal Polka.wav; moved by hand");
    desktop.press(Qt::Key_Escape, Qt::NoModifier, QApplication::activeModalWidget());
    const auto before = desktop.demo / "GANNET/Downloads/fog_signal_polka.wav";
    const auto after = desktop.demo / "GANNET/Downloads/Sorted/Band/Fog Signal Polka.wav";
    CHECK(fs::exists(before));
    desktop.workbench().carryOut();
    desktop.settle();
    CHECK_FALSE(fs::exists(before));
    CHECK(fs::exists(after));
    // It is found under its new name at once, and no longer under the old.
    CHECK(desktop.found() == 0);
    desktop.type("sorted band polka");
    CHECK(desktop.found() == 1);
}

TEST_CASE(
    "an archive is looked into when its volume's choices say so, and what it holds is copied out by a key") {
    FindingDesktop desktop;
    const auto within = desktop.demo / "PETREL/Packed away";
    const auto archive = within + "/Attic box 2009.zip";
    const auto bytes = readFile(archive);
    desktop.type("attic box");
    CHECK(desktop.found() == 0);
    QTest::mouseClick(desktop.find("Volume PETREL, at hand"), Qt::LeftButton);
    desktop.chooseInPopup("What a survey takes in");
    for (auto* check : QApplication::activeModalWidget()->findChildren<QCheckBox*>()) {
        if (check->text().startsWith("Look inside archives")) {
            QTest::mouseClick(check, Qt::LeftButton, Qt::NoModifier, {8, check->height() / 2});
        }
    }
    desktop.click(desktop.button("Keep and survey"));
    CHECK(desktop.volume("PETREL").choices.lookInside);
    desktop.type("attic box");
    CHECK(desktop.found() == 3);
    desktop.type("attic diaphone");
    REQUIRE(desktop.found() == 1);
    desktop.find("Words to find")->setFocus();
    desktop.press(Qt::Key_Down);
    desktop.press(Qt::Key_M);
    REQUIRE(QApplication::activeModalWidget() != nullptr);
    desktop.settle();
    CHECK(QApplication::activeModalWidget()->windowTitle() == "Copy out");
    auto* below = static_cast<QLineEdit*>(desktop.find("New folder below it"));
    below->setText("Attic box 2009.zip!");
    CHECK(desktop.text("Where it will be").startsWith("That is an archive"));
    CHECK_FALSE(desktop.button("Put on the docket")->isEnabled());
    below->setText("Out");
    desktop.click(desktop.button("Put on the docket"));
    CHECK(desktop.cell(foundList, 0, "State") == "to copy");
    desktop.workbench().carryOut();
    desktop.settle();
    CHECK(readFile(within + "/Out/diaphone.flac") ==
          readFile(desktop.demo / "GANNET/Best of/Diaphone, Test Blast.flac")); // which it is a copy of
    CHECK(readFile(archive) == bytes);
}

TEST_CASE("holdings and folders are dragged onto a volume or folder") {
    FindingDesktop desktop;
    desktop.tree().expand(desktop.placeOf("GANNET"));
    desktop.settle();
    desktop.type("warm-up");
    REQUIRE(desktop.found() == 3);
    desktop.list(foundList)->selectAll();
    const auto drop = [&](QMimeData* data, const QModelIndex& onto) {
        const std::unique_ptr<QMimeData> owner(data);
        const QPoint at = desktop.tree().visualRect(onto).center();
        QDragEnterEvent enter(at, Qt::MoveAction, data, Qt::LeftButton, Qt::NoModifier);
        QApplication::sendEvent(desktop.tree().viewport(), &enter);
        QDragMoveEvent over(at, Qt::MoveAction, data, Qt::LeftButton, Qt::NoModifier);
        QApplication::sendEvent(desktop.tree().viewport(), &over);
        QDropEvent dropped(at, Qt::MoveAction, data, Qt::LeftButton, Qt::NoModifier);
        QApplication::sendEvent(desktop.tree().viewport(), &dropped);
        desktop.settle();
        return over.isAccepted();
    };
    const auto dragged = [&] {
        return desktop.list(foundList)->model()->mimeData(
            desktop.list(foundList)->selectionModel()->selectedIndexes());
    };
    CHECK_FALSE(drop(dragged(), desktop.placeOf("everything")));
    CHECK(desktop.cell(foundList, 0, "State") != "to move");
    CHECK(drop(dragged(), desktop.placeOf("Rehearsals", desktop.placeOf("GANNET"))));
    for (int row = 0; row < 3; ++row) {
        CHECK(desktop.cell(foundList, row, "State") == "to move");
    }
    // A folder goes as a whole; none goes into itself.
    const auto catalogue = Catalogue::openForReading(desktop.demo.cataloguePath());
    const auto volumes = Volumes(*catalogue).all();
    const auto gannet = std::ranges::find(*volumes, "GANNET", &Volume::label)->id;
    CHECK(drop(app::mimeOfFolder(gannet, "Tapes, labelled").release(),
               desktop.placeOf("Tapes, labelled", desktop.placeOf("GANNET"))));
    const auto waiting = [&] { return DocketStore(*catalogue).all()->size(); };
    CHECK(waiting() == 3);
    CHECK(drop(app::mimeOfFolder(gannet, "Tapes, labelled").release(),
               desktop.placeOf("Music", desktop.placeOf("GANNET"))));
    const auto moves = waiting();
    CHECK(moves > 10);
    desktop.workbench().carryOut();
    desktop.settle();
    CHECK(waiting() == 0);
    CHECK(fs::exists(desktop.demo / "GANNET/Music/Tapes, labelled/Side 3/Closing Prayer.mp3"));
    CHECK(fs::exists(desktop.demo / "GANNET/Rehearsals/01 Warm-up.ogg"));
    CHECK_FALSE(fs::exists(desktop.demo / "GANNET/Evening classes, all/01 Warm-up.ogg"));
}

TEST_CASE("the picture shows where it was found, and leads there") {
    app::HitsChart chart;
    chart.setLines({{1, "GANNET", true, {{"Music", 90, 45}, {"Tapes", 10, 0}}},
                    {2, "TERN", false, {{"MUSIC", 50, 0}, {"", 50, 50}}}});
    app::pixelsOf(chart, 1004);
    CHECK(app::tipAt(chart, {200, 12}) == "GANNET: Music\n45 of 90 holdings, present or missed");
    CHECK(app::tipAt(chart, {700, 36}) == "TERN: (top folder)\n50 of 50 holdings, present or missed");
    CHECK(app::tipAt(chart, {50, 12}).isEmpty());
    QSignalSpy chosen(&chart, &app::HitsChart::folderChosen);
    QTest::mouseClick(&chart, Qt::LeftButton, Qt::NoModifier, {200, 12});
    REQUIRE(chosen.size() == 1);
    CHECK(chosen.front().at(0).toLongLong() == 1);
    CHECK(chosen.front().at(1).toByteArray() == "Music");
    // The filled part is as long as its share, and only there.
    const QImage image = app::pixelsOf(chart, 1004);
    const QRgb filled = image.pixel(150, 12);
    CHECK(image.pixel(104 + 330, 12) == filled);
    CHECK(image.pixel(104 + 400, 12) != filled);
    CHECK(image.pixel(104 + 100, 36) != filled);
    CHECK(image.pixel(104 + 600, 36) == filled);
}

TEST_CASE("what was kept of a drive is listened to and looked at while the drive is away") {
    FindingDesktop desktop;
    QTest::mouseClick(desktop.find("Volume TERN, at hand"), Qt::LeftButton);
    desktop.chooseInPopup("What a survey takes in");
    auto* window = QApplication::activeModalWidget();
    auto* effort = window->findChild<QComboBox*>();
    effort->setFocus();
    const auto boxOf = [&](const QString& words) {
        for (auto* check : window->findChildren<QCheckBox*>()) {
            if (check->text().startsWith(words)) {
                return check;
            }
        }
        return static_cast<QCheckBox*>(nullptr);
    };
    auto* excerpts = boxOf("Keep an excerpt of each");
    REQUIRE(excerpts != nullptr);
    QTest::keyClick(effort, Qt::Key_Home); // index: nothing is decoded there
    CHECK_FALSE(excerpts->isEnabled());
    QTest::keyClick(effort, Qt::Key_End);
    REQUIRE(excerpts->isEnabled());
    bool isForetold = false;
    for (const auto* label : window->findChildren<QLabel*>()) {
        isForetold |=
            label->text().contains(QRegularExpression("^About [0-9.]+ [kMG]B for its [0-9]+ holdings"));
    }
    CHECK(isForetold);
    QTest::mouseClick(excerpts, Qt::LeftButton, Qt::NoModifier, {8, excerpts->height() / 2});
    desktop.click(desktop.button("Keep and survey"));
    desktop.settle();
    CHECK(desktop.volume("TERN").choices.keepExcerpts);
    CHECK(fs::exists(desktop.demo / "catalogue.sqlite.excerpts"));

    fs::rename(desktop.demo / "TERN", desktop.demo / "pulled");
    desktop.workbench().lookForVolumes();
    desktop.settle();
    desktop.type("regatta");
    REQUIRE(desktop.found() == 2);
    for (int row = 0; row < 2; ++row) {
        desktop.list(foundList)->selectRow(row);
        desktop.settle();
        const bool isAway = desktop.cell(foundList, row, "Volume").startsWith("TERN (");
        const auto* title = desktop.find("The chosen one");
        QWidget* strip = nullptr;
        for (auto* chart : title->parentWidget()->findChildren<QWidget*>()) {
            strip = chart->accessibleName() == "Outline of the recording and its excerpt" ? chart : strip;
        }
        REQUIRE(strip != nullptr);
        CHECK(strip->isVisible() == isAway);
        if (isAway) {
            CHECK(strip->accessibleDescription().contains(
                QRegularExpression("^An excerpt from 0:00 to [0-9]:[0-9]{2} of [0-9]:[0-9]{2} is kept$")));
            CHECK(desktop.text("Listening").startsWith("An excerpt is kept"));
        }
    }
}
