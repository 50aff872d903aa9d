#pragma once

#include "app/language/language.h"
#include "core/base/paths.h"
#include "core/base/text.h"
#include "core/catalogue/records.h"

#include <QLocale>
#include <QString>
#include <QUrl>

namespace sober::app {

/// A name, title or other text that is data, for the screen; what the core says is told().
inline QString shown(const std::string& text) {
    return QString::fromStdString(text);
}

/// A standing list's name: of those that every catalogue begins with in the language, else as it was given.
inline QString listName(const std::string& name) {
    const bool isOurs =
        name == "lossless claims, doubtful or worse" || name == "under the limit, better copy elsewhere";
    return isOurs ? told(name) : shown(name);
}

/// A volume where it is named in a list or picture: its label, and the running number that is written on the
/// drive.
inline std::string numberedLabel(const Volume& volume) {
    return volume.label + " (" + std::to_string(volume.id) + ")";
}
inline QString volumeName(const Volume& volume) {
    return QString::fromStdString(numberedLabel(volume));
}

/// A figure with that many decimals, in the form of the language.
inline QString figure(double value, int decimals) {
    return QLocale().toString(value, 'f', decimals);
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
