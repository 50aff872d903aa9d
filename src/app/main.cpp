#include "app/main_window.h"
#include "app/theme/theme.h"
#include "app/words.h"
#include "core/base/user_folders.h"

#include <QApplication>
#include <QFile>
#include <QSettings>

#include <cstdio>

namespace {

struct Arguments {
    sober::BytePath catalogue = sober::defaultCatalogue();
    std::vector<sober::SurveyRequest> surveys;
};

/// sober-archivist [--catalogue FILE] [FOLDER…]; nothing where the words are wrong.
std::optional<Arguments> readArguments(int argc, char** argv) {
    Arguments arguments;
    for (int i = 1; i < argc; ++i) {
        const std::string word = argv[i];
        if (word == "--catalogue" && i + 1 < argc) {
            arguments.catalogue = argv[++i];
        } else if (word.starts_with("-")) {
            return std::nullopt;
        } else {
            arguments.surveys.push_back({word, {}, {}, {}});
        }
    }
    return arguments;
}

} // namespace

int main(int argc, char** argv) {
    QApplication application(argc, argv);
    QApplication::setOrganizationName(QStringLiteral("sober-archivist"));
    QApplication::setApplicationName(QStringLiteral("sober-archivist"));
    const auto arguments = readArguments(argc, argv);
    if (!arguments) {
        std::fprintf(stderr, "sober-archivist [--catalogue FILE] [FOLDER…]\n");
        return 2;
    }
    const auto paper = QSettings().value(QStringLiteral("paper"), 0).toInt();
    sober::app::Theme::apply(application, paper == 1 ? sober::app::Paper::dark : sober::app::Paper::light);

    sober::app::Workbench workbench(arguments->catalogue);
    sober::app::MainWindow window(workbench);
    QObject::connect(&workbench, &sober::app::Workbench::opened, &window,
                     [&] { workbench.survey(arguments->surveys); });
    window.show();
    workbench.open();
    return QApplication::exec();
}
