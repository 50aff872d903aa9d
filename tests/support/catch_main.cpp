#include "core/evidence/worker/evidence_worker.h"
#include "support/run_cases.h"
#include "support/test_home.h"

int main(int argc, char** argv) {
    if (const auto served = sober::serveAsEvidenceWorker(argc, argv)) {
        return *served;
    }
    const sober::test::TestHome home;
    return sober::test::runCases(argc, argv);
}
