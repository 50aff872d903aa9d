#include "core/work/meet_catalogue.h"

#include "core/base/text.h"
#include "core/catalogue/excerpt_store.h"
#include "core/catalogue/holding_writer.h"
#include "core/catalogue/other_docket.h"
#include "core/catalogue/volumes.h"
#include "core/survey/volume_identity.h"
#include "core/work/take_in_survey.h"
#include "core/work/take_ledger.h"
#include "core/work/volume_comparison.h"

#include <fmt/format.h>

#include <algorithm>
#include <map>
#include <set>
#include <tuple>

namespace sober {
namespace {

/// A volume of both, or of the other alone.
struct Pair {
    Volume there;
    std::optional<Volume> here;
    std::vector<KnownHolding> theirs;
    std::vector<KnownHolding> ours;
};

bool standAlike(const std::vector<KnownHolding>& theirs, const std::vector<KnownHolding>& ours) {
    std::map<std::string_view, const KnownHolding*> places;
    for (const auto& each : ours) {
        if (each.state == HoldingState::present) {
            places.emplace(each.path, &each);
        }
    }
    std::size_t present = 0;
    std::size_t alike = 0;
    for (const auto& each : theirs) {
        if (each.state == HoldingState::present) {
            ++present;
            const auto found = places.find(each.path);
            alike += found != places.end() && found->second->content == each.content ? 1 : 0;
        }
    }
    const auto fewer = std::min(present, places.size());
    return fewer > 0 && alike * 5 >= fewer * 4; // as volumes are recognised without a UUID
}

/// Walks through the volumes of the other catalogue, one after the other.
class Meeting {
  public:
    Meeting(const Catalogue& ours, const Catalogue& theirs, RunControl& control)
        : ours_(ours), theirs_(theirs), control_(control) {}

    Outcome each(const std::function<Outcome(Pair&)>& visit) {
        const auto theirVolumes = Volumes(theirs_).all();
        auto ourVolumes = Volumes(ours_).all();
        if (!theirVolumes || !ourVolumes) {
            return theirVolumes ? ourVolumes.error() : theirVolumes.error();
        }
        for (const auto& there : *theirVolumes) {
            if (!control_.proceed()) {
                return done();
            }
            Pair pair{there, {}, {}, {}};
            auto known = knownOn(theirs_, there.id);
            RETURN_IF_FAILED(known);
            pair.theirs = std::move(*known);
            if (const auto found = findHere(pair, *ourVolumes); !found) {
                return found;
            }
            if (const auto visited = visit(pair); !visited) {
                return visited;
            }
        }
        return done();
    }

  private:
    Outcome findHere(Pair& pair, std::vector<Volume>& ourVolumes) const {
        for (auto here = ourVolumes.begin(); here != ourVolumes.end(); ++here) {
            const auto& one = here->identity;
            const auto& other = pair.there.identity;
            const bool isTold = !one.filesystem.empty() && !other.filesystem.empty();
            if (isTold && (one.filesystem != other.filesystem || one.within != other.within)) {
                continue;
            }
            auto known = knownOn(ours_, here->id);
            RETURN_IF_FAILED(known);
            // The top of a file system has the same number on all of a kind.
            const bool isOneFolder = here->root == pair.there.root && one.rootInode == other.rootInode &&
                                     one.filesystemType == other.filesystemType && !one.within.empty() &&
                                     one.within == other.within && hasLastingInodes(one.filesystemType);
            const bool isBegun = known->empty() && here->surveyedAt == 0 && here->root == pair.there.root;
            if (isTold || isOneFolder || isBegun || standAlike(pair.theirs, *known)) {
                pair.here = std::move(*here);
                pair.ours = std::move(*known);
                ourVolumes.erase(here); // no volume is two
                break;
            }
        }
        return done();
    }

    const Catalogue& ours_;
    const Catalogue& theirs_;
    RunControl& control_;
};

Result<Catalogue> openOther(const Catalogue& ours, const BytePath& other) {
    const auto one = realPathOf(ours.path());
    const auto two = realPathOf(other);
    if (one && two && *one == *two) {
        return Error{Cause::invalid, other, displayPath(other) + " is this catalogue itself."};
    }
    return Catalogue::openForReading(other);
}

Result<VolumeComparison> comparisonOf(const Pair& pair, const Catalogue& theirs) {
    auto unread = unreadOn(theirs, pair.there.id);
    return unread ? Result(VolumeComparison(pair.there, pair.theirs, std::move(*unread),
                                            pair.here ? &*pair.here : nullptr, pair.ours))
                  : Result<VolumeComparison>(unread.error());
}

Outcome addFigures(CatalogueMeeting& meeting, const Catalogue& theirs, const Catalogue& ours) {
    const auto decisions = newDecisions(theirs, ours);
    const auto lists = listsOnNoVolume(theirs);
    if (!decisions || !lists) {
        return decisions ? lists.error() : decisions.error();
    }
    meeting.decisions = *decisions;
    meeting.left.lists = *lists;
    return done();
}

/// Which counterparts there would be once it is taken in.
void foresee(Counterparts& counterparts, const Pair& pair, const VolumeComparison& comparison) {
    if (pair.here) {
        counterparts.volumes[pair.there.id] = pair.here->id;
    }
    counterparts.holdings.insert(comparison.same().begin(), comparison.same().end());
    for (const auto& step : comparison.steps()) {
        if (step.what == MeetingStep::What::add) {
            counterparts.holdings[step.there->id] = 0;
        }
    }
}

void noteDocket(CatalogueMeeting& meeting, const OtherDocket& docket) {
    meeting.docket = docket.taken.size();
    meeting.left.actions = docket.left;
}

void noteLedger(CatalogueMeeting& meeting, const LedgerMeeting& ledger) {
    meeting.deeds = ledger.entries - ledger.left;
    meeting.left.entries = ledger.left;
}

/// Puts what waits there on the docket here.
Outcome takeDocket(CatalogueMeeting& meeting, const Catalogue& theirs, const Catalogue& ours,
                   const Counterparts& counterparts) {
    const auto docket = docketOf(theirs, ours, counterparts);
    RETURN_IF_FAILED(docket);
    noteDocket(meeting, *docket);
    return DocketStore(ours).add(docket->taken);
}

/// Writes one volume's steps down.
class Taking {
  public:
    Taking(Catalogue& ours, const Catalogue& theirs, Counterparts& counterparts, RunControl& control,
           const ProgressSink& onProgress, Progress& progress)
        : ours_(ours),
          theirs_(theirs),
          counterparts_(counterparts),
          control_(control),
          onProgress_(onProgress),
          progress_(progress) {}

    /// True where it came to its end.
    Result<bool> take(Pair& pair, const VolumeComparison& comparison) {
        const bool isNew = !pair.here;
        if (isNew) {
            auto volume = pair.there;
            volume.id = 0;
            volume.atHand = false; // looked for afterwards
            volume.surveyedAt = 0;
            auto added = Volumes(ours_).add(std::move(volume));
            RETURN_IF_FAILED(added);
            pair.here = std::move(*added);
        }
        counterparts_.volumes[pair.there.id] = pair.here->id;
        counterparts_.holdings.insert(comparison.same().begin(), comparison.same().end());
        counterparts_.others.insert(comparison.others().begin(), comparison.others().end());
        HoldingWriter writer(ours_, pair.here->id, pair.there.surveyedAt);
        constexpr int commitEach = 256;
        int untilCommit = commitEach;
        for (const auto& step : comparison.steps()) {
            if (!control_.proceed()) {
                const auto written = writer.commit();
                return written ? Result(false) : Result<bool>(written.error());
            }
            RETURN_IF_FAILED(carry(writer, step, pair.there));
            ++progress_.files;
            progress_.at = step.there != nullptr ? displayPath(step.there->path) : std::string();
            onProgress_(progress_);
            if (--untilCommit == 0) {
                untilCommit = commitEach;
                RETURN_IF_FAILED(writer.commit());
            }
        }
        RETURN_IF_FAILED(writer.commit());
        pair.here->surveyedAt = std::max(pair.here->surveyedAt, pair.there.surveyedAt);
        const auto updated = Volumes(ours_).update(*pair.here);
        return updated ? Result(true) : Result<bool>(updated.error());
    }

  private:
    Outcome carry(HoldingWriter& writer, const MeetingStep& step, const Volume& there) {
        if (step.what == MeetingStep::What::state && step.state != HoldingState::present) {
            writer.takeState(step.here->id, step.state,
                             step.there != nullptr && step.there->lastSeen != 0 ? step.there->lastSeen
                                                                                : there.surveyedAt);
            return done();
        }
        auto record = recordOf(theirs_, step.there->id);
        RETURN_IF_FAILED(record);
        switch (step.what) {
        case MeetingStep::What::add: {
            const auto id = writer.add(step.there->path, *record, false);
            counterparts_.holdings[step.there->id] = id;
            if (step.state != HoldingState::present) {
                writer.takeState(id, step.state,
                                 step.there->lastSeen != 0 ? step.there->lastSeen : there.surveyedAt);
            }
            break;
        }
        case MeetingStep::What::rewrite:
            writer.rewrite(step.here->id, *record, "changed", {});
            break;
        case MeetingStep::What::move:
            writer.restamp(step.here->id, step.there->path, record->stamp, "moved", step.here->path);
            if (step.there->isExamined && !step.here->isExamined) {
                writer.giveEvidence(step.here->id, *record);
            }
            break;
        case MeetingStep::What::state:
            writer.restamp(step.here->id, step.there->path, record->stamp, {}, {});
            break;
        case MeetingStep::What::examine:
            writer.giveEvidence(step.here->id, *record);
            break;
        case MeetingStep::What::earlier:
            writer.noteEarlier(step.here->id, *record);
            break;
        }
        return done();
    }

    Catalogue& ours_;
    const Catalogue& theirs_;
    Counterparts& counterparts_;
    RunControl& control_;
    const ProgressSink& onProgress_;
    Progress& progress_;
};

} // namespace

std::vector<std::string> meetingWords(const CatalogueMeeting& meeting) {
    std::vector<std::string> sentences;
    for (const auto& each : meeting.volumes) {
        if (each.here.empty()) {
            sentences.push_back(
                fmt::format("{}, not known here: {}.", each.label, counted(each.holdings, "holding")));
            continue;
        }
        auto words = fmt::format("{}{}, looked at last {}: {}; {} as here", each.label,
                                 each.here == each.label ? "" : " (here " + each.here + ")",
                                 each.isNewerThere() ? "there" : "here", counted(each.holdings, "holding"),
                                 humanCount(each.same));
        const auto add = [&](std::uint64_t count, std::string_view what) {
            words += count > 0 ? fmt::format(", {} {}", humanCount(count), what) : "";
        };
        add(each.added - each.addedGone, "new");
        add(each.addedGone, "not known here, gone since");
        add(each.changed, "with other content by now");
        add(each.moved, "at another place by now");
        add(each.older - each.earlier, "known here as they are by now");
        add(each.earlier, "with other content before they were first seen here");
        words += each.gone > 0 ? fmt::format("; {} known here no longer there", humanCount(each.gone)) : "";
        words += each.examined > 0 ? fmt::format("; {} examined only there", humanCount(each.examined)) : "";
        sentences.push_back(words + ".");
    }
    const auto& decisions = meeting.decisions;
    if (decisions.acceptances + decisions.standingLists + decisions.policies > 0) {
        sentences.push_back(fmt::format("Decided there: {}, {}, {}.",
                                        counted(decisions.acceptances, "acceptance"),
                                        counted(decisions.standingLists, "standing list"),
                                        counted(decisions.policies, "policy", "policies")));
    }
    if (decisions.players > 0) {
        sentences.push_back(fmt::format("{} known only there: lists are read where their volume is at hand.",
                                        counted(decisions.players, "player")));
    }
    if (meeting.docket > 0) {
        sentences.push_back(
            fmt::format("To wait on the docket here: {}.", counted(meeting.docket, "action")));
    }
    if (meeting.deeds > 0) {
        sentences.push_back(fmt::format("To stand in the ledger here: {} of what was done there.",
                                        counted(meeting.deeds, "entry", "entries")));
    }
    if (meeting.excerpts > 0) {
        sentences.push_back(fmt::format("{} taken over.", counted(meeting.excerpts, "excerpt")));
    }
    std::string left;
    for (const auto& [count, one, many] :
         {std::tuple{meeting.left.lists, "list of a player", "lists of players"},
          {meeting.left.actions, "action on its docket", "actions on its docket"},
          {meeting.left.entries, "entry of its ledger that has not come to its end",
           "entries of its ledger that have not come to their end"}}) {
        if (count > 0) {
            left += (left.empty() ? "" : ", ") + counted(count, one, many);
        }
    }
    if (!left.empty()) {
        sentences.push_back("Not taken over: " + left + ".");
    }
    return sentences;
}

Result<CatalogueMeeting> compareCatalogue(const Catalogue& catalogue, const BytePath& other,
                                          RunControl& control) {
    const auto theirs = openOther(catalogue, other);
    RETURN_IF_FAILED(theirs);
    CatalogueMeeting meeting;
    RETURN_IF_FAILED(addFigures(meeting, *theirs, catalogue));
    Counterparts counterparts;
    const auto compared = Meeting(catalogue, *theirs, control).each([&](Pair& pair) -> Outcome {
        const auto comparison = comparisonOf(pair, *theirs);
        RETURN_IF_FAILED(comparison);
        meeting.volumes.push_back(comparison->meeting());
        foresee(counterparts, pair, *comparison);
        return done();
    });
    if (compared && !control.isCancelled()) {
        const auto docket = docketOf(*theirs, catalogue, counterparts);
        RETURN_IF_FAILED(docket);
        noteDocket(meeting, *docket);
        const auto ledger = ledgerOf(*theirs, catalogue);
        RETURN_IF_FAILED(ledger);
        noteLedger(meeting, *ledger);
    }
    meeting.interrupted = control.isCancelled();
    return compared ? Result(std::move(meeting)) : Result<CatalogueMeeting>(compared.error());
}

Result<CatalogueMeeting> takeInCatalogue(Catalogue& catalogue, const BytePath& other, RunControl& control,
                                         const ProgressSink& onProgress) {
    const auto theirs = openOther(catalogue, other);
    RETURN_IF_FAILED(theirs);
    CatalogueMeeting meeting;
    RETURN_IF_FAILED(addFigures(meeting, *theirs, catalogue));
    Counterparts counterparts;
    Progress progress;
    const auto taken = Meeting(catalogue, *theirs, control).each([&](Pair& pair) -> Outcome {
        const auto comparison = comparisonOf(pair, *theirs);
        RETURN_IF_FAILED(comparison);
        meeting.volumes.push_back(comparison->meeting());
        progress.totalFiles += comparison->steps().size();
        const auto whole =
            Taking(catalogue, *theirs, counterparts, control, onProgress, progress).take(pair, *comparison);
        return whole ? done() : Outcome(whole.error());
    });
    RETURN_IF_FAILED(taken);
    // What speaks of volumes is taken over once all of them are known.
    const bool isWhole = !control.isCancelled();
    const auto noted = isWhole ? takeNotes(*theirs, catalogue, counterparts) : done();
    if (noted && isWhole) {
        // What was done there before what waits: of that it may speak.
        const auto ledger = takeLedger(*theirs, catalogue, counterparts);
        RETURN_IF_FAILED(ledger);
        noteLedger(meeting, *ledger);
        RETURN_IF_FAILED(takeDocket(meeting, *theirs, catalogue, counterparts));
    }
    const auto excerpts = noted && isWhole ? ExcerptStore(catalogue).takeFrom(*theirs)
                          : noted          ? Result<std::uint64_t>(0)
                                           : Result<std::uint64_t>(noted.error());
    RETURN_IF_FAILED(excerpts);
    meeting.excerpts = *excerpts;
    const auto looked = lookForVolumes(catalogue);
    const auto followed = takeInChanges(catalogue, control, onProgress);
    if (!looked || !followed) {
        return looked ? followed.error() : looked.error();
    }
    meeting.interrupted = control.isCancelled();
    return meeting;
}

} // namespace sober
