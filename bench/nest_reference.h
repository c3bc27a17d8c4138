// bench/nest_reference.h
//
// The same strip laid by libnest2d (Debian: libnest2d-dev, with libnlopt-cxx-dev), to measure our own laying against:
// one bin as wide as the strip and ample in length. Its no-fit polygons are right for convex outlines alone, so each is
// given by its hull; its headers are C++17, so nothing of ours is in this interface.
#pragma once

#include <utility>
#include <vector>

// Closed rings in grid units; the length used, or less than nothing where not all found room.
double nestedLength(const std::vector<std::vector<std::pair<long long, long long>>>& rings, bool eitherWay,
                    long long width, long long length, double seconds);
