#pragma once

#include "core/base/byte_ranges.h"
#include "core/evidence/compare_decodes.h"
#include "core/evidence/file_pass.h"
#include "core/evidence/time_spectrum.h"
#include "core/evidence/worker/worker_process.h"
#include "core/media/carve/byte_parts.h"
#include "core/media/carve/join_pieces.h"
#include "core/media/carve/scanner.h"
#include "core/media/encode.h"
#include "core/media/file_systems.h"
#include "core/media/image_files.h"
#include "core/media/small_picture.h"
#include "core/media/tag_fields.h"

#include <memory>

namespace sober {

/// Whether a failure to look into a file tells of the file: asked again, it would come again. Else it tells
/// of this moment: no process could be had, or somebody ended it.
bool tellsOfTheFile(const Error& error);

/// Looks into files in a process of its own, one after another: whatever foreign bytes do there, they do in a
/// cage, and it costs one answer and a new process. A path may lie inside an archive (inner_path.h). Not
/// shared between threads.
class EvidenceWorker {
  public:
    explicit EvidenceWorker(const WorkerLimits& limits = {});
    ~EvidenceWorker();

    /// As examineOpen. Where the process dies of the file, the record comes from what can be told without
    /// decoding, and its problem says so.
    Result<FileRecord> examine(const BytePath& path, RunControl& control,
                               const std::function<void(std::uint64_t)>& onBytes, bool withExcerpt = false);
    /// The same of a file that is open already.
    Result<FileRecord> examine(const FileHandle& file, const BytePath& path, RunControl& control,
                               const std::function<void(std::uint64_t)>& onBytes, bool withExcerpt = false);
    /// As passOverOpen. Where the process dies of the file, the record comes from its bytes alone.
    Result<FileRecord> passOver(const BytePath& path, RunControl& control,
                                const std::function<void(std::uint64_t)>& onBytes);

    Result<FileRecord> passOver(const FileHandle& file, const BytePath& path, RunControl& control,
                                const std::function<void(std::uint64_t)>& onBytes);

    Result<Probed> probe(const BytePath& path);
    /// Whether a file begins to play.
    Outcome decodeBeginning(const BytePath& path);
    Result<TagFields> readTags(const BytePath& path);
    /// Into a file that is open for writing.
    Outcome writeTags(const FileHandle& file, const BytePath& path, const TagChange& change);
    /// As encodeAudio, into an empty file that is open for writing; `form` as its words (encoding_form.h).
    Result<Encoded> encode(const BytePath& path, const FileHandle& target, const std::string& form,
                           RunControl& control);
    /// What it sounds like, and nothing else of it.
    Result<Fingerprint> fingerprint(const BytePath& path, RunControl& control);
    /// The bytes of a file that belong neither to its audio nor to its tags.
    Result<std::vector<ByteRange>> junkIn(const BytePath& path, RunControl& control);
    /// As compareOpen.
    Result<DecodeComparison> compare(const BytePath& first, const BytePath& second, double coarse,
                                     RunControl& control);
    /// How loud each frequency is over time, in at most so many columns.
    Result<TimeSpectrum> timePicture(const BytePath& path, std::size_t columns, RunControl& control);
    /// As examineBytes, of what lies in several places of an image. No file stands behind it; `name` tells
    /// its form.
    Result<FileRecord> examinePart(const OpenedImage& image, const BytePath& path, const BytePath& name,
                                   const std::vector<ByteRange>& extents, RunControl& control,
                                   const std::function<void(std::uint64_t)>& onBytes);
    /// As scanImage.
    Result<Scanned> scan(const OpenedImage& image, const BytePath& path, const ScanRequest& request,
                         RunControl& control, const std::function<void(std::uint64_t)>& onBytes);
    /// As joinPieces.
    Result<std::vector<Joined>> join(const OpenedImage& image, const BytePath& path,
                                     const std::vector<Piece>& pieces, RunControl& control);
    /// As readFileSystems.
    Result<std::vector<ImageFileSystem>> fileSystems(const OpenedImage& image, const BytePath& path,
                                                     RunControl& control);
    /// How long an image is that was compressed; Cause::invalid where one cannot look back in it.
    Result<std::uint64_t> measure(const OpenedImage& image, const BytePath& path, RunControl& control);
    /// Bytes of an image and of what lends to it, 1 MiB at most; fewer at its end.
    Result<std::string> imageBytes(const OpenedImage& image, const BytePath& path, std::uint64_t at,
                                   std::size_t length);
    /// As bytePartsIn, of what lies in several places of an image.
    Result<std::vector<BytePart>> byteParts(const OpenedImage& image, const PlacedBytes& part, PieceKind kind,
                                            ByteRange range);
    /// A picture out of a file's tags, small.
    Result<SmallPicture> picture(std::string_view bytes, int mostPixels);
    /// As jpegOf.
    Result<std::string> jpeg(std::string_view bytes, int mostPixels);

  private:
    explicit EvidenceWorker(std::unique_ptr<WorkerProcess> process);
    template <typename T>
    Result<T> ask(
        char letter, std::string_view question, std::span<const FileHandle* const> files,
        const BytePath& path, RunControl& control,
        const std::function<void(std::uint64_t)>& onBytes = [](std::uint64_t) {});
    Result<FileRecord> askForRecord(char letter, const FileHandle& file, const BytePath& path,
                                    RunControl& control, const std::function<void(std::uint64_t)>& onBytes,
                                    std::uint64_t& told);

    std::unique_ptr<WorkerProcess> process_;
};

} // namespace sober
