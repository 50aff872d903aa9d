#include "core/catalogue/standing_lists.h"

#include "core/catalogue/guarded.h"

namespace sober {

Result<std::vector<StandingList>> StandingLists::all() const {
    return guarded(catalogue_, [&] {
        SQLite::Statement ask(catalogue_.database(),
                              "SELECT id, name, filter FROM standing_lists ORDER BY name");
        std::vector<StandingList> lists;
        while (ask.executeStep()) {
            if (const auto filter = filterFrom(ask.getColumn(2).getString())) {
                lists.push_back({ask.getColumn(0).getInt64(), ask.getColumn(1).getString(), *filter});
            }
        }
        return lists;
    });
}

Outcome StandingLists::keep(const std::string& name, const HoldingFilter& filter) const {
    if (name.empty()) {
        return Error{Cause::invalid, {}, "A list needs a name."};
    }
    return guarded(catalogue_, [&] {
        SQLite::Statement insert(catalogue_.database(),
                                 "INSERT INTO standing_lists(name, filter) VALUES(?,?) ON CONFLICT(name) DO "
                                 "UPDATE SET filter = excluded.filter");
        insert.bind(1, name);
        insert.bind(2, textOf(filter));
        insert.exec();
    });
}

Outcome StandingLists::remove(ListId list) const {
    return guarded(catalogue_, [&] {
        SQLite::Statement remove(catalogue_.database(), "DELETE FROM standing_lists WHERE id = ?");
        remove.bind(1, list);
        remove.exec();
    });
}

} // namespace sober
