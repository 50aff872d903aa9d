#pragma once

#include "core/catalogue/catalogue.h"

#include <optional>
#include <string>

namespace sober {

/// The offer shelf that the custodian has set up; no other service is ever asked.
class OfferStore {
  public:
    explicit OfferStore(const Catalogue& catalogue) : catalogue_(catalogue) {}

    Result<std::optional<std::string>> shelf() const;
    /// "" for none.
    Outcome setShelf(const std::string& address) const;

  private:
    const Catalogue& catalogue_;
};

} // namespace sober
