#include "core/base/own_program.h"

#include "core/base/paths.h"

#include <fmt/format.h>

#include <cstdlib>
#include <string_view>
#include <unistd.h>

extern char** environ;

namespace sober {
namespace {

constexpr const char* librariesName = "LD_LIBRARY_PATH";

} // namespace

BytePath ownFolder() {
    const auto own = realPathOf("/proc/self/exe");
    return BytePath(own ? parentOf(*own) : std::string_view());
}

BytePath ownHelper(const std::string& name) {
    const auto folder = ownFolder();
    auto beside = joinPath(folder, name);
    const auto installed = joinPath(folder, "../libexec/sober-archivist/" + name);
    return access(beside.c_str(), X_OK) != 0 && access(installed.c_str(), X_OK) == 0 ? installed : beside;
}

BytePath carriedLibraries() {
    const auto folder = ownFolder();
    // Which libraries came along stands in a list of them.
    const auto list = joinPath(folder, "../files.txt");
    return access(list.c_str(), F_OK) == 0 ? realPathOf(joinPath(folder, "../lib")).value_or("") : BytePath();
}

void keepCarriedLibrariesToOurselves() {
    if (!carriedLibraries().empty()) {
        unsetenv(librariesName); // what this process loads later, it finds all the same: ld.so(8)
    }
}

std::vector<std::string> environmentOfHelpers() {
    const auto libraries = carriedLibraries();
    const auto beginning = fmt::format("{}=", librariesName);
    std::vector<std::string> all;
    for (char** each = environ; *each != nullptr; ++each) {
        if (libraries.empty() || !std::string_view(*each).starts_with(beginning)) {
            all.emplace_back(*each);
        }
    }
    if (!libraries.empty()) {
        all.push_back(beginning + libraries);
    }
    return all;
}

} // namespace sober
