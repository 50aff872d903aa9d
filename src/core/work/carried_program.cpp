#include "core/work/carried_program.h"

#include "core/base/file_handle.h"
#include "core/base/own_program.h"
#include "core/base/program_output.h"
#include "core/base/text.h"

#include <fmt/format.h>
#include <gnu/libc-version.h>
#include <sys/utsname.h>

#include <algorithm>
#include <array>
#include <dlfcn.h>
#include <filesystem>
#include <link.h>
#include <map>
#include <set>
#include <sstream>

namespace sober {
namespace {

namespace fs = std::filesystem;

/// They belong to the machine: its own loader takes only its own.
constexpr std::array<std::string_view, 10> ofTheCLibrary{
    "ld-linux",  "libc.so.",  "libm.so.",      "libmvec.so.", "libpthread.so.",
    "libdl.so.", "librt.so.", "libresolv.so.", "libutil.so.", "libanl.so."};

/// What is loaded only when it is needed (base/http_exchange.cpp, evidence/fingerprint.cpp).
constexpr std::array loadedLate{"libcurl.so.4", "libchromaprint.so.1"};

/// Kinds of Qt's plugins that the windows use, each with how the names begin.
constexpr std::array<std::pair<std::string_view, std::string_view>, 9> plugins{{
    {"platforms", "libqxcb"},
    {"platforms", "libqwayland"},
    {"xcbglintegrations", "lib"},
    {"wayland-shell-integration", "lib"},
    {"wayland-graphics-integration-client", "lib"},
    {"wayland-decoration-client", "lib"},
    {"platforminputcontexts", "lib"},
    {"imageformats", "libqjpeg"},
    {"multimedia", "libffmpeg"},
}};

constexpr std::array fonts{"NotoSans-Regular.ttf", "NotoSans-Bold.ttf", "NotoSerif-Regular.ttf",
                           "NotoSansMono-Regular.ttf"};

/// Where a library is that the loader would take now; "" where there is none.
BytePath libraryAt(const char* name) {
    void* library = dlopen(name, RTLD_LAZY);
    const link_map* map = nullptr;
    const bool isKnown = library != nullptr && dlinfo(library, RTLD_DI_LINKMAP, &map) == 0;
    BytePath path = isKnown ? map->l_name : "";
    if (library != nullptr) {
        dlclose(library);
    }
    return path;
}

/// The libraries that the loader takes for some programs and libraries, by name; as ldd(1) says.
std::map<std::string, BytePath> librariesOf(const std::vector<BytePath>& binaries) {
    std::vector<std::string> words{"ldd"};
    words.insert(words.end(), binaries.begin(), binaries.end());
    std::map<std::string, BytePath> libraries;
    std::istringstream output(outputOf(std::move(words)).value_or(""));
    for (std::string line; std::getline(output, line);) {
        const auto arrow = line.find(" => /");
        const auto end = line.rfind(" (0x");
        if (arrow == std::string::npos || end == std::string::npos || end < arrow) {
            continue;
        }
        const auto name = std::string(trimmed(std::string_view(line).substr(0, arrow)));
        const bool isOfTheSystem = std::ranges::any_of(
            ofTheCLibrary, [&](std::string_view beginning) { return name.starts_with(beginning); });
        if (!isOfTheSystem) {
            libraries.emplace(name, line.substr(arrow + 4, end - arrow - 4));
        }
    }
    return libraries;
}

void addFile(CarriedProgram& program, const BytePath& from, std::string as) {
    const auto file = realPathOf(from).value_or("");
    const bool isThere = std::ranges::find(program.files, as, &CarriedFile::as) != program.files.end();
    if (const auto stamp = stampAt(file); stamp && !isThere) {
        program.bytes += stamp->size;
        program.files.push_back({file, std::move(as)});
    }
}

/// All files of a folder whose names begin so.
std::vector<BytePath> filesIn(const BytePath& folder, std::string_view beginning) {
    std::vector<BytePath> files;
    std::error_code trouble;
    for (const auto& entry : fs::directory_iterator(folder, trouble)) {
        if (entry.path().filename().string().starts_with(beginning)) {
            files.push_back(entry.path().string());
        }
    }
    std::ranges::sort(files);
    return files;
}

/// The terms of the packages that the files come from, where Debian's tools know them.
void addTerms(CarriedProgram& program) {
    std::vector<std::string> words{"dpkg-query", "--search"};
    for (const auto& file : program.files) {
        words.push_back(file.from);
        words.push_back(file.from.starts_with("/usr/") ? file.from.substr(4) : "/usr" + file.from);
    }
    std::set<std::string> packages;
    std::istringstream output(outputOf(std::move(words)).value_or(""));
    for (std::string line; std::getline(output, line);) {
        if (const auto colon = line.find(':'); colon != std::string::npos) {
            packages.insert(line.substr(0, colon));
        }
    }
    for (const auto& package : packages) {
        addFile(program, joinPath(joinPath("/usr/share/doc", package), "copyright"),
                joinPath("terms", package) + ".txt");
    }
}

/// One that was carried here: all of it, by its own list.
CarriedProgram carriedAgain(const BytePath& folder) {
    CarriedProgram program;
    for (const auto& name : carriedNames(folder)) {
        addFile(program, joinPath(folder, name), name);
    }
    // Those like the one it came from, and not like the one that it is on now.
    const auto machines = wholeFile(joinPath(folder, carriedMachinesName), 4096);
    program.machines = machines ? *machines : std::string();
    return program;
}

std::string machinesLikeThis() {
    utsname system{};
    uname(&system);
    return fmt::format("Linux on {} with the C library {} or newer", system.machine, gnu_get_libc_version());
}

} // namespace

Result<CarriedProgram> programToCarry() {
    if (!carriedLibraries().empty()) {
        return carriedAgain(BytePath(parentOf(carriedLibraries())));
    }
    CarriedProgram program;
    program.machines = machinesLikeThis();
    const auto window = joinPath(ownFolder(), "sober-archivist");
    std::vector<BytePath> binaries;
    const auto carry = [&](const BytePath& from, const std::string& as) {
        binaries.push_back(from);
        addFile(program, from, as);
    };
    carry(window, "bin/sober-archivist");
    carry(joinPath(ownFolder(), "sober"), "bin/sober");
    for (const auto* name : {"sober-evidence", "sober-file-systems", "sober-tray"}) {
        carry(ownHelper(name), joinPath("libexec/sober-archivist", name));
    }
    if (program.files.size() < binaries.size()) {
        return Error{Cause::notFound, window,
                     "The program cannot be carried along: " + displayPath(window) +
                         " or what belongs to it is not there."};
    }
    const auto core = librariesOf({window})["libQt6Core.so.6"];
    if (core.empty()) {
        return Error{Cause::notFound, window,
                     "The program cannot be carried along: which libraries it takes could not be found out "
                     "(ldd)."};
    }
    const BytePath qt(parentOf(core));
    for (const auto& [kind, beginning] : plugins) {
        for (const auto& file : filesIn(joinPath(joinPath(qt, "qt6/plugins"), kind), beginning)) {
            carry(file, joinPath(joinPath("plugins", kind), nameOf(file)));
        }
    }
    for (const auto* name : loadedLate) {
        if (const auto library = libraryAt(name); !library.empty()) {
            carry(library, joinPath("lib", name));
        }
    }
    for (const auto& [name, library] : librariesOf(binaries)) {
        addFile(program, library, joinPath("lib", name));
    }
    for (const auto* name : fonts) {
        addFile(program, joinPath("/usr/share/fonts/truetype/noto", name), joinPath("fonts", name));
    }
    for (const auto& file : filesIn("/usr/share/qt6/translations", "qtbase_")) {
        addFile(program, file, joinPath("translations", nameOf(file)));
    }
    addTerms(program);
    return program;
}

} // namespace sober
