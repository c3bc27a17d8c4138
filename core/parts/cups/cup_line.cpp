#include "parts/cups/cup_line.h"

#include <algorithm>
#include <cmath>

#include "measure/measure_table.h"
#include "parts/cups/cut_cup.h"
#include "parts/cups/moulded.h"
#include "parts/cups/rules.h"
#include "parts/edges/rules.h"
#include "pattern/outline_parts.h"

namespace armure {
namespace {

constexpr double kQuarter = 0.5522847498;  // handle of a quarter circle, 4/3 (sqrt 2 - 1)
constexpr double kBesideBust = 10;         // mm: a cup is twice as wide beside the bust point at least
constexpr double kLeastBridge = 2;         // mm: less is no cloth between two seams
constexpr double kSquareEnough = 0.6;      // sine of the angle at which it may cross a seam, at least
constexpr double kFrameBesideCup = 24;     // mm of frame between the cup line and the next seam, at least
constexpr double kBelowEnd = 5;            // mm: the outer line is widest so far below its upper end, at least

class CupLineMaker {
 public:
  CupLineMaker(const Pattern& pattern, const Block& block, const Body& body, const Rules& rules)
      : pattern_(pattern),
        block_(block),
        body_(body),
        rules_(rules),
        touching_(hasCutCup(rules) && rules.option(key::kCupCentre) == CupCentre::Touching),
        byRadii_(hasCutCup(rules) && rules.option(key::kCupSized) == CupSizedBy::Radii),
        princess_(pattern.seams.front()),
        next_(pattern.seams[1]),
        centre_(pattern.pieces[princess_.a.piece]),
        side_(pattern.pieces[princess_.b.piece]),
        inner_(pattern.sidePath(princess_.a)),
        outer_(pattern.sidePath(princess_.b)),
        aboveCentre_(nextTo(centre_, princess_.a.chain.front().edge, false)),
        aboveSide_(upperEdgeOf(side_, princess_.b.chain.front().edge)),
        rightOfSide_(pattern.sidePath(pattern.seams[1].a)) {}

  Result<CupLine> make() && {
    const SeamNotch* under = princess_.notch(level::kUnderbust);
    if (!under)
      return Problem{"Cup", "the princess seam does not reach from above the bust to below the underbust",
                     "raise the top edge or lengthen the garment, or keep the bust in the seam"};
    const auto below = traced(rules_, key::kMouldBelow);
    const double underA = below ? bustOn(true) + *below : under->a, underB = below ? bustOn(false) + *below : under->b;
    if (std::max(underA - inner_.length(), underB - outer_.length()) > -kBesideBust)
      return Problem{"Cup", "the cup as traced reaches below the garment",
                     "measure from its apex down again (mould.below), or lengthen the garment"};
    if (isClosed()) return closed(underA, underB);
    for (const Edge* e : {&aboveCentre_, &aboveSide_})
      if (e->role != EdgeRole::Top && e->role != EdgeRole::Yoke &&
          !(e == &aboveSide_ && e->role == EdgeRole::Armhole && risesBesideCup()))
        return Problem{"Cup", msg("above the bust the panels end at the {}, not at an upper edge", e->id),
                       "set a yoke off, or choose a strapless edge, or keep the bust in the seam"};
    CupLine line;
    if (auto problem = touching_ ? addFromCentre(line, underA) : addInner(line, underA)) return *problem;
    if (auto problem = addOuter(line, underB)) return *problem;
    return line;
  }

 private:
  // The edge clockwise behind or before another.
  static const Edge& nextTo(const Piece& piece, std::string_view edge, bool behind) {
    const size_t n = piece.edges.size();
    return piece.edges[(edgePlace(piece, edge) + (behind ? 1 : n - 1)) % n];
  }

  // Where the outer line may end: the edge above the princess seam, or, where that goes up into a strap, the armhole;
  // where it goes up into a yoke, the yoke's seam.
  static const Edge& upperEdgeOf(const Piece& piece, std::string_view princess) {
    const Edge& above = nextTo(piece, princess, true);
    if (above.role != EdgeRole::Top) return above;
    const Edge& beyond = nextTo(piece, above.id, true);
    if (beyond.role == EdgeRole::Yoke) return beyond;
    return beyond.id == "shoulder" && hasEdge(piece, "armhole") ? piece.edge("armhole") : above;
  }

  // Whether both panels go on up to the shoulder or neck and keep neck, strap and armhole: the cup is closed all round.
  bool isClosed() const {
    const auto goesOn = [](const Edge& e) { return e.role != EdgeRole::Top && e.role != EdgeRole::Yoke; };
    const auto cover = rules_.option(key::kCoverKind);
    return (cover == CoverKind::Covered || cover == CoverKind::Halter) && goesOn(aboveCentre_) && goesOn(aboveSide_);
  }

  // A cup closed all round: from the princess seam at the height of the upper edge in a quarter of an ellipse to the
  // bridge on the bust line, round below to the underbust, out to the widest place of the outer cup and up again.
  Result<CupLine> closed(double underA, double underB) {
    const double bust = block_.levels.at(level::kBust).front, top = block_.levels.at(level::kTop).front;
    const auto met = inner_.crossings({0, top}, {1, 0});
    const double topA = met.empty() ? 0 : met.front(), topB = bustOn(false) - (bustOn(true) - topA);
    const Problem noRoom{"Cup line", "there is no room for a cup that is closed all round",
                         "raise the upper edge (top.from), make bridge or outer cup narrower, or set a yoke off"};
    if (met.empty() || topA < 5 || topB < 5 || bustOn(true) - topA < 2 * kBesideBust) return noRoom;
    if (touching_)
      return Problem{"Cup line, at the centre", "a cup that is closed all round leaves the front whole at the centre",
                     "let a bridge stand between the cups (cup.centre)"};
    const double x = block_.front.centre.xAtDepth(bust) + bridge();
    if (inner_.pointAt(underA).x - x < 2 * kBesideBust) return noRoom;
    CupLine line;
    const Vec2 crown = inner_.pointAt(topA), across = square(inner_.tangentAt(topA)), corner{x, bust},
               end = inner_.pointAt(underA), below = square(inner_.tangentAt(underA));
    const double rise = kQuarter * (bust - crown.y), fall = kQuarter * (end.y - bust);
    const std::string& onInner = princess_.a.chain.front().edge;
    line.through.push_back(
        {princess_.a.piece,
         {onInner, topA, {}},
         {onInner, underA, {}},
         Path(std::vector<Cubic>{
             Cubic{crown, crown - handleAtSeam(crown.x - x, bust - crown.y) * across, corner - Vec2{0, rise}, corner},
             Cubic{corner, corner + Vec2{0, fall}, end - handleAtSeam(end.x - x, end.y - bust) * below, end}})});
    tellInner(line, bridge(), x, underA);

    Working w = outerWidth(underB, bust);
    const double room = rightOfSide_.xAtDepth(bust) - kFrameBesideCup - block_.dart.apex.x;
    if (w.result > room) w.terms.push_back({'-', "the next seam is near", w.result - room, Source::Computed});
    w.result = std::min(w.result, room);
    if (w.result < 2 * kBesideBust) return noRoom;
    const Vec2 widest{block_.dart.apex.x + w.result, bust}, from = outer_.pointAt(underB), to = outer_.pointAt(topB);
    const Vec2 out = square(outer_.tangentAt(underB)), back = square(outer_.tangentAt(topB)), up{0, -1};
    const double reach = handleAtSeam(dot(widest - from, out), from.y - bust), drop = kQuarter * (from.y - bust),
                 lift = kQuarter * (bust - to.y);
    const std::string& onOuter = princess_.b.chain.front().edge;
    line.through.push_back(
        {princess_.b.piece,
         onPrincess(underB),
         {onOuter, side_.edge(onOuter).path.length() - topB, {}},
         Path(std::vector<Cubic>{
             Cubic{from, from + reach * out, widest - drop * up, widest},
             Cubic{widest, widest + lift * up, to + handleAtSeam(widest.x - to.x, bust - to.y) * back, to}})});
    line.workings.push_back(std::move(w));
    return line;
  }

  // Whether the upper edge stays open over the cup and rises to the shoulder beside it.
  bool risesBesideCup() const {
    const auto cover = rules_.option(key::kCoverKind);
    return cover == CoverKind::Straps ||
           (cover == CoverKind::Covered && rules_.option(key::kNeckShape) == NeckShape::Edge);
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
    const double centre = block_.front.centre.xAtDepth(bust), x = centre + bridge(),
                 above = x + rules_.length(key::kCupBridgeWider);
    const Edge& top = aboveCentre_;
    const Vec2 end = inner_.pointAt(under), across = square(inner_.tangentAt(under)), corner{x, bust};
    const Problem noRoom{
        "Cup line, inner side",
        msg("there is no cup between the bridge, {:.0f} mm from the centre, and the princess seam", above - centre),
        "make the bridge narrower"};
    if (end.x - x < 2 * kBesideBust) return noRoom;
    if (x - centre < kLeastBridge)
      return Problem{"Cup line, at the centre", "the cup as traced reaches to the centre front",
                     "measure from its apex in again (mould.inner), or check the bust span"};
    // From well above the top edge; it begins where that is met last, be it a plunge beside the bridge.
    const double reach = handleAtSeam(end.x - x, end.y - bust), fall = kQuarter * (end.y - bust);
    const auto onTop = top.path.crossings({above, 0}, {0, 1});
    if (onTop.empty()) return noRoom;
    const Vec2 down = unit(corner - Vec2{above, std::min(top.path.pointAt(onTop.front()).y, bust - kBesideBust)});
    const Path whole(std::vector<Cubic>{Cubic::line(corner - (bust / down.y) * down, corner),
                                        Cubic{corner, corner + (fall / down.y) * down, end - reach * across, end}});
    const auto met = whole.meetings(top.path);
    if (met.empty() || whole.length() - met.back().first < 2 * kBesideBust) return noRoom;
    const double from = met.back().second;
    Path path = whole.sub(met.back().first, whole.length());
    line.through.push_back(
        {princess_.a.piece, {top.id, from}, {princess_.a.chain.front().edge, under}, std::move(path)});
    tellInner(line, bridge(), x, under);
    return std::nullopt;
  }

  // How far from the centre front the inner cup ends on the bust line: the bridge, or more where the cup is sized by a
  // radius that does not reach so far.
  double bridge() const {
    if (touching_) return 0;
    if (const auto inner = traced(rules_, key::kMouldInner)) return std::max(0.0, block_.dart.apex.x - *inner);
    const double rule = rules_.length(key::kCupBridge);
    return byRadii_ ? std::max(rule, block_.dart.apex.x - body_.mm(id::kCupIn)) : rule;
  }

  void tellInner(CupLine& line, double bridge, double x, double under) const {
    Working w{"cup.inner",
              "Inner cup, wide on the bust line",
              {{'+', "half the bust span", block_.dart.apex.x, Source::Computed}},
              block_.dart.apex.x - x,
              touching_ ? Message("the cups are sewn to each other at the centre front; common practice")
                        : Message("the cup line leaves the bridge beside the centre; common practice")};
    if (traced(rules_, key::kMouldInner)) {
      w.terms = {rules_.term(key::kMouldInner)};
      w.note = "as traced round the cup, its apex on the bust point; common practice";
    } else if (bridge > rules_.length(key::kCupBridge)) {
      w.terms.push_back({'-', "beyond the inner cup radius", bridge, body_.fact(id::kCupIn).source});
    } else if (!touching_) {
      w.terms.push_back(rules_.term(key::kCupBridge, '-'));
    }
    line.workings.push_back(std::move(w));
    const double down = under - bustOn(true);
    line.workings.push_back({"cup.radius",
                             "Cup radius, from the bust point down to the underbust",
                             {{'+', "along the princess seam, bust to underbust", down, Source::Computed}},
                             down,
                             "the cup line meets the princess seam at the underbust; common practice"});
  }

  // Cups that touch: from the centre front, which it leaves level, down to the underbust at the princess seam.
  std::optional<Problem> addFromCentre(CupLine& line, double under) {
    const double y = block_.levels.at(level::kUnderbust).front - rules_.length(key::kCupRise);
    const Edge* centre = nullptr;
    for (const Edge& e : centre_.edges)
      if (e.role == EdgeRole::Fold || e.role == EdgeRole::Centre) centre = &e;
    if (!centre)
      return Problem{"Cup line, at the centre", "cups that touch need a centre front on the fold or sewn",
                     "let a bridge stand between them (cup.centre), or put the opening behind"};
    const auto met = centre->path.crossings({0, y}, {1, 0});
    if (met.empty())
      return Problem{"Cup line, at the centre", "the centre front does not reach up to where the cups are to touch",
                     "raise the upper edge, or let a bridge stand between the cups (cup.centre)"};
    const Vec2 from = centre->path.pointAt(met.front()), end = inner_.pointAt(under),
               across = square(inner_.tangentAt(under));
    const double reach = 0.5 * (end.x - from.x);
    line.through.push_back({princess_.a.piece,
                            {centre->id, met.front()},
                            {princess_.a.chain.front().edge, under},
                            Path(Cubic{from, from + Vec2{reach, 0}, end - reach * across, end})});
    tellInner(line, 0, from.x, under);
    return std::nullopt;
  }

  double bustOn(bool a) const {
    const SeamNotch* bust = princess_.notch(level::kBust);
    return !bust ? 0 : a ? bust->a : bust->b;
  }

  std::optional<Problem> addOuter(CupLine& line, double under) {
    // A moulded cup is tilted up at the side.
    const bool moulded = rules_.option(key::kCupKind) == CupKind::Moulded;
    const double bust = block_.levels.at(level::kBust).front - (moulded ? rules_.length(key::kMouldTilt) : 0),
                 apex = block_.dart.apex.x;
    Working w = outerWidth(under, bust);
    const double wished = w.result, room = rightOfSide_.xAtDepth(bust) - kFrameBesideCup - apex;
    const double width = std::min(wished, room);
    w.result = width;
    if (width < wished) w.terms.push_back({'-', "the next seam is near", wished - width, Source::Computed});

    const bool across = width < wished && mayCross();
    if (across && !addAcross(line, apex + wished, bust, under)) {
      w.terms.pop_back();
      w.terms.push_back({'-', "held within the panel after the next", wished - (crossedTo_ - apex), Source::Computed});
      w.result = crossedTo_ - apex;
    } else if (auto problem = addWithin(line, apex + width, bust, under)) {
      return problem;
    }
    line.workings.push_back(std::move(w));
    line.workings.push_back({"cup.end",
                             "Cup line, its upper end in from the side",
                             {rules_.term(key::kCupSide)},
                             inset_,
                             "along the top edge; common practice"});
    return std::nullopt;
  }

  // How wide the outer cup is to be, out from the bust point on the bust line.
  Working outerWidth(double under, double bust) const {
    const Message title = "Outer cup, from the bust point out on the bust line";
    if (const auto outer = traced(rules_, key::kMouldOuter))
      return {"cup.outer",
              title,
              {rules_.term(key::kMouldOuter)},
              *outer,
              "as traced round the cup, its apex on the bust point; common practice"};
    if (byRadii_) {
      const Fact& out = body_.fact(id::kCupOut);
      return {"cup.outer",
              title,
              {{'+', "outer cup radius", out.mm, out.source}},
              out.mm,
              "as measured over the breast; common practice"};
    }
    const double apex = block_.dart.apex.x, bridge = touching_ ? 0 : rules_.length(key::kCupBridge),
                 inner = apex - block_.front.centre.xAtDepth(bust) - bridge;
    const auto kind = rules_.option(key::kCupOuter);
    const double more = kind == OuterCup::Inner ? 0 : kind == OuterCup::HalfSpan ? bridge : 2 * bridge;
    const double extra = rules_.length(key::kCupOuterExtra);
    // Closing the dart has moved the lower edge out; the width is laid from half way between bust point and underbust.
    const double opened = std::max(0.0, (outer_.pointAt(under).x - apex) / 2);
    Working w{"cup.outer",
              title,
              {{'+', "as the inner cup", inner, Source::Computed},
               {'+', "opened below by half of", opened, Source::Computed}},
              inner + more + extra + opened,
              "laid from the edge half way between bust point and underbust; common practice"};
    if (more > 0)
      w.terms.push_back({'+',
                         kind == OuterCup::HalfSpan ? "the bridge, up to half the span"
                                                    : "the bridge twice, so "
                                                      "that the whole cup is as wide as the span",
                         more, Source::Rule});
    if (extra > 0) w.terms.push_back(rules_.term(key::kCupOuterExtra));
    return w;
  }

  // The outer line on the axes of the side front: from the princess seam at the underbust round to the widest place on
  // the bust line, and up to its end on an upper edge.
  Path outerPath(double under, Vec2 widest, Vec2 end) const {
    const Vec2 from = outer_.pointAt(under);
    const Vec2 out = square(outer_.tangentAt(under)), up{0, -1}, onward = unit(end - widest),
               through = unit(up + onward);
    const double reach = handleAtSeam(dot(widest - from, out), dot(widest - from, through)),
                 rise = kQuarter * dot(widest - from, through), handle = distance(widest, end) / 3;
    return Path(std::vector<Cubic>{Cubic{from, from + reach * out, widest - rise * through, widest},
                                   Cubic{widest, widest + handle * through, end - handle * onward, end}});
  }

  // The place on the side front's edge (which runs up) where the line meets the princess seam.
  Anchor onPrincess(double under) const {
    const Edge& edge = side_.edge(princess_.b.chain.front().edge);
    return {edge.id, edge.path.length() - under};
  }

  std::optional<Problem> addWithin(CupLine& line, double x, double bust, double under) {
    const Path& top = aboveSide_.path;
    inset_ = std::min(rules_.length(key::kCupSide), 0.6 * top.length());
    const double at = top.length() - inset_;
    const Vec2 end = top.pointAt(at);
    // Where the upper edge is as low as the bust line beside the cup, the line is widest a little below its end.
    const double below = outer_.pointAt(under).y - end.y;
    const Vec2 widest{x, std::max(bust, end.y + kBelowEnd)};
    if (x - block_.dart.apex.x < 2 * kBesideBust || below < 2 * kBesideBust)
      return Problem{"Cup line, outer side",
                     msg("there is no room for an outer cup of {:.0f} mm", x - block_.dart.apex.x),
                     "use fewer front lines, or raise the top edge at the side"};
    line.through.push_back({princess_.b.piece, onPrincess(under), {aboveSide_.id, at}, outerPath(under, widest, end)});
    return std::nullopt;
  }

  // Whether the next seam outwards may be crossed: it is a panel seam, and the cup is one whose outer part may be
  // joined over it.
  bool mayCross() const {
    const auto kind = rules_.option(key::kCupKind);
    return next_.id != "side" && kind != CupKind::Gathered && kind != CupKind::Whole && kind != CupKind::Moulded;
  }

  // Across the next seam: drawn with the panel beyond laid on where the line crosses, so that it crosses without a
  // kink. Where that is follows from the line: a few rounds settle it. Fails where it crosses too flat to be sewn.
  std::optional<Problem> addAcross(CupLine& line, double x, double bust, double under) {
    const Piece& beyond = pattern_.pieces[next_.b.piece];
    const Path a = pattern_.sidePath(next_.a), b = pattern_.sidePath(next_.b);
    const Edge& above = nextTo(beyond, next_.b.chain.front().edge, true);
    const Problem none{"Cup line, outer side", "it does not cross the next panel seam cleanly",
                       "use fewer front lines, or make the outer cup narrower"};
    if (above.role != EdgeRole::Top && above.role != EdgeRole::Yoke) return none;
    const SeamNotch* bustNotch = next_.notch(level::kBust);
    const SeamNotch notch = bustNotch ? *bustNotch : SeamNotch{"", a.length() / 3, b.length() / 3};
    inset_ = std::min(rules_.length(key::kCupSide), 0.6 * above.path.length());
    const double at = above.path.length() - inset_;
    double along = notch.a;
    Path whole, onBeyond;
    for (int round = 0; round < 6; ++round) {
      const double there = notch.b + along - notch.a;
      const double turn = angleBetween(b.tangentAt(there), a.tangentAt(along));
      const Motion lay =
          Motion::rotationAbout(b.pointAt(there), turn).then(Motion::translation(a.pointAt(along) - b.pointAt(there)));
      const double room = pattern_.sidePath(pattern_.seams[2].a).transformed(lay).xAtDepth(bust) - kFrameBesideCup;
      crossedTo_ = std::min(x, room);
      whole = outerPath(under, {crossedTo_, bust}, lay.apply(above.path.pointAt(at)));
      const auto met = whole.meetings(a);
      if (met.empty()) return none;
      const Vec2 here = whole.tangentAt(met.front().first);
      if (std::abs(cross(here, a.tangentAt(met.front().second))) < kSquareEnough) return none;
      along = met.front().second;
      if (along < 5 || notch.b + along - notch.a < 5 || notch.b + along - notch.a > b.length() - 5) return none;
      onBeyond = whole.sub(met.front().first, whole.length())
                     .transformed(Motion::translation(b.pointAt(there) - a.pointAt(along))
                                      .then(Motion::rotationAbout(b.pointAt(there), -turn)));
      whole = whole.sub(0, met.front().first);
    }
    const double there = notch.b + along - notch.a;
    line.through.push_back({princess_.b.piece, onPrincess(under), pattern_.placeOnSide(next_.a, along),
                            withEnds(whole, whole.start(), a.pointAt(along))});
    line.through.push_back({next_.b.piece,
                            pattern_.placeOnSide(next_.b, there),
                            {above.id, at},
                            withEnds(onBeyond, b.pointAt(there), above.path.pointAt(at))});
    return std::nullopt;
  }

  const Pattern& pattern_;
  const Block& block_;
  const Body& body_;
  const Rules& rules_;
  const bool touching_, byRadii_;
  const Seam &princess_, &next_;  // and the next one outwards
  const Piece &centre_, &side_;
  const Path inner_, outer_;              // the princess seam on either side, from the top down
  const Edge &aboveCentre_, &aboveSide_;  // the edges the cup line begins and ends on: top edges, or a yoke's seam
  const Path rightOfSide_;
  double inset_ = 0, crossedTo_ = 0;
};

}  // namespace

Result<CupLine> cupLine(const Pattern& pattern, const Block& block, const Body& body, const Rules& rules) {
  return CupLineMaker(pattern, block, body, rules).make();
}

}  // namespace armure
