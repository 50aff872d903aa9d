#include "core/audit/set_knowledge.h"

#include <algorithm>
#include <array>

namespace sober {
namespace {

constexpr double losslessQuality = 1e7;
constexpr double doubtfulLossless = 300'000; // as good as a high lossy rate, which it may be
constexpr double unknownSource = 192'000;
constexpr double generationLoss = 0.9;
constexpr double doubtfulShare = 0.6;
/// Of more members the chains are not followed: they are copies of few contents at any rate.
constexpr std::size_t mostChained = 64;

/// What follows of the first and the third from comparing each with the second. What would be left after
/// subtracting is not known: residual 0 stands for that.
DecodeComparison inTurn(const DecodeComparison& first, const DecodeComparison& second) {
    DecodeComparison both;
    both.offset = first.offset + second.offset;
    both.drift = first.drift + second.drift;
    both.gain = first.gain + second.gain;
    both.spread = std::max(first.spread, second.spread);
    both.agreeing = std::min(first.agreeing, second.agreeing);
    both.compared = std::min(first.compared, second.compared);
    both.standsOver =
        first.standsOver < 0 || second.standsOver < 0 ? -1 : first.standsOver + second.standsOver;
    both.firstSide = first.firstSide;
    both.secondSide = second.secondSide;
    return both;
}

} // namespace

double asLayerIII(const std::string& codec, double bitrate) {
    struct Worth {
        std::string_view codec;
        double factor;
    };
    constexpr std::array<Worth, 6> worths{
        {{"aac", 1.25}, {"vorbis", 1.3}, {"opus", 1.6}, {"wma", 1.05}, {"ac3", 0.85}, {"mp2", 0.75}}};
    const auto known = std::ranges::find_if(
        worths, [&](const Worth& worth) { return std::string_view(codec).starts_with(worth.codec); });
    return bitrate * (known != worths.end() ? known->factor : 1.0);
}

Result<SetKnowledge> SetKnowledge::of(const Catalogue& catalogue, std::span<const Holding> members) {
    SetKnowledge knowledge;
    const bool alike = std::ranges::all_of(
        members, [&](const Holding& member) { return member.checksum == members.front().checksum; });
    if (members.empty() || alike) {
        return knowledge;
    }
    const EvidenceStore store(catalogue);
    const RecordingPairs pairs(catalogue);
    for (const auto& member : members) {
        auto evidence = store.of(member.id);
        const auto acceptance = store.acceptanceOf(member.id);
        if (!evidence || !acceptance) {
            return evidence ? acceptance.error() : evidence.error();
        }
        MemberFacts facts;
        facts.accepted = acceptance->has_value();
        if (*evidence) {
            facts.examined = true;
            facts.evidence = std::move(**evidence);
        }
        knowledge.add(std::move(facts));
    }
    // Same bytes say the same of all, whether or not each was examined.
    for (std::size_t at = 0; at < members.size(); ++at) {
        for (std::size_t other = 0; other < members.size(); ++other) {
            if (!knowledge.facts_[at].examined && knowledge.facts_[other].examined &&
                members[at].checksum == members[other].checksum) {
                knowledge.facts_[at] = knowledge.facts_[other];
            }
        }
    }
    for (std::size_t first = 0; first < members.size(); ++first) {
        for (std::size_t second = first + 1; second < members.size(); ++second) {
            const auto& a = knowledge.facts_[first];
            const auto& b = knowledge.facts_[second];
            if (members[first].checksum == members[second].checksum) {
                knowledge.link(first, second, Sameness::bytes);
            } else if (!a.examined || !b.examined) {
                continue;
            } else if (a.evidence.payload == b.evidence.payload) {
                knowledge.link(first, second, Sameness::payload);
            } else if (a.evidence.samplesMd5 && a.evidence.samplesMd5 == b.evidence.samplesMd5) {
                knowledge.link(first, second, Sameness::samples);
            } else if (members.size() <= mostChained) {
                const auto pair = pairs.of(a.evidence.payload, b.evidence.payload);
                RETURN_IF_FAILED(pair);
                const auto sameness =
                    *pair ? samenessOf(**pair, a.evidence.seconds, b.evidence.seconds) : std::nullopt;
                if (sameness) {
                    knowledge.link(first, second, *sameness, (*pair)->comparison);
                }
            }
        }
    }
    knowledge.closeChains();
    return knowledge;
}

SetKnowledge SetKnowledge::ofPair(std::size_t first, std::size_t second) const {
    SetKnowledge pair;
    if (isEmpty()) {
        return pair;
    }
    pair.facts_ = {facts_[first], facts_[second]};
    if (const auto link = links_.find(std::minmax(first, second)); link != links_.end()) {
        pair.links_[{0, 1}] = link->second;
        pair.links_[{0, 1}].comparison = comparison(first, second);
    }
    return pair;
}

void SetKnowledge::link(std::size_t first, std::size_t second, Sameness sameness,
                        std::optional<DecodeComparison> comparison) {
    const bool proven = sameness <= Sameness::samples || comparison.has_value();
    links_[std::minmax(first, second)] = {sameness, std::move(comparison), proven, true, proven};
}

/// Where two were not compared, the chain of those that were: as strong as its weakest link.
void SetKnowledge::closeChains() {
    const std::size_t count = facts_.size();
    if (count > mostChained) {
        return;
    }
    for (std::size_t by = 0; by < count; ++by) {
        for (std::size_t first = 0; first < count; ++first) {
            for (std::size_t second = first + 1; second < count; ++second) {
                if (first == by || second == by) {
                    continue;
                }
                const auto one = between(first, by);
                const auto other = between(by, second);
                if (!one || !other) {
                    continue;
                }
                Link chain{std::max(*one, *other), std::nullopt, isProven(first, by) && isProven(by, second)};
                // What holds the same samples compares alike.
                if (*one <= Sameness::samples) {
                    chain.comparison = comparison(by, second);
                } else if (*other <= Sameness::samples) {
                    chain.comparison = comparison(first, by);
                } else if (const auto a = comparison(first, by), b = comparison(by, second); a && b) {
                    chain.comparison = inTurn(*a, *b);
                }
                chain.direct = false;
                chain.pairwise = (*one <= Sameness::samples && isProvenPairwise(by, second)) ||
                                 (*other <= Sameness::samples && isProvenPairwise(first, by));
                const auto known = links_.find({first, second});
                if (known == links_.end() || (!known->second.direct && isStronger(chain, known->second))) {
                    links_[{first, second}] = std::move(chain);
                }
            }
        }
    }
}

bool SetKnowledge::isStronger(const Link& one, const Link& other) {
    const auto strength = [](const Link& link) {
        const bool measured = link.comparison && link.comparison->residual < 0;
        return std::tuple(link.sameness, !link.proven, !link.pairwise, !measured, !link.comparison);
    };
    return strength(one) < strength(other);
}

std::optional<Sameness> SetKnowledge::between(std::size_t first, std::size_t second) const {
    const auto link = links_.find(std::minmax(first, second));
    return link != links_.end() ? std::optional(link->second.sameness) : std::nullopt;
}

bool SetKnowledge::isProven(std::size_t first, std::size_t second) const {
    const auto link = links_.find(std::minmax(first, second));
    return link != links_.end() && link->second.proven;
}

bool SetKnowledge::isProvenPairwise(std::size_t first, std::size_t second) const {
    const auto link = links_.find(std::minmax(first, second));
    return link != links_.end() && link->second.pairwise;
}

std::optional<DecodeComparison> SetKnowledge::comparison(std::size_t first, std::size_t second) const {
    const auto link = links_.find(std::minmax(first, second));
    if (link == links_.end() || !link->second.comparison) {
        return std::nullopt;
    }
    if (first < second) {
        return link->second.comparison;
    }
    return turned(RecordingPair{{}, {}, 0, 0, link->second.comparison}).comparison;
}

double SetKnowledge::quality(const Holding& member, std::size_t at) const {
    const auto& known = facts_[at];
    const auto& verdict = known.evidence.verdict;
    const double claimed = member.claims.lossless
                               ? losslessQuality
                               : asLayerIII(member.claims.codec, static_cast<double>(member.claims.bitrate));
    if (!known.examined || known.accepted) {
        return claimed;
    }
    if (verdict.verdict == VerdictClass::transcoded) {
        const double source =
            verdict.sourceBitrate > 0
                ? asLayerIII(verdict.sourceCodec, static_cast<double>(verdict.sourceBitrate))
                : unknownSource;
        return std::min(claimed, source * generationLoss);
    }
    if (verdict.verdict == VerdictClass::doubtful) {
        return member.claims.lossless ? doubtfulLossless : claimed * doubtfulShare;
    }
    return claimed;
}

int SetKnowledge::generations(const Holding& member, std::size_t at) const {
    const auto& trace = facts_[at].evidence.trace;
    const int own = member.claims.lossless ? 0 : 1;
    const bool earlier = trace.first.has_value() || (member.claims.lossless && trace.last.has_value());
    return own + (earlier ? 1 : 0);
}

} // namespace sober
