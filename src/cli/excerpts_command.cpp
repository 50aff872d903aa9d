#include "cli/excerpts_command.h"

#include "cli/answers.h"
#include "core/catalogue/excerpt_store.h"
#include "core/catalogue/holdings.h"
#include "core/catalogue/volumes.h"
#include "core/remedy/write_report.h"

#include <algorithm>

namespace sober::cli {
namespace {

Result<Excerpt> excerptAt(const Catalogue& catalogue, const BytePath& path) {
    const auto volumes = Volumes(catalogue).all();
    RETURN_IF_FAILED(volumes);
    const auto volume = std::ranges::find_if( // volumes never lie within each other
        *volumes, [&](const Volume& each) { return isWithin(path, each.root); });
    if (volume == volumes->end()) {
        return Error{Cause::notFound, path, displayPath(path) + " is on no volume that is catalogued."};
    }
    const auto holding = Holdings(catalogue).at(volume->id, *relativeTo(path, volume->root));
    RETURN_IF_FAILED(holding);
    if (!*holding) {
        return Error{Cause::notFound, path, displayPath(path) + " is not catalogued."};
    }
    const auto kept = ExcerptStore(catalogue).of((*holding)->id);
    RETURN_IF_FAILED(kept);
    if (!*kept || (*kept)->sound.empty()) {
        return Error{Cause::notFound, path,
                     "No excerpt of " + displayPath(path) +
                         " is kept. Survey its volume with --effort full --keep-excerpts."};
    }
    return **kept;
}

} // namespace

int runExcerpts(const CommonOptions& common) {
    const auto catalogue = openLooking(common);
    const auto figures =
        catalogue ? ExcerptStore(*catalogue).figures() : Result<ExcerptFigures>(catalogue.error());
    if (!figures) {
        return fail(figures.error());
    }
    if (common.json) {
        printJson({{"schema", "sober.excerpts/1"},
                   {"kept", figures->kept},
                   {"bytes", figures->bytes},
                   {"examined_without", figures->without},
                   {"bytes_for_those", figures->without * Excerpt::usualBytes}});
        return exitDone;
    }
    say("{} kept, {} in {}.\n", counted(figures->kept, "excerpt is", "excerpts are"),
        humanBytes(figures->bytes), displayPath(excerptsPath(catalogue->path())));
    if (figures->without > 0) {
        say("{} without one: about {} more with --keep-excerpts.\n",
            counted(figures->without, "examined holding is", "examined holdings are"),
            humanBytes(figures->without * Excerpt::usualBytes));
    }
    return exitDone;
}

int runExcerptsTake(const CommonOptions& common, const BytePath& of, const BytePath& to) {
    const auto catalogue = openLooking(common);
    const auto excerpt = catalogue ? excerptAt(*catalogue, fromHere(of)) : Result<Excerpt>(catalogue.error());
    const auto written = excerpt ? writeReportTo(fromHere(to), excerpt->sound) : Outcome(excerpt.error());
    if (!written) {
        return fail(written.error());
    }
    if (common.json) {
        printJson({{"schema", "sober.excerpt/1"},
                   {"path", percentEncodeOffending(fromHere(to))},
                   {"begins", excerpt->begins},
                   {"seconds", excerpt->seconds},
                   {"of", excerpt->whole}});
    } else {
        say("{} from {} on, of {}, written to {}.\n", humanSeconds(excerpt->seconds),
            humanSeconds(excerpt->begins), humanSeconds(excerpt->whole), displayPath(to));
    }
    return exitDone;
}

} // namespace sober::cli
