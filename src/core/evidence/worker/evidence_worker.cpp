#include "core/evidence/worker/evidence_worker.h"

#include "core/base/byte_ranges.h"
#include "core/base/inner_path.h"
#include "core/base/text.h"
#include "core/evidence/file_content.h"
#include "core/evidence/packed_evidence.h"
#include "core/evidence/worker/image_shape.h"
#include "core/evidence/worker/inside_reader.h"

#include <fmt/format.h>

#include <array>

namespace sober {
namespace {

std::uint64_t sizeOf(const FileHandle& file) {
    const auto stamp = stampOf(file, {});
    return stamp ? stamp->size : 0;
}

Error cannotStart(const BytePath& path) {
    return {Cause::busy, path, "No process could be started to look into " + displayPath(path) + "."};
}

Error stopped(const BytePath& path) {
    return {Cause::interrupted, path, "Stopped while " + displayPath(path) + " was examined."};
}

Error endedByOthers(const BytePath& path) {
    return {Cause::ended, path,
            displayPath(path) + " was not looked into: its process was ended from outside. It is tried again "
                                "the next time."};
}

/// What lies inside an archive changes with it.
void stampAsInside(FileRecord& record, const BytePath& path) {
    const auto inner = innerPathOf(path);
    const auto stamp = inner ? stampAt(inner->archive) : Result<FileStamp>(record.stamp);
    if (inner && stamp) {
        const auto size = record.stamp.size;
        record.stamp = *stamp;
        record.stamp.size = size;
        record.stamp.links = 0;
    }
}

std::string pictureAsked(std::string_view bytes, int mostPixels) {
    const auto pixels = static_cast<std::int32_t>(mostPixels);
    return std::string(reinterpret_cast<const char*>(&pixels), sizeof pixels).append(bytes);
}

} // namespace

bool tellsOfTheFile(const Error& error) {
    return error.cause != Cause::busy && error.cause != Cause::interrupted && error.cause != Cause::ended;
}

EvidenceWorker::EvidenceWorker(const WorkerLimits& limits)
    : EvidenceWorker(std::make_unique<WorkerProcess>(limits)) {}
EvidenceWorker::EvidenceWorker(std::unique_ptr<WorkerProcess> process) : process_(std::move(process)) {}
EvidenceWorker::~EvidenceWorker() = default;

template <typename T>
Result<T> EvidenceWorker::ask(char letter, std::string_view question,
                              std::span<const FileHandle* const> files, const BytePath& path,
                              RunControl& control, const std::function<void(std::uint64_t)>& onBytes) {
    std::vector<int> descriptors;
    std::uint64_t bytes = 0;
    for (const auto* file : files) {
        descriptors.push_back(file->get());
        bytes += sizeOf(*file);
    }
    if (!process_->ask(letter, question, descriptors, bytes)) {
        return cannotStart(path);
    }
    const auto answer = process_->await(control, onBytes);
    switch (answer.came) {
    case WorkerProcess::Came::answer:
        return unpackAnswer<T>(answer.bytes, path);
    case WorkerProcess::Came::cancelled:
        return stopped(path);
    case WorkerProcess::Came::ended:
    case WorkerProcess::Came::silent:
        break;
    }
    return process_->wasEndedFromOutside()
               ? endedByOthers(path)
               : Error{Cause::unreadable, path,
                       displayPath(path) + " could not be looked into: " + process_->howItEnded() + "."};
}

/// Cause::damaged where the process died of the file.
Result<FileRecord> EvidenceWorker::askForRecord(char letter, const FileHandle& file, const BytePath& path,
                                                RunControl& control,
                                                const std::function<void(std::uint64_t)>& onBytes,
                                                std::uint64_t& told) {
    const auto descriptor = file.get();
    if (!process_->ask(letter, path, std::span(&descriptor, 1), sizeOf(file))) {
        return cannotStart(path);
    }
    // What was told of before is not counted twice.
    auto answer = process_->await(control, [&](std::uint64_t bytes) {
        const auto again = std::min(told, bytes);
        told -= again;
        onBytes(bytes - again);
    });
    if (answer.came == WorkerProcess::Came::cancelled) {
        return stopped(path);
    }
    auto record = answer.came == WorkerProcess::Came::answer ? unpackRecord(answer.bytes) : std::nullopt;
    if (record) {
        if (*record) {
            stampAsInside(**record, path);
        }
        return std::move(*record);
    }
    return process_->wasEndedFromOutside() ? endedByOthers(path)
                                           : Error{Cause::damaged, path, process_->howItEnded()};
}

Result<FileRecord> EvidenceWorker::examine(const BytePath& path, RunControl& control,
                                           const std::function<void(std::uint64_t)>& onBytes,
                                           bool withExcerpt) {
    const auto file = openContent(path, control);
    return file ? examine(*file, path, control, onBytes, withExcerpt) : Result<FileRecord>(file.error());
}

Result<FileRecord> EvidenceWorker::examine(const FileHandle& file, const BytePath& path, RunControl& control,
                                           const std::function<void(std::uint64_t)>& onBytes,
                                           bool withExcerpt) {
    std::uint64_t told = 0;
    std::uint64_t heard = 0;
    const auto counting = [&](std::uint64_t bytes) {
        heard += bytes;
        onBytes(bytes);
    };
    auto record = askForRecord(withExcerpt ? examineWithExcerptQuestion : examineQuestion, file, path,
                               control, counting, told);
    if (record || record.error().cause != Cause::damaged) {
        return record;
    }
    const auto ending = record.error().sentence;
    told = heard;
    record = askForRecord(passOverQuestion, file, path, control, onBytes, told);
    if (!record && record.error().cause == Cause::damaged) {
        record = recordOfBytes(path, control);
    }
    if (record) {
        record->problem = displayPath(path) + " could not be examined: " + ending + ".";
    }
    return record;
}

Result<FileRecord> EvidenceWorker::passOver(const BytePath& path, RunControl& control,
                                            const std::function<void(std::uint64_t)>& onBytes) {
    const auto file = openContent(path, control);
    return file ? passOver(*file, path, control, onBytes) : Result<FileRecord>(file.error());
}

Result<FileRecord> EvidenceWorker::passOver(const FileHandle& file, const BytePath& path, RunControl& control,
                                            const std::function<void(std::uint64_t)>& onBytes) {
    std::uint64_t told = 0;
    auto record = askForRecord(passOverQuestion, file, path, control, onBytes, told);
    if (record || record.error().cause != Cause::damaged) {
        return record;
    }
    const auto ending = record.error().sentence;
    record = recordOfBytes(path, control);
    if (record) {
        record->problem = displayPath(path) + " could not be looked into: " + ending + ".";
    }
    return record;
}

Result<Probed> EvidenceWorker::probe(const BytePath& path) {
    RunControl control;
    const auto file = openContent(path);
    return file ? ask<Probed>(probeQuestion, path, std::array{&*file}, path, control)
                : Result<Probed>(file.error());
}

Result<TagFields> EvidenceWorker::readTags(const BytePath& path) {
    RunControl control;
    const auto file = openContent(path);
    return file ? ask<TagFields>(readTagsQuestion, path, std::array{&*file}, path, control)
                : Result<TagFields>(file.error());
}

Outcome EvidenceWorker::decodeBeginning(const BytePath& path) {
    RunControl control;
    const auto file = openContent(path);
    return file ? ask<Nothing>(beginningQuestion, path, std::array{&*file}, path, control)
                : Outcome(file.error());
}

Outcome EvidenceWorker::writeTags(const FileHandle& file, const BytePath& path, const TagChange& change) {
    RunControl control;
    const Json question{{"path", bytesShape(path)}, {"change", bytesShape(packTagChange(change))}};
    return ask<Nothing>(writeTagsQuestion, packed(question), std::array{&file}, path, control);
}

Result<Encoded> EvidenceWorker::encode(const BytePath& path, const FileHandle& target,
                                       const std::string& form, RunControl& control) {
    const auto file = openContent(path);
    const Json question{{"path", bytesShape(path)}, {"form", form}};
    return file ? ask<Encoded>(encodeQuestion, packed(question), std::array{&*file, &target}, path, control)
                : Result<Encoded>(file.error());
}

Result<Fingerprint> EvidenceWorker::fingerprint(const BytePath& path, RunControl& control) {
    const auto file = openContent(path);
    const auto packed = file ? ask<std::string>(fingerprintQuestion, path, std::array{&*file}, path, control)
                             : Result<std::string>(file.error());
    RETURN_IF_FAILED(packed);
    auto words = unpackFingerprint(*packed);
    return words ? Result(std::move(*words))
                 : Result<Fingerprint>(
                       Error{Cause::unreadable, path, displayPath(path) + " holds nothing to be heard."});
}

Result<std::vector<ByteRange>> EvidenceWorker::junkIn(const BytePath& path, RunControl& control) {
    const auto file = openContent(path);
    return file ? ask<std::vector<ByteRange>>(junkQuestion, path, std::array{&*file}, path, control)
                : Result<std::vector<ByteRange>>(file.error());
}

Result<DecodeComparison> EvidenceWorker::compare(const BytePath& first, const BytePath& second, double coarse,
                                                 RunControl& control) {
    const auto one = openContent(first);
    const auto other = openContent(second);
    if (!one || !other) {
        return one ? other.error() : one.error();
    }
    const Json question{{"path", bytesShape(first)}, {"other", bytesShape(second)}, {"coarse", coarse}};
    return ask<DecodeComparison>(compareQuestion, packed(question), std::array{&*one, &*other}, first,
                                 control);
}

Result<TimeSpectrum> EvidenceWorker::timePicture(const BytePath& path, std::size_t columns,
                                                 RunControl& control) {
    const auto file = openContent(path);
    const Json question{{"path", bytesShape(path)}, {"columns", columns}};
    return file ? ask<TimeSpectrum>(timePictureQuestion, packed(question), std::array{&*file}, path, control)
                : Result<TimeSpectrum>(file.error());
}

Result<SmallPicture> EvidenceWorker::picture(std::string_view bytes, int mostPixels) {
    RunControl control;
    return ask<SmallPicture>(pictureQuestion, pictureAsked(bytes, mostPixels), {}, {}, control);
}

Result<std::string> EvidenceWorker::jpeg(std::string_view bytes, int mostPixels) {
    RunControl control;
    return ask<std::string>(jpegQuestion, pictureAsked(bytes, mostPixels), {}, {}, control);
}

Result<FileRecord> EvidenceWorker::examinePart(const OpenedImage& image, const BytePath& path,
                                               const BytePath& name, const std::vector<ByteRange>& extents,
                                               RunControl& control,
                                               const std::function<void(std::uint64_t)>& onBytes) {
    auto question = shapeOf(image, path);
    question["name"] = bytesShape(name);
    question["extents"] = shapeOf(extents);
    std::vector<int> descriptors;
    for (const auto* file : imageFiles(image)) {
        descriptors.push_back(file->get());
    }
    if (!process_->ask(examinePartQuestion, packed(question), descriptors, lengthOf(extents))) {
        return cannotStart(path);
    }
    const auto answer = process_->await(control, onBytes);
    if (answer.came == WorkerProcess::Came::cancelled) {
        return stopped(path);
    }
    auto record = answer.came == WorkerProcess::Came::answer ? unpackRecord(answer.bytes) : std::nullopt;
    if (record) {
        return std::move(*record);
    }
    return process_->wasEndedFromOutside()
               ? endedByOthers(path)
               : Error{Cause::unreadable, path, "It could not be examined: " + process_->howItEnded() + "."};
}

Result<Scanned> EvidenceWorker::scan(const OpenedImage& image, const BytePath& path,
                                     const ScanRequest& request, RunControl& control,
                                     const std::function<void(std::uint64_t)>& onBytes) {
    auto question = shapeOf(image, path);
    question["scan"] = shapeOf(request);
    return ask<Scanned>(scanQuestion, packed(question), imageFiles(image), path, control, onBytes);
}

Result<std::vector<Joined>> EvidenceWorker::join(const OpenedImage& image, const BytePath& path,
                                                 const std::vector<Piece>& pieces, RunControl& control) {
    auto question = shapeOf(image, path);
    question["pieces"] = Json::array();
    for (const auto& piece : pieces) {
        question["pieces"].push_back(shapeOf(piece));
    }
    return ask<std::vector<Joined>>(joinQuestion, packed(question), imageFiles(image), path, control);
}

Result<std::vector<ImageFileSystem>> EvidenceWorker::fileSystems(const OpenedImage& image,
                                                                 const BytePath& path, RunControl& control) {
    EvidenceWorker other(
        std::make_unique<WorkerProcess>(process_->limits(), std::string(fileSystemsProgram)));
    return other.ask<std::vector<ImageFileSystem>>(fileSystemsQuestion, packed(shapeOf(image, path)),
                                                   imageFiles(image), path, control);
}

Result<std::uint64_t> EvidenceWorker::measure(const OpenedImage& image, const BytePath& path,
                                              RunControl& control) {
    return ask<std::uint64_t>(measureQuestion, packed(shapeOf(image, path)), imageFiles(image), path,
                              control);
}

Result<std::string> EvidenceWorker::imageBytes(const OpenedImage& image, const BytePath& path,
                                               std::uint64_t at, std::size_t length) {
    RunControl control;
    auto question = shapeOf(image, path);
    question["at"] = at;
    question["length"] = length;
    return ask<std::string>(imageBytesQuestion, packed(question), imageFiles(image), path, control);
}

Result<std::vector<BytePart>> EvidenceWorker::byteParts(const OpenedImage& image, const PlacedBytes& part,
                                                        PieceKind kind, ByteRange range) {
    RunControl control;
    auto question = shapeOf(image, part.file);
    question["extents"] = shapeOf(part.extents);
    question["kind"] = std::string(word(kind));
    question["from"] = range.first;
    question["to"] = range.second;
    return ask<std::vector<BytePart>>(bytePartsQuestion, packed(question), imageFiles(image), part.file,
                                      control);
}

} // namespace sober
