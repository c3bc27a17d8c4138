#include "parts/sleeve/sleeve.h"

#include <algorithm>
#include <cmath>
#include <utility>

#include "geometry/arc.h"
#include "geometry/root.h"
#include "parts/sleeve/rules.h"
#include "parts/trims/ring.h"
#include "parts/trims/sewn_on.h"

namespace armure {
namespace {

constexpr double kHollowFront = 0.52,
                 kHollowBack = 0.42;              // of the half width that the curve runs level at the underarm
constexpr double kCrown = 0.48;                   // and at the crown
constexpr double kShort = 1.0 / 3, kElbow = 0.5;  // of the arm

// From the underarm up to the crown at `crown`, `wide` away and `high` below it.
Path capCurve(Vec2 crown, double wide, double high, double hollow) {
  const Vec2 under = crown + Vec2{wide, high};
  return Path(Cubic{under, under - Vec2{hollow * wide, 0}, crown + Vec2{kCrown * wide, 0}, crown});
}

class Sleeve {
 public:
  Sleeve(Pattern& pattern, const TrimStretch& stretch, const TrimChoice& trim, const Body& body, const Rules& rules)
      : pattern_(pattern), stretch_(stretch), trim_(trim), body_(body), rules_(rules) {}

  std::optional<Problem> make() && {
    if (auto problem = measure()) return problem;
    if (!fitCap())
      return Problem{trim_.title(),
                     msg("{} wide it is wider than the armhole of {} allows", Length{wide_}, Length{front_ + back_}),
                     "give it less room at the arm, or a deeper armhole"};
    Piece piece = draw();
    const bool flounced = trim_.length(sleeve::kFlounce) > 0;
    const auto ring = flounced ? planFlounce() : RingPlan{};
    if (!ring)
      return Problem{trim_.title(), msg("a hem of {} is too short for so many turns of a flounce", Length{hemWidth()}),
                     "take fewer turns"};
    tell(piece);
    const size_t place = pattern_.pieces.size();
    const PieceEdge capFront{place, "cap-front"}, capBack{place, "cap-back"};
    const double onFront = piece.edge("cap-front").path.length(), onBack = piece.edge("cap-back").path.length();
    pattern_.pieces.push_back(std::move(piece));
    // From the shoulder down in front, and up behind.
    const Reach reach{long_, ReachWay::AlongArm};
    layAlong(pattern_, stretch_, trim_, capFront, {0, front_ - notch_}, {onFront, notch_}, reach);
    layAlong(pattern_, stretch_, trim_, capFront, {front_ - notch_, front_}, {notch_, 0}, reach);
    layAlong(pattern_, stretch_, trim_, capBack, {front_, front_ + notch_}, {onBack, onBack - notch_}, reach);
    layAlong(pattern_, stretch_, trim_, capBack, {front_ + notch_, front_ + back_}, {onBack - notch_, 0}, reach);
    if (flounced) addFlounce(place, *ring);
    return std::nullopt;
  }

 private:
  std::optional<Problem> measure() {
    const GarmentLine& line = stretch_.line;
    if (stretch_.half() < line.length() - 0.01)
      return Problem{trim_.title(), "it goes round the whole armhole", "leave its beginning and its end away"};
    for (size_t k = 0; k < line.edges.size(); ++k)
      if (pattern_.pieces[line.edges[k].piece].half == Half::Front) front_ = line.ends[k];
    back_ = line.length() - front_;
    notch_ = std::min(trim_.length(sleeve::kNotch), 0.6 * std::min(front_, back_));
    if (front_ < kLeastHalf || back_ < kLeastHalf)
      return Problem{trim_.title(), msg("{} does not go from front to back", line.name),
                     "cover the shoulders in front and behind, or choose another line"};
    wide_ = body_.mm("bicep") + trim_.length(sleeve::kRoom);
    const double arm = body_.mm("arm_length");
    switch (trim_.option(sleeve::kEndsAt)) {
      case sleeve::EndsAt::Short:
        long_ = kShort * arm;
        break;
      case sleeve::EndsAt::Elbow:
        long_ = kElbow * arm;
        break;
      case sleeve::EndsAt::Wrist:
        long_ = arm;
        break;
      case sleeve::EndsAt::Length:
        long_ = trim_.length(sleeve::kLong);
    }
    return std::nullopt;
  }

  // The height of the cap and how its width is divided.
  bool fitCap() {
    const double ease = trim_.length(sleeve::kEase), whole = front_ + back_;
    const double forFront = front_ + ease * front_ / whole, forBack = back_ + ease * back_ / whole;
    const auto length = [](double wide, double high, double hollow) {
      return capCurve({}, wide, high, hollow).length();
    };
    const auto front = [&](double high) {
      return growingRoot([&](double w) { return length(w, high, kHollowFront) - forFront; }, 0, wide_);
    };
    const auto tooLong = [&](double high) { return length(wide_ - front(high), high, kHollowBack) - forBack; };
    const double highest = std::min(forFront, forBack) - 1;
    if (highest <= 1 || tooLong(1) > 0 || tooLong(highest) < 0) return false;
    cap_ = growingRoot(tooLong, 1, highest);
    inFront_ = front(cap_);
    return cap_ < long_;
  }

  std::optional<RingPlan> planFlounce() const {
    return planRing({hemWidth(), trim_.number(sleeve::kTurns), false, trim_.length(sleeve::kFlounce),
                     trim_.length(sleeve::kSeam), trim_.length(sleeve::kHem), trimClothWidth(trim_, rules_)});
  }

  // Rings, or parts of one, on the hem of the sleeve at this place.
  void addFlounce(size_t host, const RingPlan& ring) {
    const double deep = trim_.length(sleeve::kFlounce), outer = ring.radius + deep, half = ring.angle / 2,
                 seam = trim_.length(sleeve::kSeam), hem = trim_.length(sleeve::kHem);
    const Vec2 o = besideAll(pattern_) + Vec2{outer, outer};
    const Path sewn = arc(o, ring.radius, -half, half), free = arc(o, outer, half, -half);
    Piece p = trimPiece(trim_, 1, 1);
    p.id += "-flounce";
    p.name = msg("{}, flounce", trim_.title());
    p.symmetry = Symmetry::Pair;
    p.copies = 2 * ring.pieces;
    p.edges = {{"sewn", EdgeRole::Raw, seam, sewn},
               {"end", EdgeRole::Raw, seam, Path::line(sewn.end(), free.start())},
               {"free", EdgeRole::Hem, hem, free},
               {"start", EdgeRole::Raw, seam, Path::line(free.end(), sewn.start())}};
    p.grainTop = o + Vec2{0, ring.radius + 0.15 * deep};
    p.grainBottom = o + Vec2{0, ring.radius + 0.85 * deep};
    const PieceEdge attached{pattern_.pieces.size(), "sewn"};
    const double each = sewn.length();
    pattern_.pieces.push_back(std::move(p));
    for (int k = 0; k < ring.pieces; ++k)
      pattern_.attachments.push_back({.id = trim_.id(),
                                      .name = trim_.title(),
                                      .piece = host,
                                      .edge = "hem",
                                      .from = k * each,
                                      .to = (k + 1) * each,
                                      .attached = attached,
                                      .onTo = each,
                                      .full = 1,
                                      .reach = {deep, ReachWay::Down},
                                      .trim = trim_.id()});
  }

  double hemWidth() const {
    const double arm = body_.mm("arm_length");
    switch (trim_.option(sleeve::kBelow)) {
      case sleeve::Below::Straight:
        return wide_;
      case sleeve::Below::Flared:
        return wide_ + trim_.length(sleeve::kFlare);
      case sleeve::Below::Fitted:
        break;
    }
    const double wrist = body_.mm("wrist") + trim_.length(sleeve::kWrist);
    const double part = std::clamp((long_ - cap_) / std::max(1.0, arm - cap_), 0.0, 1.0);
    return wide_ + part * (std::min(wrist, wide_) - wide_);
  }

  Piece draw() const {
    const Vec2 crown = besideAll(pattern_) + Vec2{inFront_, 0};
    const Path front = capCurve(crown, -inFront_, cap_, kHollowFront),
               back = capCurve(crown, wide_ - inFront_, cap_, kHollowBack).reversed();
    const double middle = (front.start().x + back.end().x) / 2, hem = hemWidth() / 2, low = crown.y + long_;
    const Vec2 left{middle - hem, low}, right{middle + hem, low};
    const double seam = trim_.length(sleeve::kSeam);
    Piece p = trimPiece(trim_, 1, 1);
    p.symmetry = Symmetry::Pair;
    p.copies = 2;
    p.edges.push_back({"cap-front", EdgeRole::Raw, seam, front});
    p.edges.push_back({"cap-back", EdgeRole::Raw, seam, back});
    p.edges.push_back({"under-back", EdgeRole::Raw, seam, Path::line(back.end(), right)});
    const double hemAllowance = trim_.length(trim_.length(sleeve::kFlounce) > 0 ? sleeve::kSeam : sleeve::kHem);
    p.edges.push_back({"hem", EdgeRole::Hem, hemAllowance, Path::line(right, left)});
    p.edges.push_back({"under-front", EdgeRole::Raw, seam, Path::line(left, front.start())});
    p.marks.push_back(notchMark("front", {"cap-front", notch_}));
    p.marks.push_back(notchMark("shoulder", {"cap-back", 0}));
    p.marks.push_back(notchMark("back", {"cap-back", back.length() - notch_}, true));
    p.grainTop = {middle, crown.y + cap_};
    p.grainBottom = {middle, crown.y + cap_ + 0.8 * (long_ - cap_)};
    return p;
  }

  void tell(const Piece& piece) {
    const double cap = piece.edge("cap-front").path.length() + piece.edge("cap-back").path.length();
    pattern_.workings.push_back(
        {"trim." + trim_.id(),
         msg("{}, its cap", trim_.title()),
         {{'+', "front armhole", front_, Source::Computed},
          {'+', "back armhole", back_, Source::Computed},
          trim_.term(sleeve::kEase)},
         cap,
         msg("{} high, {:.0f} % of the armhole (a third is usual), {} wide at the arm; notches {} "
             "from the side; common practice",
             Length{cap_}, 100 * cap_ / (front_ + back_), Length{wide_}, Length{notch_})});
  }

  static constexpr double kLeastHalf = 40;  // mm of armhole in front or behind

  Pattern& pattern_;
  const TrimStretch& stretch_;
  const TrimChoice& trim_;
  const Body& body_;
  const Rules& rules_;
  double front_ = 0, back_ = 0, notch_ = 0, wide_ = 0, long_ = 0, cap_ = 0, inFront_ = 0;
};

}  // namespace

std::optional<Problem> addSleeve(Pattern& pattern, const TrimStretch& stretch, const TrimChoice& trim, const Body& body,
                                 const Rules& rules) {
  return Sleeve(pattern, stretch, trim, body, rules).make();
}

}  // namespace armure
