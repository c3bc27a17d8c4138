// core/parts/trims/strip.h
//
// A strip that is drawn up to the edge it is sewn to, or laid along it as it is: how long it is, in how many lengths it
// is cut, how it is pleated, and its piece.
//
//   gathered          strip = full * edge                          full 1: laid on as it is, a binding
//   knife pleats      strip = edge + count * 2 * depth             each lies under by its depth
//   box pleats        strip = edge + count * 4 * depth
//
// It is cut in as many equal lengths as the cloth's width needs. Where pleats go by fullness their depth follows.
// Common practice, no source.
//
//   const StripPlan plan = planStrip({.covers = 1000, .longest = 1345, .full = 2.5});
//   plan.lengths   // 2, each of them 1250 mm long and drawn up to 500
#pragma once

#include <optional>

#include "parts/trims/rules.h"
#include "parts/trims/sewn_on.h"

namespace armure {

struct StripAsked {
  double covers = 0;   // mm of edge that one piece of work covers, drawn up
  double longest = 0;  // that can be cut of the cloth at once, mm
  double full = 1;
  strip::Drawn how = strip::Drawn::Gathered;
  double pleat = 0, pleats = 0;  // depth, mm; how many in all, 0 by fullness
  strip::PleatsLie lie = strip::PleatsLie::ToEnd;
};

struct StripPlan {
  strip::Drawn how{};
  strip::PleatsLie lie{};
  int lengths = 1, perLength = 0;          // of strip in one piece of work; pleats in each
  double each = 0, length = 0, pleat = 0;  // edge that one length covers, the length, depth of a pleat; mm
  double full() const { return length / each; }
  double times() const { return how == strip::Drawn::Box ? 4 : 2; }  // what one pleat takes, by its depth
};
StripPlan planStrip(const StripAsked& asked);
// The same, of what is chosen for a trim that has the rows of a pleated strip.
StripAsked askedOf(const TrimChoice& trim, double covers, double longest);
// Box pleats that would lie over each other.
std::optional<Problem> pleatProblem(const StripPlan& plan, const TrimChoice& trim);

// The longest strip that the cloth gives, mm: `deep` is its whole depth as cut, `seam` what is added at its ends.
double longestStrip(double clothWidth, strip::Grain grain, double deep, double seam);

// How a strip's piece is finished round its edges.
struct StripShape {
  double deep = 0;  // as cut, without allowances, mm
  double seam = 0, hem = 0;
  bool caught = false;              // its free edge is sewn in too: a binding, a tube
  bool folded = false;              // along its free edge, which then is sewn on with the other
  bool headed = false;              // its upper edge is free too
  bool joined = false;              // its ends are sewn to the next strip's
  std::optional<double> ends = {};  // allowance of its ends where it is not `seam` or `hem`, mm
  strip::Grain grain{};
};
// The piece: its edges "sewn", "end", "free", "start" clockwise from the upper left; of a pleat its fold is notched,
// and doubled where it is laid to; of a gathered strip its quarters. Copies are the caller's to set.
Piece stripPiece(const Pattern& pattern, const TrimChoice& trim, const StripPlan& plan, const StripShape& shape);

// Interfacing of its finished depth for each copy of a strip, `plies` to each, without allowances.
void interfaceStrip(Pattern& pattern, const TrimChoice& trim, const Piece& strip, double finished, int plies = 1);

// Stiffening braid along the free edge of each piece of work, a seam's width longer at either end.
void addBraid(Pattern& pattern, const TrimChoice& trim, int count, double length);

// "2.50 times its edge; 12 pleats in each, 1 in deep; cut in 4 lengths of 52 in, 6 in deep; common practice".
Message stripNote(const StripPlan& plan, int copies, double deep);

}  // namespace armure
