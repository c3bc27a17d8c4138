// core/alter/complaints.h
//
// What is usually seen at a fitting, with what usually mends it and why. Common practice, no source. A complaint offers
// notes to begin with; the maker changes line, levels and amount as she sees it.
#pragma once

#include <span>
#include <string>
#include <string_view>
#include <vector>

#include "order/fitting.h"
#include "pattern/pattern.h"

namespace armure {

// Which line of the pattern is meant, whatever it is called in a style.
enum class FitLine {
  ThroughBust,  // the seam through the bust point: of the cup, where it is cut, else of the panels
  Side,
  Back,   // the first line behind
  Every,  // the whole garment: its length, or its girth
};

// One thing that mends it.
struct Remedy {
  FitWork work{};
  FitLine line{};
  std::string_view from, to;
  double mm = 0;  // to begin with
};

struct Complaint {
  std::string_view id, name;
  std::string_view reason;  // why this mends it
  std::vector<Remedy> remedies;
};
std::span<const Complaint> complaintTable();
const Complaint* findComplaint(std::string_view id);  // nullptr where there is none

// The id of the seam that is meant; empty for the whole garment, and where the pattern has no such seam.
std::string lineFor(const Pattern& pattern, FitLine line);
// The notes a complaint begins with on this pattern; levels a line does not cross become its ends.
std::vector<FitNote> notesFor(const Pattern& pattern, const Complaint& complaint);

}  // namespace armure
