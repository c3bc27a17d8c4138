// core/alter/line_shift.h
//
// Alterations taken apart: one shift on one line of one piece, with its amount and its direction at every place.
// alter.h adds them up.
#pragma once

#include <optional>
#include <span>
#include <utility>
#include <vector>

#include "alter/alter.h"
#include "alter/displacement.h"
#include "pattern/pattern.h"

namespace armure {

using LineKey = std::pair<size_t, size_t>;  // piece, and the number of the line on it

// Where a level crosses a line of a piece, as arc length on that line; `end` tells its ends on a piece apart.
struct Crossing {
  double s = 0;
  LevelLine level;
  size_t end = 0;
};

// From the start of the line on. A level that ends at a corner crosses both lines there.
std::vector<Crossing> crossingsOf(const Piece& piece, size_t line);

// The direction a line is shifted in, as a function of arc length: between two levels it turns from one to the other.
class Direction {
 public:
  // The piece must outlive this.
  Direction(const Piece& piece, size_t line, ShiftWay way);
  Vec2 operator()(double s) const;

 private:
  const Path* path_;
  Vec2 first_{};
  std::optional<Amounts> turn_;
  bool down_ = false;
};

// One shift on one line of a piece: amounts along the chain it belongs to, and which way they go.
struct LineShift {
  size_t shift = 0;  // which of all
  LineKey line;
  const Edge* edge = nullptr;
  Amounts amounts;    // along the chain
  double before = 0;  // of the chain, mm
  bool reversed = false;
  double sign = 1;
  ShiftWay way{};
  Direction direction;

  double onChain(double s) const { return before + (reversed ? edge->path.length() - s : s); }
  double amount(double s) const { return sign * amounts(onChain(s)); }
  Vec2 shiftAt(double s) const { return amount(s) * direction(s); }
  Vec2 slopeAt(double s) const;  // how fast it changes along the line
};

// All shifts of all alterations that are on, line by line. The pattern must outlive this.
class LineShifts {
 public:
  LineShifts(const Pattern& pattern, std::span<const Alteration> alterations);

  std::vector<LineShift> all;
  std::vector<IdleShift> idle;

 private:
  void add(const Alteration& alteration, const Shift& shift);
  bool addLine(const Alteration& alteration, const Shift& shift, const LineSide& line, double sign, bool every);
  bool endsThere(const SeamSide& side, std::string_view place) const;
  bool settleMissing(const Shift& shift, const SeamSide& side, std::vector<Amounts::At>& values) const;

  const Pattern& pattern_;
  size_t shifts_ = 0;
};

}  // namespace armure
