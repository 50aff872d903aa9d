#include "support/run_cases.h"
#include "support/test_home.h"

#include <QApplication>

int main(int argc, char** argv) {
    const sober::test::TestHome home;
    int words = 1;
    QApplication application(words, argv);
    QApplication::setOrganizationName(QStringLiteral("sober-archivist-tests"));
    QApplication::setApplicationName(QStringLiteral("ui-tests"));
    return sober::test::runCases(argc, argv);
}
