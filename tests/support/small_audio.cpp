#include "support/small_audio.h"

#include <random>

namespace sober::test {
namespace {

void putNumber(std::string& out, std::uint32_t value, int bytes) {
    for (int i = 0; i < bytes; ++i) {
        out.push_back(static_cast<char>(value >> (8 * i)));
    }
}

} // namespace

std::string smallWav(std::uint32_t seed, double seconds) {
    constexpr std::uint32_t rate = 44100;
    const auto bytes = static_cast<std::uint32_t>(seconds * rate) * 2;
    std::string wav = "RIFF";
    putNumber(wav, 36 + bytes, 4);
    wav += "WAVEfmt ";
    putNumber(wav, 16, 4);
    putNumber(wav, 1, 2);
    putNumber(wav, 1, 2);
    putNumber(wav, rate, 4);
    putNumber(wav, rate * 2, 4);
    putNumber(wav, 2, 2);
    putNumber(wav, 16, 2);
    wav += "data";
    putNumber(wav, bytes, 4);
    std::mt19937 random(seed);
    for (std::uint32_t i = 0; i < bytes / 2; ++i) {
        putNumber(wav, random() >> 18, 2);
    }
    return wav;
}

} // namespace sober::test
