#include "parts/trims/strip.h"

#include <fmt/format.h>

#include <algorithm>
#include <cmath>
#include <numbers>
#include <utility>
#include <vector>

namespace armure {
namespace {

constexpr double kLongestAlong = 5000;  // mm of a strip that lies along the cloth: two to three arm spans
constexpr double kLeastLength = 100;    // mm: shorter lengths are not joined, however narrow the cloth

bool isPleated(strip::Drawn how) { return how != strip::Drawn::Gathered; }

Vec2 grainOf(strip::Grain grain) {
  if (grain == strip::Grain::Along) return {1, 0};
  if (grain == strip::Grain::Bias) return std::numbers::sqrt2 / 2 * Vec2{1, 1};
  return {0, 1};
}

// Quarters of a gathered strip; of each pleat its fold and, doubled, where it is laid to: a box pleat has two.
void markFolds(Piece& p, const StripPlan& plan) {
  const auto notch = [&](std::string id, double at, bool doubled) {
    p.marks.push_back(notchMark(std::move(id), {"sewn", at}, doubled));
  };
  const bool toEnd = plan.lie == strip::PleatsLie::ToEnd;
  for (int k = 0; k < plan.perLength; ++k) {
    const double middle = (k + 0.5) * plan.length / plan.perLength, d = plan.pleat;
    const std::string id = fmt::format("pleat-{}", k + 1);
    if (plan.how == strip::Drawn::Box) {
      for (const double side : {-1.0, 1.0}) {
        notch(id, middle + side * 3 * d, false);
        notch(id, middle + side * d, true);
      }
    } else {
      notch(id, middle - d, !toEnd);
      notch(id, middle + d, toEnd);
    }
  }
  if (!isPleated(plan.how) && plan.full() > 1 + 1e-9)
    for (const int quarter : {1, 2, 3}) notch(fmt::format("quarter-{}", quarter), quarter * plan.length / 4, false);
}

}  // namespace

StripAsked askedOf(const TrimChoice& trim, double covers, double longest) {
  return {covers,
          longest,
          trim.number(strip::kFull),
          trim.option(strip::kHow),
          trim.length(strip::kPleat),
          trim.number(strip::kPleats),
          trim.option(strip::kLie)};
}

StripPlan planStrip(const StripAsked& asked) {
  StripPlan plan{.how = asked.how, .lie = asked.lie, .pleat = asked.pleat};
  const bool pleated = isPleated(asked.how), byFullness = asked.pleats < 1;
  const double times = plan.times();
  double pleats = pleated ? asked.pleats : 0;
  if (pleated && byFullness)
    pleats = std::max(1.0, std::round((asked.full - 1) * asked.covers / (times * asked.pleat)));
  const double strip = pleated && !byFullness ? asked.covers + pleats * times * asked.pleat : asked.full * asked.covers;
  plan.lengths = std::max(1, static_cast<int>(std::ceil(strip / asked.longest - 1e-9)));
  plan.each = asked.covers / plan.lengths;
  if (!pleated) {
    plan.length = strip / plan.lengths;
    return plan;
  }
  plan.perLength = std::max(1, static_cast<int>(std::lround(pleats / plan.lengths)));
  if (byFullness) plan.pleat = (asked.full - 1) * plan.each / (plan.perLength * times);
  plan.length = plan.each + plan.perLength * times * plan.pleat;
  return plan;
}

std::optional<Problem> pleatProblem(const StripPlan& plan, const TrimChoice& trim) {
  if (plan.how != strip::Drawn::Box || plan.each / plan.perLength >= 2 * plan.pleat) return std::nullopt;
  return Problem{trim.title(), msg("its {} box pleats would lie over each other", plan.perLength * plan.lengths),
                 "take fewer of them, or less deep"};
}

double longestStrip(double clothWidth, strip::Grain grain, double deep, double seam) {
  const double width = clothWidth - 2 * seam;
  switch (grain) {
    case strip::Grain::Along:
      return kLongestAlong;
    case strip::Grain::Bias:
      return std::max(kLeastLength, width * std::numbers::sqrt2 - deep);
    case strip::Grain::Across:
      break;
  }
  return std::max(kLeastLength, width);
}

Piece stripPiece(const Pattern& pattern, const TrimChoice& trim, const StripPlan& plan, const StripShape& shape) {
  const Vec2 a = besideAll(pattern);
  Piece p = trimPiece(trim, 1, 1);
  p.edges = rectangle(a, plan.length, shape.deep, shape.seam);
  const auto finish = [&](Edge& e, bool free) {
    e.role = free ? EdgeRole::Hem : EdgeRole::Raw;
    e.allowance = free ? shape.hem : shape.seam;
  };
  finish(p.edges[0], shape.headed);
  finish(p.edges[2], !shape.folded && !shape.caught);
  for (const size_t end : {1, 3}) {
    finish(p.edges[end], !shape.joined);
    if (shape.ends) p.edges[end].allowance = *shape.ends;
  }
  markFolds(p, plan);
  if (shape.folded)
    for (const char* end : {"end", "start"}) p.marks.push_back(notchMark("fold", {end, shape.deep / 2}));
  const Vec2 middle = a + Vec2{plan.length, shape.deep} / 2;
  const double reach = 0.35 * std::min(shape.deep, plan.length);
  p.grainTop = middle - reach * grainOf(shape.grain);
  p.grainBottom = middle + reach * grainOf(shape.grain);
  return p;
}

void interfaceStrip(Pattern& pattern, const TrimChoice& trim, const Piece& strip, double finished, int plies) {
  const double length = strip.edge("sewn").path.length();
  const Vec2 a = besideAll(pattern);
  Piece p = trimPiece(trim, 1, 1);
  p.id = "interfacing-" + strip.id;
  p.name = msg("{}, interfacing", trim.title());
  p.layer = "interfacing";
  p.source = strip.id;
  p.symmetry = strip.symmetry;
  p.edges = rectangle(a, length, finished, 0);
  p.copies = plies * strip.copies;
  grainDown(p, a, length, finished);
  pattern.pieces.push_back(std::move(p));
}

void addBraid(Pattern& pattern, const TrimChoice& trim, int count, double length) {
  const double spare = 2 * trim.length(strip::kSeam);
  pattern.supplies.push_back({"braid", msg("Stiffening braid, {}", trim.title()), count, length + spare,
                              msg("its free edge of {}, and {} to join", Length{length}, Length{spare})});
}

Message stripNote(const StripPlan& plan, int copies, double deep) {
  const Message lengths = msg("cut in {} lengths of {}, {} deep", copies, Length{plan.length}, Length{deep});
  return isPleated(plan.how) ? msg("{:.2f} times its edge; {} pleats in each, {} deep; {}; common practice",
                                   plan.full(), plan.perLength, Length{plan.pleat}, lengths)
                             : msg("{:.2f} times its edge; {}; common practice", plan.full(), lengths);
}

}  // namespace armure
