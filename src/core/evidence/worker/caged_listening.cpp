#include "core/evidence/worker/caged_listening.h"

#include "core/base/scratch_file.h"
#include "core/base/text.h"
#include "core/evidence/worker/image_shape.h"
#include "core/evidence/worker/inside_reader.h"
#include "core/evidence/worker/serving.h"

#include <algorithm>
#include <array>
#include <cstring>

namespace sober {
namespace {

/// For each question: whoever listens waits for the answer, in the window too.
constexpr WorkerLimits limits{2ULL << 30, 5, 0};

template <typename Value>
std::string_view bytesOf(const Value& value) {
    return {reinterpret_cast<const char*>(&value), sizeof value};
}

} // namespace

Result<CagedListening> CagedListening::open(const BytePath& path, int rate) {
    const auto file = openContent(path);
    const Json question{{"path", bytesShape(path)}, {"rate", rate}};
    return file ? ask(packed(question), std::array{&*file}, path) : Result<CagedListening>(file.error());
}

Result<CagedListening> CagedListening::openPart(const PlacedBytes& part, int rate) {
    auto image = openImage(part.file);
    const auto others = image ? openOthers(*image, part.others) : Outcome(image.error());
    RETURN_IF_FAILED(others);
    auto question = shapeOf(*image, part.file);
    question["rate"] = rate;
    question["extents"] = shapeOf(part.extents);
    return ask(packed(question), imageFiles(*image), part.file);
}

Result<CagedListening> CagedListening::openBytes(std::string_view bytes, const BytePath& name, int rate) {
    const auto scratch = openScratchFile(bytes.size());
    const auto written =
        scratch
            ? writeScratch(*scratch, 0, {reinterpret_cast<const std::uint8_t*>(bytes.data()), bytes.size()})
            : Outcome(scratch.error());
    const Json question{{"path", bytesShape(name)}, {"rate", rate}};
    return written ? ask(packed(question), std::array{&*scratch}, name)
                   : Result<CagedListening>(written.error());
}

Result<CagedListening> CagedListening::ask(std::string_view question,
                                           std::span<const FileHandle* const> files, const BytePath& path) {
    auto process = std::make_unique<WorkerProcess>(limits);
    std::vector<int> descriptors;
    std::ranges::transform(files, std::back_inserter(descriptors), &FileHandle::get);
    RunControl control;
    if (!process->ask(listenQuestion, question, descriptors, 0)) {
        return Error{Cause::busy, path, "No process could be started to play " + displayPath(path) + "."};
    }
    const auto answer = process->await(control, [](std::uint64_t) {});
    if (answer.came != WorkerProcess::Came::answer) {
        return Error{Cause::unreadable, path,
                     displayPath(path) + " cannot be played: " + process->howItEnded() + "."};
    }
    const auto format = unpackAnswer<ListeningFormat>(answer.bytes, path);
    RETURN_IF_FAILED(format);
    CagedListening listening(std::move(process));
    listening.rate_ = format->rate;
    listening.seconds_ = format->seconds;
    return listening;
}

bool CagedListening::fetch() {
    constexpr std::uint32_t atOnce = 8'192; // frames, about a fifth of a second
    RunControl control;
    fetched_.clear();
    used_ = 0;
    if (process_->ask(listenOnQuestion, bytesOf(atOnce), {}, 0)) {
        auto answer = process_->await(control, [](std::uint64_t) {});
        fetched_ = answer.came == WorkerProcess::Came::answer ? std::move(answer.bytes) : std::string();
    }
    return !fetched_.empty();
}

std::size_t CagedListening::read(std::span<std::int16_t> stereo) {
    constexpr std::size_t frame = 2 * sizeof(std::int16_t);
    std::size_t filled = 0; // frames
    const std::size_t wanted = stereo.size() / 2;
    while (filled < wanted && (used_ + frame <= fetched_.size() || fetch())) {
        const auto now = std::min(wanted - filled, (fetched_.size() - used_) / frame);
        std::memcpy(stereo.data() + 2 * filled, fetched_.data() + used_, now * frame);
        used_ += now * frame;
        filled += now;
        if (now == 0) {
            break;
        }
    }
    return filled;
}

void CagedListening::seek(double seconds) {
    RunControl control;
    fetched_.clear();
    used_ = 0;
    if (process_->ask(listenAtQuestion, bytesOf(seconds), {}, 0)) {
        process_->await(control, [](std::uint64_t) {});
    }
}

} // namespace sober
