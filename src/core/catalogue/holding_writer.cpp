#include "core/catalogue/holding_writer.h"

#include "core/catalogue/evidence_store.h"
#include "core/catalogue/excerpt_store.h"
#include "core/catalogue/fixity_store.h"
#include "core/catalogue/guarded.h"

#include <algorithm>
#include <numeric>

namespace sober {

std::optional<std::size_t> RememberedFiles::at(std::string_view path) const {
    const auto found = std::ranges::lower_bound(
        byPath, path, {}, [&](std::uint32_t each) { return std::string_view(files[each].path); });
    return found != byPath.end() && files[*found].path == path ? std::optional<std::size_t>(*found)
                                                               : std::nullopt;
}

std::uint32_t RememberedFiles::keep(std::string sentence) {
    if (sentence.empty()) {
        return 0;
    }
    sentences.push_back(std::move(sentence));
    return static_cast<std::uint32_t>(sentences.size() - 1);
}

Result<RememberedFiles> rememberedFiles(const Catalogue& catalogue, VolumeId volume, bool withExcerpts) {
    return guarded(catalogue, [&] {
        RememberedFiles remembered;
        auto& database = catalogue.database();
        auto& files = remembered.files;
        SQLite::Statement count(database,
                                "SELECT (SELECT count(*) FROM holdings INDEXED BY holdings_walk WHERE "
                                "volume = ?1 AND state < 3) + (SELECT count(*) FROM passed_over WHERE "
                                "volume = ?1)");
        count.bind(1, volume);
        count.executeStep();
        files.reserve(static_cast<std::size_t>(count.getColumn(0).getInt64()));
        std::vector<HoldingId> examined;
        SQLite::Statement done(
            database, withExcerpts ? "SELECT e.holding FROM evidence e JOIN kept.excerpts k ON k.payload = "
                                     "e.payload WHERE e.method = ? ORDER BY e.holding"
                                   : "SELECT holding FROM evidence WHERE method = ? ORDER BY holding");
        done.bind(1, evidenceMethod);
        while (done.executeStep()) {
            examined.push_back(done.getColumn(0).getInt64());
        }
        SQLite::Statement problem(database, "SELECT problem FROM holdings WHERE id = ?");
        SQLite::Statement holdings(
            database, "SELECT id, path, state, size, mtime, ctime, inode, troubled FROM holdings INDEXED BY "
                      "holdings_walk WHERE volume = ? AND state < 3");
        holdings.bind(1, volume);
        while (holdings.executeStep()) {
            auto& file = files.emplace_back();
            file.id = holdings.getColumn(0).getInt64();
            file.path = bytesOf(holdings.getColumn(1));
            file.state = static_cast<HoldingState>(holdings.getColumn(2).getInt());
            file.size = static_cast<std::uint64_t>(holdings.getColumn(3).getInt64());
            file.mtime = holdings.getColumn(4).getInt64();
            file.ctime = holdings.getColumn(5).getInt64();
            file.inode = static_cast<std::uint64_t>(holdings.getColumn(6).getInt64());
            if (holdings.getColumn(7).getInt() != 0) {
                problem.bind(1, file.id);
                problem.executeStep();
                file.sentence = remembered.keep(problem.getColumn(0).getString());
                problem.reset();
            }
            // What could not be examined would not be examined any better the second time.
            file.examined = file.sentence != 0 || std::ranges::binary_search(examined, file.id);
        }
        SQLite::Statement others(
            database, "SELECT path, size, mtime, ctime, inode, sentence FROM passed_over WHERE volume = ?");
        others.bind(1, volume);
        while (others.executeStep()) {
            auto& file = files.emplace_back();
            file.path = bytesOf(others.getColumn(0));
            file.size = static_cast<std::uint64_t>(others.getColumn(1).getInt64());
            file.mtime = others.getColumn(2).getInt64();
            file.ctime = others.getColumn(3).getInt64();
            file.inode = static_cast<std::uint64_t>(others.getColumn(4).getInt64());
            file.sentence = remembered.keep(others.getColumn(5).getString());
        }
        remembered.byPath.resize(files.size());
        std::iota(remembered.byPath.begin(), remembered.byPath.end(), 0U);
        std::ranges::sort(remembered.byPath, {},
                          [&](std::uint32_t at) { return std::string_view(files[at].path); });
        return remembered;
    });
}

Result<std::unordered_map<HoldingId, Checksum128>> checksumsOf(const Catalogue& catalogue,
                                                               std::span<const HoldingId> ids) {
    return guarded(catalogue, [&] {
        std::unordered_map<HoldingId, Checksum128> checksums;
        SQLite::Statement ask(catalogue.database(), "SELECT xxh3 FROM holdings WHERE id = ?");
        for (const auto id : ids) {
            ask.bind(1, id);
            if (ask.executeStep()) {
                checksums.emplace(id, checksumOf(ask.getColumn(0)));
            }
            ask.reset();
        }
        return checksums;
    });
}

struct HoldingWriter::State {
    State(Catalogue& openCatalogue, VolumeId surveyed, Nanoseconds time)
        : catalogue(openCatalogue), volume(surveyed), surveyTime(time) {}

    SQLite::Statement& prepared(std::unique_ptr<SQLite::Statement>& slot, const char* sql) {
        if (!slot) {
            slot = std::make_unique<SQLite::Statement>(catalogue.database(), sql);
        }
        slot->reset();
        return *slot;
    }

    Catalogue& catalogue;
    VolumeId volume;
    Nanoseconds surveyTime;
    std::optional<Error> failure;
    bool stale = false; ///< this survey has marked the findings so
    std::unique_ptr<WritingTransaction> transaction;
    std::unique_ptr<SQLite::Statement> insert, rewrite, restamp, examine, missing, blocks, passOver, forget,
        error, change;

    void note(HoldingId id, std::string_view kind, const BytePath& pathBefore) {
        if (kind.empty()) {
            return;
        }
        auto& statement = prepared(
            change, "INSERT INTO survey_changes(volume, holding, kind, path_before) VALUES(?,?,?,?)");
        statement.bind(1, volume);
        statement.bind(2, id);
        statement.bind(3, std::string(kind));
        bindBytes(statement, 4, pathBefore);
        statement.exec();
    }

    void writeBlocks(HoldingId id, const FileChecksums& checksums) {
        auto& statement =
            prepared(blocks, "INSERT OR REPLACE INTO blocks(holding, xxh3, parts) VALUES(?,?,?)");
        statement.bind(1, id);
        bindBytes(statement, 2, checksums.blocks);
        bindBytes(statement, 3,
                  {reinterpret_cast<const char*>(checksums.parts.data()),
                   checksums.parts.size() * sizeof(PartChecksum)});
        statement.exec();
    }

    void writeEvidence(HoldingId id, const FileRecord& record) {
        if (record.evidence) {
            sober::writeEvidence(catalogue.database(), id, *record.evidence);
            if (record.excerpt) {
                writeExcerpt(catalogue.database(), record.evidence->payload, *record.excerpt);
            }
        } else {
            forgetEvidence(catalogue.database(), id);
        }
    }

    /// Binds what a FileRecord holds from parameter 1 on; returns the next free index.
    static int bindRecord(SQLite::Statement& statement, const FileRecord& record) {
        int at = 1;
        statement.bind(at++, static_cast<std::int64_t>(record.stamp.size));
        statement.bind(at++, record.stamp.mtime);
        statement.bind(at++, record.stamp.ctime);
        statement.bind(at++, static_cast<std::int64_t>(record.stamp.inode));
        statement.bind(at++, static_cast<std::int64_t>(record.stamp.links));
        bindBytes(statement, at++, record.checksums.file);
        if (record.checksums.sha256) {
            statement.bind(at, record.checksums.sha256->data(),
                           static_cast<int>(record.checksums.sha256->size()));
        } else {
            statement.bind(at);
        }
        ++at;
        statement.bind(at++, record.problem.empty() ? 0 : 1);
        statement.bind(at++, record.problem);
        statement.bind(at++, record.claims.container);
        statement.bind(at++, record.claims.codec);
        statement.bind(at++, record.claims.lossless ? 1 : 0);
        statement.bind(at++, record.claims.bitrate);
        statement.bind(at++, record.claims.sampleRate);
        statement.bind(at++, record.claims.channels);
        statement.bind(at++, record.claims.bitDepth);
        statement.bind(at++, record.claims.duration);
        statement.bind(at++, record.tags.title);
        statement.bind(at++, record.tags.artist);
        statement.bind(at++, record.tags.album);
        statement.bind(at++, record.tags.track);
        statement.bind(at++, record.tags.date);
        statement.bind(at++, record.filing.albumArtist);
        statement.bind(at++, record.filing.composer);
        statement.bind(at++, record.filing.genre);
        statement.bind(at++, record.filing.disc);
        return at;
    }
};

namespace {

/// What can no longer be opened as audio is shown by what it claimed and by its tags when it last could.
FileRecord withClaimsOf(SQLite::Database& database, HoldingId id, const FileRecord& record) {
    FileRecord whole = record;
    SQLite::Statement ask(
        database,
        "SELECT container, codec, lossless, bitrate, sample_rate, channels, bit_depth, "
        "duration, title, artist, album, track, date, albumartist, composer, genre, disc FROM holdings "
        "WHERE id = ?");
    ask.bind(1, id);
    if (record.claims.container.empty() && ask.executeStep()) {
        whole.claims.container = ask.getColumn(0).getString();
        whole.claims.codec = ask.getColumn(1).getString();
        whole.claims.lossless = ask.getColumn(2).getInt() != 0;
        whole.claims.bitrate = ask.getColumn(3).getInt64();
        whole.claims.sampleRate = ask.getColumn(4).getInt();
        whole.claims.channels = ask.getColumn(5).getInt();
        whole.claims.bitDepth = ask.getColumn(6).getInt();
        whole.claims.duration = ask.getColumn(7).getDouble();
        int column = 8;
        for (auto* tag :
             {&whole.tags.title, &whole.tags.artist, &whole.tags.album, &whole.tags.track, &whole.tags.date,
              &whole.filing.albumArtist, &whole.filing.composer, &whole.filing.genre, &whole.filing.disc}) {
            *tag = ask.getColumn(column++).getString();
        }
    }
    return whole;
}

} // namespace

HoldingWriter::HoldingWriter(Catalogue& catalogue, VolumeId volume, Nanoseconds surveyTime)
    : state_(std::make_unique<State>(catalogue, volume, surveyTime)) {}
HoldingWriter::~HoldingWriter() = default;

bool HoldingWriter::failed() const {
    return state_->failure.has_value();
}

/// Runs `work` within the open transaction, unless something failed before.
template <typename Work>
void HoldingWriter::attempt(Work work, Concerns concerns) {
    if (state_->failure) {
        return;
    }
    const auto outcome = guarded(state_->catalogue, [&] {
        if (!state_->transaction) {
            state_->transaction = std::make_unique<WritingTransaction>(state_->catalogue.database());
        }
        if (concerns == Concerns::findings && !state_->stale) {
            state_->catalogue.database().exec("UPDATE freshness SET findings_stale = 1");
            state_->stale = true;
        }
        work(*state_);
    });
    if (!outcome) {
        state_->failure = outcome.error();
        guarded(state_->catalogue, [&] { state_->transaction.reset(); }).ok();
    }
}

void HoldingWriter::beginSurvey() {
    attempt(
        [](State& state) {
            for (const char* sql : {"DELETE FROM survey_errors WHERE volume = ?",
                                    "DELETE FROM survey_changes WHERE volume = ?"}) {
                SQLite::Statement clear(state.catalogue.database(), sql);
                clear.bind(1, state.volume);
                clear.exec();
            }
        },
        Concerns::notes);
}

HoldingId HoldingWriter::add(const BytePath& path, const FileRecord& record, bool noteChange) {
    HoldingId id = 0;
    attempt([&](State& state) {
        auto& insert = state.prepared(
            state.insert, "INSERT INTO holdings(size, mtime, ctime, inode, links, xxh3, "
                          "sha256, troubled, problem, container, "
                          "codec, lossless, bitrate, sample_rate, channels, bit_depth, "
                          "duration, title, artist, album, track, "
                          "date, albumartist, composer, genre, disc, volume, path, state, first_seen) "
                          "VALUES(?,?,?,?,?,?,?,?,?,?,?,?,?,?,?,?,?,?,?,?,?,?,?,?,?,?,?,?,0,?)");
        int at = State::bindRecord(insert, record);
        insert.bind(at++, state.volume);
        bindBytes(insert, at++, path);
        insert.bind(at++, state.surveyTime);
        insert.exec();
        id = state.catalogue.database().getLastInsertRowid();
        state.writeBlocks(id, record.checksums);
        state.writeEvidence(id, record);
        if (noteChange) {
            state.note(id, "added", {});
        }
    });
    return id;
}

void HoldingWriter::rewrite(HoldingId id, const FileRecord& record, std::string_view change,
                            const BytePath& pathBefore) {
    attempt([&](State& state) {
        if (change == "changed" || change == "returned") {
            keepBaseline(state.catalogue.database(), id, record);
        }
        auto& statement = state.prepared(
            state.rewrite,
            "UPDATE holdings SET size=?, mtime=?, ctime=?, inode=?, links=?, xxh3=?, sha256=?, troubled=?, "
            "problem=?, container=?, codec=?, lossless=?, bitrate=?, sample_rate=?, channels=?, bit_depth=?, "
            "duration=?, title=?, artist=?, album=?, track=?, date=?, albumartist=?, composer=?, genre=?, "
            "disc=?, "
            "state=0, last_seen=0 WHERE id=?");
        const int at = State::bindRecord(statement, withClaimsOf(state.catalogue.database(), id, record));
        statement.bind(at, id);
        statement.exec();
        state.writeBlocks(id, record.checksums);
        state.writeEvidence(id, record);
        state.note(id, change, pathBefore);
    });
}

void HoldingWriter::restamp(HoldingId id, const BytePath& path, const FileStamp& stamp,
                            std::string_view change, const BytePath& pathBefore) {
    attempt([&](State& state) {
        if (!pathBefore.empty() && pathBefore != path) {
            SQLite::Statement remember(
                state.catalogue.database(),
                "INSERT OR IGNORE INTO former_places(volume, path, holding) VALUES(?,?,?)");
            remember.bind(1, state.volume);
            bindBytes(remember, 2, pathBefore);
            remember.bind(3, id);
            remember.exec();
        }
        auto& statement = state.prepared(
            state.restamp, "UPDATE holdings SET path=?, mtime=?, ctime=?, inode=?, links=?, state=0, "
                           "last_seen=0 WHERE id=?");
        bindBytes(statement, 1, path);
        statement.bind(2, stamp.mtime);
        statement.bind(3, stamp.ctime);
        statement.bind(4, static_cast<std::int64_t>(stamp.inode));
        statement.bind(5, static_cast<std::int64_t>(stamp.links));
        statement.bind(6, id);
        statement.exec();
        state.note(id, change, pathBefore);
    });
}

void HoldingWriter::giveEvidence(HoldingId id, const FileRecord& record) {
    attempt([&](State& state) {
        auto& statement =
            state.prepared(state.examine, "UPDATE holdings SET sha256=?, troubled=?, problem=? WHERE id=?");
        if (record.checksums.sha256) {
            statement.bind(1, record.checksums.sha256->data(),
                           static_cast<int>(record.checksums.sha256->size()));
        } else {
            statement.bind(1);
        }
        statement.bind(2, record.problem.empty() ? 0 : 1);
        statement.bind(3, record.problem);
        statement.bind(4, id);
        statement.exec();
        state.writeEvidence(id, record);
    });
}

void HoldingWriter::noteEarlier(HoldingId id, const FileRecord& before) {
    attempt([&](State& state) { giveBaseline(state.catalogue.database(), id, before); });
}

void HoldingWriter::markMissing(HoldingId id, const BytePath& path, Nanoseconds lastSeen) {
    attempt([&](State& state) {
        auto& statement =
            state.prepared(state.missing, "UPDATE holdings SET state=1, last_seen=? WHERE id=? AND state=0");
        statement.bind(1, lastSeen);
        statement.bind(2, id);
        statement.exec();
        state.note(id, "missing", path);
    });
}

void HoldingWriter::takeState(HoldingId id, HoldingState holdingState, Nanoseconds lastSeen) {
    attempt([&](State& state) {
        SQLite::Statement statement(state.catalogue.database(),
                                    "UPDATE holdings SET state = ?, last_seen = ? WHERE id = ?");
        statement.bind(1, static_cast<int>(holdingState));
        statement.bind(2, holdingState == HoldingState::present ? 0 : lastSeen);
        statement.bind(3, id);
        statement.exec();
    });
}

void HoldingWriter::markLeftOut(HoldingId id) {
    attempt([&](State& state) {
        SQLite::Statement statement(state.catalogue.database(),
                                    "UPDATE holdings SET state = -1 WHERE id = ? AND state IN (0, 1)");
        statement.bind(1, id);
        statement.exec();
    });
}

void HoldingWriter::passOver(const BytePath& path, const FileStamp& stamp, const std::string& sentence) {
    attempt(
        [&](State& state) {
            auto& statement = state.prepared(
                state.passOver,
                "INSERT OR REPLACE INTO passed_over(volume, path, size, mtime, ctime, inode, sentence) "
                "VALUES(?,?,?,?,?,?,?)");
            statement.bind(1, state.volume);
            bindBytes(statement, 2, path);
            statement.bind(3, static_cast<std::int64_t>(stamp.size));
            statement.bind(4, stamp.mtime);
            statement.bind(5, stamp.ctime);
            statement.bind(6, static_cast<std::int64_t>(stamp.inode));
            statement.bind(7, sentence);
            statement.exec();
        },
        Concerns::notes);
}

void HoldingWriter::forgetPassedOver(const BytePath& path) {
    attempt(
        [&](State& state) {
            auto& statement =
                state.prepared(state.forget, "DELETE FROM passed_over WHERE volume=? AND path=?");
            statement.bind(1, state.volume);
            bindBytes(statement, 2, path);
            statement.exec();
        },
        Concerns::notes);
}

void HoldingWriter::noteError(const SurveyError& error) {
    attempt(
        [&](State& state) {
            auto& statement = state.prepared(
                state.error, "INSERT INTO survey_errors(volume, path, sentence) VALUES(?,?,?)");
            statement.bind(1, state.volume);
            bindBytes(statement, 2, error.path);
            statement.bind(3, error.sentence);
            statement.exec();
        },
        Concerns::notes);
}

Outcome HoldingWriter::commit() {
    if (!state_->failure && state_->transaction) {
        const auto outcome = guarded(state_->catalogue, [&] { state_->transaction->commit(); });
        if (!outcome) {
            state_->failure = outcome.error();
        }
        guarded(state_->catalogue, [&] { state_->transaction.reset(); }).ok();
    }
    return state_->failure ? Outcome(*state_->failure) : done();
}

} // namespace sober
