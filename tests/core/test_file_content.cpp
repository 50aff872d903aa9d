// Bytes are read whatever they are: checksums as other tools find them, past what a drive cannot give; and
// what is destroyed is told from what was replaced.
#include "core/evidence/drift.h"
#include "core/evidence/file_content.h"
#include "core/evidence/worker/evidence_worker.h"
#include "core/remedy/actions/what_stays.h"
#include "support/collection.h"
#include "support/mounts.h"
#include "support/player_collection.h"
#include "support/run_program.h"
#include "support/small_audio.h"
#include "support/sound.h"

#include <SQLiteCpp/SQLiteCpp.h>
#include <sys/stat.h>

#include <csignal>
#include <fcntl.h>
#include <random>
#include <thread>

using namespace sober;
using namespace sober::test;
namespace fs = std::filesystem;

TEST_CASE("the content of any file has the checksums that xxhsum finds") {
    const TempFolder folder;
    std::mt19937 random(7);
    for (const std::size_t size : {0U, 1U, 4095U, 4096U, 262'144U, 262'145U, 1'048'576U, 3'000'001U}) {
        std::string content(size, '\0');
        for (auto& byte : content) {
            byte = static_cast<char>(random());
        }
        const auto path = folder / std::to_string(size);
        writeFile(path, content);
        RunControl control;
        std::uint64_t passed = 0;
        const auto read = readContent(path, control, [&](std::uint64_t bytes) { passed += bytes; });
        REQUIRE(read.ok());
        CHECK(read->checksums.file.hex() == run({"xxhsum", "-H2", path}).out.substr(0, 32));
        CHECK(read->checksums.blocks.size() == (size + 1'048'575) / 1'048'576);
        CHECK(read->unreadable.empty());
        CHECK(passed == size);
        const auto record = recordOfBytes(path, control);
        CHECK(record->checksums.file == read->checksums.file);
        CHECK(record->claims.container.empty());
        CHECK(record->problem.ends_with("is no audio any more."));
    }
    RunControl stopped;
    stopped.cancel();
    CHECK(readContent(folder / "4096", stopped).error().cause == Cause::interrupted);
    RunControl control;
    CHECK(readContent(folder / "none", control).error().cause == Cause::notFound);
    CHECK(readContent(folder.path(), control).error().cause == Cause::wrongKind);
}

TEST_CASE("content that is no audio any more is altered, or cut, and never another recording") {
    FixityFacts before;
    before.size = 5'000'000;
    before.mtime = 1;
    before.claims.codec = "flac";
    before.tags.title = "Slipway";
    before.blocks.resize(5);
    for (std::size_t at = 0; at < before.blocks.size(); ++at) {
        before.blocks[at].bytes[0] = static_cast<std::uint8_t>(at + 1);
    }
    struct Row {
        const char* what;
        std::uint64_t size;
        Nanoseconds mtime;
        std::size_t blocksKept; ///< from the first on
        DriftKind kind;
    };
    for (const auto& row :
         std::vector<Row>{{"of one size and time", 5'000'000, 1, 0, DriftKind::silentChange},
                          {"destroyed beginning", 5'000'000, 2, 0, DriftKind::audioAltered},
                          {"longer", 6'000'000, 2, 0, DriftKind::audioAltered},
                          {"cut after two blocks", 2'097'152, 2, 2, DriftKind::truncated},
                          {"shorter and other", 2'097'152, 2, 0, DriftKind::audioAltered},
                          {"nothing left", 0, 2, 0, DriftKind::truncated}}) {
        CAPTURE(row.what);
        FixityFacts now;
        now.size = row.size;
        now.mtime = row.mtime;
        now.endsEarly = true;
        now.blocks.assign((row.size + 1'048'575) / 1'048'576, Checksum128{});
        std::copy_n(before.blocks.begin(), row.blocksKept, now.blocks.begin());
        CHECK(driftWord(driftKindOf(before, now)) == driftWord(row.kind));
    }
}

TEST_CASE("a worker that is ended from outside costs nothing: the file is tried again") {
    const auto signal = GENERATE(SIGKILL, SIGTERM, SIGHUP);
    const TempFolder folder;
    ffmpeg({"-f", "lavfi", "-i", "anoisesrc=d=900:c=pink:r=44100", "-ac", "2", folder / "long.wav"});
    RunControl control;
    EvidenceWorker worker;
    std::jthread killer([&] {
        for (int waited = 0; waited < 400; ++waited) {
            std::this_thread::sleep_for(std::chrono::milliseconds(10));
            if (const auto workers = children(); !workers.empty()) {
                std::this_thread::sleep_for(std::chrono::milliseconds(150));
                kill(workers.front(), signal);
                return;
            }
        }
    });
    const auto record = worker.examine(folder / "long.wav", control, [](std::uint64_t) {});
    killer.join();
    REQUIRE_FALSE(record.ok());
    CHECK(record.error().cause == Cause::ended);
    CHECK(record.error().sentence.find("ended from outside") != std::string::npos);
    CHECK(worker.examine(folder / "long.wav", control, [](std::uint64_t) {})->evidence.has_value());
}

TEST_CASE("a copy is told from the same file by another way by its numbers") {
    const TempFolder folder;
    writeFile(folder / "a/x.wav", "content");
    writeFile(folder / "b/x.wav", "content");
    fs::create_hard_link(folder / "a/x.wav", folder / "a/linked.wav");
    fs::create_directory_symlink(folder / "a", folder / "way");
    fs::create_symlink(folder / "a/x.wav", folder / "b/by link.wav");
    const auto stampOfFile = [&](const BytePath& path) { return *stampAt(folder / path); };
    const auto why = [&](const BytePath& stays, const BytePath& goes) {
        return whyNoCopy(folder / stays, stampOfFile(stays), folder / goes, stampOfFile(goes), mountsNow())
            .has_value();
    };
    CHECK_FALSE(why("b/x.wav", "a/x.wav"));
    CHECK_FALSE(why("a/linked.wav", "a/x.wav"));
    CHECK(why("way/x.wav", "a/x.wav"));
    CHECK(why("b/by link.wav", "a/x.wav"));
    CHECK(why("a/x.wav", "a/x.wav"));

    // As a file system in between shows one file with a device number of its own.
    const auto goes = stampOfFile("a/x.wav");
    struct Row {
        const char* what;
        std::function<void(FileStamp&)> change;
        bool same;
    };
    for (const auto& row :
         std::vector<Row>{{"all alike", [](FileStamp&) {}, true},
                          {"another size", [](FileStamp& stamp) { stamp.size += 1; }, false},
                          {"written at another time", [](FileStamp& stamp) { stamp.mtime += 1; }, false},
                          {"changed at another time", [](FileStamp& stamp) { stamp.ctime += 1; }, false},
                          {"another inode, the time of change is that of writing",
                           [](FileStamp& stamp) { stamp.inode += 1; }, goes.ctime != goes.mtime}}) {
        CAPTURE(row.what);
        auto stays = goes;
        stays.device += 1;
        row.change(stays);
        CHECK(whyNoCopy(folder / "b/x.wav", stays, folder / "a/x.wav", goes, mountsNow()).has_value() ==
              row.same);
    }
    auto apart = goes;
    apart.device += 1;
    apart.inode += 1;
    auto changed = goes;
    changed.ctime = apart.ctime = goes.mtime + 1'500'000'123;
    CHECK(whyNoCopy(folder / "b/x.wav", apart, folder / "a/x.wav", changed, mountsNow()).has_value());
    changed.ctime = apart.ctime =
        (goes.mtime / 1'000'000'000 + 2) * 1'000'000'000; // whole seconds, as on cards
    CHECK_FALSE(whyNoCopy(folder / "b/x.wav", apart, folder / "a/x.wav", changed, mountsNow()).has_value());
}

TEST_CASE("what stays is looked at by opening and reading it") {
    const TempFolder folder;
    writeFile(folder / "x.wav", "content");
    const Staying staying{folder / "x.wav", *stampAt(folder / "x.wav")};
    CHECK_FALSE(whyNotThere(staying));
    fs::rename(folder / "x.wav", folder / "y.wav");
    CHECK(whyNotThere(staying)->find("is not there any more") != std::string::npos);
    writeFile(folder / "x.wav", "content");
    CHECK(whyNotThere(staying)->find("is not what was compared") != std::string::npos);
}

TEST_CASE("a list's stamp and its entries are written together or not at all") {
    PlayerCollection collection;
    writeFile(collection / "V/a.wav", smallWav(1));
    writeFile(collection / "V/b.wav", smallWav(2));
    collection.survey("V");
    writeFile(collection / "L/list.m3u8", m3u({collection / "V/a.wav"}));
    collection.addPlayer("player", "L");
    writeFile(collection / "L/list.m3u8", m3u({collection / "V/b.wav", "/gone.wav"}));
    collection.whileClosed([&] {
        SQLite::Database database(collection.cataloguePath(), SQLite::OPEN_READWRITE);
        database.exec(
            "CREATE TRIGGER broken BEFORE INSERT ON list_references BEGIN SELECT raise(ABORT, 'no'); END");
    });
    RunControl control;
    CHECK_FALSE(readPlayers(collection.catalogue(), control).ok());
    collection.whileClosed([&] {
        SQLite::Database database(collection.cataloguePath(), SQLite::OPEN_READWRITE);
        database.exec("DROP TRIGGER broken");
    });
    // The stamp was not taken for read: what the list says now is met.
    CHECK(collection.read().read == 1);
    const auto references = *PlayerStore(collection.catalogue()).references();
    REQUIRE(references.size() == 2);
    CHECK(references[0].path == collection / "V/b.wav");
    CHECK(references[1].state == ReferenceState::broken);
}
