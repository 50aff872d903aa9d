#include "core/media/image_files.h"

#include "core/base/text.h"

#include <sys/stat.h>

#include <algorithm>
#include <fcntl.h>
#include <string_view>
#include <unistd.h>

namespace sober {
namespace {

constexpr std::size_t mostParts = 200; // that a worker can be handed with some to spare

/// The name of the part that follows; "" where the name is no part's.
BytePath nextPart(const BytePath& path) {
    const auto name = nameOf(path);
    const auto dot = name.rfind('.');
    if (dot == std::string_view::npos || name.size() - dot < 3) {
        return {};
    }
    auto next = path;
    const auto last = next.size() - (name.size() - dot - 1);
    const bool isNumber = std::all_of(next.begin() + static_cast<std::ptrdiff_t>(last), next.end(),
                                      [](char c) { return c >= '0' && c <= '9'; });
    const bool isLetters = std::all_of(next.begin() + static_cast<std::ptrdiff_t>(last), next.end(),
                                       [](char c) { return c >= 'a' && c <= 'z'; });
    if (!isNumber && !isLetters) {
        return {};
    }
    for (auto at = next.size(); at > last; --at) {
        auto& c = next[at - 1];
        if (c != (isNumber ? '9' : 'z')) {
            ++c;
            return next;
        }
        c = isNumber ? '0' : 'a';
    }
    return {};
}

bool isFirstPart(const BytePath& path) {
    const auto name = nameOf(path);
    const auto ending = name.substr(std::min(name.rfind('.'), name.size() - 1) + 1);
    const auto front = ending.substr(0, ending.empty() ? 0 : ending.size() - 1);
    return ending.size() >= 2 && ((std::ranges::all_of(front, [](char c) { return c == '0'; }) &&
                                   (ending.back() == '0' || ending.back() == '1')) ||
                                  std::ranges::all_of(ending, [](char c) { return c == 'a'; }));
}

ImagePacking packingOf(const FileHandle& file, const BytePath& path) {
    using namespace std::string_view_literals;
    std::uint8_t head[4]{};
    const auto got = readAt(file, path, 0, head);
    const std::string_view begin(reinterpret_cast<const char*>(head), got ? *got : 0);
    const bool skippable =
        begin.size() == 4 && (head[0] & 0xF0) == 0x50 && begin.substr(1) == "\x2A\x4D\x18"sv;
    return begin.starts_with("\x1F\x8B\x08"sv)          ? ImagePacking::gzip
           : begin == "\x28\xB5\x2F\xFD"sv || skippable ? ImagePacking::zstd
                                                        : ImagePacking::none;
}

} // namespace

Result<OpenedImage> openImage(const BytePath& path) {
    OpenedImage image;
    for (auto part = path; !part.empty(); part = nextPart(part)) {
        auto opened = openDrive(part);
        if (!opened) {
            if (part != path && opened.error().cause == Cause::notFound) {
                break;
            }
            return opened.error();
        }
        if (image.files.size() == mostParts) {
            return Error{Cause::invalid, path,
                         displayPath(path) + " lies in more parts than can be opened together."};
        }
        image.size += opened->size;
        image.mtime = std::max(image.mtime, opened->mtime);
        image.isDevice = opened->isDevice;
        image.lengths.push_back(opened->size);
        image.files.push_back(std::move(opened->file));
        if (part == path && !isFirstPart(path)) {
            break;
        }
    }
    image.packing = image.isDevice ? ImagePacking::none : packingOf(image.files.front(), path);
    if (image.packing != ImagePacking::none) {
        image.size = 0;
    }
    return image;
}

Outcome openOthers(OpenedImage& image, std::span<const BytePath> paths) {
    for (const auto& path : paths) {
        auto file = openForReading(path);
        const auto stamp = file ? stampOf(*file, path) : Result<FileStamp>(file.error());
        RETURN_IF_FAILED(stamp);
        image.otherLengths.push_back(stamp->size);
        image.others.push_back(std::move(*file));
    }
    return done();
}

JoinedSource::JoinedSource(std::span<const FileHandle> files, std::span<const std::uint64_t> lengths,
                           BytePath path)
    : files_(files), starts_{0}, path_(std::move(path)) {
    for (const auto length : lengths) {
        starts_.push_back(starts_.back() + length);
    }
}

std::int64_t JoinedSource::readAt(std::uint64_t offset, std::span<std::uint8_t> into) {
    std::size_t have = 0;
    while (have < into.size() && offset + have < size()) {
        const auto at = offset + have;
        const auto file =
            static_cast<std::size_t>(std::ranges::upper_bound(starts_, at) - starts_.begin()) - 1;
        const auto length = std::min<std::uint64_t>(into.size() - have, starts_[file + 1] - at);
        const auto got = sober::readAt(files_[file], path_, at - starts_[file],
                                       into.subspan(have, static_cast<std::size_t>(length)));
        if (!got) {
            return -1;
        }
        have += *got;
        if (*got < length) {
            break;
        }
    }
    return static_cast<std::int64_t>(have);
}

HelpedSource::HelpedSource(ByteSource& image, std::span<const FileHandle> others,
                           std::span<const std::uint64_t> lengths)
    : image_(image) {
    for (std::size_t i = 0; i < others.size() && i < lengths.size(); ++i) {
        others_.emplace_back(others[i], BytePath(), lengths[i]);
    }
}

std::int64_t HelpedSource::readAt(std::uint64_t offset, std::span<std::uint8_t> into) {
    const auto which = offset / ExtentSource::elsewhere;
    if (which == 0) {
        return image_.readAt(offset, into);
    }
    return which <= others_.size()
               ? others_[static_cast<std::size_t>(which - 1)].readAt(offset % ExtentSource::elsewhere, into)
               : -1;
}

} // namespace sober
