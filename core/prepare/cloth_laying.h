// core/prepare/cloth_laying.h
//
// The pieces of a garment as they are laid on each of its cloths: every copy, the mirrored ones mirrored, the grain
// along the cloth, on cloth that lies folded lengthwise or open. A piece on the fold lies with it on the fold of the
// cloth, or is laid whole. What is made here is a strip to be filled (laying/strip.h); what comes of it is told on the
// opened cloth, x along it, y from selvedge to selvedge.
//
//   for (const ClothLaying& c : clothLayings(design.pattern, design.cutOutlines, list, kept)) {
//     if (c.unfit) continue;                       // a piece is wider than the cloth: said in words
//     LayingSearch search(c.problem);
//     ... c.placements(search.best()) ...
//   }
#pragma once

#include <optional>
#include <string>
#include <vector>

#include "laying/strip.h"
#include "prepare/lists.h"

namespace armure {

// One copy of a piece on the opened cloth: a point p of its outline to cut comes to
// R(turn) (mirrored ? (-p.x, p.y) : p) + at.
struct ClothPlacement {
  size_t piece = 0;  // of CutList::pieces
  int copy = 0;      // from 1
  Turn turn;
  Vec2 at;
  size_t item = 0;  // of the problem, that it comes of
  Motion motion() const { return turned(turn).then(Motion::translation(at)); }
};

struct ClothItem {
  size_t piece = 0;     // of CutList::pieces
  int copy = 0;         // from 1; of two that are cut at once the first
  bool twice = false;   // cut through both layers of folded cloth: this copy and the next, its mirror image
  bool onFold = false;  // half of it, lying on the fold of the cloth
};

struct ClothLaying {
  ClothLine cloth;
  double width = 0;                // of the opened cloth
  bool folded = false;             // as it is laid; a piece that has no room on the folded cloth opens it
  StripProblem problem;            // on half the width where it is folded
  std::vector<ClothItem> items;    // in the order of the problem's
  std::vector<Polyline> outlines;  // to cut, whole, by CutList::pieces; empty for those of other cloths
  std::optional<Problem> unfit;    // why nothing can be laid; else there is room for every piece
  // Places kept by hand (lay.CLOTH.PIECE.COPY) that cannot count, and why.
  struct Loosened {
    KeptPlace place;
    Message reason;
  };
  std::vector<Loosened> loosened;

  // Every copy, on the opened cloth.
  std::vector<ClothPlacement> placements(const StripLayout& layout) const;
  // How it is kept where an item lies: the choice that locks it there.
  KeptPlace keptAt(const CutList& list, size_t item, const LaidItem& laid) const;
  // The part of the opened cloth that is cut.
  double utilisation(const StripLayout& layout) const;
  // What is to be bought, mm: the length that is used, and what it shrinks by.
  double needed(const StripLayout& layout) const { return layout.length / (1 - cloth.as.shrinkage); }
  // Whether it all lies on the remnant, where there is no more.
  bool isEnough(const StripLayout& layout) const;
};

// A cloth and what lies where on it; nothing does where the laying is unfit.
struct OnCloth {
  ClothLaying laying;
  StripLayout layout;
};

// For every cloth of the list, in its order. What is kept in its place by hand is locked there.
std::vector<ClothLaying> clothLayings(const Pattern& pattern, const std::vector<Polyline>& cutOutlines,
                                      const CutList& list, const std::vector<KeptPlace>& kept = {});

// A layout good enough to say how much cloth is needed, in a fraction of a second; the same on every machine.
StripLayout quickLayout(const ClothLaying& laying);

// The outline to cut of a piece on the fold, with its mirror image beyond it; of another as it is.
Polyline wholeOutline(const Piece& piece, const Polyline& cutOutline);

}  // namespace armure
