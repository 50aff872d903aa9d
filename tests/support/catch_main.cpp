#define CATCH_CONFIG_RUNNER
#include "support/test_home.h"

#include <catch2/catch.hpp>

int main(int argc, char** argv) {
    const sober::test::TestHome home;
    return Catch::Session().run(argc, argv);
}
