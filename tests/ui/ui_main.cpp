#define CATCH_CONFIG_RUNNER
#include "core/evidence/worker/evidence_worker.h"
#include "support/test_home.h"

#include <QApplication>

#include <catch2/catch.hpp>

int main(int argc, char** argv) {
    if (const auto served = sober::serveAsEvidenceWorker(argc, argv)) {
        return *served;
    }
    const sober::test::TestHome home;
    int words = 1;
    QApplication application(words, argv);
    QApplication::setOrganizationName(QStringLiteral("sober-archivist-tests"));
    QApplication::setApplicationName(QStringLiteral("ui-tests"));
    return Catch::Session().run(argc, argv);
}
