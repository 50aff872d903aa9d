#include "bench/bench_support.h"
#include "core/audit/match_recordings.h"
#include "core/catalogue/catalogue.h"
#include "core/catalogue/evidence_store.h"
#include "core/catalogue/recording_pairs.h"

#include <SQLiteCpp/SQLiteCpp.h>
#include <sys/resource.h>

#include <chrono>
#include <cstdio>
#include <cstring>
#include <filesystem>
#include <random>
#include <set>

namespace {

using namespace sober;

/// Words that change as slowly as real ones: about three bits from one to the next.
Fingerprint recordingOf(unsigned seed, std::size_t words) {
    std::mt19937 random(seed);
    Fingerprint made(words);
    auto word = static_cast<std::uint32_t>(random());
    for (auto& each : made) {
        word ^= static_cast<std::uint32_t>(random() & random() & random() & random());
        word ^= 1U << random() % 32;
        each = word;
    }
    return made;
}

/// A lossy copy: one bit in a hundred is another, and it may begin later and end earlier.
Fingerprint copyOf(const Fingerprint& words, unsigned seed) {
    std::mt19937 random(seed);
    const std::size_t from = random() % 40;
    Fingerprint copy(words.begin() + static_cast<std::ptrdiff_t>(from),
                     words.end() - static_cast<std::ptrdiff_t>(random() % 40));
    for (auto& word : copy) {
        for (int bit = 0; bit < 32; ++bit) {
            word ^= random() % 100 == 0 ? 1U << bit : 0U;
        }
    }
    return copy;
}

Checksum128 checksumFor(int number) {
    Checksum128 checksum;
    std::memcpy(checksum.bytes.data(), &number, sizeof number);
    return checksum;
}

/// `count` holdings on a volume that is away, a third of them in sets of two to six. Returns the number of
/// holdings that have a fellow.
int writeCatalogue(const BytePath& path, int count) {
    auto catalogue = Catalogue::openForWriting(path);
    auto& database = catalogue->database();
    SQLite::Transaction transaction(database);
    database.exec(
        "INSERT INTO volumes(label, root, filesystem, within, root_inode, filesystem_type, at_hand) "
        "VALUES('AWAY', '/nowhere', 'uuid', x'', 1, 'ext4', 0)");
    SQLite::Statement insert(
        database, "INSERT INTO holdings(volume, path, state, size, mtime, ctime, inode, links, xxh3, "
                  "troubled, codec, duration, first_seen) VALUES(1,?,0,1,1,1,?,1,?,0,'mp3',240,1)");
    std::mt19937 random(1);
    int inSets = 0;
    for (int number = 0; number < count;) {
        const auto recording = recordingOf(static_cast<unsigned>(number), 1700 + random() % 500);
        const int copies = random() % 10 == 0 ? 2 + static_cast<int>(random() % 5) : 1;
        for (int copy = 0; copy < copies && number < count; ++copy, ++number) {
            const std::string file = std::to_string(number) + ".mp3";
            const auto checksum = checksumFor(number);
            insert.bind(1, file.data(), static_cast<int>(file.size()));
            insert.bind(2, number);
            insert.bind(3, checksum.bytes.data(), static_cast<int>(checksum.bytes.size()));
            insert.exec();
            insert.reset();
            Evidence evidence;
            evidence.payload = checksum;
            evidence.fingerprint = copy == 0 ? recording : copyOf(recording, static_cast<unsigned>(number));
            writeEvidence(database, number + 1, evidence);
            inSets += copies > 1 ? 1 : 0;
        }
    }
    transaction.commit();
    return inSets;
}

double peakMegabytes() {
    rusage usage{};
    getrusage(RUSAGE_SELF, &usage);
    return static_cast<double>(usage.ru_maxrss) / 1024;
}

} // namespace

/// bench-matching [FOLDER]: finds the sets among 10,000, 30,000 and 100,000 fingerprints of a catalogue;
/// seconds, and how many times as long as sha256sum takes to read that catalogue.
int main(int argc, char** argv) {
    const std::filesystem::path folder = argc > 1 ? argv[1] : "/tmp/bench-matching";
    std::filesystem::create_directories(folder);
    double before = 0;
    for (const int count : {10'000, 30'000, 100'000}) {
        const auto path = (folder / (std::to_string(count) + ".sqlite")).string();
        std::filesystem::remove(path);
        const int planted = writeCatalogue(path, count);
        const auto catalogue = Catalogue::openForWriting(path);
        RunControl control;
        const auto began = std::chrono::steady_clock::now();
        const auto matched = matchRecordings(*catalogue, control, [](const Progress&) {});
        const double seconds =
            std::chrono::duration<double>(std::chrono::steady_clock::now() - began).count();
        const auto pairs = RecordingPairs(*catalogue).all();
        if (!matched || !pairs) {
            std::fprintf(stderr, "%s\n", (matched ? pairs.error() : matched.error()).sentence.c_str());
            return 1;
        }
        std::set<Checksum128> met;
        for (const auto& pair : *pairs) {
            met.insert({pair.first, pair.second});
        }
        const auto tool = sober::bench::costOf("sha256sum '" + path + "'");
        std::printf(
            "%7d fingerprints: %5.1f s (limit 60 for 100,000), %.1f x sha256sum; %zu of %d that have a "
            "fellow were met; %.0f MB (limit 1,500)%s\n",
            count, seconds, seconds / tool.seconds, met.size(), planted, peakMegabytes(),
            before > 0 ? ("; " + std::to_string(seconds / before).substr(0, 4) + " x the one before").c_str()
                       : "");
        std::fflush(stdout);
        before = seconds;
        std::filesystem::remove(path);
    }
    return 0;
}
