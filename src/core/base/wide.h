#pragma once

// Loops that are compiled for several processors; the machine that runs them chooses. Nothing is built
// for one machine only.
#if defined(__x86_64__)
#define SOBER_WIDE __attribute__((target_clones("arch=x86-64-v4", "arch=x86-64-v3", "default")))
#else
#define SOBER_WIDE
#endif

namespace sober {

/// Sixteen values, computed together; where the processor's registers are shorter, in several.
using Sixteen = float __attribute__((vector_size(64)));
using SixteenAnywhere = float __attribute__((vector_size(64), aligned(4), may_alias));

} // namespace sober

// Not functions: a vector handed from one to another depends on the processor it is compiled for.
#define SOBER_SIXTEEN_AT(at) (*reinterpret_cast<const ::sober::SixteenAnywhere*>(at))
#define SOBER_PUT_SIXTEEN(at, values) (*reinterpret_cast<::sober::SixteenAnywhere*>(at) = (values))
