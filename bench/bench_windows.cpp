#include "bench/bench_windows.h"

#include <QApplication>
#include <QElapsedTimer>
#include <QTableView>
#include <QThread>

#include <algorithm>

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
