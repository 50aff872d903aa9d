#include "core/remedy/stand_ins.h"

#include "core/catalogue/evidence_store.h"
#include "core/catalogue/findings.h"
#include "core/catalogue/holdings.h"

#include <algorithm>

namespace sober {
namespace {

constexpr double padding = 1.5; // seconds that encoders and silence may add or take

} // namespace

Result<std::vector<Holding>> standInsFor(const Catalogue& catalogue, const Holding& holding,
                                         std::span<const Volume> volumes,
                                         const std::unordered_set<HoldingId>& going) {
    const Findings findings(catalogue);
    const EvidenceStore store(catalogue);
    const auto set = findings.setOf(holding.id);
    if (!set) {
        return set.error();
    }
    std::vector<Holding> found;
    if (!*set) {
        return found;
    }
    const auto own = store.of(holding.id);
    const auto ids = findings.membersOf((*set)->id);
    if (!own || !ids) {
        return own ? ids.error() : own.error();
    }
    const auto members = Holdings(catalogue).byIds(*ids);
    if (!members) {
        return members.error();
    }
    const double seconds = *own ? (*own)->seconds : holding.claims.duration;
    for (const auto& member : *members) {
        const auto volume = std::ranges::find(volumes, member.volume, &Volume::id);
        if (member.id == holding.id || going.contains(member.id) || member.state != HoldingState::present ||
            volume == volumes.end() || !volume->atHand) {
            continue;
        }
        const auto evidence = store.of(member.id);
        if (!evidence) {
            return evidence.error();
        }
        if (*evidence && (*evidence)->sound() && (*evidence)->seconds >= seconds - padding) {
            found.push_back(member);
        }
    }
    return found;
}

} // namespace sober
