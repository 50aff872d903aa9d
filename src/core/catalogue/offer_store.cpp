#include "core/catalogue/offer_store.h"

#include "core/catalogue/guarded.h"

namespace sober {

Result<std::optional<std::string>> OfferStore::shelf() const {
    return guarded(catalogue_, [&]() -> std::optional<std::string> {
        SQLite::Statement ask(catalogue_.database(), "SELECT address FROM offer_shelves");
        return ask.executeStep() ? std::optional(ask.getColumn(0).getString()) : std::nullopt;
    });
}

Outcome OfferStore::setShelf(const std::string& address) const {
    return catalogue_.together([&] {
        return guarded(catalogue_, [&] {
            catalogue_.database().exec("DELETE FROM offer_shelves");
            if (!address.empty()) {
                SQLite::Statement insert(catalogue_.database(),
                                         "INSERT INTO offer_shelves(address) VALUES(?)");
                insert.bind(1, address);
                insert.exec();
            }
        });
    });
}

} // namespace sober
