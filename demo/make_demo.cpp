#include "core/base/text.h"
#include "demo/arrivals.h"
#include "demo/collection.h"
#include "demo/disc.h"
#include "demo/drift.h"
#include "demo/encode.h"
#include "demo/offers.h"
#include "demo/packed.h"
#include "demo/players.h"

#include <cstdio>
#include <filesystem>

namespace {

namespace fs = std::filesystem;
using namespace sober;

constexpr std::string_view marker = "pell-harbour-demo";

bool survey(const BytePath& sober, const BytePath& folder) {
    for (const char* volume : {"GANNET", "TERN", "PETREL"}) {
        const int code =
            demo::runQuietly({sober, "--quiet", "--catalogue", joinPath(folder, "catalogue.sqlite"), "survey",
                              "--effort", "full", joinPath(folder, volume)});
        if (code != 0 && code != 3) {
            return false;
        }
    }
    return true;
}

/// Words for the headless command on the demo's catalogue.
bool does(const BytePath& sober, const BytePath& folder, std::vector<std::string> words) {
    words.insert(words.begin(), {sober, "--quiet", "--catalogue", joinPath(folder, "catalogue.sqlite")});
    return demo::runQuietly(words) == 0;
}

bool addPlayers(const BytePath& sober, const BytePath& folder) {
    return does(sober, folder, {"players", "add", joinPath(folder, "lantern"), "--name", "lantern"}) &&
           does(
               sober, folder,
               {"players", "add", joinPath(folder, "TERN/LISTS"), "--name", "tern-player", "--ignores-case"});
}

/// What lands in DOWNLOADS is filed on the archive drive.
bool nameInbox(const BytePath& sober, const BytePath& folder) {
    return does(
        sober, folder,
        {"intake", "add", joinPath(folder, "DOWNLOADS"), "--into", joinPath(folder, "PETREL/Taken in")});
}

/// One reference that nobody misses is written off for good.
bool writeOff(const BytePath& sober, const BytePath& folder) {
    return does(sober, folder, {"players"}) &&
           does(sober, folder, {"docket", "add", "write-off", demo::notMissed(), "--reason", "not missed"}) &&
           does(sober, folder, {"docket", "carry-out"});
}

bool verify(const BytePath& sober, const BytePath& folder) {
    const int code =
        demo::runQuietly({sober, "--quiet", "--catalogue", joinPath(folder, "catalogue.sqlite"), "verify"});
    return code == 0 || code == 3;
}

/// A card to move to: 24 MB with FAT32, to be opened by the file manager or `udisksctl loop-setup`.
bool makeCard(const BytePath& folder) {
    const auto image = joinPath(folder, "CURLEW.img");
    return demo::runQuietly({"truncate", "-s", "40M", image}) == 0 &&
           demo::runQuietly({"/usr/sbin/mkfs.fat", "-F", "32", "-n", "CURLEW", "-i", "5EAB12D5", image}) == 0;
}

} // namespace

/// make-demo FOLDER SOBER: makes the demo collection in FOLDER, with a catalogue that SOBER (the
/// headless command) surveyed before and after some things happened to it.
int main(int argc, char** argv) {
    if (argc != 3) {
        std::fprintf(stderr, "make-demo FOLDER SOBER: a folder that is empty or holds an earlier demo, and "
                             "the headless command\n");
        return 2;
    }
    const BytePath folder = fs::absolute(argv[1]).string(); // the players write absolute locations
    const BytePath sober = argv[2];
    if (fs::exists(folder) && !fs::is_empty(folder)) {
        if (!fs::exists(joinPath(folder, marker))) {
            std::fprintf(stderr, "%s holds something else; name another folder.\n",
                         displayPath(folder).c_str());
            return 1;
        }
        fs::remove_all(folder);
    }
    fs::create_directories(folder);
    if (std::FILE* file = std::fopen(joinPath(folder, marker).c_str(), "w")) {
        std::fputs("This folder was made by make-demo and is thrown away by it.\n", file);
        std::fclose(file);
    }
    std::fprintf(stderr, "Making the demo collection …\n");
    const bool made = demo::makeCollection(folder) && makeCard(folder) && survey(sober, folder) &&
                      addPlayers(sober, folder) && demo::letTimePass(folder) && survey(sober, folder) &&
                      demo::letDriftHappen(folder) &&
                      demo::writeCheckHistory(joinPath(folder, "catalogue.sqlite")) &&
                      verify(sober, folder) && writeOff(sober, folder) && demo::makeArrivals(folder) &&
                      demo::makeOffers(folder) && demo::makePacked(folder) && demo::makeDisc(folder) &&
                      nameInbox(sober, folder) && demo::writeTruth(folder);
    if (!made) {
        std::fprintf(stderr, "The demo collection could not be made.\n");
        return 1;
    }
    return 0;
}
