#pragma once

// Loops that are compiled for several processors; the machine that runs them chooses. Nothing is built
// for one machine only.
#if defined(__x86_64__)
#define SOBER_WIDE __attribute__((target_clones("avx512f", "avx2,fma", "default")))
#else
#define SOBER_WIDE
#endif
