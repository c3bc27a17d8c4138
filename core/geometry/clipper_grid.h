// core/geometry/clipper_grid.h
//
// Rings on the whole-numbered grid the Clipper library works on, 1e-5 mm, and back; for the files that call it.
#pragma once

#include <cmath>
#include <polyclipping/clipper.hpp>

#include "geometry/polygon.h"

namespace armure {

inline constexpr double kClipperGrid = 1e5;  // units per mm

inline ClipperLib::Path toGrid(const Polyline& ring) {
  ClipperLib::Path path;
  path.reserve(ring.size());
  for (const Vec2 p : ring) path.emplace_back(std::llround(p.x * kClipperGrid), std::llround(p.y * kClipperGrid));
  return path;
}

inline Polyline fromGrid(const ClipperLib::Path& path) {
  Polyline ring;
  ring.reserve(path.size());
  for (const ClipperLib::IntPoint& p : path)
    ring.push_back({static_cast<double>(p.X) / kClipperGrid, static_cast<double>(p.Y) / kClipperGrid});
  return ring;
}

}  // namespace armure
