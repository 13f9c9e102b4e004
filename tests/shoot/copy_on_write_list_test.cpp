#include "shoot/values/copy_on_write_list.hpp"
#include "support/random.hpp"

#include <catch2/catch.hpp>

#include <algorithm>
#include <string>
#include <utility>
#include <vector>

using namespace poquito;
using List = shoot::CopyOnWriteList<std::string>;

namespace {

std::vector<std::string> items(const List& list) { return {list.begin(), list.end()}; }

}  // namespace

TEST_CASE("copies share their items until one is changed, and then that one alone is its own", "[shoot][shared]") {
    List list = {"a", "b", "c"};
    const List copy = list;
    CHECK(list == copy);
    for (std::size_t i = 0; i < 3; ++i) CHECK(list.shares(i, copy, i));
    list[1] += "!";
    CHECK(copy[1] == "b");
    CHECK(list.shares(0, copy, 0));
    CHECK_FALSE(list.shares(1, copy, 1));
    CHECK_FALSE(list == copy);
    list[1] = "b";  // equal again, though not the same object
    CHECK(list == copy);
    list.share(1, copy, 1);
    CHECK(list.shares(1, copy, 1));
    // Reading changes nothing.
    CHECK(std::as_const(list)[2] == "c");
    CHECK(list.shares(2, copy, 2));
}

TEST_CASE("a shared list does what a vector does", "[shoot][shared]") {
    test::Random random(5);
    List list;
    std::vector<std::string> plain;
    std::vector<std::pair<List, std::vector<std::string>>> before;
    for (int step = 0; step < 400; ++step) {
        const auto at = [&](std::size_t last) {
            return static_cast<std::size_t>(random.whole(0, static_cast<int>(last)));
        };
        const std::string item = std::to_string(step);
        before.emplace_back(list, plain);
        const int kind = plain.empty() ? 0 : random.whole(0, 5);
        if (kind == 0) list.push_back(item), plain.push_back(item);
        if (kind == 1) {
            const auto i = at(plain.size());
            list.insert(i, item);
            plain.insert(plain.begin() + static_cast<std::ptrdiff_t>(i), item);
        }
        if (kind == 2) {
            const auto i = at(plain.size() - 1);
            list.erase(i);
            plain.erase(plain.begin() + static_cast<std::ptrdiff_t>(i));
        }
        if (kind == 3) {
            const auto from = at(plain.size() - 1), to = at(plain.size() - 1);
            list.move(from, to);
            auto moved = plain[from];
            plain.erase(plain.begin() + static_cast<std::ptrdiff_t>(from));
            plain.insert(plain.begin() + static_cast<std::ptrdiff_t>(to), std::move(moved));
        }
        if (kind == 4) list.back() += "x", plain.back() += "x";
        if (kind == 5) list.replace(0, item), plain.front() = item;
        REQUIRE(items(list) == plain);
    }
    // Nothing that was done later shows in the copies from before.
    for (const auto& [then, wanted] : before) CHECK(items(then) == wanted);
    CHECK(std::ranges::count(list, list.front()) >= 1);
}
