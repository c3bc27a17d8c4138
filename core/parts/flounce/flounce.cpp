#include "parts/flounce/flounce.h"

#include <fmt/format.h>

#include <algorithm>
#include <cmath>
#include <numbers>
#include <utility>
#include <vector>

#include "geometry/arc.h"
#include "geometry/root.h"
#include "parts/flounce/rules.h"
#include "parts/trims/ring.h"
#include "parts/trims/sewn_on.h"

namespace armure {
namespace {

constexpr double kTurn = 2 * std::numbers::pi;

class Flounce {
 public:
  Flounce(Pattern& pattern, const TrimStretch& stretch, const TrimChoice& trim, const Rules& rules)
      : pattern_(pattern),
        stretch_(stretch),
        trim_(trim),
        rules_(rules),
        seam_(trim.length(flounce::kSeam)),
        hem_(trim.length(flounce::kHem)),
        long_(trim.length(flounce::kLong)),
        grows_(trim.length(flounce::kGrows)) {}

  std::optional<Problem> make() && {
    if (long_ + grows_ < 5)
      return Problem{trim_.title(), "nothing is left of its length at its end", "let it become shorter by less"};
    // One that grows is cut in halves, each the mirror image of the other.
    edge_ = grows() ? stretch_.half() : stretch_.whole();
    turns_ = trim_.number(flounce::kTurns) * edge_ / stretch_.whole();
    const bool spiral = trim_.option(flounce::kCutIn) == flounce::RingCut::Spiral;
    if (!(spiral ? windSpiral() : divideRing()))
      return Problem{trim_.title(), msg("an edge of {} is too short for so many turns", Length{stretch_.whole()}),
                     "take fewer turns"};
    spiral ? addSpiral() : addRings();
    tell(spiral);
    return std::nullopt;
  }

 private:
  bool grows() const { return std::abs(grows_) > 1e-6; }
  double longest() const { return long_ + std::max(0.0, grows_); }
  double lengthAt(double part) const { return long_ + grows_ * part; }

  // Radius and pieces. False where the ring is too small.
  bool divideRing() {
    const auto ring = planRing({edge_, turns_, trim_.option(flounce::kCutIn) == flounce::RingCut::Halves, longest(),
                                seam_, hem_, trimClothWidth(trim_, rules_)});
    if (!ring) return false;
    pieces_ = ring->pieces;
    radius_ = ring->radius;
    return true;
  }

  // From `from` to `to`, parts of the half (or the whole) it covers.
  Piece sector(double from, double to, int part) const {
    const double angle = (to - from) * edge_ / radius_;
    const Vec2 o = besideAll(pattern_) + Vec2{radius_ + longest(), radius_ + longest()};
    const auto outer = [&](double a) {
      const double l = lengthAt(from + (to - from) * (a / angle + 0.5)), by = grows_ * (to - from) / angle;
      const Vec2 out{std::sin(a), std::cos(a)};
      return CurvePoint{o + (radius_ + l) * out, by * out + (radius_ + l) * Vec2{out.y, -out.x}};
    };
    Path sewn = arc(o, radius_, -angle / 2, angle / 2);
    Path free = grows() ? curve(outer, angle / 2, -angle / 2) : arc(o, radius_ + long_, angle / 2, -angle / 2);
    Piece p = trimPiece(trim_, part, grows() ? pieces_ : 1);
    close(p, std::move(sewn), std::move(free), isJoined(grows() && part == pieces_), isJoined(grows() && part == 1));
    const double l = lengthAt((from + to) / 2);
    p.grainTop = o + Vec2{0, radius_ + 0.15 * l};
    p.grainBottom = o + Vec2{0, radius_ + 0.85 * l};
    return p;
  }

  // Whether an end is sewn to another; `last` of one that grows are the ends of the half.
  bool isJoined(bool last) const {
    if (last) return stretch_.over[0] || stretch_.over[1];
    return stretch_.isRing() || stretch_.apart || pieces_ > 1;
  }

  void close(Piece& p, Path sewn, Path free, bool endJoined, bool startJoined) const {
    const Path end = Path::line(sewn.end(), free.start()), start = Path::line(free.end(), sewn.start());
    const auto role = [](bool joined) { return joined ? EdgeRole::Raw : EdgeRole::Hem; };
    p.edges.push_back({"sewn", EdgeRole::Raw, seam_, std::move(sewn)});
    p.edges.push_back({"end", role(endJoined), seam_, end});
    p.edges.push_back({"free", EdgeRole::Hem, hem_, std::move(free)});
    p.edges.push_back({"start", role(startJoined), seam_, start});
    const double length = p.edges.front().path.length();
    for (const int quarter : {1, 2, 3})
      p.marks.push_back(notchMark(fmt::format("quarter-{}", quarter), {"sewn", quarter * length / 4}));
  }

  void add(Piece p, double from, double each, int pieces) {
    p.symmetry = grows() ? Symmetry::Pair : symmetryOn(stretch_);
    p.copies = grows() ? 2 : pieces * stretch_.count();
    const double left = grows() && stretch_.isOver() && stretch_.over[0] ? stretch_.half() : 0;
    sewOn(pattern_, stretch_, trim_, std::move(p), "sewn", left + from, each, {long_ + grows_ / 2, ReachWay::Down});
  }

  void addRings() {
    const double each = edge_ / pieces_;
    if (!grows()) return add(sector(0, 1.0 / pieces_, 1), 0, each, pieces_);
    for (int k = 0; k < pieces_; ++k)
      add(sector(k / static_cast<double>(pieces_), (k + 1) / static_cast<double>(pieces_), k + 1), k * each, each, 1);
  }

  // Arc length of the spiral up to a radius.
  double spiralTo(double r) const {
    return (r * std::hypot(r, rise_) + rise_ * rise_ * std::asinh(r / rise_)) / (2 * rise_);
  }

  bool windSpiral() {
    pieces_ = 1;
    rise_ = (longest() + seam_ + hem_ + kRingSpare) / kTurn;
    const auto length = [&](double r0) { return spiralTo(r0 + rise_ * kTurn * turns_) - spiralTo(r0); };
    const double least = leastRingRadius(seam_);
    if (length(least) > edge_) return false;
    radius_ = growingRoot([&](double r0) { return length(r0) - edge_; }, least, least + edge_ / (kTurn * turns_));
    return true;
  }

  void addSpiral() {
    const double angle = kTurn * turns_, outermost = radius_ + rise_ * angle + longest();
    const Vec2 o = besideAll(pattern_) + Vec2{outermost, outermost};
    // At an angle from its beginning, `out` being 1 on the outer edge.
    const auto at = [&](double phi, double out) {
      const double a = phi - angle / 2, r = radius_ + rise_ * phi + out * lengthAt(phi / angle);
      const Vec2 away{std::sin(a), std::cos(a)};
      return CurvePoint{o + r * away, (rise_ + out * grows_ / angle) * away + r * Vec2{away.y, -away.x}};
    };
    Piece p = trimPiece(trim_, 1, 1);
    close(p, curve([&](double phi) { return at(phi, 0); }, 0, angle),
          curve([&](double phi) { return at(phi, 1); }, angle, 0), isJoined(grows()), isJoined(grows()));
    p.grainTop = at(angle / 2, 0.15).at;
    p.grainBottom = at(angle / 2, 0.85).at;
    add(std::move(p), 0, edge_, 1);
  }

  void tell(bool spiral) {
    Working w{"trim." + trim_.id(), msg("{}, its inner radius", trim_.title()), {}, radius_, {}};
    w.terms.push_back({'+', stretch_.line.name, stretch_.whole(), Source::Computed});
    const int all = pieces_ * (grows() ? 2 : stretch_.count());
    w.note = spiral ? msg("where the spiral begins; {:.2f} turns, without joins; common practice", turns_)
                    : msg("edge / (2 pi turns), {:.2f} turns; cut {} times, outer edge {} in all; common practice",
                          trim_.number(flounce::kTurns), all,
                          Length{all * edge_ / pieces_ * (1 + (long_ + grows_ / 2) / radius_)});
    pattern_.workings.push_back(std::move(w));
  }

  Pattern& pattern_;
  const TrimStretch& stretch_;
  const TrimChoice& trim_;
  const Rules& rules_;
  const double seam_, hem_, long_, grows_;
  double edge_ = 0, turns_ = 0, radius_ = 0, rise_ = 0;  // of the half, or of the whole; of the spiral, mm/rad
  int pieces_ = 1;
};

}  // namespace

std::optional<Problem> addFlounce(Pattern& pattern, const TrimStretch& stretch, const TrimChoice& trim, const Body&,
                                  const Rules& rules) {
  return Flounce(pattern, stretch, trim, rules).make();
}

}  // namespace armure
