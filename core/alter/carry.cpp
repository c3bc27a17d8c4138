#include "alter/carry.h"

#include <algorithm>

#include "alter/alter.h"
#include "alter/complaints.h"
#include "alter/wish.h"

namespace armure {
namespace {

// The same line on another pattern, or its id where there is none.
std::string lineOn(const std::string& line, const Pattern& from, const Pattern& to) {
  if (line == kEveryLine || to.seam(line)) return line;
  for (const FitLine kind : {FitLine::ThroughBust, FitLine::Side, FitLine::Back})
    if (!line.empty() && lineFor(from, kind) == line)
      if (const std::string there = lineFor(to, kind); !there.empty()) return there;
  return line;
}

}  // namespace

Alteration carriedTo(const Alteration& alteration, const Pattern& from, const Pattern& to) {
  Alteration carried = alteration;
  for (Shift& s : carried.shifts) {
    const std::string there = lineOn(s.line, from, to);
    if (aIsForward(from, s.line) != aIsForward(to, there)) {
      if (s.sides == ShiftSides::A)
        s.sides = ShiftSides::B;
      else if (s.sides == ShiftSides::B)
        s.sides = ShiftSides::A;
      else if (s.sides == ShiftSides::Over)
        for (ShiftAt& at : s.at) at.mm = -at.mm;
    }
    s.line = there;
    // Levels the line does not cross there are left out: it keeps what it has at the others.
    const std::vector<LineSide> sides = linesOf(to, s);
    if (s.line == kEveryLine || sides.empty()) continue;
    std::vector<ShiftAt> crossed;
    std::ranges::copy_if(s.at, std::back_inserter(crossed), [&](const ShiftAt& at) {
      return std::ranges::all_of(sides,
                                 [&](const LineSide& l) { return placeOnLine(to, l.side, at.place).has_value(); });
    });
    if (!crossed.empty()) s.at = std::move(crossed);
  }
  return carried;
}

}  // namespace armure
