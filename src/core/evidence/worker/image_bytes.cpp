#include "core/evidence/worker/image_bytes.h"

#include "core/evidence/worker/evidence_worker.h"
#include "core/media/image_reader.h"

#include <algorithm>

namespace sober {
namespace {

class CagedBytes final : public ByteSource {
  public:
    CagedBytes(const OpenedImage& image, BytePath path) : image_(image), path_(std::move(path)) {}
    std::uint64_t size() const override { return image_.size; }
    std::int64_t readAt(std::uint64_t offset, std::span<std::uint8_t> into) override {
        constexpr std::size_t atOnce = 1U << 20;
        std::size_t have = 0;
        while (have < into.size()) {
            const auto wanted = std::min(atOnce, into.size() - have);
            const auto got = worker_.imageBytes(image_, path_, offset + have, wanted);
            if (!got) {
                return -1;
            }
            std::copy_n(got->begin(), std::min(wanted, got->size()),
                        into.begin() + static_cast<std::ptrdiff_t>(have));
            have += std::min(wanted, got->size());
            if (got->size() < wanted) {
                break;
            }
        }
        return static_cast<std::int64_t>(have);
    }

  private:
    const OpenedImage& image_;
    BytePath path_;
    EvidenceWorker worker_;
};

} // namespace

Result<OpenedImage> openMeasured(const BytePath& path, RunControl& control) {
    auto image = openImage(path);
    if (!image || image->packing == ImagePacking::none) {
        return image;
    }
    EvidenceWorker worker;
    const auto size = worker.measure(*image, path, control);
    RETURN_IF_FAILED(size);
    image->size = *size;
    return image;
}

std::unique_ptr<ByteSource> bytesOf(const OpenedImage& image, const BytePath& path) {
    if (image.packing == ImagePacking::none) {
        return std::make_unique<ImageReader>(image, path);
    }
    return std::make_unique<CagedBytes>(image, path);
}

} // namespace sober
