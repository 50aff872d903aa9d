#pragma once

#include <optional>
#include <string>
#include <string_view>

namespace sober {

/// A file name or path exactly as the file system holds it: bytes, no encoding implied, never
/// holding NUL. Anything shown to a person goes through text.h first.
using BytePath = std::string;

/// `folder` + '/' + `name`, without doubling the slash; an empty side yields the other.
BytePath joinPath(std::string_view folder, std::string_view name);

/// What stands before the last slash ("" where there is none, "/" for a child of the root).
std::string_view parentOf(std::string_view path);

/// What stands after the last slash.
std::string_view nameOf(std::string_view path);

/// The ending after the last dot of the name, without the dot, ASCII letters lowered; "" where none.
std::string endingOf(std::string_view path);

/// The name without its ending.
std::string_view stemOf(std::string_view path);

/// How many folders lie above the name in a relative path: 0 for "a.flac", 1 for "x/a.flac".
int depthOf(std::string_view relative);

/// True where `path` is `folder` itself or lies below it. Both absolute and without "." or "..".
bool isWithin(std::string_view path, std::string_view folder);

/// `path` relative to `folder`; nothing where it does not lie within. "" for the folder itself.
std::optional<BytePath> relativeTo(std::string_view path, std::string_view folder);

/// The absolute path with every symbolic link of its *parent* resolved, the last name kept as it
/// is (so a link or a vanished file can be named). Nothing where the parent does not exist.
std::optional<BytePath> placeOf(std::string_view path);

/// The absolute path with every symbolic link resolved; nothing where it does not exist.
std::optional<BytePath> realPathOf(std::string_view path);

} // namespace sober
