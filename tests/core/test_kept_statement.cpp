#include "core/catalogue/guarded.h"
#include "core/catalogue/holdings.h"
#include "core/catalogue/kept_statement.h"
#include "core/catalogue/volumes.h"
#include "support/temp_folder.h"

#include <catch2/catch.hpp>

using namespace sober;
using namespace sober::test;

namespace {

struct Numbers {
    TempFolder folder;
    Result<Catalogue> opened = Catalogue::openForWriting(folder / "c.sqlite");
    Catalogue catalogue = std::move(*opened);

    Numbers() {
        catalogue.database().exec("CREATE TABLE numbers(value INTEGER UNIQUE)");
        catalogue.database().exec("INSERT INTO numbers VALUES(1), (2), (3)");
    }
    int answer(int least) const {
        const KeptStatement ask(catalogue, "SELECT count(*) FROM numbers WHERE value >= ?");
        ask->bind(1, least);
        ask->executeStep();
        return ask->getColumn(0).getInt();
    }
};

} // namespace

TEST_CASE("a question that is kept is answered anew each time, with nothing left of the last asker") {
    const Numbers numbers;
    CHECK(numbers.answer(2) == 2);
    CHECK(numbers.answer(3) == 1);
    numbers.catalogue.database().exec("INSERT INTO numbers VALUES(4)");
    CHECK(numbers.answer(3) == 2);
    {
        const KeptStatement ask(numbers.catalogue, "SELECT count(*) FROM numbers WHERE value >= ?");
        ask->executeStep(); // nothing is bound: NULL, and no value is as large as that
        CHECK(ask->getColumn(0).getInt() == 0);
    }
    CHECK(numbers.catalogue.keptStatements().size() == 1);
}

TEST_CASE("two that ask the same at once have a statement each") {
    const Numbers numbers;
    const std::string sql = "SELECT value FROM numbers ORDER BY value";
    const KeptStatement outer(numbers.catalogue, sql);
    std::vector<std::pair<int, int>> pairs;
    while (outer->executeStep()) {
        const KeptStatement inner(numbers.catalogue, sql);
        while (inner->executeStep()) {
            pairs.emplace_back(outer->getColumn(0).getInt(), inner->getColumn(0).getInt());
        }
    }
    CHECK(pairs.size() == 9);
    CHECK(pairs.front() == std::pair(1, 1));
    CHECK(pairs.back() == std::pair(3, 3));
}

TEST_CASE("a statement that failed works for the next, and one left in the middle holds nothing up") {
    Numbers numbers;
    const auto insert = [&](int value) {
        return guarded(numbers.catalogue, [&] {
            const KeptStatement write(numbers.catalogue, "INSERT INTO numbers VALUES(?)");
            write->bind(1, value);
            write->exec();
        });
    };
    CHECK_FALSE(insert(1).ok()); // it is there already
    CHECK(insert(5).ok());
    CHECK_FALSE(insert(5).ok());
    CHECK(numbers.answer(5) == 1);
    {
        const KeptStatement ask(numbers.catalogue, "SELECT value FROM numbers");
        ask->executeStep(); // and no further
    }
    // Whoever reads may not keep the log from being written back.
    CHECK(numbers.catalogue.database().execAndGet("PRAGMA wal_checkpoint(TRUNCATE)").getInt() == 0);
    numbers.catalogue.database().exec("DROP TABLE numbers");
    CHECK(guarded(numbers.catalogue, [&] { numbers.answer(1); }).ok() == false);
}

TEST_CASE(
    "a catalogue that is moved takes its questions along, and one that is replaced ends its own first") {
    Numbers numbers;
    CHECK(numbers.answer(1) == 3);
    Numbers others;
    others.catalogue.database().exec("INSERT INTO numbers VALUES(9)");
    CHECK(others.answer(1) == 4);
    numbers.catalogue = std::move(others.catalogue);
    CHECK(numbers.answer(1) == 4);
    CHECK(numbers.catalogue.path() == others.folder / "c.sqlite");
    const Catalogue moved = std::move(numbers.catalogue);
    CHECK(Volumes(moved).all()->empty());
    CHECK(Volumes(moved).all()->empty());
    CHECK(Holdings(moved).byIds(std::vector<HoldingId>{1, 2})->empty());
}
