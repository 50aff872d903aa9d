// A drive and a system that fail once: loaded before a program (LD_PRELOAD), it lets the $FAILING_NTH-th call
// of the kind $FAILING_CALL that concerns a path below $FAILING_BELOW fail as $FAILING_HOW says:
//   the name of an error (EIO, ENOSPC, …)   it is not done and reports that error
//   late-EIO                                it is done and reports EIO all the same, as servers do
//   short                                   of a read or a write, half of it is done
//   kill, kill-after                        the process ends before it, or right after it
// With $FAILING_COUNTS, how often each kind was called is written there at the end instead. Programs that are
// started by the program are left alone.

#include <sys/sendfile.h>
#include <sys/stat.h>
#include <sys/types.h>
#include <sys/xattr.h>

#include <algorithm>
#include <array>
#include <atomic>
#include <cerrno>
#include <csignal>
#include <cstdarg>
#include <cstdint>
#include <cstdio>
#include <cstdlib>
#include <cstring>
#include <dlfcn.h>
#include <fcntl.h>
#include <string>
#include <string_view>
#include <type_traits>
#include <unistd.h>
#include <utility>

namespace {

enum Call : std::size_t {
    openCall,
    readCall,
    writeCall,
    fsyncCall,
    fdatasyncCall,
    renameCall,
    linkCall,
    unlinkCall,
    mkdirCall,
    ftruncateCall,
    chmodCall,
    utimensCall,
    setxattrCall,
    fallocateCall,
    statCall,
    calls,
};

constexpr std::array<const char*, calls> names{"open",   "read",    "write",    "fsync",     "fdatasync",
                                               "rename", "link",    "unlink",   "mkdir",     "ftruncate",
                                               "chmod",  "utimens", "setxattr", "fallocate", "stat"};

constexpr std::array<std::pair<std::string_view, int>, 10> errors{{{"EIO", EIO},
                                                                   {"ENOSPC", ENOSPC},
                                                                   {"EACCES", EACCES},
                                                                   {"EROFS", EROFS},
                                                                   {"EMFILE", EMFILE},
                                                                   {"ENOTCONN", ENOTCONN},
                                                                   {"ESTALE", ESTALE},
                                                                   {"ETIMEDOUT", ETIMEDOUT},
                                                                   {"late-EIO", EIO},
                                                                   {"ENOMEM", ENOMEM}}};

std::string valueOf(const char* variable) {
    const char* value = std::getenv(variable);
    return value != nullptr ? value : "";
}

/// What is to fail, read once.
struct Plan {
    std::string call = valueOf("FAILING_CALL");
    std::uint64_t nth = std::strtoull(valueOf("FAILING_NTH").c_str(), nullptr, 10);
    std::string how = valueOf("FAILING_HOW");
    std::string below = valueOf("FAILING_BELOW");
    std::string counts = valueOf("FAILING_COUNTS");
    std::array<std::atomic<std::uint64_t>, calls> seen{};

    Plan() { unsetenv("LD_PRELOAD"); }
    ~Plan() {
        if (counts.empty()) {
            return;
        }
        const auto where = std::exchange(counts, {});
        if (auto* file = std::fopen(where.c_str(), "w"); file != nullptr) {
            for (std::size_t i = 0; i < calls; ++i) {
                std::fprintf(file, "%s %llu\n", names[i], static_cast<unsigned long long>(seen[i].load()));
            }
            std::fclose(file);
        }
    }

    bool concerns(std::string_view path) const { return !below.empty() && path.starts_with(below); }
    bool concerns(int file) const {
        if (below.empty() || file < 0) {
            return false;
        }
        std::string path(4096, '\0');
        const auto length =
            readlink(("/proc/self/fd/" + std::to_string(file)).c_str(), path.data(), path.size());
        return length > 0 && concerns(std::string_view(path).substr(0, static_cast<std::size_t>(length)));
    }
    /// Whether this is the call that fails.
    bool isDue(Call kind) { return ++seen[kind] == nth && call == names[kind]; }
};

Plan& plan() {
    static Plan it;
    return it;
}

/// So that programs that are started are left alone from the beginning.
[[maybe_unused]] const bool begun = [] {
    plan();
    return true;
}();

bool concernsEither(const char* a, const char* b) {
    return plan().concerns(a) || plan().concerns(b);
}

/// Does a call by `real`, or what the plan says in its place.
template <typename Real>
auto call(Call kind, bool concerned, Real real) -> decltype(real()) {
    if (!concerned || !plan().isDue(kind)) {
        return real();
    }
    const auto& how = plan().how;
    if (how == "kill") {
        raise(SIGKILL);
    }
    const bool isDone = how == "kill-after" || how == "late-EIO";
    auto result = isDone ? real() : decltype(real())(-1);
    if (how == "kill-after") {
        raise(SIGKILL);
    }
    for (const auto& [name, number] : errors) {
        if (how == name) {
            errno = number;
            result = -1;
        }
    }
    return result;
}

/// The same for what reads or writes `length` bytes.
template <typename Real>
ssize_t transfer(Call kind, int file, size_t length, Real real) {
    if (plan().how == "short" && plan().call == names[kind]) {
        const bool due = plan().concerns(file) && plan().isDue(kind);
        return real(due && length > 1 ? length / 2 : length);
    }
    return call(kind, plan().concerns(file), [&] { return real(length); });
}

template <typename Function>
Function next(const char* symbol) {
    return reinterpret_cast<Function>(dlsym(RTLD_NEXT, symbol));
}

} // namespace

#define OPEN_AS(NAME)                                                                                        \
    extern "C" int NAME(const char* path, int flags, ...) {                                                  \
        va_list rest;                                                                                        \
        va_start(rest, flags);                                                                               \
        const mode_t mode = (flags & (O_CREAT | O_TMPFILE)) != 0 ? va_arg(rest, mode_t) : 0;                 \
        va_end(rest);                                                                                        \
        static const auto real = next<int (*)(const char*, int, mode_t)>(#NAME);                             \
        return call(openCall, plan().concerns(path), [&] { return real(path, flags, mode); });               \
    }
OPEN_AS(open)
OPEN_AS(open64)

#define OPEN_AT_AS(NAME)                                                                                     \
    extern "C" int NAME(int folder, const char* path, int flags, ...) {                                      \
        va_list rest;                                                                                        \
        va_start(rest, flags);                                                                               \
        const mode_t mode = (flags & (O_CREAT | O_TMPFILE)) != 0 ? va_arg(rest, mode_t) : 0;                 \
        va_end(rest);                                                                                        \
        static const auto real = next<int (*)(int, const char*, int, mode_t)>(#NAME);                        \
        const bool concerned = path[0] == '/' ? plan().concerns(path) : plan().concerns(folder);             \
        return call(openCall, concerned, [&] { return real(folder, path, flags, mode); });                   \
    }
OPEN_AT_AS(openat)
OPEN_AT_AS(openat64)

#define TRANSFER_AS(NAME, KIND, BYTES)                                                                       \
    extern "C" ssize_t NAME(int file, BYTES bytes, size_t length) {                                          \
        static const auto real = next<ssize_t (*)(int, BYTES, size_t)>(#NAME);                               \
        return transfer(KIND, file, length, [&](size_t part) { return real(file, bytes, part); });           \
    }
TRANSFER_AS(read, readCall, void*)
TRANSFER_AS(write, writeCall, const void*)

#define TRANSFER_AT_AS(NAME, KIND, BYTES)                                                                    \
    extern "C" ssize_t NAME(int file, BYTES bytes, size_t length, off_t place) {                             \
        static const auto real = next<ssize_t (*)(int, BYTES, size_t, off_t)>(#NAME);                        \
        return transfer(KIND, file, length, [&](size_t part) { return real(file, bytes, part, place); });    \
    }
TRANSFER_AT_AS(pread, readCall, void*)
TRANSFER_AT_AS(pread64, readCall, void*)
TRANSFER_AT_AS(pwrite, writeCall, const void*)
TRANSFER_AT_AS(pwrite64, writeCall, const void*)

#define SEND_AS(NAME)                                                                                        \
    extern "C" ssize_t NAME(int to, int from, off_t* place, size_t length) {                                 \
        static const auto real = next<ssize_t (*)(int, int, off_t*, size_t)>(#NAME);                         \
        return transfer(writeCall, to, length, [&](size_t part) { return real(to, from, place, part); });    \
    }
SEND_AS(sendfile)
SEND_AS(sendfile64)

#define ON_FILE_AS(NAME, KIND)                                                                               \
    extern "C" int NAME(int file) {                                                                          \
        static const auto real = next<int (*)(int)>(#NAME);                                                  \
        return call(KIND, plan().concerns(file), [&] { return real(file); });                                \
    }
ON_FILE_AS(fsync, fsyncCall)
ON_FILE_AS(fdatasync, fdatasyncCall)
ON_FILE_AS(syncfs, fsyncCall)

#define TRUNCATE_AS(NAME)                                                                                    \
    extern "C" int NAME(int file, off_t length) noexcept {                                                   \
        static const auto real = next<int (*)(int, off_t)>(#NAME);                                           \
        return call(ftruncateCall, plan().concerns(file), [&] { return real(file, length); });               \
    }
TRUNCATE_AS(ftruncate)
TRUNCATE_AS(ftruncate64)

#define ALLOCATE_AS(NAME)                                                                                    \
    extern "C" int NAME(int file, int mode, off_t from, off_t length) {                                      \
        static const auto real = next<int (*)(int, int, off_t, off_t)>(#NAME);                               \
        return call(fallocateCall, plan().concerns(file), [&] { return real(file, mode, from, length); });   \
    }
ALLOCATE_AS(fallocate)
ALLOCATE_AS(fallocate64)

extern "C" int rename(const char* from, const char* to) noexcept {
    static const auto real = next<int (*)(const char*, const char*)>("rename");
    return call(renameCall, concernsEither(from, to), [&] { return real(from, to); });
}

extern "C" int renameat2(int fromFolder, const char* from, int toFolder, const char* to,
                         unsigned flags) noexcept {
    static const auto real = next<int (*)(int, const char*, int, const char*, unsigned)>("renameat2");
    return call(renameCall, concernsEither(from, to),
                [&] { return real(fromFolder, from, toFolder, to, flags); });
}

extern "C" int link(const char* from, const char* to) noexcept {
    static const auto real = next<int (*)(const char*, const char*)>("link");
    return call(linkCall, concernsEither(from, to), [&] { return real(from, to); });
}

extern "C" int unlink(const char* path) noexcept {
    static const auto real = next<int (*)(const char*)>("unlink");
    return call(unlinkCall, plan().concerns(path), [&] { return real(path); });
}

extern "C" int mkdir(const char* path, mode_t mode) noexcept {
    static const auto real = next<int (*)(const char*, mode_t)>("mkdir");
    return call(mkdirCall, plan().concerns(path), [&] { return real(path, mode); });
}

extern "C" int fchmod(int file, mode_t mode) noexcept {
    static const auto real = next<int (*)(int, mode_t)>("fchmod");
    return call(chmodCall, plan().concerns(file), [&] { return real(file, mode); });
}

extern "C" int chmod(const char* path, mode_t mode) noexcept {
    static const auto real = next<int (*)(const char*, mode_t)>("chmod");
    return call(chmodCall, plan().concerns(path), [&] { return real(path, mode); });
}

extern "C" int fchown(int file, uid_t user, gid_t group) noexcept {
    static const auto real = next<int (*)(int, uid_t, gid_t)>("fchown");
    return call(chmodCall, plan().concerns(file), [&] { return real(file, user, group); });
}

extern "C" int futimens(int file, const struct timespec times[2]) noexcept {
    static const auto real = next<int (*)(int, const struct timespec*)>("futimens");
    return call(utimensCall, plan().concerns(file), [&] { return real(file, times); });
}

extern "C" int fsetxattr(int file, const char* name, const void* value, size_t size, int flags) noexcept {
    static const auto real = next<int (*)(int, const char*, const void*, size_t, int)>("fsetxattr");
    return call(setxattrCall, plan().concerns(file), [&] { return real(file, name, value, size, flags); });
}

#define STAT_AS(NAME, STATUS)                                                                                \
    extern "C" int NAME(const char* path, struct STATUS* status) noexcept {                                  \
        static const auto real = next<int (*)(const char*, struct STATUS*)>(#NAME);                          \
        return call(statCall, plan().concerns(path), [&] { return real(path, status); });                    \
    }
STAT_AS(stat, stat)
STAT_AS(stat64, stat64)
STAT_AS(lstat, stat)
STAT_AS(lstat64, stat64)

#define FSTAT_AS(NAME, STATUS)                                                                               \
    extern "C" int NAME(int file, struct STATUS* status) noexcept {                                          \
        static const auto real = next<int (*)(int, struct STATUS*)>(#NAME);                                  \
        return call(statCall, plan().concerns(file), [&] { return real(file, status); });                    \
    }
FSTAT_AS(fstat, stat)
FSTAT_AS(fstat64, stat64)

extern "C" int statx(int folder, const char* path, int flags, unsigned mask, struct statx* status) noexcept {
    static const auto real = next<int (*)(int, const char*, int, unsigned, struct statx*)>("statx");
    const bool concerned = path[0] == '/' ? plan().concerns(path) : plan().concerns(folder);
    return call(statCall, concerned, [&] { return real(folder, path, flags, mask, status); });
}
