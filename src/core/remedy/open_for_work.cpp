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

Result<OpenedForWork> openForWork(const BytePath& cataloguePath) {
    auto catalogue = Catalogue::openForWriting(cataloguePath);
    if (!catalogue) {
        return catalogue.error();
    }
    auto recovered = recoverInterrupted(*catalogue);
    if (!recovered) {
        return recovered.error();
    }
    if (const auto looked = lookAgain(*catalogue); !looked) {
        return looked.error();
    }
    return OpenedForWork{std::move(*catalogue), std::move(*recovered)};
}

} // namespace sober
