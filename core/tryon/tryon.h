// core/tryon/tryon.h
//
// Tried on: the balanced shell sewn and laid on the body it was drafted for, at rest. It answers whether a pattern
// whose girths and seams are right also sits where the body has its levels and its bust point, where it stands off and
// where it presses.
//
//   const TryOn t = tryOn(design.pattern, design.body, {}).value();
//   for (const LevelSeat& l : t.levels) ...      // how far a level lies below the body's
//   tryOn(edited.pattern, edited.body, {.from = t.laid})   // after an edit: from where the cloth lay
//
// What it cannot know is how this cloth and this flesh give; stiffnesses are guesses of ours unless a source is named.
// A toile is still sewn (kToileStays).
#pragma once

#include <array>
#include <functional>
#include <memory>
#include <optional>
#include <string>
#include <string_view>
#include <vector>

#include "body/body_form.h"
#include "geometry/vec.h"
#include "pattern/pattern.h"
#include "result.h"

namespace armure {

inline constexpr const char* kToileStays =
    "How this cloth and this flesh give the program cannot know; stiffnesses are guesses of its makers. A toile is "
    "still sewn.";

struct LaidCloth;  // tryon/trial.h

struct TryOnOptions {
  double spacing = 14, coarse = 24;  // mm between the vertices of the cloth; it is first laid with a coarse mesh
  BreastShape breasts = BreastShape::Supported;
  // How hard the opening is laced, N/cm; the gap follows. Else it stands open as the pattern has it, and the tension
  // follows.
  std::optional<double> laced = {};
  std::shared_ptr<const LaidCloth> from = nullptr;  // begins from there where the same pieces are worn
  std::function<bool()> stop = {};                  // asked now and then; true ends it, and it has failed
};

// Where a level has come to lie, mm under the height the body has it at: the median over the edges it is marked on,
// those of the side seam apart from those in front of it and those behind.
struct LevelSeat {
  std::string level;
  Message name;  // of the level
  std::optional<double> front, side, back;
  double y = 0;         // the height the body has it at, mm below the shoulder line
  double pressure = 0;  // mean all round of the cloth near it, kPa
  double laplace = 0;   // what the cloth's tension round the body there would press by Laplace's law, kPa
};

// A place along the top edge or the hem, from centre front to centre back.
struct EdgeStand {
  std::string piece, edge;
  int vertex = 0;      // of the picture
  double angle = 0;    // round the body, degrees from centre front
  double off = 0;      // mm from the skin to the cloth; less than nothing where it presses in
  double tension = 0;  // N/cm, of the cloth at the edge, along and across it together
};

// How hard an opening pulls at a height, from its top down, and how far it stands open there.
struct OpeningPull {
  double y = 0;
  double tension = 0;  // N/cm across the opening
  double gap = 0;      // mm
};

// How a side seam hangs, seen from the side.
struct Plumb {
  double lean = 0;    // degrees from upright; forward below is more than nothing
  double wander = 0;  // mm: the most it lies beside the straight line through it
};

// What the cups hold against what the breast fills, both breasts, ml: the room between cloth and skin, and how much of
// the breasts the cloth presses in. The model is sure of it to about 15 % of the breast's volume, so both are ranges.
struct CupRoom {
  double emptyLeast = 0, emptyMost = 0;
  double pressedLeast = 0, pressedMost = 0;
};

// The cloth at rest, for a picture of it: the half that was tried, x to the body's side. What has no unit is a part.
struct ClothPicture {
  struct Triangle {
    std::array<int, 3> corners{};
    size_t piece = 0;  // of the pattern
  };
  std::vector<Vec3> points;
  std::vector<Triangle> triangles;
  std::vector<std::vector<int>> seams, edges;  // lines of points
  // By point: degrees round the body from centre front; mm off the skin (less than nothing: pressed in); kPa; the
  // greatest stretch; how much it is slack, the part by which it would be shorter than it is cut.
  std::vector<double> angle, off, pressure, stretch, slack;
};

// The skin the cloth was laid on, pressed in where the cloth presses; whole, as a grid: rows from the top down, each
// once round from centre back by the front, its last point its first.
struct SkinPicture {
  size_t columns = 0;
  std::vector<Vec3> points;
};

struct TryOn {
  std::vector<LevelSeat> levels;    // bust to hip, those the pattern has
  std::optional<double> bustPoint;  // mm under the body's
  std::vector<EdgeStand> top, hem, armhole;
  std::vector<OpeningPull> opening;
  std::optional<double> laced;  // N/cm, where it was laced with a tension
  std::optional<Plumb> side;
  std::optional<CupRoom> cups;
  int vertices = 0, steps = 0;
  bool settled = false;  // else it was still moving when it was stopped
  ClothPicture cloth;
  SkinPicture skin;
  std::shared_ptr<const LaidCloth> laid;

  const LevelSeat* level(std::string_view id) const;  // nullptr where the pattern has no such level
};

// Fails for what cannot be tried, saying why, and when it was stopped.
Result<TryOn> tryOn(const Pattern& pattern, const Body& body, const TryOnOptions& options);

}  // namespace armure
