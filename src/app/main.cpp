#include "app/arguments.h"
#include "app/language/language.h"
#include "app/main_window.h"
#include "app/shared_heaps.h"
#include "app/single_instance.h"
#include "app/theme/theme.h"
#include "core/base/own_program.h"

#include <QApplication>
#include <QIcon>
#include <QSettings>

#include <algorithm>
#include <array>
#include <clocale>
#include <string_view>

namespace {

/// What is answered without a display.
bool needsNoWindow(int argc, char** argv) {
    constexpr std::array<std::string_view, 4> words{"--help", "-h", "--version", "--describe"};
    return std::any_of(argv + 1, argv + argc,
                       [&](const char* word) { return std::ranges::find(words, word) != words.end(); });
}

} // namespace

int main(int argc, char** argv) {
    using namespace sober::app;
    int exitCode = 0;
    if (needsNoWindow(argc, argv)) {
        readArguments(argc, argv, exitCode);
        return exitCode;
    }
    if (const int size = sizeWanted(argc, argv);
        size != 100 && !qEnvironmentVariableIsSet("QT_SCALE_FACTOR")) {
        qputenv("QT_SCALE_FACTOR", QByteArray::number(size / 100.0));
    }
    shareHeaps();
    sober::keepCarriedLibrariesToOurselves();
    QApplication application(argc, argv);
    if (const auto libraries = sober::carriedLibraries(); !libraries.empty()) {
        Theme::addFonts(QString::fromStdString(libraries) + QStringLiteral("/../fonts"));
    }
    // Figures that are read or written for other programs have a point, and what the core and the system say
    // is English, whatever the desktop's language: it is kept, and told in the language that is on.
    for (const int category : {LC_NUMERIC, LC_TIME, LC_MESSAGES}) {
        std::setlocale(category, "C");
    }
    QApplication::setOrganizationName(QStringLiteral("sober-archivist"));
    QApplication::setApplicationName(QStringLiteral("sober-archivist"));
    QApplication::setDesktopFileName(QStringLiteral("sober-archivist"));
    QApplication::setWindowIcon(QIcon(QStringLiteral(":/icons/128.png")));
    const auto arguments = readArguments(argc, argv, exitCode);
    if (!arguments) {
        return exitCode;
    }
    useSettingsOf(arguments->carried);
    SingleInstance instance(arguments->catalogue);
    if (instance.handOverOrListen(arguments->places)) {
        return 0;
    }
    putLanguageOn(application);
    const auto paper = QSettings().value(QStringLiteral("paper"), 0).toUInt();
    Theme::apply(application, everyPaper[paper < everyPaper.size() ? paper : 0]);

    Workbench workbench(arguments->catalogue);
    MainWindow window(workbench);
    QObject::connect(&workbench, &Workbench::opened, &window, [&] { window.takeIn(arguments->places); });
    QObject::connect(&instance, &SingleInstance::asked, &window,
                     [&](const std::vector<sober::BytePath>& places) {
                         window.showNormal();
                         window.raise();
                         window.activateWindow();
                         window.takeIn(places);
                     });
    window.show();
    workbench.open();
    return QApplication::exec();
}
