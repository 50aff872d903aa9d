#include "core/evidence/worker/cage.h"

#include <array>
#include <cerrno>
#include <fcntl.h>
#include <sched.h>
#include <seccomp.h>
#include <unistd.h>

namespace sober {
namespace {

/// What computing, memory, threads of this process, and files that are open need.
constexpr std::array allowed{SCMP_SYS(read),
                             SCMP_SYS(readv),
                             SCMP_SYS(pread64),
                             SCMP_SYS(preadv),
                             SCMP_SYS(write),
                             SCMP_SYS(writev),
                             SCMP_SYS(pwrite64),
                             SCMP_SYS(lseek),
                             SCMP_SYS(fstat),
                             SCMP_SYS(ftruncate),
                             SCMP_SYS(fsync),
                             SCMP_SYS(fcntl),
                             SCMP_SYS(fadvise64),
                             SCMP_SYS(close),
                             SCMP_SYS(sendto),
                             SCMP_SYS(recvfrom),
                             SCMP_SYS(sendmsg),
                             SCMP_SYS(recvmsg),
                             SCMP_SYS(poll),
                             SCMP_SYS(ppoll),
                             SCMP_SYS(mmap),
                             SCMP_SYS(munmap),
                             SCMP_SYS(mremap),
                             SCMP_SYS(mprotect),
                             SCMP_SYS(madvise),
                             SCMP_SYS(brk),
                             SCMP_SYS(futex),
                             SCMP_SYS(set_robust_list),
                             SCMP_SYS(rseq),
                             SCMP_SYS(rt_sigaction),
                             SCMP_SYS(rt_sigprocmask),
                             SCMP_SYS(rt_sigreturn),
                             SCMP_SYS(sigaltstack),
                             SCMP_SYS(clock_gettime),
                             SCMP_SYS(clock_getres),
                             SCMP_SYS(clock_nanosleep),
                             SCMP_SYS(nanosleep),
                             SCMP_SYS(gettimeofday),
                             SCMP_SYS(getrusage),
                             SCMP_SYS(getrlimit),
                             SCMP_SYS(setrlimit),
                             SCMP_SYS(sched_yield),
                             SCMP_SYS(sched_getaffinity),
                             SCMP_SYS(getcpu),
                             SCMP_SYS(getpid),
                             SCMP_SYS(gettid),
                             SCMP_SYS(sysinfo),
                             SCMP_SYS(uname),
                             SCMP_SYS(getrandom),
                             SCMP_SYS(restart_syscall),
                             SCMP_SYS(exit),
                             SCMP_SYS(exit_group)};

bool allow(scmp_filter_ctx filter) {
    for (const auto call : allowed) {
        if (seccomp_rule_add(filter, SCMP_ACT_ALLOW, call, 0) != 0) {
            return false;
        }
    }
    const auto self = static_cast<scmp_datum_t>(getpid());
    // Its own limits, its own signals, a descriptor's own status, and threads, which share everything.
    return seccomp_rule_add(filter, SCMP_ACT_ALLOW, SCMP_SYS(prlimit64), 1, SCMP_A0(SCMP_CMP_EQ, 0)) == 0 &&
           seccomp_rule_add(filter, SCMP_ACT_ALLOW, SCMP_SYS(tgkill), 1, SCMP_A0(SCMP_CMP_EQ, self)) == 0 &&
           seccomp_rule_add(filter, SCMP_ACT_ALLOW, SCMP_SYS(newfstatat), 1,
                            SCMP_A3(SCMP_CMP_MASKED_EQ, 0x1000, 0x1000)) == 0 && // AT_EMPTY_PATH
           seccomp_rule_add(filter, SCMP_ACT_ALLOW, SCMP_SYS(clone), 1,
                            SCMP_A0(SCMP_CMP_MASKED_EQ, CLONE_THREAD, CLONE_THREAD)) == 0 &&
           // Its flags lie in memory, where no filter sees them: the C library then takes the other.
           seccomp_rule_add(filter, SCMP_ACT_ERRNO(ENOSYS), SCMP_SYS(clone3), 0) == 0;
}

/// What a library needs to find and open a drive, or a disc's image.
constexpr std::array allowedToLook{
    SCMP_SYS(ioctl),     SCMP_SYS(stat),       SCMP_SYS(lstat),    SCMP_SYS(newfstatat), SCMP_SYS(statx),
    SCMP_SYS(statfs),    SCMP_SYS(fstatfs),    SCMP_SYS(readlink), SCMP_SYS(readlinkat), SCMP_SYS(access),
    SCMP_SYS(faccessat), SCMP_SYS(faccessat2), SCMP_SYS(getcwd),   SCMP_SYS(getdents64), SCMP_SYS(getuid),
    SCMP_SYS(geteuid),   SCMP_SYS(getgid),     SCMP_SYS(getegid),  SCMP_SYS(dup)};

bool allowToLook(scmp_filter_ctx filter) {
    for (const auto call : allowedToLook) {
        if (seccomp_rule_add(filter, SCMP_ACT_ALLOW, call, 0) != 0) {
            return false;
        }
    }
    constexpr scmp_datum_t changing = O_WRONLY | O_RDWR | O_CREAT | O_TRUNC;
    return seccomp_rule_add(filter, SCMP_ACT_ALLOW, SCMP_SYS(open), 1,
                            SCMP_A1(SCMP_CMP_MASKED_EQ, changing, 0)) == 0 &&
           seccomp_rule_add(filter, SCMP_ACT_ALLOW, SCMP_SYS(openat), 1,
                            SCMP_A2(SCMP_CMP_MASKED_EQ, changing, 0)) == 0;
}

bool enter(bool mayLook) {
    auto* const filter = seccomp_init(SCMP_ACT_ERRNO(EPERM));
    if (filter == nullptr) {
        return false;
    }
    const bool caged = allow(filter) && (!mayLook || allowToLook(filter)) && seccomp_load(filter) == 0;
    seccomp_release(filter);
    return caged;
}

} // namespace

bool enterCage() {
    return enter(false);
}

bool enterDiscCage() {
    return enter(true);
}

} // namespace sober
