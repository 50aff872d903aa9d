#pragma once

#include "core/catalogue/catalogue.h"

#include <vector>

namespace sober {

/// A folder where new audio lands, and where it is filed.
struct Inbox {
    std::int64_t id = 0;
    BytePath folder; ///< absolute
    BytePath into;   ///< absolute
    std::string layout;
    BytePath latest =
        {}; ///< absolute: the list of the latest arrivals that is kept for a player; "" for none
};

class InboxStore {
  public:
    explicit InboxStore(const Catalogue& catalogue) : catalogue_(catalogue) {}

    /// By folder.
    Result<std::vector<Inbox>> all() const;
    /// One that is named already gets the new destination and layout. Cause::invalid where it lies within
    /// another or around one, or where what is filed would land in an inbox.
    Outcome keep(const Inbox& inbox) const;
    /// Cause::notFound where it is none.
    Outcome remove(const BytePath& folder) const;

  private:
    const Catalogue& catalogue_;
};

} // namespace sober
