// core/measure/plausibility.h
//
// Questions about the measures taken: never a block, always with the reason. Three kinds of rules:
//
// - pairs that must stand in an order (the bust lies above the underbust);
// - ratios and differences of common practice (span over bust);
// - the expectation: every measure is held against what the others lead one to expect (predict.h). With z = (taken -
//   expected) / spread, |z| > 3 is asked and |z| > 2.5 is noted. The farthest one is asked first and then no longer
//   counts for the others, so that one slip does not put its neighbours in question. Where a usual slip explains it
//   (a quarter or half noted, the wrong unit, two digits swapped), the question says so. A measure taken more than once
//   within 1/2 in is only noted.
//
// Rules are common practice, no source, unless predict.h names one.
#pragma once

#include <string>
#include <vector>

#include "measure/measure_set.h"
#include "message.h"

namespace armure {

enum class Severity {
  Note,           // unusual, but it happens
  Question,       // measure again, or know why
  Contradiction,  // two measures that cannot both be true
};

struct Question {
  std::string measure;  // id of the measure asked about
  std::string other;    // of a contradiction: the id of the other measure; else empty
  Severity severity;
  Message text;  // the question with its reason
};

// Most severe first, then in the order of the measure table.
std::vector<Question> questionsAbout(const MeasureSet& taken);

// "note", "question", "contradiction".
const char* severityName(Severity severity);

}  // namespace armure
