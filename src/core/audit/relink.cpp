#include "core/audit/relink.h"

#include "core/audit/lost_places.h"
#include "core/audit/sameness.h"
#include "core/audit/shown_folder.h"
#include "core/base/text.h"
#include "core/catalogue/docket_store.h"
#include "core/catalogue/recording_pairs.h"

#include <fmt/format.h>

#include <algorithm>
#include <array>
#include <cmath>
#include <map>

namespace sober {
namespace {

constexpr std::size_t mostNamesakes = 32; ///< more files of one name say nothing
constexpr std::size_t mostAsked = 8;

/// Names that devices and programs give to anything.
bool isGeneric(std::string_view stem) {
    std::string letters;
    for (const char c : lettersAndDigits(stem)) {
        if (c < '0' || c > '9') {
            letters += c;
        }
    }
    constexpr std::array<std::string_view, 6> generic{"track",   "audiotrack", "untitled",
                                                      "unknown", "recording",  "audio"};
    return letters.size() < 4 || std::ranges::find(generic, letters) != generic.end();
}

class Relinker {
  public:
    Relinker(const Catalogue& catalogue, const RelinkRequest& request, RunControl& control,
             const ProgressSink& onProgress, LostPlaces lost, RelinkCandidates candidates)
        : catalogue_(catalogue),
          request_(request),
          control_(control),
          onProgress_(onProgress),
          gathered_(std::move(lost)),
          lost_(gathered_.places),
          candidates_(std::move(candidates)),
          below_(placesBelow(lost_)),
          linked_(lost_.size()),
          asked_(lost_.size()),
          reasons_(lost_.size()) {}

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
        takeSingles();
        askWhereTwoClaimOne();
        distrustContradicted();
        return result();
    }

  private:
    struct Link {
        std::size_t candidate = 0;
        Agreement agreement = Agreement::silent;
        double confidence = 0;
        std::vector<std::string> evidence;
        std::optional<std::size_t> rule;
        bool shown = false; ///< by an example
    };

    bool mayLeadTo(const LostPlace& lost, const RelinkCandidate& candidate) const {
        return lost.within.empty() || isWithin(candidate.path, lost.within);
    }

    bool isOff(const RelinkRule& rule) const {
        return std::ranges::any_of(request_.switchedOff,
                                   [&](const RelinkRule& off) { return off.sameAs(rule); });
    }

    /// The rule's number; a new rule is added.
    std::size_t indexOf(const RelinkRule& rule) {
        const auto known =
            std::ranges::find_if(rules_, [&](const RelinkRule& each) { return each.sameAs(rule); });
        if (known != rules_.end()) {
            return static_cast<std::size_t>(known - rules_.begin());
        }
        rulesFrom_[rule.from].push_back(rules_.size());
        rules_.push_back(rule);
        contradicted_.push_back(0);
        return rules_.size() - 1;
    }

    void takeSpellings() {
        std::optional<RelinkRule> rule;
        for (const auto& lost : lost_) {
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
        for (std::size_t at = 0; at < lost_.size(); ++at) {
            if (lost_[at].nearly.empty()) {
                continue;
            }
            const auto candidate = candidateAt(lost_[at].nearly);
            const auto judged = judge(lost_[at], candidates_[candidate]);
            if (judged.agreement > Agreement::doubtful) {
                auto evidence = judged.evidence;
                evidence.insert(evidence.begin(), rule->grounds);
                linked_[at] =
                    Link{candidate, judged.agreement, 0.99, std::move(evidence), indexOf(*rule), false};
            }
        }
    }

    /// A file that is there, catalogued or not.
    std::size_t candidateAt(const BytePath& path) {
        if (const auto known = candidates_.at(path)) {
            return *known;
        }
        RelinkCandidate candidate;
        candidate.path = path;
        const auto stamp = stampAt(path);
        candidate.size = stamp ? stamp->size : 0;
        return candidates_.add(std::move(candidate));
    }

    void takeExamples() {
        for (const auto& example : request_.examples) {
            const auto at = std::ranges::find(lost_, example.lost, &LostPlace::path);
            if (at == lost_.end()) {
                continue;
            }
            const auto place = static_cast<std::size_t>(at - lost_.begin());
            if (const auto stamp = stampAt(example.target); !stamp) {
                reasons_[place] = stamp.error().sentence;
                continue;
            }
            const auto candidate = candidateAt(example.target);
            addNeighbours(example, *at);
            const auto rule = ruleOfExample(*at, candidates_[candidate]);
            std::optional<std::size_t> index;
            if (rule && !isOff(*rule)) {
                index = indexOf(*rule);
                shownRules_.push_back(*index);
            }
            linked_[place] = Link{candidate, Agreement::sameContent, 1, {"shown by you"}, index, true};
        }
    }

    /// What an example's tree holds need not be catalogued.
    void addNeighbours(const RelinkExample& example, const LostPlace& lost) {
        const auto rule = ruleOfExample(lost, candidates_[candidateAt(example.target)]);
        if (rule) {
            ShownFolder folder(rule->to, control_);
            auto wanted = wantedFiles();
            for (std::size_t at = 0; at < lost_.size(); ++at) {
                addWanted(wanted, at, *rule);
            }
            folder.open(candidates_, wanted, onProgress_);
        }
    }

    /// Looks in a folder as long as what was found there tells of more.
    Outcome lookIn(const BytePath& path) {
        ShownFolder folder(path, control_);
        while (folder.open(candidates_, wantedFiles(), onProgress_) > 0 && control_.proceed()) {
            if (const auto looked = look(); !looked) {
                return looked;
            }
        }
        return done();
    }

    /// Names and contents of what is not linked, names also as the rules so far make them.
    WantedFiles wantedFiles() const {
        WantedFiles wanted;
        for (std::size_t at = 0; at < lost_.size(); ++at) {
            if (linked_[at]) {
                continue;
            }
            wanted.words.insert(withoutZeros(plainWords(stemOf(nameOf(lost_[at].path)))));
            for (const auto rule : rulesFor(lost_[at])) {
                addWanted(wanted, at, rules_[rule]);
            }
            for (const auto& former : lost_[at].former) {
                wanted.contents[former.size][former.content].push_back(lost_[at].path);
            }
        }
        return wanted;
    }

    void addWanted(WantedFiles& wanted, std::size_t at, const RelinkRule& rule) const {
        const auto name = linked_[at] || rule.naming.isKept() ? std::nullopt : nameBy(rule.naming, lost_[at]);
        if (name && !name->empty()) {
            (rule.naming.hasAnotherNumber() ? wanted.wordsAlone : wanted.words).insert(*name);
        }
    }

    /// One look at everything that is not linked yet: content, the rules of that, names, the rules of those.
    Outcome look() {
        std::vector<RelinkVote> certain;
        std::map<std::size_t, std::vector<Link>> byContent;
        for (std::size_t at = 0; at < lost_.size(); ++at) {
            if (!linked_[at]) {
                auto links = contentLinks(lost_[at]);
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
            linked_[at] = bestOf(at, std::move(links));
        }
        applyRules();
        std::vector<RelinkVote> names;
        for (std::size_t at = 0; at < lost_.size(); ++at) {
            if (!linked_[at]) {
                addNameVotes(at, names);
            }
        }
        takeRules(names);
        applyRules();
        return done();
    }

    Result<std::vector<Link>> contentLinks(const LostPlace& lost) {
        std::vector<Link> links;
        const auto add = [&](std::size_t candidate, double confidence, std::string evidence) {
            const bool isNew =
                std::ranges::none_of(links, [&](const Link& link) { return link.candidate == candidate; });
            if (isNew && links.size() < mostAsked && candidates_[candidate].path != lost.path &&
                mayLeadTo(lost, candidates_[candidate])) {
                links.push_back(
                    {candidate, Agreement::sameContent, confidence, {std::move(evidence)}, {}, false});
            }
        };
        for (const auto& former : lost.former) {
            if (const auto moved = candidates_.holding(former.id);
                moved && candidates_[*moved].content == former.content) {
                add(*moved, 1, "the catalogue has seen this file move");
            }
            for (const auto at : candidates_.carrying(former.content)) {
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
                const auto at = candidates_.holding(relative.id);
                if (!at) {
                    continue;
                }
                if (relative.sameAudio) {
                    add(*at, 0.99, "the same audio data as what was catalogued there");
                    continue;
                }
                const auto pair = RecordingPairs(catalogue_).of(relative.ownPayload, relative.otherPayload);
                RETURN_IF_FAILED(pair);
                const auto sameness = *pair ? samenessOf(**pair, former.seconds, candidates_[*at].seconds)
                                            : std::optional<Sameness>();
                if (sameness && *sameness <= Sameness::lossyCopy) {
                    add(*at, 0.96, "compared with what was catalogued there: " + samenessWords(*sameness));
                }
            }
        }
        return links;
    }

    void takeRules(std::span<const RelinkVote> votes) {
        for (const auto& rule : inferRules(lost_, candidates_, votes, below_)) {
            if (!isOff(rule)) {
                indexOf(rule);
            }
        }
    }

    /// Rules whose folder a place lies in, the deepest first.
    std::vector<std::size_t> rulesFor(const LostPlace& lost) const {
        std::vector<std::size_t> found;
        for (BytePath folder(parentOf(lost.path)); !folder.empty(); folder = BytePath(parentOf(folder))) {
            if (const auto rules = rulesFrom_.find(folder); rules != rulesFrom_.end()) {
                found.insert(found.end(), rules->second.begin(), rules->second.end());
            }
            if (folder == "/") {
                break;
            }
        }
        return found;
    }

    /// Of several files with the right content the one that a rule leads to, else the one that lies nearest.
    Link bestOf(std::size_t at, std::vector<Link> links) {
        const auto& lost = lost_[at];
        for (const auto rule : rulesFor(lost)) {
            for (const auto target : targetsOf(rules_[rule], lost, candidates_)) {
                const auto found = std::ranges::find(links, target, &Link::candidate);
                if (found != links.end()) {
                    found->rule = rule;
                    return *found;
                }
            }
        }
        for (const auto rule : rulesFor(lost)) {
            const auto found = std::ranges::find_if(links, [&](const Link& link) {
                return leadsInto(rules_[rule], lost, candidates_[link.candidate]);
            });
            if (found != links.end()) {
                found->rule = rule;
                return *found;
            }
        }
        return *std::ranges::max_element(links, {}, [&](const Link& link) {
            const auto& path = candidates_[link.candidate].path;
            return std::tuple(link.confidence, endingOf(path) == endingOf(lost.path),
                              commonFolder(path, lost.path).size());
        });
    }

    bool isShown(std::size_t rule) const { return std::ranges::find(shownRules_, rule) != shownRules_.end(); }

    void applyRules() {
        for (std::size_t at = 0; at < lost_.size(); ++at) {
            if (!linked_[at] || (linked_[at]->rule == std::nullopt && !linked_[at]->shown)) {
                applyRulesTo(at);
            }
        }
    }

    void applyRulesTo(std::size_t at) {
        const auto& lost = lost_[at];
        std::vector<Link> proposals;
        for (const auto rule : rulesFor(lost)) {
            for (const auto target : targetsOf(rules_[rule], lost, candidates_)) {
                if (!mayLeadTo(lost, candidates_[target])) {
                    continue;
                }
                auto judged = judge(lost, candidates_[target]);
                if (judged.agreement == Agreement::contradicts) {
                    ++contradicted_[rule];
                    reasons_[at] = fmt::format("{} has the name and is {}",
                                               displayPath(candidates_[target].path), judged.evidence.back());
                } else if (judged.agreement == Agreement::doubtful) {
                    asked_[at].push_back(target);
                } else {
                    judged.evidence.insert(judged.evidence.begin(),
                                           fmt::format("where the rule {} leads", wordsOf(rules_[rule])));
                    const double silent = judged.agreement == Agreement::silent ? 0.97 : 1;
                    proposals.push_back({target, judged.agreement, rules_[rule].confidence * silent,
                                         std::move(judged.evidence), rule, false});
                }
            }
        }
        if (proposals.empty() || linked_[at]) {
            return; // what is certain by content stays as it is
        }
        std::ranges::stable_sort(proposals, std::ranges::greater{}, [&](const Link& link) {
            return std::tuple(isShown(*link.rule), link.agreement);
        });
        const auto& best = proposals.front();
        for (const auto& other : proposals) {
            const bool rivals = other.candidate != best.candidate && other.agreement == best.agreement &&
                                isShown(*other.rule) == isShown(*best.rule) &&
                                !haveSameContent(other.candidate, best.candidate);
            if (rivals) {
                for (const auto& each : proposals) {
                    asked_[at].push_back(each.candidate);
                }
                return;
            }
        }
        linked_[at] = best;
    }

    bool haveSameContent(std::size_t one, std::size_t other) const {
        return candidates_[one].content && candidates_[one].content == candidates_[other].content;
    }

    /// Files of that name that may be it.
    std::vector<std::pair<std::size_t, Judgement>> namesakes(std::size_t at, Agreement least) const {
        const auto& lost = lost_[at];
        const auto named = candidates_.named(foldedStem(lost.path));
        const auto parent = nameOf(parentOf(lost.path));
        std::vector<std::pair<std::size_t, Judgement>> found;
        for (const auto candidate : named) {
            const auto& file = candidates_[candidate];
            const bool isNear = named.size() <= mostNamesakes || nameOf(parentOf(file.path)) == parent;
            if (!isNear || file.path == lost.path || !mayLeadTo(lost, file)) {
                continue;
            }
            auto judged = judge(lost, file);
            if (judged.agreement >= least) {
                found.emplace_back(candidate, std::move(judged));
            }
            if (found.size() > mostNamesakes) {
                break;
            }
        }
        return found;
    }

    void addNameVotes(std::size_t at, std::vector<RelinkVote>& votes) const {
        const auto found = namesakes(at, Agreement::silent);
        const bool distinctive = found.size() == 1 && !isGeneric(stemOf(nameOf(lost_[at].path))) &&
                                 candidates_.named(foldedStem(lost_[at].path)).size() == 1;
        for (const auto& [candidate, judged] : found) {
            votes.push_back({at, candidate, judged.agreement, distinctive});
        }
    }

    /// One file of the name, length and tags agreeing, and no rule that says it should be elsewhere.
    void takeSingles() {
        for (std::size_t at = 0; at < lost_.size(); ++at) {
            if (linked_[at] || !asked_[at].empty()) {
                continue;
            }
            auto found = namesakes(at, Agreement::doubtful);
            if (found.empty()) {
                askByTags(at);
                continue;
            }
            if (found.size() == 1 && found.front().second.agreement == Agreement::agrees &&
                !isGeneric(stemOf(nameOf(lost_[at].path))) && rulesFor(lost_[at]).empty()) {
                auto evidence = std::move(found.front().second.evidence);
                evidence.insert(evidence.begin(), "the only file of that name");
                linked_[at] =
                    Link{found.front().first, Agreement::agrees, 0.9, std::move(evidence), {}, false};
                continue;
            }
            for (const auto& [candidate, judged] : found) {
                asked_[at].push_back(candidate);
            }
        }
    }

    /// Under another name, with the same title, performer and length: never more than asked.
    void askByTags(std::size_t at) {
        const auto& lost = lost_[at];
        const auto tagged = candidates_.titled(lost.title, lost.artist);
        for (const auto candidate : tagged.subspan(0, std::min(tagged.size(), mostNamesakes))) {
            if (mayLeadTo(lost, candidates_[candidate]) &&
                judge(lost, candidates_[candidate]).agreement == Agreement::agrees) {
                asked_[at].push_back(candidate);
            }
        }
    }

    void demote(std::size_t at) {
        asked_[at].push_back(linked_[at]->candidate);
        linked_[at].reset();
    }

    /// Two places that were two files cannot have become one, unless their content says so: then the names
    /// speak for one of them at most.
    void askWhereTwoClaimOne() {
        std::unordered_map<std::size_t, std::vector<std::size_t>> claims;
        for (std::size_t at = 0; at < lost_.size(); ++at) {
            if (linked_[at]) {
                claims[linked_[at]->candidate].push_back(at);
            }
        }
        std::vector<std::size_t> losing;
        for (const auto& [candidate, places] : claims) {
            for (const auto at : places) {
                if (std::ranges::any_of(places, [&](std::size_t other) { return losesTo(at, other); })) {
                    losing.push_back(at);
                }
            }
        }
        std::ranges::for_each(losing, [this](std::size_t at) { demote(at); });
    }

    /// Whether another place has the better right to the file that both are linked to, or as good a one.
    bool losesTo(std::size_t at, std::size_t other) const {
        const auto& own = *linked_[at];
        const auto& theirs = *linked_[other];
        const auto kindOf = [&](const Link& link) {
            return link.rule ? std::optional(rules_[*link.rule].kind) : std::nullopt;
        };
        // Two machines may have had one file under two prefixes.
        const bool twoTrees = own.rule != theirs.rule && kindOf(own) == RelinkRuleKind::folder &&
                              kindOf(theirs) == RelinkRuleKind::folder;
        const bool sameMeaning = foldedName(lost_[at].path) == foldedName(lost_[other].path);
        if (at == other || twoTrees || sameMeaning || kindOf(own) == RelinkRuleKind::spelling) {
            return false;
        }
        return own.agreement < theirs.agreement ||
               (own.agreement == theirs.agreement && own.agreement < Agreement::sameContent);
    }

    /// A rule that leads to another recording too often is no ground for what nothing else speaks for.
    void distrustContradicted() {
        std::vector<std::uint64_t> count(rules_.size());
        for (const auto& link : linked_) {
            if (link && link->rule) {
                ++count[*link->rule];
            }
        }
        for (std::size_t at = 0; at < lost_.size(); ++at) {
            if (linked_[at] && linked_[at]->rule && linked_[at]->agreement == Agreement::silent) {
                const auto rule = *linked_[at]->rule;
                if (contradicted_[rule] * 5 > count[rule] && !isShown(rule)) {
                    demote(at);
                }
            }
        }
    }

    Relinking result() {
        Relinking all;
        all.interrupted = control_.isCancelled();
        all.references = gathered_.all;
        all.resolvedBefore = gathered_.resolved;
        all.resolvedAfter = gathered_.resolved;
        for (std::size_t at = 0; at < lost_.size(); ++at) {
            if (linked_[at]) {
                addLink(all, at);
            } else if (!addChoice(all, at)) {
                all.unresolved.push_back({at, reasons_[at]});
            }
        }
        orderRules(all);
        all.broken = std::move(gathered_.references);
        all.brokenOf = std::move(gathered_.byPlace);
        all.lost = std::move(lost_);
        return all;
    }

    void addLink(Relinking& all, std::size_t at) {
        auto& link = *linked_[at];
        const auto& target = candidates_[link.candidate];
        all.resolvedAfter += lost_[at].references - gathered_.resolvedAnyway[at];
        all.links.push_back(
            {at, target.path, target.holding, link.confidence, std::move(link.evidence), link.rule});
    }

    bool addChoice(Relinking& all, std::size_t at) const {
        std::vector<std::pair<std::size_t, Judgement>> found;
        for (const auto candidate : asked_[at]) {
            if (std::ranges::none_of(found, [&](const auto& each) { return each.first == candidate; })) {
                found.emplace_back(candidate, judge(lost_[at], candidates_[candidate]));
            }
        }
        if (found.empty()) {
            return false;
        }
        std::ranges::stable_sort(found, std::ranges::greater{},
                                 [](const auto& each) { return each.second.agreement; });
        found.resize(std::min(found.size(), mostAsked));
        RelinkChoice choice;
        choice.lost = at;
        for (auto& [candidate, judged] : found) {
            choice.candidates.push_back(candidates_[candidate]);
            choice.judgements.push_back(std::move(judged));
        }
        all.ambiguous.push_back(std::move(choice));
        return true;
    }

    /// Those that link something, most first; a rule that holds everywhere is said of the folder it is used
    /// in.
    void orderRules(Relinking& all) const {
        std::vector<RelinkRule> used = rules_;
        for (const auto& link : all.links) {
            if (!link.rule) {
                continue;
            }
            ++used[*link.rule].count;
        }
        std::vector<std::size_t> order(used.size());
        for (std::size_t i = 0; i < order.size(); ++i) {
            order[i] = i;
        }
        std::ranges::stable_sort(order, std::ranges::greater{}, [&](std::size_t i) { return used[i].count; });
        std::vector<std::size_t> newIndex(used.size());
        for (std::size_t place = 0; place < order.size(); ++place) {
            newIndex[order[place]] = place;
            if (used[order[place]].count > 0) {
                all.rules.push_back(used[order[place]]);
            }
        }
        for (auto& link : all.links) {
            if (link.rule) {
                link.rule = newIndex[*link.rule];
            }
        }
    }

    const Catalogue& catalogue_;
    const RelinkRequest& request_;
    RunControl& control_;
    const ProgressSink& onProgress_;
    LostPlaces gathered_;
    std::vector<LostPlace>& lost_;
    RelinkCandidates candidates_;
    PlacesBelow below_; ///< by folder
    std::vector<RelinkRule> rules_;
    std::vector<std::uint64_t> contradicted_; ///< by rule
    std::vector<std::size_t> shownRules_;
    std::unordered_map<BytePath, std::vector<std::size_t>> rulesFrom_;
    std::vector<std::optional<Link>> linked_;
    std::vector<std::vector<std::size_t>> asked_;
    std::vector<std::string> reasons_;
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
