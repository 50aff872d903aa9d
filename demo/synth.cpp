#include "demo/synth.h"

#include "core/base/wide.h"

#include <algorithm>
#include <array>
#include <cmath>
#include <numbers>
#include <random>

namespace sober::demo {
namespace {

using Rng = std::mt19937;

/// std distributions differ between libraries; these do not.
double uniform(Rng& rng) {
    return static_cast<double>(rng()) / 4294967296.0;
}
int pick(Rng& rng, int count) {
    return static_cast<int>(rng() % static_cast<unsigned>(count));
}

/// A sine by rotation: two multiplications a sample.
class Rotor {
  public:
    Rotor(double frequency, double phase)
        : cosStep_(std::cos(2 * std::numbers::pi * frequency / sampleRate)),
          sinStep_(std::sin(2 * std::numbers::pi * frequency / sampleRate)),
          re_(std::cos(phase)),
          im_(std::sin(phase)) {}
    double next() {
        const double value = im_;
        const double re = re_ * cosStep_ - im_ * sinStep_;
        im_ = re_ * sinStep_ + im_ * cosStep_;
        re_ = re;
        return value;
    }

  private:
    double cosStep_;
    double sinStep_;
    double re_;
    double im_;
};

constexpr std::size_t beside = 8; // turns, each of which goes on by so many samples

std::size_t inEights(std::size_t count) {
    return (count + beside - 1) / beside * beside;
}

SOBER_WIDE void addTurning(float* samples, std::size_t count, double* re, double* im, double cosStep,
                           double sinStep) {
    for (std::size_t at = 0; at < count; at += beside) {
        for (std::size_t i = 0; i < beside; ++i) {
            samples[at + i] += static_cast<float>(im[i]);
            const double next = re[i] * cosStep - im[i] * sinStep;
            im[i] = re[i] * sinStep + im[i] * cosStep;
            re[i] = next;
        }
    }
}

/// Adds a sine to samples, a multiple of eight of them, that falls off by a factor from one to the next.
void addSine(std::vector<float>& samples, double frequency, double phase, double gain, double fall = 1) {
    const double turn = 2 * std::numbers::pi * frequency / sampleRate;
    std::array<double, beside> re{};
    std::array<double, beside> im{};
    for (std::size_t i = 0; i < beside; ++i) {
        const double level = gain * std::pow(fall, static_cast<double>(i));
        re[i] = level * std::cos(phase + static_cast<double>(i) * turn);
        im[i] = level * std::sin(phase + static_cast<double>(i) * turn);
    }
    const double fallen = std::pow(fall, beside);
    addTurning(samples.data(), samples.size(), re.data(), im.data(), fallen * std::cos(beside * turn),
               fallen * std::sin(beside * turn));
}

struct Track {
    explicit Track(std::size_t frames) : left(frames), right(frames) {}
    /// Samples of so many from `start` on that lie before its end.
    std::size_t heardOf(std::size_t start, std::size_t length) const {
        return start < left.size() ? std::min(length, left.size() - start) : 0;
    }
    std::vector<float> left;
    std::vector<float> right;
};

struct Note {
    std::size_t start;
    std::size_t length;
    double frequency;
    double loudness;
    double pan; ///< 0 left, 1 right
};

void put(Track& track, std::size_t at, double value, double pan) {
    if (at < track.left.size()) {
        track.left[at] += static_cast<float>(value * (1 - pan));
        track.right[at] += static_cast<float>(value * pan);
    }
}

double envelope(std::size_t at, std::size_t length, double attack, double release) {
    const double seconds = static_cast<double>(at) / sampleRate;
    const double left = static_cast<double>(length - at) / sampleRate;
    return std::min({1.0, seconds / attack, left / release});
}

/// Amplitude of a harmonic under a vowel's formants (Peterson and Barney's vowels, from memory).
double vowelGain(double frequency, int vowel) {
    constexpr std::array<std::array<double, 3>, 4> formants{
        {{730, 1090, 2440}, {530, 1840, 2480}, {570, 840, 2410}, {300, 870, 2240}}};
    double gain = 0.02;
    for (const double formant : formants[static_cast<std::size_t>(vowel)]) {
        const double distance = (frequency - formant) / (90 + formant * 0.06);
        gain += 1.0 / (1.0 + distance * distance);
    }
    return gain;
}

struct Timbre {
    double attack;
    double release;
    int partials;
    double breath; ///< noise along with the tone
};

Timbre timbreOf(Voice voice) {
    switch (voice) {
    case Voice::choir:
        return {0.12, 0.25, 26, 0.020};
    case Voice::brass:
        return {0.04, 0.10, 30, 0.012};
    case Voice::harmonium:
        return {0.09, 0.12, 28, 0.010};
    case Voice::speech:
        return {0.03, 0.06, 24, 0.060};
    default:
        return {0.02, 0.20, 16, 0.008};
    }
}

double partialGain(Voice voice, int partial, double frequency, const Note& note, int vowel) {
    switch (voice) {
    case Voice::choir:
    case Voice::speech:
        return vowelGain(frequency, vowel) / std::sqrt(partial);
    case Voice::brass:
        return std::pow(0.72 + 0.2 * note.loudness, partial) * 1.4;
    case Voice::harmonium:
        return (partial % 2 == 1 ? 1.0 : 0.55) / partial;
    default:
        return 1.0 / (partial * partial);
    }
}

void playTone(Track& track, Voice voice, const Note& note, Rng& rng) {
    const Timbre timbre = timbreOf(voice);
    const int vowel = pick(rng, 4);
    const int reeds = voice == Voice::harmonium ? 2 : 1;
    const std::size_t heard = track.heardOf(note.start, note.length);
    std::vector<float> sum(inEights(heard));
    for (int reed = 0; reed < reeds; ++reed) {
        const double tuned = note.frequency * (reed == 0 ? 1.0 : 1.0031);
        for (int partial = 1; partial <= timbre.partials; ++partial) {
            const double frequency = tuned * partial;
            if (frequency > sampleRate * 0.47) {
                break;
            }
            const double gain = partialGain(voice, partial, frequency, note, vowel);
            addSine(sum, frequency, uniform(rng) * 6.28, gain);
        }
    }
    Rotor vibrato(5.1 + uniform(rng), 0);
    for (std::size_t i = 0; i < heard; ++i) {
        const double tremble = 1.0 + 0.08 * vibrato.next();
        const double breath = timbre.breath * (uniform(rng) - 0.5) * 4;
        put(track, note.start + i,
            (sum[i] * tremble * 0.22 + breath) * note.loudness *
                envelope(i, note.length, timbre.attack, timbre.release),
            note.pan);
    }
    rng.discard(note.length - heard); // the breath of what is past the end
}

void playBell(Track& track, const Note& note, Rng& rng) {
    constexpr std::array<double, 9> ratios{0.5, 1.0, 1.183, 1.506, 2.0, 2.514, 3.011, 4.166, 6.8};
    const std::size_t length = track.heardOf(note.start, note.length * 3);
    std::vector<float> sum(inEights(length));
    for (std::size_t p = 0; p < ratios.size(); ++p) {
        const double frequency = note.frequency * 2 * ratios[p];
        if (frequency <= sampleRate * 0.47) {
            addSine(sum, frequency, uniform(rng) * 6.28,
                    note.loudness * 0.3 / (1 + 0.35 * static_cast<double>(p)),
                    std::exp(-(1.1 + 0.9 * static_cast<double>(p)) / sampleRate));
        }
    }
    for (std::size_t i = 0; i < length; ++i) {
        put(track, note.start + i, static_cast<double>(sum[i]), note.pan);
    }
    for (std::size_t i = 0; i < 900; ++i) {
        put(track, note.start + i,
            (uniform(rng) - 0.5) * 0.5 * note.loudness * (1 - static_cast<double>(i) / 900), note.pan);
    }
}

void playString(Track& track, const Note& note, Rng& rng) {
    const auto period = static_cast<std::size_t>(std::max(8.0, sampleRate / note.frequency));
    std::vector<double> line(period);
    for (auto& sample : line) {
        sample = uniform(rng) - 0.5;
    }
    std::size_t now = 0;
    for (std::size_t i = 0; i < track.heardOf(note.start, note.length * 2); ++i) {
        const std::size_t next = now + 1 < period ? now + 1 : 0;
        put(track, note.start + i, line[now] * note.loudness * 0.9, note.pan);
        line[now] = 0.4985 * (line[now] + line[next]);
        now = next;
    }
}

/// Waves on a shore: noise whose brightness and loudness rise and fall.
void playSurf(Track& track, Rng& rng, double loudness) {
    double lowLeft = 0;
    double lowRight = 0;
    const double period = 4.5 + 3 * uniform(rng);
    const double offset = uniform(rng);
    for (std::size_t i = 0; i < track.left.size(); ++i) {
        const double seconds = static_cast<double>(i) / sampleRate;
        const double wave = 0.5 - 0.5 * std::cos(2 * std::numbers::pi * (seconds / period + offset));
        const double openness = 0.05 + 0.75 * wave * wave;
        lowLeft += openness * (uniform(rng) - 0.5 - lowLeft);
        lowRight += openness * (uniform(rng) - 0.5 - lowRight);
        track.left[i] += static_cast<float>(lowLeft * loudness * (0.25 + wave));
        track.right[i] += static_cast<float>(lowRight * loudness * (0.25 + wave));
    }
}

void playFogSignal(Track& track, Rng& rng) {
    playSurf(track, rng, 0.18);
    const double low = 92 + 60 * uniform(rng);
    constexpr std::size_t second = sampleRate;
    for (std::size_t start = second / 2; start < track.left.size(); start += second * 6) {
        for (const double ratio : {1.0, 1.335}) {
            playTone(track, Voice::brass, {start, second * 5 / 2, low * ratio, 0.8, 0.5}, rng);
        }
    }
}

double degreeFrequency(int degree, double base) {
    constexpr std::array<int, 7> dorian{0, 2, 3, 5, 7, 9, 10};
    const int octave = degree >= 0 ? degree / 7 : (degree - 6) / 7;
    const int step = dorian[static_cast<std::size_t>(degree - octave * 7)];
    return base * std::pow(2.0, octave + step / 12.0);
}

void playMelody(Track& track, const Piece& piece, Rng& rng) {
    const double base = 110 * std::pow(2.0, pick(rng, 12) / 12.0);
    const auto beat = static_cast<std::size_t>(60.0 / piece.tempo * sampleRate);
    int degree = pick(rng, 7);
    for (std::size_t at = 0; at < track.left.size(); at += beat) {
        degree = std::clamp(degree + pick(rng, 5) - 2, -2, 13);
        const int chord = piece.voice == Voice::plucked ? 3 : 2;
        for (int voice = 0; voice < chord; ++voice) {
            const std::size_t delay =
                piece.voice == Voice::plucked ? static_cast<std::size_t>(voice) * beat / 4 : 0;
            const Note note{at + delay, beat * static_cast<std::size_t>(1 + pick(rng, 2)),
                            degreeFrequency(degree + voice * 2, base), 0.35 + 0.4 * uniform(rng),
                            0.25 + 0.5 * uniform(rng)};
            if (piece.voice == Voice::bells) {
                playBell(track, note, rng);
            } else if (piece.voice == Voice::plucked) {
                playString(track, note, rng);
            } else {
                playTone(track, piece.voice, note, rng);
            }
        }
    }
}

void playSpeech(Track& track, Rng& rng) {
    const double base = 95 + 90 * uniform(rng);
    std::size_t at = sampleRate / 4;
    while (at < track.left.size()) {
        const auto length = static_cast<std::size_t>(sampleRate * (0.09 + 0.16 * uniform(rng)));
        playTone(track, Voice::speech, {at, length, base * (0.85 + 0.4 * uniform(rng)), 0.7, 0.5}, rng);
        at += length + static_cast<std::size_t>(sampleRate * (pick(rng, 5) == 0 ? 0.4 : 0.03));
    }
}

} // namespace

Samples synthesise(const Piece& piece) {
    Rng rng(piece.seed * 2654435761U + static_cast<std::uint32_t>(piece.voice));
    Track track(static_cast<std::size_t>(piece.seconds * sampleRate));
    switch (piece.voice) {
    case Voice::surf:
        playSurf(track, rng, 0.9);
        break;
    case Voice::fogSignal:
        playFogSignal(track, rng);
        break;
    case Voice::speech:
        playSpeech(track, rng);
        break;
    default:
        playMelody(track, piece, rng);
    }
    // A room: hiss up to the top of the band, as every microphone gives.
    float loudest = 0.001F;
    for (std::size_t i = 0; i < track.left.size(); ++i) {
        track.left[i] += static_cast<float>((uniform(rng) - 0.5) * 0.003);
        track.right[i] += static_cast<float>((uniform(rng) - 0.5) * 0.003);
        loudest = std::max({loudest, std::abs(track.left[i]), std::abs(track.right[i])});
    }
    const float scale = 0.82F * 32767.0F / loudest;
    Samples samples;
    samples.reserve(track.left.size() * 2);
    for (std::size_t i = 0; i < track.left.size(); ++i) {
        samples.push_back(static_cast<std::int16_t>(std::lround(track.left[i] * scale)));
        samples.push_back(static_cast<std::int16_t>(std::lround(track.right[i] * scale)));
    }
    return samples;
}

} // namespace sober::demo
