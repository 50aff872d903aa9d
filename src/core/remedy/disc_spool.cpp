#include "core/remedy/disc_spool.h"

#include "core/base/presence.h"
#include "core/base/text.h"
#include "core/disc/tray_messages.h"
#include "core/remedy/changes/file_changes.h"
#include "core/remedy/write_report.h"

#include <fmt/format.h>

#include <algorithm>
#include <cstring>
#include <filesystem>

namespace sober {
namespace {

constexpr const char* contentsName = "contents.json";
constexpr const char* staysName = "stays";
constexpr std::string_view stretchEnding = "sectors";
constexpr std::uint64_t largestStretch = 64U << 20;
constexpr std::size_t bytesOfReading = 2;

std::string packStretch(const AgreedStretch& stretch) {
    std::string bytes;
    for (const auto& sector : stretch.sectors) {
        bytes += static_cast<char>(sector.state);
        bytes += static_cast<char>(sector.readings);
    }
    bytes.append(reinterpret_cast<const char*>(stretch.samples.data()),
                 stretch.samples.size() * sizeof(std::int16_t));
    return bytes;
}

std::optional<AgreedStretch> unpackStretch(int first, const std::string& bytes) {
    const auto count = bytes.size() / (bytesOfReading + discSectorBytes);
    if (count == 0 || count * (bytesOfReading + discSectorBytes) != bytes.size()) {
        return std::nullopt;
    }
    AgreedStretch stretch{first, DiscSamples(count * sectorNumbers), {}};
    for (std::size_t i = 0; i < count; ++i) {
        const auto state = static_cast<std::uint8_t>(bytes[bytesOfReading * i]);
        if (state > static_cast<std::uint8_t>(SectorState::unread)) {
            return std::nullopt;
        }
        stretch.sectors.push_back(
            {static_cast<SectorState>(state), static_cast<std::uint8_t>(bytes[bytesOfReading * i + 1])});
    }
    std::memcpy(stretch.samples.data(), bytes.data() + bytesOfReading * count, count * discSectorBytes);
    return stretch;
}

Result<AgreedStretch> stretchAt(const BytePath& path, int first) {
    const auto bytes = wholeFile(path, largestStretch);
    RETURN_IF_FAILED(bytes);
    auto stretch = unpackStretch(first, *bytes);
    return stretch ? Result(std::move(*stretch))
                   : Result<AgreedStretch>(Error{Cause::damaged, path,
                                                 "What was read of the disc is not whole in " +
                                                     displayPath(path) + "; read it anew."});
}

/// The head of a RIFF file of 16-bit stereo (Microsoft, Multimedia Programming Interface 1.0).
std::string waveHead(std::uint32_t bytes) {
    const auto number = [](std::uint32_t value, std::size_t length) {
        std::string text;
        for (std::size_t i = 0; i < length; ++i, value >>= 8) {
            text += static_cast<char>(value & 0xFF);
        }
        return text;
    };
    return "RIFF" + number(36 + bytes, 4) + "WAVEfmt " + number(16, 4) + number(1, 2) + number(2, 2) +
           number(discSampleRate, 4) + number(discSampleRate * 4, 4) + number(4, 2) + number(16, 2) + "data" +
           number(bytes, 4);
}

} // namespace

BytePath discsFolder(const BytePath& catalogue) {
    return catalogue + ".discs";
}

Result<DiscSpool> DiscSpool::open(const BytePath& discs, const DiscContents& contents) {
    DiscSpool spool(joinPath(discs, discId(contents)));
    const auto described = packed(shapeOf(contents));
    constexpr std::uint64_t longestContents = 1U << 20;
    const auto known = wholeFile(joinPath(spool.folder_, contentsName), longestContents);
    if (!known || *known != described) {
        const auto forgotten = forget(spool.folder_);
        const std::pair<std::string, std::string> file{contentsName, described};
        const auto begun = forgotten ? writeReport(spool.folder_, std::span(&file, 1)) : forgotten;
        return begun ? Result(std::move(spool)) : Result<DiscSpool>(begun.error());
    }
    std::error_code failed;
    for (const auto& entry : std::filesystem::directory_iterator(spool.folder_, failed)) {
        const BytePath path = entry.path().string();
        if (endingOf(path) != stretchEnding) {
            continue;
        }
        const int first = std::atoi(std::string(stemOf(path)).c_str());
        auto stretch = stretchAt(path, first);
        RETURN_IF_FAILED(stretch);
        spool.stretches_[first] = std::move(stretch->sectors);
    }
    return spool;
}

BytePath DiscSpool::stretchPath(int first) const {
    return joinPath(folder_, fmt::format("{:06}.{}", first, stretchEnding));
}

Result<AgreedStretch> DiscSpool::stretch(int first) const {
    return stretchAt(stretchPath(first), first);
}

Outcome DiscSpool::add(const AgreedStretch& stretch) {
    const std::pair<std::string, std::string> file{nameOf(stretchPath(stretch.first)), packStretch(stretch)};
    if (const auto written = writeReport(folder_, std::span(&file, 1)); !written) {
        return written;
    }
    stretches_[stretch.first] = stretch.sectors;
    return done();
}

Result<DiscSamples> DiscSpool::samples(std::int64_t first, std::int64_t count) const {
    DiscSamples samples(static_cast<std::size_t>(2 * count));
    for (const auto& [sector, readings] : stretches_) {
        const std::int64_t from = std::int64_t{sector} * samplesPerSector;
        const auto past = from + static_cast<std::int64_t>(readings.size()) * samplesPerSector;
        const auto begin = std::max(first, from);
        const auto end = std::min(first + count, past);
        if (begin >= end) {
            continue;
        }
        const auto stretch = stretchAt(stretchPath(sector), sector);
        RETURN_IF_FAILED(stretch);
        std::copy_n(stretch->samples.begin() + 2 * (begin - from), 2 * (end - begin),
                    samples.begin() + 2 * (begin - first));
    }
    return samples;
}

Result<BytePath> DiscSpool::writeTrack(int number, std::span<const std::int16_t> samples) const {
    const auto name = fmt::format("{:02}.wav", number);
    auto bytes = waveHead(static_cast<std::uint32_t>(samples.size_bytes()));
    bytes.append(reinterpret_cast<const char*>(samples.data()), samples.size_bytes());
    const std::pair<std::string, std::string> file{name, std::move(bytes)};
    const auto written = writeReport(folder_, std::span(&file, 1));
    return written ? Result(joinPath(folder_, name)) : Result<BytePath>(written.error());
}

Result<BytePath> DiscSpool::beginFile(const std::string& name) const {
    auto path = joinPath(folder_, name);
    Unflushed unflushed;
    auto begun = removeFile(path, unflushed);
    begun = begun ? writeNewFile(path, {}, unflushed) : begun;
    return begun ? Result(std::move(path)) : Result<BytePath>(begun.error());
}

Outcome DiscSpool::setStays(bool stays) const {
    Unflushed unflushed;
    const auto made = stays ? beginFile(staysName) : Result<BytePath>(BytePath());
    return !made   ? Outcome(made.error())
           : stays ? done()
                   : removeFile(joinPath(folder_, staysName), unflushed);
}

Outcome DiscSpool::forgetPlaced(const BytePath& folder) {
    return presenceOf(joinPath(folder, staysName)) == Presence::gone ? forget(folder) : done();
}

Outcome DiscSpool::forget(const BytePath& folder) {
    Unflushed unflushed;
    std::error_code failed;
    for (const auto& entry : std::filesystem::directory_iterator(folder, failed)) {
        if (const auto removed = removeFile(entry.path().string(), unflushed); !removed) {
            return removed;
        }
    }
    return done();
}

} // namespace sober
