#include "parts/ruffle/ruffle.h"

#include <algorithm>
#include <utility>

#include "measure/measure_table.h"
#include "parts/ruffle/rules.h"
#include "parts/trims/strip.h"

namespace armure {
namespace {

constexpr double kLeastOverArm = 25;  // mm free: less would hold the arm down
constexpr double kNothing = 1e-6;     // mm

class Ruffle {
 public:
  Ruffle(Pattern& pattern, const TrimStretch& stretch, const TrimChoice& trim, const Body& body, const Rules& rules)
      : pattern_(pattern), stretch_(stretch), trim_(trim), body_(body), rules_(rules) {}

  std::optional<Problem> make() && {
    if (auto problem = measure()) return problem;
    StripAsked asked = askedOf(trim_, half(), longestStrip(trimClothWidth(trim_, rules_), grain(), deep(), seam()));
    // It is full by the girth; what crosses lies within.
    asked.full = std::max(1.0, asked.full * body_.mm("round_shoulder") / 2 / half());
    plan_ = planStrip(asked);
    if (auto problem = pleatProblem(plan_, trim_)) return problem;
    const Piece strip = add();
    tell();
    const strip::Stiff stiff = trim_.option(strip::kStiffened);
    if (strip::isInterfaced(stiff)) interfaceStrip(pattern_, trim_, strip, trim_.length(strip::kDeep));
    if (strip::hasBraid(stiff)) addBraid(pattern_, trim_, 2, plan_.lengths * plan_.length);
    return std::nullopt;
  }

 private:
  bool folded() const { return trim_.option(strip::kCutAs) == strip::StripCut::Folded; }
  double deep() const { return (folded() ? 2 : 1) * trim_.length(strip::kDeep); }
  double seam() const { return trim_.length(strip::kSeam); }
  strip::Grain grain() const { return trim_.option(strip::kGrainLies); }
  double half() const { return cross_ + front_ + arm_ + back_; }

  std::optional<Problem> measure() {
    const LineMark* side = stretch_.line.side();
    if (!side)
      return Problem{trim_.title(), msg("{} does not go past the side", stretch_.line.name),
                     "choose an upper edge that goes from front to back"};
    const double clear = trim_.length(ruffle::kClear);
    cross_ = stretch_.over[0] ? trim_.length(ruffle::kCross) : 0;
    from_ = stretch_.from + (stretch_.over[0] ? 0 : clear);
    to_ = stretch_.to - (stretch_.over[1] ? 0 : clear);
    front_ = std::max(0.0, side->at - trim_.length(ruffle::kFreeFront) - from_);
    back_ = std::max(0.0, to_ - side->at - trim_.length(ruffle::kFreeBack));
    const double girth = body_.mm("round_shoulder");
    arm_ = girth / 2 - front_ - back_;
    if (front_ + back_ < kNothing)
      return Problem{trim_.title(), "nothing is left of the upper edge to sew it to", "let it leave the edge later"};
    if (arm_ < kLeastOverArm)
      return Problem{trim_.title(), msg("a way of {} round both arms leaves nothing free over the arm", Length{girth}),
                     "let it leave the edge further from the side, or measure the round-shoulder girth again"};
    return std::nullopt;
  }

  Piece add() {
    Piece piece = stripPiece(pattern_, trim_, plan_,
                             {.deep = deep(),
                              .seam = seam(),
                              .hem = trim_.length(strip::kHem),
                              .folded = folded(),
                              .joined = plan_.lengths > 1 || stretch_.over[1],
                              .grain = grain()});
    piece.copies = 2 * plan_.lengths;
    piece.symmetry = Symmetry::Pair;
    Piece strip = piece;
    const PieceEdge attached{pattern_.pieces.size(), "sewn"};
    pattern_.pieces.push_back(std::move(piece));
    const size_t first = pattern_.attachments.size();
    sew(attached, cross_, from_, front_);
    sew(attached, cross_ + front_ + arm_, to_ - back_, back_);
    pattern_.attachments[first].loose = plan_.full() * (cross_ + arm_);
    return strip;
  }

  // `long` mm of the finished half, from `worn` on, lie on the line from `along` on: of one length of strip or of more.
  void sew(const PieceEdge& attached, double worn, double along, double length) {
    for (int k = 0; k < plan_.lengths; ++k) {
      const double begins = k * plan_.each, low = std::max(worn, begins),
                   high = std::min(worn + length, begins + plan_.each);
      if (high - low > kNothing)
        layAlong(pattern_, stretch_, trim_, attached, {along + low - worn, along + high - worn},
                 {plan_.full() * (low - begins), plan_.full() * (high - begins)},
                 {trim_.length(strip::kDeep), ReachWay::Down});
    }
  }

  void tell() {
    const Fact& girth = body_.fact("round_shoulder");
    Working w{"trim." + trim_.id(), msg("{}, each half finished", trim_.title()), {}, half(), {}};
    w.terms.push_back(
        {'+', msg("half the {}", known(findMeasure("round_shoulder")->name)), girth.mm / 2, girth.source});
    if (cross_ > 0) w.terms.push_back(trim_.term(ruffle::kCross));
    w.note = msg("sewn to {} in front and {} behind, {} free over the arm; {}", Length{front_}, Length{back_},
                 Length{arm_}, stripNote(plan_, 2 * plan_.lengths, deep()));
    pattern_.workings.push_back(std::move(w));
  }

  Pattern& pattern_;
  const TrimStretch& stretch_;
  const TrimChoice& trim_;
  const Body& body_;
  const Rules& rules_;
  double from_ = 0, to_ = 0;                           // on the line, mm
  double cross_ = 0, front_ = 0, arm_ = 0, back_ = 0;  // of a half, finished, mm
  StripPlan plan_;
};

}  // namespace

std::optional<Problem> addRuffle(Pattern& pattern, const TrimStretch& stretch, const TrimChoice& trim, const Body& body,
                                 const Rules& rules) {
  return Ruffle(pattern, stretch, trim, body, rules).make();
}

}  // namespace armure
