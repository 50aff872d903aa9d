// A pocket player of another make: its PLS lists hold absolute paths with backslashes below a drive letter,
// which is what it calls its card, and it ignores letter case. It sees nothing but its card.
//   curlew CARD PREFIX   opens every list below CARD, tries each entry and says what it cannot play; PREFIX
//   ("D:\Music")
//                        is what it calls CARD
// Exit code 0 where everything plays. It knows nothing of the program that it is a stand-in for.

#include "standins/try_decode.h"

#include <cstdio>
#include <filesystem>
#include <fstream>
#include <string>
#include <strings.h>

namespace {

namespace fs = std::filesystem;

/// The file below `folder` that a path with backslashes means, whatever its letter case; "" where there is
/// none.
std::string below(fs::path folder, const std::string& path) {
    for (std::size_t at = 0; at < path.size();) {
        const auto end = std::min(path.find('\\', at), path.size());
        const auto part = path.substr(at, end - at);
        at = end + 1;
        if (part.empty()) {
            continue;
        }
        fs::path next;
        for (const auto& entry :
             fs::is_directory(folder) ? fs::directory_iterator(folder) : fs::directory_iterator()) {
            if (strcasecmp(entry.path().filename().c_str(), part.c_str()) == 0) {
                next = entry.path();
            }
        }
        if (next.empty()) {
            return {};
        }
        folder = next;
    }
    return folder.string();
}

} // namespace

int main(int argc, char** argv) {
    if (argc != 3 || !fs::is_directory(argv[1])) {
        std::fprintf(stderr, "curlew CARD PREFIX\n");
        return 2;
    }
    const std::string prefix = argv[2];
    int played = 0;
    int failed = 0;
    for (const auto& file : fs::recursive_directory_iterator(argv[1])) {
        if (strcasecmp(file.path().extension().c_str(), ".pls") != 0) {
            continue;
        }
        std::ifstream list(file.path());
        for (std::string line; std::getline(list, line);) {
            const auto equals = line.find('=');
            if (line.compare(0, 4, "File") != 0 || equals == std::string::npos) {
                continue;
            }
            const auto entry = line.substr(equals + 1);
            const auto path = entry.compare(0, prefix.size(), prefix) == 0
                                  ? below(argv[1], entry.substr(prefix.size()))
                                  : std::string();
            const auto why = path.empty() ? std::string("is not on the card") : whyNotPlayed(path);
            why.empty() ? ++played : ++failed;
            if (!why.empty()) {
                std::printf("%s: %s %s\n", file.path().filename().c_str(), entry.c_str(), why.c_str());
            }
        }
    }
    std::printf("%d play, %d do not\n", played, failed);
    return failed == 0 ? 0 : 1;
}
