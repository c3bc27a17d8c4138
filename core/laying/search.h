// core/laying/search.h
//
// Looking for a shorter layout. It begins with every item at the place nearest the strip's beginning, in several
// orders; then the strip is made a little shorter than the best layout, what no longer fits lies over its neighbours,
// and items are moved one by one to where they overlap least, pairs that stay in each other's way weighing more every
// time, until all lie clear. After S. Umetani, M. Yagiura, S. Imahori, T. Imamichi, K. Nonobe, T. Ibaraki, "Solving the
// irregular strip packing problem via guided local search for overlap minimization", Int. Trans. Oper. Res. 16 (2009),
// and J. Egeblad, B. K. Nielsen, A. Odgaard, "Fast neighborhood search for two- and three-dimensional nesting
// problems", EJOR 183 (2007); both from memory.
//
//   LayingSearch search(problem);
//   while (!search.isShortest() && !stopped()) search.step();  // a few milliseconds each
//   use(search.best());
//
// The same problem, seed and number of steps give the same layout, on any machine.
#pragma once

#include <random>
#include <vector>

#include "laying/laying_table.h"

namespace armure {

class LayingSearch {
 public:
  // The first layout is made here: some tens of milliseconds. What is not locked must have room beside what is; the
  // strip is as long as that needs. Throws as LayingTable does.
  explicit LayingSearch(StripProblem problem, unsigned seed = 1);

  const StripProblem& problem() const { return table_.problem(); }
  // The best so far; sound at any time.
  const StripLayout& best() const { return best_; }
  // No layout can be shorter.
  bool isShortest() const;
  // A better one from elsewhere; taken where it is sound and shorter.
  void offer(const StripLayout& layout);
  // Items of this layout are moved to the left, one by one, until none can be: never longer.
  StripLayout pressed(StripLayout layout) const;

  // One round of the search.
  void step();

 private:
  using Items = std::vector<LaidItem>;
  bool isFree(size_t item) const { return !problem().items[item].locked; }
  double end(size_t item, const LaidItem& laid) const { return laid.at.x + table_.box(item, laid.turn).high.x; }
  StripLayout laidInOrder(const std::vector<size_t>& order) const;
  LaidItem leftmost(size_t item, const Items& all, std::span<const double> weights) const;
  bool pressOnce(Items& items) const;
  bool bringInLast(Items& items) const;

  void attempt(size_t exchanged);
  void bringWithin(size_t item);
  void exchangeTwo();
  void moveItem(size_t item);
  void tryLine(Axis axis, size_t item, const LaidItem& through, LaidItem& least, double& over) const;
  double overlap(size_t item) const;
  double reweigh();
  size_t pick(size_t count) { return random_() % count; }
  double between(double low, double high) { return low + (high - low) * (random_() / 4294967296.0); }

  LayingTable table_;
  std::mt19937 random_;
  StripLayout best_;
  double shortest_ = 0;  // no layout can be shorter
  // The attempt under way: by how much shorter than the best, where items lie, how much each pair weighs (the outside
  // of a remnant last), and how it goes.
  double target_ = 0, shorter_ = 0.04;
  Items items_;
  std::vector<std::vector<double>> weights_;
  double leastOver_ = 0;
  int idle_ = 0;  // rounds since it became less
};

}  // namespace armure
