// The sheet to draw by hand, followed: from nothing but its printed numbers the block comes out again, to 1/16 in.
#include "prepare/by_hand.h"

#include <catch2/catch.hpp>
#include <map>

#include "recalc/job_sheet.h"
#include "tests/support/bodies.h"
#include "tests/support/design.h"
#include "units/language.h"

using namespace armure;
using namespace armure::testing;

namespace {

constexpr double kSixteenth = inches(1.0 / 16);

// Reads a sheet as a maker does: every table of marks becomes a line of straight strokes.
class Drawing {
 public:
  Drawing(const Document& sheet, LengthFormat units) : units_(units) {
    for (const DocumentSection& s : sheet.sections)
      if (s.table.head.size() == 3 && english(s.table.head[0]) == "mark") lines_[english(s.title)] = strokes(s.table);
  }
  const std::map<std::string, Polyline>& lines() const { return lines_; }

 private:
  Polyline strokes(const DocumentTable& table) const {
    Polyline line;
    for (const auto& row : table.rows) line.push_back({read(row[1]), read(row[2])});
    return line;
  }
  double read(const Message& cell) const {
    const auto mm = parseLength(say(cell, units_), units_.unit);
    REQUIRE(mm.ok());
    return *mm;
  }

  LengthFormat units_;
  std::map<std::string, Polyline> lines_;
};

// The furthest a path strays from what was drawn, over all of it, and the other way round.
double apart(const Path& path, const Polyline& drawn) {
  double most = 0;
  const double length = path.length();
  for (int i = 0; i <= 200; ++i) most = std::max(most, distanceToPolyline(path.pointAt(length * i / 200), drawn));
  const Polyline fine = path.flattened(0.01);
  for (const Vec2 p : drawn) most = std::max(most, distanceToPolyline(p, fine));
  return most;
}

void check(const Drawing& drawing, const std::string& title, const Path& path, size_t& found) {
  if (path.empty() || path.length() < 1e-6) return;
  INFO(title);
  REQUIRE(drawing.lines().contains(title));
  CHECK(apart(path, drawing.lines().at(title)) <= kSixteenth);
  ++found;
}

void isDrawnAgain(const Design& d, LengthFormat units) {
  const LengthFormat fine = handUnits(units);
  const Drawing drawing(byHandSheet(d.block, {}), fine);
  size_t found = 0;
  for (const HalfBlock* half : {&d.block.front, &d.block.back}) {
    const std::string name = half->front ? "Front: " : "Back: ";
    check(drawing, name + "Centre", half->centre, found);
    check(drawing, name + "Neck", half->neck, found);
    check(drawing, name + "Shoulder", half->shoulder, found);
    check(drawing, name + "Armhole", half->armhole, found);
    for (const PanelLine& l : half->lines) {
      const std::string line = name + english(l.name);
      check(drawing, line + ", the edge towards the centre", l.toCentre, found);
      check(drawing, line + ", the edge towards the side", l.toSide, found);
      check(drawing, line + ", towards the centre, below the dart", l.toCentreBelow, found);
      check(drawing, line + ", towards the side, below the dart", l.toSideBelow, found);
      check(drawing, line + ", above the top edge", l.onward, found);
    }
    const bool dart = half->front && !d.block.sideBelowDart.empty();
    check(drawing, name + (dart ? "Side, down to the dart" : "Side"), half->side, found);
    if (dart) check(drawing, name + "Side, below the dart", d.block.sideBelowDart, found);
  }
  CHECK(found >= 10);
  // The legs of the dart are all that is left.
  CHECK(drawing.lines().size() <= found + 2);
}

}  // namespace

TEST_CASE("a maker who follows the sheet draws the block, in inches and in centimetres") {
  for (const char* style : {"straight-zip", "reducing-four-lines", "covered-round", "cup-three-pieces", "covered-gored",
                            "moulded-cup", "halter-net-yoke"})
    for (const size_t body : {3u, 61u}) {
      Order o = plainOrder();
      o.style = style;
      o.measures = measuresOf(realBodies()[body], 95);
      const auto made = recalc(o);
      INFO(style << ", body " << body);
      if (!made.ok()) continue;
      isDrawnAgain(*made, {Unit::Inch, 8});
      isDrawnAgain(*made, {Unit::Centimetre, 8});
    }
}

TEST_CASE("the paper holds the block with room round it") {
  const Design d = designOf(plainOrder());
  for (const bool front : {true, false}) {
    const std::vector<HandLine> lines = handLines(d.block, front);
    const PaperNeeded paper = paperNeeded(lines);
    double right = 0, bottom = 0;
    for (const HandLine& l : lines)
      for (const HandMark& m : l.marks) right = std::max(right, m.out), bottom = std::max(bottom, m.down);
    CHECK(paper.wide >= right + inches(3.9));
    CHECK(paper.high >= bottom + inches(3.9));
  }
}

TEST_CASE("the job sheet says what was measured, chosen, found, cut, bought, sewn, and cautions where it is reduced") {
  Order o = orderWith({{"reduction.waist", "2 in"}, {"layer.lining", "all"}, {"balance.keep", "balanced"}});
  o.title = "A bodice";
  const Document sheet = jobSheet(o, designOf(o));
  std::vector<std::string> titles;
  for (const DocumentSection& s : sheet.sections) {
    titles.push_back(english(s.title));
    for (const auto& row : s.table.rows) CHECK(row.size() == s.table.head.size());
  }
  for (const char* title : {"Before it is worn", "Measures as used", "Chosen for this order", "Balance",
                            "Half girths to check on the cloth", "Cut of duchesse satin", "Cut of soft cotton lawn",
                            "Bones", "Notions", "Sewing, in this order"}) {
    INFO(title);
    CHECK(std::ranges::find(titles, title) != titles.end());
  }
  o.choices.erase("reduction.waist");
  const Document plain = jobSheet(o, designOf(o));
  CHECK(std::ranges::none_of(plain.sections, [](const DocumentSection& s) { return s.title == "Before it is worn"; }));
}
