#include "core/media/push_parser.h"

#include <algorithm>

namespace sober {
namespace {

constexpr std::size_t mostNotes = 100;

void note(std::vector<DecodeProblem>& notes, std::string kind, double at, std::string detail) {
    if (notes.size() < mostNotes) {
        notes.push_back({std::move(kind), at, std::move(detail)});
    }
}

} // namespace

void PushParser::feed(std::span<const std::uint8_t> bytes) {
    const auto passed = static_cast<std::size_t>(std::min<std::uint64_t>(skip_, bytes.size()));
    skip_ -= passed;
    bytes = bytes.subspan(passed);
    if (bytes.empty()) {
        return;
    }
    if (!held_.empty()) {
        held_.insert(held_.end(), bytes.begin(), bytes.end());
        const auto used = run(held_, false);
        held_.erase(held_.begin(), held_.begin() + static_cast<std::ptrdiff_t>(used));
        return;
    }
    const auto used = run(bytes, false);
    held_.assign(bytes.begin() + static_cast<std::ptrdiff_t>(used), bytes.end());
}

StructureReport PushParser::finish() {
    run(held_, true);
    conclude();
    return std::move(report_);
}

std::size_t PushParser::run(std::span<const std::uint8_t> bytes, bool atEnd) {
    std::size_t at = 0;
    while (at < bytes.size()) {
        const auto done = parse(bytes.subspan(at), atEnd);
        if (done == 0) {
            break;
        }
        offset_ += done;
        const std::uint64_t here = bytes.size() - at;
        skip_ = done > here ? done - here : 0;
        at += static_cast<std::size_t>(std::min(done, here));
    }
    return at;
}

void PushParser::problem(std::string kind, double at, std::string detail) {
    note(report_.problems, std::move(kind), at, std::move(detail));
}

void PushParser::remark(std::string kind, double at, std::string detail) {
    note(report_.remarks, std::move(kind), at, std::move(detail));
}

void PushParser::junk(std::uint64_t length) {
    if (!report_.junk.empty() && report_.junk.back().second == offset_) {
        report_.junk.back().second += length;
    } else {
        report_.junk.emplace_back(offset_, offset_ + length);
    }
}

std::uint64_t littleEndian(std::span<const std::uint8_t> bytes) {
    std::uint64_t value = 0;
    for (std::size_t i = bytes.size(); i > 0; --i) {
        value = value << 8 | bytes[i - 1];
    }
    return value;
}

std::uint64_t bigEndian(std::span<const std::uint8_t> bytes) {
    std::uint64_t value = 0;
    for (const auto byte : bytes) {
        value = value << 8 | byte;
    }
    return value;
}

bool beginsWith(std::span<const std::uint8_t> bytes, std::string_view signature) {
    return bytes.size() >= signature.size() &&
           std::equal(signature.begin(), signature.end(), bytes.begin(),
                      [](char a, std::uint8_t b) { return static_cast<std::uint8_t>(a) == b; });
}

} // namespace sober
