#include "core/evidence/file_pass.h"
#include "core/evidence/fixity_reading.h"
#include "support/run_program.h"
#include "support/small_audio.h"
#include "support/temp_folder.h"

#include <catch2/catch.hpp>

#include <filesystem>
#include <fstream>

using namespace sober;
using namespace sober::test;

namespace {

std::string hexOf(const Sha256& digest) {
    std::string hex;
    for (const auto byte : digest) {
        constexpr const char* digits = "0123456789abcdef";
        hex += {digits[byte >> 4], digits[byte & 15]};
    }
    return hex;
}

/// Reads files and gives the outcomes in the order in which they came.
std::vector<Result<FixityReading>> readAll(
    const std::vector<BytePath>& paths, const ReadingChoices& choices = {},
    const std::function<void(RunControl&)>& onBytes = [](RunControl&) {}) {
    std::vector<Result<FixityReading>> outcomes;
    RunControl control;
    readForFixity(
        paths, choices, control, [&](std::uint64_t) { onBytes(control); },
        [&](std::size_t number, Result<FixityReading> reading) {
            CHECK(number == outcomes.size());
            outcomes.push_back(std::move(reading));
        });
    return outcomes;
}

} // namespace

TEST_CASE("files are read in their order; blocks and SHA-256 are what other readers find") {
    const TempFolder folder;
    std::vector<BytePath> paths;
    for (const double seconds :
         {0.1, 30.0, 0.2, 60.0, 11.888616780045352}) { // the last: one block to the byte
        paths.push_back(folder / (std::to_string(paths.size()) + ".wav"));
        writeFile(paths.back(), smallWav(static_cast<std::uint32_t>(paths.size()), seconds));
    }
    const bool fromMedium = GENERATE(true, false);
    const auto outcomes = readAll(paths, {true, fromMedium, 0});
    REQUIRE(outcomes.size() == paths.size());
    RunControl control;
    for (std::size_t at = 0; at < paths.size(); ++at) {
        REQUIRE(outcomes[at].ok());
        const auto record = passOverFile(paths[at], control, [](std::uint64_t) {});
        CHECK(outcomes[at]->blocks == record->checksums.blocks);
        CHECK(outcomes[at]->stamp == record->stamp);
        CHECK(outcomes[at]->unreadable.empty());
        const auto told = run({"sha256sum", paths[at]}).out;
        CHECK(hexOf(*outcomes[at]->sha256) == told.substr(0, 64));
    }
}

TEST_CASE("what cannot be opened is one error between two readings") {
    const TempFolder folder;
    writeFile(folder / "a.wav", smallWav(1));
    writeFile(folder / "b.wav", smallWav(2));
    std::filesystem::create_symlink(folder / "a.wav", folder / "link.wav");
    writeFile(folder / "empty.wav", "");
    const auto outcomes = readAll(
        {folder / "a.wav", folder / "none.wav", folder / "link.wav", folder / "empty.wav", folder / "b.wav"});
    REQUIRE(outcomes.size() == 5);
    CHECK(outcomes[0].ok());
    CHECK(outcomes[1].error().cause == Cause::notFound);
    CHECK_FALSE(outcomes[2].ok()); // links are not followed
    CHECK(outcomes[3]->blocks.empty());
    CHECK(outcomes[4].ok());
    CHECK_FALSE(outcomes[4]->sha256.has_value());
}

TEST_CASE("a file that is written to while it is read is no reading") {
    const TempFolder folder;
    const BytePath path = folder / "a.wav";
    writeFile(path, smallWav(1, 60));
    const std::string change = GENERATE("grows", "shrinks");
    bool changed = false;
    const auto outcomes = readAll({path}, {}, [&](RunControl&) {
        if (changed) {
            return;
        }
        changed = true;
        if (change == "grows") {
            std::ofstream(path, std::ios::app | std::ios::binary) << "more";
        } else {
            std::filesystem::resize_file(path, std::filesystem::file_size(path) / 2);
        }
    });
    REQUIRE(outcomes.size() == 1);
    CHECK(outcomes[0].error().cause == Cause::changed);
}

TEST_CASE("a cancelled reading hands over what it has finished and nothing half") {
    const TempFolder folder;
    std::vector<BytePath> paths;
    for (int i = 0; i < 40; ++i) {
        paths.push_back(folder / (std::to_string(i) + ".wav"));
        writeFile(paths.back(), smallWav(static_cast<std::uint32_t>(i), 1));
    }
    int pieces = 0;
    const auto outcomes = readAll(paths, {}, [&](RunControl& control) {
        if (++pieces == 10) {
            control.cancel();
        }
    });
    CHECK(outcomes.size() >= 10);
    CHECK(outcomes.size() < 40);
    for (std::size_t at = 0; at < outcomes.size(); ++at) {
        CHECK((outcomes[at].ok() ? at < 10 : outcomes[at].error().cause == Cause::interrupted));
    }
}
