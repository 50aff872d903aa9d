#pragma once

#include "core/remedy/journal/taking_back.h"
#include "core/work/carry_out.h"
#include "core/work/open_for_work.h"
#include "support/collection.h"
#include "support/run_program.h"

#include <csignal>

namespace sober::test {

inline void undoEverything(Collection& collection) {
    RunControl control;
    while (*lastUndoable(collection.catalogue())) {
        const auto undone =
            undoEntry(collection.catalogue(), **lastUndoable(collection.catalogue()), control, {});
        REQUIRE(undone.ok());
        INFO((undone->refused.empty() ? std::string() : undone->refused.front().sentence));
        REQUIRE(undone->refused.empty());
    }
}

/// Kills the work after each instant in turn; `after` is what a user does next. `Prepared` is a Collection
/// that can check that nothing is lost. Yields how many instants there were.
template <typename Prepared, typename Before, typename After>
int killAtEveryInstant(const std::string& work, Before before, After after) {
    Prepared collection;
    collection.keep();
    for (int step = 1;; ++step) {
        collection.putBack();
        CAPTURE(work, step);
        bool ended = false;
        collection.whileClosed([&] {
            before(collection);
            const auto killed = run({CRASH_HELPER, collection.cataloguePath(), work, std::to_string(step)});
            ended = killed.code == 0;
            CHECK((ended || killed.code == -SIGKILL));
            // What only asks changes nothing; the next start of the program puts things in order.
            CHECK(sober(collection.cataloguePath(), {"condition"}).code == 0);
            const auto opened = openForWork(collection.cataloguePath());
            REQUIRE(opened.ok());
            INFO((opened->waiting.empty() ? std::string() : opened->waiting.front()));
            CHECK(opened->waiting.empty());
        });
        collection.checkWhole();
        after(collection);
        collection.checkWhole();
        if (ended) {
            return step - 1;
        }
    }
}

} // namespace sober::test
