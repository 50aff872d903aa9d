#include "bench/big_catalogue.h"

#include "core/audit/refresh_findings.h"
#include "core/base/file_handle.h"
#include "core/base/paths.h"
#include "core/catalogue/catalogue.h"
#include "core/catalogue/evidence_store.h"
#include "core/catalogue/findings.h"

#include <SQLiteCpp/SQLiteCpp.h>

#include <array>
#include <cstdint>
#include <cstdio>
#include <cstdlib>
#include <cstring>
#include <filesystem>
#include <fstream>
#include <random>

namespace sober::bench {
namespace {

constexpr std::array<int, 5> bitrates{96'000, 128'000, 192'000, 256'000, 320'000};

/// As long and as wide as a real one.
Evidence evidenceOf(int recording) {
    std::mt19937 random(static_cast<unsigned>(recording));
    Evidence evidence;
    std::memcpy(evidence.payload.bytes.data(), &recording, sizeof recording);
    evidence.seconds = 240;
    const double cutoff = 10'000.0 + random() % 12'050;
    evidence.bandwidth = Bandwidth{cutoff, 40, 0, random() % 4 == 0};
    evidence.spectrum =
        Spectrum{44'100.0 / 1024, std::vector<float>(513, 40), std::vector<float>(513, 50), 2500};
    TracePeak peak;
    peak.codec = "mp3";
    peak.period = 576;
    peak.strength = random() % 100;
    peak.excess.assign(576, 1);
    evidence.trace.highest = peak;
    evidence.verdict.verdict = static_cast<VerdictClass>(random() % 20 < 17 ? 0 : 1 + random() % 3);
    evidence.verdict.confidence = 0.95;
    evidence.verdict.reasons = {"made up for a measurement"};
    evidence.fingerprint.assign(1800, static_cast<std::uint32_t>(recording));
    return evidence;
}

/// A hundred lists of one player, with as many entries each as makes one in ten; one in twenty leads nowhere.
/// The lists' files hold nothing and are as the catalogue knows them, so that nobody reads them again; empty
/// files stand where the others lead.
void writeLists(SQLite::Database& database, const BytePath& folder, int holdings) {
    constexpr int lists = 100;
    database.exec("INSERT INTO players(id, name, ignores_case, written_prefix, stands_for) VALUES(1, "
                  "'Bench', 0, x'', x'')");
    SQLite::Statement place(database, "INSERT INTO player_places(player, volume, path) VALUES(1, 0, ?)");
    place.bind(1, folder.data(), static_cast<int>(folder.size()));
    place.exec();
    SQLite::Statement list(database,
                           "INSERT INTO lists(id, volume, path, size, mtime, ctime, inode, as_uri, problem) "
                           "VALUES(?, 0, CAST(? AS BLOB), ?, ?, ?, ?, 0, '')");
    SQLite::Statement entry(
        database,
        "INSERT INTO list_references(list, entry, location, title, artist, album, seconds, state, path, "
        "holding) SELECT ?1, ?2, CAST(v.root || '/' || CAST(h.path AS TEXT) || ?4 AS BLOB), h.title, "
        "h.artist, "
        "h.album, h.duration, ?3, CAST(v.root || '/' || CAST(h.path AS TEXT) || ?4 AS BLOB), "
        "CASE WHEN ?5 THEN NULL ELSE h.id END FROM holdings h JOIN volumes v ON v.id = h.volume "
        "WHERE h.id = ?6");
    std::filesystem::create_directories(folder);
    SQLite::Statement led(database, "SELECT path FROM list_references WHERE state = 0");
    for (int number = 0; number < lists; ++number) {
        const auto file = joinPath(folder, std::to_string(number) + ".m3u8");
        std::ofstream(file).flush();
        const auto stamp = stampAt(file);
        list.bind(1, number + 1);
        list.bind(2, file);
        list.bind(3, static_cast<std::int64_t>(stamp->size));
        list.bind(4, stamp->mtime);
        list.bind(5, stamp->ctime);
        list.bind(6, static_cast<std::int64_t>(stamp->inode));
        list.exec();
        list.reset();
        database.exec("INSERT INTO player_lists(player, list) VALUES(1, " + std::to_string(number + 1) + ")");
        for (int at = 0; at < holdings / 10 / lists; ++at) {
            const bool isBroken = at % 20 == 0;
            entry.bind(1, number + 1);
            entry.bind(2, at);
            entry.bind(3, isBroken ? 2 : 0);
            entry.bind(4, isBroken ? ".gone" : "");
            entry.bind(5, isBroken ? 1 : 0);
            entry.bind(6, (at * lists + number) * 10 + 1);
            entry.exec();
            entry.reset();
        }
    }
    while (led.executeStep()) {
        const std::filesystem::path file(led.getColumn(0).getString());
        std::filesystem::create_directories(file.parent_path());
        std::ofstream(file).flush();
    }
}

/// Of one in four copies.
void writeDocket(SQLite::Database& database, int holdings) {
    SQLite::Statement insert(database, "INSERT INTO docket(kind, holding, reason, added) VALUES('retire', ?, "
                                       "'made up for a measurement', 1)");
    for (int i = 4; i < holdings; i += 20) {
        insert.bind(1, i + 1);
        insert.exec();
        insert.reset();
    }
}

} // namespace

void writeBigCatalogue(const BytePath& path, int holdings) {
    auto catalogue = Catalogue::openForWriting(path);
    if (!catalogue) {
        std::fprintf(stderr, "%s\n", catalogue.error().sentence.c_str());
        std::exit(1);
    }
    auto& database = catalogue->database();
    SQLite::Transaction transaction(database);
    for (int volume = 1; volume <= 4; ++volume) {
        SQLite::Statement insert(
            database, "INSERT INTO volumes(label, root, filesystem, within, root_inode, filesystem_type, "
                      "at_hand, capacity, available, surveyed_at) VALUES(?, ?, ?, x'', 1, 'ext4', 1, "
                      "4000000000000, 1000000000000, 1)");
        const std::string label = "VOLUME" + std::to_string(volume);
        const std::string root = path + ".files/" + label;
        insert.bind(1, label);
        insert.bind(2, root.data(), static_cast<int>(root.size()));
        insert.bind(3, "uuid-" + std::to_string(volume));
        insert.exec();
    }
    SQLite::Statement insert(
        database, "INSERT INTO holdings(volume, path, state, size, mtime, ctime, inode, links, xxh3, "
                  "troubled, container, codec, "
                  "bitrate, sample_rate, channels, bit_depth, duration, title, artist, album, first_seen) "
                  "VALUES(?,?,?,?,?,?,?,1,?,0,?,?,?,44100,2,?,?,?,?,?,1)");
    for (int i = 0; i < holdings; ++i) {
        const int recording = i % 5 == 4 ? i - 1 : i; // one in five carries another's content
        const std::string artist = "Performer " + std::to_string(recording / 120);
        const std::string album = "Album " + std::to_string(recording / 12);
        const std::string title = "Recording " + std::to_string(recording);
        const std::string file =
            artist + "/" + album + "/" + title + (i == recording ? "" : " " + std::to_string(i)) + ".flac";
        std::uint64_t checksum[2] = {static_cast<std::uint64_t>(recording) * 0x9E3779B97F4A7C15ULL,
                                     static_cast<std::uint64_t>(recording)};
        insert.bind(1, 1 + i % 4);
        insert.bind(2, file.data(), static_cast<int>(file.size()));
        insert.bind(3, i % 50 == 0 ? 1 : 0);
        insert.bind(4, 20'000'000 + recording % 1000 * 10'000);
        insert.bind(5, static_cast<std::int64_t>(1'600'000'000 + i) * 1'000'000'000);
        insert.bind(6, static_cast<std::int64_t>(i));
        insert.bind(7, i + 100);
        insert.bind(8, checksum, sizeof checksum);
        const bool lossy = recording % 3 == 0;
        insert.bind(9, lossy ? "mp3" : "flac");
        insert.bind(10, lossy ? "mp3" : "flac");
        insert.bind(11,
                    lossy ? bitrates[static_cast<std::size_t>(recording / 3) % bitrates.size()] : 900'000);
        insert.bind(12, lossy ? 0 : 16);
        insert.bind(13, 200.0 + recording % 100);
        insert.bind(14, title);
        insert.bind(15, artist);
        insert.bind(16, album);
        insert.exec();
        insert.reset();
        if (i % 10 == 0) {
            writeEvidence(database, i + 1, evidenceOf(recording));
        }
    }
    writeLists(database, path + ".lists", holdings);
    writeDocket(database, holdings);
    database.exec("UPDATE freshness SET findings_stale = 1");
    transaction.commit();
    if (const auto refreshed = refreshFindings(*catalogue); !refreshed) {
        std::fprintf(stderr, "%s\n", refreshed.error().sentence.c_str());
        std::exit(1);
    }
}

} // namespace sober::bench
