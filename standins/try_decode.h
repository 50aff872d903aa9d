#pragma once

#include <string>

/// Opens a file as a player does and decodes its beginning. "" where sound comes out, else why not.
std::string whyNotPlayed(const std::string& path);
