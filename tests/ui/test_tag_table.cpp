// The table of tags over the demo: typed into many cells by keys, filled, proposals taken, put on the docket,
// and read by metaflac after it was carried out.
#include "app/desks/tags/tag_table_window.h"
#include "core/catalogue/docket_store.h"
#include "support/run_program.h"
#include "ui/chart_probe.h"
#include "ui/desktop.h"

#include <QClipboard>
#include <QLineEdit>
#include <QPushButton>
#include <QTableView>

#include <catch2/catch.hpp>

#include <filesystem>

using namespace sober;
using namespace sober::test;
namespace fs = std::filesystem;

namespace {

/// What was found by a word, open in the table.
struct TableDesktop : Desktop {
    TableDesktop() : Desktop({{"PETREL/Inbox/From a swap meet", Effort::index}}) {
        press(Qt::Key_F, Qt::ControlModifier);
        settle();
        for (auto* line : window().findChildren<QLineEdit*>()) {
            if (line->isVisible() && line->hasFocus()) {
                line->setText("flac");
            }
        }
        settle();
        auto* found = app::visibleOf<QTableView>(window());
        REQUIRE(found != nullptr);
        REQUIRE(waitFor([&] { return found->model()->rowCount() >= 5; }));
        found->setFocus();
        found->selectAll();
        press(Qt::Key_G);
        settle();
        table = app::visibleOf<app::TagTableWindow>(window());
        REQUIRE(table != nullptr);
        view = table->findChild<QTableView*>();
        REQUIRE(waitFor([&] { return view->model() != nullptr && view->model()->rowCount() >= 5; }));
    }
    QString at(int row, int column) { return view->model()->index(row, column).data().toString(); }
    void select(int firstRow, int lastRow, int column) {
        view->setCurrentIndex(view->model()->index(firstRow, column));
        view->selectionModel()->select(
            QItemSelection(view->model()->index(firstRow, column), view->model()->index(lastRow, column)),
            QItemSelectionModel::ClearAndSelect);
    }
    void type(const QString& text) {
        view->edit(view->currentIndex());
        auto* line = view->findChild<QLineEdit*>();
        REQUIRE(line != nullptr);
        line->setText(text);
        QTest::keyClick(line, Qt::Key_Return);
        settle();
    }
    void push(const QString& name) {
        for (auto* button : table->findChildren<QPushButton*>()) {
            if (button->accessibleName() == name) {
                QTest::mouseClick(button, Qt::LeftButton);
            }
        }
        settle();
    }
    app::TagTableWindow* table = nullptr;
    QTableView* view = nullptr;
};

constexpr int artistColumn = 2;
constexpr int trackColumn = 5;
constexpr int genreColumn = 8;

} // namespace

TEST_CASE("tags are edited in many rows at once, taken back, and written through the docket") {
    TableDesktop desktop;
    const auto before = desktop.at(1, artistColumn);
    desktop.select(0, 2, artistColumn);
    desktop.type("Sea Wall Players");
    CHECK(desktop.at(2, artistColumn) == "Sea Wall Players");
    CHECK(desktop.at(3, artistColumn) == before);
    desktop.push("Take back");
    CHECK(desktop.at(1, artistColumn) == before);
    desktop.push("Again");
    CHECK(desktop.at(1, artistColumn) == "Sea Wall Players");
    desktop.select(0, 0, genreColumn);
    desktop.type("March");
    desktop.select(0, 1, genreColumn);
    desktop.push("Fill down");
    CHECK(desktop.at(1, genreColumn) == "March");
    desktop.select(0, 4, trackColumn);
    QGuiApplication::clipboard()->setText("11");
    QTest::keyClick(desktop.view, Qt::Key_V, Qt::ControlModifier);
    desktop.settle();
    CHECK(desktop.at(4, trackColumn) == "11");
    desktop.push("Count down");
    CHECK(desktop.at(4, trackColumn) == "15");
    desktop.push("Take back");
    desktop.push("Take back");
    CHECK(desktop.at(4, trackColumn) != "11");
    const auto name = desktop.at(0, 0).toStdString();
    desktop.push("Put on the docket");
    const auto catalogue = Catalogue::openForReading(desktop.demo / "catalogue.sqlite");
    CHECK(DocketStore(*catalogue).all()->size() == 3);
    desktop.workbench().carryOut();
    REQUIRE(desktop.waitFor([&] { return !desktop.workbench().isBusy() && desktop.workbench().isIdle(); }));
    const auto file = desktop.demo / ("PETREL/Inbox/From a swap meet/" + name);
    const auto tags = run({"metaflac", "--export-tags-to=-", file}).out;
    INFO(tags);
    CHECK(tags.find("Sea Wall Players") != std::string::npos);
    CHECK(tags.find("March") != std::string::npos);
    CHECK(run({"flac", "-t", "-s", file}).code == 0);
}
