#include "core/salvage/lenders.h"

#include "core/base/file_handle.h"

#include <algorithm>

namespace sober {
namespace {

/// The extents with `from` to `to` of what they hold replaced.
std::vector<ByteRange> withReplaced(const std::vector<ByteRange>& extents, std::uint64_t from,
                                    std::uint64_t to, std::uint64_t byThatAt) {
    std::vector<ByteRange> all;
    const auto add = [&](std::uint64_t first, std::uint64_t past) {
        if (past <= first) {
            return;
        }
        if (!all.empty() && all.back().second == first) {
            all.back().second = past;
        } else {
            all.emplace_back(first, past);
        }
    };
    std::uint64_t at = 0; // of what they hold
    for (const auto& [first, past] : extents) {
        const auto end = at + (past - first);
        if (from > at) {
            add(first, first + std::min(from, end) - at);
        }
        if (at <= from && from < end) {
            add(byThatAt, byThatAt + (to - from));
        }
        if (to < end) {
            add(first + std::max(to, at) - at, past);
        }
        at = end;
    }
    return all;
}

} // namespace

void lendTo(Assembled& assembled, const SalvageStore::Remembered& holding, std::span<const BytePath> lenders,
            std::vector<BytePath>& others) {
    const auto partLength = partLengthFor(holding.size);
    std::vector<std::uint8_t> bytes;
    for (const auto& path : lenders) {
        const auto file = openForReading(path);
        if (!file) {
            continue; // it is away, or gone: another may have it
        }
        std::erase_if(assembled.lost, [&](std::size_t part) {
            const auto from = part * partLength;
            bytes.resize(static_cast<std::size_t>(std::min(partLength, holding.size - from)));
            const auto got = readAt(*file, path, from, bytes);
            if (!got || *got != bytes.size() || partChecksumOf(bytes) != holding.parts[part]) {
                return false;
            }
            if (others.empty() || others.back() != path) {
                others.push_back(path);
            }
            assembled.extents = withReplaced(assembled.extents, from, from + bytes.size(),
                                             ExtentSource::elsewhere * others.size() + from);
            assembled.proven += bytes.size();
            return true;
        });
    }
}

} // namespace sober
