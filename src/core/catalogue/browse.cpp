#include "core/catalogue/browse.h"

#include "core/catalogue/filter_clause.h"
#include "core/catalogue/guarded.h"

namespace sober {

Result<Browsed> browse(const Catalogue& catalogue, VolumeId volume, const BytePath& folder) {
    return guarded(catalogue, [&] {
        HoldingFilter below;
        below.volume = volume;
        below.folder = folder;
        const FilterClause clause(catalogue.database(), below);
        SQLite::Statement ask(
            catalogue.database(),
            "SELECT h.id, h.path, h.state, h.size, h.duration, h.troubled OR COALESCE(e.sound, 1) = 0, "
            "COALESCE(" +
                contradictedSql +
                ", 0), EXISTS(SELECT 1 FROM set_members m JOIN copy_sets s ON s.id = m.set_id WHERE "
                "m.holding "
                "= h.id AND s.sameness <> " +
                std::to_string(static_cast<int>(Sameness::tagsOnly)) +
                ") FROM holdings h LEFT JOIN evidence e ON e.holding = h.id WHERE h.state < 2 AND " +
                clause.sql() + " ORDER BY h.path");
        clause.bindTo(ask, 1);
        const std::size_t within = folder.empty() ? 0 : folder.size() + 1;
        Browsed found;
        while (ask.executeStep()) {
            const auto path = bytesOf(ask.getColumn(1));
            const auto slash = path.find('/', within);
            if (slash == BytePath::npos) {
                found.holdings.push_back(ask.getColumn(0).getInt64());
                continue;
            }
            // What lies in one folder follows each other: its slash is in all of them.
            const auto place = path.substr(0, slash);
            if (found.folders.empty() || found.folders.back().figures.path != place) {
                found.folders.emplace_back();
                found.folders.back().figures.volume = volume;
                found.folders.back().figures.path = place;
            }
            auto& [figures, seconds] = found.folders.back();
            const auto state = static_cast<HoldingState>(ask.getColumn(2).getInt());
            figures.missing += state == HoldingState::missing ? 1 : 0;
            if (state == HoldingState::present) {
                ++figures.holdings;
                figures.bytes += static_cast<std::uint64_t>(ask.getColumn(3).getInt64());
                seconds += ask.getColumn(4).getDouble();
                figures.troubled += ask.getColumn(5).getInt() != 0 ? 1 : 0;
                figures.claims += ask.getColumn(6).getInt() != 0 ? 1 : 0;
                figures.inSets += ask.getColumn(7).getInt() != 0 ? 1 : 0;
            }
        }
        return found;
    });
}

} // namespace sober
