// core/measure/measure_table.h
//
// Every measure the program knows: its id, what makers call it, how it is taken, and between which values a number can
// be that measure at all. One row a measure.
#pragma once

#include <optional>
#include <span>
#include <string_view>

#include "result.h"

namespace armure {

// Ids of the measures the draft reads; spelled once, here.
namespace id {
inline constexpr std::string_view kUpperBust = "upper_bust", kBust = "bust", kUnderbust = "underbust", kWaist = "waist",
                                  kHighHip = "high_hip", kHip = "hip", kShoulderToChest = "shoulder_to_chest",
                                  kShoulderToBust = "shoulder_to_bust", kShoulderToUnderbust = "shoulder_to_underbust",
                                  kShoulderToWaist = "shoulder_to_waist", kBackWaistLength = "back_waist_length",
                                  kWaistToHighHip = "waist_to_high_hip", kWaistToHip = "waist_to_hip",
                                  kShoulderWidth = "shoulder_width", kBustSpan = "bust_span",
                                  kFrontBustArc = "front_bust_arc", kFrontUnderbustArc = "front_underbust_arc",
                                  kArmhole = "armhole", kCupDown = "cup_down", kCupOut = "cup_out", kCupUp = "cup_up",
                                  kCupIn = "cup_in", kSideLength = "side_length", kStature = "stature",
                                  kWeight = "weight";
}  // namespace id

enum class Need {
  Required,   // without it there is no draft
  Reached,    // without it there is no draft of a garment that reaches there; else estimated
  Estimated,  // estimated from the others when not taken
  Optional,   // used when taken
  Kept,       // not used by the draft yet; kept with the client
};

// The order the tape goes: one group after the other.
enum class MeasureGroup {
  Girths,   // from the top down
  Heights,  // down from the shoulder
  Spans,    // spans and arcs, and over the breast
  Back,
  Extras,  // the figure as a whole; for yokes, frills, sleeves and skirts
};
inline constexpr int kMeasureGroups = 5;
std::string_view groupTitle(MeasureGroup group);

struct MeasureInfo {
  std::string_view id;
  std::string_view name;
  std::string_view otherNames;  // other trade names, by commas; may be empty
  std::string_view how;         // where it lies and how it is taken
  MeasureGroup group;
  Need need;
  double lowest, highest;  // mm (kg for weight): outside, the number is a slip, not a body
};

std::span<const MeasureInfo> measureTable();

// The same rows in the order the tape goes, group by group.
std::span<const MeasureInfo* const> measuresInTapeOrder();

// The row, or nullptr for an unknown id.
const MeasureInfo* findMeasure(std::string_view id);

// What is wrong with `value` (mm; kg for weight) as this measure, or nothing. Unknown measures are never wrong.
std::optional<Problem> measureProblem(std::string_view id, double value);

}  // namespace armure
