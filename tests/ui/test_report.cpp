// The window that makes reports, and what it leaves on the disk.
#include "app/report_window.h"
#include "ui/desktop.h"

#include <QCheckBox>
#include <QComboBox>
#include <QFileDialog>

#include <catch2/catch.hpp>

#include <filesystem>

using namespace sober;
using namespace sober::test;
namespace fs = std::filesystem;

namespace {

QCheckBox* boxOf(app::ReportWindow& window, const QString& beginning) {
    for (auto* box : window.findChildren<QCheckBox*>()) {
        if (box->text().remove('&').startsWith(beginning)) {
            return box;
        }
    }
    FAIL("no such box");
    return nullptr;
}

} // namespace

TEST_CASE("a report is written with what was chosen, and never over something") {
    Desktop desktop;
    desktop.press(Qt::Key_R, Qt::ControlModifier);
    auto* window = desktop.window().findChild<app::ReportWindow*>();
    REQUIRE(window != nullptr);
    desktop.click(boxOf(*window, "Copies"), QPoint(8, 8));
    desktop.click(boxOf(*window, "Leave paths"), QPoint(8, 8));
    window->findChild<QComboBox*>()->setCurrentIndex(0);
    desktop.click(desktop.button("Write it…"));
    auto* dialog = desktop.window().findChild<QFileDialog*>();
    REQUIRE(dialog != nullptr);
    CHECK(dialog->selectedFiles().first().endsWith(".html"));
    const auto page = desktop.demo / "for the family.html";
    desktop.choose(page);
    CHECK(desktop.text("Message").startsWith("The report was written to "));
    const auto html = readFile(page);
    CHECK(html.find("<h2>Missing</h2>") != std::string::npos);
    CHECK(html.find("<h2>Copies</h2>") == std::string::npos);
    CHECK(html.find(std::string(desktop.demo / "")) == std::string::npos);

    desktop.press(Qt::Key_R, Qt::ControlModifier);
    desktop.click(desktop.button("Write it…"));
    desktop.choose(page);
    CHECK(desktop.text("Message").contains("is there already"));
    CHECK(readFile(page) == html);
}

TEST_CASE("a report of nothing is not offered") {
    Desktop desktop;
    desktop.press(Qt::Key_R, Qt::ControlModifier);
    auto* window = desktop.window().findChild<app::ReportWindow*>();
    for (const auto* part :
         {"Condition", "Copies", "Claims", "Damage", "Fixity", "What is missing", "Proven"}) {
        CHECK(desktop.button("Write it…")->isEnabled());
        desktop.click(boxOf(*window, part), QPoint(8, 8));
    }
    CHECK_FALSE(desktop.button("Write it…")->isEnabled());
}
