#pragma once

#include "core/base/paths.h"

#include <QWidget>

#include <functional>

namespace sober::app {

/// Asks for a folder in a window of its own; `then` hears of it once it is chosen, unless `parent` is gone by
/// then.
void askForFolder(QWidget* parent, const QString& title, std::function<void(const BytePath&)> then);

} // namespace sober::app
