// The shelf's menu: another label, another drive in a volume's place, none; and the catalogue saved and
// brought back.
#include "app/desks/ask_window.h"
#include "core/catalogue/volumes.h"
#include "support/run_program.h"
#include "support/small_audio.h"
#include "ui/desktop.h"

#include <QComboBox>
#include <QDialog>
#include <QFileDialog>
#include <QPushButton>

#include <catch2/catch.hpp>

#include <filesystem>

using namespace sober;
using namespace sober::test;
namespace fs = std::filesystem;

namespace {

void openMenuOf(Desktop& desktop, const QString& box) {
    QTest::mouseClick(desktop.find(box), Qt::LeftButton);
}

std::vector<std::string> labels(Desktop& desktop) {
    const auto reader = Catalogue::openForReading(desktop.demo.cataloguePath());
    const auto volumes = *Volumes(*reader).all();
    std::vector<std::string> all;
    std::ranges::transform(volumes, std::back_inserter(all), &Volume::label);
    return all;
}

using Labels = std::vector<std::string>;

} // namespace

TEST_CASE("a volume gets another label from its menu, on the shelf and everywhere") {
    Desktop desktop;
    openMenuOf(desktop, "Volume PETREL, at hand");
    desktop.chooseInPopup("Give it another label");
    auto* window = desktop.window().findChild<app::AskWindow*>();
    REQUIRE(window != nullptr);
    window->findChild<QComboBox*>()->setCurrentText("FULMAR");
    desktop.click(desktop.button("Use this label"));
    CHECK(desktop.find("Volume FULMAR, at hand")->isVisible());
    CHECK(labels(desktop) == Labels{"FULMAR", "GANNET", "TERN"});
    // A label that is taken is refused with a sentence.
    openMenuOf(desktop, "Volume FULMAR, at hand");
    desktop.chooseInPopup("Give it another label");
    desktop.window().findChildren<app::AskWindow*>().last()->findChild<QComboBox*>()->setCurrentText("TERN");
    desktop.click(desktop.button("Use this label"));
    CHECK(desktop.text("Message") == "Another volume is called TERN already.");
}

TEST_CASE("before a volume is forgotten its window says what is lost, then it is off the shelf and still on "
          "the disk") {
    Desktop desktop;
    openMenuOf(desktop, "Volume TERN, at hand");
    desktop.chooseInPopup("Forget it");
    auto* lost = desktop.window().findChild<QLabel*>("what is lost");
    REQUIRE(lost != nullptr);
    CHECK(lost->text().contains("leave the catalogue with it"));
    CHECK(lost->text().contains("nowhere else"));
    desktop.click(desktop.button("Forget this volume"));
    CHECK(desktop.text("Message") == "TERN was forgotten. Nothing on it was changed.");
    CHECK(labels(desktop) == Labels{"GANNET", "PETREL"});
    CHECK(fs::exists(desktop.demo / "TERN/MUSIC"));
    desktop.press(Qt::Key_2, Qt::AltModifier);
    CHECK(desktop.list("Copy sets")->model()->rowCount() > 0);
}

TEST_CASE("a volume on which the docket wants something is not forgotten") {
    Desktop desktop;
    desktop.press(Qt::Key_2, Qt::AltModifier);
    desktop.press(Qt::Key_D, Qt::NoModifier, desktop.find("Copy sets"));
    desktop.settle();
    openMenuOf(desktop, "Volume GANNET, at hand");
    desktop.chooseInPopup("Forget it");
    CHECK_FALSE(desktop.button("Forget this volume")->isEnabled());
    CHECK(desktop.window()
              .findChild<QLabel*>("what is lost")
              ->text()
              .contains("while the docket holds 1 action"));
    CHECK(labels(desktop) == Labels{"GANNET", "PETREL", "TERN"});
}

TEST_CASE("a cloned drive takes a volume's place, another folder does not") {
    Desktop desktop;
    fs::copy(desktop.demo / "PETREL", desktop.demo / "clone", fs::copy_options::recursive);
    fs::rename(desktop.demo / "PETREL", desktop.demo / "in a cupboard");
    desktop.workbench().lookForVolumes();
    REQUIRE(desktop.waitFor([&] { return !desktop.volume("PETREL").atHand; }));
    desktop.settle();
    openMenuOf(desktop, "Volume PETREL, away");
    desktop.chooseInPopup("A copy has taken its place");
    desktop.choose(desktop.demo / "DOWNLOADS");
    CHECK(desktop.text("Message").contains("cannot take the place of PETREL"));
    openMenuOf(desktop, "Volume PETREL, away");
    desktop.chooseInPopup("A copy has taken its place");
    desktop.choose(desktop.demo / "clone");
    CHECK(desktop.find("Volume PETREL, at hand")->isVisible());
    CHECK(desktop.volume("PETREL").root == desktop.demo / "clone");
    CHECK(desktop.text("Message").contains("0 missing"));
}

TEST_CASE("the catalogue is saved from the menu, and brought back as it was") {
    Desktop desktop;
    desktop.chooseInMenu("Collection", "Sa&ve the catalogue");
    desktop.choose(desktop.demo / "saved.sqlite");
    CHECK(desktop.text("Message").startsWith("The catalogue was saved as "));
    openMenuOf(desktop, "Volume TERN, at hand");
    desktop.chooseInPopup("Forget it");
    desktop.click(desktop.button("Forget this volume"));
    CHECK(labels(desktop) == Labels{"GANNET", "PETREL"});
    desktop.chooseInMenu("Collection", "&Bring a saved catalogue back");
    desktop.choose(desktop.demo / "saved.sqlite");
    CHECK(desktop.text("Message").contains("Survey the volumes to see what is there now."));
    CHECK(labels(desktop) == Labels{"GANNET", "PETREL", "TERN"});
    CHECK(desktop.find("Volume TERN, at hand")->isVisible());
    desktop.press(Qt::Key_2, Qt::AltModifier);
    CHECK(desktop.list("Copy sets")->model()->rowCount() > 0);
}

TEST_CASE("the catalogue is carried along from the menu, and what was found out elsewhere is taken in") {
    Desktop desktop;
    desktop.chooseInMenu("Collection", "Carry it al&ong");
    auto* carry = QApplication::activeModalWidget();
    REQUIRE(carry != nullptr);
    const auto buttonOf = [](QWidget* window, const QString& beginning) {
        for (auto* button : window->findChildren<QPushButton*>()) {
            if (button->text().startsWith(beginning)) {
                return button;
            }
        }
        return static_cast<QPushButton*>(nullptr);
    };
    CHECK_FALSE(buttonOf(carry, "Carry along")->isEnabled()); // no place yet
    QTest::mouseClick(buttonOf(carry, "&Place"), Qt::LeftButton);
    desktop.choose(desktop.demo / "DOWNLOADS");
    REQUIRE(buttonOf(carry, "Carry along")->isEnabled());
    QTest::mouseClick(buttonOf(carry, "Carry along"), Qt::LeftButton);
    desktop.settle();
    CHECK(desktop.text("Message").startsWith("Carried along in "));
    const auto folder = desktop.demo / "DOWNLOADS/Sober Archivist";
    REQUIRE(fs::exists(folder + "/catalogue.sqlite"));
    CHECK(fs::exists(folder + "/settings/sober-archivist/sober-archivist.ini"));
    CHECK(fs::exists(folder + "/Program/bin/sober-archivist")); // it goes along unless it is left out

    // On another machine, somebody surveys a drive of theirs.
    writeFile(desktop.demo / "ELSEWHERE/found.wav", smallWav(77, 1));
    writeFile(desktop.demo / "ELSEWHERE/found twice.wav", smallWav(77, 1));
    const auto there = [&](std::vector<std::string> words) {
        words.insert(words.begin(), {SOBER_PROGRAM, "--quiet", "--catalogue", folder + "/catalogue.sqlite"});
        const auto ran = run(words);
        INFO(ran.err);
        REQUIRE(ran.code == 0);
    };
    there({"survey", desktop.demo / "ELSEWHERE"});
    there({"docket", "add", "retire", desktop.demo / "ELSEWHERE/found twice.wav"});
    desktop.chooseInMenu("Collection", "&Take another catalogue in");
    desktop.choose(folder + "/catalogue.sqlite");
    REQUIRE(desktop.waitFor([] { return QApplication::activeModalWidget() != nullptr; }));
    desktop.settle();
    CHECK(desktop.text("What it knows").contains("ELSEWHERE, not known here: 2 holdings."));
    CHECK(desktop.text("What it knows").contains("To wait on the docket here: 1 action."));
    CHECK(desktop.text("What it knows").contains("GANNET, looked at last here"));
    QTest::mouseClick(buttonOf(QApplication::activeModalWidget(), "Take it in"), Qt::LeftButton);
    desktop.settle();
    CHECK(desktop.text("Message").startsWith("4 volumes of the other catalogue are known here"));
    CHECK(labels(desktop) == Labels{"ELSEWHERE", "GANNET", "PETREL", "TERN"});
    CHECK(desktop.find("Volume ELSEWHERE, at hand")->isVisible());
    CHECK(desktop.text("What waits on the docket").contains("1 action"));
}
