// core/prepare/cautions.h
//
// What must be said wherever a waist reduction is chosen or printed. Calm, complete, the same everywhere.
#pragma once

#include <span>
#include <string>
#include <string_view>

namespace armure {

// One sentence each; to be shown together.
std::span<const std::string_view> reductionCautions();

// How much the waist is taken in, in words by the percentage of the natural waist. Common practice, no source:
// up to 5 light, to 10 firm, to 15 strong, above only for the experienced.
struct ReductionClass {
  double percent = 0;
  std::string_view name;          // "none", "light", "firm", "strong", "only for the experienced"
  double body = 0, finished = 0;  // the waist, mm
};
ReductionClass classifyReduction(double naturalWaistMm, double closedWaistMm);

}  // namespace armure
