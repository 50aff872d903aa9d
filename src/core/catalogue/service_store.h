#pragma once

#include "core/catalogue/catalogue.h"

#include <optional>
#include <string>

namespace sober {

/// What may be asked over the network.
enum class ServiceKind {
    offerShelf,  ///< for better files
    ripRegister, ///< for what others got from the same disc
    discLookup,  ///< for what a disc is called
};

/// The services that the custodian has set up; no other is ever asked.
class ServiceStore {
  public:
    explicit ServiceStore(const Catalogue& catalogue) : catalogue_(catalogue) {}

    Result<std::optional<std::string>> address(ServiceKind kind) const;
    /// "" for none.
    Outcome setAddress(ServiceKind kind, const std::string& address) const;

  private:
    const Catalogue& catalogue_;
};

} // namespace sober
