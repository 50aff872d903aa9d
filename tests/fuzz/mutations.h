#pragma once

#include <cstdint>
#include <random>
#include <string>
#include <vector>

/// Where something begins that a parser goes by: four letters of a chunk, box or page, or the sync word of a
/// frame.
std::vector<std::size_t> landmarksOf(const std::string& bytes);

/// Another file like this one, changed where its structure is: lengths beside landmarks become the least and
/// the largest there are, parts between landmarks are taken out, doubled, exchanged or cut off, and some bytes
/// become others.
std::string mutated(std::string bytes, std::mt19937_64& random);

/// All files below a folder, each its beginning and its end of so many bytes at most.
std::vector<std::string> seedsBelow(const std::string& folder, std::size_t mostBytes);
