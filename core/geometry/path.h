// core/geometry/path.h
//
// A path: a chain of cubics, each starting exactly where the one before ends. Edges of pieces, panel lines and style
// lines are paths. Positions along it are arc lengths in mm from its start.
#pragma once

#include <optional>
#include <utility>
#include <vector>

#include "geometry/cubic.h"

namespace armure {

class Path {
 public:
  Path() = default;
  explicit Path(Cubic cubic) : cubics_{cubic}, lengths_{cubic.length()} {}
  // Throws std::invalid_argument when two neighbours do not meet (to 1e-9 mm).
  explicit Path(std::vector<Cubic> cubics);

  // Straight lines from each point to the next; of two points at least.
  static Path polyline(const std::vector<Vec2>& points);
  static Path line(Vec2 from, Vec2 to);

  const std::vector<Cubic>& cubics() const { return cubics_; }
  bool empty() const { return cubics_.empty(); }
  Vec2 start() const { return cubics_.front().p0; }
  Vec2 end() const { return cubics_.back().p3; }
  Vec2 startTangent() const { return cubics_.front().startTangent(); }
  Vec2 endTangent() const { return cubics_.back().endTangent(); }

  double length() const;
  Vec2 pointAt(double s) const;    // s is clamped to [0, length()]
  Vec2 tangentAt(double s) const;  // direction of travel, length 1

  // Places along the path from its start, `apart` mm from one to the next: in one walk, where asking for each would
  // begin anew. Its end is one of them where it falls on a step.
  struct Place {
    Vec2 at, tangent;  // direction of travel, length 1
  };
  std::vector<Place> placesEvery(double apart) const;

  // The foot of the perpendicular from a point, looked for from an arc length near it, by Newton's method in the
  // parameter; an end where it lies beyond. Not the nearest place of all where the path comes by more than once.
  struct Foot {
    double at = 0, distance = 0;  // mm along the path; mm from the point
  };
  Foot footNear(Vec2 point, double near) const;

  Path reversed() const;
  Path transformed(const Motion& m) const;

  // The part from arc length `from` to `to`, from <= to, both clamped. Exact: cubics are split, not refitted.
  Path sub(double from, double to) const;

  // Two paths end to end; throws when they do not meet.
  friend Path operator+(const Path& a, const Path& b);

  // Arc lengths, ascending, at which the path meets the infinite line through `point` along `direction`.
  std::vector<double> crossings(Vec2 point, Vec2 direction) const;

  // Places where this path meets another, as arc lengths on both, in the order of this one; good to 1e-9 mm where they
  // cross at an angle. Where they run on each other nothing is found.
  std::vector<std::pair<double, double>> meetings(const Path& other) const;

  // For a path that runs down the figure: x where it stands at depth y, exact to rounding. Beyond its ends the path is
  // continued straight. Where it crosses the depth more than once, the uppermost crossing along the path.
  double xAtDepth(double y) const;

  // The part between two depths, for a path that runs down the figure; parts beyond its ends are left out.
  Path betweenDepths(double upper, double lower) const;

  // Polyline within `tolerance` mm of the path, with both ends.
  std::vector<Vec2> flattened(double tolerance) const;

  // Smallest radius of curvature in mm, sampled at `samples` places in each cubic; infinity for straight paths.
  double tightestRadius(int samples = 24) const;

  // Smallest radius where the path bends to the left of its travel (seen with y down), in the same way.
  double tightestLeftRadius(int samples = 24) const;

  // How often the path changes between bending left and bending right. A bend that rises by less than `visible` mm from
  // the straight line between its ends does not count: nobody can see or cut it. -1 for a path without length.
  int inflections(double visible = 0.25) const;

 private:
  std::pair<size_t, double> locate(double s) const;  // cubic index and parameter
  std::vector<Cubic> cubics_;
  std::vector<double> lengths_;  // of the cubics, found once; moving and turning keep them
};

}  // namespace armure
