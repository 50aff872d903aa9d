#include "demo/wiped.h"

#include "demo/encode.h"
#include "demo/synth.h"
#include "demo/whole_file.h"

#include <fmt/format.h>
#include <nlohmann/json.hpp>

#include <random>
#include <unistd.h>

namespace sober::demo {
namespace {

namespace fs = std::filesystem;
using Json = nlohmann::ordered_json;

constexpr std::size_t cluster = 4096;
constexpr std::size_t cardBytes = 40U << 20;
constexpr std::size_t cardBegins = 2U << 20; // behind the tables of the new file system

std::string noise(std::size_t bytes, unsigned seed) {
    std::mt19937 random(seed);
    std::string text(bytes, '\0');
    for (auto& byte : text) {
        byte = static_cast<char>(random());
    }
    return text;
}

/// A card as its image: files are laid into it, cluster by cluster, where nothing lies yet.
class Card {
  public:
    explicit Card(BytePath image) : image_(std::move(image)) {}

    bool format() const {
        return runQuietly({"truncate", "-s", std::to_string(cardBytes), image_}) == 0 &&
               runQuietly({"/usr/sbin/mkfs.fat", "-F", "32", "-n", "RECORDER", "-i", "7EC0DE12", image_}) ==
                   0;
    }

    /// Lays bytes behind what was laid before; where that is.
    Json lay(std::string_view bytes, const std::string& what) {
        std::fstream file(image_, std::ios::binary | std::ios::in | std::ios::out);
        file.seekp(static_cast<std::streamoff>(next_));
        file.write(bytes.data(), static_cast<std::streamsize>(bytes.size()));
        Json place{next_, next_ + bytes.size() - 1};
        next_ += (bytes.size() + cluster - 1) / cluster * cluster;
        if (!what.empty()) {
            places_[what].push_back(place);
        }
        return place;
    }

    /// What the camera of the same recorder has left between.
    void layOther(std::size_t clusters) { lay(noise(clusters * cluster, ++seed_), {}); }

    /// In so many pieces, others between them.
    void layBroken(const std::string& bytes, const std::string& what, std::size_t pieces) {
        const auto each = bytes.size() / pieces / cluster * cluster;
        for (std::size_t i = 0; i < pieces; ++i) {
            const auto from = i * each;
            lay(std::string_view(bytes).substr(from, i + 1 < pieces ? each : std::string::npos), what);
            layOther(3 + i);
        }
    }

    const Json& places() const { return places_; }

  private:
    BytePath image_;
    std::size_t next_ = cardBegins;
    unsigned seed_ = 40;
    Json places_ = Json::object();
};

std::string titleOf(const BytePath& path) {
    return fs::path(path).filename().string();
}

/// A recording that nobody has catalogued.
std::string fresh(const BytePath& folder, Voice voice, unsigned seed, double seconds,
                  const std::string& title, const std::string& ending) {
    const auto path = fmt::format("{}/.made.{}", folder, ending);
    const TagSet tags{title, "Harbour Sound Survey", "Card of the old recorder", 0, 2019};
    if (!encode(synthesise({voice, seed, seconds, 80}), tags, path)) {
        return {};
    }
    auto bytes = contentOf(path);
    fs::remove(path);
    return bytes;
}

void putInTrash(const BytePath& volume, const std::string& name, const std::string& bytes,
                const std::string& from, const std::string& when) {
    const auto trash = fmt::format("{}/.Trash-{}", volume, getuid());
    write(fmt::format("{}/files/{}", trash, name), bytes);
    if (!from.empty()) {
        write(fmt::format("{}/info/{}.trashinfo", trash, name),
              fmt::format("[Trash Info]\nPath={}\nDeletionDate={}\n", from, when));
    }
}

/// An index record as another system leaves it on a card, version 2.
std::string recycleRecord(std::uint64_t size, const std::string& path) {
    const auto number = [](std::uint64_t value, std::size_t bytes) {
        std::string text;
        for (std::size_t i = 0; i < bytes; ++i) {
            text.push_back(static_cast<char>(value >> (8 * i)));
        }
        return text;
    };
    constexpr std::uint64_t when = 133'500'000'000'000'000; // in January 2024
    auto record = number(2, 8) + number(size, 8) + number(when, 8) + number(path.size() + 1, 4);
    for (const char letter : path) {
        record += number(static_cast<unsigned char>(letter), 2);
    }
    return record + number(0, 2);
}

std::string percentEncoded(const std::string& path) {
    std::string text;
    for (const char letter : path) {
        text += letter == ' ' ? "%20" : letter == ',' ? "%2C" : std::string(1, letter);
    }
    return text;
}

bool makeCard(const BytePath& folder, const std::vector<BytePath>& going) {
    Card card(folder + "/RECORDER.img");
    if (!card.format()) {
        return false;
    }
    const auto bytes = [&](std::size_t which) {
        return contentOf(fmt::format("{}/{}", folder, going[which]));
    };
    card.lay(bytes(0), titleOf(going[0]));
    card.layOther(40);
    card.layBroken(bytes(1), titleOf(going[1]), 3);
    const auto bells = fresh(folder, Voice::bells, 901, 9, "Bell buoy, unlabelled", "flac");
    card.lay(bells, "Bell buoy, unlabelled");
    // A fifth of it was written over since.
    auto overwritten = bytes(2);
    const auto from = overwritten.size() / 2 / cluster * cluster;
    const auto lost = overwritten.size() / 5 / cluster * cluster;
    overwritten.replace(from, lost, noise(lost, 77));
    card.lay(overwritten, titleOf(going[2]));
    card.layOther(25);
    card.lay(bytes(3), titleOf(going[3]));
    const auto surf = fresh(folder, Voice::surf, 902, 14, "Surf, the long take", "mp3");
    card.lay(surf, "Surf, the long take");
    card.layBroken(bytes(4), titleOf(going[4]), 2);
    card.lay(contentOf(folder + "/PETREL/Wireless/Fog signal, night.wav"), "Fog signal, night.wav");
    card.layOther(60);
    const auto gulls = fresh(folder, Voice::choir, 903, 6, "Rehearsal, door open", "wav");
    card.lay(std::string_view(gulls).substr(0, gulls.size() * 2 / 3), "Rehearsal, door open");
    write(folder + "/.recorder.json", card.places().dump());
    return !bells.empty() && !surf.empty() && !gulls.empty();
}

bool makeTrash(const BytePath& folder, const std::vector<BytePath>& going) {
    const auto& gone = going[5];
    const auto within = gone.substr(gone.find('/') + 1); // of its volume
    putInTrash(folder + "/GANNET", titleOf(gone), contentOf(folder + "/" + gone), percentEncoded(within),
               "2026-10-02T19:40:11");
    const auto held = contentOf(folder + "/PETREL/Wireless/Sea, from the pier.wav");
    putInTrash(folder + "/GANNET", "Sea, from the pier.wav", held, "Desktop/Sea%2C%20from%20the%20pier.wav",
               "2025-03-14T08:05:00");
    const auto tape = fresh(folder, Voice::speech, 904, 7, "Message on the machine", "ogg");
    putInTrash(folder + "/GANNET", "Message on the machine.ogg", tape, "", "");
    write(fmt::format("{}/GANNET/.Trash-{}/info/Whistle test.mp3.trashinfo", folder, getuid()),
          "[Trash Info]\nPath=Desktop/Whistle%20test.mp3\nDeletionDate=2024-06-01T12:00:00\n");
    const auto reed = fresh(folder, Voice::harmonium, 905, 8, "Reed test", "mp3");
    const auto bin = folder + "/TERN/$RECYCLE.BIN/S-1-5-21-1004/";
    write(bin + "$RQ7X2AB.mp3", reed);
    write(bin + "$IQ7X2AB.mp3", recycleRecord(reed.size(), "E:\\MUSIC\\Reed test.mp3"));
    return !tape.empty() && !reed.empty();
}

} // namespace

bool makeWiped(const BytePath& folder, const std::vector<BytePath>& going) {
    return makeCard(folder, going) && makeTrash(folder, going);
}

Json wipedTruth(const BytePath& folder) {
    const auto places = folder + "/.recorder.json";
    auto truth = Json::parse(contentOf(places));
    fs::remove(places);
    return truth;
}

} // namespace sober::demo
