#include "core/work/volume_comparison.h"

#include "core/survey/walk.h"

#include <algorithm>

namespace sober {

VolumeComparison::VolumeComparison(const Volume& there, const std::vector<KnownHolding>& theirs,
                                   std::vector<BytePath> unreadThere, const Volume* here,
                                   const std::vector<KnownHolding>& ours)
    : there_(there), theirs_(theirs), unreadThere_(std::move(unreadThere)), ours_(ours) {
    meeting_.label = there.label;
    meeting_.here = here != nullptr ? here->label : std::string();
    meeting_.surveyedThere = there.surveyedAt;
    meeting_.surveyedHere = here != nullptr ? here->surveyedAt : 0;
    for (const auto& each : theirs_) {
        isLive(each) ? void(theirPlaces_.emplace(each.path, &each))
                     : void(retiredThere_.emplace(each.path, &each));
    }
    for (const auto& each : ours_) {
        if (isLive(each)) {
            ourPlaces_.emplace(each.path, &each);
            if (!theirPlaces_.contains(each.path)) {
                elsewhereHere_.emplace(each.content, &each);
            }
        } else {
            retiredHere_.emplace(each.path, &each);
            const auto retired = retiredThere_.find(each.path);
            if (retired != retiredThere_.end() && retired->second->content == each.content) {
                same_.emplace_back(retired->second->id, each.id);
            }
        }
    }
    for (const auto& each : theirs_) {
        if (isLive(each)) {
            meet(each);
        }
    }
    meetGone();
}

bool VolumeComparison::isNewer(const KnownHolding& there, const KnownHolding* here) const {
    return std::max(meeting_.surveyedThere, there.deed) >
           std::max(meeting_.surveyedHere, here != nullptr ? here->deed : 0);
}

void VolumeComparison::meet(const KnownHolding& there) {
    const bool isPresent = there.state == HoldingState::present;
    meeting_.holdings += isPresent ? 1 : 0;
    const auto found = ourPlaces_.find(there.path);
    if (found == ourPlaces_.end()) {
        meetUnknown(there, isPresent);
        return;
    }
    const auto& here = *found->second;
    if (here.content == there.content) {
        meeting_.same += isPresent ? 1 : 0;
        same_.emplace_back(there.id, here.id);
        if (there.isExamined && !here.isExamined) {
            meeting_.examined += isPresent ? 1 : 0;
            steps_.push_back({MeetingStep::What::examine, &there, &here, here.state});
        }
        if (isNewer(there, &here) && there.state != here.state) {
            steps_.push_back({MeetingStep::What::state, &there, &here, there.state});
        }
        return;
    }
    others_.emplace_back(there.id, here.id);
    if (isPresent && isNewer(there, &here)) {
        ++meeting_.changed;
        steps_.push_back({MeetingStep::What::rewrite, &there, &here, HoldingState::present});
    } else {
        meeting_.older += isPresent ? 1 : 0;
        if (isPresent && here.state == HoldingState::present && here.deed == 0 &&
            here.firstSeen > meeting_.surveyedThere) {
            ++meeting_.earlier;
            steps_.push_back({MeetingStep::What::earlier, &there, &here, HoldingState::present});
        }
    }
}

void VolumeComparison::meetUnknown(const KnownHolding& there, bool isPresent) {
    const auto retired = retiredHere_.find(there.path);
    if (retired != retiredHere_.end() && retired->second->content == there.content &&
        !isNewer(there, retired->second)) {
        meeting_.older += isPresent ? 1 : 0; // it is known why it went
        same_.emplace_back(there.id, retired->second->id);
        return;
    }
    const auto [first, last] = elsewhereHere_.equal_range(there.content);
    const auto here =
        std::find_if(first, last, [&](const auto& each) { return !moved_.contains(each.second->id); });
    if (here != last && !isNewer(there, here->second)) {
        meeting_.older += isPresent ? 1 : 0; // it is known where it went
        same_.emplace_back(there.id, here->second->id);
    } else if (here != last && isPresent) {
        ++meeting_.moved;
        moved_.insert(here->second->id);
        same_.emplace_back(there.id, here->second->id);
        steps_.push_back({MeetingStep::What::move, &there, here->second, HoldingState::present});
    } else if (here == last) {
        meeting_.added += isPresent ? 1 : 0;
        const bool isStillThere = !isPresent || isNewer(there, nullptr);
        meeting_.addedGone += isStillThere ? 0 : 1;
        steps_.push_back(
            {MeetingStep::What::add, &there, nullptr, isStillThere ? there.state : HoldingState::missing});
    }
}

void VolumeComparison::meetGone() {
    for (const auto& here : ours_) {
        if (here.state != HoldingState::present || theirPlaces_.contains(here.path) ||
            moved_.contains(here.id)) {
            continue;
        }
        const auto retired = retiredThere_.find(here.path);
        const bool wasRetired = retired != retiredThere_.end() && retired->second->content == here.content;
        if (wasRetired) {
            same_.emplace_back(retired->second->id, here.id);
        }
        const bool wasLookedFor = meeting_.surveyedThere > std::max(meeting_.surveyedHere, here.deed) &&
                                  takesIn(there_.choices, here.path, here.size) && !couldNotBeSeen(here.path);
        if (wasRetired ? isNewer(*retired->second, &here) : wasLookedFor) {
            ++meeting_.gone;
            steps_.push_back({MeetingStep::What::state, nullptr, &here,
                              wasRetired ? HoldingState::retired : HoldingState::missing});
        }
    }
}

bool VolumeComparison::couldNotBeSeen(const BytePath& path) const {
    const auto whole = joinPath(there_.root, path);
    return !there_.reaches(path) ||
           std::ranges::any_of(unreadThere_, [&](const BytePath& unread) { return isWithin(whole, unread); });
}

} // namespace sober
