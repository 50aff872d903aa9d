#include "bench/away_catalogue.h"

#include "core/catalogue/catalogue.h"
#include "core/catalogue/evidence_store.h"

#include <SQLiteCpp/SQLiteCpp.h>

#include <cstring>
#include <random>

namespace sober::bench {
namespace {

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

} // namespace

int writeAwayCatalogue(const BytePath& path, int count) {
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

} // namespace sober::bench
