// core/alter/cloth_beyond.h
//
// How far what was cut can be let out: the allowance beyond each sewn line is all the cloth there is, and a seam keeps
// some of it. An alteration that asks for more is right on paper, but the toile that was tried on has to be pieced, or
// cut anew.
//
//   for (const BeyondCloth& b : beyondCloth(pattern, proposal.alteration)) say(beyondWords(pattern, b), units);
#pragma once

#include <string>
#include <vector>

#include "order/alteration.h"
#include "pattern/pattern.h"

namespace armure {

// What a seam needs beyond its line to hold, mm: a quarter inch; common practice, no source.
inline constexpr double kSeamKeeps = 6.35;

// An edge that is let out by more than its cloth: by how much at the place where it is asked for most, and by how much
// it can be; mm.
struct BeyondCloth {
  size_t piece = 0;
  std::string edge;   // the first of its side
  std::string place;  // as in ShiftAt
  double asked = 0, most = 0;
  BodySide half = BodySide::Both;
};

// Of a pattern as it was cut, and an alteration of it. Each side of each line once.
std::vector<BeyondCloth> beyondCloth(const Pattern& cut, const Alteration& alteration);

// "Side front: let out 3/4 in at the waist, but its allowance gives 1/4 in at the most"
Message beyondWords(const Pattern& cut, const BeyondCloth& beyond);

}  // namespace armure
