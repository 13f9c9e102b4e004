#pragma once

// Twice as many numbers at once where the processor can.
#if defined(__x86_64__) && defined(__GNUC__) && !defined(__clang__) && !defined(__SANITIZE_ADDRESS__) && \
    !defined(__SANITIZE_THREAD__)
#define POQUITO_WIDE __attribute__((target_clones("avx2", "default")))
#else
#define POQUITO_WIDE
#endif
