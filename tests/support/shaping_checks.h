// tests/support/shaping_checks.h
//
// Orders that are shaped, and what must hold of every one of them, whatever was chosen.
#pragma once

#include <catch2/catch.hpp>
#include <cmath>

#include "tests/support/bodies.h"

namespace armure::testing {

inline Order withSchool(const std::string& school, int front = 2, int back = 2) {
  Order o = plainOrder();
  o.choices["opening.kind"] = "lacing";
  o.choices["distribution.school"] = school;
  o.choices["lines.front"] = std::to_string(front);
  o.choices["lines.back"] = std::to_string(back);
  o.choices["reduction.waist"] = "2 in";
  return o;
}

inline double inch(double mm) { return mm / kMmPerInch; }

// Everything that must hold of any design, whatever was chosen.
inline void checkIdentity(const Design& d) {
  for (const HalfBlock* half : {&d.block.front, &d.block.back})
    for (const HalfLevel& l : half->levels) {
      INFO(half->id << " " << l.level);
      REQUIRE(std::isfinite(l.side));
      REQUIRE(std::abs(l.side - (l.share + l.centreIntake + l.lineIntake())) < 1e-9);
    }
  for (const Level& l : d.block.levels.all)
    REQUIRE(l.frontShare + l.backShare == Approx(l.finishedGirth / 2).margin(1e-9));
}

inline void checkClosedGirths(const Design& d) {
  size_t rings = 0;
  for (const PatternLevel& l : d.pattern.levels) {
    if (!l.ring) continue;
    ++rings;
    INFO(l.id);
    double sum = d.block.gapOn(l.id);
    for (const Piece& p : d.pattern.pieces)
      if (const auto m = p.level(l.id)) sum += m->width() * (p.girthWeight());
    CHECK(sum == Approx(l.finishedGirth).margin(1e-3));
  }
  CHECK(rings >= 3);
}

}  // namespace armure::testing
