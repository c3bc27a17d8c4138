// core/measure/figure.h
//
// How much the bust stands out from the chest: the three figures makers speak of, which choose default intakes and
// darts (rules/rule_table.cpp holds the defaults, in one column for each figure); and the bra size, for orientation.
#pragma once

#include <span>
#include <string>
#include <string_view>

#include "message.h"

namespace armure {

enum class Figure { Small, Medium, Full };

struct FigureClass {
  Figure figure;
  std::string_view name;
  double fromMm;        // full less upper bust, at least
  double frontSurplus;  // mm the front is longer than the back over the bust: the side bust dart
};

// The thresholds and what they choose, in one table, from small to full. Common practice, no source.
std::span<const FigureClass> figureTable();
const FigureClass& figureClass(Figure figure);
Figure figureFor(double fullLessUpperMm);

// The European bra size: band in steps of 5 cm, cup letter by full bust less underbust in steps of 2 cm from AA
// (10 to 12 cm) on. EN 13402-3:2004, "Size designation of clothes. Measurements and intervals"; steps from memory.
// Only for orientation: houses differ, and nothing is drafted from it.
struct BraSize {
  int band = 0;          // cm; 0 when outside 60 to 150
  std::string letter;    // "AA" to "K"; empty when the difference is outside the steps
  Message text() const;  // "75 C"; says so when there is none
};
BraSize braSize(double bustMm, double underbustMm);

}  // namespace armure
