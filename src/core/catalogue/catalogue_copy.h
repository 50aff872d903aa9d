#pragma once

#include "core/base/run_control.h"
#include "core/catalogue/catalogue.h"

namespace sober {

/// Writes the catalogue as it is now into a file of its own, whole or not at all, while it is in use
/// (SQLite's online backup). Refuses a place that is taken.
Outcome saveCatalogue(const Catalogue& catalogue, const BytePath& to, RunControl& control,
                      const ProgressSink& onProgress);

/// The same of what is attached to it by a name; `to` is free.
Outcome saveDatabase(const Catalogue& catalogue, const char* schema, const BytePath& to, RunControl& control,
                     const ProgressSink& onProgress);

/// Makes the catalogue what a saved one was, after keeping what it is now beside it; yields where that is.
/// What was done on the volumes since is not undone by this: a survey has to look what is there. Refuses what
/// is no whole catalogue of ours, or a newer program's.
Result<BytePath> bringCatalogueBack(Catalogue& catalogue, const BytePath& from, RunControl& control,
                                    const ProgressSink& onProgress);

/// For an older catalogue that is about to be brought up to date: what it was, beside it as
/// "NAME.before-17", of which the last is kept.
Outcome saveBeforeUpdate(SQLite::Database& database, const BytePath& path, std::size_t version);

} // namespace sober
