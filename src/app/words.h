#pragma once

#include "core/base/paths.h"
#include "core/base/text.h"

#include <QString>
#include <QUrl>

namespace sober::app {

/// UTF-8 from the core, for the screen.
inline QString shown(const std::string& text) {
    return QString::fromStdString(text);
}

/// A path's bytes for the screen; never to be turned back into a path.
inline QString shownPath(const BytePath& path) {
    return QString::fromStdString(displayPath(path));
}

/// What goes to the clipboard for a path.
inline QString copiedPath(const BytePath& path) {
    return QString::fromStdString(percentEncodeOffending(path));
}

/// A file: URL that keeps every byte of the path.
inline QUrl urlOf(const BytePath& path) {
    return QUrl::fromEncoded("file://" + QByteArray::fromStdString(path).toPercentEncoding("/"),
                             QUrl::StrictMode);
}

} // namespace sober::app
