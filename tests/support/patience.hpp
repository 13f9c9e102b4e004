#pragma once

/// How long a test waits for what must come, ms. Only one that fails waits so long; a machine with other work to do may
/// need many times what a free one does.
namespace poquito::test {

inline constexpr int patience = 300'000;

}  // namespace poquito::test
