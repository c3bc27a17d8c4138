#include "parts/frill/frill.h"

#include <utility>

#include "parts/frill/rules.h"
#include "parts/trims/strip.h"

namespace armure {
namespace {

// The line it is sewn along, under a heading.
void markHeading(Piece& p, double head, double deep) {
  if (head <= 0) return;
  p.marks.push_back(notchMark("heading", {"end", head}));
  p.marks.push_back(notchMark("heading", {"start", deep - head}));
}

}  // namespace

std::optional<Problem> addFrill(Pattern& pattern, const TrimStretch& stretch, const TrimChoice& trim, const Body&,
                                const Rules& rules) {
  const bool folded = trim.option(strip::kCutAs) == strip::StripCut::Folded;
  const double head = trim.length(frill::kHead), finished = trim.length(strip::kDeep) + head,
               deep = folded ? 2 * finished : finished, seam = trim.length(strip::kSeam);
  const strip::Grain grain = trim.option(strip::kGrainLies);
  const StripPlan plan =
      planStrip(askedOf(trim, stretch.whole(), longestStrip(trimClothWidth(trim, rules), grain, deep, seam)));
  if (auto problem = pleatProblem(plan, trim)) return problem;
  Piece piece = stripPiece(pattern, trim, plan,
                           {.deep = deep,
                            .seam = seam,
                            .hem = trim.length(strip::kHem),
                            .folded = folded,
                            .headed = head > 0 && !folded,
                            .joined = stretch.isRing() || stretch.apart || plan.lengths > 1,
                            .grain = grain});
  piece.copies = plan.lengths * stretch.count();
  piece.symmetry = symmetryOn(stretch);
  markHeading(piece, head, deep);
  const Piece strip = piece;
  sewOn(pattern, stretch, trim, std::move(piece), "sewn", 0, plan.each, {trim.length(strip::kDeep), ReachWay::Down});
  const double whole = plan.lengths * plan.length;
  pattern.workings.push_back({"trim." + trim.id(),
                              msg("{}, its strip", trim.title()),
                              {{'+', stretch.line.name, stretch.whole(), Source::Computed},
                               {'+', plan.perLength > 0 ? Message("under the pleats") : Message("fullness"),
                                whole - stretch.whole(), trim.value(strip::kFull.text).source}},
                              whole,
                              stripNote(plan, strip.copies, deep)});
  const strip::Stiff stiff = trim.option(strip::kStiffened);
  if (strip::isInterfaced(stiff)) interfaceStrip(pattern, trim, strip, finished);
  if (strip::hasBraid(stiff)) addBraid(pattern, trim, stretch.count(), whole);
  return std::nullopt;
}

}  // namespace armure
