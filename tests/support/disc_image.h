#pragma once

#include "core/disc/disc_contents.h"
#include "support/small_audio.h"
#include "support/sound.h"
#include "support/temp_folder.h"

#include <fmt/format.h>

#include <unistd.h>

namespace sober::test {

/// An image of a disc with music on it: DISC.bin, and DISC.cue beside it.
class DiscImage {
  public:
    /// Tracks of so many sectors, each behind a gap of two seconds of silence; `hidden` sectors of noise
    /// before the first. `head`, and `lines` for each track, stand in the sheet as they are.
    DiscImage(const BytePath& folder, const std::vector<int>& tracks, const std::string& head = {},
              const std::vector<std::string>& lines = {}, unsigned seed = 1, int hidden = 0)
        : sheet(folder + "/disc.cue"), bin(folder + "/disc.bin") {
        std::filesystem::create_directories(folder);
        std::string text = head + "FILE \"disc.bin\" BINARY\n";
        for (std::size_t i = 0; i < tracks.size(); ++i) {
            const int gap = i == 0 ? hidden : 2 * sectorsPerSecond;
            const int before = sectors();
            add(i == 0 ? noise(gap) : std::string(static_cast<std::size_t>(gap) * discSectorBytes, '\0'));
            begins.push_back(sectors());
            add(music(folder, seed + static_cast<unsigned>(i), tracks[i]));
            text +=
                fmt::format("  TRACK {:02} AUDIO\n{}", i + 1, i < lines.size() ? lines[i] : std::string());
            text += gap > 0 ? fmt::format("    INDEX 00 {}\n", time(before)) : std::string();
            text += fmt::format("    INDEX 01 {}\n", time(begins.back()));
        }
        writeFile(bin, samples);
        writeFile(sheet, text);
    }

    int sectors() const { return static_cast<int>(samples.size() / discSectorBytes); }
    /// The bytes of a track, its successor's gap included.
    std::string track(std::size_t at) const {
        const int end = at + 1 < begins.size() ? begins[at + 1] : sectors();
        return samples.substr(static_cast<std::size_t>(begins[at]) * discSectorBytes,
                              static_cast<std::size_t>(end - begins[at]) * discSectorBytes);
    }
    void fail(const std::string& faults) const {
        writeFile(sheet.substr(0, sheet.size() - 4) + ".faults", faults);
    }

    static std::string time(int sector) {
        return fmt::format("{:02}:{:02}:{:02}", sector / 75 / 60, sector / 75 % 60, sector % 75);
    }

    BytePath sheet;
    BytePath bin;
    std::string samples;
    std::vector<int> begins;

  private:
    void add(const std::string& more) { samples += more; }
    static std::string noise(int sectors) {
        const auto made = whiteNoise(static_cast<std::size_t>(sectors) * samplesPerSector * 2, 0.1F, 99);
        std::string bytes;
        for (const float each : made) {
            const auto value = static_cast<std::int16_t>(each * 20'000);
            bytes.append(reinterpret_cast<const char*>(&value), 2);
        }
        return bytes;
    }
    static std::string music(const BytePath& folder, unsigned seed, int sectors) {
        const auto flac = folder + "/made.flac";
        writeMusic(flac, seed, static_cast<double>(sectors) / sectorsPerSecond + 0.1);
        ffmpeg({"-i", flac, "-f", "s16le", folder + "/made.raw"});
        auto bytes = readFile(folder + "/made.raw");
        std::filesystem::remove(flac);
        std::filesystem::remove(folder + "/made.raw");
        bytes.resize(static_cast<std::size_t>(sectors) * discSectorBytes);
        return bytes;
    }
};

} // namespace sober::test
