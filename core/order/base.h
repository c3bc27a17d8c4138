// core/order/base.h
//
// A trusted base pattern as it is kept, and what an order says of being recalculated from one.
//
// A base stands for a pattern that was made up once. It is what an order drafted (style, school, choices and the
// measures it was drafted for), or pieces read from a drawing; and what was measured on it as made, at the very places
// where a client is measured.
#pragma once

#include <map>
#include <memory>
#include <string>
#include <vector>

#include "measure/measure_set.h"
#include "order/alteration.h"
#include "pattern/pattern.h"
#include "rules/rules.h"

namespace armure {

// The pieces of a base that was not drafted here but read from a drawing (tracing/naming.h), never changed and so
// shared. Two are alike where they cut the same cloth.
struct TracedPieces {
  std::shared_ptr<const Pattern> shell;
  double opening = 0;  // what stays open all round, mm

  explicit operator bool() const { return shell != nullptr; }
  bool operator==(const TracedPieces& other) const;
};

struct BasePattern {
  std::string name, date, notes;
  std::string style{kDefaultStyle}, school{kDefaultSchool};
  Choices choices;
  MeasureSet measures;                  // it was drafted for
  MeasureSet made;                      // as measured on the toile; what is not there is taken to be as drafted for
  std::vector<Alteration> alterations;  // of it, before it was kept
  TracedPieces traced = {};             // where it was read from a drawing; style and choices then dress it only
  bool operator==(const BasePattern&) const = default;
};

// From which level on front and back side are solved together, so that they keep one shape. Waist: common practice
// leaves the underbust as measured. Underbust: its back side follows the bust's too.
enum class SolvedFrom { Waist, Underbust };

// Where the part of a difference goes that would spoil the side seam.
enum class RestGoes { ToLines, ToSides };

// The order's pattern is this base, recalculated from its measures to the order's.
struct Recalculation {
  BasePattern base;
  SolvedFrom from = SolvedFrom::Waist;
  RestGoes rest = RestGoes::ToLines;
  // What the maker wrote over a cell of the shift table, mm: "e0", "waist.x", "bust.b", "side_length".
  std::map<std::string, double, std::less<>> cells = {};
  bool operator==(const Recalculation&) const = default;
};

}  // namespace armure
