#include "core/salvage/image_map.h"

#include "core/base/text.h"

#include <fmt/format.h>

#include <algorithm>
#include <array>
#include <charconv>

namespace sober {
namespace {

constexpr std::array readingWords{
    std::pair(Reading::ahead, std::string_view("ahead")), std::pair(Reading::step, std::string_view("step")),
    std::pair(Reading::sector, std::string_view("sector")), std::pair(Reading::bad, std::string_view("bad")),
    std::pair(Reading::read, std::string_view("read"))};
constexpr std::string_view mapTitle = "sober image map 1";
constexpr std::uint64_t largestMap = 256U << 20;

Error noMap(const std::string& why) {
    return {Cause::invalid, {}, "It is no map of an image: " + why + "."};
}

std::vector<std::string_view> partsOf(std::string_view line) {
    std::vector<std::string_view> parts;
    while (!line.empty()) {
        const auto part = line.substr(0, line.find(' '));
        parts.push_back(part);
        line.remove_prefix(std::min(line.size(), part.size() + 1));
    }
    return parts;
}

std::optional<std::uint64_t> numberFrom(std::string_view text) {
    std::uint64_t number = 0;
    const auto [end, trouble] = std::from_chars(text.data(), text.data() + text.size(), number);
    return trouble == std::errc() && end == text.data() + text.size() ? std::optional(number) : std::nullopt;
}

} // namespace

std::string_view word(Reading reading) {
    return std::ranges::find(readingWords, reading, &decltype(readingWords)::value_type::first)->second;
}

ImageMap::ImageMap(std::uint64_t bytes) : bytes_(bytes) {
    if (bytes > 0) {
        stretches_.emplace(0, Reading::ahead);
    }
}

void ImageMap::set(ByteRange range, Reading reading) {
    const auto first = std::min(range.first, bytes_);
    const auto past = std::min(range.second, bytes_);
    if (first >= past) {
        return;
    }
    // What follows keeps what it was.
    if (past < bytes_ && !stretches_.contains(past)) {
        stretches_.emplace(past, std::prev(stretches_.upper_bound(past))->second);
    }
    stretches_.erase(stretches_.lower_bound(first), stretches_.lower_bound(past));
    const auto here = stretches_.emplace(first, reading).first;
    if (const auto next = std::next(here); next != stretches_.end() && next->second == reading) {
        stretches_.erase(next);
    }
    if (here != stretches_.begin() && std::prev(here)->second == reading) {
        stretches_.erase(here);
    }
}

std::vector<ByteRange> ImageMap::ranges(Reading reading) const {
    std::vector<ByteRange> found;
    for (auto at = stretches_.begin(); at != stretches_.end(); ++at) {
        if (at->second == reading) {
            const auto next = std::next(at);
            found.emplace_back(at->first, next == stretches_.end() ? bytes_ : next->first);
        }
    }
    return found;
}

std::vector<ByteRange> ImageMap::unread() const {
    std::vector<ByteRange> all;
    for (auto at = stretches_.begin(); at != stretches_.end(); ++at) {
        if (at->second == Reading::read) {
            continue;
        }
        const auto next = std::next(at);
        const auto past = next == stretches_.end() ? bytes_ : next->first;
        if (!all.empty() && all.back().second == at->first) {
            all.back().second = past;
        } else {
            all.emplace_back(at->first, past);
        }
    }
    return all;
}

std::uint64_t ImageMap::count(Reading reading) const {
    std::uint64_t bytes = 0;
    for (const auto& [first, past] : ranges(reading)) {
        bytes += past - first;
    }
    return bytes;
}

std::string ImageMap::text() const {
    std::string text = fmt::format("{}\n", mapTitle);
    for (const auto& source : sources) {
        std::string name = percentEncodeOffending(source);
        std::ranges::replace(name, '\n', '?');
        text += fmt::format("source {}\n", name);
    }
    text += fmt::format("bytes {}\n", bytes_);
    for (auto at = stretches_.begin(); at != stretches_.end(); ++at) {
        const auto next = std::next(at);
        text += fmt::format("{} {} {}\n", at->first, next == stretches_.end() ? bytes_ : next->first,
                            word(at->second));
    }
    return text;
}

Result<ImageMap> ImageMap::parse(std::string_view text) {
    ImageMap map;
    std::uint64_t covered = 0;
    bool hasTitle = false;
    while (!text.empty()) {
        const auto line = text.substr(0, text.find('\n'));
        text.remove_prefix(std::min(text.size(), line.size() + 1));
        if (!hasTitle) {
            if (line != mapTitle) {
                return noMap("its first line is another");
            }
            hasTitle = true;
            continue;
        }
        if (line.starts_with("source ")) {
            map.sources.emplace_back(percentDecoded(line.substr(7)));
            continue;
        }
        const auto parts = partsOf(line);
        if (parts.size() == 2 && parts[0] == "bytes" && map.bytes_ == 0) {
            map = [&, sources = map.sources] {
                ImageMap sized(numberFrom(parts[1]).value_or(0));
                sized.sources = sources;
                return sized;
            }();
            continue;
        }
        const auto first = parts.size() == 3 ? numberFrom(parts[0]) : std::nullopt;
        const auto past = first ? numberFrom(parts[1]) : std::nullopt;
        const auto* const reading =
            past ? std::ranges::find(readingWords, parts[2], &decltype(readingWords)::value_type::second)
                 : readingWords.end();
        if (reading == readingWords.end() || *first != covered || *past <= *first || *past > map.bytes_) {
            return noMap("a line of it makes no sense");
        }
        map.set({*first, *past}, reading->first);
        covered = *past;
    }
    return map.bytes_ > 0 && covered == map.bytes_ ? Result(std::move(map))
                                                   : Result<ImageMap>(noMap("it ends early"));
}

BytePath mapBeside(const BytePath& image) {
    return image + ".map";
}

Result<std::optional<ImageMap>> mapOf(const BytePath& image) {
    const auto path = mapBeside(image);
    if (!isTaken(path)) {
        return std::optional<ImageMap>();
    }
    const auto text = wholeFile(path, largestMap);
    auto map = text ? ImageMap::parse(*text) : Result<ImageMap>(text.error());
    return map ? Result(std::optional(std::move(*map)))
               : Result<std::optional<ImageMap>>(
                     Error{map.error().cause, path, displayPath(path) + ": " + map.error().sentence});
}

Result<std::vector<ByteRange>> unreadOf(const BytePath& image) {
    const auto map = mapOf(image);
    return !map   ? Result<std::vector<ByteRange>>(map.error())
           : *map ? Result((*map)->unread())
                  : Result(std::vector<ByteRange>{});
}

} // namespace sober
