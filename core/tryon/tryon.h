// core/tryon/tryon.h
//
// Tried on: the balanced shell sewn and laid on the body it was drafted for, at rest. It answers whether a pattern
// whose girths and seams are right also sits where the body has its levels and its bust point.
//
//   const TryOn t = tryOn(design.pattern, design.body, {});
//   for (const LevelOffset& o : t.levels) ...   // how far a level lies below the body's, piece by piece
//
// What it cannot know is how this cloth and this flesh give; stiffnesses are guesses of ours unless a source is named.
// A toile is still sewn.
#pragma once

#include <optional>
#include <string>
#include <vector>

#include "body/body_form.h"
#include "pattern/pattern.h"
#include "result.h"

namespace armure {

struct TryOnOptions {
  double spacing = 14, coarse = 24;  // mm between the vertices of the cloth; it is first laid with a coarse mesh
};

// Where a level has come to lie, mm under the height the body has it at: the median over the edges it is marked on in
// front (within 60 degrees of centre front), at the side and behind.
struct LevelSeat {
  std::string level;
  std::optional<double> front, side, back;
  double pressure = 0;  // mean of the cloth near it that touches the body, kPa
};

// A place along the top edge, from centre front to centre back.
struct EdgeStand {
  std::string piece, edge;
  double angle = 0;    // round the body, degrees from centre front
  double off = 0;      // mm from the skin to the cloth; less than nothing where it presses in
  double tension = 0;  // N/cm, of the cloth at the edge, along and across it together
};

struct TryOn {
  std::vector<LevelSeat> levels;    // bust to hip, those the pattern has
  std::optional<double> bustPoint;  // mm under the body's
  std::vector<EdgeStand> top;
  int vertices = 0, steps = 0;
  bool settled = false;  // else it was still moving when it was stopped
};

// Fails for what cannot be tried, saying why.
Result<TryOn> tryOn(const Pattern& pattern, const Body& body, const TryOnOptions& options);

}  // namespace armure
