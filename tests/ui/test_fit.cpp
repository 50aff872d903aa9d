// Windows fit a screen of 1280x800 however much there is to say, and what is chosen stays chosen.
#include "app/docket/schedule_window.h"
#include "app/listening/listening_bar.h"
#include "app/lists/list_view.h"
#include "app/lists/row_list_model.h"
#include "core/base/user_folders.h"
#include "core/catalogue/volumes.h"
#include "support/mounts.h"
#include "support/small_audio.h"
#include "ui/desktop.h"

#include <QPushButton>
#include <QTableView>

#include <catch2/catch.hpp>

#include <filesystem>

using namespace sober;
using namespace sober::test;
using namespace sober::app;
namespace fs = std::filesystem;

namespace {

/// Rows that are told by a letter and have a number.
struct Row {
    std::string key;
    int number = 0;
};

struct Rows {
    RowListModel<Row> model{{{"Key",
                              [](const Row& row) {
                                  return Cell{QString::fromStdString(row.key), Mark::none, false, false, {}};
                              }},
                             {"Number",
                              [](const Row& row) {
                                  return Cell{QString::number(row.number), Mark::none, false, false, {}};
                              }}},
                            [](const Row& row) { return row.key; },
                            nullptr};
    ListView view{"Rows"};

    Rows() {
        view.setModel(&model);
        view.resize(300, 300);
        view.show();
    }
    QStringList chosen() const {
        QStringList keys;
        for (const auto& index : view.selectionModel()->selectedRows()) {
            keys << index.data().toString();
        }
        keys.sort();
        return keys;
    }
    void choose(std::initializer_list<int> rows) {
        view.clearSelection();
        for (const int row : rows) {
            view.selectionModel()->select(model.index(row, 0),
                                          QItemSelectionModel::Select | QItemSelectionModel::Rows);
        }
    }
};

} // namespace

TEST_CASE("what is chosen in a list stays chosen when it is filled anew") {
    struct Case {
        const char* what;
        std::vector<Row> after;
        QStringList chosen;
    };
    const std::vector<Row> before{{"a", 1}, {"b", 2}, {"c", 3}, {"d", 4}};
    const std::vector<Case> cases{
        {"the same", before, {"b", "d"}},
        {"other figures", {{"a", 9}, {"b", 9}, {"c", 9}, {"d", 9}}, {"b", "d"}},
        {"another order", {{"d", 4}, {"c", 3}, {"b", 2}, {"a", 1}}, {"b", "d"}},
        {"one is another", {{"a", 1}, {"x", 2}, {"c", 3}, {"d", 4}}, {"d"}},
        {"all are others", {{"w", 1}, {"x", 2}, {"y", 3}, {"z", 4}}, {}},
    };
    for (const auto& each : cases) {
        CAPTURE(each.what);
        Rows rows;
        rows.model.setRows(before);
        rows.choose({1, 3});
        rows.model.setRows(each.after);
        CHECK(rows.chosen() == each.chosen);
        for (std::size_t at = 0; at < each.after.size(); ++at) {
            CHECK(rows.model.index(static_cast<int>(at), 1).data().toInt() == each.after[at].number);
        }
    }
    Rows rows;
    rows.model.setRows(before);
    rows.choose({0});
    rows.model.setRows({{"b", 1}, {"c", 2}});
    CHECK(rows.model.rowCount({}) == 2);
    CHECK((rows.chosen().isEmpty() || rows.chosen() == QStringList{"a"}));
}

TEST_CASE("Condition fits its screen with many volumes, and the docket stays in sight") {
    Desktop desktop;
    std::vector<SurveyRequest> requests;
    for (int at = 0; at < 9; ++at) {
        const auto root = desktop.demo / ("Drive " + std::to_string(at));
        writeFile(root + "/a.wav", smallWav(static_cast<unsigned>(300 + at)));
        requests.push_back({root, {}, {}, Effort::index});
    }
    desktop.workbench().survey(requests);
    desktop.settle();
    desktop.press(Qt::Key_1, Qt::AltModifier);
    desktop.settle();
    CHECK(desktop.window().minimumSizeHint().height() <= 800);
    CHECK(desktop.window().height() == 800);
    auto* strip = desktop.find("What waits on the docket");
    const auto below = strip->mapTo(&desktop.window(), QPoint(0, strip->height()));
    CHECK(below.y() <= 800);
}

TEST_CASE(
    "a volume that is away while its mount point is there is shown as away, and no second one is made") {
    if (!canMount()) {
        WARN("not run: mounting is not allowed here");
        return;
    }
    TestMounts mounts; // taken away after the windows
    Desktop desktop;
    TestMounts::makeExt4(desktop.demo / "image");
    const auto point = desktop.demo / "RAZORBILL";
    mounts.mount({"-o", "loop", desktop.demo / "image", point});
    writeFile(point + "/a.wav", smallWav(411));
    desktop.workbench().survey({{point, {}, {}, Effort::index}});
    desktop.settle();
    mounts.unmount(point);
    desktop.workbench().lookForVolumes();
    desktop.settle();
    const auto labels = [&] {
        const auto catalogue = Catalogue::openForReading(desktop.demo.cataloguePath());
        std::map<std::string, bool> found;
        const auto volumes = *Volumes(*catalogue).all();
        for (const auto& volume : volumes) {
            found[volume.label] = volume.atHand;
        }
        return found;
    };
    CHECK(labels().size() == 4);
    CHECK_FALSE(labels().at("RAZORBILL"));
    desktop.workbench().survey({{point, {}, {}, Effort::index}});
    desktop.settle();
    CHECK(labels().size() == 4);
    CHECK(desktop.text("Message").contains("is the folder where it is mounted"));
}

TEST_CASE("a schedule is installed and removed off the interface thread, and says so") {
    Desktop desktop(false);
    auto* window = new ScheduleWindow(desktop.workbench(), "/usr/bin/env", &desktop.window());
    window->open();
    CHECK(desktop.text("Whether a check is scheduled") == "No check is scheduled.");
    auto* install = desktop.button("Install it");
    QTest::mouseClick(install, Qt::LeftButton);
    CHECK_FALSE(install->isEnabled()); // it is being asked
    desktop.settle();
    REQUIRE(desktop.waitFor([&] { return install->isEnabled(); }));
    CHECK(install->text() == "Remove it");
    CHECK(fs::exists(joinPath(configHome(), "systemd/user/sober-archivist-check.timer")));
    QTest::mouseClick(install, Qt::LeftButton);
    REQUIRE(desktop.waitFor([&] { return install->isEnabled(); }));
    CHECK(install->text() == "Install it");
    CHECK_FALSE(fs::exists(joinPath(configHome(), "systemd/user/sober-archivist-check.timer")));
    window->close();
}
