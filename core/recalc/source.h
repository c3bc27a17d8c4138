// core/recalc/source.h
//
// An order's shell between its source and balancing: drafted for the client, or a base recalculated for her, and then
// altered; of one side of the body, or of both where they are alike.
#pragma once

#include <optional>
#include <vector>

#include "recalc/recalc.h"

namespace armure {

// What one alteration lets out of every level, all round, mm.
struct LetOut {
  Message name;
  std::vector<double> by;
};

// An order's shell between its source and balancing.
struct Sourced {
  Body body;  // the client's
  Rules rules;
  Block block;
  Shell shell;
  UpperLengths upper;
  std::optional<Recalculated> fromBase;
  std::vector<IdleShift> idle;
  std::vector<double> girthsMade;  // finished, of every level, before it was altered; empty where nothing was
  std::vector<LetOut> letOut;      // by every alteration
};

// Of one side of the body: with what is altered on both, and on this one. Fails with the first thing that keeps the
// shell from being drafted.
Result<Sourced> sourceOf(const Order& order, BodySide side);

// How the finished girth of every level that an alteration changed came to be.
std::vector<Working> alteredGirths(const std::vector<double>& made, const std::vector<LetOut>& all,
                                   const std::vector<PatternLevel>& levels);

// The first thing wrong with a pattern that was made, as a Problem of the order.
std::optional<Problem> unsound(const Pattern& pattern);

}  // namespace armure
