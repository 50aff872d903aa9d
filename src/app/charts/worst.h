#pragma once

#include "app/theme/marks.h"
#include "core/catalogue/findings.h"

namespace sober::app {

/// The worst that is known of a folder, or of a volume.
enum class Worst {
    sound,
    copies,
    claims,
    missing,
    unreadable,
};

/// Of anything that counts its troubles as folders and volumes do.
template <typename Figures>
Worst worstOf(const Figures& figures) {
    return figures.troubled > 0  ? Worst::unreadable
           : figures.missing > 0 ? Worst::missing
           : figures.claims > 0  ? Worst::claims
           : figures.inSets > 0  ? Worst::copies
                                 : Worst::sound;
}

Mark markOf(Worst worst);

/// Its state's ink thinned onto the sheet.
QColor fillOf(Worst worst);

} // namespace sober::app
