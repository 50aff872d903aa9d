#pragma once

#include "core/base/paths.h"

#include <QWidget>

#include <functional>

namespace sober::app {

/// What is done with what was chosen in a window; not called where none was, or where the asker is gone by
/// then.
using OnPath = std::function<void(const BytePath&)>;

void askForFolder(QWidget* parent, const QString& title, OnPath then);
/// A file or a device; `startIn` is the folder that is shown first, "" leaves that open.
void askForFile(QWidget* parent, const QString& title, const BytePath& startIn, OnPath then);
/// What is to be written; that something stands there already is not asked about. `name` is offered.
void askWhereToWrite(QWidget* parent, const QString& title, const BytePath& startIn, OnPath then,
                     const QString& name = {});

} // namespace sober::app
