#include "core/audit/lineage.h"

#include <fmt/format.h>

#include <algorithm>
#include <cmath>
#include <numeric>

namespace sober {
namespace {

std::string inCapitals(std::string name) {
    std::ranges::transform(name, name.begin(),
                           [](unsigned char c) { return static_cast<char>(std::toupper(c)); });
    return name;
}

std::string codecWords(const Holding& member) {
    const auto& claims = member.claims;
    const std::string name = inCapitals(claims.codec.substr(0, claims.codec.find('_')));
    return claims.lossless ? fmt::format("{} {}/{:.4g}", name, claims.bitDepth, claims.sampleRate / 1000.0)
                           : fmt::format("{} {}", name, claims.bitrate / 1000);
}

/// Whether a member is of the kind that another's evidence names as its source.
bool isNamedBy(const Holding& source, const MemberFacts& facts) {
    const auto& verdict = facts.evidence.verdict;
    const auto bitrate = static_cast<double>(source.claims.bitrate);
    return !verdict.sourceCodec.empty() && !source.claims.lossless &&
           source.claims.codec.starts_with(verdict.sourceCodec) &&
           (verdict.sourceBitrate == 0 ||
            std::abs(std::log2(bitrate / static_cast<double>(verdict.sourceBitrate))) < 0.45);
}

class Tree {
  public:
    Tree(std::span<const Holding> members, const SetKnowledge& known, std::size_t preferred)
        : members_(members), known_(known), preferred_(preferred), order_(members.size()) {
        std::iota(order_.begin(), order_.end(), std::size_t{0});
        std::ranges::stable_sort(order_, [&](std::size_t a, std::size_t b) { return worth(a) > worth(b); });
    }

    std::vector<Descent> grow() const {
        std::vector<Descent> tree;
        for (std::size_t at = 0; at < order_.size(); ++at) {
            tree.push_back(at == 0 ? Descent{order_[0], std::nullopt, Sameness::bytes,
                                             codecWords(members_[order_[0]]), false}
                                   : descentOf(at));
        }
        return tree;
    }

  private:
    /// What can be made from what: better before worse, longer before shorter.
    std::tuple<bool, long, long, bool> worth(std::size_t member) const {
        const auto& facts = known_.facts(member);
        return {!facts.examined || facts.evidence.sound(),
                std::lround(8 * std::log2(std::max(1.0, known_.quality(members_[member], member)))),
                std::lround(facts.evidence.seconds), member == preferred_};
    }

    Descent descentOf(std::size_t place) const {
        const std::size_t member = order_[place];
        Descent descent{member, order_[0], Sameness::part, {}, false};
        double best = 0;
        for (std::size_t before = 0; before < place; ++before) {
            const std::size_t source = order_[before];
            const auto link = known_.between(source, member);
            if (!link) {
                continue;
            }
            const bool named = *link > Sameness::samples && isNamedBy(members_[source], known_.facts(member));
            const double rank = rankOf(source, member, *link) + (named ? 1000 : 0);
            if (rank > best) {
                best = rank;
                descent.from = source;
                descent.sameness = *link;
                descent.told = named;
            }
        }
        descent.words = wordsFor(descent);
        return descent;
    }

    /// The kind of link first; then what is left after subtraction, where it is clearly less than against the
    /// first member.
    double rankOf(std::size_t source, std::size_t member, Sameness link) const {
        constexpr double clearly = 6; // dB
        const auto left = leftBetween(source, member);
        const auto leftOfFirst = leftBetween(order_[0], member);
        const bool nearer = left && leftOfFirst && *left < *leftOfFirst - clearly;
        return 10 + 150 * (6 - static_cast<int>(link)) + (nearer ? std::min(-*left, 120.0) : 0);
    }

    std::optional<double> leftBetween(std::size_t source, std::size_t member) const {
        const auto comparison = known_.comparison(source, member);
        return comparison && comparison->residual < 0 ? std::optional(comparison->residual) : std::nullopt;
    }

    std::string wordsFor(const Descent& descent) const {
        const auto& member = members_[descent.member];
        switch (descent.sameness) {
        case Sameness::bytes:
            return "same bytes";
        case Sameness::payload:
            return "other tags or container";
        case Sameness::samples:
            return codecWords(member) + ", same samples";
        default:
            break;
        }
        const auto comparison = known_.comparison(*descent.from, descent.member);
        const std::string shows = comparison ? comparisonWords(*comparison) : std::string();
        const auto& verdict = known_.facts(descent.member).evidence.verdict;
        std::string made = descent.told ? " made from it" : "";
        if (!descent.told && verdict.verdict == VerdictClass::transcoded) {
            made = ", was " + inCapitals(verdict.sourceCodec) +
                   (verdict.sourceBitrate > 0 ? fmt::format(" {}", verdict.sourceBitrate / 1000) : "") +
                   " before";
        }
        return codecWords(member) + made + (shows.empty() ? "" : "; " + shows);
    }

    std::span<const Holding> members_;
    const SetKnowledge& known_;
    std::size_t preferred_;
    std::vector<std::size_t> order_; ///< of the members, what may be a source first
};

} // namespace

std::vector<Descent> lineageOf(std::span<const Holding> members, const SetKnowledge& known,
                               std::size_t preferred) {
    if (members.empty() || known.isEmpty()) {
        return {};
    }
    return Tree(members, known, preferred).grow();
}

} // namespace sober
