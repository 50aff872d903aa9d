// Salvage's desk over the demo: an image is looked through, what is missing goes back, and the disk is looked
// at.
#include "app/charts/byte_sheet.h"
#include "app/charts/salvage_strip.h"
#include "app/desks/salvage/bytes_window.h"
#include "app/desks/salvage/write_image_window.h"
#include "core/base/text.h"
#include "ui/chart_probe.h"
#include "ui/desktop.h"

#include <QFileDialog>
#include <QLabel>
#include <QLineEdit>
#include <QPushButton>
#include <QTableView>

#include <catch2/catch.hpp>

#include <filesystem>
#include <unistd.h>

using namespace sober;
using namespace sober::test;
namespace fs = std::filesystem;

namespace {

struct SalvageDesktop : Desktop {
    SalvageDesktop() : Desktop(std::vector<std::pair<BytePath, Effort>>{}) {
        fs::create_directories(demo / "SHAG");
        for (const auto* name :
             {"Fog signal, night.wav", "Sea, from the pier.wav", "Shipping forecast.wav"}) {
            lost.emplace_back(demo / (std::string("SHAG/") + name),
                              readFile(demo / (std::string("PETREL/Wireless/") + name)));
            writeFile(lost.back().first, lost.back().second);
        }
        workbench().survey({{demo / "SHAG", {}, {}, Effort::full}});
        settle();
        std::string image(65'536, '\0');
        for (const auto& [path, content] : lost) {
            // In two pieces.
            const auto half = content.size() / 2 / 4096 * 4096;
            image += content.substr(0, half) + std::string(8192, 'x') + content.substr(half);
            image.resize((image.size() + 4095) / 4096 * 4096, '\0');
            fs::remove(path);
        }
        writeFile(demo / "card.img", image);
        workbench().survey({{demo / "SHAG", {}, {}, {}}});
        settle();
        press(Qt::Key_9, Qt::AltModifier);
        settle();
    }
    void scan() {
        press(Qt::Key_O);
        auto* dialog = window().findChild<QFileDialog*>();
        REQUIRE(dialog != nullptr);
        auto* name = dialog->findChild<QLineEdit*>();
        name->setText(QString::fromStdString(demo / "card.img"));
        QTest::keyClick(name, Qt::Key_Return);
        REQUIRE(waitFor([&] { return !workbench().isBusy() && workbench().isIdle(); }, 60'000));
        settle();
    }
    std::vector<std::pair<BytePath, std::string>> lost;
};

} // namespace

TEST_CASE("a wiped card is looked through at the desk, and what is missing goes back to its place") {
    SalvageDesktop desktop;
    desktop.scan();
    auto* finds = desktop.list("Finds");
    REQUIRE(finds->model()->rowCount() == 3);
    for (int row = 0; row < 3; ++row) {
        CHECK(desktop.cell("Finds", row, "It is") == "missing here");
        CHECK(desktop.cell("Finds", row, "How whole") == "whole");
    }
    CHECK(desktop.text("Where it lies").startsWith("in 2 pieces"));
    CHECK(desktop.text("What it is recognised as").startsWith("This is the missing "));

    // What is pointed at in the strip is what the list has chosen.
    auto* strip = desktop.window().findChild<app::SalvageStrip*>();
    finds->setFocus();
    finds->selectRow(2);
    desktop.settle();
    QTest::mouseClick(strip, Qt::LeftButton, {}, QPoint(strip->width() / 12, strip->height() / 2));
    desktop.settle();
    CHECK(finds->selectionModel()->selectedRows().front().row() == 0);

    finds->setFocus();
    desktop.press(Qt::Key_A, Qt::ControlModifier);
    desktop.press(Qt::Key_H);
    desktop.settle();
    CHECK(desktop.cell("Finds", 0, "It is") == "to be taken");
    for (const auto& [path, content] : desktop.lost) {
        CHECK_FALSE(fs::exists(path)); // nothing has changed yet
    }
    SECTION("once the docket is carried out") {
        desktop.press(Qt::Key_D, Qt::ControlModifier);
        desktop.settle();
        desktop.press(Qt::Key_Return, Qt::ControlModifier);
        REQUIRE(desktop.waitFor([&] { return !desktop.workbench().isBusy() && desktop.workbench().isIdle(); },
                                60'000));
        for (const auto& [path, content] : desktop.lost) {
            CHECK((readFile(path) == content));
        }
    }
    SECTION("or are narrowed by what they are") {
        auto* box = desktop.find("Show by what it is to the collection");
        box->setFocus();
        QTest::keyClick(box, Qt::Key_Down); // new
        desktop.settle();
        CHECK(desktop.list("Finds")->model()->rowCount() == 0);
        QTest::keyClick(box, Qt::Key_Down); // missing here
        desktop.settle();
        CHECK(desktop.list("Finds")->model()->rowCount() == 3);
    }
    SECTION("or not, where they are left") {
        desktop.press(Qt::Key_A);
        desktop.settle();
        CHECK(desktop.cell("Finds", 0, "It is") == "missing here");
    }
}

TEST_CASE("what was thrown away goes back by one key and the docket, and leaves the trash") {
    SalvageDesktop desktop;
    const auto& [place, bytes] = desktop.lost.front();
    const auto trash = desktop.demo / ("SHAG/.Trash-" + std::to_string(getuid()));
    const auto trashed = trash + "/files/thrown away.wav";
    writeFile(trashed, bytes);
    writeFile(trash + "/info/thrown away.wav.trashinfo",
              "[Trash Info]\nPath=thrown%20away.wav\nDeletionDate=2035-02-01T10:00:00\n");
    desktop.press(Qt::Key_L);
    REQUIRE(desktop.waitFor([&] { return !desktop.workbench().isBusy() && desktop.workbench().isIdle(); },
                            60'000));
    desktop.settle();
    auto* finds = desktop.list("Finds");
    REQUIRE(finds->model()->rowCount() >= 1);
    CHECK(desktop.cell("Finds", 0, "It is") == "missing here");
    finds->setFocus();
    finds->selectRow(0);
    desktop.press(Qt::Key_H);
    desktop.settle();
    desktop.press(Qt::Key_D, Qt::ControlModifier);
    desktop.settle();
    desktop.press(Qt::Key_Return, Qt::ControlModifier);
    REQUIRE(desktop.waitFor([&] { return !desktop.workbench().isBusy() && desktop.workbench().isIdle(); },
                            60'000));
    CHECK((readFile(place) == bytes));
    CHECK_FALSE(fs::exists(trashed));
    CHECK_FALSE(fs::exists(trash + "/info/thrown away.wav.trashinfo"));
}

TEST_CASE("an image is made of a drive from the desk, and looked through") {
    SalvageDesktop desktop;
    const auto answer = [&](const BytePath& path) {
        QFileDialog* dialog = nullptr;
        for (auto* each : desktop.window().findChildren<QFileDialog*>()) {
            dialog = each->isVisible() ? each : dialog;
        }
        REQUIRE(dialog != nullptr);
        auto* name = dialog->findChild<QLineEdit*>("fileNameEdit");
        name->setText(QString::fromStdString(path));
        QTest::keyClick(name, Qt::Key_Return);
    };
    desktop.press(Qt::Key_M);
    answer(desktop.demo / "card.img");
    answer(desktop.demo / "made.img");
    REQUIRE(desktop.waitFor([&] { return desktop.text("Message").startsWith("All of it is in "); }, 60'000));
    CHECK((readFile(desktop.demo / "made.img") == readFile(desktop.demo / "card.img")));
    desktop.settle();
    desktop.press(Qt::Key_L);
    REQUIRE(desktop.waitFor([&] { return !desktop.workbench().isBusy() && desktop.workbench().isIdle(); },
                            60'000));
    desktop.settle();
    CHECK(desktop.list("Finds")->model()->rowCount() == 3);
}

TEST_CASE("the bytes of an image are looked at and looked through from the desk") {
    SalvageDesktop desktop;
    desktop.scan();
    desktop.list("Finds")->setFocus();
    desktop.list("Finds")->selectRow(1);
    desktop.settle();
    desktop.press(Qt::Key_B);
    desktop.settle();
    auto* window = desktop.window().findChild<app::BytesWindow*>();
    REQUIRE(window != nullptr);
    auto* sheet = window->findChild<app::ByteSheet*>();
    REQUIRE(desktop.waitFor([&] { return !app::tipAt(*sheet, QPoint(375, 10)).isEmpty(); }, 20'000));
    CHECK(app::tipAt(*sheet, QPoint(375, 10)).contains("RIFF WAVE"));
    QTest::keyClick(sheet, Qt::Key_Home);
    desktop.settle();
    REQUIRE(desktop.waitFor([&] { return app::tipAt(*sheet, QPoint(375, 10)) == "byte 0"; }, 20'000));

    const auto typed = [&](const char* name, const QString& text) {
        for (auto* line : window->findChildren<QLineEdit*>()) {
            if (line->accessibleName() == name) {
                line->setFocus();
                line->setText(text);
                QTest::keyClick(line, Qt::Key_Return);
            }
        }
        desktop.settle();
    };
    const auto says = [&](const QString& beginning) {
        return desktop.waitFor(
            [&] {
                return std::ranges::any_of(window->findChildren<QLabel*>(), [&](const QLabel* label) {
                    return label->text().startsWith(beginning);
                });
            },
            20'000);
    };
    typed("Look for", "RIFF");
    CHECK(says("It stands at byte 65,536"));
    typed("Look for", "no such text anywhere");
    CHECK(says("It stands nowhere"));
    typed("Byte to go to", "65 552");
    REQUIRE(desktop.waitFor([&] { return app::tipAt(*sheet, QPoint(375, 10)).startsWith("byte 65,552"); },
                            20'000));
    CHECK(app::tipAt(*sheet, QPoint(375, 10)).contains("fmt"));
    window->close();
}

TEST_CASE(
    "an image is written over a drive once its label and size were typed, and what was found is forgotten") {
    SalvageDesktop desktop;
    desktop.scan();
    const auto target = desktop.demo / "spare.img";
    const auto image = readFile(desktop.demo / "card.img");
    writeFile(target, std::string(image.size() + 4'096, 'x'));
    desktop.list("Finds")->setFocus();
    desktop.press(Qt::Key_W);
    QLineEdit* name = nullptr;
    for (auto* dialog : desktop.window().findChildren<QFileDialog*>()) {
        name = dialog->isVisible() ? dialog->findChild<QLineEdit*>() : name;
    }
    REQUIRE(name != nullptr);
    name->setText(QString::fromStdString(target));
    QTest::keyClick(name, Qt::Key_Return);
    desktop.settle();
    auto* window = desktop.window().findChild<app::WriteImageWindow*>();
    REQUIRE(window != nullptr);
    const auto type = [&](const char* line, const std::string& text) {
        for (auto* each : window->findChildren<QLineEdit*>()) {
            if (each->accessibleName() == line) {
                each->setText(QString::fromStdString(text));
            }
        }
    };
    QPushButton* write = nullptr;
    for (auto* button : window->findChildren<QPushButton*>()) {
        write = button->text() == "Write over it" ? button : write;
    }
    REQUIRE(write != nullptr);
    CHECK_FALSE(write->isEnabled());
    type("Label of the drive", "spare.img");
    type("Size of the drive in bytes", "1,000");
    CHECK_FALSE(write->isEnabled());
    type("Size of the drive in bytes", humanCount(image.size() + 4'096));
    REQUIRE(write->isEnabled());
    QTest::mouseClick(write, Qt::LeftButton);
    REQUIRE(desktop.waitFor([&] { return !desktop.workbench().isBusy() && desktop.workbench().isIdle(); },
                            60'000));
    CHECK((readFile(target) == image + std::string(4'096, 'x')));

    desktop.list("Finds")->setFocus();
    desktop.press(Qt::Key_Delete);
    desktop.settle();
    CHECK(desktop.list("Finds")->model()->rowCount() == 0);
    CHECK((readFile(desktop.demo / "card.img") == image));
}
