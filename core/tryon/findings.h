// core/tryon/findings.h
//
// What a trial tells a maker, in her words, the weightiest first, and what would mend it where something would.
//
//   for (const Finding& f : findingsOf(t, design.pattern, design.body, design.rules))
//     english(f.text)          // "The bust point lies 2.2 cm (0.9 in) lower than the body's"
//     if (f.mending) ...       // the choice or measure that would mend it, and to what
//
// Limits within which nothing is said are beyond what the model can tell (levels 4 mm, bust point 5 mm whatever the
// mesh and the stiffness); they are ours.
#pragma once

#include <optional>
#include <string>
#include <vector>

#include "rules/rules.h"
#include "tryon/tryon.h"

namespace armure {

enum class FindingKind { Settling, BustPoint, Level, Edge, Pressure, Slack, Cups, Opening, Side };

// One change of the order. `key` is a rule's or a measure's, `text` its new value as it would be typed.
struct Mending {
  std::string key, text;
  bool isMeasure = false;
  double mm = 0;  // of a measure
  Message what;   // "Top edge held in: 3/4 in"
};

struct Finding {
  FindingKind kind{};
  Message text;
  double weight = 0;  // how many times what would be let pass
  int vertex = -1;    // of the picture: where to look; -1 where it is everywhere
  std::optional<Mending> mending{};
};

// The order of equal weights is that of the kinds. Empty where there is nothing to say.
std::vector<Finding> findingsOf(const TryOn& tried, const Pattern& pattern, const Body& body, const Rules& rules);

}  // namespace armure
