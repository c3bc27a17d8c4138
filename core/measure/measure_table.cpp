#include "measure/measure_table.h"

#include <algorithm>
#include <array>
#include <cmath>

#include "units/length.h"

namespace armure {
namespace {

using enum Need;
using enum MeasureGroup;

// Lowest and highest: common practice, wide enough for any adult body; no source.
constexpr std::array<MeasureInfo, 32> kMeasures{{
    // girths, from the top down
    {id::kUpperBust, "Upper bust", "high bust, chest girth",
     "Tape high under the arms, level round the back, above the breast; arms down, breath easy.", Girths, Estimated,
     500, 1900},
    {id::kBust, "Full bust", "bust girth, bust line",
     "Level over the fullest part, in the bra or foundation she will wear.", Girths, Required, 500, 2000},
    {id::kUnderbust, "Underbust", "rib girth, under the breast",
     "Level just under the breast, tape firm, after breathing out.", Girths, Estimated, 450, 1900},
    {id::kWaist, "Waist", "natural waist", "At the natural waist, where she bends to the side. Do not pull the tape.",
     Girths, Required, 400, 1900},
    {id::kHighHip, "High hip", "upper hip, stomach",
     "Level over the hip bones, at its stated distance below the waist.", Girths, Estimated, 450, 2000},
    {id::kHip, "Hip", "full hip, seat", "Level over the fullest part, feet together.", Girths, Reached, 500, 2100},
    // heights, down from the shoulder line at the neck point
    {id::kShoulderToChest, "Shoulder to chest line", "armhole depth",
     "From the neck point straight down to the line under the arms.", Heights, Optional, 120, 350},
    {id::kShoulderToBust, "Shoulder to bust", "bust height, apex height", "From the neck point down to the bust point.",
     Heights, Estimated, 170, 450},
    {id::kShoulderToUnderbust, "Shoulder to underbust", "underbust height",
     "From the neck point over the bust point to just under the breast.", Heights, Estimated, 220, 550},
    {id::kShoulderToWaist, "Front waist length", "half length, front length",
     "From the neck point over the bust point to the waist.", Heights, Estimated, 280, 650},
    {id::kBackWaistLength, "Back waist length", "back length",
     "From the neck point straight down the back to the waist.", Back, Estimated, 260, 600},
    {id::kWaistToHighHip, "Waist to high hip", "",
     "Down the side, from the waist to where the high hip was taken; 3 to 5 in.", Heights, Estimated, 50, 180},
    {id::kWaistToHip, "Waist to hip", "hip depth", "Down the side, from the waist to the fullest part; 7 to 9 in.",
     Heights, Estimated, 120, 320},
    {id::kSideLength, "Side length", "underarm to waist", "Down the side, from under the arm to the waist.", Heights,
     Estimated, 80, 350},
    // spans and arcs
    {id::kShoulderWidth, "Shoulder width", "point to point", "Across the back, from shoulder point to shoulder point.",
     Back, Estimated, 250, 600},
    {id::kBustSpan, "Bust span", "apex to apex", "Straight from bust point to bust point.", Spans, Estimated, 100, 360},
    {id::kFrontBustArc, "Front bust arc", "front bust",
     "From side seam to side seam over the fullest part, front only.", Spans, Optional, 250, 1200},
    {id::kFrontUnderbustArc, "Front underbust arc", "front underbust",
     "From side seam to side seam under the breast, front only.", Spans, Optional, 200, 1000},
    {id::kArmhole, "Round armhole", "armhole girth, armscye",
     "Round the arm where it joins: over the shoulder point and under the arm.", Spans, Optional, 250, 700},
    // over the breast, from the bust point
    {id::kCupDown, "Cup down", "lower cup radius", "Over the breast, from the bust point down to the underbust.", Spans,
     Optional, 40, 180},
    {"cup_out", "Cup out", "outer cup radius", "Over the breast, from the bust point out to the side.", Spans, Kept, 40,
     250},
    {"cup_up", "Cup up", "upper cup radius", "From the bust point up to the top edge.", Spans, Kept, 30, 250},
    {"cup_in", "Cup in", "inner cup radius", "From the bust point in to the centre front.", Spans, Kept, 40, 200},
    // the figure as a whole
    {id::kStature, "Stature", "height", "Standing, without shoes.", Extras, Estimated, 1200, 2200},
    {id::kWeight, "Weight", "", "In kilograms; only used to estimate others.", Extras, Kept, 30, 250},
    // for yokes, frills, sleeves and skirts
    {"neck", "Neck", "neck girth", "Round the base of the neck.", Extras, Kept, 250, 600},
    {"round_shoulder", "Round shoulder", "shoulder girth",
     "Round both arms at the top, where an off-shoulder edge lies.", Extras, Kept, 700, 2000},
    {"bicep", "Bicep", "upper arm", "Round the fullest part of the upper arm.", Extras, Kept, 180, 700},
    {"wrist", "Wrist", "", "Round the wrist bone.", Extras, Kept, 110, 300},
    {"arm_length", "Arm length", "sleeve length", "From the shoulder point to the wrist, arm slightly bent.", Extras,
     Kept, 400, 800},
    {"waist_to_knee", "Waist to knee", "", "Down the front, from the waist to the middle of the knee.", Extras, Kept,
     400, 800},
    {"waist_to_floor", "Waist to floor", "skirt length",
     "Down the front, from the waist to the floor, in the shoes she will wear.", Extras, Kept, 800, 1400},
}};

}  // namespace

std::span<const MeasureInfo> measureTable() { return kMeasures; }

std::string_view groupTitle(MeasureGroup group) {
  constexpr std::array<std::string_view, kMeasureGroups> kTitles{
      "Girths, from the top down", "Heights, down from the shoulder", "Spans and arcs", "Back", "Extras"};
  return kTitles[static_cast<size_t>(group)];
}

std::span<const MeasureInfo* const> measuresInTapeOrder() {
  static const auto rows = [] {
    std::array<const MeasureInfo*, kMeasures.size()> sorted{};
    for (size_t i = 0; i < sorted.size(); ++i) sorted[i] = &kMeasures[i];
    std::stable_sort(sorted.begin(), sorted.end(),
                     [](const MeasureInfo* a, const MeasureInfo* b) { return a->group < b->group; });
    return sorted;
  }();
  return rows;
}

const MeasureInfo* findMeasure(std::string_view measureId) {
  const auto table = measureTable();
  const auto row = std::find_if(table.begin(), table.end(), [&](const MeasureInfo& m) { return m.id == measureId; });
  return row == table.end() ? nullptr : &*row;
}

std::optional<Problem> measureProblem(std::string_view measureId, double value) {
  const MeasureInfo* row = findMeasure(measureId);
  if (!row || (std::isfinite(value) && value >= row->lowest && value <= row->highest)) return std::nullopt;
  const auto show = [&](double v) { return row->id == id::kWeight ? msg("{:.4g} kg", v) : msg("{}", Length{v}); };
  return Problem{
      verbatim(row->id), msg("{} of {} cannot be right", known(row->name), show(value)),
      msg("it lies between {} and {}; check the number and its unit", show(row->lowest), show(row->highest))};
}

}  // namespace armure
