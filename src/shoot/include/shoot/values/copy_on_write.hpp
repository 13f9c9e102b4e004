#pragma once

#include <memory>
#include <utility>

namespace poquito::shoot {

/// A value that copies share until one of them is given another: for what is large and seldom changes, so that a copy
/// of what holds it costs nothing. Compares by value, at once where it is the same object.
template <typename Value>
class CopyOnWrite {
  public:
    CopyOnWrite() : CopyOnWrite(Value{}) {}
    CopyOnWrite(Value value) : value_(std::make_shared<const Value>(std::move(value))) {}

    const Value& operator*() const { return *value_; }
    const Value* operator->() const { return value_.get(); }

    bool operator==(const CopyOnWrite& other) const { return value_ == other.value_ || *value_ == *other.value_; }

  private:
    std::shared_ptr<const Value> value_;  // never null
};

}  // namespace poquito::shoot
