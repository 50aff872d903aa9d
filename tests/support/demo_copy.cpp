#include "support/demo_copy.h"

#include "support/run_program.h"

#include <catch2/catch.hpp>

namespace sober::test {

DemoCopy::DemoCopy() {
    for (const std::string volume : {"GANNET", "TERN", "PETREL"}) {
        const auto copied = run({"cp", "-a", TEST_DEMO "/" + volume, folder_.path()});
        INFO(copied.err);
        REQUIRE(copied.code == 0);
    }
}

nlohmann::json demoTruth() {
    return nlohmann::json::parse(readFile(TEST_DEMO "/truth.json"));
}

} // namespace sober::test
