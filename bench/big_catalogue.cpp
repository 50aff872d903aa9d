#include "bench/big_catalogue.h"

#include "core/audit/refresh_findings.h"
#include "core/catalogue/catalogue.h"
#include "core/catalogue/findings.h"

#include <SQLiteCpp/SQLiteCpp.h>

#include <cstdint>
#include <cstdio>
#include <cstdlib>

namespace sober::bench {

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
        const std::string root = "/nowhere/" + label;
        insert.bind(1, label);
        insert.bind(2, root.data(), static_cast<int>(root.size()));
        insert.bind(3, "uuid-" + std::to_string(volume));
        insert.exec();
    }
    SQLite::Statement insert(
        database, "INSERT INTO holdings(volume, path, state, size, mtime, ctime, inode, links, xxh3, "
                  "troubled, container, codec, "
                  "bitrate, sample_rate, channels, bit_depth, duration, title, artist, album, first_seen) "
                  "VALUES(?,?,?,?,?,?,?,1,?,0,'flac','flac',900000,44100,2,16,?,?,?,?,1)");
    for (int i = 0; i < holdings; ++i) {
        const int recording = i % 4 == 3 ? i / 8 : i; // a quarter carries another's content
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
        insert.bind(9, 200.0 + recording % 100);
        insert.bind(10, title);
        insert.bind(11, artist);
        insert.bind(12, album);
        insert.exec();
        insert.reset();
    }
    database.exec("UPDATE freshness SET findings_stale = 1");
    transaction.commit();
    if (const auto refreshed = refreshFindings(*catalogue); !refreshed) {
        std::fprintf(stderr, "%s\n", refreshed.error().sentence.c_str());
        std::exit(1);
    }
}

} // namespace sober::bench
