// core/draft/ranges.h
//
// How far the number of a rule can go beside the other choices and on this body, where that is less than its row of the
// rule table allows. What is beyond is not refused for it here: the draft says what is in its way. The window shows it
// beside the field.
//
//   dart.side      at most what has room between bust and underbust
//   dial.side 0.6  -> dial.ease at most 0.4: both are parts of one dart
#pragma once

#include "measure/estimate.h"
#include "rules/rules.h"

namespace armure {

// mm, or the share.
struct RuleRange {
  double lowest = 0, highest = 0;
};

// `body` is that the order is drafted for, with the further measures its choices ask for.
RuleRange rangeOf(const RuleInfo& rule, const Rules& rules, const Body& body);

}  // namespace armure
