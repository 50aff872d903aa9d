#include "core/evidence/trace_segments.h"

#include <algorithm>
#include <cmath>

namespace sober {
namespace {

constexpr std::int64_t parts = 8;
constexpr float toSteps = 32768;
constexpr float clipped = 32767.0F / 32768.0F;

} // namespace

void TraceSegmentPass::begin(const SampleFormat& format) {
    format_ = format;
    const double frames = format.statedSeconds * format.sampleRate;
    blocksEach_ = std::max<std::int64_t>(traceBlocks, static_cast<std::int64_t>(frames / traceBlock / parts));
}

void TraceSegmentPass::take(const DecodedBlock& block) {
    const auto channels = static_cast<std::size_t>(format_.channels);
    const std::size_t second = channels > 1 ? 1 : 0;
    for (std::size_t i = 0; i < block.frames; ++i) {
        current_.left[filled_] = block.floats[i * channels];
        current_.right[filled_] = block.floats[i * channels + second];
        if (++filled_ == traceBlock) {
            endBlock();
            filled_ = 0;
        }
    }
}

void TraceSegmentPass::endBlock() {
    double energy = 0;
    float loudest = 0;
    for (std::size_t i = 0; i < traceBlock; ++i) {
        loudest = std::max({loudest, std::abs(current_.left[i]), std::abs(current_.right[i])});
        if (i >= 2) {
            const float left = current_.left[i] - 2 * current_.left[i - 1] + current_.left[i - 2];
            const float right = current_.right[i] - 2 * current_.right[i - 1] + current_.right[i - 2];
            energy += static_cast<double>(left * left + right * right);
        }
    }
    current_.liveliness = loudest >= clipped ? -1 : energy;
    if (recent_.size() == traceBlocks) {
        recent_.erase(recent_.begin());
    }
    recent_.push_back(current_);
    const auto part = static_cast<std::size_t>(std::min(blocksSeen_ / blocksEach_, parts - 1));
    ++blocksSeen_;
    if (recent_.size() < traceBlocks) {
        return;
    }
    const double least = std::ranges::min_element(recent_, {}, &Block::liveliness)->liveliness;
    if (best_.size() <= part) {
        best_.resize(part + 1);
    }
    if (least > best_[part].liveliness && least > 0) {
        best_[part] = {least, blocksSeen_ - static_cast<std::int64_t>(traceBlocks), recent_};
    }
}

std::vector<TraceSegment> TraceSegmentPass::finish() {
    std::vector<TraceSegment> segments;
    for (const auto& best : best_) {
        if (best.blocks.empty()) {
            continue;
        }
        TraceSegment segment;
        segment.start = best.firstBlock * static_cast<std::int64_t>(traceBlock);
        for (const auto& block : best.blocks) {
            for (std::size_t i = 0; i < traceBlock; ++i) {
                segment.left.push_back(block.left[i] * toSteps);
                segment.right.push_back(block.right[i] * toSteps);
            }
        }
        segments.push_back(std::move(segment));
    }
    return segments;
}

} // namespace sober
