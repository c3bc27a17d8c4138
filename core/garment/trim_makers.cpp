#include "garment/trim_makers.h"

#include <algorithm>
#include <array>

#include "parts/collar/collar.h"
#include "parts/flounce/flounce.h"
#include "parts/frill/frill.h"
#include "parts/sleeve/sleeve.h"
#include "parts/trims/lines.h"

namespace armure {
namespace {

struct TrimMaker {
  TrimKind kind{};
  std::optional<Problem> (*add)(Pattern&, const TrimStretch&, const TrimChoice&, const Body&, const Rules&);
};
constexpr std::array kMakers{
    TrimMaker{TrimKind::Frill, addFrill},
    TrimMaker{TrimKind::Flounce, addFlounce},
    TrimMaker{TrimKind::Sleeve, addSleeve},
    TrimMaker{TrimKind::Collar, addCollar},
};

std::optional<Problem> addTrim(Pattern& pattern, const TrimChoice& trim, const Body& body, const Rules& rules,
                               BodySide side) {
  Result<TrimStretch> stretch = stretchOf(pattern, trim);
  if (!stretch.ok()) return stretch.problem();
  stretch->apart = side != BodySide::Both;
  return std::ranges::find(kMakers, trim.kind(), &TrimMaker::kind)->add(pattern, *stretch, trim, body, rules);
}

}  // namespace

void addTrims(Pattern& pattern, const Body& body, const Rules& rules, BodySide side) {
  for (const TrimChoice& trim : rules.trims())
    if (!trim.on().empty()) addTrim(pattern, trim, body, rules, side);
}

std::optional<Problem> trimProblem(const Pattern& pattern, const TrimChoice& trim, const Body& body,
                                   const Rules& rules) {
  Pattern tried = pattern;
  return addTrim(tried, trim, body, rules, BodySide::Both);
}

}  // namespace armure
