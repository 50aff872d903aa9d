#include "core/remedy/journal/taking_back.h"
#include "core/work/carry_out.h"
#include "core/work/open_for_work.h"

#include <csignal>
#include <cstdlib>
#include <string_view>

/// crash-helper CATALOGUE carry-out|undo STEP: does the real work in a process of its own and is
/// killed, without any chance to clean up, right after the STEP-th instant. Exits with 0 where the
/// work ended before that.
int main(int argc, char** argv) {
    if (argc != 4) {
        return 2;
    }
    auto opened = sober::openForWork(argv[1]);
    if (!opened) {
        return 3;
    }
    int left = std::atoi(argv[3]);
    sober::RunControl control;
    sober::CarryOutHooks hooks;
    hooks.onInstant = [&](sober::Instant) {
        if (--left == 0) {
            raise(SIGKILL);
        }
    };
    if (std::string_view(argv[2]) == "undo") {
        const auto last = sober::lastUndoable(opened->catalogue);
        return last && *last && sober::undoEntry(opened->catalogue, **last, control, hooks) ? 0 : 4;
    }
    return sober::carryOut(opened->catalogue, control, hooks) ? 0 : 4;
}
