// core/alter/proposal.h
//
// From the notes of a fitting to one alteration that answers them all: least squares over all shifts, told note by
// note.
//
// Unknowns u: on every line a note may move, at every place it is full, how much the seam lets out (both edges
// together); how far it moves over; and between every two neighbouring places how much it is lengthened. A note is one
// equation at each of its places, for example
//   take in 6 mm at the side, underbust to hip      u(side, waist) = -6,  u(side, high hip) = -6
//   let out 12 mm in the whole girth, at the waist  2 (u(princess, waist) + u(side, waist) + u(back, waist)) = 12
// The solution is that of least |A u - b|, and of all these that of least |u| (complete orthogonal decomposition):
// notes that go together are met exactly and shared evenly over what they leave open, notes that contradict each other
// are met half way, and both say so. Darts take no part in a girth: only seams do. Where a note is of one side of the
// body, each side is solved by itself.
#pragma once

#include <vector>

#include "order/alteration.h"
#include "order/fitting.h"
#include "pattern/pattern.h"
#include "result.h"

namespace armure {

// What a note asked for and what it gets, at the place where they differ most; mm, of the seam or the girth as it asks.
struct NoteOutcome {
  size_t note = 0;
  double wanted = 0, got = 0;
  Message what = {};  // why it can't be answered; empty where it is
};

struct Proposal {
  Alteration alteration;  // without shifts where no note can be answered; id and name are the caller's
  std::vector<NoteOutcome> outcomes;
};

// Of the pattern before its alterations or after: only its lines and levels are asked.
Proposal proposalFor(const Pattern& pattern, const Fitting& fitting);

// What a note says, in words: "take in 1/4 in, Side seam, underbust to hip".
Message noteWords(const Pattern& pattern, const FitNote& note);
Message workWords(FitWork work);  // "take in"
// A place of a shift: "at the waist", "between bust and underbust".
Message atPlace(const Pattern& pattern, std::string_view place);
// What an alteration does to one line, on either edge: "Side seam: waist -1/8 in, high hip -1/8 in on both edges".
std::vector<Message> shiftWords(const Pattern& pattern, const Alteration& alteration);

}  // namespace armure
