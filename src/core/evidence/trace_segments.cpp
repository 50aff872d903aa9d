#include "core/evidence/trace_segments.h"

#include "core/base/wide.h"

#include <algorithm>
#include <cmath>

namespace sober {
namespace {

constexpr std::int64_t parts = 8;
constexpr float toSteps = 32768;
constexpr float clipped = 32767.0F;

struct Liveliness {
    float loudest = 0;
    float energy = 0; ///< of the second difference
};

SOBER_WIDE Liveliness livelinessOf(const float* samples) {
    constexpr std::size_t lanes = 16;
    static_assert(traceBlock % lanes == 0);
    Sixteen highest{};
    Sixteen lowest{};
    Sixteen energies{};
    for (std::size_t i = 0; i < traceBlock; i += lanes) {
        const Sixteen now = SOBER_SIXTEEN_AT(samples + i);
        highest = now > highest ? now : highest;
        lowest = now < lowest ? now : lowest;
    }
    for (std::size_t i = 2; i + lanes <= traceBlock; i += lanes) {
        const Sixteen difference = SOBER_SIXTEEN_AT(samples + i) - 2 * SOBER_SIXTEEN_AT(samples + i - 1) +
                                   SOBER_SIXTEEN_AT(samples + i - 2);
        energies += difference * difference;
    }
    Liveliness both;
    for (std::size_t lane = 0; lane < lanes; ++lane) {
        both.loudest = std::max({both.loudest, highest[lane], -lowest[lane]});
        both.energy += energies[lane];
    }
    return both;
}

SOBER_WIDE void scaled(const float* from, std::size_t count, float* out) {
    for (std::size_t i = 0; i < count; ++i) {
        out[i] = from[i] * toSteps;
    }
}

} // namespace

void TraceSegmentPass::begin(const SampleFormat& format) {
    format_ = format;
    const double frames = format.statedSeconds * format.sampleRate;
    blocksEach_ = std::max<std::int64_t>(traceBlocks, static_cast<std::int64_t>(frames / traceBlock / parts));
    recent_.resize(traceBlocks);
}

void TraceSegmentPass::take(const DecodedBlock& block) {
    ++blocksTaken_;
    if (blocksTaken_ == 1) {
        firstLength_ = block.frames;
    } else if (blocksTaken_ == 2) {
        usualLength_ = block.frames;
    } else if (block.frames != usualLength_) {
        ++others_;
    }
    lastLength_ = block.frames;
    const float* left = block.floats.data();
    const float* right = format_.channels > 1 ? left + block.frames : left;
    for (std::size_t at = 0; at < block.frames;) {
        const std::size_t now = std::min(block.frames - at, traceBlock - filled_);
        auto& current = recent_[static_cast<std::size_t>(blocksSeen_) % traceBlocks];
        scaled(left + at, now, current.left.data() + filled_);
        scaled(right + at, now, current.right.data() + filled_);
        at += now;
        filled_ += now;
        if (filled_ == traceBlock) {
            endBlock(current);
            filled_ = 0;
        }
    }
}

void TraceSegmentPass::endBlock(Block& block) {
    const auto left = livelinessOf(block.left.data());
    const auto right = livelinessOf(block.right.data());
    block.liveliness = std::max(left.loudest, right.loudest) >= clipped ? -1 : left.energy + right.energy;
    const auto part = static_cast<std::size_t>(std::min(blocksSeen_ / blocksEach_, parts - 1));
    ++blocksSeen_;
    if (blocksSeen_ < static_cast<std::int64_t>(traceBlocks)) {
        return;
    }
    const float least = std::ranges::min_element(recent_, {}, &Block::liveliness)->liveliness;
    if (best_.size() <= part) {
        best_.resize(part + 1);
    }
    auto& best = best_[part];
    if (least <= best.liveliness || least <= 0) {
        return;
    }
    best.liveliness = least;
    best.segment.start =
        (blocksSeen_ - static_cast<std::int64_t>(traceBlocks)) * static_cast<std::int64_t>(traceBlock);
    best.segment.left.clear();
    best.segment.right.clear();
    for (std::size_t i = 0; i < traceBlocks; ++i) {
        const auto& from = recent_[(static_cast<std::size_t>(blocksSeen_) + i) % traceBlocks];
        best.segment.left.insert(best.segment.left.end(), from.left.begin(), from.left.end());
        best.segment.right.insert(best.segment.right.end(), from.right.begin(), from.right.end());
    }
}

std::optional<std::size_t> TraceSegmentPass::blocksBegan() const {
    const std::size_t atEnd = lastLength_ != usualLength_ ? 1 : 0;
    return blocksTaken_ > 2 && usualLength_ > 0 && others_ <= atEnd
               ? std::optional(firstLength_ % usualLength_)
               : std::nullopt;
}

std::vector<TraceSegment> TraceSegmentPass::finish() {
    std::vector<TraceSegment> segments;
    for (auto& best : best_) {
        if (!best.segment.left.empty()) {
            segments.push_back(std::move(best.segment));
        }
    }
    return segments;
}

} // namespace sober
