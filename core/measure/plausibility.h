// core/measure/plausibility.h
//
// Questions about the measures: never a block, always with the reason. All rules are common practice, no source.
#pragma once

#include <string>
#include <vector>

#include "measure/estimate.h"

namespace armure {

struct Question {
  std::string measure;  // id of the measure asked about
  std::string text;     // the question with its reason, lengths in cm and in
};

std::vector<Question> questionsAbout(const Body& body);

}  // namespace armure
