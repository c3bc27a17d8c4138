// bench/laying.cpp
//
// How much of the cloth is used: the shell's cloth of one demo order in thirty styles at three widths, laid open; the
// first layout, ours after some seconds, and libnest2d's with as much time.
//
// usage: armure_laying [SECONDS [STYLES]]; 10 and 30 by default
#include <fmt/format.h>

#include <algorithm>
#include <chrono>
#include <cstdlib>

#include "bench/nest_reference.h"
#include "geometry/hull.h"
#include "io/order_file.h"
#include "laying/search.h"
#include "prepare/cloth_laying.h"
#include "recalc/recalc.h"
#include "rules/presets.h"

using namespace armure;

namespace {

constexpr double kGrid = 1e4;   // units per mm
constexpr double kSame = 1e-6;  // of the cloth: what the grid leaves
using Clock = std::chrono::steady_clock;

double since(Clock::time_point then) { return std::chrono::duration<double>(Clock::now() - then).count(); }

double reference(const StripProblem& problem, double seconds) {
  std::vector<std::vector<std::pair<long long, long long>>> rings;
  double ample = 0;
  for (const StripItem& item : problem.items) {
    rings.emplace_back();
    Polyline ring;
    for (const Vec2 p : convexHull(problem.outlines[item.outline])) ring.push_back(turned(item.turns[0]).apply(p));
    for (const Vec2 p : ring) rings.back().emplace_back(std::llround(p.x * kGrid), std::llround(p.y * kGrid));
    ample += boxRound(ring).width();
  }
  return nestedLength(rings, problem.items[0].turns.size() > 1, std::llround(problem.width * kGrid),
                      std::llround(ample * kGrid), seconds) /
         kGrid;
}

double middle(std::vector<double> values) {
  std::sort(values.begin(), values.end());
  return values.empty() ? 0 : values[values.size() / 2];
}

}  // namespace

int main(int argc, char** argv) {
  const double seconds = argc > 1 ? std::atof(argv[1]) : 10;
  const size_t styles = argc > 2 ? static_cast<size_t>(std::atoi(argv[2])) : 30;
  Order order = readOrder(ARMURE_SOURCE_DIR "/demo/2-lamp-room.armure").value().order;
  std::vector<double> firsts, gains, over;
  int below = 0;
  for (size_t s = 0; s < std::min(styles, styleTable().size()); ++s) {
    order.style = std::string(styleTable()[s].id);
    const Design design = recalc(order).value();
    CutList list = pieceList(design.pattern, design.rules);
    for (const double width : {36.0, 45.0, 60.0}) {
      list.cloths[0].as.folded = false;
      list.cloths[0].width = list.cloths[0].as.width = width * 25.4;
      const ClothLaying laying = clothLayings(design.pattern, design.cutOutlines, list).front();
      if (laying.unfit) continue;
      const auto begin = Clock::now();
      LayingSearch search(laying.problem);
      firsts.push_back(since(begin));
      const double first = utilisation(laying.problem, search.best());
      while (!search.isShortest() && since(begin) < seconds) search.step();
      const double ours = utilisation(laying.problem, search.best()), length = reference(laying.problem, seconds);
      const double theirs = length > 0 ? utilisation(laying.problem, {{}, length}) : 0;
      gains.push_back(100 * (ours - theirs));
      over.push_back(worstOverlap(laying.problem, search.best()));
      below += ours < theirs - kSame;
      fmt::print("{:<24} {:>3.0f} in, {:>2} copies: first {:.1f} % in {:.2f} s, then {:.1f} %; libnest2d {:.1f} %\n",
                 order.style, width, laying.items.size(), 100 * first, firsts.back(), 100 * ours, 100 * theirs);
      std::fflush(stdout);
    }
  }
  fmt::print(
      "{} layouts: {} below libnest2d, {:.1f} points more in the median; first after {:.2f} s in the median, "
      "{:.2f} s at worst; worst overlap {:.3f} mm^2\n",
      gains.size(), below, middle(gains), middle(firsts), *std::ranges::max_element(firsts),
      *std::ranges::max_element(over));
}
