#include "parts/cups/cut_cup.h"

#include <fmt/format.h>

#include <algorithm>
#include <cmath>
#include <iterator>
#include <map>
#include <numbers>

#include "operations/divide.h"
#include "operations/grain.h"
#include "operations/join.h"
#include "operations/join_stretch.h"
#include "parts/cups/cup_line.h"
#include "parts/cups/gathered.h"
#include "parts/cups/rules.h"
#include "pattern/marks.h"
#include "pattern/outline_parts.h"
#include "rules/prepare_rules.h"

namespace armure {
namespace {

constexpr double kFramesFit = 0.5;  // mm: the edges that close a frame for good must be one line
constexpr double kDartBelow = 10;   // mm: the dart of a cup cover ends this far below the bust point

class CupMaker {
 public:
  CupMaker(Pattern& pattern, const Block& block, const Body& body, const Rules& rules)
      : pattern_(pattern), block_(block), body_(body), rules_(rules), kind_(rules.option(key::kCupKind)) {}

  std::optional<Problem> make() && {
    if (auto problem = divideAlongCupLine()) return problem;
    if (plan().find(SectionKind::Band, true))
      if (auto problem = cutBand()) return problem;
    if (kind_ == CupKind::Cross || kind_ == CupKind::Four || kind_ == CupKind::Upper)
      if (auto problem = cutAcross()) return problem;
    if (auto problem = closePrincess()) return problem;
    if (plan().line(SectionKind::Frame, true, 0) == LineKind::None)
      if (auto problem = closeFrame()) return problem;
    uniteSeams(pattern_, "princess");
    nameWhole();
    for (Seam& s : pattern_.seams) s.notches = notchesOf(pattern_, s);  // joining may have drawn an edge anew
    for (Piece& p : pattern_.pieces)
      if (p.part == Part::Cup || p.part == Part::CupBand || (p.part == Part::Panel && p.half == Half::Front))
        layGrain(p);
    return std::nullopt;
  }

 private:
  const PanelPlan& plan() const { return block_.plan; }

  std::optional<Problem> cutBand() {
    if (auto problem = divideCup("band", bandLine(), {"band-inner", "Band, inner"}, {"band-outer", "Band, outer"}))
      return problem;
    if (plan().line(SectionKind::Band, true, 0) == LineKind::None)
      join("princess-cup-band", "Upper cup band", "cup.band");
    return std::nullopt;
  }

  std::optional<Problem> cutAcross() {
    if (auto problem = divideCup("cross", crossLine(), {"cup-upper-inner", "Upper inner cup"},
                                 {"cup-upper-outer", "Upper outer cup"}))
      return problem;
    rename("cup-inner", "Lower inner cup");
    rename("cup-outer", "Lower outer cup");
    if (kind_ == CupKind::Upper) join("princess-cup-cross", "Upper cup", "cup.upper");
    return std::nullopt;
  }

  // What becomes of the princess line in the cup: a seam, a dart, or closed for good in every piece.
  std::optional<Problem> closePrincess() {
    switch (plan().line(SectionKind::Cups, true, 0)) {
      case LineKind::Seam:
        return std::nullopt;
      case LineKind::Dart:
        coverMould();
        return std::nullopt;
      case LineKind::None:
        break;
    }
    if (kind_ == CupKind::Gathered || kind_ == CupKind::Whole) return gatherCup(pattern_, rules_);
    join("princess-cup-cross", "Upper cup", "cup.upper");
    join("princess-cup", "Lower cup", "cup.lower");
    return std::nullopt;
  }

  std::optional<Problem> divideAlongCupLine() {
    Result<CupLine> line = cupLine(pattern_, block_, body_, rules_);
    if (!line.ok()) return line.problem();
    DividingLine dividing{"cup",        "Cup line", "in the cup", EdgeRole::Cup, rules_.length(key::kAllowanceCup),
                          line->through};
    const bool across = line->through.size() > 2;
    const std::string crossed = across ? pattern_.seams[1].id + "-cup" : "";
    std::vector<PieceName> names{{"cup-inner", "Inner cup", Part::Cup}, {"cup-outer", "Outer cup", Part::Cup}};
    if (across) names.push_back({"cup-beyond", "Outer cup, beyond the next seam", Part::Cup});
    dividePieces(pattern_, dividing, names);
    nameSides(dividing);
    sewCentre(pattern_.pieces[place("cup-inner")]);
    if (across) join(crossed, "Outer cup", "cup.across");
    for (Working& w : std::move(line).value().workings) pattern_.workings.push_back(std::move(w));
    pattern_.pieces[pattern_.panel(Half::Front, 1).value()].name = "Frame, centre front";
    pattern_.pieces[pattern_.panel(Half::Front, 2).value()].name = "Frame, side front";
    for (const char* id : {"cup-inner", "cup-outer"}) setAllowance(id, "princess");
    return std::nullopt;
  }

  // Cups that touch are sewn to each other where the frame lies on the fold.
  void sewCentre(Piece& cup) const {
    for (Edge& e : cup.edges)
      if (isCentre(e.role)) {
        e.role = kBetweenCups;
        e.allowance = rules_.length(key::kAllowanceCup);
        cutInPairs(cup);
      }
  }

  // A cup seam takes the narrow allowance of the cup.
  void setAllowance(std::string_view piece, std::string_view edge) {
    for (Edge& e : pattern_.pieces[place(piece)].edges)
      if (e.id == edge) e.allowance = rules_.length(key::kAllowanceCup);
  }

  size_t place(std::string_view id) const {
    for (size_t i = 0; i < pattern_.pieces.size(); ++i)
      if (pattern_.pieces[i].id == id) return i;
    throw std::out_of_range("cups: no piece " + std::string(id));
  }

  // The seams along a line are told apart, from the centre outwards.
  void nameSides(const DividingLine& line) {
    constexpr std::string_view kPlaces[] = {"{}, inner", "{}, outer", "{}, outer end"};
    for (size_t k = 0; k < std::size(kPlaces); ++k)
      for (Seam& s : pattern_.seams)
        if (s.id == fmt::format("{}-{}", line.id, k + 1)) s.name = Message(kPlaces[k], {Listed{{line.name}}});
    lineNames_[line.id] = line.name;
  }
  // Where both became one seam again, it is the whole line.
  void nameWhole() {
    for (const auto& [line, name] : lineNames_) {
      if (pattern_.seam(line + "-2")) continue;
      for (Seam& s : pattern_.seams)
        if (s.id == line + "-1") s.name = name;
    }
  }

  void rename(std::string_view id, Message name) { pattern_.pieces[place(id)].name = std::move(name); }

  // Ends of a line across both halves of the cup: on the inner cup's cup line, on the princess seam, and on the outer
  // cup's cup line.
  struct Across {
    double inner = 0, middle = 0,
           outer = 0;  // arc lengths: down the cup line from the top edge, down the princess seam
  };

  // The line the inner cup ends along towards the centre, from the upper edge down: the cup line, or, where the cups
  // touch, the centre front.
  struct InnerEnd {
    Path path;
    Anchor at(double along) const {
      return use.reversed ? Anchor{use.edge, path.length() - along, {}} : Anchor{use.edge, along, {}};
    }
    EdgeUse use;
  };
  InnerEnd innerEnd() const {
    for (const Edge& e : pattern_.pieces[place("cup-inner")].edges)
      if (e.role == kBetweenCups) return {e.path.reversed(), {e.id, true}};  // it runs up
    const SeamSide& side = pattern_.seam("cup-1")->b;
    return {pattern_.sidePath(side), side.chain.front()};
  }

  std::optional<Problem> divideCup(const std::string& id, const Across& at, PieceName innerName, PieceName outerName) {
    innerName.part = outerName.part = id == "band" ? Part::CupBand : Part::Cup;
    const size_t inner = place("cup-inner"), outer = place("cup-outer");
    const Seam& princess = *pattern_.seam("princess-cup");
    const InnerEnd in = innerEnd();
    const Seam& out = outerEnd();
    const double middleB = onOther(princess, at.middle);
    const double outerLength = pattern_.sidePath(out.b).length();
    if (at.inner >= in.path.length() - 5 || at.outer >= outerLength - 5 ||
        at.middle >= pattern_.sidePath(princess.a).length() - 5)
      return Problem{
          "Cup",
          id == "band" ? "the upper band does not lie within the cup" : "the cross seam does not lie within the cup",
          "make it less deep"};
    DividingLine line{id,
                      id == "band" ? "Band seam" : "Cross seam",
                      id == "band" ? "in the band" : "above the cross seam",
                      EdgeRole::Seam,
                      rules_.length(key::kAllowanceCup),
                      {}};
    line.through.push_back(across(inner, in.at(at.inner), pattern_.placeOnSide(princess.a, at.middle),
                                  pattern_.sidePath(princess.a).tangentAt(at.middle), false));
    line.through.push_back(across(outer, pattern_.placeOnSide(princess.b, middleB),
                                  pattern_.placeOnSide(out.b, outerLength - at.outer),
                                  pattern_.sidePath(princess.b).tangentAt(middleB), true));
    dividePieces(pattern_, line, {std::move(innerName), std::move(outerName)});
    nameSides(line);
    if (!pattern_.seam("princess-cup-" + id))
      return Problem{"Cup",
                     id == "band" ? "the upper band does not cross the princess seam"
                                  : "the cross seam does not cross the princess seam",
                     "make it less deep, or move the cross seam"};
    return std::nullopt;
  }

  // Square to the princess seam, an arc from there to the cup line.
  LineThrough across(size_t piece, const Anchor& from, const Anchor& to, Vec2 down, bool fromPrincess) const {
    const Piece& p = pattern_.pieces[piece];
    const Vec2 a = p.edge(from.edge).path.pointAt(from.at), b = p.edge(to.edge).path.pointAt(to.at);
    const Vec2 square{down.y, -down.x}, chord = unit(b - a);
    const Vec2 mirrored = 2 * dot(square, chord) * chord - square;  // of an arc, at its other end
    const double handle = distance(a, b) / 3;
    const Vec2 first = fromPrincess ? square : mirrored, last = fromPrincess ? mirrored : square;
    return {piece, from, to, Path(Cubic{a, a + handle * first, b - handle * last, b})};
  }

  // The cup line where it ends on the upper edge.
  const Seam& outerEnd() const {
    const Seam* beyond = pattern_.seam("cup-3");
    return beyond ? *beyond : *pattern_.seam("cup-2");
  }

  // The place on side b of a seam that is sewn to `along` on side a.
  static double onOther(const Seam& seam, double along) {
    double a = 0, b = 0;
    for (const SeamNotch& n : seam.notches)
      if (n.a <= along) a = n.a, b = n.b;
    return b + along - a;
  }

  Across bandLine() {
    const Seam& princess = *pattern_.seam("princess-cup");
    const double side = rules_.length(key::kCupBandSide);
    const SeamNotch* notch = princess.notch(level::kBust);
    const double bust = notch ? notch->a : pattern_.sidePath(princess.a).length();
    constexpr double kAboveBust = 0.7;  // of what lies above the bust point: the band must not reach its round
    const double wished = rules_.length(key::kCupBandMiddle), middle = std::min(wished, kAboveBust * bust);
    Working w{"cup.band",
              "Upper cup band, deep in the middle",
              {rules_.term(key::kCupBandMiddle)},
              middle,
              "cut off level across both halves of the cup, the over-bust intake closed; common practice"};
    if (middle < wished) w.terms.push_back({'-', "it stays above the round of the bust point", wished - middle});
    pattern_.workings.push_back(std::move(w));
    return {bandInner(middle, along(innerEnd().path, side)), middle,
            along(pattern_.sidePath(outerEnd().b).reversed(), side)};
  }

  // How far down the cup line the band ends at the centre: as wished, or higher where the line begins so low, beside a
  // plunge, that the band would run out along it in a sliver.
  double bandInner(double middle, double wished) {
    constexpr double kClear = 0.2;     // rad between band and cup line, at least
    constexpr double kLeastDeep = 20;  // mm: twice an allowance
    const InnerEnd in = innerEnd();
    const Seam& princess = *pattern_.seam("princess-cup");
    const Anchor to = pattern_.placeOnSide(princess.a, middle);
    const Vec2 down = pattern_.sidePath(princess.a).tangentAt(middle);
    const auto isSliver = [&](double deep) {
      const Path line = across(place("cup-inner"), in.at(deep), to, down, false).path;
      return std::abs(angleBetween(line.startTangent(), -in.path.tangentAt(deep))) < kClear;
    };
    double deep = wished;
    while (deep < in.path.length() && deep > kLeastDeep && isSliver(deep)) deep = std::max(kLeastDeep, 0.85 * deep);
    if (deep < wished)
      pattern_.workings.push_back({"cup.band_end",
                                   "Upper cup band, deep at the centre",
                                   {rules_.term(key::kCupBandSide),
                                    {'-', "it would run out along the cup line", wished - deep, Source::Computed}},
                                   deep,
                                   "beside a plunge the cup line begins low; common practice"});
    return deep;
  }

  // How far along a line that goes down from the upper edge of the cup it lies so deep below its beginning. Where the
  // cup is closed all round that line first goes aside.
  double along(const Path& down, double deep) const {
    if (!isClosed()) return deep;
    const auto met = down.crossings(down.start() + Vec2{0, deep}, {1, 0});
    return met.empty() ? deep : met.front();
  }

  // Whether the cup line begins and ends on the princess seam.
  bool isClosed() const {
    const Piece& cup = pattern_.pieces[place("cup-inner")];
    return std::none_of(cup.edges.begin(), cup.edges.end(), [&](const Edge& e) {
      return e.role == EdgeRole::Top || e.role == EdgeRole::Yoke || e.role == kBetweenCups ||
             e.role == EdgeRole::Armhole;
    });
  }

  Across crossLine() const {
    const Seam& princess = *pattern_.seam("princess-cup");
    Across at;
    if (const SeamNotch* bust = princess.notch(level::kBust)) at.middle = bust->a;
    const auto bustOn = [&](const Seam& seam, bool fromTop) {
      const SeamNotch* bust = seam.notch(level::kBust);
      const double length = pattern_.sidePath(seam.b).length();
      return !bust ? length / 2 : fromTop ? bust->b : length - bust->b;
    };
    // Below the bust line, at either end.
    const bool upper = kind_ == CupKind::Upper;
    const double centre = upper ? rules_.length(key::kCupUpperCentre) : -rules_.length(key::kCupCrossCentre),
                 side = upper ? -rules_.length(key::kCupUpperSide) : rules_.length(key::kCupCrossSide);
    const InnerEnd in = innerEnd();
    const double bust = block_.levels.at(level::kBust).front;
    const auto met = in.path.crossings({0, bust}, {1, 0});
    at.inner = (in.use.edge == "cup-1" || met.empty() ? bustOn(*pattern_.seam("cup-1"), true) : met.front()) + centre;
    at.outer = bustOn(outerEnd(), false) + side;
    return at;
  }

  void join(std::string_view seam, const Message& name, const std::string& key) {
    const Joined done = joinPieces(pattern_, seam, name);
    tellGap(done, key, msg("{}, its halves joined", name),
            msg("both halves laid edge to edge and made one piece; what stood between them lies in the cloth now. "
                "The line that ran across was drawn smooth, by {:.0f} degrees",
                done.turnRad * 180 / std::numbers::pi));
  }

  // The cloth over a moulded cup: both pieces laid together above the bust point and made one; below, what is left open
  // is the dart the surplus is taken up in. On the bias.
  void coverMould() {
    const Joined done = joinAbove(pattern_, "princess-cup", kDartBelow, "Cup cover");
    for (Piece& p : pattern_.pieces) {
      if (p.id != "cup-inner") continue;
      p.id = "cup-cover";
      p.part = Part::CupCover;
      layGrain(p);
      const Vec2 middle = lerp(p.grainTop, p.grainBottom, 0.5);
      p.grainTop = middle + rotated(p.grainTop - middle, std::numbers::pi / 4);
      p.grainBottom = middle + rotated(p.grainBottom - middle, std::numbers::pi / 4);
    }
    for (Seam& s : pattern_.seams)
      if (s.id == "princess-cup") s.name = "Dart of the cup cover";
    // Over the cup a level runs by way of the bust point, at an angle; the straight width of the flat cover is shorter.
    for (const BentLevel& b : done.bent)
      for (PatternLevel& l : pattern_.levels)
        if (l.id == b.level) l.gaps.gathers += 2 * b.longer;
    tellGap(done, "cup.cover", "Cup cover, on the bias: its halves laid together above the bust point",
            "draped over the cup the cloth gives on the bias; what is too much below the bust point is taken up in a "
            "dart; common practice");
  }

  void tellGap(const Joined& done, const std::string& key, const Message& title, const Message& note) {
    pattern_.workings.push_back(
        {key, title, {{'+', "the edges stood apart by at the most", done.gap, Source::Computed}}, done.gap, note});
  }

  std::optional<Problem> closeFrame() {
    if (pattern_.seam("princess-2"))
      return Problem{"Frame in one piece", "the front goes on above the cup, with its own princess seam",
                     "keep the seams of the frame (cup.frame=seams)"};
    Pattern trial = pattern_;
    const std::string& seam = block_.front.lines.front().id;
    const Joined done = joinPieces(trial, seam, "Frame, front");
    if (done.gap > kFramesFit)
      return Problem{
          "Frame in one piece",
          msg("the edges of the princess line below the cup stand {:.1f} mm apart when it is closed", done.gap),
          "let go of what is held or placed by hand on that line, or keep its seam"};
    pattern_ = std::move(trial);
    tellGap(done, "cup.frame", "Frame, front: the princess intake closed",
            "below the underbust the princess line takes as much on every level, so that both edges are one line; the "
            "rest goes to the further lines and the side");
    return std::nullopt;
  }

  Pattern& pattern_;
  const Block& block_;
  const Body& body_;
  const Rules& rules_;
  const CupKind kind_;
  std::map<std::string, Message> lineNames_;  // of the lines that were cut, by id
};

}  // namespace

bool hasCutCup(const Rules& rules) { return rules.option(key::kCupKind) != CupKind::Princess; }

std::optional<Problem> setCutCup(Pattern& pattern, const Block& block, const Body& body, const Rules& rules) {
  return hasCutCup(rules) ? CupMaker(pattern, block, body, rules).make() : std::nullopt;
}

}  // namespace armure
