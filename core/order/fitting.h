// core/order/fitting.h
//
// What was seen at a fitting, note by note, as a maker says it: at this seam, between these levels, take in this much,
// because. What follows for the pattern is worked out by fitting/proposal.h.
#pragma once

#include <initializer_list>
#include <optional>
#include <string>
#include <vector>

#include "order/alteration.h"

namespace armure {

// What is to be done about it. Raise, Lower: a level, or the top edge or hem. Deeper, Shallower: the cup, at the bust.
// Forward, Backward: the seam itself moves, towards the centre front or the centre back; no girth changes.
enum class FitWork { TakeIn, LetOut, Raise, Lower, Lengthen, Shorten, Deeper, Shallower, Forward, Backward };

inline constexpr auto kFitWorks = {FitWork::TakeIn,   FitWork::LetOut,  FitWork::Raise,  FitWork::Lower,
                                   FitWork::Lengthen, FitWork::Shorten, FitWork::Deeper, FitWork::Shallower,
                                   FitWork::Forward,  FitWork::Backward};

struct FitNote {
  std::string complaint = {};  // id of the table of complaints (alter/complaints.h), or empty
  FitWork work{};
  std::string line = {};           // id of the seam; empty: the whole garment, all lines
  std::string from = {}, to = {};  // it runs out at these levels; not at "top" or "hem", where
                                   // the line ends in a finished edge
  double mm = 0;                   // of one seam, both edges together; without a line, of the whole girth, or of
                                   // the half's where it is one; > 0
  std::string seen = {};           // in the maker's words
  BodySide half = BodySide::Both;  // of the body it was seen on
  bool operator==(const FitNote&) const = default;
};

// On what it was tried.
enum class FittedOn { Toile, Garment };

struct Fitting {
  std::string id;  // unique in the order
  std::string date;
  FittedOn on = FittedOn::Toile;
  std::optional<double> gap = {};  // worn closed to this, mm
  std::vector<FitNote> notes = {};
  bool operator==(const Fitting&) const = default;
};

}  // namespace armure
