#include "core/evidence/byte_difference.h"

#include "core/base/file_handle.h"
#include "core/evidence/checksums.h"
#include "core/evidence/worker/inside_reader.h"

#include <algorithm>
#include <vector>

namespace sober {
namespace {

Result<std::string> bytesAt(const BytePath& path, std::uint64_t from, std::size_t most) {
    const auto file = openContent(path);
    RETURN_IF_FAILED(file);
    std::vector<std::uint8_t> bytes(most);
    const auto got = readAt(*file, path, from, bytes);
    return got ? Result<std::string>(
                     std::string(bytes.begin(), bytes.begin() + static_cast<std::ptrdiff_t>(*got)))
               : Result<std::string>(got.error());
}

} // namespace

Result<std::optional<ByteDifference>> firstDifference(const BytePath& first, const BytePath& second,
                                                      std::uint64_t from) {
    const auto a = bytesAt(first, from, checksumBlock);
    const auto b = bytesAt(second, from, checksumBlock);
    if (!a || !b) {
        return a ? b.error() : a.error();
    }
    const auto length = std::min(a->size(), b->size());
    const auto differs = static_cast<std::size_t>(
        std::mismatch(a->begin(), a->begin() + static_cast<std::ptrdiff_t>(length), b->begin()).first -
        a->begin());
    if (differs == length && a->size() == b->size()) {
        return std::optional<ByteDifference>();
    }
    ByteDifference difference;
    difference.at = from + differs;
    const std::size_t before = differs / 16 * 16 >= 16 ? differs / 16 * 16 - 16 : 0;
    difference.begins = from + before;
    const auto part = [&](const std::string& bytes) {
        return before < bytes.size() ? bytes.substr(before, ByteDifference::around) : std::string();
    };
    difference.first = part(*a);
    difference.second = part(*b);
    return std::optional(difference);
}

} // namespace sober
