#include "text/stored_path.hpp"

#include <catch2/catch.hpp>

#include <filesystem>
#include <string>

using poquito::text::StoredPath;

TEST_CASE("a path stands in a file as it is where it is UTF-8, else as a URI of its bytes", "[text]") {
    CHECK(StoredPath("/a b/\xc3\xa9").text() == "/a b/\xc3\xa9");
    CHECK(StoredPath("/\xf0\x9f\x8c\xb7").text() == "/\xf0\x9f\x8c\xb7");
    CHECK(StoredPath("/r\xe9sultats").text() == "file:///r%E9sultats");
    // RFC 3629: no byte that goes on alone, no overlong form, no surrogate, nothing past U+10FFFF, nothing cut short.
    for (const std::string bad : {"\x80", "\xc0\xaf", "\xe0\x80\xaf", "\xed\xa0\x80", "\xf4\x90\x80\x80", "\xe2\x82"}) {
        const StoredPath stored{std::filesystem::path(bad)};
        CHECK(stored.text().starts_with("file://"));
        CHECK(stored.path() == bad);
    }
    // What looks like a URI is written as one.
    CHECK(StoredPath("file://x%41").text() == "file://file%3A//x%2541");
    CHECK(StoredPath("file://x%41").path() == "file://x%41");
    CHECK(StoredPath::of_text("file:///a%20b").path() == "/a b");
    CHECK(StoredPath::of_text("file:///a%2").path() == "/a%2");
    CHECK(StoredPath().empty());
    CHECK(StoredPath(std::filesystem::path()).path().empty());
}
