#include "core/evidence/worker/serving.h"

#include "core/base/text.h"
#include "core/evidence/examination.h"
#include "core/evidence/packed_evidence.h"
#include "core/evidence/worker/answers.h"
#include "core/evidence/worker/cage.h"
#include "core/evidence/worker/messages.h"
#include "core/media/junk.h"
#include "core/media/pcm_reader.h"
#include "core/media/tag_writing.h"

#include <sys/resource.h>

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

class Server {
  public:
    /// The answer to a question; its bytes are a limit of seconds, then what the question needs.
    std::string answer(const Message& message) {
        const std::string_view question = std::string_view(message.bytes).substr(8);
        switch (message.letter) {
        case listenOnQuestion:
            return moreFrames(valueFrom<std::uint32_t>(question));
        case listenAtQuestion:
            if (listening_) {
                listening_->seek(valueFrom<double>(question));
            }
            return {};
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
    std::string ofFile(const Message& message, std::string_view question) {
        const auto& file = message.files.front();
        const BytePath path(question);
        switch (message.letter) {
        case examineQuestion:
        case passOverQuestion: {
            Teller told;
            const auto onBytes = [&](std::uint64_t bytes) { told(bytes); };
            return packRecord(message.letter == examineQuestion
                                  ? examineOpen(file, path, control_, onBytes)
                                  : passOverOpen(file, path, control_, onBytes));
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
        case junkQuestion:
            return packAnswer(junkIn(file, path, control_));
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

    std::string ofFileAndMore(const Message& message, const Json& more) {
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
                return packAnswer(listen(file, path, more));
            case examinePartQuestion:
            case scanQuestion:
            case joinQuestion:
            case fileSystemsQuestion:
                return ofImage(message.letter, file, path, more);
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
        if (!stamp) {
            return stamp.error();
        }
        OpenFileSource source(file, path, stamp->size);
        return encodeAudio(source, path, target, form, control_);
    }

    Result<TimeSpectrum> timePicture(const FileHandle& file, const BytePath& path, std::size_t columns) {
        const auto stamp = stampOf(file, path);
        if (!stamp) {
            return stamp.error();
        }
        OpenFileSource source(file, path, stamp->size);
        TimeSpectrumPass pass(columns);
        const auto decoded = decodeAudio(source, path, pass, control_);
        return decoded ? Result(pass.finish()) : Result<TimeSpectrum>(decoded.error());
    }

    /// An image tells no length of its own where it is a device.
    std::string ofImage(char letter, const FileHandle& file, const BytePath& path, const Json& more) {
        OpenFileSource image(file, path, more.at("size").get<std::uint64_t>());
        Teller told;
        const auto onBytes = [&](std::uint64_t bytes) { told(bytes); };
        if (letter == fileSystemsQuestion) {
            return packAnswer(readFileSystems(image));
        }
        if (letter == scanQuestion) {
            ScanRequest request;
            takeFrom(more.at("scan"), request);
            return packAnswer(Result(scanImage(image, request, control_, onBytes)));
        }
        if (letter == joinQuestion) {
            std::vector<Piece> pieces;
            for (const auto& shape : more.at("pieces")) {
                takeFrom(shape, pieces.emplace_back());
            }
            return packAnswer(Result(joinPieces(image, pieces)));
        }
        std::vector<ByteRange> extents;
        takeFrom(more.at("extents"), extents);
        ExtentSource part(image, std::move(extents));
        return packRecord(examineBytes(part, path, control_, onBytes));
    }

    Result<ListeningFormat> listen(const FileHandle& file, const BytePath& path, const Json& more) {
        std::vector<ByteRange> extents;
        takeFrom(more.at("extents"), extents);
        const int rate = more.at("rate");
        FileHandle own(fcntl(file.get(), F_DUPFD_CLOEXEC, 0));
        auto opened = extents.empty() ? PcmReader::open(std::move(own), path, rate)
                                      : PcmReader::open(std::move(own), path, rate, std::move(extents));
        if (!opened) {
            return opened.error();
        }
        listening_.emplace(std::move(*opened));
        return ListeningFormat{listening_->rate(), listening_->seconds()};
    }

    std::string moreFrames(std::uint32_t frames) {
        constexpr std::uint32_t most = 1U << 20;
        std::vector<std::int16_t> stereo(std::size_t{2} * std::min(frames, most));
        const auto read = listening_ ? listening_->read(stereo) : 0;
        return {reinterpret_cast<const char*>(stereo.data()), read * 2 * sizeof(std::int16_t)};
    }

    RunControl control_;
    std::optional<PcmReader> listening_;
};

int serve() {
    // The one who asks decides when to stop; an interrupt at the terminal reaches both.
    std::signal(SIGINT, SIG_IGN);
    const ChecksumPass settings(true); // what reads its settings the first time does so now
    if (!enterCage()) {
        return noCage;
    }
    Server server;
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

} // namespace

std::optional<int> serveAsEvidenceWorker(int argc, char** argv) {
    if (argc != 2 || std::string_view(argv[1]) != workerWord) {
        return std::nullopt;
    }
    return serve();
}

} // namespace sober
