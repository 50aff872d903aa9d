// A drive that cannot read some of its bytes: loaded before a program (LD_PRELOAD), it lets reads of the file
// whose name ends in $FAILING_FILE fail with EIO where they touch the bytes from $FAILING_FIRST up to, and
// not with, $FAILING_PAST. A read that begins before them is cut short there, as a kernel does it. And a
// folder that cannot be flushed once: of the flushes of the one whose name ends in $FAILING_FOLDER, the
// $FAILING_FLUSH-th fails with EIO.

#include <sys/types.h>

#include <atomic>
#include <cerrno>
#include <cstdlib>
#include <cstring>
#include <dlfcn.h>
#include <string>
#include <unistd.h>

namespace {

using ReadAt = ssize_t (*)(int, void*, size_t, off_t);

bool isNamedBy(const char* variable, int file) {
    const char* name = std::getenv(variable);
    std::string path(4096, '\0');
    const auto length = readlink(("/proc/self/fd/" + std::to_string(file)).c_str(), path.data(), path.size());
    return name != nullptr && length > 0 && path.substr(0, static_cast<std::size_t>(length)).ends_with(name);
}

off_t placeFrom(const char* variable) {
    const char* text = std::getenv(variable);
    return text != nullptr ? static_cast<off_t>(std::strtoll(text, nullptr, 10)) : 0;
}

ssize_t readAt(const char* symbol, int file, void* into, size_t length, off_t place) {
    const auto real = reinterpret_cast<ReadAt>(dlsym(RTLD_NEXT, symbol));
    if (isNamedBy("FAILING_FILE", file)) {
        const auto first = placeFrom("FAILING_FIRST");
        const auto past = placeFrom("FAILING_PAST");
        if (place < past && place + static_cast<off_t>(length) > first) {
            if (place >= first) {
                errno = EIO;
                return -1;
            }
            length = static_cast<size_t>(first - place);
        }
    }
    return real(file, into, length, place);
}

} // namespace

extern "C" ssize_t pread(int file, void* into, size_t length, off_t place) {
    return readAt("pread", file, into, length, place);
}

extern "C" ssize_t pread64(int file, void* into, size_t length, off_t place) {
    return readAt("pread64", file, into, length, place);
}

extern "C" int fsync(int file) {
    static std::atomic<off_t> flushes = 0;
    if (isNamedBy("FAILING_FOLDER", file) && ++flushes == placeFrom("FAILING_FLUSH")) {
        errno = EIO;
        return -1;
    }
    return reinterpret_cast<int (*)(int)>(dlsym(RTLD_NEXT, "fsync"))(file);
}
