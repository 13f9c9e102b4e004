#pragma once

// POQUITO_WIDE before a function: twice as many numbers at once where the processor can. POQUITO_SUMS(a, b) before a
// loop: what it adds to these may be added in any order, so that many are summed at once. Not under sanitizers, which
// look at one after the other.
#if defined(__x86_64__) && defined(__GNUC__) && !defined(__clang__) && !defined(__SANITIZE_ADDRESS__) && \
    !defined(__SANITIZE_THREAD__)
#define POQUITO_WIDE __attribute__((target_clones("avx2", "default")))
#else
#define POQUITO_WIDE
#endif

#if defined(__SANITIZE_ADDRESS__) || defined(__SANITIZE_THREAD__)
#define POQUITO_SUMS(...)
#else
#define POQUITO_PRAGMA(...) _Pragma(#__VA_ARGS__)
#define POQUITO_SUMS(...) POQUITO_PRAGMA(omp simd reduction(+ : __VA_ARGS__))
#endif
