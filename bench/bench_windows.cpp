#include "bench/bench_windows.h"

#include <QApplication>
#include <QElapsedTimer>
#include <QTableView>
#include <QThread>

#include <algorithm>
#include <cstdio>

namespace sober::bench {

QTableView* shownList(const QWidget& window, const QString& name) {
    for (auto* view : window.findChildren<QTableView*>()) {
        if (view->isVisible() && view->accessibleName() == name) {
            return view;
        }
    }
    return nullptr;
}

bool isFilled(const QTableView* view) {
    if (view == nullptr || view->model()->rowCount() == 0) {
        return false;
    }
    const int first = std::max(view->rowAt(0), 0);
    for (int row = first; row < std::min(first + 12, view->model()->rowCount()); ++row) {
        if (view->model()->index(row, 0).data().toString() == QStringLiteral("…")) {
            return false;
        }
    }
    return true;
}

void Pauses::take(double seconds) {
    ++counts[static_cast<std::size_t>(std::ranges::lower_bound(bounds, seconds) - bounds.begin())];
    longest = std::max(longest, seconds);
}

void Pauses::print() const {
    std::printf("how long the interface thread did not come round:\n");
    for (std::size_t i = 0; i < counts.size(); ++i) {
        const bool isLast = i == bounds.size();
        std::printf("  %s %3.0f ms  %9llu\n", isLast ? " over" : "up to",
                    (isLast ? bounds.back() : bounds[i]) * 1000, static_cast<unsigned long long>(counts[i]));
    }
    std::printf("  the longest %.0f ms\n", longest * 1000);
}

void handleEvents(double seconds, Pauses& pauses) {
    QElapsedTimer clock;
    clock.start();
    while (static_cast<double>(clock.elapsed()) < seconds * 1000) {
        QElapsedTimer round;
        round.start();
        QApplication::processEvents(QEventLoop::AllEvents, 2);
        pauses.take(static_cast<double>(round.nsecsElapsed()) / 1e9);
        QThread::msleep(1);
    }
}

double secondsUntil(const std::function<bool()>& holds, double& worstPause) {
    QElapsedTimer clock;
    clock.start();
    while (!holds() && clock.elapsed() < 60'000) {
        QElapsedTimer round;
        round.start();
        QApplication::processEvents(QEventLoop::AllEvents, 5);
        worstPause = std::max(worstPause, static_cast<double>(round.nsecsElapsed()) / 1e9);
        QThread::msleep(1);
    }
    return static_cast<double>(clock.nsecsElapsed()) / 1e9;
}

} // namespace sober::bench
