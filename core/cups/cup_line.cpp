#include "cups/cup_line.h"

#include <fmt/format.h>

#include <algorithm>
#include <cmath>

#include "pieces/outline_parts.h"

namespace armure {
namespace {

constexpr double kQuarter = 0.5522847498;  // handle of a quarter circle, 4/3 (sqrt 2 - 1)
constexpr double kClear = 10;              // mm: a cup is twice as wide beside the bust point at least
constexpr double kBeside = 24;             // mm of frame between the cup line and the next seam, at least

class CupLineMaker {
 public:
  CupLineMaker(const Pattern& pattern, const Block& block, const Rules& rules)
      : block_(block),
        rules_(rules),
        princess_(pattern.seams.front()),
        centre_(pattern.pieces[princess_.a.piece]),
        side_(pattern.pieces[princess_.b.piece]),
        inner_(pattern.sidePath(princess_.a)),
        outer_(pattern.sidePath(princess_.b)),
        aboveCentre_(nextTo(centre_, princess_.a.chain.front().edge, false)),
        aboveSide_(nextTo(side_, princess_.b.chain.front().edge, true)),
        rightOfSide_(pattern.sidePath(pattern.seams[1].a)) {}

  Result<CupLine> make() && {
    const auto under = std::find_if(princess_.notches.begin(), princess_.notches.end(),
                                    [](const SeamNotch& n) { return n.id == level::kUnderbust; });
    if (under == princess_.notches.end())
      return Problem{"Cup", "the princess seam does not reach from above the bust to below the underbust",
                     "raise the top edge or lengthen the garment, or keep the bust in the seam"};
    for (const Edge* e : {&aboveCentre_, &aboveSide_})
      if (e->role != EdgeRole::Top && e->role != EdgeRole::Yoke)
        return Problem{"Cup", fmt::format("above the bust the panels end at the {}, not at an upper edge", e->id),
                       "set a yoke off, or choose a strapless edge, or keep the bust in the seam"};
    CupLine line;
    if (auto problem = addInner(line, under->a)) return *problem;
    if (auto problem = addOuter(line, under->b)) return *problem;
    return line;
  }

 private:
  // The edge clockwise behind or before another.
  static const Edge& nextTo(const Piece& piece, std::string_view edge, bool behind) {
    const size_t n = piece.edges.size();
    return piece.edges[(edgePlace(piece, edge) + (behind ? 1 : n - 1)) % n];
  }

  static Vec2 square(Vec2 down) { return {down.y, -down.x}; }

  // Where a quarter of an ellipse meets the princess seam: its handle, longer where the line would bend there with less
  // than 60 mm of radius. `along` and `aside` are its half axes; a cubic bends at its start with 3 a^2 / (2 e), a the
  // handle, e how far the other one lies aside.
  static double handleAtSeam(double along, double aside) {
    constexpr double kRound = 60, kLongest = 0.72;
    const double off = (1 - kQuarter) * aside;
    return std::min(kLongest * along, std::max(kQuarter * along, std::sqrt(2.0 / 3 * kRound * off)));
  }

  std::optional<Problem> addInner(CupLine& line, double under) {
    const double bust = block_.levels.at(level::kBust).front;
    const double bridge = rules_.length("cup.bridge");
    const double x = block_.front.centre.xAtDepth(bust) + bridge;
    const Edge& top = aboveCentre_;
    const Vec2 end = inner_.pointAt(under), across = square(inner_.tangentAt(under)), corner{x, bust};
    const Problem noRoom{
        "Cup line, inner side",
        fmt::format("there is no cup between the bridge, {:.0f} mm from the centre, and the princess seam", bridge),
        "make the bridge narrower"};
    if (end.x - x < 2 * kClear) return noRoom;
    // From well above the top edge; it begins where that is met last, be it a plunge beside the bridge.
    const double reach = handleAtSeam(end.x - x, end.y - bust), fall = kQuarter * (end.y - bust);
    const Path whole(std::vector<Cubic>{Cubic::line({x, 0}, corner),
                                        Cubic{corner, corner + Vec2{0, fall}, end - reach * across, end}});
    const auto met = whole.meetings(top.path);
    if (met.empty() || whole.length() - met.back().first < 2 * kClear) return noRoom;
    const double from = met.back().second;
    Path path = whole.sub(met.back().first, whole.length());
    line.through.push_back(
        {princess_.a.piece, {top.id, from}, {princess_.a.chain.front().edge, under}, std::move(path)});
    line.workings.push_back(
        {"cup.inner",
         "Inner cup, wide on the bust line",
         {{'+', "half the bust span", block_.dart.apex.x, Source::Computed}, rules_.term("cup.bridge", '-')},
         block_.dart.apex.x - x,
         "the cup line leaves the bridge beside the centre; common practice"});
    const double down = under - bustOn(true);
    line.workings.push_back({"cup.radius",
                             "Cup radius, from the bust point down to the underbust",
                             {{'+', "along the princess seam, bust to underbust", down, Source::Computed}},
                             down,
                             "the cup line meets the princess seam at the underbust; common practice"});
    return std::nullopt;
  }

  double bustOn(bool a) const {
    for (const SeamNotch& n : princess_.notches)
      if (n.id == level::kBust) return a ? n.a : n.b;
    return 0;
  }

  std::optional<Problem> addOuter(CupLine& line, double under) {
    // A moulded cup is tilted up at the side.
    const bool moulded = rules_.option("cup.kind") == "moulded";
    const double bust = block_.levels.at(level::kBust).front - (moulded ? rules_.length("mould.tilt") : 0),
                 apex = block_.dart.apex.x;
    const double inner = apex - block_.front.centre.xAtDepth(bust) - rules_.length("cup.bridge");
    const double extra = rules_.length("cup.outer_extra");
    // Closing the dart has moved the lower edge out; the width is laid from half way between bust point and underbust.
    const Vec2 from = outer_.pointAt(under);
    const double opened = std::max(0.0, (from.x - apex) / 2), wished = inner + extra + opened;
    const double room = rightOfSide_.xAtDepth(bust) - kBeside - apex;
    const double width = std::min(wished, room);
    Working w{"cup.outer",
              "Outer cup, from the bust point out on the bust line",
              {{'+', "as the inner cup", inner, Source::Computed},
               {'+', "opened below by half of", opened, Source::Computed}},
              width,
              "laid from the edge half way between bust point and underbust; common practice"};
    if (extra > 0) w.terms.push_back(rules_.term("cup.outer_extra"));
    if (width < wished) w.terms.push_back({'-', "the next seam is near", wished - width, Source::Computed});

    const Edge& top = aboveSide_;
    const double length = top.path.length();
    const double inset = std::min(rules_.length("cup.side"), 0.6 * length);
    const double at = length - inset;
    const Vec2 widest{apex + width, bust}, end = top.path.pointAt(at);
    if (width < 2 * kClear || end.y > bust - 5)
      return Problem{"Cup line, outer side", fmt::format("there is no room for an outer cup of {:.0f} mm", width),
                     "use fewer front lines, or raise the top edge at the side"};
    const Vec2 out = square(outer_.tangentAt(under)), up{0, -1}, onward = unit(end - widest),
               through = unit(up + onward);
    const double reach = handleAtSeam(dot(widest - from, out), dot(widest - from, through)),
                 rise = kQuarter * dot(widest - from, through), handle = distance(widest, end) / 3;
    Path path(std::vector<Cubic>{Cubic{from, from + reach * out, widest - rise * through, widest},
                                 Cubic{widest, widest + handle * through, end - handle * onward, end}});
    // The left edge of the piece runs up.
    const Edge& edge = side_.edge(princess_.b.chain.front().edge);
    line.through.push_back({princess_.b.piece, {edge.id, edge.path.length() - under}, {top.id, at}, std::move(path)});
    line.workings.push_back(std::move(w));
    line.workings.push_back({"cup.end",
                             "Cup line, its upper end in from the side",
                             {rules_.term("cup.side")},
                             inset,
                             "along the top edge; common practice"});
    return std::nullopt;
  }

  const Block& block_;
  const Rules& rules_;
  const Seam& princess_;
  const Piece &centre_, &side_;
  const Path inner_, outer_;  // the princess seam on either side, from the top down
  const Edge &aboveCentre_, &aboveSide_;  // the edges the cup line begins and ends on: top edges, or a yoke's seam
  const Path rightOfSide_;
};

}  // namespace

Result<CupLine> cupLine(const Pattern& pattern, const Block& block, const Rules& rules) {
  return CupLineMaker(pattern, block, rules).make();
}

}  // namespace armure
