#include "alter/one_sided.h"

#include <algorithm>

namespace armure {

bool isOneSided(std::span<const Alteration> alterations) {
  const auto moves = [](const Shift& s) {
    return s.half != BodySide::Both && std::ranges::any_of(s.at, [](const ShiftAt& at) { return at.mm != 0; });
  };
  return std::ranges::any_of(alterations,
                             [&](const Alteration& a) { return a.on && std::ranges::any_of(a.shifts, moves); });
}

std::vector<Alteration> ofSide(std::span<const Alteration> alterations, BodySide side) {
  std::vector<Alteration> all(alterations.begin(), alterations.end());
  for (Alteration& a : all) {
    std::erase_if(a.shifts, [&](const Shift& s) { return s.half != BodySide::Both && s.half != side; });
    for (Shift& s : a.shifts) s.half = BodySide::Both;
  }
  return all;
}

}  // namespace armure
