#include "bench/moved_library.h"

#include "core/catalogue/holding_writer.h"
#include "core/catalogue/volumes.h"
#include "core/players/location.h"

#include <fmt/format.h>

#include <cstdio>
#include <cstdlib>
#include <cstring>
#include <filesystem>
#include <fstream>
#include <random>

namespace sober::bench {
namespace {

namespace fs = std::filesystem;

/// What has happened to one folder of 10,000 files.
enum class Fate { stayed, renamed, flattened, otherFormat };

struct Tree {
    std::string name;
    Fate fate;
    double catalogued; ///< share of its old places that the catalogue has seen
    bool tagged;       ///< the player's list says titles, performers and lengths
};

const Tree trees[] = {
    {"stayed 1", Fate::stayed, 0, true},       {"stayed 2", Fate::stayed, 0, true},
    {"stayed 3", Fate::stayed, 0, true},       {"stayed 4", Fate::stayed, 0, true},
    {"all seen", Fate::renamed, 1, true},      {"some seen", Fate::renamed, 0.3, true},
    {"never seen", Fate::renamed, 0, true},    {"few seen, no tags", Fate::renamed, 0.02, false},
    {"flattened", Fate::flattened, 0.3, true}, {"reencoded", Fate::otherFormat, 0, true}};

constexpr int perTree = 10'000;

class Maker {
  public:
    explicit Maker(const BytePath& folder)
        : catalogue_(open(folder)), volume_(addVolume(folder)), writer_(catalogue_, volume_, 1) {
        library_.folder = folder;
    }

    MovedLibrary make() {
        xspf_ = "<?xml version=\"1.0\" encoding=\"UTF-8\"?>\n<playlist version=\"1\" "
                "xmlns=\"http://xspf.org/ns/0/\"><trackList>\n";
        for (const auto& tree : trees) {
            for (int i = 0; i < perTree; ++i) {
                add(tree, i);
            }
        }
        xspf_ += "</trackList></playlist>\n";
        fs::create_directories(joinPath(library_.folder, "player"));
        std::ofstream(joinPath(library_.folder, "player/library.xspf")) << xspf_;
        if (const auto written = writer_.commit(); !written) {
            std::fprintf(stderr, "%s\n", written.error().sentence.c_str());
            std::exit(1);
        }
        return std::move(library_);
    }

  private:
    static Catalogue open(const BytePath& folder) {
        fs::create_directories(joinPath(folder, "V"));
        auto opened = Catalogue::openForWriting(joinPath(folder, "catalogue.sqlite"));
        if (!opened) {
            std::fprintf(stderr, "%s\n", opened.error().sentence.c_str());
            std::exit(1);
        }
        return std::move(*opened);
    }

    VolumeId addVolume(const BytePath& folder) {
        Volume volume;
        volume.label = "V";
        volume.root = joinPath(folder, "V");
        return Volumes(catalogue_).add(volume)->id;
    }

    /// A recording that nothing else carries, of some length.
    FileRecord recording(const std::string& title, const std::string& artist, const std::string& album,
                         double seconds) {
        FileRecord record;
        const auto number = ++recordings_;
        std::memcpy(record.checksums.file.bytes.data(), &number, sizeof number);
        record.checksums.blocks = {record.checksums.file};
        record.stamp.size = 4'000'000 + number;
        record.claims.duration = seconds;
        record.tags.title = title;
        record.tags.artist = artist;
        record.tags.album = album;
        return record;
    }

    void present(const BytePath& path, const FileRecord& record) {
        const auto whole = joinPath(joinPath(library_.folder, "V"), path);
        if (const BytePath parent(parentOf(whole)); parent != lastFolder_) {
            fs::create_directories(parent);
            lastFolder_ = parent;
        }
        std::ofstream file(whole);
        writer_.add(path, record, false);
    }

    void add(const Tree& tree, int i) {
        const auto artist = fmt::format("Performer {}", i / 500);
        const auto album = fmt::format("Album {}", i / 20);
        // A tenth of the names stands in every album; the rest says something.
        const auto title =
            i % 10 == 0 ? fmt::format("Track {}", i % 20) : fmt::format("{} song number {}", tree.name, i);
        const auto name = fmt::format("{:02} {}", i % 20 + 1, title);
        const auto below = fmt::format("{}/{}/{}", artist, album, name);
        const double seconds = 90 + random_() % 400'000 / 1000.0;
        const auto record = recording(title, artist, album, seconds);
        const BytePath old = fmt::format("{}/{}.mp3", tree.name, below);
        BytePath now = old;
        if (tree.fate == Fate::renamed) {
            now = fmt::format("moved/{} again/{}.mp3", tree.name, below);
        } else if (tree.fate == Fate::flattened) {
            now = fmt::format("heap/{}.mp3", name);
            for (int number = 2; isTaken(joinPath(joinPath(library_.folder, "V"), now)); ++number) {
                now = fmt::format("heap/{} ({}).mp3", name, number);
            }
        } else if (tree.fate == Fate::otherFormat) {
            now = fmt::format("{}/{}.opus", tree.name, below);
        }
        const bool seen = static_cast<double>(random_() % 1000) < tree.catalogued * 1000;
        const bool gone = tree.fate != Fate::stayed && i % 50 == 7;
        if (!gone) {
            present(now, tree.fate == Fate::otherFormat ? recording(title, artist, album, seconds + 0.04)
                                                        : record);
        }
        if (seen && now != old) {
            writer_.markMissing(writer_.add(old, record, false), old, 1);
        }
        plantNearMisses(tree, i, artist, album, title, name, seconds, gone, now);
        list(tree, old, artist, album, title, seconds);
        if (now != old) {
            const auto place = joinPath(joinPath(library_.folder, "V"), old);
            library_.truth[place] = gone ? BytePath() : joinPath(joinPath(library_.folder, "V"), now);
            // What was flattened under a number, and never seen, cannot be told from its twins.
            const bool numbered = tree.fate == Fate::flattened && now.find(" (") != BytePath::npos;
            const bool generic = tree.fate == Fate::flattened && i % 10 == 0;
            library_.knowable[place] = !gone && (seen || (!numbered && !generic));
        }
    }

    void plantNearMisses(const Tree& tree, int i, const std::string& artist, const std::string& album,
                         const std::string& title, const std::string& name, double seconds, bool gone,
                         const BytePath& now) {
        if (tree.fate == Fate::stayed) {
            return;
        }
        const auto elsewhere = fmt::format("other people's/{}/{}/{}.mp3", tree.name, album, name);
        if (i % 50 == 11 || gone) { // the same name, length and tags, another recording
            present(elsewhere, recording(title, artist, album, seconds));
        }
        if (i % 50 == 13) { // a numbered twin beside it
            present(fmt::format("{} (2).mp3", stemOf(now)), recording(title, artist, album, seconds + 31));
        }
        if (i % 50 == 17) { // a remix: the same tags, another length
            present(fmt::format("remixes/{}/{}.mp3", tree.name, name),
                    recording(title, artist, album, seconds + 47));
        }
        const bool standsInItsPlace = gone && i % 100 == 7 && tree.fate == Fate::renamed && tree.tagged;
        if (standsInItsPlace) { // what is gone has its name taken by another, where the rule leads
            present(now, recording(title + " II", artist, album, seconds + 19));
        }
    }

    void list(const Tree& tree, const BytePath& old, const std::string& artist, const std::string& album,
              const std::string& title, double seconds) {
        xspf_ += fmt::format("<track><location>{}</location>",
                             fileUriOf(joinPath(joinPath(library_.folder, "V"), old)));
        if (tree.tagged) {
            xspf_ += fmt::format(
                "<title>{}</title><creator>{}</creator><album>{}</album><duration>{:.0f}</duration>", title,
                artist, album, seconds * 1000);
        }
        xspf_ += "</track>\n";
    }

    Catalogue catalogue_;
    VolumeId volume_;
    HoldingWriter writer_;
    MovedLibrary library_;
    std::string xspf_;
    BytePath lastFolder_;
    std::uint64_t recordings_ = 0;
    std::mt19937 random_{5};
};

} // namespace

MovedLibrary makeMovedLibrary(const BytePath& folder) {
    return Maker(folder).make();
}

} // namespace sober::bench
