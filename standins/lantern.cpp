// A player on a desktop that keeps one XSPF library and XSPF playlists with absolute file: URIs.
//   lantern FOLDER   opens every list below FOLDER, tries each entry and says what it cannot play
// Exit code 0 where everything plays. It knows nothing of the program that it is a stand-in for.

#include "standins/try_decode.h"

#include <cstdio>
#include <cstdlib>
#include <filesystem>
#include <pugixml.hpp>
#include <string>

namespace {

namespace fs = std::filesystem;

/// The path of a file: URI on this machine; "" for anything else.
std::string pathOf(const std::string& uri) {
    const std::string scheme = "file://";
    if (uri.compare(0, scheme.size(), scheme) != 0 || uri.size() <= scheme.size() ||
        uri[scheme.size()] != '/') {
        return {};
    }
    std::string path;
    for (std::size_t at = scheme.size(); at < uri.size(); ++at) {
        if (uri[at] == '%' && at + 2 < uri.size()) {
            path += static_cast<char>(std::strtol(uri.substr(at + 1, 2).c_str(), nullptr, 16));
            at += 2;
        } else {
            path += uri[at];
        }
    }
    return path;
}

} // namespace

int main(int argc, char** argv) {
    if (argc != 2 || !fs::is_directory(argv[1])) {
        std::fprintf(stderr, "lantern FOLDER\n");
        return 2;
    }
    int played = 0;
    int failed = 0;
    for (const auto& file : fs::recursive_directory_iterator(argv[1])) {
        if (file.path().extension() != ".xspf") {
            continue;
        }
        pugi::xml_document list;
        if (!list.load_file(file.path().c_str())) {
            std::printf("%s: no list\n", file.path().c_str());
            ++failed;
            continue;
        }
        for (const auto& track : list.child("playlist").child("trackList").children("track")) {
            const std::string uri = track.child("location").text().get();
            if (uri.compare(0, 4, "http") == 0) {
                continue; // it would be fetched
            }
            const auto path = pathOf(uri);
            const auto why = path.empty() ? std::string("is no file: URI") : whyNotPlayed(path);
            why.empty() ? ++played : ++failed;
            if (!why.empty()) {
                std::printf("%s: %s %s\n", file.path().filename().c_str(),
                            path.empty() ? uri.c_str() : path.c_str(), why.c_str());
            }
        }
    }
    std::printf("%d play, %d do not\n", played, failed);
    return failed == 0 ? 0 : 1;
}
