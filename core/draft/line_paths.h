// core/draft/line_paths.h
//
// Paths of panel lines from stations down the figure: the two edges of a line that keep its gap open, and lines
// continued or given further stations without changing them.
#pragma once

#include <utility>
#include <vector>

#include "geometry/spline.h"

namespace armure {

// One edge of a gap given as a path (x the whole intake, y the depth): a scaled copy about `position`. The edge towards
// the centre has a negative `part`; the parts of both edges differ by 1.
Path edgeOfGap(const Path& gap, double position, double part);

// Both edges, towards the centre and towards the side, from the middle of the line and its gap, given on the same
// depths. The gap is a monotone path of its own, so that the edges never cross.
std::pair<Path, Path> edgesAbout(const std::vector<Station>& middle, const std::vector<Station>& gap);

// The same line with stations at further depths within it: value and slope of the line itself there (cubic Hermite).
std::vector<Station> withStationsAt(const std::vector<Station>& line, const std::vector<double>& depths);

// Continues a list of stations straight, up to `topY` and down to `bottomY`.
void extend(std::vector<Station>& stations, double topY, double bottomY);

}  // namespace armure
