#include "core/audit/set_choice.h"

#include "core/base/inner_path.h"
#include "core/base/text.h"
#include "core/catalogue/holdings.h"
#include "core/catalogue/player_store.h"
#include "core/catalogue/volumes.h"

#include <algorithm>
#include <map>

namespace sober {
namespace {

std::string joinedReasons(const std::vector<std::string>& reasons) {
    std::string all;
    for (const auto& reason : reasons) {
        all += (all.empty() ? "" : "; ") + reason;
    }
    return all;
}

std::string keptInstead(const Holding& keeper, std::span<const Volume> volumes) {
    const auto volume = std::ranges::find(volumes, keeper.volume, &Volume::id);
    const std::string label = volume != volumes.end() ? volume->label : std::string();
    return "kept instead: " + displayPath(joinPath(label, keeper.path));
}

std::vector<MemberAdvice> adviceOnAlikeTags(std::span<const Holding> members) {
    std::vector<MemberAdvice> advice;
    for (const auto& member : members) {
        advice.push_back({member.id,
                          Advice::decide,
                          {"only the tags look alike: not the same recording"},
                          Undecided::notCompared});
    }
    return advice;
}

struct Advised {
    std::optional<HoldingId> keeper;
    std::vector<DocketAction> actions;
};

Advised advisedFor(const SetDetail& detail, std::span<const Volume> volumes) {
    Advised advised;
    std::string instead;
    for (std::size_t i = 0; i < detail.advice.size(); ++i) {
        if (detail.advice[i].advice == Advice::keep) {
            advised.keeper = detail.advice[i].holding;
            instead = keptInstead(detail.members[i], volumes);
        }
    }
    for (const auto& advice : detail.advice) {
        if (advice.advice == Advice::retire) {
            advised.actions.push_back({0, ActionKind::retire, advice.holding,
                                       instead + "; " + joinedReasons(advice.reasons), timeNow()});
        }
    }
    return advised;
}

/// Of a set of which nothing is retired: what stands against it.
Undecided whyLeft(const SetDetail& detail) {
    const auto first = std::ranges::find_if(
        detail.advice, [](const MemberAdvice& advice) { return advice.why != Undecided::no; });
    return first != detail.advice.end() ? first->why : Undecided::noneAtHand;
}

std::vector<HoldingId> idsOf(std::span<const Holding> members) {
    std::vector<HoldingId> ids;
    std::ranges::transform(members, std::back_inserter(ids), &Holding::id);
    return ids;
}

/// What the players' lists lead to, and what the advice means for that.
Outcome tellReferences(const Catalogue& catalogue, SetDetail& detail) {
    const PlayerStore store(catalogue);
    const auto leading = store.leadingTo(idsOf(detail.members));
    const auto lists =
        leading && !leading->empty() ? store.lists() : Result<std::vector<ListFile>>(std::vector<ListFile>{});
    if (!leading || !lists) {
        return leading ? lists.error() : leading.error();
    }
    detail.references.resize(detail.members.size());
    for (const auto& reference : *leading) {
        const auto member = std::ranges::find(detail.members, reference.holding, &Holding::id);
        const auto list = std::ranges::find(*lists, reference.list, &ListFile::id);
        if (member != detail.members.end() && list != lists->end()) {
            detail.references[static_cast<std::size_t>(member - detail.members.begin())].push_back(
                list->path);
        }
    }
    for (std::size_t at = 0; at < detail.advice.size(); ++at) {
        const auto count = detail.references[at].size();
        auto& advice = detail.advice[at];
        if (count > 0) {
            advice.reasons.push_back(
                counted(count, "reference of a player", "references of players") +
                (count == 1 ? " leads" : " lead") + " to it" +
                (advice.advice == Advice::retire ? ", and will lead to what stays" : ""));
        }
    }
    return done();
}

} // namespace

Result<SetDetail> detailOf(const Catalogue& catalogue, const CopySet& set, std::span<const Volume> volumes,
                           const Policy& policy) {
    SetDetail detail;
    detail.set = set;
    const auto ids = Findings(catalogue).membersOf(set.id);
    RETURN_IF_FAILED(ids);
    auto members = Holdings(catalogue).byIds(*ids);
    RETURN_IF_FAILED(members);
    detail.members = std::move(*members);
    auto known = SetKnowledge::of(catalogue, detail.members);
    RETURN_IF_FAILED(known);
    detail.known = std::move(*known);
    detail.advice = set.sameness == Sameness::tagsOnly
                        ? adviceOnAlikeTags(detail.members)
                        : adviseOn(detail.members, volumes, policy, detail.known);
    const auto decision = Findings(catalogue).decisionOn(set);
    RETURN_IF_FAILED(decision);
    detail.decision = *decision;
    auto standing = DocketStore(catalogue).standing(idsOf(detail.members), ActionKind::retire);
    RETURN_IF_FAILED(standing);
    detail.onDocket = std::move(*standing);
    RETURN_IF_FAILED(tellReferences(catalogue, detail));
    return detail;
}

std::uint64_t freedByAdvice(const SetDetail& detail) {
    std::uint64_t bytes = 0;
    for (std::size_t i = 0; i < detail.members.size(); ++i) {
        const bool goes = detail.advice[i].advice == Advice::retire && detail.members[i].links <= 1;
        bytes += goes ? detail.members[i].size : 0;
    }
    return detail.set.sameness == Sameness::bytes ? detail.set.reclaimable : bytes;
}

Result<PolicyPreview> previewPolicy(const Catalogue& catalogue, std::span<const SetId> ids,
                                    const Policy& policy, RunControl& control) {
    const auto volumes = Volumes(catalogue).all();
    RETURN_IF_FAILED(volumes);
    const auto sets = Findings(catalogue).sets(ids);
    RETURN_IF_FAILED(sets);
    PolicyPreview preview;
    std::map<VolumeId, std::uint64_t> freed;
    std::map<Undecided, std::uint64_t> left;
    for (const auto& set : *sets) {
        if (!control.proceed()) {
            return Error{Cause::interrupted, {}, "Stopped; nothing was put on the docket."};
        }
        ++preview.sets;
        const auto detail = detailOf(catalogue, set, *volumes, policy);
        RETURN_IF_FAILED(detail);
        if (detail->decision.leftAlone || !detail->onDocket.empty()) {
            ++preview.alreadyDecided;
            continue;
        }
        if (set.sameness > policy.weakest) {
            ++left[Undecided::beyondPolicy];
            continue;
        }
        const auto advised = advisedFor(*detail, *volumes);
        for (const auto& action : advised.actions) {
            const auto member = std::ranges::find(detail->members, action.holding, &Holding::id);
            const std::uint64_t bytes = member->links > 1 ? 0 : member->size;
            preview.frees += bytes;
            freed[member->volume] += bytes;
            preview.actions.push_back(action);
        }
        if (advised.keeper && !advised.actions.empty()) {
            ++preview.decided;
            preview.keepers.emplace_back(set.content, *advised.keeper);
        } else {
            ++left[whyLeft(*detail)];
        }
    }
    preview.freesByVolume.assign(freed.begin(), freed.end());
    preview.left.assign(left.begin(), left.end());
    std::ranges::stable_sort(preview.left, std::ranges::greater{},
                             &std::pair<Undecided, std::uint64_t>::second);
    return preview;
}

Outcome applyPreview(const Catalogue& catalogue, const PolicyPreview& preview) {
    if (const auto added = DocketStore(catalogue).add(preview.actions); !added) {
        return added;
    }
    for (const auto& [checksum, keeper] : preview.keepers) {
        if (const auto decided = Findings(catalogue).decide(checksum, keeper, false); !decided) {
            return decided;
        }
    }
    return done();
}

Outcome keepOnly(const Catalogue& catalogue, const SetDetail& detail, HoldingId keeper,
                 std::span<const Volume> volumes) {
    const auto chosen = std::ranges::find(detail.members, keeper, &Holding::id);
    if (chosen == detail.members.end()) {
        return Error{Cause::invalid, {}, "That holding is no member of the set any more."};
    }
    std::vector<DocketAction> actions;
    std::vector<HoldingId> staying;
    for (const auto& member : detail.members) {
        const auto volume = std::ranges::find(volumes, member.volume, &Volume::id);
        const bool atHand = volume != volumes.end() && volume->atHand;
        const bool linked =
            member.links > 1 && member.volume == chosen->volume && member.inode == chosen->inode;
        if (member.id == keeper || !atHand || linked || isInsideArchive(member.path)) {
            staying.push_back(member.id);
        } else {
            actions.push_back({0, ActionKind::retire, member.id, keptInstead(*chosen, volumes), timeNow()});
        }
    }
    const DocketStore docket(catalogue);
    if (const auto removed = docket.remove(staying, ActionKind::retire); !removed) {
        return removed;
    }
    if (const auto added = docket.add(actions); !added) {
        return added;
    }
    return Findings(catalogue).decide(detail.set.content, keeper, actions.empty());
}

Outcome takeAdvice(const Catalogue& catalogue, const SetDetail& detail, std::span<const Volume> volumes) {
    const auto advised = advisedFor(detail, volumes);
    if (!advised.keeper || advised.actions.empty()) {
        return Error{Cause::invalid, {}, "Nothing of this set is advised to go."};
    }
    if (const auto added = DocketStore(catalogue).add(advised.actions); !added) {
        return added;
    }
    return Findings(catalogue).decide(detail.set.content, advised.keeper, false);
}

Outcome setRetire(const Catalogue& catalogue, const SetDetail& detail, HoldingId member, bool retire) {
    const DocketStore docket(catalogue);
    const std::vector<HoldingId> one{member};
    if (!retire) {
        return docket.remove(one);
    }
    const std::vector<DocketAction> action{
        {0, ActionKind::retire, member, "the custodian's choice", timeNow()}};
    if (const auto added = docket.add(action); !added) {
        return added;
    }
    const auto keeper = detail.decision.keeper == member ? std::nullopt : detail.decision.keeper;
    return Findings(catalogue).decide(detail.set.content, keeper, false);
}

Outcome leaveAlone(const Catalogue& catalogue, const SetDetail& detail) {
    if (const auto removed = DocketStore(catalogue).remove(idsOf(detail.members)); !removed) {
        return removed;
    }
    return Findings(catalogue).decide(detail.set.content, std::nullopt, true);
}

Outcome forgetChoice(const Catalogue& catalogue, const SetDetail& detail) {
    if (const auto removed = DocketStore(catalogue).remove(idsOf(detail.members)); !removed) {
        return removed;
    }
    return Findings(catalogue).forgetDecision(detail.set.content);
}

} // namespace sober
