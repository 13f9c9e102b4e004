#pragma once

#include <algorithm>
#include <cstddef>
#include <initializer_list>
#include <iterator>
#include <memory>
#include <utility>
#include <vector>

namespace poquito::shoot {

/// A list whose copies share their items until one of them is changed: a copy costs a pointer an item, and so does
/// comparing what is shared. Reaching for an item of a list that may change gives it a copy of its own, as Qt's
/// containers do; reading through a const list never copies.
template <typename Item>
class CopyOnWriteList {
  public:
    using value_type = Item;

    /// Random access over items that cannot be changed.
    class const_iterator {
      public:
        using value_type = Item;
        using reference = const Item&;
        using pointer = const Item*;
        using difference_type = std::ptrdiff_t;
        using iterator_category = std::random_access_iterator_tag;

        const_iterator() = default;
        explicit const_iterator(const std::shared_ptr<Item>* at) : at_(at) {}
        reference operator*() const { return **at_; }
        pointer operator->() const { return at_->get(); }
        reference operator[](difference_type n) const { return *at_[n]; }
        const_iterator& operator+=(difference_type n) { return at_ += n, *this; }
        const_iterator& operator-=(difference_type n) { return at_ -= n, *this; }
        const_iterator& operator++() { return *this += 1; }
        const_iterator& operator--() { return *this -= 1; }
        const_iterator operator++(int) { return const_iterator(at_++); }
        const_iterator operator--(int) { return const_iterator(at_--); }
        friend const_iterator operator+(const_iterator it, difference_type n) { return it += n; }
        friend const_iterator operator+(difference_type n, const_iterator it) { return it += n; }
        friend const_iterator operator-(const_iterator it, difference_type n) { return it -= n; }
        friend difference_type operator-(const_iterator a, const_iterator b) { return a.at_ - b.at_; }
        friend auto operator<=>(const const_iterator&, const const_iterator&) = default;

      private:
        const std::shared_ptr<Item>* at_ = nullptr;
    };

    CopyOnWriteList() = default;
    CopyOnWriteList(std::initializer_list<Item> items) {
        for (const Item& item : items) push_back(item);
    }

    std::size_t size() const { return items_.size(); }
    bool empty() const { return items_.empty(); }
    const Item& operator[](std::size_t index) const { return *items_[index]; }
    const Item& front() const { return *items_.front(); }
    const Item& back() const { return *items_.back(); }
    const_iterator begin() const { return const_iterator(items_.data()); }
    const_iterator end() const { return const_iterator(items_.data() + items_.size()); }

    /// For changing, until the list is copied.
    Item& operator[](std::size_t index) {
        auto& item = items_[index];
        if (item.use_count() > 1) item = std::make_shared<Item>(std::as_const(*item));
        return *item;
    }
    Item& front() { return (*this)[0]; }
    Item& back() { return (*this)[size() - 1]; }
    void push_back(Item item) { items_.push_back(std::make_shared<Item>(std::move(item))); }
    void insert(std::size_t index, Item item) {
        items_.insert(items_.begin() + at(index), std::make_shared<Item>(std::move(item)));
    }
    void replace(std::size_t index, Item item) { items_[index] = std::make_shared<Item>(std::move(item)); }
    /// The item of another list, shared with it.
    void share(std::size_t index, const CopyOnWriteList& other, std::size_t from) {
        items_[index] = other.items_[from];
    }
    void erase(std::size_t index) { items_.erase(items_.begin() + at(index)); }
    void erase(std::size_t begin, std::size_t end) {
        items_.erase(items_.begin() + at(begin), items_.begin() + at(end));
    }
    void clear() { items_.clear(); }
    void move(std::size_t from, std::size_t to) {
        const auto first = items_.begin() + at(std::min(from, to)), last = items_.begin() + at(std::max(from, to)) + 1;
        from < to ? std::rotate(first, first + 1, last) : std::rotate(first, last - 1, last);
    }

    /// Whether both lists have the very same object there.
    bool shares(std::size_t index, const CopyOnWriteList& other, std::size_t from) const {
        return items_[index] == other.items_[from];
    }
    bool same(std::size_t index, const CopyOnWriteList& other, std::size_t from) const {
        return shares(index, other, from) || *items_[index] == *other.items_[from];
    }
    bool operator==(const CopyOnWriteList& other) const {
        if (size() != other.size()) return false;
        for (std::size_t i = 0; i < size(); ++i)
            if (!same(i, other, i)) return false;
        return true;
    }

  private:
    static std::ptrdiff_t at(std::size_t index) { return static_cast<std::ptrdiff_t>(index); }
    std::vector<std::shared_ptr<Item>> items_;  // none is null
};

}  // namespace poquito::shoot
