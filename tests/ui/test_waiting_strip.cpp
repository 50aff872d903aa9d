// The window on a collection of which something waits to be settled, because its drive is away.
#include "app/main_window.h"
#include "app/workbench.h"
#include "core/catalogue/ledger_store.h"
#include "support/demo_copy.h"
#include "support/run_program.h"

#include <QLabel>
#include <QTest>

#include <catch2/catch.hpp>

#include <csignal>
#include <filesystem>

using namespace sober;
using namespace sober::test;
namespace fs = std::filesystem;

namespace {

QLabel* waitingIn(const app::MainWindow& window) {
    for (auto* label : window.findChildren<QLabel*>()) {
        if (label->accessibleName() == QStringLiteral("What waits to be settled")) {
            return label;
        }
    }
    return nullptr;
}

} // namespace

TEST_CASE("what waits for a drive that is away is said in the window, and settled when the drive is back") {
    const DemoCopy demo;
    const auto catalogue = demo / "catalogue.sqlite";
    const BytePath copy = demo / "TERN/spare copy.mp3";
    for (const auto& entry : fs::recursive_directory_iterator(demo / "TERN/MUSIC")) {
        if (entry.path().extension() == ".mp3") {
            fs::copy_file(entry.path(), copy);
            break;
        }
    }
    REQUIRE(fs::exists(copy));
    REQUIRE(sober::test::sober(catalogue, {"survey", demo / "TERN"}).code >= 0);
    REQUIRE(sober::test::sober(catalogue, {"docket", "add", "retire", copy}).code == 0);
    REQUIRE(run({CRASH_HELPER, catalogue, "carry-out", "4"}).code == -SIGKILL); // it has gone to the trash
    CHECK_FALSE(fs::exists(copy));
    fs::rename(demo / "TERN", demo / "in the cupboard");

    app::Workbench workbench(catalogue);
    app::MainWindow window(workbench);
    window.resize(1280, 800);
    window.show();
    workbench.open();
    auto* const waiting = waitingIn(window);
    REQUIRE(waiting != nullptr);
    REQUIRE(QTest::qWaitFor([&] { return waiting->isVisible(); }, 20'000));
    CHECK(waiting->text().contains(QStringLiteral("spare copy.mp3 waits to be settled: TERN is away.")));

    fs::rename(demo / "in the cupboard", demo / "TERN");
    REQUIRE(QTest::qWaitFor([&] { return workbench.isIdle() && !workbench.isBusy(); }, 20'000));
    workbench.lookForVolumes();
    REQUIRE(QTest::qWaitFor([&] { return !waiting->isVisible(); }, 20'000));
    const auto reader = Catalogue::openForReading(catalogue);
    REQUIRE(reader.ok());
    CHECK(LedgerStore(*reader).unfinished()->empty());
    CHECK_FALSE(fs::exists(copy));
}
