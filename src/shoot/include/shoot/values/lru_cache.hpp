#pragma once

#include <algorithm>
#include <list>
#include <memory>
#include <mutex>
#include <utility>

namespace poquito::shoot {

/// The last few of what takes long to make, by what decides it. For all threads.
template <typename Key, typename Made, std::size_t most = 16>
class LruCache {
  public:
    template <typename Make>
    std::shared_ptr<const Made> of(const Key& key, const Make& make) {
        {
            const std::lock_guard lock(guard_);
            const auto found = std::ranges::find_if(kept_, [&](const auto& one) { return one.first == key; });
            if (found != kept_.end()) {
                kept_.splice(kept_.begin(), kept_, found);
                return kept_.front().second;
            }
        }
        std::shared_ptr<const Made> made = make();
        const std::lock_guard lock(guard_);
        kept_.emplace_front(key, made);
        if (kept_.size() > most) kept_.pop_back();
        return made;
    }

  private:
    std::mutex guard_;
    std::list<std::pair<Key, std::shared_ptr<const Made>>> kept_;  // the last used in front
};

}  // namespace poquito::shoot
