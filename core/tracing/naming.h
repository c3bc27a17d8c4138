// core/tracing/naming.h
//
// What the maker says of a drawing: which outlines are pieces and what they are, where their edges begin and what
// becomes of each, which lines are levels, what is sewn to what. Everything is said by places of the drawing, as one
// points at it on the table, so that it can be said again of the same file. With all of it, the drawing is a pattern.
//
//   TracingNames names;
//   NamedPiece front{.id = "front", .at = {120, 300}, .half = Half::Front};
//   front.edges = {{"top", {60, 80}, EdgeRole::Top}, {"side", {180, 90}, EdgeRole::Seam}, ...};  // clockwise
//   front.levels = {{"waist", {60, 340}, {170, 342}}};
//   names.pieces = {front, back};
//   names.seams = {{"side", "Side seam", {"front", {"side"}}, {"back", {"side"}}}};
//   Result<Pattern> pattern = tracedPattern(drawing, names);
#pragma once

#include <string>
#include <vector>

#include "measure/measure_set.h"
#include "pattern/pattern.h"
#include "result.h"
#include "tracing/line_drawing.h"

namespace armure {

struct TracedOutline;

// From the place of the outline next to `from`, clockwise, to where the next edge begins.
struct NamedEdge {
  std::string id;
  Vec2 from;
  EdgeRole role = EdgeRole::Seam;
  double allowance = 0;  // mm
  bool operator==(const NamedEdge&) const = default;
};

// A level across the piece, between the places of its lines next to `a` and `b`.
struct NamedLevel {
  std::string id;
  Vec2 a, b;
  bool operator==(const NamedLevel&) const = default;
};

struct NamedNotch {
  std::string id;
  Vec2 at;  // the place of the outline, or of a dart's leg, next to it
  bool doubled = false;
  bool operator==(const NamedNotch&) const = default;
};

// The two lines of the drawing next to `first` and `second`, which meet at a point. An open dart's lines begin at the
// ends of an edge of role Mouth; those of one that is pointed at both ends meet at either.
struct NamedDart {
  std::string id;
  Vec2 first, second;
  bool operator==(const NamedDart&) const = default;
};

struct NamedPiece {
  std::string id, name;
  Vec2 at;  // inside its outline
  Half half = Half::Front;
  Part part = Part::Panel;
  int ordinal = 1;        // from the centre of its half
  int copies = 2;         // on the fold 1
  bool mirrored = false;  // drawn as the right half of the body
  Vec2 grainTop = {}, grainBottom = {};
  std::vector<NamedEdge> edges = {};  // clockwise as drawn
  std::vector<NamedLevel> levels = {};
  std::vector<NamedNotch> notches = {};
  std::vector<NamedDart> darts = {};
  bool operator==(const NamedPiece&) const = default;
};

// Edges of one piece in the order they are sewn: from the upper end down, a cup line from the centre front outwards.
struct NamedSide {
  std::string piece;
  std::vector<std::string> edges;
  bool operator==(const NamedSide&) const = default;
};

struct NamedSeam {
  std::string id, name;
  NamedSide a, b;
  SeamKind kind = SeamKind::Plain;  // of a dart: with the dart, not here
  double ease = 0;                  // side a is meant to be so much longer, mm
  bool operator==(const NamedSeam&) const = default;
};

struct TracingNames {
  double scale = 1;  // every length of the drawing times this
  std::vector<NamedPiece> pieces = {};
  std::vector<NamedSeam> seams = {};
  double opening = 0;    // what stays open all round on every level of the opening, mm
  MeasureSet made = {};  // what it measures as made, at the very places where a client is measured
  bool operator==(const TracingNames&) const = default;
};

// The same places in a drawing `factor` times as large; the scale stays.
TracingNames scaledNames(TracingNames names, double factor);

// The factor that makes the distance of two places of a drawing the length it should be. Fails where they are one
// place, or the factor would be out of reason (below 1/1000 or above 1000).
Result<double> scaleByLength(Vec2 from, Vec2 to, double length);

// The pattern so named: every piece upright by its grain, in the axes of pattern.h, its waist (or its first level that
// others share) at one depth, from the centre front to the centre back. Levels are closed to what the pieces measure.
// Fails with the first thing that does not hold, naming piece and edge: an outline that is not there, edges out of
// order, a seam whose edges are unknown, do not run on, or are longer by more than kMostUneven on one side.
Result<Pattern> tracedPattern(const LineDrawing& drawing, const TracingNames& names);
// The same of a drawing at its true size (scaled by names.scale) whose outlines are known already.
Result<Pattern> tracedPattern(const LineDrawing& real, const std::vector<TracedOutline>& outlines,
                              const TracingNames& names);

// A pattern whose pieces and seams are there, finished: pieces numbered, notches of seams listed, levels found on the
// pieces and closed to what they measure, with `opening` mm left open. Fails where it is not sound, or an edge is sewn
// to nothing.
Result<Pattern> finishTraced(Pattern pattern, double opening);

// What the sides of a seam may differ by at most: more is not one seam; mm.
inline constexpr double kMostUneven = 60;

}  // namespace armure
