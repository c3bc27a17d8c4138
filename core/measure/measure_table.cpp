#include "measure/measure_table.h"

#include <fmt/format.h>

#include <algorithm>
#include <array>
#include <cmath>

#include "units/length.h"

namespace armure {
namespace {

using enum Need;

// Lowest and highest: common practice, wide enough for any adult body; no source.
constexpr std::array<MeasureInfo, 32> kMeasures{{
    // girths, from the top down
    {id::kUpperBust, "Upper bust", "under the arms, above the breast", Estimated, 500, 1900},
    {id::kBust, "Full bust", "over the fullest part, tape level", Required, 500, 2000},
    {id::kUnderbust, "Underbust", "just under the breast, tape firm", Estimated, 450, 1900},
    {id::kWaist, "Waist", "at the natural waist, without pulling the tape", Required, 400, 1900},
    {id::kHighHip, "High hip", "at its stated distance below the waist", Estimated, 450, 2000},
    {id::kHip, "Hip", "over the fullest part", Required, 500, 2100},
    // heights, down from the shoulder line at the neck point
    {id::kShoulderToChest, "Shoulder to chest line", "neck point down to the armhole line", Optional, 120, 350},
    {id::kShoulderToBust, "Shoulder to bust", "neck point down to the bust point", Estimated, 170, 450},
    {id::kShoulderToUnderbust, "Shoulder to underbust", "neck point over the bust to the underbust", Estimated, 220,
     550},
    {id::kShoulderToWaist, "Front waist length", "neck point over the bust to the waist", Estimated, 280, 650},
    {id::kBackWaistLength, "Back waist length", "neck point down the back to the waist", Estimated, 260, 600},
    {id::kWaistToHighHip, "Waist to high hip", "down the side", Estimated, 50, 180},
    {id::kWaistToHip, "Waist to hip", "down the side", Estimated, 120, 320},
    {"side_length", "Side length", "underarm to waist", Kept, 80, 350},
    // spans and arcs
    {id::kShoulderWidth, "Shoulder width", "point to point across the back", Estimated, 250, 600},
    {id::kBustSpan, "Bust span", "bust point to bust point", Estimated, 100, 360},
    {id::kFrontBustArc, "Front bust arc", "side seam to side seam over the front", Optional, 250, 1200},
    {id::kFrontUnderbustArc, "Front underbust arc", "side seam to side seam over the front", Optional, 200, 1000},
    {id::kArmhole, "Round armhole", "around the arm at the shoulder", Optional, 250, 700},
    // over the breast, from the bust point
    {id::kCupDown, "Cup down", "bust point to underbust, over the breast", Optional, 40, 180},
    {"cup_out", "Cup out", "bust point to the side, over the breast", Kept, 40, 250},
    {"cup_up", "Cup up", "bust point to the top edge", Kept, 30, 250},
    {"cup_in", "Cup in", "bust point to centre front", Kept, 40, 200},
    // the figure as a whole
    {id::kStature, "Stature", "standing height, without shoes", Estimated, 1200, 2200},
    {id::kWeight, "Weight", "kept in kilograms; only used to estimate others", Kept, 30, 250},
    // extras for yokes, frills, sleeves and skirts
    {"neck", "Neck", "around the base of the neck", Kept, 250, 600},
    {"round_shoulder", "Round shoulder", "around both arms at the top", Kept, 700, 2000},
    {"bicep", "Bicep", "around the upper arm", Kept, 180, 700},
    {"wrist", "Wrist", "around the wrist", Kept, 110, 300},
    {"arm_length", "Arm length", "shoulder point to wrist", Kept, 400, 800},
    {"waist_to_knee", "Waist to knee", "down the front", Kept, 400, 800},
    {"waist_to_floor", "Waist to floor", "down the front", Kept, 800, 1400},
}};

}  // namespace

std::span<const MeasureInfo> measureTable() { return kMeasures; }

const MeasureInfo* findMeasure(std::string_view measureId) {
  const auto table = measureTable();
  const auto row = std::find_if(table.begin(), table.end(), [&](const MeasureInfo& m) { return m.id == measureId; });
  return row == table.end() ? nullptr : &*row;
}

std::optional<Problem> measureProblem(std::string_view measureId, double value) {
  const MeasureInfo* row = findMeasure(measureId);
  if (!row || (std::isfinite(value) && value >= row->lowest && value <= row->highest)) return std::nullopt;
  const auto show = [&](double v) {
    return row->id == id::kWeight ? fmt::format("{:.4g} kg", v)
                                  : fmt::format("{:.4g} cm ({:.4g} in)", v / kMmPerCm, v / kMmPerInch);
  };
  return Problem{
      std::string(row->id), fmt::format("{} of {} cannot be right", row->name, show(value)),
      fmt::format("it lies between {} and {}; check the number and its unit", show(row->lowest), show(row->highest))};
}

}  // namespace armure
