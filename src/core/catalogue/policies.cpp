#include "core/catalogue/policies.h"

#include "core/catalogue/guarded.h"

#include <algorithm>

namespace sober {
namespace {

std::vector<Preference> preferencesOf(SQLite::Database& database, PolicyId policy) {
    SQLite::Statement ask(
        database, "SELECT kind, volume, folder FROM policy_preferences WHERE policy = ? ORDER BY place");
    ask.bind(1, policy);
    std::vector<Preference> preferences;
    while (ask.executeStep()) {
        preferences.push_back({static_cast<PreferenceKind>(ask.getColumn(0).getInt()),
                               ask.getColumn(1).getInt64(), ask.getColumn(2).getString()});
    }
    return preferences;
}

} // namespace

Result<std::vector<Policy>> Policies::all() const {
    return guarded(catalogue_, [&] {
        auto& database = catalogue_.database();
        SQLite::Statement ask(database,
                              "SELECT id, name, weakest, only_where_met FROM policies ORDER BY name");
        std::vector<Policy> policies;
        while (ask.executeStep()) {
            const PolicyId id = ask.getColumn(0).getInt64();
            policies.push_back({id, ask.getColumn(1).getString(), preferencesOf(database, id),
                                static_cast<Sameness>(ask.getColumn(2).getInt()),
                                ask.getColumn(3).getInt() != 0});
        }
        return policies;
    });
}

Result<std::optional<Policy>> Policies::named(const std::string& name) const {
    const auto policies = all();
    RETURN_IF_FAILED(policies);
    const auto found = std::ranges::find(*policies, name, &Policy::name);
    return found != policies->end() ? std::optional(*found) : std::nullopt;
}

Result<Policy> Policies::keep(Policy policy) const {
    if (policy.name.empty()) {
        return Error{Cause::invalid, {}, "A policy needs a name."};
    }
    return guarded(catalogue_, [&] {
        auto& database = catalogue_.database();
        WritingTransaction transaction(database);
        SQLite::Statement write(
            database,
            "INSERT INTO policies(name, weakest, only_where_met) VALUES(?,?,?) ON CONFLICT(name) DO "
            "UPDATE SET weakest = excluded.weakest, only_where_met = excluded.only_where_met "
            "RETURNING id");
        write.bind(1, policy.name);
        write.bind(2, static_cast<int>(policy.weakest));
        write.bind(3, policy.onlyWhereMet ? 1 : 0);
        write.executeStep();
        policy.id = write.getColumn(0).getInt64();
        write.reset();
        SQLite::Statement clear(database, "DELETE FROM policy_preferences WHERE policy = ?");
        clear.bind(1, policy.id);
        clear.exec();
        SQLite::Statement add(database, "INSERT INTO policy_preferences(policy, place, kind, volume, folder) "
                                        "VALUES(?,?,?,?,?)");
        for (std::size_t place = 0; place < policy.preferences.size(); ++place) {
            const auto& preference = policy.preferences[place];
            add.bind(1, policy.id);
            add.bind(2, static_cast<std::int64_t>(place));
            add.bind(3, static_cast<int>(preference.kind));
            add.bind(4, preference.volume);
            add.bind(5, preference.folder);
            add.exec();
            add.reset();
        }
        transaction.commit();
        return policy;
    });
}

Outcome Policies::remove(PolicyId policy) const {
    return guarded(catalogue_, [&] {
        WritingTransaction transaction(catalogue_.database());
        for (const char* sql :
             {"DELETE FROM policy_preferences WHERE policy = ?", "DELETE FROM policies WHERE id = ?"}) {
            SQLite::Statement remove(catalogue_.database(), sql);
            remove.bind(1, policy);
            remove.exec();
        }
        transaction.commit();
    });
}

} // namespace sober
