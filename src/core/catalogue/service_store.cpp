#include "core/catalogue/service_store.h"

#include "core/catalogue/guarded.h"

namespace sober {
namespace {

constexpr const char* serviceWords[]{"offer-shelf", "rip-register", "disc-lookup"};

const char* wordOf(ServiceKind kind) {
    return serviceWords[static_cast<std::size_t>(kind)];
}

} // namespace

Result<std::optional<std::string>> ServiceStore::address(ServiceKind kind) const {
    return guarded(catalogue_, [&]() -> std::optional<std::string> {
        SQLite::Statement ask(catalogue_.database(), "SELECT address FROM services WHERE kind = ?");
        ask.bind(1, wordOf(kind));
        return ask.executeStep() ? std::optional(ask.getColumn(0).getString()) : std::nullopt;
    });
}

Outcome ServiceStore::setAddress(ServiceKind kind, const std::string& address) const {
    return guarded(catalogue_, [&] {
        SQLite::Statement change(catalogue_.database(),
                                 address.empty()
                                     ? "DELETE FROM services WHERE kind = ?1"
                                     : "INSERT OR REPLACE INTO services(kind, address) VALUES(?1, ?2)");
        change.bind(1, wordOf(kind));
        if (!address.empty()) {
            change.bind(2, address);
        }
        change.exec();
    });
}

} // namespace sober
