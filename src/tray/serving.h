#pragma once

namespace sober {

/// What the program `sober-tray` does: opens one disc, a drive or an image by its cue sheet, and gives its
/// sectors, as it is asked over its standard input, which is a socket. Its exit status.
int serveAsTray();

} // namespace sober
