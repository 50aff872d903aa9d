#define CATCH_CONFIG_RUNNER
#include "support/temp_folder.h"

#include <catch2/catch.hpp>

#include <cstdlib>

/// Tests never touch the user's own trash, catalogue or settings.
int main(int argc, char** argv) {
    const sober::test::TempFolder home;
    setenv("HOME", home.path().c_str(), 1);
    setenv("XDG_DATA_HOME", (home.path() + "/data").c_str(), 1);
    setenv("XDG_CONFIG_HOME", (home.path() + "/config").c_str(), 1);
    setenv("XDG_RUNTIME_DIR", home.path().c_str(), 1);
    setenv("TZ", "UTC", 1);
    return Catch::Session().run(argc, argv);
}
