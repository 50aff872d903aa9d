#include "cli/answers.h"

#include "core/base/text.h"
#include "core/work/open_for_work.h"

#include <fmt/format.h>

#include <cstdio>
#include <unistd.h>

namespace sober::cli {
namespace {

/// Says what an interruption had left and what became of it.
Result<Catalogue> telling(Result<OpenedForWork> opened) {
    RETURN_IF_FAILED(opened);
    for (const auto* sentences : {&opened->recovered, &opened->waiting}) {
        for (const auto& sentence : *sentences) {
            sayOn(stderr, "After an interruption: {}\n", sentence);
        }
    }
    return std::move(opened->catalogue);
}

} // namespace

int usage(const std::string& sentence) {
    sayOn(stderr, "{}\n", sentence);
    return exitUsage;
}

int fail(const Error& error) {
    sayOn(stderr, "{}\n", error.sentence);
    return error.cause == Cause::interrupted ? exitInterrupted : exitCouldNot;
}

void printJson(const Json& json) {
    const auto text = json.dump(2) + "\n";
    std::fwrite(text.data(), 1, text.size(), stdout);
}

void printJsonWithList(const Json& json, std::string_view name, std::size_t count,
                       const std::function<Json(std::size_t)>& each) {
    const auto write = [](const std::string& text) { std::fwrite(text.data(), 1, text.size(), stdout); };
    write("{\n  " + Json(name).dump() + ": [");
    for (std::size_t i = 0; i < count; ++i) {
        write((i > 0 ? ",\n    " : "\n    ") + each(i).dump());
    }
    write("\n  ]");
    for (const auto& [key, value] : json.items()) {
        write(",\n  " + Json(key).dump() + ": " + value.dump());
    }
    write("\n}\n");
}

Result<Catalogue> openWorking(const CommonOptions& common) {
    return telling(openForWork(common.catalogue));
}

Result<Catalogue> openLooking(const CommonOptions& common) {
    if (!isTaken(common.catalogue)) {
        return Catalogue::openForReading(common.catalogue); // says that there is none
    }
    auto opened = telling(openToLook(common.catalogue));
    if (!opened && (opened.error().cause == Cause::busy || opened.error().cause == Cause::notPermitted)) {
        return Catalogue::openForReading(common.catalogue);
    }
    return opened;
}

BytePath fromHere(const BytePath& path) {
    return realPathOf(path).value_or(path.starts_with('/') ? path
                                                           : joinPath(realPathOf(".").value_or("/"), path));
}

ProgressLine::ProgressLine(bool quiet) : shown_(!quiet && isatty(STDERR_FILENO) != 0) {}

ProgressLine::~ProgressLine() {
    if (drawn_) {
        fmt::print(stderr, "\r\033[K");
    }
}

void ProgressLine::operator()(const Progress& progress) {
    const auto now = std::chrono::steady_clock::now();
    if (!shown_ || now - last_ < std::chrono::milliseconds(200)) {
        return;
    }
    last_ = now;
    drawn_ = true;
    std::string rest;
    if (const double seconds = progress.remaining(); seconds >= 0) {
        rest = ", " + humanSeconds(seconds) + " left";
    }
    fmt::print(stderr, "\r\033[K{} of {} files, {} of {}, {}/s{}", humanCount(progress.files),
               humanCount(progress.totalFiles), humanBytes(progress.bytes), humanBytes(progress.totalBytes),
               humanBytes(static_cast<std::uint64_t>(progress.bytesPerSecond())), rest);
}

int showCarriedOut(const CommonOptions& common, const CarriedOut& carried, std::string_view verb) {
    if (common.json) {
        printJson(carriedOutShape(carried));
    } else {
        say("{} {}, {} refused.\n", counted(carried.done, "action"), verb,
            humanCount(carried.refused.size()));
        if (carried.references > 0) {
            say("{} of players taken along.\n", counted(carried.references, "reference"));
        }
    }
    for (const auto& path : carried.unflushed) {
        sayOn(stderr,
              "{}: done, but its drive has not confirmed that this outlasts a loss of power. Look to that "
              "drive; "
              "the next start asks again.\n",
              displayPath(path));
    }
    for (const auto& refused : carried.refused) {
        sayOn(stderr, "{}: {}\n", displayPath(refused.path), refused.sentence);
    }
    if (carried.interrupted && !carried.stoppedByDrive) {
        return exitInterrupted;
    }
    return carried.refused.empty() ? exitDone : carried.done > 0 ? exitSomeUnread : exitCouldNot;
}

void printErrors(const std::vector<SurveyError>& errors) {
    for (const auto& error : errors) {
        sayOn(stderr, "{}\n", error.sentence);
    }
}

} // namespace sober::cli
