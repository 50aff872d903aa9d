#include "cli/answers.h"

#include "core/remedy/open_for_work.h"

#include <fmt/format.h>

#include <cstdio>

namespace sober::cli {

int fail(const Error& error) {
    fmt::print(stderr, "{}\n", error.sentence);
    return error.cause == Cause::interrupted ? exitInterrupted : exitCouldNot;
}

void printJson(const Json& json) {
    fmt::print("{}\n", json.dump(2));
}

Result<Catalogue> openWorking(const CommonOptions& common) {
    auto opened = openForWork(common.catalogue);
    if (!opened) {
        return opened.error();
    }
    for (const auto& sentence : opened->recovered) {
        fmt::print(stderr, "After an interruption: {}\n", sentence);
    }
    return std::move(opened->catalogue);
}

Result<Catalogue> openLooking(const CommonOptions& common) {
    if (auto missing = Catalogue::openForReading(common.catalogue); !missing) {
        return missing;
    }
    auto opened = openWorking(common);
    if (!opened && (opened.error().cause == Cause::busy || opened.error().cause == Cause::notPermitted)) {
        return Catalogue::openForReading(common.catalogue);
    }
    return opened;
}

void printErrors(const std::vector<SurveyError>& errors) {
    for (const auto& error : errors) {
        fmt::print(stderr, "{}\n", error.sentence);
    }
}

} // namespace sober::cli
