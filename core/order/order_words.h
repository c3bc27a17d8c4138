// core/order/order_words.h
//
// The words files and command lines have for what an order says of alterations and fittings.
#pragma once

#include <string_view>

#include "order/alteration.h"
#include "order/base.h"
#include "order/fitting.h"

namespace armure {

std::string_view sidesId(ShiftSides sides);      // "both", "a", "b", "over"
std::string_view wayId(ShiftWay way);            // "across", "along"
std::string_view bodySideId(BodySide side);      // "both", "left", "right"
std::string_view workId(FitWork work);           // "take-in", "let-out", "raise", ...
std::string_view fittedOnId(FittedOn on);        // "toile", "garment"
std::string_view solvedFromId(SolvedFrom from);  // "waist", "underbust"
std::string_view restGoesId(RestGoes rest);      // "lines", "sides"

}  // namespace armure
