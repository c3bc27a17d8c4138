#include "laying/strip.h"

#include <cmath>

namespace armure {
namespace {

Polyline moved(const Polyline& outline, const Motion& motion) {
  Polyline out;
  out.reserve(outline.size());
  for (const Vec2 p : outline) out.push_back(motion.apply(p));
  return out;
}

// How long and wide an item is in one of its turns.
Vec2 extent(const StripProblem& problem, const StripItem& item, const Turn& turn) {
  const Box box = boxRound(moved(problem.outlines[item.outline], turned(turn)));
  return {box.width(), box.height()};
}

}  // namespace

Motion turned(const Turn& turn) {
  const Motion rotation = Motion::rotationAbout({}, turn.angleRad);
  return turn.mirrored ? Motion::mirrorX().then(rotation) : rotation;
}

Polyline laidOutline(const StripProblem& problem, size_t item, const LaidItem& laid) {
  const StripItem& of = problem.items[item];
  return moved(problem.outlines[of.outline], turned(of.turns.at(laid.turn)).then(Motion::translation(laid.at)));
}

double usedLength(const StripProblem& problem, const std::vector<LaidItem>& items) {
  double end = 0;
  for (size_t i = 0; i < items.size(); ++i) end = std::max(end, boxRound(laidOutline(problem, i, items[i])).high.x);
  return end;
}

double utilisation(const StripProblem& problem, const StripLayout& layout) {
  double area = 0;
  for (const StripItem& item : problem.items) area += std::abs(signedArea(problem.outlines[item.outline]));
  return layout.length > 0 ? area / (problem.width * layout.length) : 0;
}

double shortestLength(const StripProblem& problem) {
  double area = 0, longest = 0;
  for (const StripItem& item : problem.items) {
    area += std::abs(signedArea(problem.outlines[item.outline]));
    double length = HUGE_VAL;
    for (const Turn& turn : item.turns) length = std::min(length, extent(problem, item, turn).x);
    longest = std::max(longest, length);
  }
  return std::max(longest, area / problem.width);
}

std::optional<size_t> tooWide(const StripProblem& problem) {
  constexpr double kRounding = 1e-6;  // mm
  for (size_t i = 0; i < problem.items.size(); ++i) {
    double width = HUGE_VAL;
    for (const Turn& turn : problem.items[i].turns) width = std::min(width, extent(problem, problem.items[i], turn).y);
    if (width > problem.width + kRounding) return i;
  }
  return std::nullopt;
}

double worstOverlap(const StripProblem& problem, const StripLayout& layout) {
  std::vector<Polyline> laid;
  for (size_t i = 0; i < layout.items.size(); ++i) laid.push_back(laidOutline(problem, i, layout.items[i]));
  const Polyline cloth = problem.within.empty()
                             ? Polyline{{0, 0}, {layout.length, 0}, {layout.length, problem.width}, {0, problem.width}}
                             : problem.within;
  double worst = 0;
  for (size_t i = 0; i < laid.size(); ++i) {
    worst = std::max(worst, std::abs(signedArea(laid[i])) - sharedArea(laid[i], cloth));
    for (size_t j = 0; j < i; ++j)
      if (boxRound(laid[i]).meets(boxRound(laid[j]))) worst = std::max(worst, sharedArea(laid[i], laid[j]));
  }
  return worst;
}

}  // namespace armure
