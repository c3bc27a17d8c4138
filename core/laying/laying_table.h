// core/laying/laying_table.h
//
// The items of a strip in every turn they may lie in, what there is room for beside what, and where along a line an
// item can go. No-fit regions are made when two outlines first come together, and kept.
#pragma once

#include <limits>
#include <memory>
#include <optional>
#include <span>
#include <vector>

#include "laying/no_fit.h"
#include "laying/strip.h"

namespace armure {

// A place on a line an item is moved along, and how far from it, by their weights, those it lies over there are clear;
// nothing where it is clear itself.
struct LinePlace {
  double at = 0, over = 0;
};

class LayingTable {
 public:
  // Throws std::invalid_argument where an item is wider than the strip, or has no turns.
  explicit LayingTable(StripProblem problem);

  const StripProblem& problem() const { return problem_; }
  size_t items() const { return problem_.items.size(); }
  size_t turns(size_t item) const { return problem_.items[item].turns.size(); }
  // Round the item as it is turned, before its shift.
  const Box& box(size_t item, size_t turn) const { return shapes_[shapeOf_[item][turn]].box; }
  double area(size_t item) const { return area_[item]; }

  // Shifts by which an item lies within the strip up to `length`; empty (of negative width) where it
  // is too long or too wide for it.
  Box room(size_t item, size_t turn, double length) const;

  // By how much two items lie over each other, mm; nothing where they do not. An item beyond all others is the outside
  // of the remnant.
  double depth(size_t i, const LaidItem& a, size_t j, const LaidItem& b) const;
  // The same with all others, by weight; `weights` has one for every item, and a last one for the outside.
  double over(size_t i, const LaidItem& laid, const std::vector<LaidItem>& all, std::span<const double> weights) const;

  // The places on a line through `laid`, within `room`, where the item is clear of the others or nearly so:
  // ends of the stretches on which it lies over another. At most a few, the best first, of equals the one nearest to
  // `wish`, which is a place too; without one the lowest.
  std::vector<LinePlace> along(Axis axis, size_t i, const LaidItem& laid, const Box& room,
                               const std::vector<LaidItem>& all, std::span<const double> weights,
                               std::optional<double> wish = {}) const;

  // Where an item touches the strip's sides or another, before or behind it along an axis: values of that coordinate of
  // its shift worth trying, from low to high. Of others that weigh nothing nothing is known.
  std::vector<double> contacts(Axis axis, size_t i, size_t turn, const std::vector<LaidItem>& all,
                               std::span<const double> weights) const;

  // The end of the last item.
  double length(const std::vector<LaidItem>& all) const;

 private:
  struct Shape {
    Polyline wrapped;
    Box box;
  };
  const NoFit& noFit(size_t first, size_t second) const;
  size_t shape(size_t item, const LaidItem& laid) const { return shapeOf_[item][laid.turn]; }
  size_t shapeFor(size_t outline, const Turn& turn);

  StripProblem problem_;
  std::vector<Shape> shapes_;
  std::vector<std::vector<size_t>> shapeOf_;  // by item and turn
  std::vector<size_t> outside_;               // shapes of the outside of a remnant
  std::vector<double> area_;
  struct Known {
    size_t outline;
    Turn turn;
    size_t shape;
  };
  std::vector<Known> known_;
  mutable std::vector<std::unique_ptr<NoFit>> noFits_;  // by both shapes
  mutable std::vector<Interval> intervals_;
};

}  // namespace armure
