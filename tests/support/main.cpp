// tests/support/main.cpp
//
// Catch2's main, for the programs that need no Qt application; those that do make their own in a listener.
#define CATCH_CONFIG_MAIN
#include <catch2/catch.hpp>
