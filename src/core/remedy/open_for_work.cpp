#include "core/remedy/open_for_work.h"

#include "core/audit/refresh_findings.h"
#include "core/catalogue/findings.h"
#include "core/remedy/undo.h"
#include "core/survey/volume_identity.h"

namespace sober {

Result<bool> lookAgain(const Catalogue& catalogue) {
    const auto changed = lookForVolumes(catalogue);
    if (!changed) {
        return changed;
    }
    if (*changed) {
        if (const auto marked = Findings(catalogue).markStale(); !marked) {
            return marked.error();
        }
    }
    if (const auto refreshed = refreshFindings(catalogue); !refreshed) {
        return refreshed.error();
    }
    return changed;
}

Result<OpenedForWork> openAndRecover(const BytePath& cataloguePath) {
    auto catalogue = Catalogue::openForWriting(cataloguePath);
    if (!catalogue) {
        return catalogue.error();
    }
    auto recovered = recoverInterrupted(*catalogue);
    if (!recovered) {
        return recovered.error();
    }
    return OpenedForWork{std::move(*catalogue), std::move(*recovered)};
}

Result<OpenedForWork> openForWork(const BytePath& cataloguePath) {
    auto opened = openAndRecover(cataloguePath);
    if (!opened) {
        return opened;
    }
    if (const auto looked = lookAgain(opened->catalogue); !looked) {
        return looked.error();
    }
    return opened;
}

} // namespace sober
