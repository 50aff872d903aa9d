#pragma once

#include "core/catalogue/catalogue.h"
#include "core/catalogue/holding_filter.h"

namespace sober {

using ListId = std::int64_t;

/// A filter that is kept by name: what it means is looked up anew whenever it is used.
struct StandingList {
    ListId id = 0;
    std::string name;
    HoldingFilter filter;
};

class StandingLists {
  public:
    explicit StandingLists(const Catalogue& catalogue) : catalogue_(catalogue) {}

    /// By name.
    Result<std::vector<StandingList>> all() const;
    /// Keeps a filter; a list of that name gets the new filter.
    Outcome keep(const std::string& name, const HoldingFilter& filter) const;
    Outcome remove(ListId list) const;

  private:
    const Catalogue& catalogue_;
};

} // namespace sober
