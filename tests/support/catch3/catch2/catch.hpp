// tests/support/catch3/catch2/catch.hpp
//
// Catch2 3 under the names of Catch2 2, which the tests are written for: on this path only where the third edition is
// installed (Debian 13, Ubuntu 24.04).
#pragma once

#include <catch2/catch_all.hpp>

using Catch::Approx;

namespace Catch {

using TestEventListenerBase = EventListenerBase;

inline auto Contains(const std::string& part) { return Matchers::ContainsSubstring(part); }

}  // namespace Catch
