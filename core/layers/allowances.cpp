#include "layers/allowances.h"

#include <algorithm>

#include "pattern/outline_parts.h"
#include "rules/prepare_rules.h"

namespace armure {

namespace {

// Whether an edge is sewn in a seam of which this holds.
template <typename Wanted>
bool isSewnIn(const Pattern& pattern, size_t piece, std::string_view edge, Wanted&& wanted) {
  return std::ranges::any_of(pattern.seams, [&](const Seam& s) {
    return wanted(s) && ((s.a.piece == piece && s.a.uses(edge)) || (s.b.piece == piece && s.b.uses(edge)));
  });
}

bool isSide(const Pattern& pattern, size_t piece, std::string_view edge) {
  return isSewnIn(pattern, piece, edge, [&](const Seam& s) { return isSideSeam(pattern, s); });
}

bool isShoulder(const Pattern& pattern, size_t piece, std::string_view edge) {
  return isSewnIn(pattern, piece, edge, [](const Seam& s) { return s.kind == SeamKind::Shoulder; });
}

}  // namespace

void keepCustom(Pattern& pattern, const Rules& rules) {
  const auto custom = rules.option(key::kAllowanceCustom);
  if (custom == AllowanceCustom::OnPaper) return;
  for (size_t i = 0; i < pattern.pieces.size(); ++i)
    for (Edge& e : pattern.pieces[i].edges) {
      const bool kept = custom == AllowanceCustom::SideAndHem &&
                        (e.role == EdgeRole::Hem || e.role == EdgeRole::Opening || isSide(pattern, i, e.id));
      if (kept) continue;
      e.onCloth = e.allowance;
      e.allowance = 0;
    }
}

void widenForToile(Pattern& pattern, const Rules& rules) {
  const double plain = rules.length(key::kToileAllowance), wide = rules.length(key::kToileSide);
  for (size_t i = 0; i < pattern.pieces.size(); ++i)
    for (Edge& e : pattern.pieces[i].edges) {
      if (e.role == EdgeRole::Fold || e.role == EdgeRole::Mouth || e.allowance <= 0) continue;
      const bool letOut = isCentre(e.role) || isSide(pattern, i, e.id) || isShoulder(pattern, i, e.id);
      if (letOut)
        e.allowance = wide;
      else if (isFree(e.role) || e.role == EdgeRole::Seam)
        e.allowance = plain;
    }
}

}  // namespace armure
