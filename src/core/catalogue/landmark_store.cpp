#include "core/catalogue/landmark_store.h"

#include "core/catalogue/guarded.h"

#include <algorithm>
#include <bit>
#include <memory>

namespace sober {
namespace {

constexpr std::uint64_t bucketSize = 512; // landmarks, about
constexpr int mostBits = 18;

struct Run {
    std::int64_t id = 0;
    int bits = 0; ///< of a key, the highest, that tell its bucket
    std::uint64_t landmarks = 0;

    std::uint32_t bucketOf(std::uint32_t key) const { return bits == 0 ? 0 : key >> (32 - bits); }
    /// Of a bucket's row: a page of its own, found by its number alone.
    std::int64_t placeOf(std::uint32_t bucket) const { return (id << mostBits) + bucket; }
    std::int64_t placesEnd() const { return (id + 1) << mostBits; }
};

int bitsFor(std::uint64_t landmarks) {
    return std::min(mostBits, static_cast<int>(std::bit_width(landmarks / bucketSize)));
}

std::vector<Run> runsOf(SQLite::Database& database) {
    SQLite::Statement ask(database, "SELECT run, bits, landmarks FROM landmark_runs ORDER BY run");
    std::vector<Run> runs;
    while (ask.executeStep()) {
        runs.push_back({ask.getColumn(0).getInt64(), ask.getColumn(1).getInt(), countAt(ask, 2)});
    }
    return runs;
}

std::vector<Landmark> landmarksIn(const SQLite::Column& column) {
    // What is no such form was written by nobody we know: those files are met again when they change.
    return unpackLandmarks(bytesOf(column)).value_or(std::vector<Landmark>());
}

/// One run, landmark by landmark, in its order.
class RunReader {
  public:
    RunReader(SQLite::Database& database, const Run& run)
        : ask_(database,
               "SELECT landmarks FROM landmark_buckets WHERE place >= ? AND place < ? ORDER BY place") {
        ask_.bind(1, run.placeOf(0));
        ask_.bind(2, run.placesEnd());
        fill();
    }
    const Landmark* current() const { return at_ < bucket_.size() ? &bucket_[at_] : nullptr; }
    void next() {
        if (++at_ == bucket_.size()) {
            fill();
        }
    }

  private:
    void fill() {
        at_ = 0;
        bucket_.clear();
        while (bucket_.empty() && ask_.executeStep()) {
            bucket_ = landmarksIn(ask_.getColumn(0));
        }
    }

    SQLite::Statement ask_;
    std::vector<Landmark> bucket_;
    std::size_t at_ = 0;
};

/// Writes a run of about so many landmarks, given in their order.
class RunWriter {
  public:
    RunWriter(SQLite::Database& database, std::uint64_t expected)
        : database_(database), insert_(database, "INSERT INTO landmark_buckets VALUES(?,?)") {
        SQLite::Statement begin(database, "INSERT INTO landmark_runs(bits, landmarks) VALUES(?, 0)");
        run_.bits = bitsFor(expected);
        begin.bind(1, run_.bits);
        begin.exec();
        run_.id = database.getLastInsertRowid();
    }
    void put(const Landmark& landmark) {
        if (const auto bucket = run_.bucketOf(landmark.key); bucket != bucket_) {
            flush();
            bucket_ = bucket;
        }
        waiting_.push_back(landmark);
    }
    Run finish() {
        flush();
        SQLite::Statement end(database_, "UPDATE landmark_runs SET landmarks = ? WHERE run = ?");
        end.bind(1, static_cast<std::int64_t>(run_.landmarks));
        end.bind(2, run_.id);
        end.exec();
        return run_;
    }

  private:
    void flush() {
        if (waiting_.empty()) {
            return;
        }
        insert_.bind(1, run_.placeOf(bucket_));
        bindBytes(insert_, 2, packLandmarks(waiting_));
        insert_.exec();
        insert_.reset();
        run_.landmarks += waiting_.size();
        waiting_.clear();
    }

    SQLite::Database& database_;
    SQLite::Statement insert_;
    Run run_;
    std::uint32_t bucket_ = 0;
    std::vector<Landmark> waiting_;
};

/// By number, whether an owner is known.
std::vector<bool> ownedIn(SQLite::Database& database) {
    SQLite::Statement ask(database, "SELECT number FROM landmark_owners ORDER BY number DESC");
    std::vector<bool> owned;
    while (ask.executeStep()) {
        const auto number = ask.getColumn(0).getUInt();
        if (owned.size() <= number) {
            owned.resize(number + std::size_t{1});
        }
        owned[number] = true;
    }
    return owned;
}

/// Runs as one, without what nobody owns.
Run joined(SQLite::Database& database, std::span<const Run> runs) {
    const auto owned = ownedIn(database);
    std::uint64_t expected = 0;
    for (const auto& run : runs) {
        expected += run.landmarks;
    }
    RunWriter writer(database, expected);
    {
        std::vector<std::unique_ptr<RunReader>> readers;
        for (const auto& run : runs) {
            readers.push_back(std::make_unique<RunReader>(database, run));
        }
        while (true) {
            RunReader* least = nullptr;
            for (const auto& reader : readers) {
                if (reader->current() != nullptr &&
                    (least == nullptr || *reader->current() < *least->current())) {
                    least = reader.get();
                }
            }
            if (least == nullptr) {
                break;
            }
            const auto& landmark = *least->current();
            if (landmark.number < owned.size() && owned[landmark.number]) {
                writer.put(landmark);
            }
            least->next();
        }
    }
    SQLite::Statement eraseBuckets(database, "DELETE FROM landmark_buckets WHERE place >= ? AND place < ?");
    SQLite::Statement eraseRun(database, "DELETE FROM landmark_runs WHERE run = ?");
    for (const auto& run : runs) {
        eraseBuckets.bind(1, run.placeOf(0));
        eraseBuckets.bind(2, run.placesEnd());
        eraseBuckets.exec();
        eraseBuckets.reset();
        eraseRun.bind(1, run.id);
        eraseRun.exec();
        eraseRun.reset();
    }
    return writer.finish();
}

void addRun(SQLite::Database& database, std::span<const Landmark> landmarks) {
    auto runs = runsOf(database);
    RunWriter writer(database, landmarks.size());
    for (const auto& landmark : landmarks) {
        writer.put(landmark);
    }
    runs.push_back(writer.finish());
    // Four of like size become one, so that each landmark is written again as often as its number has digits
    // to the base of four.
    constexpr std::size_t alike = 4;
    while (runs.size() >= alike && runs[runs.size() - alike].landmarks < alike * runs.back().landmarks) {
        const auto last = std::span(runs).last(alike);
        const auto one = joined(database, last);
        runs.resize(runs.size() - alike);
        runs.push_back(one);
    }
}

/// Those of one run under the keys, which are in order.
void findIn(SQLite::Database& database, const Run& run, std::span<const std::uint32_t> keys,
            std::vector<Landmark>& found) {
    SQLite::Statement ask(database, "SELECT landmarks FROM landmark_buckets WHERE place = ?");
    while (!keys.empty()) {
        const auto bucket = run.bucketOf(keys.front());
        const auto end =
            std::ranges::find_if(keys, [&](std::uint32_t key) { return run.bucketOf(key) != bucket; });
        auto key = keys.begin();
        ask.bind(1, run.placeOf(bucket));
        if (ask.executeStep()) {
            for (const auto& landmark : landmarksIn(ask.getColumn(0))) {
                while (key != end && *key < landmark.key) {
                    ++key;
                }
                if (key != end && *key == landmark.key) {
                    found.push_back(landmark);
                }
            }
        }
        ask.reset();
        keys = {end, keys.end()};
    }
}

} // namespace

Result<std::vector<LandmarkOwner>> LandmarkStore::owners() const {
    return guarded(catalogue_, [&] {
        SQLite::Statement ask(catalogue_.database(), "SELECT number, payload FROM landmark_owners");
        std::vector<LandmarkOwner> all;
        while (ask.executeStep()) {
            all.push_back({ask.getColumn(0).getUInt(), checksumOf(ask.getColumn(1))});
        }
        return all;
    });
}

Result<std::uint32_t> LandmarkStore::nextNumber() const {
    return guarded(catalogue_, [&] {
        SQLite::Statement ask(catalogue_.database(),
                              "SELECT seq + 1 FROM sqlite_sequence WHERE name = 'landmark_owners'");
        return ask.executeStep() ? ask.getColumn(0).getUInt() : 1U;
    });
}

Result<std::vector<Landmark>> LandmarkStore::withKeys(std::span<const std::uint32_t> keys) const {
    return guarded(catalogue_, [&] {
        std::vector<Landmark> found;
        const auto runs = runsOf(catalogue_.database());
        for (const auto& run : runs) {
            findIn(catalogue_.database(), run, keys, found);
        }
        return found;
    });
}

Result<std::vector<MetPair>> LandmarkStore::met() const {
    return guarded(catalogue_, [&] {
        SQLite::Statement ask(
            catalogue_.database(),
            "SELECT m.first, m.second, m.offset, m.bit_errors FROM met_recordings m JOIN "
            "landmark_owners a ON a.number = m.first JOIN landmark_owners b ON b.number = m.second");
        std::vector<MetPair> all;
        while (ask.executeStep()) {
            all.push_back({ask.getColumn(0).getUInt(), ask.getColumn(1).getUInt(), ask.getColumn(2).getInt(),
                           ask.getColumn(3).getDouble()});
        }
        return all;
    });
}

Outcome LandmarkStore::add(std::span<const LandmarkOwner> owners, std::span<const Landmark> landmarks,
                           std::span<const MetPair> met) const {
    return guarded(catalogue_, [&] {
        auto& database = catalogue_.database();
        WritingTransaction transaction(database);
        SQLite::Statement own(database, "INSERT INTO landmark_owners(number, payload) VALUES(?,?)");
        for (const auto& owner : owners) {
            own.bind(1, owner.number);
            bindBytes(own, 2, owner.payload);
            own.exec();
            own.reset();
        }
        SQLite::Statement meet(database, "INSERT OR REPLACE INTO met_recordings VALUES(?,?,?,?)");
        for (const auto& pair : met) {
            meet.bind(1, pair.first);
            meet.bind(2, pair.second);
            meet.bind(3, pair.offset);
            meet.bind(4, pair.bitErrors);
            meet.exec();
            meet.reset();
        }
        if (!landmarks.empty()) {
            addRun(database, landmarks);
        }
        transaction.commit();
    });
}

Outcome LandmarkStore::forget(std::span<const std::uint32_t> numbers) const {
    return guarded(catalogue_, [&] {
        auto& database = catalogue_.database();
        WritingTransaction transaction(database);
        for (const auto* sql :
             {"DELETE FROM landmark_owners WHERE number = ?", "DELETE FROM met_recordings WHERE first = ?",
              "DELETE FROM met_recordings WHERE second = ?"}) {
            SQLite::Statement erase(database, sql);
            for (const auto number : numbers) {
                erase.bind(1, number);
                erase.exec();
                erase.reset();
            }
        }
        transaction.commit();
    });
}

} // namespace sober
