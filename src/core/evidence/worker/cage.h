#pragma once

namespace sober {

/// From now on this process can compute, read and write what it has open, and end; nothing else: it opens no
/// file, makes no socket, starts no program, sends no signal to others (seccomp(2), by libseccomp). What is
/// not allowed fails with EPERM. False where the kernel has no filters: then nothing is to be parsed here.
bool enterCage();

/// The same for what reads a disc: it may also open files and drives for reading, look at what stands where,
/// and give commands to a drive.
bool enterDiscCage();

} // namespace sober
