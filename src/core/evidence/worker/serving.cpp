#include "core/evidence/worker/serving.h"

#include "core/base/text.h"
#include "core/evidence/examination.h"
#include "core/evidence/packed_evidence.h"
#include "core/evidence/worker/cage.h"
#include "core/evidence/worker/image_shape.h"
#include "core/evidence/worker/messages.h"
#include "core/media/archive_reader.h"
#include "core/media/carve/byte_parts.h"
#include "core/media/image_reader.h"
#include "core/media/junk.h"
#include "core/media/pcm_reader.h"
#include "core/media/tag_writing.h"

#include <sys/resource.h>

#include <clocale>
#include <csignal>
#include <cstdlib>
#include <cstring>
#include <fcntl.h>
#include <unistd.h>

namespace sober {
namespace {

/// From now on so much processor time and no more: the kernel ends the process.
void limitSeconds(std::uint32_t seconds) {
    rusage used{};
    getrusage(RUSAGE_SELF, &used);
    const auto sofar = static_cast<rlim_t>(used.ru_utime.tv_sec + used.ru_stime.tv_sec);
    rlimit limit{};
    getrlimit(RLIMIT_CPU, &limit);
    limit.rlim_cur = sofar + seconds + 1;
    setrlimit(RLIMIT_CPU, &limit);
}

template <typename Value>
Value valueFrom(std::string_view bytes) {
    Value value{};
    std::memcpy(&value, bytes.data(), std::min(sizeof value, bytes.size()));
    return value;
}

/// Tells how many bytes have gone by, now and then.
class Teller {
  public:
    ~Teller() { tell(); }
    void operator()(std::uint64_t bytes) {
        constexpr std::uint64_t tellEach = 4U << 20;
        untold_ += bytes;
        if (untold_ >= tellEach) {
            tell();
        }
    }

  private:
    void tell() {
        const auto bytes = std::exchange(untold_, 0);
        sendMessage(STDIN_FILENO, tellBytes, {reinterpret_cast<const char*>(&bytes), sizeof bytes});
    }
    std::uint64_t untold_ = 0;
};

/// What lies in several places of an image, with all that reads it.
class OwnedPart final : public ByteSource {
  public:
    OwnedPart(const OpenedImage& image, const BytePath& path, const std::vector<PackedUnit>& units,
              std::vector<ByteRange> extents)
        : image_(image, path, image.packing == ImagePacking::none ? std::vector<PackedUnit>() : units),
          part_(image_, std::move(extents)) {}
    std::uint64_t size() const override { return part_.size(); }
    std::int64_t readAt(std::uint64_t offset, std::span<std::uint8_t> into) override {
        return part_.readAt(offset, into);
    }

  private:
    ImageReader image_;
    ExtentSource part_;
};

using SystemsReader = std::function<Result<std::vector<ImageFileSystem>>(ByteSource&)>;

class Server {
  public:
    explicit Server(const SystemsReader& readSystems) : readSystems_(readSystems) {}

    /// The answer to a question; its bytes are a limit of seconds, then what the question needs.
    std::string answer(Message& message) {
        const std::string_view question = std::string_view(message.bytes).substr(8);
        switch (message.letter) {
        case listenOnQuestion:
            return moreFrames(valueFrom<std::uint32_t>(question));
        case listenAtQuestion:
            if (listening_) {
                listening_->seek(valueFrom<double>(question));
            }
            return {};
        case archiveNextQuestion:
            return packAnswer(nextInArchive());
        case jpegQuestion:
            return packAnswer(jpegOf(question.substr(4), valueFrom<std::int32_t>(question)));
        case pictureQuestion:
            return packAnswer(smallPictureOf(question.substr(4), valueFrom<std::int32_t>(question)));
        default:
            break;
        }
        if (message.files.empty()) {
            return packAnswer(Result<Nothing>(Error{Cause::invalid, {}, "No file was handed over."}));
        }
        return ofFile(message, question);
    }

  private:
    std::string ofFile(Message& message, std::string_view question) {
        const auto& file = message.files.front();
        const BytePath path(question);
        switch (message.letter) {
        case examineQuestion:
        case examineWithExcerptQuestion:
        case passOverQuestion: {
            Teller told;
            const auto onBytes = [&](std::uint64_t bytes) { told(bytes); };
            return packRecord(message.letter == passOverQuestion
                                  ? passOverOpen(file, path, control_, onBytes)
                                  : examineOpen(file, path, control_, onBytes,
                                                message.letter == examineWithExcerptQuestion));
        }
        case probeQuestion: {
            const auto stamp = stampOf(file, path);
            if (!stamp) {
                return packAnswer(Result<Probed>(stamp.error()));
            }
            OpenFileSource source(file, path, stamp->size);
            return packAnswer(probe(source, path));
        }
        case beginningQuestion:
            return packAnswer(decodeBeginning(file, path));
        case readTagsQuestion:
            return packAnswer(readTagFields(file, path));
        case fingerprintQuestion:
            return packAnswer(fingerprint(file, path));
        case junkQuestion:
            return packAnswer(junkIn(file, path, control_));
        case archiveQuestion:
            return packAnswer(openArchive(std::move(message.files.front()), path));
        case archiveUnpackQuestion:
            return packAnswer(archive_ ? archive_->unpackInto(file) : noArchive());
        default:
            return ofFileAndMore(message, unpacked(question));
        }
    }

    static Outcome decodeBeginning(const FileHandle& file, const BytePath& path) {
        constexpr std::size_t frames = 4096;
        auto reader = PcmReader::open(FileHandle(fcntl(file.get(), F_DUPFD_CLOEXEC, 0)), path);
        std::vector<std::int16_t> stereo(2 * frames);
        return !reader                    ? Outcome(reader.error())
               : reader->read(stereo) > 0 ? done()
                                          : Outcome(Error{Cause::unreadable, path,
                                                          displayPath(path) + " holds nothing that plays."});
    }

    std::string ofFileAndMore(Message& message, const Json& more) {
        const auto& file = message.files.front();
        try {
            const auto path = bytesFrom(more.at("path"));
            switch (message.letter) {
            case writeTagsQuestion: {
                const auto change = unpackTagChange(bytesFrom(more.at("change")));
                return packAnswer(change ? writeTagFields(file, path, *change)
                                         : Outcome(Error{Cause::invalid, path, "There is no change."}));
            }
            case compareQuestion:
                return packAnswer(compareOpen(message.files.at(0), path, message.files.at(1),
                                              bytesFrom(more.at("other")), more.at("coarse").get<double>(),
                                              control_));
            case encodeQuestion: {
                const auto form = encodingFormFrom(more.at("form").get<std::string>());
                return packAnswer(form ? encode(file, path, message.files.at(1), *form)
                                       : Result<Encoded>(form.error()));
            }
            case timePictureQuestion:
                return packAnswer(timePicture(file, path, more.at("columns").get<std::size_t>()));
            case listenQuestion:
                return packAnswer(listen(message, more));
            case examinePartQuestion:
            case scanQuestion:
            case joinQuestion:
            case fileSystemsQuestion:
            case measureQuestion:
            case imageBytesQuestion:
            case bytePartsQuestion:
                return ofImage(message, more);
            default:
                break;
            }
        } catch (const std::exception&) {
            // Asked for in a way that no version of this program does: answered below.
        }
        return packAnswer(Result<Nothing>(Error{Cause::invalid, {}, "The question was not understood."}));
    }

    Result<Encoded> encode(const FileHandle& file, const BytePath& path, const FileHandle& target,
                           const EncodingForm& form) {
        const auto stamp = stampOf(file, path);
        RETURN_IF_FAILED(stamp);
        OpenFileSource source(file, path, stamp->size);
        return encodeAudio(source, path, target, form, control_);
    }

    Result<std::string> fingerprint(const FileHandle& file, const BytePath& path) {
        FingerprintPass pass;
        const auto decoded = decodeInto(file, path, pass);
        return decoded ? Result(packFingerprint(pass.finish())) : Result<std::string>(decoded.error());
    }

    Outcome decodeInto(const FileHandle& file, const BytePath& path, SampleSink& sink) {
        const auto stamp = stampOf(file, path);
        RETURN_IF_FAILED(stamp);
        OpenFileSource source(file, path, stamp->size);
        const auto decoded = decodeAudio(source, path, sink, control_);
        return decoded ? done() : Outcome(decoded.error());
    }

    Result<TimeSpectrum> timePicture(const FileHandle& file, const BytePath& path, std::size_t columns) {
        TimeSpectrumPass pass(columns);
        const auto decoded = decodeInto(file, path, pass);
        return decoded ? Result(pass.finish()) : Result<TimeSpectrum>(decoded.error());
    }

    /// Where an image that was compressed can be read from is looked up once while the questions are about
    /// it.
    const std::vector<PackedUnit>* unitsOf(const OpenedImage& image, const BytePath& path, Outcome& failed) {
        if (image.packing == ImagePacking::none || (unitsPath_ == path && unitsLengths_ == image.lengths)) {
            return &units_;
        }
        JoinedSource packed(image.files, image.lengths, path);
        auto units = packedUnits(packed, image.packing, path);
        if (!units) {
            failed = units.error();
            return nullptr;
        }
        units_ = std::move(*units);
        unitsPath_ = path;
        unitsLengths_ = image.lengths;
        return &units_;
    }

    std::string ofImage(Message& message, const Json& more) {
        const auto path = bytesFrom(more.at("path"));
        const auto opened = imageFrom(more, std::move(message.files));
        Outcome failed = done();
        const auto* units = unitsOf(opened, path, failed);
        if (units == nullptr) {
            return packAnswer(failed);
        }
        ImageReader image(opened, path,
                          opened.packing == ImagePacking::none ? std::vector<PackedUnit>() : *units);
        Teller told;
        const auto onBytes = [&](std::uint64_t bytes) { told(bytes); };
        switch (message.letter) {
        case fileSystemsQuestion:
            return packAnswer(readSystems_(image));
        case measureQuestion:
            return packAnswer(Result(image.size()));
        case imageBytesQuestion:
            return packAnswer(bytesAt(image, path, more.at("at"), more.at("length")));
        case scanQuestion: {
            ScanRequest request;
            takeFrom(more.at("scan"), request);
            return packAnswer(Result(scanImage(image, request, control_, onBytes)));
        }
        case joinQuestion: {
            std::vector<Piece> pieces;
            for (const auto& shape : more.at("pieces")) {
                takeFrom(shape, pieces.emplace_back());
            }
            return packAnswer(Result(joinPieces(image, pieces)));
        }
        default:
            break;
        }
        std::vector<ByteRange> extents;
        takeFrom(more.at("extents"), extents);
        ExtentSource part(image, std::move(extents));
        if (message.letter == bytePartsQuestion) {
            const auto kind = pieceKindOf(more.at("kind").get<std::string>());
            return packAnswer(Result(kind ? bytePartsIn(part, *kind, more.at("from"), more.at("to"))
                                          : std::vector<BytePart>{}));
        }
        return packRecord(examineBytes(part, bytesFrom(more.at("name")), control_, onBytes));
    }

    static Result<std::string> bytesAt(ImageReader& image, const BytePath& path, std::uint64_t at,
                                       std::size_t length) {
        constexpr std::size_t most = 1U << 20;
        std::string bytes(std::min(length, most), '\0');
        const auto got = image.readAt(at, {reinterpret_cast<std::uint8_t*>(bytes.data()), bytes.size()});
        if (got < 0) {
            return Error{Cause::damaged, path, displayPath(path) + " cannot be unpacked there."};
        }
        bytes.resize(static_cast<std::size_t>(got));
        return bytes;
    }

    /// A file, or what lies in several places of an image.
    Result<ListeningFormat> listen(Message& message, const Json& more) {
        const auto path = bytesFrom(more.at("path"));
        const int rate = more.at("rate");
        listening_.reset();
        listenedImage_.reset();
        auto opened = more.contains("extents")
                          ? listenToPart(message, more, path, rate)
                          : PcmReader::open(std::move(message.files.front()), path, rate);
        RETURN_IF_FAILED(opened);
        listening_.emplace(std::move(*opened));
        return ListeningFormat{listening_->rate(), listening_->seconds()};
    }

    Result<PcmReader> listenToPart(Message& message, const Json& more, const BytePath& path, int rate) {
        std::vector<ByteRange> extents;
        takeFrom(more.at("extents"), extents);
        listenedImage_ = std::make_unique<OpenedImage>(imageFrom(more, std::move(message.files)));
        Outcome failed = done();
        const auto* units = unitsOf(*listenedImage_, path, failed);
        return units == nullptr ? Result<PcmReader>(failed.error())
                                : PcmReader::open(std::make_unique<OwnedPart>(*listenedImage_, path, *units,
                                                                              std::move(extents)),
                                                  path, rate);
    }

    static Outcome noArchive() { return Error{Cause::invalid, {}, "No archive is open."}; }

    Outcome openArchive(FileHandle file, const BytePath& path) {
        archive_.reset();
        auto opened = ArchiveReader::open(std::move(file), path);
        RETURN_IF_FAILED(opened);
        archive_.emplace(std::move(*opened));
        return done();
    }

    /// One without a path after the last.
    Result<ArchivedFile> nextInArchive() {
        auto file = archive_ ? archive_->next() : Result<std::optional<ArchivedFile>>(noArchive().error());
        return file ? Result(file->value_or(ArchivedFile{})) : Result<ArchivedFile>(file.error());
    }

    std::string moreFrames(std::uint32_t frames) {
        constexpr std::uint32_t most = 1U << 20;
        std::vector<std::int16_t> stereo(std::size_t{2} * std::min(frames, most));
        const auto read = listening_ ? listening_->read(stereo) : 0;
        return {reinterpret_cast<const char*>(stereo.data()), read * 2 * sizeof(std::int16_t)};
    }

    const SystemsReader& readSystems_;
    RunControl control_;
    std::unique_ptr<OpenedImage> listenedImage_; ///< outlives the one who reads it
    std::optional<PcmReader> listening_;
    std::optional<ArchiveReader> archive_; ///< gone through
    std::vector<PackedUnit> units_;        ///< of the image that was asked about last
    BytePath unitsPath_;
    std::vector<std::uint64_t> unitsLengths_;
};

} // namespace

int serveAsEvidenceWorker(const SystemsReader& readSystems) {
    // The one who asks decides when to stop; an interrupt at the terminal reaches both.
    std::signal(SIGINT, SIG_IGN);
    setlocale(LC_CTYPE, "C.UTF-8");    // NOLINT(concurrency-mt-unsafe): else libarchive gives no names
    const ChecksumPass settings(true); // what reads its settings the first time does so now
    if (!enterCage()) {
        return noCage;
    }
    Server server(readSystems);
    while (auto message = receiveMessage(STDIN_FILENO)) {
        if (message->bytes.size() < 8) {
            break;
        }
        limitSeconds(
            static_cast<std::uint32_t>(std::strtoul(message->bytes.substr(0, 8).c_str(), nullptr, 16)));
        if (!sendMessage(STDIN_FILENO, 'a', server.answer(*message))) {
            break;
        }
    }
    return 0;
}

} // namespace sober
