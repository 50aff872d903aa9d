#include "app/charts/claims_map.h"
#include "app/main_window.h"
#include "app/theme/theme.h"
#include "app/workbench.h"
#include "bench/bench_support.h"
#include "bench/bench_windows.h"
#include "bench/big_catalogue.h"
#include "core/base/file_handle.h"

#include <QApplication>
#include <QElapsedTimer>
#include <QKeyEvent>
#include <QLabel>
#include <QLineEdit>
#include <QScrollBar>
#include <QTableView>

#include <cstdio>

using namespace sober::app;
using namespace sober::bench;

/// bench-desks CATALOGUE [HOLDINGS]: writes a catalogue of a million holdings where there is none, opens the
/// real windows on it and prints how long each desk takes to its first screen, the longest that the interface
/// thread was held up while scrolling and filtering, and the memory used.
int main(int argc, char** argv) {
    const int holdings = argc > 2 ? std::atoi(argv[2]) : 1'000'000;
    if (argc < 2) {
        std::fprintf(stderr, "bench-desks CATALOGUE [HOLDINGS]\n");
        return 2;
    }
    const std::string path = argv[1];
    if (!sober::isTaken(path)) {
        QElapsedTimer clock;
        clock.start();
        writeBigCatalogue(path, holdings);
        std::printf("%d holdings written and audited in %.1f s\n", holdings,
                    static_cast<double>(clock.elapsed()) / 1000);
        std::printf("run again to measure, so that the writing does not count\n");
        return 0;
    }
    QApplication application(argc, argv);
    QApplication::setApplicationName(QStringLiteral("sober-bench-desks"));
    Theme::apply(application, Paper::light);
    Workbench workbench(path);
    MainWindow window(workbench);
    window.resize(1280, 800);
    window.show();
    workbench.open();
    double pause = 0;
    const double opening = secondsUntil([&] { return workbench.isOpen() && !workbench.isBusy(); }, pause);
    std::printf("opening the catalogue: %.2f s\n", opening);

    const std::pair<int, const char*> desks[] = {{1, "Copy sets"},
                                                 {4, "Missing holdings"},
                                                 {2, "Holdings by their evidence, the worst first"},
                                                 {0, "Changes and errors of the last surveys"},
                                                 {5, "Entries of the ledger"}};
    for (const auto& [desk, list] : desks) {
        pause = 0;
        window.openDesk(desk);
        const bool mayBeEmpty = desk == 0 || desk == 5;
        const double seconds = secondsUntil(
            [&] {
                auto* view = shownList(window, QLatin1String(list));
                return view != nullptr && (mayBeEmpty ? workbench.isIdle() : isFilled(view));
            },
            pause);
        std::printf("%-40s first screen %.2f s (limit 1), interface thread held %.0f ms at most\n", list,
                    seconds, pause * 1000);
    }
    for (const auto& [desk, name, filter] : {std::tuple{1, "Copy sets", "Filter the sets by text"},
                                             {4, "Missing holdings", "Filter the missing by path"}}) {
        window.openDesk(desk);
        auto* view = shownList(window, QLatin1String(name));
        pause = 0;
        double slowest = 0;
        for (int step = 1; step <= 20; ++step) {
            view->verticalScrollBar()->setValue(view->verticalScrollBar()->maximum() / 20 * step);
            slowest = std::max(slowest, secondsUntil([&] { return isFilled(view); }, pause));
        }
        std::printf(
            "%s: %d rows, a jump is filled after %.2f s at most, interface thread held %.0f ms at most\n",
            name, view->model()->rowCount(), slowest, pause * 1000);
        pause = 0;
        const int before = view->model()->rowCount();
        for (auto* line : window.findChildren<QLineEdit*>()) {
            if (line->accessibleName() == QLatin1String(filter)) {
                line->setText(QStringLiteral("Recording 4999"));
            }
        }
        const double filtered = secondsUntil([&] { return view->model()->rowCount() != before; }, pause);
        std::printf("%s: filtered to %d rows after %.2f s, interface thread held %.0f ms at most\n", name,
                    view->model()->rowCount(), filtered, pause * 1000);
    }
    window.openDesk(2);
    for (auto* map : window.findChildren<ClaimsMap*>()) {
        secondsUntil([&] { return workbench.isIdle(); }, pause);
        std::vector<double> drawn;
        for (int step = 0; step < 60; ++step) {
            QKeyEvent key(QEvent::KeyPress,
                          step == 0      ? Qt::Key_Plus
                          : step % 8 < 4 ? Qt::Key_Right
                                         : Qt::Key_Left,
                          Qt::NoModifier);
            QElapsedTimer clock;
            clock.start();
            QApplication::sendEvent(map, &key);
            map->grab();
            drawn.push_back(static_cast<double>(clock.nsecsElapsed()) / 1e6);
        }
        std::printf("Claims: the picture of all points moved and drawn in %.0f ms, %.0f at most\n",
                    median(drawn), *std::ranges::max_element(drawn));
    }
    std::printf("resident memory: %.0f MB (limit 400)\n", residentMegabytes());
    return 0;
}
