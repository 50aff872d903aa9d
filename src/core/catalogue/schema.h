#pragma once

#include <cstdint>
#include <span>

namespace SQLite {
class Database;
}

namespace sober {

/// The application id in the SQLite header of every catalogue: "SoAr".
inline constexpr std::int32_t catalogueApplicationId = 0x536F4172;

/// The steps from an empty file to today's schema; step i leads from version i to i + 1. A step that
/// was released is never edited: a change is a new step.
std::span<const char* const> schemaSteps();

/// Takes the steps that a database has not taken, all or none. Throws what SQLiteCpp throws.
void bringUpToDate(SQLite::Database& database);

} // namespace sober
