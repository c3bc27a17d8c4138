#include "layers/allowances.h"

#include <algorithm>

#include "rules/prepare_rules.h"

namespace armure {

bool isSide(const Pattern& pattern, size_t piece, std::string_view edge) {
  return std::ranges::any_of(pattern.seams, [&](const Seam& s) {
    const bool uses = (s.a.piece == piece && s.a.uses(edge)) || (s.b.piece == piece && s.b.uses(edge));
    if (!uses || s.kind != SeamKind::Plain) return false;
    const Half a = pattern.pieces[s.a.piece].half, b = pattern.pieces[s.b.piece].half;
    return a != b && a != Half::Both && b != Half::Both;
  });
}

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
  const auto isShoulder = [&](size_t piece, std::string_view edge) {
    return std::ranges::any_of(pattern.seams, [&](const Seam& s) {
      return s.kind == SeamKind::Shoulder &&
             ((s.a.piece == piece && s.a.uses(edge)) || (s.b.piece == piece && s.b.uses(edge)));
    });
  };
  for (size_t i = 0; i < pattern.pieces.size(); ++i)
    for (Edge& e : pattern.pieces[i].edges) {
      if (e.role == EdgeRole::Fold || e.role == EdgeRole::Mouth || e.allowance <= 0) continue;
      const bool letOut = isCentre(e.role) || isSide(pattern, i, e.id) || isShoulder(i, e.id);
      if (letOut)
        e.allowance = wide;
      else if (isFree(e.role) || e.role == EdgeRole::Seam)
        e.allowance = plain;
    }
}

}  // namespace armure
