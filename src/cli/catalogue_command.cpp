#include "cli/catalogue_command.h"

#include "cli/answers.h"
#include "core/base/file_handle.h"
#include "core/catalogue/catalogue_copy.h"
#include "core/work/open_for_work.h"

namespace sober::cli {

int runCatalogueSave(const CommonOptions& common, const BytePath& file, RunControl& control) {
    const auto to = fromHere(file);
    const auto catalogue = Catalogue::openForReading(common.catalogue);
    const auto saved = [&] {
        ProgressLine line(common.quiet);
        return catalogue ? saveCatalogue(*catalogue, to, control, std::ref(line))
                         : Outcome(catalogue.error());
    }();
    if (!saved) {
        return saved.error().cause == Cause::interrupted ? exitInterrupted : fail(saved.error());
    }
    const auto stamp = stampAt(to);
    const auto bytes = stamp ? stamp->size : 0;
    if (common.json) {
        printJson(
            {{"schema", "sober.catalogue-saved/1"}, {"path", percentEncodeOffending(to)}, {"bytes", bytes}});
    } else {
        say("The catalogue was saved as {} ({}).\n", displayPath(to), humanBytes(bytes));
    }
    return exitDone;
}

int runCatalogueBringBack(const CommonOptions& common, const BytePath& file, RunControl& control) {
    auto catalogue = Catalogue::openForWriting(common.catalogue);
    const auto brought = [&] {
        ProgressLine line(common.quiet);
        return catalogue ? bringBack(*catalogue, fromHere(file), control, std::ref(line))
                         : Result<BroughtBack>(catalogue.error());
    }();
    if (!brought) {
        return brought.error().cause == Cause::interrupted ? exitInterrupted : fail(brought.error());
    }
    for (const auto& sentence : brought->recovered) {
        sayOn(stderr, "{}\n", sentence);
    }
    if (common.json) {
        printJson(
            {{"schema", "sober.catalogue-brought-back/1"}, {"kept", percentEncodeOffending(brought->kept)}});
    } else {
        say("The catalogue is what {} was. What it was before is kept as {}. Survey the volumes to see what "
            "is there "
            "now.\n",
            displayPath(fromHere(file)), displayPath(brought->kept));
    }
    return exitDone;
}

} // namespace sober::cli
