#include "support/run_cases.h"
#include "support/test_home.h"

int main(int argc, char** argv) {
    const sober::test::TestHome home;
    return sober::test::runCases(argc, argv);
}
