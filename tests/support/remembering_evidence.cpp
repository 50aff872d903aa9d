// What the tests have in place of sober-evidence: it asks that program about a file the first time, and
// remembers the answer for whoever asks the same about the same bytes. The real program is asked whatever
// writes, plays or reads images; so it is by all tests of the worker itself.
#include "core/base/file_handle.h"
#include "core/base/text.h"
#include "core/evidence/packed_evidence.h"
#include "core/evidence/worker/answers.h"
#include "core/evidence/worker/messages.h"
#include "core/evidence/worker/serving.h"

#include <sys/prctl.h>
#include <sys/socket.h>
#include <sys/stat.h>
#include <sys/wait.h>

#include <array>
#include <csignal>
#include <cstring>
#include <filesystem>
#include <fstream>
#include <memory>
#include <unistd.h>
#include <xxhash.h>

using namespace sober;
namespace fs = std::filesystem;

namespace {

constexpr std::string_view thePath = "\x01the path\x01";

std::string replaced(std::string text, std::string_view from, std::string_view to) {
    for (auto at = text.find(from); !from.empty() && at != std::string::npos;
         at = text.find(from, at + to.size())) {
        text.replace(at, from.size(), to);
    }
    return text;
}

/// Where the programs stand.
BytePath programs() {
    return BytePath(parentOf(fs::read_symlink("/proc/self/exe").string()));
}

/// The real program.
class Worker {
  public:
    bool ask(const Message& message) {
        if (line_.get() < 0) {
            start();
        }
        std::vector<int> files;
        for (const auto& file : message.files) {
            files.push_back(file.get());
        }
        return sendMessage(line_.get(), message.letter, message.bytes, files);
    }
    std::optional<Message> hear() { return receiveMessage(line_.get()); }
    /// Ends as the real one did.
    [[noreturn]] void endLikeIt() const {
        int status = 0;
        waitpid(child_, &status, 0);
        if (WIFSIGNALED(status)) {
            std::signal(WTERMSIG(status), SIG_DFL);
            raise(WTERMSIG(status));
        }
        _exit(WEXITSTATUS(status));
    }

  private:
    void start() {
        std::array<int, 2> ends{};
        if (socketpair(AF_UNIX, SOCK_STREAM | SOCK_CLOEXEC, 0, ends.data()) != 0) {
            _exit(1);
        }
        const auto program = joinPath(programs(), workerProgram);
        child_ = fork();
        if (child_ == 0) {
            prctl(PR_SET_PDEATHSIG, SIGKILL);
            dup2(ends[1], STDIN_FILENO);
            execl(program.c_str(), program.c_str(), nullptr);
            _exit(127);
        }
        close(ends[1]);
        line_ = FileHandle(ends[0]);
    }
    FileHandle line_;
    pid_t child_ = 0;
};

struct Remembered {
    BytePath path;                 ///< of the file that is asked about
    BytePath place;                ///< where the answer is kept
    std::vector<FileStamp> stamps; ///< of the files, before their bytes were read
};

std::vector<FileStamp> stampsOf(const Message& message) {
    std::vector<FileStamp> stamps;
    for (const auto& file : message.files) {
        const auto stamp = stampOf(file, {});
        stamps.push_back(stamp ? *stamp : FileStamp{});
    }
    return stamps;
}

/// What holds of these bytes whenever they are asked about: no failure that may not come again.
bool isLasting(const Result<FileRecord>& answer) {
    return answer || answer.error().cause == Cause::notAudio || answer.error().cause == Cause::unreadable;
}

/// Answers by the question and the bytes of the files; those of another build of the worker are forgotten.
class Memory {
  public:
    Memory() {
        const auto standing = programs();
        const auto all = joinPath(parentOf(standing), "test-memory");
        struct stat is {};
        stat(joinPath(standing, workerProgram).c_str(), &is);
        const auto build = std::to_string(is.st_mtim.tv_sec) + "-" + std::to_string(is.st_mtim.tv_nsec);
        folder_ = joinPath(all, build);
        std::error_code failed;
        for (const auto& former : fs::directory_iterator(all, failed)) {
            if (former.path().filename() != build) {
                fs::remove_all(former, failed);
            }
        }
        fs::create_directories(folder_, failed);
    }

    /// None for what is not remembered.
    std::optional<Remembered> placeOf(const Message& message) const {
        const std::string_view question = std::string_view(message.bytes).substr(8);
        BytePath path(question);
        std::string asked(1, message.letter);
        if (std::strchr("xpqftzj", message.letter) != nullptr) {
            asked += nameOf(path);
        } else if (message.letter == compareQuestion || message.letter == timePictureQuestion) {
            auto json = unpacked(question);
            path = bytesFrom(json.at("path"));
            json["path"] = bytesShape(nameOf(path));
            if (json.contains("other")) {
                json["other"] = bytesShape(nameOf(bytesFrom(json.at("other"))));
            }
            asked += packed(json);
        } else {
            return {};
        }
        auto stamps = stampsOf(message);
        std::unique_ptr<XXH3_state_t, decltype(&XXH3_freeState)> state(XXH3_createState(), XXH3_freeState);
        XXH3_128bits_reset(state.get());
        XXH3_128bits_update(state.get(), asked.data(), asked.size());
        std::vector<char> bytes(1U << 20);
        for (const auto& file : message.files) {
            off_t at = 0;
            for (ssize_t got = 1; got != 0; at += got) {
                got = pread(file.get(), bytes.data(), bytes.size(), at);
                if (got < 0) {
                    return {};
                }
                XXH3_128bits_update(state.get(), bytes.data(), static_cast<std::size_t>(got));
            }
            XXH3_128bits_update(state.get(), &at, sizeof at);
        }
        XXH128_canonical_t digest{};
        XXH128_canonicalFromHash(&digest, XXH3_128bits_digest(state.get()));
        return Remembered{path, joinPath(folder_, toHex(digest.digest)), std::move(stamps)};
    }

    /// With the bytes of the file that went by before it.
    static std::optional<std::pair<std::uint64_t, std::string>> recall(const Remembered& known,
                                                                       const Message& message) {
        const auto kept = wholeFile(known.place, 1ULL << 30);
        std::uint64_t told = 0;
        if (!kept || kept->size() < sizeof told) {
            return {};
        }
        std::memcpy(&told, kept->data(), sizeof told);
        const auto answer = said(message, kept->substr(sizeof told), thePath, known.path);
        return answer ? std::optional(std::pair(told, *answer)) : std::nullopt;
    }
    static void keep(const Remembered& known, const Message& message, std::uint64_t told,
                     const std::string& answer) {
        // What was written to meanwhile is not what was read.
        const auto bytes =
            stampsOf(message) == known.stamps ? said(message, answer, known.path, thePath) : std::nullopt;
        if (bytes) {
            const auto part = known.place + "." + std::to_string(getpid());
            std::ofstream(part, std::ios::binary).write(reinterpret_cast<const char*>(&told), sizeof told)
                << *bytes;
            std::error_code failed;
            fs::rename(part, known.place, failed);
        }
    }

  private:
    /// The answer with one path in the place of another, and with the stamp that the file has now.
    static std::optional<std::string> said(const Message& message, const std::string& answer,
                                           std::string_view from, std::string_view to) {
        const auto shown = [](std::string_view path) {
            return path == thePath ? std::string(path) : displayPath(BytePath(path));
        };
        const auto renamed = [&](const std::string& text) { return replaced(text, shown(from), shown(to)); };
        const auto named = [&](const BytePath& path) { return path == from ? BytePath(to) : path; };
        if (message.letter == examineQuestion || message.letter == passOverQuestion) {
            auto record = unpackRecord(answer);
            const auto stamp = stampOf(message.files.front(), BytePath(to));
            if (!record || !stamp || !isLasting(*record)) {
                return {};
            }
            if (*record) {
                (*record)->stamp = *stamp;
                (*record)->problem = renamed((*record)->problem);
                return packRecord(*record);
            }
            const auto& error = record->error();
            return packRecord(Error{error.cause, named(error.path), renamed(error.sentence)});
        }
        auto json = unpacked(answer);
        if (!json.is_object()) {
            return {};
        }
        if (json.contains("sentence")) {
            const auto cause = static_cast<Cause>(json.at("cause").get<int>());
            if (!isLasting(Error{cause, {}, {}})) {
                return {};
            }
            json["path"] = bytesShape(named(bytesFrom(json["path"])));
            json["sentence"] = bytesShape(renamed(bytesFrom(json["sentence"])));
        }
        return packed(json);
    }
    BytePath folder_;
};

} // namespace

int main() {
    std::signal(SIGINT, SIG_IGN);
    const Memory memory;
    Worker worker;
    while (const auto message = receiveMessage(STDIN_FILENO)) {
        const auto known = memory.placeOf(*message);
        if (const auto answer = known ? Memory::recall(*known, *message) : std::nullopt) {
            const auto& [told, bytes] = *answer;
            if ((told > 0 && !sendMessage(STDIN_FILENO, tellBytes,
                                          {reinterpret_cast<const char*>(&told), sizeof told})) ||
                !sendMessage(STDIN_FILENO, 'a', bytes)) {
                break;
            }
            continue;
        }
        if (!worker.ask(*message)) {
            worker.endLikeIt();
        }
        std::uint64_t told = 0;
        while (true) {
            const auto heard = worker.hear();
            if (!heard) {
                worker.endLikeIt();
            }
            const bool isAnswer = heard->letter != tellBytes;
            if (isAnswer && known) {
                Memory::keep(*known, *message, told, heard->bytes);
            } else if (!isAnswer) {
                std::uint64_t more = 0;
                std::memcpy(&more, heard->bytes.data(), std::min(sizeof more, heard->bytes.size()));
                told += more;
            }
            if (!sendMessage(STDIN_FILENO, heard->letter, heard->bytes)) {
                return 0;
            }
            if (isAnswer) {
                break;
            }
        }
    }
    return 0;
}
