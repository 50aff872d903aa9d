#pragma once

#include "core/catalogue/findings.h"
#include "core/catalogue/recording_pairs.h"

#include <optional>
#include <string>
#include <string_view>

namespace sober {

/// How two contents that were held against each other are the same; nothing where they are two recordings.
/// `firstSeconds` and `secondSeconds` are their lengths.
std::optional<Sameness> samenessOf(const RecordingPair& pair, double firstSeconds, double secondSeconds);

/// Whether fingerprints that differ in this share of their bits are taken for one recording, where nothing
/// else can be held against each other.
bool isOneRecordingByEar(double bitErrors);

/// Whether lengths (seconds) differ by no more than silence at the ends and encoders make them.
bool isSameLength(double firstSeconds, double secondSeconds);

/// As the command prints it: "bytes", "payload", "samples", "lossy-copy", "other-master", "part",
/// "only-tags".
std::string_view word(Sameness sameness);

/// "same bytes", "same recording, shorter or longer"…
std::string samenessWords(Sameness sameness);

/// What a comparison showed, in words: "3 dB quieter; differs at -26 dB".
std::string comparisonWords(const DecodeComparison& comparison);

} // namespace sober
