#include "app/charts/lineage_chart.h"
#include "app/charts/overlay_chart.h"
#include "app/main_window.h"
#include "app/theme/theme.h"
#include "app/workbench.h"
#include "bench/bench_support.h"
#include "bench/bench_windows.h"

#include <QApplication>
#include <QLabel>
#include <QTableView>

#include <algorithm>
#include <cstdio>

using namespace sober::app;
using namespace sober::bench;

namespace {

QString textOf(const QWidget& window, const QString& name) {
    for (auto* label : window.findChildren<QLabel*>()) {
        if (label->isVisible() && label->accessibleName() == name) {
            return label->text();
        }
    }
    return {};
}

} // namespace

/// bench-sets CATALOGUE: opens the copy sets of an examined collection one after another in the real windows.
/// Prints for sets of eight members or more how long it takes until lineage, spectra, members and reasons are
/// drawn, and until what is left after subtraction has arrived; then how long it takes to go on from one to
/// the next.
int main(int argc, char** argv) {
    if (argc != 2) {
        std::fprintf(stderr, "bench-sets CATALOGUE\n");
        return 2;
    }
    QApplication application(argc, argv);
    QApplication::setApplicationName(QStringLiteral("sober-bench-sets"));
    Theme::apply(application, Paper::light);
    Workbench workbench(argv[1]);
    MainWindow window(workbench);
    window.resize(1280, 800);
    window.show();
    workbench.open();
    double pause = 0;
    secondsUntil([&] { return workbench.isOpen() && !workbench.isBusy(); }, pause);
    window.openDesk(1);
    secondsUntil(
        [&] { return isFilled(shownList(window, QStringLiteral("Copy sets"))) && workbench.isIdle(); },
        pause);
    auto* sets = shownList(window, QStringLiteral("Copy sets"));
    auto* members = shownList(window, QStringLiteral("Members of the set"));
    const auto held = [&](int row) {
        return sets->model()
            ->index(row, 2)
            .data()
            .toString()
            .remove(QStringLiteral(" ×"))
            .remove(QLatin1Char(','))
            .toInt();
    };
    std::vector<double> drawn;
    std::vector<double> residuals;
    pause = 0;
    int most = 0;
    for (int row = 0; row < sets->model()->rowCount(); ++row) {
        secondsUntil([&] { return held(row) > 0; }, pause);
        if (held(row) < 8) {
            continue;
        }
        most = std::max(most, held(row));
        sets->selectRow(row == 0 ? 1 : 0);
        secondsUntil([&] { return workbench.isIdle(); }, pause);
        pause = 0;
        sets->selectRow(row);
        const double shown = secondsUntil(
            [&] {
                return members->model()->rowCount() == held(row) && members->currentIndex().isValid() &&
                       !textOf(window, QStringLiteral("Reasons")).isEmpty();
            },
            pause);
        double painting = 0;
        for (auto* chart : window.findChildren<Chart*>()) {
            if (chart->isVisible()) {
                painting += secondsUntil([&] { return !chart->grab().isNull(); }, pause);
            }
        }
        drawn.push_back(shown + painting);
        for (int member = 0; member < members->model()->rowCount(); ++member) {
            members->selectRow(member);
            residuals.push_back(secondsUntil([&] { return workbench.isIdle(); }, pause));
        }
    }
    if (drawn.empty()) {
        std::printf("no set has eight members\n");
    } else {
        std::printf("%zu sets of 8 to %d members: drawn in %.3f s, %.3f at most (limit 1.5); a member's "
                    "residual after "
                    "%.3f s, %.3f at most; interface thread held %.0f ms at most\n",
                    drawn.size(), most, median(drawn), *std::ranges::max_element(drawn), median(residuals),
                    *std::ranges::max_element(residuals), pause * 1000);
    }
    sets->selectRow(0);
    std::vector<double> decided;
    const int count = std::min(60, sets->model()->rowCount() - 1);
    for (int row = 0; row < count; ++row) {
        decided.push_back(secondsUntil([&] { return workbench.isIdle(); }, pause));
        sets->selectRow(row + 1);
        decided.back() += secondsUntil([&] { return workbench.isIdle(); }, pause);
    }
    std::printf("%d sets gone through: %.3f s each until the next is drawn, %.3f at most\n", count,
                median(decided), *std::ranges::max_element(decided));
    return 0;
}
