// io/print_words.h
//
// What stands beside the pieces on every print and in every drawing of them: whose they are, what was estimated, what
// the balance sheet found, the cautions of a reduction. Print, SVG and DXF say the same.
#pragma once

#include <string>
#include <vector>

#include "order/order.h"
#include "recalc/recalc.h"

namespace armure {

struct PrintWords {
  bool heading = false;
  std::string text;
};

std::string printTitle(const Order& order);
// Client, date, style and school, in one line.
std::string printSubtitle(const Order& order);
// What was estimated, and the balance sheet: up to six rows that fail.
std::vector<PrintWords> printFacts(const Order& order, const Design& design);
// Nothing where the waist is not reduced.
std::vector<PrintWords> printCautions(const Order& order, const Design& design);

// A long text in lines of at most so many letters, divided between words.
std::vector<std::string> wrappedLines(const std::string& text, size_t letters);

}  // namespace armure
