#include "core/disc/cue_sheet.h"

#include "core/base/text.h"

#include <fmt/format.h>

#include <algorithm>

namespace sober {
namespace {

/// Quoted; what cannot stand in quotation marks is left out or made an apostrophe.
std::string quoted(const std::string& text) {
    std::string plain;
    for (const char each : text) {
        plain += each == '"' ? '\'' : each;
    }
    std::erase_if(plain, [](char each) { return static_cast<unsigned char>(each) < 0x20; });
    return '"' + plain + '"';
}

std::string cueTime(int sector) {
    return fmt::format("{:02}:{:02}:{:02}", sector / sectorsPerSecond / 60, sector / sectorsPerSecond % 60,
                       sector % sectorsPerSecond);
}

} // namespace

std::string cueSheet(const DiscContents& contents, const DiscNames& names,
                     const std::vector<CueTrack>& tracks) {
    auto sheet = "REM DISCID " + discId(contents) + "\n";
    const auto line = [&](const std::string& indent, const std::string& command, const std::string& text) {
        sheet += text.empty() ? std::string() : indent + command + " " + quoted(text) + "\n";
    };
    sheet += names.date.empty() ? std::string() : "REM DATE " + quoted(names.date) + "\n";
    sheet += names.genre.empty() ? std::string() : "REM GENRE " + quoted(names.genre) + "\n";
    if (contents.mediaNumber.size() == 13) {
        sheet += "CATALOG " + contents.mediaNumber + "\n";
    }
    line("", "PERFORMER", names.artist);
    line("", "TITLE", names.title);
    std::size_t audio = 0;
    std::string now;
    for (const auto& track : contents.tracks) {
        const auto at = track.isAudio ? audio++ : names.tracks.size();
        const auto file = std::ranges::find(tracks, track.number, &CueTrack::number);
        if (!track.isAudio || file == tracks.end()) {
            continue;
        }
        if (file->file != now || file->begins == 0) {
            sheet += "FILE " + quoted(file->file) + (file->isWave ? " WAVE\n" : " MP3\n");
            now = file->file;
        }
        sheet += fmt::format("  TRACK {:02} AUDIO\n", track.number);
        if (at < names.tracks.size()) {
            line("    ", "TITLE", names.tracks[at].title);
            line("    ", "PERFORMER", names.tracks[at].artist);
        }
        sheet += track.isrc.empty() ? std::string() : "    ISRC " + track.isrc + "\n";
        sheet += track.preEmphasis || track.mayCopy
                     ? std::string("    FLAGS") + (track.mayCopy ? " DCP" : "") +
                           (track.preEmphasis ? " PRE" : "") + "\n"
                     : std::string();
        sheet += fmt::format("    INDEX 01 {}\n", cueTime(file->begins));
        int index = 2;
        for (const int mark : track.marks) {
            if (mark > track.firstSector && mark < track.end() && index <= 99) {
                sheet += fmt::format("    INDEX {:02} {}\n", index++,
                                     cueTime(file->begins + mark - track.firstSector));
            }
        }
    }
    return sheet;
}

} // namespace sober
