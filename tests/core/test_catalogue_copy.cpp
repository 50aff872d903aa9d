#include "core/base/difference.h"
#include "core/catalogue/catalogue_copy.h"
#include "core/catalogue/ledger_store.h"
#include "support/collection.h"
#include "support/mounts.h"
#include "support/run_program.h"
#include "support/small_audio.h"

#include <catch2/catch.hpp>

#include <filesystem>

using namespace sober;
using namespace sober::test;
namespace fs = std::filesystem;

namespace {

const ProgressSink quiet = [](const Progress&) {};

std::uint64_t holdingsIn(const BytePath& path) {
    const auto catalogue = Catalogue::openForReading(path);
    REQUIRE(catalogue.ok());
    std::uint64_t count = 0;
    REQUIRE(Holdings(*catalogue).eachPresent([&](PresentHolding&&) { ++count; }).ok());
    return count;
}

} // namespace

TEST_CASE("a catalogue is saved while it is in use, and brought back with what it was kept beside it") {
    Collection all;
    RunControl control;
    writeFile(all / "V/a.wav", smallWav(1));
    all.survey("V");
    REQUIRE(saveCatalogue(all.catalogue(), all / "saved.sqlite", control, quiet).ok());
    CHECK(holdingsIn(all / "saved.sqlite") == 1);
    // Whole in itself: no log beside it, and the sqlite3 tool's own check finds nothing.
    CHECK_FALSE(fs::exists(all / "saved.sqlite-wal"));
    CHECK(run({"python3", "-c",
               "import sqlite3, sys; print(sqlite3.connect(sys.argv[1]).execute('PRAGMA "
               "integrity_check').fetchone()[0])",
               all / "saved.sqlite"})
              .out == "ok\n");
    CHECK(saveCatalogue(all.catalogue(), all / "saved.sqlite", control, quiet).error().cause ==
          Cause::alreadyThere);

    writeFile(all / "V/b.wav", smallWav(2));
    all.survey("V");
    const auto kept = bringCatalogueBack(all.catalogue(), all / "saved.sqlite", control, quiet);
    REQUIRE(kept.ok());
    CHECK(holdingsIn(all.cataloguePath()) == 1);
    CHECK(holdingsIn(*kept) == 2);
    // It is worked with as before.
    CHECK(all.survey("V").added == 1);
    CHECK(*bringCatalogueBack(all.catalogue(), all / "saved.sqlite", control, quiet) != *kept);
}

TEST_CASE("what is no whole catalogue of ours is not brought back, and a stopped saving leaves nothing") {
    Collection all;
    RunControl control;
    writeFile(all / "V/a.wav", smallWav(1));
    all.survey("V");
    REQUIRE(saveCatalogue(all.catalogue(), all / "saved.sqlite", control, quiet).ok());
    auto damaged = readFile(all / "saved.sqlite");
    damaged.replace(damaged.size() / 2, 8192, std::string(8192, '\x55'));
    writeFile(all / "damaged.sqlite", damaged);
    writeFile(all / "text.sqlite", "no database at all");
    run({"python3", "-c", "import sqlite3, sys; sqlite3.connect(sys.argv[1]).execute('CREATE TABLE x(a)')",
         all / "other.sqlite"});
    for (const auto* name :
         {"damaged.sqlite", "text.sqlite", "other.sqlite", "nowhere.sqlite", "catalogue.sqlite"}) {
        CAPTURE(name);
        CHECK_FALSE(bringCatalogueBack(all.catalogue(), all / name, control, quiet).ok());
        CHECK(holdingsIn(all.cataloguePath()) == 1);
    }
    RunControl cancelled;
    cancelled.cancel();
    CHECK(saveCatalogue(all.catalogue(), all / "more.sqlite", cancelled, quiet).error().cause ==
          Cause::interrupted);
    CHECK(saveCatalogue(all.catalogue(), all / "no folder/c.sqlite", control, quiet).error().cause !=
          Cause::interrupted);
    for (const auto& entry : fs::directory_iterator(all / ".")) {
        CHECK(entry.path().string().find("more") == std::string::npos);
        CHECK(entry.path().string().find(".part") == std::string::npos);
    }
}

TEST_CASE("a catalogue is saved onto a card with the rules of exFAT, and not at all where there is no room") {
    if (!canMount() || run({"sh", "-c", "test -c /dev/fuse && command -v mount.exfat-fuse"}).code != 0) {
        WARN("not run: nothing can be mounted here");
        return;
    }
    Collection all;
    RunControl control;
    writeFile(all / "V/a.wav", smallWav(1));
    all.survey("V");
    TestMounts mounts;
    mounts.mount({"-t", "tmpfs", "-o", "size=64k", "none", all / "full"});
    const auto full = saveCatalogue(all.catalogue(), all / "full/c.sqlite", control, quiet);
    REQUIRE_FALSE(full.ok());
    CHECK(full.error().sentence.find("could not be saved") != std::string::npos);
    CHECK(fs::is_empty(std::string(all / "full")));

    REQUIRE(run({"truncate", "-s", "8M", all / "image"}).code == 0);
    REQUIRE(run({"mkfs.exfat", all / "image"}).code == 0);
    mounts.mount({"-t", "exfat-fuse", mounts.loop(all / "image"), all / "card"});
    const auto saved = saveCatalogue(all.catalogue(), all / "card/c.sqlite", control, quiet);
    INFO((saved ? std::string() : saved.error().sentence));
    REQUIRE(saved.ok());
    CHECK(holdingsIn(all / "card/c.sqlite") == 1);
    CHECK(bringCatalogueBack(all.catalogue(), all / "card/c.sqlite", control, quiet).ok());
}

TEST_CASE("what stands beside the place of a saved catalogue is left alone") {
    Collection all;
    RunControl control;
    writeFile(all / "saved.sqlite.part", "somebody's");
    REQUIRE(saveCatalogue(all.catalogue(), all / "saved.sqlite", control, quiet).ok());
    CHECK(readFile(all / "saved.sqlite.part") == "somebody's");
    // The catalogue itself, by another name, is nothing to bring back.
    fs::create_symlink(all.cataloguePath(), all / "by another name.sqlite");
    CHECK(bringCatalogueBack(all.catalogue(), all / "by another name.sqlite", control, quiet).error().cause ==
          Cause::invalid);
}

TEST_CASE("an older catalogue is kept as it was before it is brought up to date") {
    Collection all;
    RunControl control;
    all.whileClosed([&] {
        // The last steps undone by hand.
        CHECK(
            run({"python3", "-c",
                 "import sqlite3, sys\nold = sqlite3.connect(sys.argv[1])\nold.executescript('''ALTER TABLE "
                 "salvage_sources DROP COLUMN passed_over; ALTER TABLE ledger DROP COLUMN origin; INSERT "
                 "INTO ledger(time, kind, summary) VALUES(1, "
                 "\"carry-out\", \"1 action carried out, with the catalogue /media/stick/c.sqlite\"); "
                 "PRAGMA user_version = 21;''')",
                 all.cataloguePath()})
                .code == 0);
        writeFile(all.cataloguePath() + ".before-20", "of an earlier time");
    });
    CHECK(fs::exists(all.cataloguePath() + ".before-21"));
    CHECK_FALSE(fs::exists(all.cataloguePath() + ".before-20"));
    const auto entry = LedgerStore(all.catalogue()).entryAt(1, "carry-out");
    REQUIRE((entry && *entry));
    const auto moved = LedgerStore(all.catalogue()).entry(**entry);
    CHECK((*moved)->summary == "1 action carried out");
    CHECK((*moved)->origin == "/media/stick/c.sqlite");
    // It can be brought back too, and is brought up to date again.
    CHECK(bringCatalogueBack(all.catalogue(), all.cataloguePath() + ".before-21", control, quiet).ok());
    CHECK(Volumes(all.catalogue()).all().ok());
}

TEST_CASE("a text is had back from what differs, and only with the text that it differs from") {
    std::string before;
    for (int line = 0; line < 200'000; ++line) {
        before += "/srv/music/album " + std::to_string(line * 7919 % 200'000) + "/track.flac\n";
    }
    auto after = before;
    for (std::size_t at = 1000; at < after.size(); at += after.size() / 256) {
        after.replace(at, 5, "other");
    }
    const auto difference = differenceFrom(before, after);
    REQUIRE(difference);
    CHECK(difference->size() < after.size() / 100);
    CHECK(withDifference(before, *difference) == after);
    CHECK_FALSE(withDifference("another text", *difference));
    CHECK_FALSE(withDifference(before, "no difference"));
    CHECK(withDifference("", *differenceFrom("", "")) == "");
}

TEST_CASE("a list that is changed often is kept whole once, and had back as it was each time") {
    Collection all;
    const LedgerStore ledger(all.catalogue());
    const auto entry = ledger.open("carry-out", "", std::nullopt);
    REQUIRE(entry.ok());
    std::string content;
    for (int line = 0; line < 50'000; ++line) {
        content += "/srv/music/" + std::to_string(line * 104'729 % 1'000'003) + ".flac\n";
    }
    std::vector<std::pair<LedgerAction, std::string>> kept;
    const auto sizeBefore = fs::file_size(all.cataloguePath());
    for (int change = 0; change < 20; ++change) {
        content.replace(static_cast<std::size_t>(change) * 1000, 4, "/new");
        LedgerAction action;
        action.entry = *entry;
        action.kind = ActionKind::repoint;
        action.place = all / "list.m3u8";
        auto started = ledger.startWithList(action, content);
        REQUIRE(started.ok());
        kept.emplace_back(*started, content);
    }
    for (const auto& [action, was] : kept) {
        CHECK(*ledger.listBefore(action) == was);
    }
    all.whileClosed([] {});
    CHECK(fs::file_size(all.cataloguePath()) - sizeBefore < content.size() * 2);
}
