#pragma once

namespace sober::test {

/// Runs the cases that Catch2's arguments choose.
/// Returns what the program is to exit with.
int runCases(int argc, char** argv);

} // namespace sober::test
