// core/working.h
//
// The working of a value: how it came to be, as a maker would note it beside the line on the paper,
//   quarter waist 9 1/2 + princess 1 1/2 = 11   (front, waist: where the side stands)
// Every value drawn or printed has one. Lengths in mm; the text is made in the user's units when it is shown.
#pragma once

#include <string>
#include <vector>

#include "message.h"

namespace armure {

// Where a value comes from.
enum class Source {
  Taken,      // measured on the client
  Estimated,  // from other measures
  Rule,       // a rule of thumb with its default
  ByHand,     // a rule of thumb the maker has changed
  Computed,   // follows from the others
};

struct Term {
  char sign = '+';  // '+' or '-'
  Message label;
  double mm = 0;
  Source source = Source::Computed;
};

struct Working {
  std::string key;  // what it is about, e.g. "front.waist.side"
  Message title;    // "Front, waist: the side stands at"
  std::vector<Term> terms;
  double result = 0;  // mm; the signed sum of the terms unless `note` says otherwise
  Message note;       // the formula in words and its source
};

}  // namespace armure
