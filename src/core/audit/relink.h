#pragma once

#include "core/audit/relink_rules.h"
#include "core/catalogue/player_store.h"

namespace sober {

/// "What was here is there": given by hand.
struct RelinkExample {
    BytePath lost;
    BytePath target;
};

struct RelinkRequest {
    std::vector<BytePath> near; ///< folders to look in, the nearest first
    std::vector<RelinkExample> examples;
    std::vector<RelinkRule> switchedOff; ///< rules that are not to be used
};

/// What a lost place is linked to.
struct RelinkLink {
    std::size_t lost = 0; ///< into Relinking::lost
    BytePath target;
    HoldingId holding = 0; ///< 0: not catalogued
    double confidence = 0; ///< 0 to 1
    std::vector<std::string> evidence;
    std::optional<std::size_t> rule; ///< into Relinking::rules
};

/// A lost place with several files that may be it, or one that is not certain enough: asked, never guessed.
struct RelinkChoice {
    std::size_t lost = 0;
    std::vector<RelinkCandidate> candidates; ///< the most plausible first
    std::vector<Judgement> judgements;       ///< in their order
};

struct Unresolved {
    std::size_t lost = 0;
    std::string reason; ///< "" where nothing of that name was met
};

/// What was found out about all references that lead nowhere. Counts are of references; lost places may have
/// several.
struct Relinking {
    std::uint64_t references = 0; ///< to files, without what is written off
    std::uint64_t resolvedBefore = 0;
    std::uint64_t resolvedAfter = 0; ///< once all links are carried out
    std::vector<LostPlace> lost;
    std::vector<RelinkRule> rules; ///< that link something, most first
    std::vector<RelinkLink> links;
    std::vector<RelinkChoice> ambiguous;
    std::vector<Unresolved> unresolved;
    std::vector<Reference> broken;                  ///< the references that lead to lost places, by place
    std::vector<std::vector<std::size_t>> brokenOf; ///< by lost place: into `broken`
    bool interrupted = false;
};

/// What is lost, before it is looked for: all of it unresolved. Quick, as `relink` is not.
Result<Relinking> whatIsLost(const Catalogue& catalogue);

/// Looks for the targets of all broken references: by what the catalogue has seen there, then by rules that
/// the certain links and the names speak for, then in the folders of the request. Writes nothing. Players
/// have to be read before.
Result<Relinking> relink(
    const Catalogue& catalogue, const RelinkRequest& request, RunControl& control,
    const ProgressSink& onProgress = [](const Progress&) {});

/// Puts links on the docket as repoints. Nothing on a volume changes.
Outcome planLinks(const Catalogue& catalogue, const Relinking& relinking, std::span<const RelinkLink> links);

} // namespace sober
