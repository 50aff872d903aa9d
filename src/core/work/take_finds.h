#pragma once

#include "core/catalogue/salvage_store.h"
#include "core/remedy/journal/carried_out.h"
#include "core/remedy/journal/hooks.h"

namespace sober {

/// Nothing is ever written over: what has a name that is taken gets another, or is left, or is asked about.
enum class OnConflict {
    otherName,
    skip,
    ask, ///< left as well, and marked
};

struct TakeRequest {
    std::vector<FindId> finds;
    /// To the places of the missing holdings that they are, or, out of a trash, where they were; else into
    /// `to`.
    bool home = false;
    BytePath to = {};        ///< absolute
    std::string layout = ""; ///< "": by what is known of each
    OnConflict onConflict = OnConflict::otherName;
};

/// One find and the place that it would get.
struct PlannedTake {
    FindId find = 0;
    BytePath place;       ///< absolute; "" where it is left
    std::string why;      ///< it is left
    bool isAsked = false; ///< because its name is taken, and somebody is to decide
};

/// Folders and names by what is known of each find.
inline constexpr const char* usualLayout = "albumartist|artist / album / track.2 \" \" title|name";

/// Plans where each comes to stand, and puts that on the docket. What is not whole is kept apart
/// ("Incomplete") and says so in its name. A folder that is on no volume becomes one. Nothing is taken out of
/// the image's own drive onto itself.
Result<std::vector<PlannedTake>> planTake(Catalogue& catalogue, const TakeRequest& request,
                                          RunControl& control);

struct TakenFinds {
    CarriedOut carried;
    std::vector<std::pair<FindId, BytePath>> taken; ///< where they stand now
};

/// Carries out what was planned of these on the docket. What has come out of a trash and is proven in its
/// place leaves the trash, and its note with it.
Result<TakenFinds> takeFinds(Catalogue& catalogue, std::span<const PlannedTake> planned, RunControl& control,
                             const CarryOutHooks& hooks);

} // namespace sober
