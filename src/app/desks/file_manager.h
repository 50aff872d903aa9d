#pragma once

#include "core/base/paths.h"

class QPoint;
class QWidget;

namespace sober::app {

/// Opens the folder that holds a file in the desktop's file manager.
void openFolderOf(const BytePath& path);
void copyPath(const BytePath& path);

/// The menu of one file: copy its path, open its folder.
void showFileMenu(QWidget& parent, const BytePath& path, const QPoint& at);

} // namespace sober::app
