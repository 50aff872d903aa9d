#include "app/theme/theme.h"
#include "app/words.h"
#include "core/catalogue/volumes.h"
#include "support/small_audio.h"
#include "ui/desktop.h"

#include <QApplication>
#include <QCheckBox>
#include <QClipboard>
#include <QComboBox>
#include <QLineEdit>
#include <QMenu>
#include <QMenuBar>
#include <QPlainTextEdit>
#include <QPushButton>
#include <QRegularExpression>
#include <QSpinBox>
#include <QTableView>
#include <QTimer>

#include <catch2/catch.hpp>

#include <filesystem>

using namespace sober;
using namespace sober::test;
namespace fs = std::filesystem;

TEST_CASE("an empty program says what to do, on every desk") {
    Desktop desktop(false);
    CHECK(desktop.button("Survey a folder or a drive")->isEnabled());
    for (const auto key : {Qt::Key_1, Qt::Key_2, Qt::Key_3, Qt::Key_4, Qt::Key_5, Qt::Key_6}) {
        desktop.press(key, Qt::AltModifier);
    }
    CHECK(desktop.text("What waits on the docket").startsWith("empty"));
    CHECK_FALSE(desktop.find("Read the docket through")->isEnabled());
}

TEST_CASE("Condition's next steps lead to the desks, its notes can be narrowed") {
    Desktop desktop;
    fs::remove(desktop.demo / "PETREL/Inbox/untitled.wav");
    writeFile(desktop.demo / "TERN/MUSIC/letter.mp3", "Dear Sir");
    desktop.press(Qt::Key_F5);
    desktop.press(Qt::Key_1, Qt::AltModifier);
    auto* notes = desktop.list("Changes and errors of the last surveys");
    const int all = notes->model()->rowCount();
    CHECK(all >= 5);
    auto* kind = static_cast<QComboBox*>(desktop.find("Which notes to show"));
    kind->setCurrentIndex(kind->findData("missing"));
    CHECK(notes->model()->rowCount() == 1);
    CHECK(desktop.cell("Changes and errors of the last surveys", 0, "Which") == "PETREL/Inbox/untitled.wav");

    desktop.click(desktop.button("Look at"));
    CHECK(kind->currentText().startsWith("could not be read"));
    CHECK(notes->model()->rowCount() >= 4);
    desktop.click(desktop.button("Track down 1 missing holding"));
    CHECK(desktop.list("Missing holdings")->model()->rowCount() == 1);
    CHECK(desktop.cell("Missing holdings", 0, "Same bytes at") == "GANNET/Desktop/untitled.wav");
    desktop.press(Qt::Key_1, Qt::AltModifier);
    desktop.click(desktop.button("Decide on"));
    CHECK(desktop.list("Copy sets")->isVisible());
}

TEST_CASE("a click on a folder's band shows the copies in it") {
    Desktop desktop;
    desktop.press(Qt::Key_1, Qt::AltModifier);
    auto* bands = desktop.find("Every volume as a band of its folders, by holdings and worst condition");
    desktop.click(bands, {190, 160}); // the last volume's first folder: MUSIC on the card
    CHECK(static_cast<QLineEdit*>(desktop.find("Filter the sets by text"))->text() == "MUSIC");
    REQUIRE(desktop.waitFor([&] { return desktop.list("Copy sets")->model()->rowCount() >= 25; }));
}

TEST_CASE("what a survey takes in is chosen in a window and kept") {
    Desktop desktop;
    auto* box = desktop.find("Volume GANNET, at hand");
    QTest::mouseClick(box, Qt::LeftButton);
    desktop.chooseInPopup("What a survey takes in");
    static_cast<QPlainTextEdit*>(desktop.find("Patterns to leave out"))->setPlainText("Odd names\n*.opus");
    QWidget* dialog = QApplication::activeModalWidget();
    REQUIRE(dialog != nullptr);
    for (auto* check : dialog->findChildren<QCheckBox*>()) {
        if (check->text().startsWith("Leave out hidden")) {
            QTest::mouseClick(check, Qt::LeftButton, Qt::NoModifier, {8, check->height() / 2});
        }
    }
    desktop.click(desktop.button("Keep and survey"));
    const auto volume = desktop.volume("GANNET");
    CHECK(volume.choices.leavePatterns == std::vector<std::string>{"Odd names", "*.opus"});
    CHECK(volume.choices.leaveHidden);
    CHECK(desktop.text("Message").startsWith("GANNET: "));
    CHECK(desktop.text("Message").contains("0 could not be read"));
}

TEST_CASE("a volume that is pulled out is shown as away and its copies cannot be decided") {
    Desktop desktop;
    fs::rename(desktop.demo / "TERN", desktop.demo / "in a drawer");
    desktop.workbench().lookForVolumes();
    REQUIRE(desktop.waitFor([&] {
        for (auto* widget : desktop.window().findChildren<QWidget*>()) {
            if (widget->isVisible() && widget->accessibleName() == "Volume TERN, away") {
                return true;
            }
        }
        return false;
    }));
    desktop.press(Qt::Key_2, Qt::AltModifier);
    auto* text = static_cast<QLineEdit*>(desktop.find("Filter the sets by text"));
    text->setText("Stonecrop");
    REQUIRE(desktop.waitFor([&] { return desktop.list("Copy sets")->model()->rowCount() == 1; }));
    desktop.settle();
    CHECK(desktop.cell("Copy sets", 0, "Frees") == "nothing");
    QStringList volumes{desktop.cell("Members of the set", 0, "Volume"),
                        desktop.cell("Members of the set", 1, "Volume")};
    CHECK(volumes.filter(QRegularExpression("^TERN \\([0-9]+\\) \\(away\\)$")).size() == 1);
    desktop.press(Qt::Key_D, Qt::NoModifier, desktop.find("Copy sets"));
    CHECK(desktop.text("What waits on the docket").startsWith("empty"));
    CHECK(fs::exists(desktop.demo / "in a drawer/MUSIC"));

    fs::rename(desktop.demo / "in a drawer", desktop.demo / "TERN");
    desktop.workbench().lookForVolumes();
    REQUIRE(desktop.waitFor([&] { return desktop.cell("Copy sets", 0, "Frees") != "nothing"; }));
}

TEST_CASE("the path of a member can be copied from its menu") {
    Desktop desktop;
    desktop.press(Qt::Key_2, Qt::AltModifier);
    auto* members = desktop.list("Members of the set");
    const QString path = desktop.cell("Members of the set", 0, "Path");
    QTimer::singleShot(200, [&] {
        auto* menu = qobject_cast<QMenu*>(QApplication::activePopupWidget());
        if (menu != nullptr) {
            QTest::keyClick(menu, Qt::Key_Down);
            QTest::keyClick(menu, Qt::Key_Return);
        }
    });
    const QPoint at = members->visualRect(members->model()->index(0, 0)).center();
    emit members->customContextMenuRequested(at);
    CHECK(QApplication::clipboard()->text().endsWith(path));
    CHECK(QApplication::clipboard()->text().startsWith('/'));
}

TEST_CASE("the dark paper is chosen in the menu, shown at once and kept") {
    Desktop desktop;
    const QColor before = desktop.window().grab().toImage().pixelColor(640, 30);
    desktop.chooseInMenu("View", "&Dark");
    CHECK(app::Theme::paper() == app::Paper::dark);
    const QColor after = desktop.window().grab().toImage().pixelColor(640, 30);
    CHECK(before.lightness() > 200);
    CHECK(after.lightness() < 60);
    app::Theme::apply(*qApp, app::Paper::light);
}

TEST_CASE("everything that takes the focus or shows a picture has a name for the screen reader") {
    Desktop desktop;
    for (const auto key : {Qt::Key_1, Qt::Key_2, Qt::Key_3, Qt::Key_4, Qt::Key_5, Qt::Key_6}) {
        desktop.press(key, Qt::AltModifier);
        for (auto* widget : desktop.window().findChildren<QWidget*>()) {
            if (!widget->isVisible() || widget->focusPolicy() == Qt::NoFocus ||
                widget->objectName() == "qt_scrollarea_viewport" || widget->objectName().startsWith("qt_") ||
                widget->inherits("QMenuBar") || widget->inherits("QScrollArea") ||
                widget->inherits("QSplitter") || widget->inherits("QHeaderView") ||
                widget->focusProxy() != nullptr) {
                continue;
            }
            auto* button = qobject_cast<QAbstractButton*>(widget);
            const bool named =
                !widget->accessibleName().isEmpty() || (button != nullptr && !button->text().isEmpty()) ||
                widget->inherits("QScrollBar") || widget->parentWidget()->inherits("QComboBox");
            INFO(widget->metaObject()->className() << " " << widget->objectName().toStdString());
            CHECK(named);
        }
    }
}

TEST_CASE("a folder is surveyed from the command line's arguments and from the menu's key") {
    Desktop desktop(false);
    writeFile(desktop.demo / "extra/caf\xE9.wav", smallWav(4));
    desktop.workbench().survey({{desktop.demo / "extra", {}, {}, {}}});
    desktop.settle();
    CHECK(desktop.text("Message").startsWith("extra: 1 seen, 1 added"));
    desktop.workbench().survey({{desktop.demo / "nowhere", {}, {}, {}}});
    desktop.settle();
    CHECK(desktop.text("Message").startsWith("There is no folder"));
    fs::remove(desktop.demo / "extra/caf\xE9.wav");
    writeFile(desktop.demo / "extra/other.wav", smallWav(5));
    desktop.press(Qt::Key_F5);
    INFO(desktop.text("Message").toStdString());
    CHECK(desktop.text("Message").contains("1 missing"));
    desktop.press(Qt::Key_5, Qt::AltModifier);
    CHECK(desktop.cell("Missing holdings", 0, "Last place") == "caf%E9.wav");
}

TEST_CASE("closing the program in the middle of a survey loses nothing") {
    Desktop desktop(false);
    for (std::uint32_t i = 0; i < 600; ++i) {
        writeFile(desktop.demo / ("BIG/" + std::to_string(i) + ".wav"), smallWav(i, 0.5));
    }
    desktop.workbench().survey({{desktop.demo / "BIG", {}, {}, {}}});
    QTest::qWait(30);
    desktop.restart();
    desktop.press(Qt::Key_F5);
    REQUIRE(desktop.waitFor([&] { return !desktop.workbench().isBusy(); }));
    desktop.workbench().survey({{desktop.demo / "BIG", {}, {}, {}}});
    desktop.settle();
    CHECK(desktop.text("Message").startsWith("BIG: 600 seen"));
    CHECK(desktop.text("Message").contains("0 missing"));
}
