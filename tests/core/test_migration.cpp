#include "core/catalogue/docket_store.h"
#include "core/catalogue/ledger_store.h"
#include "core/catalogue/player_store.h"
#include "core/catalogue/schema.h"
#include "support/run_program.h"
#include "support/temp_folder.h"

#include <catch2/catch.hpp>

using namespace sober;
using namespace sober::test;

TEST_CASE("a catalogue of the version before players keeps its docket and its ledger") {
    const TempFolder folder;
    const BytePath path = folder / "old.sqlite";
    { REQUIRE(Catalogue::openForWriting(folder / "new.sqlite").ok()); }
    // Python's own SQLite makes the old one, from the steps of then.
    constexpr std::size_t stepsThen = 6;
    for (std::size_t i = 0; i < stepsThen; ++i) {
        writeFile(folder / ("step" + std::to_string(i)), schemaSteps()[i]);
    }
    writeFile(folder / "old.py", R"py(
import sqlite3, sys
folder = sys.argv[1]
new = sqlite3.connect(folder + '/new.sqlite')
old = sqlite3.connect(folder + '/old.sqlite')
for i in range(6):
    old.executescript(open(folder + '/step%d' % i).read())
old.executescript('PRAGMA application_id = %d; PRAGMA user_version = 6' %
                  new.execute('PRAGMA application_id').fetchone()[0])
old.execute("INSERT INTO volumes(id, label, root, filesystem, within, root_inode, filesystem_type) "
            "VALUES(1, 'V', x'2f76', '', x'', 1, 'ext4')")
for i in (1, 2):
    old.execute("INSERT INTO holdings(id, volume, path, state, size, mtime, ctime, inode, links, xxh3, troubled, "
                "first_seen) VALUES(?, 1, ?, 0, 5, 1, 1, ?, 1, zeroblob(16), 0, 1)", (i, b'%d.wav' % i, i))
old.execute("INSERT INTO docket(kind, holding, reason, added, change) "
            "VALUES('retire', 1, 'kept instead', 7, x'6162')")
old.execute("INSERT INTO ledger(time, ended, kind, summary) VALUES(5, 6, 'carry-out', '1 action carried out')")
old.execute("INSERT INTO ledger_actions(entry, kind, holding, place, aside, note, size, xxh3, step) "
            "VALUES(1, 'retire', 2, x'2f762f322e776176', x'2f74', x'2f6e', 5, zeroblob(16), 2)")
old.commit()
)py");
    const auto made = run({"python3", folder / "old.py", folder.path()});
    INFO(made.err);
    REQUIRE(made.code == 0);

    const auto opened = Catalogue::openForWriting(path);
    REQUIRE(opened.ok());
    const auto docket = DocketStore(*opened).all();
    REQUIRE(docket.ok());
    REQUIRE(docket->size() == 1);
    CHECK(docket->front().kind == ActionKind::retire);
    CHECK(docket->front().holding == 1);
    CHECK(docket->front().change == "ab");
    CHECK(docket->front().place.empty());
    const auto actions = LedgerStore(*opened).actionsOf(1);
    REQUIRE(actions.ok());
    REQUIRE(actions->size() == 1);
    CHECK(actions->front().holding == 2);
    CHECK(actions->front().place == "/v/2.wav");
    CHECK(actions->front().step == ActionStep::carriedOut);
    CHECK(PlayerStore(*opened).all()->empty());
    CHECK_FALSE(PlayerStore(*opened).passingPlaces()->empty());
}

TEST_CASE("a holding and a place stand on the docket once each, and are taken off by what they are") {
    const TempFolder folder;
    const auto catalogue = Catalogue::openForWriting(folder / "c.sqlite");
    REQUIRE(catalogue.ok());
    const DocketStore store(*catalogue);
    const auto place = [](ActionKind kind, const BytePath& where, const BytePath& target) {
        DocketAction action;
        action.kind = kind;
        action.place = where;
        action.target = target;
        return action;
    };
    REQUIRE(
        store.add(std::vector{place(ActionKind::repoint, "/a", "/b"), place(ActionKind::repoint, "/c", "/d")})
            .ok());
    REQUIRE(store.add(std::vector{place(ActionKind::writeOff, "/a", "")})
                .ok()); // another decision on the same place
    const auto all = store.all();
    REQUIRE(all->size() == 2);
    CHECK((*all)[0].kind == ActionKind::writeOff);
    CHECK((*all)[0].target.empty());
    CHECK((*all)[1].target == "/d");
    CHECK(store.totals()->actions == 2);
    CHECK(store.totals()->frees == 0);
    REQUIRE(store.removePlaces(std::vector<BytePath>{"/c", "/nowhere"}).ok());
    CHECK(store.all()->size() == 1);
    REQUIRE(store.clear().ok());
    CHECK(store.all()->empty());
}
