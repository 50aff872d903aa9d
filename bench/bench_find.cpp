#include "app/main_window.h"
#include "app/theme/theme.h"
#include "app/workbench.h"
#include "bench/bench_support.h"
#include "bench/bench_windows.h"
#include "core/base/file_handle.h"

#include <QApplication>
#include <QLineEdit>
#include <QTableView>
#include <QTest>

#include <SQLiteCpp/SQLiteCpp.h>
#include <fmt/format.h>

#include <cstdio>
#include <filesystem>
#include <fstream>

using namespace sober::app;
using namespace sober::bench;

namespace {

/// What is searched as lines of text, one a holding, for a general-purpose tool.
void writeTexts(const std::string& catalogue, const std::string& to) {
    SQLite::Database database(catalogue, SQLite::OPEN_READONLY);
    SQLite::Statement ask(database, "SELECT replace(text, char(10), ' ') FROM search_texts ORDER BY holding");
    std::ofstream out(to, std::ios::binary);
    while (ask.executeStep()) {
        out << ask.getColumn(0).getString() << '\n';
    }
}

} // namespace

/// bench-find CATALOGUE: opens the real windows on a catalogue that bench-desks wrote and prints how long it
/// takes from the last key typed to the first rows, and to all of them, beside grep over the same texts.
int main(int argc, char** argv) {
    if (argc < 2 || !sober::isTaken(argv[1])) {
        std::fprintf(stderr, "bench-find CATALOGUE: bench-desks writes one\n");
        return 2;
    }
    const std::string path = argv[1];
    const std::string texts = path + ".texts";
    writeTexts(path, texts);
    QApplication application(argc, argv);
    QApplication::setApplicationName(QStringLiteral("sober-bench-find"));
    Theme::apply(application, Paper::light);
    Workbench workbench(path);
    MainWindow window(workbench);
    window.resize(1280, 800);
    window.show();
    workbench.open();
    double pause = 0;
    secondsUntil([&] { return workbench.isOpen() && !workbench.isBusy() && workbench.isIdle(); }, pause);
    pause = 0;
    window.openDesk(6);
    const auto view = [&] { return shownList(window, QStringLiteral("What was found")); };
    const double opened = secondsUntil([&] { return view() != nullptr && isFilled(view()); }, pause);
    fmt::print("Find: first rows of everything after {:.2f} s, interface thread held {:.0f} ms at most\n",
               opened, pause * 1000);
    secondsUntil([&] { return workbench.isIdle(); }, pause);
    QLineEdit* words = nullptr;
    for (auto* line : window.findChildren<QLineEdit*>()) {
        if (line->accessibleName() == QLatin1String("Words to find")) {
            words = line;
        }
    }
    bool met = false;
    QObject::connect(&workbench, &Workbench::searchBegan, [&] { met = true; });
    QObject::connect(&workbench, &Workbench::searched, [&] { met = true; });
    for (const auto* typed :
         {"recording 4999", "performer 77", "album 31 flac", "recording 1", "flac", "99", "zzz"}) {
        std::vector<double> first;
        std::vector<double> whole;
        pause = 0;
        for (int turn = 0; turn < 3; ++turn) {
            words->clear();
            secondsUntil([&] { return workbench.isIdle(); }, pause);
            QTest::qWait(300);
            secondsUntil([&] { return workbench.isIdle(); }, pause);
            words->setText(QString::fromLatin1(typed).chopped(1));
            pause = 0;
            met = false;
            QTest::keyClicks(words, QString::fromLatin1(typed).right(1));
            first.push_back(secondsUntil(
                [&] { return met && (view()->model()->rowCount() == 0 || isFilled(view())); }, pause));
            whole.push_back(first.back() + secondsUntil([&] { return workbench.isIdle(); }, pause));
        }
        std::string pipe = fmt::format("cat '{}'", texts);
        for (const auto& word : QString::fromLatin1(typed).split(QLatin1Char(' '))) {
            pipe += fmt::format(" | grep -F '{}'", word.toStdString());
        }
        const auto grep = costOf(pipe + " | wc -l").seconds;
        fmt::print("{:<16} {:>8} rows: the first {:.2f} s after the last key (limit 0.3), all {:.2f} s, "
                   "{:.1f} x grep; "
                   "interface thread held {:.0f} ms at most\n",
                   typed, view()->model()->rowCount(), median(first), median(whole), median(whole) / grep,
                   pause * 1000);
    }
    fmt::print("resident memory: {:.0f} MB\n", residentMegabytes());
    std::filesystem::remove(texts);
    return 0;
}
