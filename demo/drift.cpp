#include "demo/drift.h"

#include "core/catalogue/catalogue.h"
#include "core/catalogue/fixity_store.h"
#include "core/catalogue/volumes.h"
#include "demo/encode.h"
#include "demo/synth.h"
#include "demo/whole_file.h"

#include <nlohmann/json.hpp>
#include <sys/stat.h>

#include <fcntl.h>

namespace sober::demo {
namespace {

namespace fs = std::filesystem;
using Json = nlohmann::ordered_json;

const BytePath wireless = "PETREL/Wireless/";
const BytePath backup = "GANNET/Backup of Wireless/";
constexpr std::size_t mebibyte = 1U << 20;
constexpr double tempo = 92;

/// Sixty-four bytes become others; size and times stay.
void damageSilently(const BytePath& path, std::size_t at) {
    struct stat status {};
    stat(path.c_str(), &status);
    auto content = contentOf(path);
    for (std::size_t i = at; i < at + 64 && i < content.size(); ++i) {
        content[i] = static_cast<char>(~content[i]);
    }
    write(path, content);
    const timespec times[2] = {status.st_atim, status.st_mtim};
    utimensat(AT_FDCWD, path.c_str(), times, 0);
}

TagSet tagsOf(const std::string& title) {
    return {title, "Pell Harbour Wireless Society", "Test Transmissions", 0, 1987};
}

} // namespace

bool makeDriftable(const BytePath& folder) {
    const auto at = [&](const BytePath& path) { return joinPath(folder, path); };
    fs::create_directories(at(backup));
    const bool made = recordAll(
        {{{Voice::speech, 951, 16, tempo}, {}, at(wireless + "Shipping forecast.wav")},
         {{Voice::fogSignal, 952, 16, tempo}, {}, at(wireless + "Fog signal, night.wav")},
         {{Voice::choir, 953, 8, tempo}, tagsOf("Evening Hymn"), at(wireless + "Evening Hymn.flac")},
         {{Voice::plucked, 954, 8, tempo}, tagsOf("Interval Signal"), at(wireless + "Interval Signal.flac")},
         {{Voice::bells, 955, 8, tempo}, tagsOf("Noon Bells"), at(wireless + "Noon Bells.flac")},
         {{Voice::brass, 956, 6, tempo}, tagsOf("Opening March"), at(wireless + "Opening March.mp3")},
         {{Voice::surf, 957, 6, tempo}, {}, at(wireless + "Sea, from the pier.wav")}});
    if (!made) {
        return false;
    }
    for (const auto* name : {"Shipping forecast.wav", "Fog signal, night.wav"}) {
        fs::copy_file(at(wireless + name), at(backup + name));
    }
    // Never sound, or odd, from the beginning.
    auto march = contentOf(at(wireless + "Opening March.mp3"));
    write(at(wireless + "Opening March.mp3"), march + std::string(1300, 'x'));
    auto sea = contentOf(at(wireless + "Sea, from the pier.wav"));
    constexpr std::size_t frame = 4;
    sea.replace(sea.find("data") + 8 + 3 * 44'100 * frame, 4096, std::string(4096, '\0'));
    write(at(wireless + "Sea, from the pier.wav"), sea);
    return true;
}

bool letDriftHappen(const BytePath& folder) {
    const auto at = [&](const BytePath& path) { return joinPath(folder, path); };
    damageSilently(at(wireless + "Shipping forecast.wav"), mebibyte + 200'000);
    damageSilently(at(wireless + "Fog signal, night.wav"), 300'000);
    damageSilently(at(backup + "Fog signal, night.wav"), 2 * mebibyte + 50'000);
    fs::resize_file(at(wireless + "Evening Hymn.flac"),
                    fs::file_size(at(wireless + "Evening Hymn.flac")) * 3 / 5);
    auto louder = synthesise({Voice::plucked, 954, 8, tempo});
    for (auto& sample : louder) {
        sample = static_cast<std::int16_t>(sample * 2 / 3);
    }
    return encode(louder, tagsOf("Interval Signal"), at(wireless + "Interval Signal.flac")) &&
           encode(synthesise({Voice::surf, 959, 12, tempo}), tagsOf("Gale Warning"),
                  at(wireless + "Noon Bells.flac"));
}

bool writeCheckHistory(const BytePath& cataloguePath) {
    const auto catalogue = Catalogue::openForWriting(cataloguePath);
    const auto volumes =
        catalogue ? Volumes(*catalogue).all() : Result<std::vector<Volume>>(catalogue.error());
    if (!volumes) {
        return false;
    }
    const FixityStore store(*catalogue);
    constexpr Nanoseconds week = 7 * 86'400LL * 1'000'000'000;
    // Every other week, then a winter in which nobody looked.
    for (const auto& volume : *volumes) {
        const auto standing = store.standingOf(volume.id, 0);
        if (!standing) {
            return false;
        }
        for (const int weeksAgo : {25, 23, 21, 19, 17, 4, 2}) {
            if (volume.label == "TERN" && weeksAgo < 20) {
                continue; // the card was seldom at hand
            }
            FixityCheck check;
            check.volume = volume.id;
            check.began = timeNow() - weeksAgo * week;
            check.ended = check.began + 4LL * 60 * 1'000'000'000;
            check.planned = standing->holdings;
            check.checked = standing->holdings;
            check.bytes = 90'000'000;
            check.unreadable = weeksAgo == 19 && volume.label == "GANNET" ? 1 : 0;
            const auto begun = store.beginCheck(check);
            if (!begun) {
                return false;
            }
            check.id = *begun;
            if (!store.updateCheck(check)) {
                return false;
            }
        }
    }
    return true;
}

Json driftTruth() {
    return {{{"path", wireless + "Shipping forecast.wav"},
             {"kind", "silent-change"},
             {"block", 1},
             {"mend", "restore"}},
            {{"path", wireless + "Fog signal, night.wav"},
             {"kind", "silent-change"},
             {"block", 0},
             {"mend", "repair"}},
            {{"path", backup + "Fog signal, night.wav"},
             {"kind", "silent-change"},
             {"block", 2},
             {"mend", "repair"}},
            {{"path", wireless + "Evening Hymn.flac"}, {"kind", "truncated"}},
            {{"path", wireless + "Interval Signal.flac"}, {"kind", "audio-altered"}},
            {{"path", wireless + "Noon Bells.flac"}, {"kind", "replaced"}}};
}

Json unsoundTruth() {
    return {{{"path", wireless + "Opening March.mp3"}, {"kind", "junk"}, {"sound", true}},
            {{"path", wireless + "Sea, from the pier.wav"}, {"kind", "dropout"}, {"sound", true}}};
}

} // namespace sober::demo
