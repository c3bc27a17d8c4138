#include "parts/hanging_sleeve/hanging_sleeve.h"

#include <algorithm>
#include <cmath>
#include <utility>

#include "parts/hanging_sleeve/rules.h"
#include "parts/trims/strip.h"

namespace armure {
namespace {

constexpr double kLeastStretch = 20;  // mm of armhole
constexpr double kBoneClear = 6;      // mm that a bone is shorter than its sleeve at either end
constexpr double kUncut = 1e5;        // mm: it is cut in one, however wide

double longOf(const TrimChoice& trim, const Body& body) {
  return trim.option(hanging_sleeve::kReach) == hanging_sleeve::HangsTo::Arm ? body.mm("bicep") / 2
                                                                             : trim.length(hanging_sleeve::kLong);
}

void addBones(Pattern& pattern, const TrimChoice& trim, double finished) {
  const auto bones = 2 * static_cast<int>(std::lround(trim.number(hanging_sleeve::kBones)));
  const double length = finished - 2 * kBoneClear;
  if (bones > 0 && length > 0)
    pattern.supplies.push_back(
        {"trim-bone", msg("Bones, {}", trim.title()), bones, length,
         msg("at the edges, {} shorter than it hangs at either end; plastic, 1/4 in", Length{kBoneClear})});
}

}  // namespace

std::optional<Problem> addHangingSleeve(Pattern& pattern, const TrimStretch& stretch, const TrimChoice& trim,
                                        const Body& body, const Rules&) {
  if (stretch.isOver())
    return Problem{trim.title(), msg("{} runs on to the other side of the body", stretch.line.name),
                   "hang it from an armhole, or let it begin and end on one side"};
  TrimStretch on = stretch;
  const double free = trim.length(hanging_sleeve::kFree);
  on.to -= free;
  if (on.half() < kLeastStretch)
    return Problem{trim.title(),
                   msg("{} of {} is too short to hang it from", Length{std::max(0.0, on.half())}, stretch.line.name),
                   "give it a longer part of the line, or leave less of it free"};
  const double finished = longOf(trim, body), turning = trim.length(hanging_sleeve::kTurning);
  const StripPlan plan = planStrip(askedOf(trim, on.half(), kUncut));
  if (auto problem = pleatProblem(plan, trim)) return problem;
  Piece piece =
      stripPiece(pattern, trim, plan,
                 {.deep = 2 * finished, .seam = trim.length(strip::kSeam), .folded = true, .ends = turning / 2});
  piece.copies = 2;
  piece.symmetry = Symmetry::Pair;
  const Piece sleeve = piece;
  sewOn(pattern, on, trim, std::move(piece), "sewn", 0, plan.each, {finished, ReachWay::AlongArm});
  pattern.workings.push_back({"trim." + trim.id(),
                              msg("{}, cut wide", trim.title()),
                              {{'+', on.line.name, stretch.half(), Source::Computed},
                               trim.term(hanging_sleeve::kFree, '-'),
                               {'+', "under the pleats", plan.length - on.half(), trim.value(strip::kFull.text).source},
                               trim.term(hanging_sleeve::kTurning)},
                              plan.length + turning,
                              msg("folded to {}; {}", Length{finished}, stripNote(plan, 2, 2 * finished))});
  const auto plies = static_cast<int>(std::lround(trim.number(hanging_sleeve::kPlies)));
  if (plies > 0) interfaceStrip(pattern, trim, sleeve, finished, plies);
  addBones(pattern, trim, finished);
  return std::nullopt;
}

}  // namespace armure
