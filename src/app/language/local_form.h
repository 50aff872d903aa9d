#pragma once

#include <QString>

namespace sober::app {

/// Figures and dates as the core writes them ("1,234", "1.24 GB", "29 Nov 2026", "29 Nov 2026, 14:05") in the
/// form of the default QLocale; all else as it is. In English as it was.
QString inLocalForm(const QString& text);

/// Whether that is the core's own form.
bool isAsTheCoreHasIt();

} // namespace sober::app
