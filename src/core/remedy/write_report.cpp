#include "core/remedy/write_report.h"

#include "core/remedy/changes/file_changes.h"

namespace sober {

Outcome writeReport(const BytePath& folder, std::span<const std::pair<std::string, std::string>> files) {
    Unflushed unflushed;
    if (const auto made = makeFolder(folder, 0700, unflushed); !made) {
        return made;
    }
    for (const auto& [name, text] : files) {
        const auto place = joinPath(folder, name);
        const auto made = place + ".new";
        auto outcome = removeFile(made, unflushed);
        outcome = outcome ? writeNewFile(made, text, unflushed) : outcome;
        outcome = outcome ? flushFile(made) : outcome;
        outcome = outcome ? replaceEntry(made, place, unflushed) : outcome;
        if (!outcome) {
            return outcome;
        }
    }
    unflushed.flush();
    return done();
}

Outcome writeReportTo(const BytePath& path, std::string_view text) {
    Unflushed unflushed;
    if (const auto written = writeNewFile(path, text, unflushed); !written) {
        return written;
    }
    if (const auto flushed = flushFile(path); !flushed) {
        const auto removed = removeFile(path, unflushed);
        return removed ? flushed
                       : Outcome(Error{flushed.error().cause, path,
                                       flushed.error().sentence + " What was written of it is still there."});
    }
    unflushed.flush();
    return done();
}

} // namespace sober
