#pragma once

#include "core/evidence/worker/evidence_worker.h"
#include "core/evidence/worker/inside_reader.h"

namespace sober {

/// The files of the file systems in the image of a drive, those that were deleted left out. Where there are
/// several file systems, each is a folder by its number.
class CagedImage final : public InsideReader {
  public:
    static Result<std::unique_ptr<InsideReader>> open(const BytePath& path);

    Result<std::optional<ArchivedFile>> next() override;
    Result<FileHandle> unpack(RunControl& control) override;

  private:
    CagedImage(BytePath path, OpenedImage image) : path_(std::move(path)), image_(std::move(image)) {}

    BytePath path_;
    OpenedImage image_;
    std::vector<ImageEntry> entries_;
    std::size_t at_ = 0; ///< of the next
    bool wasCut_ = false;
};

} // namespace sober
