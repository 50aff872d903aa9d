#include "core/evidence/worker/inside_reader.h"

#include "core/base/inner_path.h"
#include "core/base/text.h"
#include "core/evidence/worker/caged_archive.h"
#include "core/evidence/worker/caged_image.h"

#include <fmt/format.h>

namespace sober {

Result<std::unique_ptr<InsideReader>> openInside(const BytePath& path) {
    return isImageName(path) ? CagedImage::open(path) : CagedArchive::open(path);
}

Result<FileHandle> openContent(const BytePath& path) {
    RunControl control;
    return openContent(path, control);
}

Result<FileHandle> openContent(const BytePath& path, RunControl& control) {
    const auto inner = innerPathOf(path);
    if (!inner || isTaken(path)) { // a folder may be called like the inside of an archive
        return openForReading(path);
    }
    const auto opened = openInside(inner->archive);
    RETURN_IF_FAILED(opened);
    while (control.proceed()) {
        const auto file = (*opened)->next();
        RETURN_IF_FAILED(file);
        if (!*file) {
            return Error{Cause::notFound, path,
                         fmt::format("{} holds no {} any more.", displayPath(inner->archive),
                                     displayPath(inner->inside))};
        }
        if ((*file)->path == inner->inside) {
            return (*opened)->unpack(control);
        }
    }
    return Error{Cause::interrupted, path, "Stopped while " + displayPath(path) + " was looked for."};
}

} // namespace sober
