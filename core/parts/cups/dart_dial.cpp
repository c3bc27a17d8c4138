#include "parts/cups/dart_dial.h"

#include <algorithm>
#include <cmath>
#include <numbers>

#include "geometry/tolerances.h"
#include "operations/pivot.h"
#include "parts/cups/rules.h"
#include "pattern/outline_parts.h"
#include "units/length.h"

namespace armure {
namespace {

constexpr double kDartShort = kMmPerInch;  // a dart ends this far short of the bust point; common practice, no source
constexpr double kBelow = kMmPerInch;      // its mouth lies below the bust line, which runs whole above it; the same
constexpr double kDegrees = 180 / std::numbers::pi;

// What both edges of the princess line leave open about the bust point, seen at a depth.
double openAt(const Block& block, double y) {
  const PanelLine& line = block.front.lines.front();
  const Vec2 a = Vec2{line.toCentreX(y), y} - block.dart.apex, b = Vec2{line.toSideX(y), y} - block.dart.apex;
  return std::abs(angleBetween(a, b));
}

double chosen(const Rules& rules, ShareKey key) { return rules.counts(*findRule(key.text)) ? rules.share(key) : 0; }

// Of the side bust dart's turn. Where the front has no line to close it into, what is left stays at the side.
double shareOf(const Rules& rules, ShareKey key) {
  if (key.text != key::kDialSide.text || rules.option(key::kFrontLinesAre) != LinesAre::None) return chosen(rules, key);
  return std::max(0.0,
                  1 - chosen(rules, key::kDialEase) - chosen(rules, key::kDialCentre) - rules.share(key::kDialFoot));
}

// Of the side bust dart, were all of it closed.
double wholeTurn(const Block& block, const Rules& rules) {
  const double closed = 1 - rules.share(key::kDialFoot);
  return closed > 1e-9 ? block.dart.angle / closed : 0;
}

class DialSetter {
 public:
  DialSetter(Pattern& pattern, const Block& block, const Rules& rules)
      : pattern_(pattern), block_(block), rules_(rules) {}

  void atSide() {
    const double ease = angle(key::kDialEase), dart = angle(key::kDialSide);
    DartTurn eased;
    std::string mouth;
    if (ease > tolerance::kSmooth) {
      const DartCut cut = sideCut();
      mouth = cut.mouth.edge;
      eased = openSpread(pattern_, cut, ease);
    }
    note(key::kDialEase, "Left as ease at the side", eased);
    DartTurn opened;
    if (dart > tolerance::kSmooth) {
      DartCut cut = sideCut();
      cut.mouth = below(1, cut.mouth, std::max(kBelow, eased.width));
      opened = openDart(pattern_, cut, dart, {"dart-side", "Side dart", kDartShort});
    }
    note(key::kDialSide, "Side dart, wide at its mouth", opened);
    if (ease > tolerance::kSmooth) plan(mouth, eased.width);
  }

  std::optional<Problem> atCentre() {
    const double dart = angle(key::kDialCentre);
    if (dart <= tolerance::kSmooth) {
      note(key::kDialCentre, "Dart to the centre front, wide at its mouth", {});
      return std::nullopt;
    }
    const Piece& front = pattern_.pieces.front();
    const auto centre =
        std::find_if(front.edges.begin(), front.edges.end(), [](const Edge& e) { return e.role == EdgeRole::Centre; });
    const double bust = block_.levels.at(level::kBust).front;
    const auto met =
        centre == front.edges.end() ? std::vector<double>() : centre->path.crossings({0, bust + kBelow}, {1, 0});
    const SeamSide& princess = pattern_.seams.front().a;
    if (met.empty())
      return Problem{"Dart to the centre front", "the centre front ends below the bust line", "raise it"};
    const DartCut cut{0, bustOn(princess), {centre->id, met.front()}, TurnedPart::FromPivotToMouth};
    const DartTurn turn = openDart(pattern_, cut, dart, {"dart-centre", "Centre front dart", kDartShort});
    note(key::kDialCentre, "Dart to the centre front, wide at its mouth", turn);
    return std::nullopt;
  }

  // Laid above: the side front lies turned on the cloth, its shape is the same.
  void above() {
    const double turned = angle(key::kDialTop);
    note(key::kDialTop, "Laid above the bust point: the side front's grain turns", {turned, 0});
    if (turned <= tolerance::kSmooth) return;
    Piece& side = pattern_.pieces[1];
    const Vec2 middle = lerp(side.grainTop, side.grainBottom, 0.5);
    side.grainTop = middle + rotated(side.grainTop - middle, turned);
    side.grainBottom = middle + rotated(side.grainBottom - middle, turned);
  }

 private:
  double angle(ShareKey key) const { return shareOf(rules_, key) * wholeTurn(block_, rules_); }
  Anchor bustOn(const SeamSide& side) const {
    for (const Mark& n : pattern_.pieces[side.piece].notches())
      if (n.id == level::kBust && side.uses(n.a.edge)) return n.a;
    return {side.chain.front().edge, 0};
  }

  // From the bust point to the next edge of the side front, at the bust; the part below turns.
  DartCut sideCut() const {
    const SeamSide& princess = pattern_.seams.front().b;
    const SeamSide& next =
        std::find_if(pattern_.seams.begin() + 1, pattern_.seams.end(), [](const Seam& s) { return s.a.piece == 1; })->a;
    return {1, bustOn(princess), bustOn(next), TurnedPart::FromMouthToPivot};
  }

  // A place further down the sewn edges of a piece, clockwise.
  Anchor below(size_t piece, const Anchor& place, double by) const {
    const Piece& p = pattern_.pieces[piece];
    size_t i = edgePlace(p, place.edge);
    double at = place.at + by;
    for (double length; at > (length = p.lineAt(i).path.length()) + tolerance::kSamePlace && isSewn(p.lineAt(i).role);
         i = p.next(i))
      at -= length;
    return {p.lineAt(i).id, std::min(at, p.lineAt(i).path.length()), {}};
  }

  // The seam that got longer is eased onto its partner between the notches beside it.
  void plan(const std::string& edge, double width) {
    for (Seam& s : pattern_.seams) {
      if (s.a.piece != 1 || !s.a.uses(edge)) continue;
      s.eases.push_back(
          {std::string(s.notch(level::kBust) ? level::kBust : "top"), std::string(level::kUnderbust), width});
    }
  }
  void note(ShareKey key, const Message& title, const DartTurn& turn) {
    pattern_.workings.push_back(
        {"rule." + std::string(key.text),
         title,
         {{'+',
           msg("side bust dart, {:.1f} of its {:.1f} degrees", turn.angleRad * kDegrees, block_.dart.angle * kDegrees),
           turn.width, Source::Computed}},
         turn.width,
         "turned about the bust point: every length on the turned part is kept; common practice"});
  }

  Pattern& pattern_;
  const Block& block_;
  const Rules& rules_;
};

}  // namespace

std::vector<DialPart> dartDial(const Block& block, const Rules& rules) {
  const double turn = block.dart.angle, whole = wholeTurn(block, rules);
  const double side = shareOf(rules, key::kDialSide) * whole, ease = shareOf(rules, key::kDialEase) * whole,
               centre = shareOf(rules, key::kDialCentre) * whole, above = shareOf(rules, key::kDialTop) * whole;
  const double top = openAt(block, block.levels.at(level::kTop).front) + above;
  const double below = openAt(block, block.levels.at(level::kUnderbust).front) + turn - side - ease - centre - above;
  const bool followsAtSide = rules.option(key::kFrontLinesAre) == LinesAre::None;
  const CupKind kind = rules.option(key::kCupKind);
  const bool gathered = kind == CupKind::Gathered || kind == CupKind::Whole;
  return {{"top", "at the top edge", key::kDialTop.text, top},
          {"side", "as a dart at the side", followsAtSide ? "" : key::kDialSide.text, side},
          {"ease", "as ease at the side", key::kDialEase.text, ease},
          {"underbust", "at the underbust", "", gathered ? 0 : below},
          {"gathers", "in gathers", "", gathered ? below : 0},
          {"centre", "at the centre front", key::kDialCentre.text, centre}};
}

Vec2 dialDirection(std::string_view part) {
  if (part == "top") return {0, -1};
  if (part == "side") return {1, 0};
  if (part == "ease") return unit({1, 0.75});
  if (part == "centre") return {-1, 0};
  return {0, 1};
}

std::optional<DialCentre> dialCentre(const Pattern& pattern) {
  for (const char* id : {"princess-cup", "princess", "princess-cup-cross"})
    if (const Seam* seam = pattern.seam(id))
      for (const Mark& n : pattern.pieces[seam->a.piece].notches())
        if (n.id == level::kBust && seam->a.uses(n.a.edge))
          return DialCentre{seam->a.piece, pattern.pieces[seam->a.piece].point(n.a)};
  // A front in one piece: where its dart points to.
  for (size_t i = 0; i < pattern.pieces.size(); ++i)
    for (const Dart& dart : pattern.pieces[i].darts)
      if (dart.id == "princess") return DialCentre{i, dart.point()};
  return std::nullopt;
}

std::optional<Problem> setDial(Pattern& pattern, const Block& block, const Rules& rules) {
  if (rules.option(key::kCupKind) != CupKind::Princess) return std::nullopt;
  double sum = 0;
  for (const ShareKey key : {key::kDialSide, key::kDialEase, key::kDialCentre, key::kDialTop})
    sum += shareOf(rules, key);
  sum += rules.share(key::kDialFoot);
  if (sum > 1 + 1e-9)
    return Problem{"Dart dial", msg("{:.0f} % of the side bust dart are moved, and there are only 100", 100 * sum),
                   "move less of it elsewhere"};
  DialSetter setter(pattern, block, rules);
  if (auto problem = setter.atCentre()) return problem;
  setter.above();
  setter.atSide();
  return std::nullopt;
}

}  // namespace armure
