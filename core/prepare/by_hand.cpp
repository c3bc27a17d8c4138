#include "prepare/by_hand.h"

#include <algorithm>
#include <cmath>

namespace armure {
namespace {

constexpr double kRound = inches(2);  // of paper round the drawing

double stray(const Path& path, double from, double to) {
  constexpr int kPlaces = 8;
  const Vec2 a = path.pointAt(from), along = unit(path.pointAt(to) - a);
  double most = 0;
  for (int i = 1; i < kPlaces; ++i)
    most = std::max(most, std::abs(cross(along, path.pointAt(from + (to - from) * i / kPlaces) - a)));
  return most;
}

// As far as a straight stroke goes, mark after mark.
std::vector<HandMark> marksOn(const Path& path) {
  constexpr double kClosest = 6;  // mm: nearer nobody marks
  std::vector<HandMark> marks;
  const double whole = path.length();
  const auto mark = [&](double at) {
    const Vec2 p = path.pointAt(at);
    marks.push_back({p.x, p.y});
  };
  mark(0);
  for (double from = 0; from < whole - 1e-9;) {
    double step = whole - from;
    while (step > kClosest && stray(path, from, from + step) > kHandStroke) step *= 0.8;
    from = std::min(whole, from + step);
    mark(from);
  }
  return marks;
}

class HalfLines {
 public:
  HalfLines(const Block& block, bool front) : block_(block), half_(front ? block.front : block.back), front_(front) {}

  std::vector<HandLine> make() && {
    add("centre", "Centre", half_.centre);
    add("neck", "Neck", half_.neck);
    add("shoulder", "Shoulder", half_.shoulder);
    add("armhole", "Armhole", half_.armhole);
    for (const PanelLine& line : half_.lines) {
      add(line.id + ".onward", msg("{}, above the top edge", line.name), line.onward);
      add(line.id + ".centre", msg("{}, the edge towards the centre", line.name), line.toCentre);
      add(line.id + ".side", msg("{}, the edge towards the side", line.name), line.toSide);
      add(line.id + ".centre-below", msg("{}, towards the centre, below the dart", line.name), line.toCentreBelow);
      add(line.id + ".side-below", msg("{}, towards the side, below the dart", line.name), line.toSideBelow);
    }
    add("side", front_ && !block_.sideBelowDart.empty() ? Message("Side, down to the dart") : Message("Side"),
        half_.side);
    if (front_ && !block_.sideBelowDart.empty()) {
      add("dart.upper", "Side bust dart, upper leg", Path::line(block_.dart.apex, block_.dart.upper));
      add("dart.lower", "Side bust dart, lower leg", Path::line(block_.dart.apex, block_.dart.lower));
      add("side-below", "Side, below the dart", block_.sideBelowDart);
    }
    return std::move(lines_);
  }

 private:
  void add(const std::string& id, Message name, const Path& path) {
    if (path.empty() || path.length() < 1e-6) return;
    lines_.push_back({half_.id + "." + id, std::move(name), marksOn(path)});
  }

  const Block& block_;
  const HalfBlock& half_;
  const bool front_;
  std::vector<HandLine> lines_;
};

Message halfName(bool front) { return front ? Message("Front") : Message("Back"); }

// "the waist line: 12 down".
DocumentSection levelSection(const Block& block, bool front) {
  DocumentSection s;
  s.title = msg("{}: level lines", halfName(front));
  s.paragraphs = {
      "Draw the centre upright along one edge of the paper. Its upper end, on the shoulder line, is where every length "
      "down begins; square a line out from the centre for each level."};
  s.table.head = {"level", "down from the shoulder line"};
  for (const Level& l : block.levels.all)
    if (!l.beyondHem) s.table.rows.push_back({l.name, msg("{}", Length{front ? l.front : l.back})});
  return s;
}

// What is marked on each level, from the centre out: share and intakes first, as they add up.
DocumentSection widthSection(const Block& block, bool front) {
  const HalfBlock& half = front ? block.front : block.back;
  DocumentSection s;
  s.title = msg("{}: on each level, from the centre", halfName(front));
  s.paragraphs = {
      "The side stands at the finished part of the girth plus everything that is taken in on that level. Between the "
      "two "
      "marks of a line lies its intake: leave it out when you measure a width."};
  s.table.head = {"level", "finished", "taken in", "marks of the lines", "side"};
  for (const HalfLevel& l : half.levels) {
    const auto found = std::ranges::find(block.levels.all, l.level, &Level::id);
    if (found == block.levels.all.end() || found->beyondHem) continue;
    Listed marks;
    for (const PanelLine& line : half.lines)
      marks.all.push_back(msg("{} and {}", Length{line.toCentreX(l.y)}, Length{line.toSideX(l.y)}));
    s.table.rows.push_back({found->name, msg("{}", Length{l.share}), msg("{}", Length{l.centreIntake + l.lineIntake()}),
                            marks.all.empty() ? Message("none") : msg("{}", marks), msg("{}", Length{l.side})});
  }
  return s;
}

DocumentSection lineSection(const HandLine& line) {
  DocumentSection s;
  s.title = line.name;
  s.table.head = {"mark", "out from the centre", "down from the shoulder line"};
  int number = 0;
  for (const HandMark& m : line.marks)
    s.table.rows.push_back({msg("{}", ++number), msg("{}", Length{m.out}), msg("{}", Length{m.down})});
  return s;
}

}  // namespace

std::vector<HandLine> handLines(const Block& block, bool front) { return HalfLines(block, front).make(); }

PaperNeeded paperNeeded(const std::vector<HandLine>& lines) {
  double left = 0, right = 0, top = 0, bottom = 0;
  for (const HandLine& l : lines)
    for (const HandMark& m : l.marks) {
      left = std::min(left, m.out), right = std::max(right, m.out);
      top = std::min(top, m.down), bottom = std::max(bottom, m.down);
    }
  return {right - left + 2 * kRound, bottom - top + 2 * kRound};
}

LengthFormat handUnits(LengthFormat units) {
  if (units.unit == Unit::Inch) return {Unit::Inch, 16};
  return units;
}

Document byHandSheet(const Block& block, std::vector<Message> facts) {
  Document d{"The block, to draw by hand", std::move(facts), {}};
  const std::vector<HandLine> front = handLines(block, true), back = handLines(block, false);
  const PaperNeeded f = paperNeeded(front), b = paperNeeded(back);
  d.sections.push_back({"Before you begin",
                        {msg("For the front the paper must be {} wide and {} high, for the back {} wide and {} high.",
                             Length{f.wide}, Length{f.high}, Length{b.wide}, Length{b.high}),
                         "All lengths are without seam allowances. Out is measured from the centre along a level, down "
                         "from the shoulder line along the centre. Mark every point of a line, then draw through them "
                         "with ruler or curve."}});
  for (const bool side : {true, false}) {
    d.sections.push_back(levelSection(block, side));
    d.sections.push_back(widthSection(block, side));
    for (const HandLine& line : side ? front : back) {
      DocumentSection s = lineSection(line);
      s.title = msg("{}: {}", halfName(side), s.title);
      d.sections.push_back(std::move(s));
    }
  }
  d.sections.push_back({"Then",
                        {"Cut the front along the line through the bust point from below, cut the side bust dart, and "
                         "close it by turning "
                         "the part below about the bust point; redraw the side smooth. Walk every seam against its "
                         "partner before you add "
                         "allowances."}});
  return d;
}

}  // namespace armure
