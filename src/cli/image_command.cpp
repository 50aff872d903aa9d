// What `sober salvage` does with images as such: makes them, writes them back, shows their bytes.
#include "cli/answers.h"
#include "cli/salvage_command.h"
#include "core/remedy/make_image.h"
#include "core/remedy/write_image.h"
#include "core/work/look_at_bytes.h"

#include <algorithm>

namespace sober::cli {
namespace {

/// Sixteen bytes to a line; a line of its own for each part that begins there.
void sayBytes(const ByteLook& look) {
    constexpr std::size_t each = 16;
    for (std::size_t at = 0; at < look.bytes.size(); at += each) {
        const auto line = std::string_view(look.bytes).substr(at, each);
        const auto place = look.at + at;
        for (const auto& part : look.parts) {
            if (part.first >= place && part.first < place + line.size()) {
                say("{:>14}  {} to byte {}\n", humanCount(part.first), part.name, humanCount(part.past - 1));
            }
        }
        std::string hex;
        std::string text;
        for (const char c : line) {
            const auto byte = static_cast<std::uint8_t>(c);
            hex += fmt::format("{:02x} ", byte);
            text.push_back(byte >= 0x20 && byte < 0x7F ? c : '.');
        }
        say("{:012x}  {:48} {}\n", place, hex, text);
    }
}

/// Where the look begins: at a find, or at a place, or where something stands from there on.
Result<std::uint64_t> placeToLook(const Catalogue& catalogue, const BytesOptions& options,
                                  const BytePath& image, RunControl& control,
                                  const ProgressSink& onProgress) {
    auto at = options.at;
    if (options.find != 0) {
        const auto finds = SalvageStore(catalogue).byIds(std::array{options.find});
        RETURN_IF_FAILED(finds);
        if (finds->empty() || !finds->front().file.empty()) {
            return Error{Cause::notFound, {}, "There is no find of that number in an image."};
        }
        at = finds->front().firstByte();
    }
    std::string digits = lowerAscii(options.hex);
    std::erase(digits, ' ');
    const auto wanted = options.hex.empty() ? std::optional(options.text) : bytesFromHex(digits);
    if (!wanted) {
        return Error{Cause::invalid, {}, "\"" + options.hex + "\" are no hexadecimal digits of bytes."};
    }
    if (wanted->empty()) {
        return at;
    }
    const auto found = searchBytes(image, *wanted, at, control, onProgress);
    RETURN_IF_FAILED(found);
    return *found ? Result(**found)
                  : Result<std::uint64_t>(Error{Cause::notFound, image, "It stands nowhere from there on."});
}

} // namespace

int runSalvageBytes(const CommonOptions& common, const BytesOptions& options, RunControl& control) {
    const auto catalogue = openLooking(common);
    if (!catalogue) {
        return fail(catalogue.error());
    }
    const auto image = fromHere(options.image);
    const auto at = [&] {
        ProgressLine line(common.quiet);
        return placeToLook(*catalogue, options, image, control, std::ref(line));
    }();
    constexpr std::size_t most = 1U << 20;
    const auto look = at ? lookAtBytes(*catalogue, image, *at, std::min(options.length, most), control)
                         : Result<ByteLook>(at.error());
    if (!look) {
        return fail(look.error());
    }
    if (!common.json) {
        sayBytes(*look);
        return exitDone;
    }
    const auto hex = toHex({reinterpret_cast<const std::uint8_t*>(look->bytes.data()), look->bytes.size()});
    Json json{{"schema", "sober.bytes/1"},
              {"image", percentEncodeOffending(image)},
              {"image_bytes", look->size},
              {"at", look->at},
              {"hex", hex},
              {"parts", Json::array()}};
    for (const auto& part : look->parts) {
        json["parts"].push_back({{"first", part.first}, {"last", part.past - 1}, {"name", part.name}});
    }
    printJson(json);
    return exitDone;
}

int runSalvageWrite(const CommonOptions& common, const WriteOptions& options, RunControl& control) {
    auto catalogue = openWorking(common);
    if (!catalogue) {
        return fail(catalogue.error());
    }
    const auto written = [&] {
        ProgressLine line(common.quiet);
        return writeImage(*catalogue,
                          {fromHere(options.image), fromHere(options.to), options.label, options.size},
                          control, std::ref(line));
    }();
    if (!written) {
        return fail(written.error());
    }
    if (common.json) {
        printJson(
            {{"schema", "sober.image/1"}, {"bytes", written->bytes}, {"unread_bytes", written->unread}});
    } else {
        say("{} were written to {}, read back and compared{}\n", humanBytes(written->bytes),
            displayPath(options.to),
            written->unread == 0 ? std::string(".")
                                 : fmt::format("; {} of them are zeros for what is not in the image.",
                                               humanBytes(written->unread)));
    }
    return exitDone;
}

int runSalvageImage(const CommonOptions& common, const ImageOptions& options, RunControl& control) {
    const auto map = [&] {
        ProgressLine line(common.quiet);
        return makeImage({fromHere(options.source), fromHere(options.to),
                          options.map.empty() ? BytePath() : fromHere(options.map), options.retries},
                         control, std::ref(line));
    }();
    if (!map) {
        return fail(map.error());
    }
    const auto unread = map->unread();
    const auto lost = lengthOf(unread);
    Json ranges = Json::array();
    for (const auto& [first, past] : unread) {
        ranges.push_back({first, past - 1});
    }
    if (common.json) {
        printJson({{"schema", "sober.image/1"},
                   {"bytes", map->bytes()},
                   {"unread", std::move(ranges)},
                   {"complete", unread.empty()}});
    } else {
        say("{} of {} are in the image{}\n", humanBytes(map->bytes() - lost), humanBytes(map->bytes()),
            unread.empty() ? std::string(".")
                           : fmt::format("; {} in {} could not be read so far.", humanBytes(lost),
                                         counted(unread.size(), "place")));
    }
    return control.isCancelled() ? exitInterrupted : unread.empty() ? exitDone : exitSomeUnread;
}

} // namespace sober::cli
