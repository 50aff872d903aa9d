#include "core/intake/arrivals.h"

#include "core/audit/keeper.h"
#include "core/audit/sameness.h"
#include "core/audit/set_knowledge.h"
#include "core/base/inner_path.h"
#include "core/base/presence.h"
#include "core/base/text.h"
#include "core/catalogue/evidence_store.h"
#include "core/catalogue/holdings.h"
#include "core/catalogue/volumes.h"
#include "core/intake/read_tags.h"
#include "core/transfer/filing.h"
#include "core/transfer/target_place.h"

#include <fmt/format.h>

#include <algorithm>
#include <array>

namespace sober {
namespace {

constexpr Nanoseconds restsAfter = 10'000'000'000; // no source

std::optional<double> cutoffOf(const Evidence& evidence) {
    return evidence.bandwidth ? std::optional(evidence.bandwidth->cutoff) : std::nullopt;
}

class ArrivalLook {
  public:
    ArrivalLook(const Catalogue& catalogue, RunControl& control, const std::string& layout)
        : catalogue_(catalogue), control_(control), layout_(layout) {}

    Result<std::vector<Arrival>> run() {
        for (const auto phase : {&ArrivalLook::gather, &ArrivalLook::judge, &ArrivalLook::chooseAmong,
                                 &ArrivalLook::file, &ArrivalLook::propose}) {
            RETURN_IF_FAILED((this->*phase)());
        }
        std::ranges::stable_sort(arrivals_, std::ranges::greater{},
                                 [](const Arrival& each) { return each.holding.mtime; });
        return std::move(arrivals_);
    }

  private:
    Outcome gather() {
        auto inboxes = InboxStore(catalogue_).all();
        auto volumes = Volumes(catalogue_).all();
        if (!inboxes || !volumes) {
            return inboxes ? volumes.error() : inboxes.error();
        }
        inboxes_ = std::move(*inboxes);
        volumes_ = std::move(*volumes);
        for (const auto& inbox : inboxes_) {
            for (const auto& volume : volumes_) {
                const auto folder = relativeTo(inbox.folder, volume.root);
                if (!folder || !volume.atHand) {
                    continue;
                }
                HoldingFilter filter;
                filter.volume = volume.id;
                filter.folder = *folder;
                const auto ids = EvidenceStore(catalogue_).meant(filter);
                auto holdings =
                    ids ? Holdings(catalogue_).byIds(*ids) : Result<std::vector<Holding>>(ids.error());
                RETURN_IF_FAILED(holdings);
                for (auto& holding : *holdings) {
                    Arrival arrival;
                    arrival.path = joinPath(volume.root, holding.path);
                    arrival.holding = std::move(holding);
                    arrival.inbox = inbox;
                    if (!isInsideArchive(arrival.path) && presenceOf(arrival.path) != Presence::gone) {
                        arrivals_.push_back(std::move(arrival));
                    }
                }
            }
        }
        return done();
    }

    bool isInAnInbox(const BytePath& path) const {
        return std::ranges::any_of(inboxes_,
                                   [&](const Inbox& inbox) { return isWithin(path, inbox.folder); });
    }

    Outcome judge() {
        for (auto& arrival : arrivals_) {
            if (!control_.proceed()) {
                return Error{Cause::interrupted, {}, "Stopped before all arrivals were looked at."};
            }
            const auto evidence = EvidenceStore(catalogue_).of(arrival.holding.id);
            RETURN_IF_FAILED(evidence);
            if (*evidence) {
                arrival.verdict = (*evidence)->verdict.verdict;
                arrival.sound = (*evidence)->sound();
                arrival.cutoff = cutoffOf(**evidence);
            }
            if (const auto held = lookForHeld(arrival); !held) {
                return held;
            }
            advise(arrival, *evidence);
        }
        return done();
    }

    Outcome lookForHeld(Arrival& arrival) {
        const Findings findings(catalogue_);
        const auto set = findings.setOf(arrival.holding.id);
        if (!set || !*set) {
            return set ? done() : Outcome(set.error());
        }
        const auto ids = findings.membersOf((*set)->id);
        const auto members =
            ids ? Holdings(catalogue_).byIds(*ids) : Result<std::vector<Holding>>(ids.error());
        RETURN_IF_FAILED(members);
        sets_[(*set)->id].push_back(&arrival);
        // By way of others too: two may never have been laid over each other.
        const auto known = SetKnowledge::of(catalogue_, *members);
        RETURN_IF_FAILED(known);
        const auto self = std::ranges::find(*members, arrival.holding.id, &Holding::id);
        if (self == members->end()) {
            return done();
        }
        const auto at = static_cast<std::size_t>(self - members->begin());
        for (const auto& member : *members) {
            const auto volume = std::ranges::find(volumes_, member.volume, &Volume::id);
            if (member.id == arrival.holding.id || volume == volumes_.end()) {
                continue;
            }
            HeldOfIt held;
            held.holding = member.id;
            held.path = joinPath(volume->root, member.path);
            held.atHand = volume->reaches(member.path);
            if (isInAnInbox(held.path) ||
                isInsideArchive(held.path)) { // what is in an archive is not at hand to use
                continue;
            }
            compare(arrival, member, known->ofPair(at, static_cast<std::size_t>(&member - members->data())),
                    held);
            const auto evidence = EvidenceStore(catalogue_).of(member.id);
            held.cutoff = evidence && *evidence ? cutoffOf(**evidence) : std::nullopt;
            if (held.sameness != Sameness::tagsOnly) {
                arrival.held.push_back(std::move(held));
            }
        }
        std::ranges::stable_sort(arrival.held, {}, &HeldOfIt::sameness);
        return done();
    }

    /// The two alone, by the keeper's own reasons.
    void compare(const Arrival& arrival, const Holding& member, const SetKnowledge& known,
                 HeldOfIt& held) const {
        const std::array pair{arrival.holding, member};
        held.sameness = arrival.holding.checksum == member.checksum
                            ? Sameness::bytes
                            : known.between(0, 1).value_or(Sameness::tagsOnly);
        if (held.sameness <= Sameness::samples) {
            held.better = Better::equal;
            held.why = samenessWords(held.sameness);
            return;
        }
        const auto advice = adviseOn(pair, volumes_, {}, known);
        held.better = advice[1].advice == Advice::retire   ? Better::arrival
                      : advice[0].advice == Advice::retire ? Better::held
                                                           : Better::unsure;
        const auto& of = held.better == Better::arrival ? advice[0]
                         : held.better == Better::held  ? advice[1]
                                                        : advice[0];
        held.why = held.better == Better::unsure && of.why != Undecided::no
                       ? std::string(undecidedWords(of.why))
                   : of.reasons.empty() ? samenessWords(held.sameness)
                                        : of.reasons.front();
    }

    static void advise(Arrival& arrival, const std::optional<Evidence>& evidence) {
        auto& reasons = arrival.reasons;
        if (timeNow() - arrival.holding.mtime < restsAfter) {
            arrival.isArriving = true;
            reasons.emplace_back("It is still arriving.");
            return;
        }
        if (!evidence) {
            reasons.emplace_back("It was not examined: survey it at full effort first.");
            return;
        }
        const auto asGood = std::ranges::find_if(arrival.held, [](const HeldOfIt& held) {
            return held.atHand && (held.better == Better::equal || held.better == Better::held);
        });
        if (asGood != arrival.held.end()) {
            arrival.advice = IntakeAdvice::retire;
            reasons.push_back(fmt::format("{} is held{}: {}.", displayPath(asGood->path),
                                          asGood->better == Better::held ? " and better" : "", asGood->why));
            return;
        }
        if (!arrival.sound.value_or(false)) {
            reasons.push_back("It is damaged: " + evidence->problems.front().detail + ".");
            return;
        }
        for (const auto& held : arrival.held) {
            if (held.better != Better::arrival) {
                reasons.push_back(fmt::format("{} is held{}: {}.", displayPath(held.path),
                                              held.atHand ? "" : ", and away", held.why));
                return;
            }
        }
        if (arrival.verdict == VerdictClass::transcoded) {
            reasons.push_back("It is not what it says: " +
                              (evidence->verdict.reasons.empty() ? std::string("it was lossy before")
                                                                 : evidence->verdict.reasons.front()) +
                              ".");
            return;
        }
        if (arrival.held.empty()) {
            arrival.advice = IntakeAdvice::takeIn;
            reasons.emplace_back("Nothing of this recording is held.");
        } else {
            arrival.advice = IntakeAdvice::replace;
            reasons.push_back(fmt::format("It is better than {}: {}.", displayPath(arrival.held.front().path),
                                          arrival.held.front().why));
        }
    }

    /// Of several arrivals that carry one recording the best is filed; the others are judged against it then.
    Outcome chooseAmong() {
        const auto isFiled = [](const Arrival* each) {
            return each->advice == IntakeAdvice::takeIn || each->advice == IntakeAdvice::replace;
        };
        for (auto& [set, members] : sets_) {
            std::erase_if(members, [&](const Arrival* each) { return !isFiled(each); });
            if (members.size() < 2) {
                continue;
            }
            std::vector<Holding> holdings;
            std::ranges::transform(members, std::back_inserter(holdings), &Arrival::holding);
            const auto known = SetKnowledge::of(catalogue_, holdings);
            RETURN_IF_FAILED(known);
            const auto advice = adviseOn(holdings, volumes_, {}, *known);
            const auto kept = std::ranges::find(advice, Advice::keep, &MemberAdvice::advice);
            const auto* best =
                members[kept == advice.end() ? 0 : static_cast<std::size_t>(kept - advice.begin())];
            for (auto* other : members) {
                if (other != best) {
                    other->advice = IntakeAdvice::leave;
                    other->reasons = {displayPath(best->path) +
                                      " has arrived too and is the same recording; what is left is judged "
                                      "once that is filed."};
                }
            }
        }
        return done();
    }

    /// Where each would come to stand, by its inbox's layout.
    Outcome file() {
        for (const auto& inbox : inboxes_) {
            std::vector<Arrival*> own;
            std::vector<Holding> holdings;
            for (auto& arrival : arrivals_) {
                if (arrival.inbox.id == inbox.id) {
                    own.push_back(&arrival);
                    holdings.push_back(arrival.holding);
                }
            }
            const auto target = targetPlaceAt(catalogue_, inbox.into, "auto", std::nullopt);
            const auto layout = target ? Layout::named(layout_.empty() ? inbox.layout : layout_)
                                       : Result<Layout>(target.error());
            RETURN_IF_FAILED(layout);
            const Filing filing(holdings);
            const auto replacements = usualReplacements();
            std::vector<TargetName> names;
            for (std::size_t i = 0; i < own.size(); ++i) {
                const auto within =
                    relativeTo(own[i]->path, inbox.folder).value_or(BytePath(nameOf(own[i]->path)));
                names.push_back(
                    filing.nameFor(holdings[i], within, *layout, *target->rules, replacements).name);
            }
            fitAll(*target->rules, replacements, names, [&](const BytePath& path, std::size_t /*which*/) {
                return isTaken(joinPath(target->folder, path));
            });
            for (std::size_t i = 0; i < own.size(); ++i) {
                own[i]->target = joinPath(target->folder, pathOf(names[i]));
            }
        }
        return done();
    }

    Outcome propose() {
        std::vector<BytePath> paths;
        std::vector<Arrival*> asked;
        for (auto& arrival : arrivals_) {
            if (arrival.advice != IntakeAdvice::retire) { // else it is not kept
                paths.push_back(arrival.path);
                asked.push_back(&arrival);
            }
        }
        auto read = readAndPropose(catalogue_, paths, control_);
        RETURN_IF_FAILED(read);
        for (std::size_t i = 0; i < asked.size(); ++i) {
            asked[i]->proposals = std::move(read->proposals[i]);
        }
        return done();
    }

    const Catalogue& catalogue_;
    RunControl& control_;
    const std::string& layout_;
    std::vector<Inbox> inboxes_;
    std::vector<Volume> volumes_;
    std::vector<Arrival> arrivals_;
    std::map<SetId, std::vector<Arrival*>> sets_; ///< arrivals of one recording
};

} // namespace

std::string_view word(Better better) {
    constexpr std::string_view words[]{"arrival", "held", "equal", "unsure"};
    return words[static_cast<std::size_t>(better)];
}

std::string_view word(IntakeAdvice advice) {
    constexpr std::string_view words[]{"take-in", "replace", "retire", "leave"};
    return words[static_cast<std::size_t>(advice)];
}

Result<std::vector<Arrival>> lookAtArrivals(const Catalogue& catalogue, RunControl& control,
                                            const std::string& layout) {
    return ArrivalLook(catalogue, control, layout).run();
}

} // namespace sober
