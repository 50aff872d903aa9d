// A pocket player whose M3U8 lists hold paths relative to themselves, on a card that ignores letter case. It
// sees nothing but its card.
//   tern-player CARD   opens every list below CARD, tries each entry and says what it cannot play
// Exit code 0 where everything plays. It knows nothing of the program that it is a stand-in for.

#include "standins/try_decode.h"

#include <algorithm>
#include <cctype>
#include <cstdio>
#include <filesystem>
#include <fstream>
#include <string>
#include <vector>

namespace {

namespace fs = std::filesystem;

std::string lowered(std::string text) {
    std::transform(text.begin(), text.end(), text.begin(),
                   [](unsigned char c) { return static_cast<char>(std::tolower(c)); });
    return text;
}

std::vector<std::string> partsOf(const std::string& path) {
    std::vector<std::string> parts(1);
    for (const char c : path) {
        if (c == '/' || c == '\\') {
            parts.emplace_back();
        } else {
            parts.back() += c;
        }
    }
    return parts;
}

/// The file on the card that an entry of a list in `folder` means; "" where there is none.
std::string onCard(const fs::path& card, const fs::path& folder, const std::string& entry) {
    fs::path at = entry[0] == '/' || entry[0] == '\\' ? card : folder;
    for (const auto& part : partsOf(entry)) {
        if (part.empty() || part == ".") {
            continue;
        }
        if (part == "..") {
            if (fs::equivalent(at, card)) {
                return {};
            }
            at = at.parent_path();
            continue;
        }
        fs::path next;
        for (const auto& file :
             fs::is_directory(at) ? fs::directory_iterator(at) : fs::directory_iterator()) {
            if (lowered(file.path().filename().string()) == lowered(part)) {
                next = file.path();
            }
        }
        if (next.empty()) {
            return {};
        }
        at = next;
    }
    return at.string();
}

} // namespace

int main(int argc, char** argv) {
    if (argc != 2 || !fs::is_directory(argv[1])) {
        std::fprintf(stderr, "tern-player CARD\n");
        return 2;
    }
    const fs::path card = fs::canonical(argv[1]);
    int played = 0;
    int failed = 0;
    for (const auto& file : fs::recursive_directory_iterator(card)) {
        if (lowered(file.path().extension().string()) != ".m3u8") {
            continue;
        }
        std::ifstream list(file.path());
        for (std::string line; std::getline(list, line);) {
            if (line.compare(0, 3, "\xEF\xBB\xBF") == 0) {
                line.erase(0, 3);
            }
            while (!line.empty() && (line.back() == '\r' || line.back() == ' ')) {
                line.pop_back();
            }
            if (line.empty() || line[0] == '#') {
                continue;
            }
            const auto path = onCard(card, file.path().parent_path(), line);
            const auto why = path.empty() ? std::string("is not on the card") : whyNotPlayed(path);
            why.empty() ? ++played : ++failed;
            if (!why.empty()) {
                std::printf("%s: %s %s\n", file.path().filename().c_str(), line.c_str(), why.c_str());
            }
        }
    }
    std::printf("%d play, %d do not\n", played, failed);
    return failed == 0 ? 0 : 1;
}
