#include "app/charts/claims_map.h"
#include "app/lists/list_view.h"
#include "app/main_window.h"
#include "app/shared_heaps.h"
#include "app/theme/theme.h"
#include "app/workbench.h"
#include "bench/bench_support.h"
#include "bench/bench_windows.h"
#include "bench/big_catalogue.h"
#include "core/base/file_handle.h"

#include <QApplication>
#include <QElapsedTimer>
#include <QKeyEvent>
#include <QLineEdit>
#include <QPushButton>
#include <QScrollBar>
#include <QTableView>
#include <QTemporaryDir>

#include <cstdio>
#include <random>

using namespace sober::app;
using namespace sober::bench;

namespace {

struct Shown {
    int desk;
    const char* list; ///< by its name; "" where nothing but the answers is waited for
    const char* filter;
};

constexpr Shown desks[] = {{0, "", ""},
                           {1, "Copy sets", "Filter the sets by text"},
                           {2, "Holdings by their evidence, the worst first", "Filter by text"},
                           {3, "", ""},
                           {4, "Places that references lead to", ""},
                           {5, "", ""},
                           {6, "What was found", "Words to find"},
                           {7, "What can come along", ""}};

QLineEdit* lineNamed(const QWidget& window, const char* name) {
    for (auto* line : window.findChildren<QLineEdit*>()) {
        if (line->isVisible() && line->accessibleName() == QLatin1String(name)) {
            return line;
        }
    }
    return nullptr;
}

void pressIn(QWidget* where, Qt::Key key, const QString& text = {}) {
    for (const auto type : {QEvent::KeyPress, QEvent::KeyRelease}) {
        QKeyEvent event(type, key, Qt::NoModifier, text);
        QApplication::sendEvent(where, &event);
    }
}

/// Goes from desk to desk, scrolls, chooses rows and types what to filter by, as fast as a person can.
void useFor(double minutes, MainWindow& window, Pauses& pauses) {
    std::mt19937 random(20261130); // NOLINT: the same each time
    QElapsedTimer clock;
    clock.start();
    const auto pause = [&] { return 0.1 + static_cast<double>(random() % 600) / 1000; };
    while (static_cast<double>(clock.elapsed()) < minutes * 60'000) {
        const auto& shown = desks[random() % std::size(desks)];
        window.openDesk(shown.desk);
        handleEvents(pause(), pauses);
        auto* view = shownList(window, QLatin1String(shown.list));
        for (int step = 0; view != nullptr && step < 8; ++step) {
            if (random() % 2 == 0) {
                auto* bar = view->verticalScrollBar();
                bar->setValue(bar->maximum() > 0
                                  ? static_cast<int>(random() % static_cast<unsigned>(bar->maximum()))
                                  : 0);
            } else {
                pressIn(view, random() % 3 == 0 ? Qt::Key_PageDown : Qt::Key_Down);
            }
            handleEvents(pause(), pauses);
        }
        if (auto* line = lineNamed(window, shown.filter)) {
            for (const QChar letter : QStringLiteral("recording 4%1").arg(random() % 1000)) {
                pressIn(line, Qt::Key_A, letter);
                handleEvents(0.12, pauses);
            }
            handleEvents(2 * pause(), pauses);
            line->clear();
            handleEvents(pause(), pauses);
        }
    }
}

/// What the rows in sight say, with their marks.
QString wordsOf(const QTableView& view) {
    QString words;
    const int first = std::max(0, view.rowAt(0));
    for (int row = first; row < std::min(view.model()->rowCount(), first + 20); ++row) {
        for (int column = 0; column < view.model()->columnCount(); ++column) {
            const auto index = view.model()->index(row, column);
            words += QStringLiteral("%1 %2 %3|")
                         .arg(index.data().toString(), index.data(markRole).toString(),
                              index.data(quietRole).toString());
        }
    }
    return words;
}

QPushButton* buttonNamed(const QWidget& window, const char* name) {
    for (auto* button : window.findChildren<QPushButton*>()) {
        if (button->isVisible() && button->accessibleName() == QLatin1String(name)) {
            return button;
        }
    }
    return nullptr;
}

/// How long it takes until a decision on one set stands in the list.
void changeSets(MainWindow& window, Workbench& workbench) {
    double pause = 0;
    window.openDesk(1);
    secondsUntil([&] { return workbench.isIdle(); }, pause);
    auto* view = shownList(window, QLatin1String(desks[1].list));
    std::vector<double> shown;
    pause = 0;
    for (int step = 0; view != nullptr && step < 10; ++step) {
        view->selectRow(step);
        double waiting = 0;
        secondsUntil([&] { return workbench.isIdle(); }, waiting);
        const auto before = wordsOf(*view);
        auto* leave = buttonNamed(window, "Leave");
        if (leave == nullptr || !leave->isEnabled()) {
            break;
        }
        leave->click();
        shown.push_back(secondsUntil([&] { return wordsOf(*view) != before; }, pause));
        secondsUntil([&] { return workbench.isIdle(); }, waiting);
        if (auto* open = buttonNamed(window, "Undecide"); open != nullptr && open->isEnabled()) {
            open->click();
        }
    }
    if (shown.empty()) {
        std::printf("a change of one set: nothing could be decided\n");
    } else {
        std::printf("a change of one set shows after %.3f s, %.3f at most (limit 0.1), interface thread held "
                    "%.0f ms at "
                    "most\n",
                    median(shown), *std::ranges::max_element(shown), pause * 1000);
    }
}

} // namespace

/// bench-desks CATALOGUE [HOLDINGS [MINUTES]]: writes a catalogue of a million holdings where there is none;
/// else opens the real windows on it and prints how long each desk takes to its first screen and each filter
/// to its first rows, how long the interface thread was held up in so many minutes (10) of scripted use, and
/// the memory used.
int main(int argc, char** argv) {
    const int holdings = argc > 2 ? std::atoi(argv[2]) : 1'000'000;
    const double minutes = argc > 3 ? std::atof(argv[3]) : 10;
    if (argc < 2) {
        std::fprintf(stderr, "bench-desks CATALOGUE [HOLDINGS [MINUTES]]\n");
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
    const QTemporaryDir settings; // what was left open the last time is another measurement
    qputenv("XDG_CONFIG_HOME", settings.path().toLocal8Bit());
    shareHeaps();
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
    secondsUntil([&] { return workbench.isIdle(); }, pause);

    for (const auto& [desk, list, filter] : desks) {
        pause = 0;
        window.openDesk(desk);
        const double seconds = secondsUntil(
            [&] {
                auto* view = shownList(window, QLatin1String(list));
                return *list == 0 || view == nullptr ? workbench.isIdle() : isFilled(view);
            },
            pause);
        std::printf("desk %d %-44s first screen %.2f s (limit 0.5), interface thread held %.0f ms at most\n",
                    desk + 1, list, seconds, pause * 1000);
        secondsUntil([&] { return workbench.isIdle(); }, pause);
    }
    for (const auto& [desk, name, filter] : desks) {
        if (*filter == 0) {
            continue;
        }
        window.openDesk(desk);
        auto* view = shownList(window, QLatin1String(name));
        auto* line = lineNamed(window, filter);
        if (view == nullptr || line == nullptr) {
            std::printf("desk %d: nothing to filter\n", desk + 1);
            continue;
        }
        for (const auto* words : {"Recording 4999", "4999", "Album 77"}) {
            pause = 0;
            const int before = view->model()->rowCount();
            line->setText(QLatin1String(words));
            const double filtered = secondsUntil([&] { return view->model()->rowCount() != before; }, pause);
            std::printf("desk %d by \"%s\": %d rows after %.2f s (limit 0.3 and the pause after typing), "
                        "interface thread "
                        "held %.0f ms at most\n",
                        desk + 1, words, view->model()->rowCount(), filtered, pause * 1000);
            secondsUntil([&] { return workbench.isIdle(); }, pause);
            const int filteredRows = view->model()->rowCount();
            line->clear();
            secondsUntil([&] { return view->model()->rowCount() != filteredRows && workbench.isIdle(); },
                         pause);
        }
    }
    changeSets(window, workbench);
    for (auto* button : window.findChildren<QPushButton*>()) {
        if (button->text().startsWith(QLatin1String("Read through"))) {
            pause = 0;
            button->click();
            const auto* docket = QApplication::activeModalWidget();
            const double seconds = secondsUntil(
                [&] {
                    return docket != nullptr &&
                           isFilled(shownList(*docket, QStringLiteral("Actions on the docket")));
                },
                pause);
            std::printf("the docket read through: %.2f s, interface thread held %.0f ms at most\n", seconds,
                        pause * 1000);
            secondsUntil([&] { return workbench.isIdle(); }, pause);
            if (QApplication::activeModalWidget() != nullptr) {
                QApplication::activeModalWidget()->close();
            }
            break;
        }
    }
    window.openDesk(2);
    for (auto* map : window.findChildren<ClaimsMap*>()) {
        secondsUntil([&] { return workbench.isIdle(); }, pause);
        std::vector<double> drawn;
        for (int step = 0; step < 60; ++step) {
            QElapsedTimer clock;
            clock.start();
            pressIn(map, step == 0 ? Qt::Key_Plus : step % 8 < 4 ? Qt::Key_Right : Qt::Key_Left);
            map->grab();
            drawn.push_back(static_cast<double>(clock.nsecsElapsed()) / 1e6);
        }
        std::printf("Claims: the picture of all points moved and drawn in %.0f ms, %.0f at most\n",
                    median(drawn), *std::ranges::max_element(drawn));
    }
    Pauses pauses;
    useFor(minutes, window, pauses);
    std::printf("%.0f minutes of use: ", minutes);
    pauses.print();
    std::printf("resident memory: %.0f MB (limit 400)\n", residentMegabytes());
    return 0;
}
