#pragma once

#include "core/base/paths.h"

#include <optional>
#include <string>
#include <vector>

namespace sober::app {

/// What the program was started with.
struct Arguments {
    BytePath catalogue;
    BytePath carried;             ///< the folder that the catalogue was carried along in; "" for none
    std::vector<BytePath> places; ///< absolute: folders to be surveyed, lists to be taken in
};

/// Where windows keep what was chosen in them: with a catalogue that is carried along, else the user's.
/// Before anything is kept.
void useSettingsOf(const BytePath& carried);

/// How large everything is shown, in per cent: as chosen in the View menu, from the next start on. Asked
/// before Qt is started; the words are as the program got them.
int sizeWanted(int argc, const char* const* argv);

/// Reads the words that Qt has left. Nothing where all is done with that (`--help`, `--version`,
/// `--describe`) or the words are wrong: `exitCode` says which.
std::optional<Arguments> readArguments(int argc, char** argv, int& exitCode);

} // namespace sober::app
