#pragma once

#include "core/work/meet_catalogue.h"

#include <map>
#include <set>

namespace sober {

/// One thing to be done so that a volume is known here as it is there.
struct MeetingStep {
    enum class What {
        add,     ///< it was never known here; in the state that `state` says
        rewrite, ///< its content is another one by now
        move,
        state,
        examine, ///< it was measured there
        earlier, ///< it had other content there before it was first seen here
    };
    What what = What::add;
    const KnownHolding* there = nullptr;
    const KnownHolding* here = nullptr;
    HoldingState state = HoldingState::present;
};

/// What both know of a volume, side by side. Volumes and holdings that are given have to outlive it.
class VolumeComparison {
  public:
    /// `here` is nothing where the volume is not known here.
    VolumeComparison(const Volume& there, const std::vector<KnownHolding>& theirs,
                     std::vector<BytePath> unreadThere, const Volume* here,
                     const std::vector<KnownHolding>& ours);

    const VolumeMeeting& meeting() const { return meeting_; }
    const std::vector<MeetingStep>& steps() const { return steps_; }
    /// Those of equal content, there and here.
    const std::vector<std::pair<HoldingId, HoldingId>>& same() const { return same_; }
    /// Those at one place, of other content by now.
    const std::vector<std::pair<HoldingId, HoldingId>>& others() const { return others_; }

  private:
    static bool isLive(const KnownHolding& each) { return each.state < HoldingState::retired; }
    /// Whether a holding was seen there later, or done something to, than here; `here` may be nothing.
    bool isNewer(const KnownHolding& there, const KnownHolding* here) const;
    void meet(const KnownHolding& there);
    void meetUnknown(const KnownHolding& there, bool isPresent);
    /// What a survey there would have met.
    void meetGone();
    bool couldNotBeSeen(const BytePath& path) const;

    const Volume& there_;
    const std::vector<KnownHolding>& theirs_;
    std::vector<BytePath> unreadThere_;
    const std::vector<KnownHolding>& ours_;
    VolumeMeeting meeting_;
    std::vector<MeetingStep> steps_;
    std::vector<std::pair<HoldingId, HoldingId>> same_;
    std::vector<std::pair<HoldingId, HoldingId>> others_;
    std::map<std::string_view, const KnownHolding*> theirPlaces_;
    std::map<std::string_view, const KnownHolding*> ourPlaces_;
    std::map<std::string_view, const KnownHolding*> retiredThere_;
    std::map<std::string_view, const KnownHolding*> retiredHere_;
    std::multimap<Checksum128, const KnownHolding*> elsewhereHere_; ///< at places that are unknown there
    std::set<HoldingId> moved_;
};

} // namespace sober
