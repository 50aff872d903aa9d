#pragma once

#include "core/catalogue/catalogue.h"
#include "core/catalogue/records.h"
#include "core/disc/disc_lookup.h"
#include "core/disc/tray.h"

namespace sober {

/// A folder whose recordings are as long as the tracks of a disc, in their order.
struct HeldDisc {
    BytePath folder;               ///< absolute
    std::vector<Holding> holdings; ///< in the order of the tracks
    DiscNames names;               ///< by their tags
    double distance = 0; ///< seconds by which their lengths differ in all, and more for other numbers
};

/// What can be told of a disc before it is read.
struct DiscLook {
    DiscContents contents;
    std::string id;
    std::vector<HeldDisc>
        held; ///< by their lengths, the nearest first; whether they sound like it shows the first track
    std::vector<DiscNames> names; ///< the likeliest first: of what is held, of the lookup, of the disc itself
    std::string problem;          ///< of the lookup, where it did not answer
};

/// Looks at a disc in a tray; without a catalogue nothing is held. A lookup is asked where there is an
/// address: it is told the disc's id and where its tracks begin, and nothing else.
Result<DiscLook> lookAtDisc(const Catalogue* catalogue, const Tray& tray, const std::string& lookup,
                            RunControl& control);

/// What the lookup is asked, and the register.
std::string discQuestion(const DiscContents& contents);

} // namespace sober
