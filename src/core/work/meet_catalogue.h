#pragma once

#include "core/base/run_control.h"
#include "core/catalogue/catalogue.h"
#include "core/catalogue/other_catalogue.h"

namespace sober {

/// What another catalogue knows of a volume, held against what this one does. Counts are of holdings.
struct VolumeMeeting {
    std::string label; ///< there
    std::string here;  ///< the same volume's label here; "" where it is not known here
    Nanoseconds surveyedThere = 0;
    Nanoseconds surveyedHere = 0;
    std::uint64_t holdings = 0;  ///< present there
    std::uint64_t same = 0;      ///< of those: here at the same place with the same content
    std::uint64_t added = 0;     ///< of those: not known here
    std::uint64_t addedGone = 0; ///< of these: here was looked later; known as missing then
    std::uint64_t changed = 0;   ///< of those: other content; there was looked later
    std::uint64_t moved = 0;     ///< of those: known here at another place; there was looked later
    std::uint64_t older = 0;     ///< of those: other content or place, and here was looked later: that stays
    std::uint64_t earlier = 0;   ///< of the older: not known here then; that content is its baseline
    std::uint64_t gone = 0;      ///< present here, and no longer met there, which was looked later
    std::uint64_t examined = 0;  ///< of the same: examined there and not here

    bool isNewerThere() const { return surveyedThere > surveyedHere; }
};

/// How two catalogues meet: what was seen last wins, and what only the other knows is added.
struct CatalogueMeeting {
    std::vector<VolumeMeeting> volumes;
    NewDecisions decisions;
    std::uint64_t docket = 0;   ///< actions of its docket that wait on this one's too
    std::uint64_t deeds = 0;    ///< entries of its ledger that stand in this one's too
    std::uint64_t excerpts = 0; ///< taken over; 0 in a comparison
    LeftThere left;
    bool interrupted = false; ///< cancelled: what was taken over stays, and again goes on from there
};

/// A sentence for each volume, and what else there is to be said.
std::vector<std::string> meetingWords(const CatalogueMeeting& meeting);

/// Says what `takeInCatalogue` would do. A volume is the same by its file system's UUID; where one of both
/// has none, by being one folder, or by four of five holdings of the catalogue that knows fewer standing at
/// the same place with the same content. Cause::invalid where it is this catalogue itself.
Result<CatalogueMeeting> compareCatalogue(const Catalogue& catalogue, const BytePath& other,
                                          RunControl& control);

/// Takes what another catalogue (of another machine, or one that was carried along) knows into this one. The
/// other is only read. Volumes, holdings with all that was measured, baselines of what has drifted,
/// verifications, excerpts, acceptances, standing lists, policies and players with lists on volumes are taken
/// over, and what waits on its docket and was done by it. Findings are brought up to date.
Result<CatalogueMeeting> takeInCatalogue(Catalogue& catalogue, const BytePath& other, RunControl& control,
                                         const ProgressSink& onProgress);

} // namespace sober
