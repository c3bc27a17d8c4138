#include "parts/frill/frill.h"

#include <fmt/format.h>

#include <algorithm>
#include <cmath>
#include <numbers>
#include <vector>

#include "parts/frill/rules.h"
#include "parts/trims/sewn_on.h"

namespace armure {
namespace {

constexpr double kLongestAlong = 5000;  // mm of a strip that lies along the cloth: two to three arm spans

class Frill {
 public:
  Frill(Pattern& pattern, const TrimStretch& stretch, const TrimChoice& trim, const Rules& rules)
      : pattern_(pattern), stretch_(stretch), trim_(trim), rules_(rules) {}

  std::optional<Problem> make() && {
    measure();
    if (how() == frill::Drawn::Box && each_ / perLength_ < 2 * depth_)
      return Problem{trim_.title(), msg("its {} box pleats would lie over each other", perLength_ * lengths_),
                     "take fewer of them, or less deep"};
    Piece piece = strip();
    tell();
    sewOn(pattern_, stretch_, trim_, std::move(piece), "sewn", 0, each_, {trim_.length(frill::kDeep), ReachWay::Down});
    if (trim_.option(frill::kStiffened) == frill::Stiff::Interfaced) interface();
    return std::nullopt;
  }

 private:
  frill::Drawn how() const { return trim_.option(frill::kHow); }
  bool pleated() const { return how() != frill::Drawn::Gathered; }
  bool folded() const { return trim_.option(frill::kCutAs) == frill::StripCut::Folded; }
  double head() const { return trim_.length(frill::kHead); }
  double finished() const { return trim_.length(frill::kDeep) + head(); }
  double deep() const { return folded() ? 2 * finished() : finished(); }
  // What one pleat takes of the strip, by its depth.
  double times() const { return how() == frill::Drawn::Box ? 4 : 2; }

  // Lengths and pleats of the strip.
  void measure() {
    const double whole = stretch_.whole(), full = trim_.number(frill::kFull);
    depth_ = trim_.length(frill::kPleat);
    double asked = pleated() ? trim_.number(frill::kPleats) : 0;
    const bool byFullness = asked < 1;
    if (byFullness) asked = std::max(1.0, std::round((full - 1) * whole / (times() * depth_)));
    const double strip = pleated() && !byFullness ? whole + asked * times() * depth_ : full * whole;
    lengths_ = std::max(1, static_cast<int>(std::ceil(strip / longest() - 1e-9)));
    each_ = whole / lengths_;
    if (!pleated()) {
      length_ = strip / lengths_;
      return;
    }
    perLength_ = std::max(1, static_cast<int>(std::lround(asked / lengths_)));
    if (byFullness) depth_ = (full - 1) * each_ / (perLength_ * times());
    length_ = each_ + perLength_ * times() * depth_;
  }

  // That can be cut from the cloth at once.
  double longest() const {
    const double width = trimClothWidth(trim_, rules_) - 2 * trim_.length(frill::kSeam);
    switch (trim_.option(frill::kGrainLies)) {
      case frill::Grain::Along:
        return kLongestAlong;
      case frill::Grain::Bias:
        return std::max(100.0, width * std::numbers::sqrt2 - deep());
      case frill::Grain::Across:
        break;
    }
    return std::max(100.0, width);
  }

  Piece strip() const {
    const Vec2 a = besideAll(pattern_), b = a + Vec2{length_, 0}, c = b + Vec2{0, deep()}, d = a + Vec2{0, deep()};
    const double seam = trim_.length(frill::kSeam), hem = trim_.length(frill::kHem);
    const bool heading = head() > 0 && !folded(), joined = stretch_.isRing() || stretch_.apart || lengths_ > 1;
    Piece p = trimPiece(trim_, 1, 1);
    const auto edge = [&](const char* id, bool free, Vec2 from, Vec2 to) {
      p.edges.push_back({id, free ? EdgeRole::Hem : EdgeRole::Raw, free ? hem : seam, Path::line(from, to)});
    };
    edge("sewn", heading, a, b);
    edge("end", !joined, b, c);
    edge("free", !folded(), c, d);
    edge("start", !joined, d, a);
    p.copies = lengths_ * stretch_.count();
    p.symmetry = symmetryOn(stretch_);
    mark(p);
    const Vec2 middle = a + Vec2{length_ / 2, deep() / 2};
    const double reach = 0.35 * std::min(deep(), length_);
    Vec2 grain{0, 1};
    if (trim_.option(frill::kGrainLies) == frill::Grain::Along) grain = {1, 0};
    if (trim_.option(frill::kGrainLies) == frill::Grain::Bias) grain = std::numbers::sqrt2 / 2 * Vec2{1, 1};
    p.grainTop = middle - reach * grain;
    p.grainBottom = middle + reach * grain;
    return p;
  }

  // Quarters of a gathered strip; folds of a pleated one, and where each is laid to; the line under a heading.
  void mark(Piece& p) const {
    const auto notch = [&](std::string id, const char* edge, double at) {
      p.marks.push_back(notchMark(std::move(id), {edge, at}));
    };
    for (int k = 0; k < perLength_; ++k) {
      const double middle = (k + 0.5) * length_ / perLength_;
      const bool box = how() == frill::Drawn::Box;
      for (const double by : box ? std::vector<double>{-3, -1, 1, 3} : std::vector<double>{-1, 1})
        notch(fmt::format("pleat-{}", k + 1), "sewn", middle + by * depth_);
    }
    if (!pleated())
      for (const int quarter : {1, 2, 3}) notch(fmt::format("quarter-{}", quarter), "sewn", quarter * length_ / 4);
    if (head() <= 0) return;
    notch("heading", "end", head());
    notch("heading", "start", deep() - head());
  }

  // Light interfacing over the finished depth, without allowances.
  void interface() {
    const Vec2 a = besideAll(pattern_), b = a + Vec2{length_, 0};
    const Vec2 down{0, finished()};
    Piece p = trimPiece(trim_, 1, 1);
    p.id = "interfacing-" + p.id;
    p.name = msg("{}, interfacing", trim_.title());
    p.layer = "interfacing";
    p.source = trim_.id();
    p.symmetry = symmetryOn(stretch_);
    p.edges = {{"sewn", EdgeRole::Raw, 0, Path::line(a, b)},
               {"end", EdgeRole::Raw, 0, Path::line(b, b + down)},
               {"free", EdgeRole::Raw, 0, Path::line(b + down, a + down)},
               {"start", EdgeRole::Raw, 0, Path::line(a + down, a)}};
    p.copies = lengths_ * stretch_.count();
    p.grainTop = a + Vec2{length_ / 2, 0.15 * finished()};
    p.grainBottom = a + Vec2{length_ / 2, 0.85 * finished()};
    pattern_.pieces.push_back(std::move(p));
  }

  void tell() {
    Working w{"trim." + trim_.id(), msg("{}, its strip", trim_.title()), {}, lengths_ * length_, {}};
    w.terms.push_back({'+', stretch_.line.name, stretch_.whole(), Source::Computed});
    w.terms.push_back({'+', pleated() ? Message("under the pleats") : Message("fullness"),
                       lengths_ * length_ - stretch_.whole(), trim_.value(frill::kFull.text).source});
    const Message lengths =
        msg("cut in {} lengths of {}, {} deep", lengths_ * stretch_.count(), Length{length_}, Length{deep()});
    w.note = pleated() ? msg("{:.2f} times its edge; {} pleats in each, {} deep; {}; common practice", length_ / each_,
                             perLength_, Length{depth_}, lengths)
                       : msg("{:.2f} times its edge; {}; common practice", length_ / each_, lengths);
    pattern_.workings.push_back(std::move(w));
  }

  Pattern& pattern_;
  const TrimStretch& stretch_;
  const TrimChoice& trim_;
  const Rules& rules_;
  int lengths_ = 1, perLength_ = 0;           // of strip, of each piece of work; and pleats in each
  double each_ = 0, length_ = 0, depth_ = 0;  // edge that one length covers, the length, depth of a pleat; mm
};

}  // namespace

std::optional<Problem> addFrill(Pattern& pattern, const TrimStretch& stretch, const TrimChoice& trim, const Body&,
                                const Rules& rules) {
  return Frill(pattern, stretch, trim, rules).make();
}

}  // namespace armure
