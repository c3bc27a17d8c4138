#include "garment/trim_makers.h"

#include <algorithm>
#include <array>

#include "parts/flounce/flounce.h"
#include "parts/frill/frill.h"
#include "parts/trims/lines.h"

namespace armure {
namespace {

struct TrimMaker {
  TrimKind kind{};
  std::optional<Problem> (*add)(Pattern&, const TrimStretch&, const TrimChoice&, const Rules&);
};
constexpr std::array kMakers{
    TrimMaker{TrimKind::Frill, addFrill},
    TrimMaker{TrimKind::Flounce, addFlounce},
};

std::optional<Problem> addTrim(Pattern& pattern, const TrimChoice& trim, const Rules& rules) {
  const Result<TrimStretch> stretch = stretchOf(pattern, trim);
  if (!stretch.ok()) return stretch.problem();
  return std::ranges::find(kMakers, trim.kind(), &TrimMaker::kind)->add(pattern, *stretch, trim, rules);
}

}  // namespace

void addTrims(Pattern& pattern, const Rules& rules) {
  for (const TrimChoice& trim : rules.trims())
    if (!trim.on().empty()) addTrim(pattern, trim, rules);
}

std::optional<Problem> trimProblem(const Pattern& pattern, const TrimChoice& trim, const Rules& rules) {
  Pattern tried = pattern;
  return addTrim(tried, trim, rules);
}

}  // namespace armure
