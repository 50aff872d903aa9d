#include "core/catalogue/search.h"

#include "core/catalogue/filter_clause.h"
#include "core/catalogue/guarded.h"
#include "core/catalogue/volumes.h"

#include <algorithm>
#include <chrono>

namespace sober {
namespace {

constexpr auto moment = std::chrono::milliseconds(60);
constexpr std::size_t mostFirst = 200; // shown while the search goes on

/// What is needed to put hits in order: their paths one behind the other.
class Places {
  public:
    void add(const SearchHit& hit) {
        hits_.push_back(
            {hit.id, hit.volume, hit.state != HoldingState::present, paths_.size(), hit.path.size()});
        paths_ += hit.path;
    }
    std::vector<HoldingId> inOrder(const std::map<VolumeId, std::size_t>& ranks) {
        const auto key = [&](const Place& place) {
            const auto rank = ranks.find(place.volume);
            return std::tuple(place.gone, rank != ranks.end() ? rank->second : ranks.size(),
                              std::string_view(paths_).substr(place.at, place.size));
        };
        std::ranges::sort(hits_, {}, key);
        std::vector<HoldingId> ids;
        ids.reserve(hits_.size());
        std::ranges::transform(hits_, std::back_inserter(ids), &Place::id);
        return ids;
    }

  private:
    struct Place {
        HoldingId id;
        VolumeId volume;
        bool gone;
        std::size_t at;
        std::size_t size;
    };
    std::vector<Place> hits_;
    std::string paths_;
};

} // namespace

Outcome eachHit(const Catalogue& catalogue, const HoldingFilter& filter,
                const std::function<bool(const SearchHit&)>& visit) {
    return guarded(catalogue, [&] {
        const TextMatch match(catalogue.database(), filter.text);
        HoldingFilter others = filter;
        others.text.clear();
        const FilterClause clause(catalogue.database(), others);
        // SQLite keeps the order of a cross join: what the index gives in order of ids is looked at one by
        // one.
        const bool indexed = !match.expression().empty();
        std::string from = indexed
                               ? "search_index i CROSS JOIN search_texts t ON t.holding = i.rowid CROSS JOIN "
                                 "holdings h ON h.id = t.holding"
                           : match.isEmpty() ? "holdings h"
                                             : "search_texts t CROSS JOIN holdings h ON h.id = t.holding";
        SQLite::Statement ask(catalogue.database(), "SELECT h.id, h.volume, h.state, h.path FROM " + from +
                                                        " LEFT JOIN evidence e ON e.holding = h.id WHERE " +
                                                        (indexed ? "i.search_index MATCH ? AND " : "") +
                                                        match.sql() + " AND " + clause.sql() + " ORDER BY " +
                                                        (indexed           ? "i.rowid"
                                                         : match.isEmpty() ? "h.id"
                                                                           : "t.holding"));
        int at = 1;
        if (indexed) {
            ask.bind(at++, match.expression());
        }
        clause.bindTo(ask, match.bindTo(ask, at));
        while (ask.executeStep()) {
            const auto path = ask.getColumn(3);
            if (!visit({ask.getColumn(0).getInt64(),
                        ask.getColumn(1).getInt64(),
                        static_cast<HoldingState>(ask.getColumn(2).getInt()),
                        {static_cast<const char*>(path.getBlob()),
                         static_cast<std::size_t>(path.getBytes())}})) {
                return;
            }
        }
    });
}

Result<SearchResult> search(const Catalogue& catalogue, const HoldingFilter& filter, RunControl& control,
                            const std::function<void(const std::vector<HoldingId>&)>& onFirst) {
    const auto volumes = Volumes(catalogue).all();
    RETURN_IF_FAILED(volumes);
    std::map<VolumeId, std::size_t> ranks;
    for (const auto& volume : *volumes) {
        ranks.emplace(volume.id, ranks.size());
    }
    SearchResult result;
    Places places;
    std::vector<HoldingId> first;
    bool told = false;
    const auto began = std::chrono::steady_clock::now();
    const auto looked = eachHit(catalogue, filter, [&](const SearchHit& hit) {
        places.add(hit);
        result.present += hit.state == HoldingState::present ? 1 : 0;
        const auto slash = hit.path.find('/');
        ++result.folders[{hit.volume, BytePath(slash == std::string_view::npos ? std::string_view()
                                                                               : hit.path.substr(0, slash))}];
        if (!told && hit.state == HoldingState::present && first.size() < mostFirst) {
            first.push_back(hit.id);
        }
        if (!told && !first.empty() && std::chrono::steady_clock::now() - began > moment) {
            told = true;
            onFirst(first);
        }
        return !control.isCancelled();
    });
    if (control.isCancelled()) {
        return Error{Cause::interrupted, {}, "The search was given up."};
    }
    RETURN_IF_FAILED(looked);
    result.ids = places.inOrder(ranks);
    return result;
}

} // namespace sober
