#include "demo/arrivals.h"

#include "demo/encode.h"
#include "demo/synth.h"
#include "demo/whole_file.h"

#include <chrono>

namespace sober::demo {

namespace fs = std::filesystem;

bool makeArrivals(const BytePath& folder) {
    const auto at = [&](const BytePath& name) { return joinPath(folder, "DOWNLOADS/" + name); };
    fs::create_directories(joinPath(folder, "DOWNLOADS"));
    const auto play = [&](Voice voice, std::uint32_t seed, double seconds, const TagSet& tags,
                          const BytePath& name, const std::vector<std::string>& options = {}) {
        return encode(synthesise({voice, seed, seconds, 92}), tags, at(name), options);
    };
    const TagSet none;
    const std::string society = "Pell Harbour Wireless Society";
    const auto lossy = at("from a stream.mp3");
    const bool made =
        // PETREL/Wireless holds it as an MP3 alone.
        play(Voice::brass, 956, 6, {"Opening March", society, "Test Transmissions", 6, 1987},
             "opening_march.flac") &&
        // It is held as a WAV there.
        play(Voice::speech, 951, 16, {"Shipping forecast", society, "", 0, 1987}, "shipping forecast (1).mp3",
             {"-b:a", "160k"}) &&
        play(Voice::harmonium, 971, 14, none, "04 - Adela Threlkeld - Tide  Table.flac") &&
        // UTF-8 that somebody took for Latin-1, and an address.
        play(
            Voice::choir, 972, 12,
            {"F\xC3\x83\xC2\xBCr die Bucht", "Pell Harbour Choir [www.songs.example.com]", "Guests", 2, 2019},
            "02 bucht.flac") &&
        play(Voice::plucked, 973, 15, {"Quay Dance", "Pell Silver Band", "Guests", 3, 2019},
             "from a stream.mp3", {"-b:a", "96k"}) &&
        runQuietly({"ffmpeg", "-v", "error", "-y", "-i", lossy, "-c:a", "flac", at("quay dance.flac")}) ==
            0 &&
        play(Voice::bells, 974, 10, {"Evening Bells", "Pell Harbour Ringers", "Guests", 4, 2019},
             "evening bells.flac");
    if (!made) {
        return false;
    }
    fs::remove(lossy);
    const auto cut = at("evening bells.flac");
    fs::resize_file(cut, fs::file_size(cut) * 2 / 3);
    for (const auto& entry : fs::directory_iterator(joinPath(folder, "DOWNLOADS"))) {
        fs::last_write_time(entry.path(), fs::file_time_type::clock::now() - std::chrono::hours(3));
    }
    return true;
}

} // namespace sober::demo
