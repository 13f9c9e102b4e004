#pragma once

#include <tbb/blocked_range.h>
#include <tbb/parallel_for.h>
#include <tbb/parallel_invoke.h>
#include <tbb/task_arena.h>

#include <algorithm>
#include <atomic>
#include <thread>

namespace poquito::imaging {

/// Calls both, each on a core of its own where there is one; neither may touch what the other writes.
template <typename First, typename Second>
void at_once(const First& first, const Second& second) {
#ifdef __SANITIZE_THREAD__
    const std::jthread other([&first] { first(); });
    second();
#else
    tbb::parallel_invoke(first, second);
#endif
}

/// Calls `work(row)` for 0 to `rows` - 1 on all cores; rows must not depend on one another. `grain`: that are worth a
/// task of their own.
template <typename Work>
void for_rows(int rows, const Work& work, int grain = 16) {
#ifdef __SANITIZE_THREAD__
    // TBB was not compiled with the sanitizer, which then does not see that it waits: by threads that it knows.
    std::atomic<int> next = 0;
    const auto take = [&] {
        for (int from = next.fetch_add(grain); from < rows; from = next.fetch_add(grain))
            for (int row = from; row < std::min(rows, from + grain); ++row) work(row);
    };
    at_once(take, take);
#else
    // Isolated: a thread that waits for its rows must not begin something else that needs the same memory.
    tbb::this_task_arena::isolate([&] {
        tbb::parallel_for(tbb::blocked_range<int>(0, rows, grain), [&](const tbb::blocked_range<int>& part) {
            for (int row = part.begin(); row != part.end(); ++row) work(row);
        });
    });
#endif
}

/// The same for few that are heavy.
template <typename Work>
void for_each_of(int count, const Work& work) {
    for_rows(count, work, 1);
}

}  // namespace poquito::imaging
