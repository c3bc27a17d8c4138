// core/units/language.h
//
// The language of a reader who counts in these units.
//
//   say(row.detail, order.units)  -> "the bust line at 9 1/2 in is not clearly below the chest line at 9 in"
#pragma once

#include "message.h"
#include "units/length.h"

namespace armure {

Language languageOf(LengthFormat format);
std::string say(const Message& message, LengthFormat format);

}  // namespace armure
