#pragma once

#include "core/base/run_control.h"
#include "core/catalogue/findings.h"
#include "core/catalogue/inbox_store.h"
#include "core/evidence/verdict.h"
#include "core/intake/tag_proposals.h"

namespace sober {

/// Which of an arrival and what is held of its recording is the better one.
enum class Better {
    arrival,
    held,
    equal,  ///< the same sound, to the sample
    unsure, ///< the evidence does not say: another master, a part
};
std::string_view word(Better better);

/// A holding of an arrival's recording, outside of all inboxes.
struct HeldOfIt {
    HoldingId holding = 0;
    BytePath path; ///< absolute
    bool atHand = false;
    Sameness sameness = Sameness::bytes;
    Better better = Better::unsure;
    std::string why;              ///< of `better`, in words
    std::optional<double> cutoff; ///< Hz, where its bandwidth ends, if that was measured
};

enum class IntakeAdvice {
    takeIn,  ///< nothing of it is held
    replace, ///< it is better than all that is held
    retire,  ///< what is held is as good or better
    leave,   ///< it is not for the program to say
};
std::string_view word(IntakeAdvice advice);

/// A file that landed in an inbox.
struct Arrival {
    Holding holding;
    BytePath path; ///< absolute
    Inbox inbox;
    std::optional<VerdictClass> verdict; ///< nothing: it was not examined
    std::optional<bool> sound;
    std::optional<double> cutoff; ///< Hz, where its bandwidth ends
    std::vector<HeldOfIt> held;   ///< the strongest sameness first
    IntakeAdvice advice = IntakeAdvice::leave;
    bool isArriving = false;          ///< it was changed a moment ago, and is left until it rests
    std::vector<std::string> reasons; ///< sentences, the weightiest first
    BytePath target;                  ///< absolute: where it would be filed
    std::vector<TagProposal> proposals;
};

/// What lies in the inboxes as surveyed, the newest first, judged by evidence alone. A file that was changed
/// less than some seconds ago is still arriving and left; so are all but the best of several that carry one
/// recording. `layout` stands in for that of every inbox; "" leaves them.
Result<std::vector<Arrival>> lookAtArrivals(const Catalogue& catalogue, RunControl& control,
                                            const std::string& layout = {});

} // namespace sober
