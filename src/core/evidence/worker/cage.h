#pragma once

namespace sober {

/// From now on this process can compute, read and write what it has open, and end; nothing else: it opens no
/// file, makes no socket, starts no program, sends no signal to others (seccomp(2), by libseccomp). What is
/// not allowed fails with EPERM. False where the kernel has no filters: then nothing is to be parsed here.
bool enterCage();

} // namespace sober
