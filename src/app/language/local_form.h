#pragma once

#include <QString>

namespace sober::app {

/// A figure or date as the core writes it ("1,234", "1.24 GB", "3 h 05 min", "29 Nov 2026, 14:05") in the form of
/// the default QLocale. Text that is more than that is left alone: it may be a name, or somebody's own words.
QString inLocalForm(const QString& text);

/// Whether that is the core's own form.
bool isAsTheCoreHasIt();

} // namespace sober::app
