#include "order/order_words.h"

namespace armure {

std::string_view sidesId(ShiftSides sides) {
  switch (sides) {
    case ShiftSides::Both:
      return "both";
    case ShiftSides::A:
      return "a";
    case ShiftSides::B:
      return "b";
    case ShiftSides::Over:
      break;
  }
  return "over";
}

std::string_view wayId(ShiftWay way) { return way == ShiftWay::Across ? "across" : "along"; }

std::string_view bodySideId(BodySide side) {
  switch (side) {
    case BodySide::Both:
      return "both";
    case BodySide::Left:
      return "left";
    case BodySide::Right:
      break;
  }
  return "right";
}

std::string_view workId(FitWork work) {
  switch (work) {
    case FitWork::TakeIn:
      return "take-in";
    case FitWork::LetOut:
      return "let-out";
    case FitWork::Raise:
      return "raise";
    case FitWork::Lower:
      return "lower";
    case FitWork::Lengthen:
      return "lengthen";
    case FitWork::Shorten:
      return "shorten";
    case FitWork::Deeper:
      return "deeper";
    case FitWork::Shallower:
      return "shallower";
    case FitWork::Forward:
      return "forward";
    case FitWork::Backward:
      break;
  }
  return "backward";
}

std::string_view fittedOnId(FittedOn on) { return on == FittedOn::Toile ? "toile" : "garment"; }
std::string_view solvedFromId(SolvedFrom from) { return from == SolvedFrom::Waist ? "waist" : "underbust"; }
std::string_view restGoesId(RestGoes rest) { return rest == RestGoes::ToLines ? "lines" : "sides"; }

}  // namespace armure
