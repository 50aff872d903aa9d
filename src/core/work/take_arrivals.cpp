#include "core/work/take_arrivals.h"

#include "core/audit/plan_places.h"
#include "core/audit/refresh_findings.h"
#include "core/audit/tag_takeover.h"
#include "core/base/text.h"
#include "core/catalogue/docket_store.h"
#include "core/catalogue/holdings.h"
#include "core/catalogue/volumes.h"
#include "core/survey/survey.h"
#include "core/work/become_volume.h"
#include "core/work/carry_out.h"
#include "core/work/latest_list.h"
#include "core/work/take_in_survey.h"

#include <algorithm>
#include <array>
#include <set>

namespace sober {
namespace {

class Intake {
  public:
    Intake(Catalogue& catalogue, const IntakeRequest& request, RunControl& control,
           const CarryOutHooks& hooks)
        : catalogue_(catalogue), request_(request), control_(control), hooks_(hooks) {}

    Result<CarriedOut> run() {
        for (const auto phase :
             {&Intake::choose, &Intake::mendTags, &Intake::file, &Intake::retire, &Intake::renewLists}) {
            RETURN_IF_FAILED((this->*phase)());
            if (result_.interrupted) {
                break;
            }
        }
        return std::move(result_);
    }

  private:
    struct Chosen {
        Arrival arrival;
        bool isFiled = false;   ///< it goes to its place; else it is retired
        bool isMoved = false;   ///< on its own file system
        bool isEdited = false;  ///< its tags were edited by hand; that waits on the docket
        bool hasFailed = false; ///< something before was refused
    };

    Outcome choose() {
        auto arrivals = lookAtArrivals(catalogue_, control_, request_.layout);
        RETURN_IF_FAILED(arrivals);
        std::set<BytePath> named(request_.arrivals.begin(), request_.arrivals.end());
        for (auto& arrival : *arrivals) {
            const bool isNamed = named.erase(arrival.path) > 0;
            const bool isAdvised = request_.advised && arrival.advice != IntakeAdvice::leave;
            if (!isNamed && !isAdvised) {
                continue;
            }
            const bool isFiled = arrival.advice != IntakeAdvice::retire;
            chosen_.push_back({std::move(arrival), isFiled});
        }
        return named.empty() ? done()
                             : Outcome(Error{Cause::notFound, *named.begin(),
                                             displayPath(*named.begin()) + " is no arrival in an inbox."});
    }

    Outcome mendTags() {
        for (auto& each : chosen_) {
            const std::array own{each.arrival.holding.id};
            const auto edited = DocketStore(catalogue_).standing(own, ActionKind::retag);
            RETURN_IF_FAILED(edited);
            each.isEdited = each.isFiled && !edited->empty();
            if (each.isFiled && !each.isEdited && request_.withProposals && !each.arrival.proposals.empty()) {
                const auto planned = planRetag(catalogue_, each.arrival.holding.id,
                                               changeOf(each.arrival.proposals), "intake");
                if (!planned) {
                    return planned;
                }
            }
        }
        return carry(ActionKind::retag);
    }

    Outcome file() {
        for (const auto& each : chosen_) {
            const auto place = each.isFiled ? placeOnVolume(catalogue_, each.arrival.inbox.into, control_)
                                            : Result(TargetPlace{});
            RETURN_IF_FAILED(place);
        }
        // Where it is filed is told by its tags as they are now.
        const bool isMended = request_.withProposals || std::ranges::any_of(chosen_, &Chosen::isEdited);
        auto again =
            isMended ? lookAtArrivals(catalogue_, control_, request_.layout) : Result(std::vector<Arrival>{});
        const auto volumes = again ? Volumes(catalogue_).all() : Result<std::vector<Volume>>(again.error());
        RETURN_IF_FAILED(volumes);
        for (auto& each : chosen_) {
            const auto now = std::ranges::find(*again, each.arrival.path, &Arrival::path);
            if (now != again->end()) {
                each.arrival.target = now->target;
            }
            if (!each.isFiled || each.hasFailed) {
                continue;
            }
            const auto onto = volumeHolding(*volumes, each.arrival.target);
            each.isMoved = onto && (*onto)->id == each.arrival.holding.volume;
            const auto planned =
                planMoveAs(catalogue_, each.arrival.path, each.arrival.target, each.arrival.reasons.front(),
                           each.isMoved ? ActionKind::move : ActionKind::copy);
            if (!planned) {
                each.hasFailed = true;
                result_.refused.push_back({each.arrival.path, planned.error().sentence});
            }
        }
        const auto moved = carry(ActionKind::move);
        return moved ? carry(ActionKind::copy) : moved;
    }

    Outcome retire() {
        if (const auto refreshed = refreshFindings(catalogue_); !refreshed) {
            return refreshed;
        }
        std::vector<DocketAction> actions;
        const auto add = [&](HoldingId holding, const BytePath& stays, std::string reason) {
            DocketAction action;
            action.kind = ActionKind::retire;
            action.holding = holding;
            action.target = stays;
            action.reason = std::move(reason);
            action.added = timeNow();
            actions.push_back(std::move(action));
            retiring_.insert(holding);
        };
        for (const auto& each : chosen_) {
            const auto& arrival = each.arrival;
            if (each.hasFailed) {
                continue;
            }
            if (!each.isFiled) {
                add(arrival.holding.id, arrival.held.front().path, arrival.reasons.front());
                continue;
            }
            if (!each.isMoved) {
                add(arrival.holding.id, arrival.target, "taken in to " + displayPath(arrival.target));
            }
            if (arrival.advice == IntakeAdvice::replace) {
                for (const auto& held : arrival.held) {
                    if (held.atHand) {
                        add(held.holding, arrival.target, "a better one arrived: " + held.why);
                    }
                }
            }
        }
        const auto added = DocketStore(catalogue_).add(actions);
        return added ? carry(ActionKind::retire) : added;
    }

    Outcome renewLists() {
        std::set<std::int64_t> met;
        for (const auto& each : chosen_) {
            const auto& inbox = each.arrival.inbox;
            if (inbox.latest.empty() || !met.insert(inbox.id).second) {
                continue;
            }
            const auto action = latestListAction(catalogue_, inbox);
            if (!action) {
                result_.refused.push_back({inbox.latest, action.error().sentence});
                continue;
            }
            if (!*action) {
                continue;
            }
            if (const auto added = DocketStore(catalogue_).add(std::array{**action}); !added) {
                return added;
            }
            listing_ = inbox.latest;
            const auto carried = carry((*action)->kind);
            // What could not be written is said, and not tried again and again.
            const auto left =
                carried ? DocketStore(catalogue_).removePlaces(std::array{inbox.latest}) : carried;
            if (!left) {
                return left;
            }
        }
        return done();
    }

    /// What of a kind was put on the docket here, and nothing else that waits there.
    Outcome carry(ActionKind kind) {
        const auto isOurs = [&](const DocketAction& action) {
            return action.kind == kind &&
                   ((isOwnList(kind) && action.place == listing_) || retiring_.contains(action.holding) ||
                    std::ranges::any_of(chosen_, [&](const Chosen& each) {
                        return each.arrival.holding.id == action.holding;
                    }));
        };
        auto carried = carryOut(catalogue_, control_, hooks_, isOurs);
        RETURN_IF_FAILED(carried);
        for (auto& each : chosen_) {
            each.hasFailed = each.hasFailed ||
                             std::ranges::find(carried->refused, each.arrival.path, &RefusedAction::path) !=
                                 carried->refused.end();
        }
        result_.entry = carried->entry != 0 ? carried->entry : result_.entry;
        result_.done += carried->done;
        result_.frees += carried->frees;
        result_.references += carried->references;
        std::ranges::move(carried->unflushed, std::back_inserter(result_.unflushed));
        result_.interrupted = carried->interrupted;
        std::ranges::move(carried->refused, std::back_inserter(result_.refused));
        return done();
    }

    Catalogue& catalogue_;
    const IntakeRequest& request_;
    RunControl& control_;
    const CarryOutHooks& hooks_;
    std::vector<Chosen> chosen_;
    std::set<HoldingId> retiring_;
    BytePath listing_; ///< the list of the latest that is renewed now
    CarriedOut result_;
};

} // namespace

Result<CarriedOut> takeArrivals(Catalogue& catalogue, const IntakeRequest& request, RunControl& control,
                                const CarryOutHooks& hooks) {
    return Intake(catalogue, request, control, hooks).run();
}

Outcome surveyInboxes(Catalogue& catalogue, RunControl& control, const ProgressSink& onProgress) {
    const auto inboxes = InboxStore(catalogue).all();
    RETURN_IF_FAILED(inboxes);
    for (const auto& inbox : *inboxes) {
        const auto volumes = Volumes(catalogue).all();
        RETURN_IF_FAILED(volumes);
        const auto around = std::ranges::find_if(
            *volumes, [&](const Volume& volume) { return isWithin(inbox.folder, volume.root); });
        SurveyRequest request;
        request.root = around == volumes->end() ? inbox.folder : around->root;
        if (around == volumes->end()) {
            request.effort = Effort::full;
        }
        const auto report = surveyVolume(catalogue, request, control, onProgress);
        RETURN_IF_FAILED(report);
        RETURN_IF_FAILED(takeInSurvey(catalogue, *report, control, onProgress));
        if (report->interrupted) {
            return Error{Cause::interrupted, inbox.folder, "Stopped before all inboxes were looked at."};
        }
    }
    return done();
}

} // namespace sober
