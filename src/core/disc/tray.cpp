#include "core/disc/tray.h"

#include "core/base/text.h"
#include "core/disc/tray_messages.h"

#include <fmt/format.h>

#include <chrono>
#include <cstdlib>
#include <cstring>

namespace sober {
namespace {

constexpr const char* trayProgram = "sober-tray";
constexpr unsigned carefulSeconds = 8;

/// Another program that does the same may stand in for it.
std::string programNow() {
    const char* other = std::getenv("SOBER_TRAY");
    return other != nullptr && *other != '\0' ? other : trayProgram;
}

} // namespace

Tray::Tray(BytePath disc, RunControl& control, unsigned silentSeconds)
    : disc_(std::move(disc)), control_(&control) {
    WorkerLimits limits;
    limits.silentSeconds = silentSeconds;
    process_ = std::make_unique<WorkerProcess>(limits, programNow());
}

Result<Tray> Tray::open(const BytePath& disc, RunControl& control, unsigned silentSeconds) {
    Tray tray(disc, control, silentSeconds);
    const auto answer = tray.answerTo(*tray.process_, openQuestion, disc);
    auto contents = answer ? unpackAnswer<DiscContents>(*answer, disc) : Result<DiscContents>(answer.error());
    const auto readable = contents ? isReadable(*contents, disc) : Outcome(contents.error());
    RETURN_IF_FAILED(readable);
    tray.contents_ = std::move(*contents);
    return tray;
}

Result<std::string> Tray::answerTo(WorkerProcess& process, char letter, std::string_view question) {
    if (!process.ask(letter, question, {}, 0)) {
        return Error{Cause::busy, disc_, "No process could be started to read " + displayPath(disc_) + "."};
    }
    auto answer = process.await(*control_, [](std::uint64_t) {});
    switch (answer.came) {
    case WorkerProcess::Came::answer:
        return std::move(answer.bytes);
    case WorkerProcess::Came::cancelled:
        return Error{Cause::interrupted, disc_, "Stopped while " + displayPath(disc_) + " was read."};
    case WorkerProcess::Came::silent:
        return Error{Cause::busy, disc_,
                     displayPath(disc_) + " does not answer any more; its drive may hang."};
    case WorkerProcess::Came::ended:
        break;
    }
    return Error{Cause::damaged, disc_, "What reads discs broke at " + displayPath(disc_) + "."};
}

Result<DiscSamples> Tray::readWithCare(int first, int count) {
    constexpr double mostLost = 8;
    const Error unreadable{Cause::unreadable, disc_, "These sectors cannot be read with care."};
    if (careLost_ >= mostLost) {
        return unreadable;
    }
    if (!careful_) {
        WorkerLimits limits;
        limits.silentSeconds = carefulSeconds;
        careful_ = std::make_unique<WorkerProcess>(limits, programNow());
        if (const auto opened = answerTo(*careful_, openQuestion, disc_); !opened) {
            // A drive that lets itself be opened once is read all the same.
            careful_.reset();
            careLost_ = mostLost;
            return opened.error().cause == Cause::interrupted ? opened.error() : unreadable;
        }
    }
    const auto begun = std::chrono::steady_clock::now();
    auto read = ask(*careful_, carefulSectorsQuestion, first, count);
    if (!read) {
        careLost_ += std::chrono::duration<double>(std::chrono::steady_clock::now() - begun).count();
    }
    const bool hasGone = !read && (read.error().cause == Cause::busy || read.error().cause == Cause::damaged);
    if (hasGone) {
        careful_.reset();
    }
    return hasGone ? Result<DiscSamples>(unreadable) : std::move(read);
}

Result<DiscSamples> Tray::ask(WorkerProcess& process, char letter, int first, int count) {
    const auto answer = answerTo(process, letter, fmt::format("{} {}", first, count));
    const auto bytes =
        answer ? unpackAnswer<std::string>(*answer, disc_) : Result<std::string>(answer.error());
    RETURN_IF_FAILED(bytes);
    if (bytes->size() != static_cast<std::size_t>(count) * discSectorBytes) {
        return Error{Cause::damaged, disc_, displayPath(disc_) + " gives less than was asked."};
    }
    DiscSamples samples(static_cast<std::size_t>(count) * sectorNumbers);
    std::memcpy(samples.data(), bytes->data(), bytes->size());
    return samples;
}

} // namespace sober
