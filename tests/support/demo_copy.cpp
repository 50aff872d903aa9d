#include "support/demo_copy.h"

#include "support/run_program.h"

#include <catch2/catch.hpp>

#include <filesystem>

namespace sober::test {

namespace {

/// Where the copy stands, and what was kept: gone when the process ends.
const TempFolder& place() {
    static const TempFolder folder;
    return folder;
}

} // namespace

DemoCopy::DemoCopy() : folder_(place() / "demo") {
    for (const std::string volume : {"GANNET", "TERN", "PETREL", "DOWNLOADS", "OFFERS", "DISC"}) {
        copyFolder(TEST_DEMO "/" + volume, *this / volume);
    }
}

DemoCopy::~DemoCopy() {
    std::error_code ignored;
    std::filesystem::remove_all(folder_, ignored);
}

void DemoCopy::keepAs(const std::string& name) const {
    copyFolder(folder_, place() / name);
}

bool DemoCopy::takeFrom(const std::string& name) const {
    const auto kept = place() / name;
    const bool known = std::filesystem::exists(kept);
    if (known) {
        copyFolder(kept, folder_);
    }
    return known;
}

nlohmann::json demoTruth() {
    return nlohmann::json::parse(readFile(TEST_DEMO "/truth.json"));
}

void DemoCopy::bringLantern() const {
    const auto copied = run({"cp", "-a", TEST_DEMO "/lantern", *this / ""});
    REQUIRE(copied.code == 0);
    const std::string from = "file://" TEST_DEMO "/";
    const std::string to = "file://" + folder_ + "/";
    for (const auto* name : {"library.xspf", "lists/Sunday.xspf", "lists/From the old machine.xspf"}) {
        const auto path = *this / ("lantern/" + std::string(name));
        auto text = readFile(path);
        for (auto at = text.find(from); at != std::string::npos; at = text.find(from, at + to.size())) {
            text.replace(at, from.size(), to);
        }
        writeFile(path, text);
    }
}

} // namespace sober::test
