#include "core/audit/relink.h"

#include "core/audit/relink_by_name.h"
#include "core/audit/relink_doubts.h"
#include "core/audit/relink_result.h"
#include "core/audit/sameness.h"
#include "core/audit/shown_folder.h"
#include "core/base/text.h"
#include "core/catalogue/docket_store.h"
#include "core/catalogue/recording_pairs.h"

#include <fmt/format.h>

#include <algorithm>
#include <map>

namespace sober {
namespace {

class Relinker {
  public:
    Relinker(const Catalogue& catalogue, const RelinkRequest& request, RunControl& control,
             const ProgressSink& onProgress, LostPlaces lost, RelinkCandidates candidates)
        : catalogue_(catalogue),
          request_(request),
          control_(control),
          onProgress_(onProgress),
          state_(std::move(lost), std::move(candidates)),
          below_(placesBelow(state_.lost)) {}

    Result<Relinking> run() {
        takeSpellings();
        takeExamples();
        RETURN_IF_FAILED(look());
        for (const auto& folder : request_.near) {
            if (!control_.proceed()) {
                break;
            }
            RETURN_IF_FAILED(lookIn(folder));
        }
        takeSingles(state_);
        askWhereTwoClaimOne(state_);
        distrustContradicted(state_);
        auto all = resultOf(state_);
        all.interrupted = control_.isCancelled();
        return all;
    }

  private:
    bool isOff(const RelinkRule& rule) const {
        return std::ranges::any_of(request_.switchedOff,
                                   [&](const RelinkRule& off) { return off.sameAs(rule); });
    }

    void takeSpellings() {
        std::optional<RelinkRule> rule;
        for (const auto& lost : state_.lost) {
            if (!lost.nearly.empty()) {
                const BytePath folder(parentOf(lost.nearly));
                const auto common =
                    rule ? commonFolder(joinPath(rule->from, "x"), joinPath(folder, "x")) : folder;
                rule = RelinkRule{RelinkRuleKind::spelling,
                                  common,
                                  common,
                                  {},
                                  {},
                                  {},
                                  0,
                                  0.99,
                                  "the same name but for letter case, normalisation or percent signs"};
            }
        }
        if (!rule || isOff(*rule)) {
            return;
        }
        for (std::size_t at = 0; at < state_.lost.size(); ++at) {
            if (state_.lost[at].nearly.empty()) {
                continue;
            }
            const auto candidate = state_.candidateAt(state_.lost[at].nearly);
            const auto judged = judge(state_.lost[at], state_.candidates[candidate]);
            if (judged.agreement > Agreement::doubtful) {
                auto evidence = judged.evidence;
                evidence.insert(evidence.begin(), rule->grounds);
                state_.linked[at] = FoundLink{candidate,           judged.agreement,      0.99,
                                              std::move(evidence), state_.indexOf(*rule), false};
            }
        }
    }

    void takeExamples() {
        for (const auto& example : request_.examples) {
            const auto at = std::ranges::find(state_.lost, example.lost, &LostPlace::path);
            if (at == state_.lost.end()) {
                continue;
            }
            const auto place = static_cast<std::size_t>(at - state_.lost.begin());
            if (const auto stamp = stampAt(example.target); !stamp) {
                state_.reasons[place] = stamp.error().sentence;
                continue;
            }
            const auto candidate = state_.candidateAt(example.target);
            addNeighbours(example, *at);
            const auto rule = ruleOfExample(*at, state_.candidates[candidate]);
            std::optional<std::size_t> index;
            if (rule && !isOff(*rule)) {
                index = state_.indexOf(*rule);
                state_.shownRules.push_back(*index);
            }
            state_.linked[place] =
                FoundLink{candidate, Agreement::sameContent, 1, {"shown by you"}, index, true};
        }
    }

    /// What an example's tree holds need not be catalogued.
    void addNeighbours(const RelinkExample& example, const LostPlace& lost) {
        const auto rule = ruleOfExample(lost, state_.candidates[state_.candidateAt(example.target)]);
        if (rule) {
            ShownFolder folder(rule->to, control_);
            auto wanted = wantedFiles();
            for (std::size_t at = 0; at < state_.lost.size(); ++at) {
                addWanted(wanted, at, *rule);
            }
            folder.open(state_.candidates, wanted, onProgress_);
        }
    }

    /// Looks in a folder as long as what was found there tells of more.
    Outcome lookIn(const BytePath& path) {
        ShownFolder folder(path, control_);
        while (folder.open(state_.candidates, wantedFiles(), onProgress_) > 0 && control_.proceed()) {
            if (const auto looked = look(); !looked) {
                return looked;
            }
        }
        return done();
    }

    /// Names and contents of what is not linked, names also as the rules so far make them.
    WantedFiles wantedFiles() const {
        WantedFiles wanted;
        for (std::size_t at = 0; at < state_.lost.size(); ++at) {
            if (state_.linked[at]) {
                continue;
            }
            wanted.words.insert(withoutZeros(plainWords(stemOf(nameOf(state_.lost[at].path)))));
            for (const auto rule : state_.rulesFor(state_.lost[at])) {
                addWanted(wanted, at, state_.rules[rule]);
            }
            for (const auto& former : state_.lost[at].former) {
                wanted.contents[former.size][former.content].push_back(state_.lost[at].path);
            }
        }
        return wanted;
    }

    void addWanted(WantedFiles& wanted, std::size_t at, const RelinkRule& rule) const {
        const auto name =
            state_.linked[at] || rule.naming.isKept() ? std::nullopt : nameBy(rule.naming, state_.lost[at]);
        if (name && !name->empty()) {
            (rule.naming.hasAnotherNumber() ? wanted.wordsAlone : wanted.words).insert(*name);
        }
    }

    /// One look at everything that is not linked yet: content, the rules of that, names, the rules of those.
    Outcome look() {
        std::vector<RelinkVote> certain;
        std::map<std::size_t, std::vector<FoundLink>> byContent;
        for (std::size_t at = 0; at < state_.lost.size(); ++at) {
            if (!state_.linked[at]) {
                auto links = contentLinks(state_.lost[at]);
                RETURN_IF_FAILED(links);
                for (const auto& link : *links) {
                    certain.push_back({at, link.candidate, Agreement::sameContent, true});
                }
                if (!links->empty()) {
                    byContent.emplace(at, std::move(*links));
                }
            }
        }
        takeRules(certain);
        for (auto& [at, links] : byContent) {
            state_.linked[at] = bestOf(at, std::move(links));
        }
        applyRules();
        std::vector<RelinkVote> names;
        for (std::size_t at = 0; at < state_.lost.size(); ++at) {
            if (!state_.linked[at]) {
                addNameVotes(state_, at, names);
            }
        }
        takeRules(names);
        applyRules();
        return done();
    }

    Result<std::vector<FoundLink>> contentLinks(const LostPlace& lost) {
        std::vector<FoundLink> links;
        const auto add = [&](std::size_t candidate, double confidence, std::string evidence) {
            const bool isNew = std::ranges::none_of(
                links, [&](const FoundLink& link) { return link.candidate == candidate; });
            if (isNew && links.size() < mostAsked && state_.candidates[candidate].path != lost.path &&
                state_.mayLeadTo(lost, state_.candidates[candidate])) {
                links.push_back(
                    {candidate, Agreement::sameContent, confidence, {std::move(evidence)}, {}, false});
            }
        };
        for (const auto& former : lost.former) {
            if (const auto moved = state_.candidates.holding(former.id);
                moved && state_.candidates[*moved].content == former.content) {
                add(*moved, 1, "the catalogue has seen this file move");
            }
            for (const auto at : state_.candidates.carrying(former.content)) {
                add(at, 1, "the same bytes as what was catalogued there");
            }
        }
        if (!links.empty()) {
            return links;
        }
        for (const auto& former : lost.former) {
            const auto relatives = FormerPlaces(catalogue_).relativesOf(former.id);
            RETURN_IF_FAILED(relatives);
            for (const auto& relative : *relatives) {
                const auto at = state_.candidates.holding(relative.id);
                if (!at) {
                    continue;
                }
                if (relative.sameAudio) {
                    add(*at, 0.99, "the same audio data as what was catalogued there");
                    continue;
                }
                const auto pair = RecordingPairs(catalogue_).of(relative.ownPayload, relative.otherPayload);
                RETURN_IF_FAILED(pair);
                const auto sameness = *pair
                                          ? samenessOf(**pair, former.seconds, state_.candidates[*at].seconds)
                                          : std::optional<Sameness>();
                if (sameness && *sameness <= Sameness::lossyCopy) {
                    add(*at, 0.96, "compared with what was catalogued there: " + samenessWords(*sameness));
                }
            }
        }
        return links;
    }

    void takeRules(std::span<const RelinkVote> votes) {
        for (const auto& rule : inferRules(state_.lost, state_.candidates, votes, below_)) {
            if (!isOff(rule)) {
                state_.indexOf(rule);
            }
        }
    }

    /// Of several files with the right content the one that a rule leads to, else the one that lies nearest.
    FoundLink bestOf(std::size_t at, std::vector<FoundLink> links) {
        const auto& lost = state_.lost[at];
        for (const auto rule : state_.rulesFor(lost)) {
            for (const auto target : targetsOf(state_.rules[rule], lost, state_.candidates)) {
                const auto found = std::ranges::find(links, target, &FoundLink::candidate);
                if (found != links.end()) {
                    found->rule = rule;
                    return *found;
                }
            }
        }
        for (const auto rule : state_.rulesFor(lost)) {
            const auto found = std::ranges::find_if(links, [&](const FoundLink& link) {
                return leadsInto(state_.rules[rule], lost, state_.candidates[link.candidate]);
            });
            if (found != links.end()) {
                found->rule = rule;
                return *found;
            }
        }
        return *std::ranges::max_element(links, {}, [&](const FoundLink& link) {
            const auto& path = state_.candidates[link.candidate].path;
            return std::tuple(link.confidence, endingOf(path) == endingOf(lost.path),
                              commonFolder(path, lost.path).size());
        });
    }

    void applyRules() {
        for (std::size_t at = 0; at < state_.lost.size(); ++at) {
            if (!state_.linked[at] ||
                (state_.linked[at]->rule == std::nullopt && !state_.linked[at]->shown)) {
                applyRulesTo(at);
            }
        }
    }

    void applyRulesTo(std::size_t at) {
        const auto& lost = state_.lost[at];
        std::vector<FoundLink> proposals;
        for (const auto rule : state_.rulesFor(lost)) {
            for (const auto target : targetsOf(state_.rules[rule], lost, state_.candidates)) {
                if (!state_.mayLeadTo(lost, state_.candidates[target])) {
                    continue;
                }
                auto judged = judge(lost, state_.candidates[target]);
                if (judged.agreement == Agreement::contradicts) {
                    ++state_.contradicted[rule];
                    state_.reasons[at] =
                        fmt::format("{} has the name and is {}", displayPath(state_.candidates[target].path),
                                    judged.evidence.back());
                } else if (judged.agreement == Agreement::doubtful) {
                    state_.asked[at].push_back(target);
                } else {
                    judged.evidence.insert(judged.evidence.begin(), fmt::format("where the rule {} leads",
                                                                                wordsOf(state_.rules[rule])));
                    const double silent = judged.agreement == Agreement::silent ? 0.97 : 1;
                    proposals.push_back({target, judged.agreement, state_.rules[rule].confidence * silent,
                                         std::move(judged.evidence), rule, false});
                }
            }
        }
        if (proposals.empty() || state_.linked[at]) {
            return; // what is certain by content stays as it is
        }
        std::ranges::stable_sort(proposals, std::ranges::greater{}, [&](const FoundLink& link) {
            return std::tuple(state_.isShown(*link.rule), link.agreement);
        });
        const auto& best = proposals.front();
        for (const auto& other : proposals) {
            const bool rivals = other.candidate != best.candidate && other.agreement == best.agreement &&
                                state_.isShown(*other.rule) == state_.isShown(*best.rule) &&
                                !state_.haveSameContent(other.candidate, best.candidate);
            if (rivals) {
                for (const auto& each : proposals) {
                    state_.asked[at].push_back(each.candidate);
                }
                return;
            }
        }
        state_.linked[at] = best;
    }

    const Catalogue& catalogue_;
    const RelinkRequest& request_;
    RunControl& control_;
    const ProgressSink& onProgress_;
    RelinkState state_;
    PlacesBelow below_; ///< by folder
};

} // namespace

Result<Relinking> whatIsLost(const Catalogue& catalogue) {
    auto lost = lostPlaces(catalogue);
    RETURN_IF_FAILED(lost);
    Relinking all;
    all.references = lost->all;
    all.resolvedBefore = all.resolvedAfter = lost->resolved;
    for (std::size_t at = 0; at < lost->places.size(); ++at) {
        all.unresolved.push_back({at, {}});
    }
    all.broken = std::move(lost->references);
    all.brokenOf = std::move(lost->byPlace);
    all.lost = std::move(lost->places);
    return all;
}

Result<Relinking> relink(const Catalogue& catalogue, const RelinkRequest& request, RunControl& control,
                         const ProgressSink& onProgress) {
    auto lost = lostPlaces(catalogue);
    RETURN_IF_FAILED(lost);
    auto candidates = lost->places.empty() ? Result(RelinkCandidates()) : RelinkCandidates::of(catalogue);
    RETURN_IF_FAILED(candidates);
    return Relinker(catalogue, request, control, onProgress, std::move(*lost), std::move(*candidates)).run();
}

Outcome planLinks(const Catalogue& catalogue, const Relinking& relinking, std::span<const RelinkLink> links) {
    std::vector<DocketAction> actions;
    for (const auto& link : links) {
        DocketAction action;
        action.kind = ActionKind::repoint;
        action.added = timeNow();
        action.place = relinking.lost[link.lost].path;
        action.target = link.target;
        for (const auto& words : link.evidence) {
            action.reason += action.reason.empty() ? "" : "; ";
            action.reason += words;
        }
        actions.push_back(std::move(action));
    }
    return DocketStore(catalogue).add(actions);
}

} // namespace sober
