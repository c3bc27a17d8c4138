#include "prepare/cautions.h"

#include <array>

namespace armure {
namespace {

constexpr std::array<std::string_view, 6> kCautions{
    "A tight garment can restrict breathing and circulation, worsen reflux, numb the thighs and bruise ribs.",
    "Not in pregnancy, after recent surgery, with heart, lung, blood-pressure, hernia or back trouble, or for a "
    "growing child, unless a doctor has said yes.",
    "Season a new garment: short wears, loosely laced, first.",
    "Loosen at once on pain, numbness, dizziness or short breath.",
    "The wearer, or someone with her, must always be able to open it fast.",
    "Armure gives no medical advice. A doctor's word and local rules come first.",
};

}  // namespace

std::span<const std::string_view> reductionCautions() { return kCautions; }

ReductionClass classifyReduction(double naturalWaistMm, double closedWaistMm) {
  const double percent = naturalWaistMm > 0 ? 100 * (naturalWaistMm - closedWaistMm) / naturalWaistMm : 0;
  const auto called = [&](std::string_view name) {
    return ReductionClass{percent, name, naturalWaistMm, closedWaistMm};
  };
  if (percent <= 0) return called("none");
  if (percent <= 5) return called("light");
  if (percent <= 10) return called("firm");
  if (percent <= 15) return called("strong");
  return called("only for the experienced");
}

}  // namespace armure
