#define CATCH_CONFIG_RUNNER
#include "run_cases.h"

#include <catch2/catch.hpp>

namespace sober::test {

int runCases(int argc, char** argv) {
    return Catch::Session().run(argc, argv);
}

} // namespace sober::test
