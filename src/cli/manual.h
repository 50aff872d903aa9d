#pragma once

#include "cli/describe.h"

namespace sober::cli {

/// What the manual of `sober` says beside its commands.
constexpr ManualPage manual{
    R"(Looks at a collection of audio files and carries out what was decided on it, without windows: for scripts, for
a check on a schedule, and for whoever likes to type. It works on the catalogue that sober-archivist keeps, and
keeps the same promises: nothing is changed before it is told, what is changed can be taken back, and the last
copy of a recording stays.

Text for a person goes to standard output; with --json exactly one JSON document does. Progress and errors go to
standard error.)",
    R"(.SH EXIT STATUS
.TP
0
Done; findings are no failures.
.TP
1
It could not be done.
.TP
2
It was asked for wrongly.
.TP
3
Done, but some files could not be read.
.TP
130
Interrupted; what was done is kept.
.SH FILES
.TP
.I ~/.local/share/sober\-archivist/
The catalogue, unless \fB\-\-catalogue\fR names another; below $XDG_DATA_HOME where that is set.
)",
    R"(sober\-archivist)"};

} // namespace sober::cli
