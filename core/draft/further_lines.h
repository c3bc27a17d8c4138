// core/draft/further_lines.h
//
// The panel lines beyond the first of a half: where their edges stand on a level, and the paths through them below the
// place where they begin to take in.
#pragma once

#include <functional>
#include <utility>
#include <vector>

#include "draft/levels.h"
#include "draft/shaping.h"
#include "geometry/spline.h"

namespace armure {

struct EdgePair {
  double toCentre, toSide;
};

// Where the edges of the lines beyond the first stand on one level. `at` are the positions of all lines on the bust
// line, `takings` what each takes in here, `first` where the first line's edge towards the side stands, `side` where
// the side stands. Evenly: between the first line and the side, what is taken in left out, so that the pieces there are
// equally wide; else about their positions.
std::vector<EdgePair> furtherEdges(const std::vector<double>& at, const std::vector<double>& takings, double first,
                                   double side, bool evenly);

// The finished share of a half on a level below the bust; at the hem, where none is prescribed, between the measured
// levels round it.
double shareBelow(const Levels& levels, bool front, std::string_view level);

// One level below the bust at which lines are placed: how deep, what each line takes in there, where the side stands.
struct LevelBelow {
  std::string id;
  double y;
  std::vector<double> takings;
  double side;
};

// Every level the lines are drawn through, and the hem (its share between the measured levels round it).
std::vector<LevelBelow> levelsBelow(const Levels& levels, const Shaping& shaping, bool front,
                                    const std::function<double(double)>& centreIntake);

// Both edges of a line from its start down: its middle runs in one sweep over the waist to the hem, and through the
// levels where it was placed by hand; its gap runs through what is taken in on every level. `middle` and `gap` hold the
// stations of the start; `edges` one pair for each level below. A dart's line is `straight` from its start to its end,
// so that both legs are alike.
std::pair<Path, Path> sweptEdges(std::vector<Station> middle, std::vector<Station> gap,
                                 const std::vector<LevelBelow>& below, const std::vector<EdgePair>& edges,
                                 const std::vector<bool>& placed, double topY, double bottomY, bool straight = false);

}  // namespace armure
