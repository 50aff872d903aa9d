#pragma once

#include "core/media/decode.h"
#include "support/temp_folder.h"

#include <vector>

namespace sober::test {

/// Hands samples made in memory to a sink, as a decode would, in blocks of odd length.
void feed(SampleSink& sink, const std::vector<float>& interleaved, int sampleRate, int channels);
/// The same from integers of a depth.
void feedIntegers(SampleSink& sink, const std::vector<std::int32_t>& interleaved, int channels, int bitDepth);

/// White noise of a standard deviation (full scale 1), one channel, always the same.
std::vector<float> whiteNoise(std::size_t frames, float deviation, unsigned seed = 1);

/// True where scripts/long-tests runs the tests: what takes long is done whole, and not by a sample.
bool longForm();

/// Runs the ffmpeg tool with these words after the usual ones; fails the test where it fails.
void ffmpeg(std::vector<std::string> words);

/// Writes `seconds` of music by the demo's synthesiser: full-band, 44.1 kHz, stereo.
void writeMusic(const BytePath& path, unsigned seed, double seconds);

/// A real recording from Debian's sonic-pi-samples package (FLAC, 44.1 kHz), for what must hold on
/// sounds that we did not make.
BytePath realSample(const std::string& name);

} // namespace sober::test
