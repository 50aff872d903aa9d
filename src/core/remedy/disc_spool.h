#pragma once

#include "core/disc/agreed_reading.h"

#include <map>

namespace sober {

/// Where what is read of discs waits until it is in its place: a folder beside the catalogue, outside all
/// volumes.
BytePath discsFolder(const BytePath& catalogue);

/// What has been read of one disc, kept so that a reading that was stopped goes on. One file for each
/// stretch, whole or not there.
class DiscSpool {
  public:
    /// Takes up what is there of this very disc; what is there of another is forgotten. Cause::damaged where
    /// a file of it is not whole.
    static Result<DiscSpool> open(const BytePath& discs, const DiscContents& contents);

    const BytePath& folder() const { return folder_; }
    /// Whether the stretch that begins there was read.
    bool has(int first) const { return stretches_.contains(first); }
    /// How each sector was read, by the stretches' beginnings.
    const std::map<int, std::vector<SectorReading>>& stretches() const { return stretches_; }
    Result<AgreedStretch> stretch(int first) const;
    Outcome add(const AgreedStretch& stretch);
    /// Samples from a place on; zeros where nothing was read.
    Result<DiscSamples> samples(std::int64_t first, std::int64_t count) const;

    /// Writes a track as a WAV file, over one of before, and yields its path.
    Result<BytePath> writeTrack(int number, std::span<const std::int16_t> samples) const;
    /// An empty file for what is made of a track: "03-mp3-V0.mp3".
    Result<BytePath> beginFile(const std::string& name) const;
    /// It stays although its files are in their places: something could not be made of it. Or not, as from
    /// the beginning.
    Outcome setStays(bool stays) const;
    /// All of it goes, unless it stays.
    static Outcome forgetPlaced(const BytePath& folder);
    static Outcome forget(const BytePath& folder);

  private:
    explicit DiscSpool(BytePath folder) : folder_(std::move(folder)) {}
    BytePath stretchPath(int first) const;

    BytePath folder_;
    std::map<int, std::vector<SectorReading>> stretches_;
};

} // namespace sober
