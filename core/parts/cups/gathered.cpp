#include "parts/cups/gathered.h"

#include <algorithm>
#include <cmath>
#include <numbers>
#include <stdexcept>

#include "operations/crossing.h"
#include "parts/cups/cup_line.h"
#include "parts/cups/rules.h"
#include "pattern/outline_parts.h"

namespace armure {
namespace {

constexpr double kMostTurn = 4;   // rad: a piece fanned further lies over itself
constexpr double kKnots = 22;     // mm between the knots of an edge drawn smooth
constexpr double kFromEnds = 8;   // mm: no slash nearer to the ends of an edge
constexpr double kMiddle = 0.25;  // "its middle half" begins here
constexpr double kPastCentre =
    0.1;  // "towards the centre" ends this far behind the princess line, part of the cup line

// One smooth path through points of another at these lengths: Bessel tangents (the parabola through three neighbours),
// these directions at its ends.
Path smoothThrough(const Path& path, const std::vector<double>& at, Vec2 first, Vec2 last) {
  std::vector<Vec2> p, m;
  for (double s : at) p.push_back(path.pointAt(s));
  for (size_t i = 0; i < at.size(); ++i) {
    if (i == 0 || i + 1 == at.size()) {
      m.push_back(i == 0 ? first : last);
      continue;
    }
    const double h0 = at[i] - at[i - 1], h1 = at[i + 1] - at[i];
    m.push_back((h1 / h0 * (p[i] - p[i - 1]) + h0 / h1 * (p[i + 1] - p[i])) / (h0 + h1));
  }
  std::vector<Cubic> cubics;
  for (size_t i = 0; i + 1 < at.size(); ++i) {
    const double third = distance(p[i], p[i + 1]) / 3;
    cubics.push_back({p[i], p[i] + third * unit(m[i]), p[i + 1] - third * unit(m[i + 1]), p[i + 1]});
  }
  return Path(std::move(cubics));
}

// A spread edge drawn smooth: through its ends and the middles of its strips, so that the steps between them are cut
// off evenly; a long strip has several places. `cuts` are the slashes along the edge before it was spread, ascending;
// `gap` is the cloth that came in at each.
Path smoothed(const Path& spread, double length, const std::vector<double>& cuts, double gap) {
  std::vector<double> at{0};
  double from = 0, shift = 0;
  for (size_t k = 0; k <= cuts.size(); ++k) {
    const double to = k < cuts.size() ? cuts[k] : length;
    const int places = std::max(1, static_cast<int>(std::lround((to - from) / kKnots)));
    for (int i = 0; i < places; ++i) at.push_back(shift + from + (to - from) * (i + 0.5) / places);
    from = to;
    shift += gap;
  }
  at.push_back(spread.length());
  return smoothThrough(spread, at, spread.startTangent(), spread.endTangent());
}

class Gatherer {
 public:
  Gatherer(Pattern& pattern, const Rules& rules)
      : pattern_(pattern), rules_(rules), whole_(rules.option(key::kCupKind) == CupKind::Whole) {}

  std::optional<Problem> gather() && {
    if (whole_ && !endsAtUpperEdge())
      return Problem{"Gathered cup", "above the bust the cup is not the upper edge: it is sewn to a yoke or goes on up",
                     "choose a strapless edge (cover.kind=strapless), or gather it under a band (cup.kind=gathered)"};
    layTogether();
    const double gap = rules_.length(key::kGatherGap);
    const bool fanned = rules_.option(key::kGatherSpread) == GatherSpread::Fanned;
    findRegion();
    const std::vector<Slash> slashes = findSlashes();
    if (slashes.empty())
      return Problem{"Gathered cup", "there is no room for a slash in the lower cup",
                     "make the strips narrower, or let the gathers go to the whole edge"};
    if (shortest(slashes) < gap / 2)
      return Problem{"Gathered cup",
                     msg("a slash is only {:.0f} mm long and is to be spread by {:.0f}", shortest(slashes), gap),
                     "spread it less, or make the band less deep"};
    if (const double turn = fanned ? turnOf(slashes, gap) : 0; turn > kMostTurn)
      return Problem{"Gathered cup",
                     msg("fanned by so much the lower cup turns through {:.0f} degrees", turn * 180 / std::numbers::pi),
                     "spread it less, make the strips wider, or spread it straight"};
    const SpreadPiece spread = slashAndSpread(upper_, lower_, slashes, gap, fanned);
    // Where things lie on the edges once cloth has come in before them.
    double princess = princessUpper_;
    if (!fanned)
      for (const Slash& k : slashes) princess += k.upper < princessUpper_ ? gap : 0;
    const double middle = onLowerOf(l2_ + wedge_ / 2, slashes, gap);
    makePiece(spread, princess, middle, slashes, gap, fanned);
    tell(slashes.size(), gap, spread);
    return std::nullopt;
  }

 private:
  static double onLowerOf(double s, const std::vector<Slash>& slashes, double gap) {
    double moved = s;
    for (const Slash& k : slashes)
      if (k.lower < s) moved += gap;
    return moved;
  }

  size_t place(std::string_view id) const {
    for (size_t i = 0; i < pattern_.pieces.size(); ++i)
      if (pattern_.pieces[i].id == id) return i;
    throw std::out_of_range("gathered cup: no piece " + std::string(id));
  }

  double shortest(const std::vector<Slash>& slashes) const {
    double least = HUGE_VAL;
    for (const Slash& s : slashes) least = std::min(least, distance(upper_.pointAt(s.upper), lower_.pointAt(s.lower)));
    return least;
  }

  double turnOf(const std::vector<Slash>& slashes, double gap) const {
    double turn = 0;
    for (const Slash& s : slashes)
      turn += 2 * std::asin(std::min(1.0, gap / (2 * distance(upper_.pointAt(s.upper), lower_.pointAt(s.lower)))));
    return turn;
  }

  void layTogether() {
    inner_ = place("cup-inner");
    outer_ = place("cup-outer");
    const Seam* princess = pattern_.seam("princess-cup");
    if (!princess) throw std::out_of_range("gathered cup: no seam between the lower pieces");
    const Motion m = closedAt(pattern_, *princess, true);
    const Piece &in = pattern_.pieces[inner_], &out = pattern_.pieces[outer_];
    const Path u1 = upperOf(in, "band-1").path, l1 = in.edge("cup-1").path;
    const Path u2 = upperOf(out, "band-2").path.transformed(m), l2 = out.edge("cup-2").path.transformed(m);
    princessUpper_ = u1.length();
    upper_ = u1 + withEnds(u2, u1.end(), u2.end());
    wedge_ = distance(l2.end(), l1.start());
    l1_ = l1.length();
    l2_ = l2.length();
    lower_ = l2 + Path::line(l2.end(), l1.start()) + l1;
  }

  // Whether both pieces have the garment's upper edge, and nothing but it, above.
  bool endsAtUpperEdge() const {
    return std::ranges::all_of(std::initializer_list<const char*>{"cup-inner", "cup-outer"}, [&](const char* id) {
      const Piece& p = pattern_.pieces[place(id)];
      const auto tops = std::ranges::count_if(p.edges, [](const Edge& e) { return e.role == EdgeRole::Top; });
      return tops == 1 && std::ranges::all_of(p.edges, [](const Edge& e) {
               return e.role == EdgeRole::Top || e.role == EdgeRole::Seam || e.role == EdgeRole::Cup ||
                      e.role == kBetweenCups;
             });
    });
  }

  // The edge of a lower piece that is sewn to the band; without a band, its part of the garment's upper edge.
  const Edge& upperOf(const Piece& piece, std::string_view band) const {
    if (!whole_) return piece.edge(band);
    for (const Edge& e : piece.edges)
      if (e.role == EdgeRole::Top) return e;
    throw std::out_of_range("gathered cup: no upper edge on " + piece.id);
  }

  // Which part of the lower edge is gathered, as lengths along the cup line from the centre out.
  void findRegion() {
    const auto to = rules_.option(key::kGatherTo);
    const double all = l1_ + l2_;
    from_ = to == GatheredInto::Middle ? kMiddle * all : 0;
    to_ = to == GatheredInto::Middle   ? (1 - kMiddle) * all
          : to == GatheredInto::Centre ? std::min(all, l1_ + kPastCentre * all)
                                       : all;
    if (from_ >= l1_ - kFromEnds) from_ = std::max(0.0, l1_ - 2 * kFromEnds);
    if (to_ <= l1_ + kFromEnds) to_ = std::min(all, l1_ + 2 * kFromEnds);
  }

  // From a place on the cup line to one on the lower edge, which runs the other way.
  double onLowerEdge(double f) const { return lower_.length() - (f <= l1_ ? f : f + wedge_); }
  double onCupLine(double s) const {
    const double back = lower_.length() - s;
    return back <= l1_ ? back : std::max(l1_, back - wedge_);
  }

  std::vector<Slash> findSlashes() const {
    const double strip = rules_.length(key::kGatherStrip), left = upper_.start().x, right = upper_.end().x;
    const int count = std::max(1, static_cast<int>(std::floor((right - left) / strip)) - 1);
    std::vector<Slash> slashes;
    for (int i = 0; i < count; ++i) {
      const double x = left + (right - left) * (i + 1) / (count + 1);
      const std::vector<double> u = upper_.crossings({x, 0}, {0, 1}), l = lower_.crossings({x, 0}, {0, 1});
      if (u.empty() || l.empty()) continue;
      const double lowest = *std::max_element(
          l.begin(), l.end(), [&](double a, double b) { return lower_.pointAt(a).y < lower_.pointAt(b).y; });
      const double f = onCupLine(lowest);
      if (f < from_ || f > to_ || lower_.pointAt(lowest).y < upper_.pointAt(u.front()).y + kFromEnds) continue;
      slashes.push_back({u.front(), lowest});
    }
    return slashes;
  }

  void makePiece(const SpreadPiece& spread, double princess, double middle, const std::vector<Slash>& slashes,
                 double gap, bool fanned) {
    Piece cup = pattern_.pieces[inner_];
    cup.id = "cup-gathered";
    cup.name = whole_ ? "Cup, gathered" : "Lower cup, gathered";
    cup.part = Part::Cup;
    cup.marks.clear();
    std::vector<double> above, below;
    for (const Slash& k : slashes) above.push_back(k.upper), below.insert(below.begin(), k.lower);
    const Path evened = smoothed(spread.upper, upper_.length(), above, fanned ? 0 : gap);
    const Path upper = fanned ? evened : dipped(evened), lower = smoothed(spread.lower, lower_.length(), below, gap);
    const double su = upper.length() / spread.upper.length(), sl = lower.length() / spread.lower.length();
    const double allowance = pattern_.pieces[inner_].edge("cup-1").allowance;
    const Edge above1 = upperOf(pattern_.pieces[inner_], "band-1");
    const double pu = princess * su, pl = middle * sl;
    cup.edges.clear();
    if (whole_) {
      cup.edges.push_back({above1.id, above1.role, above1.allowance, upper});
    } else {
      cup.edges.push_back({"band-1", EdgeRole::Seam, above1.allowance, upper.sub(0, pu)});
      cup.edges.push_back({"band-2", EdgeRole::Seam, above1.allowance, upper.sub(pu, upper.length())});
    }
    cup.edges.push_back({"cup-2", EdgeRole::Cup, allowance, lower.sub(0, pl)});
    cup.edges.push_back({"cup-1", EdgeRole::Cup, allowance, lower.sub(pl, lower.length())});
    for (const Edge& e : pattern_.pieces[inner_].edges)
      if (e.role == kBetweenCups) cup.edges.push_back(e);
    const auto meet = [&](size_t a, size_t b) {
      cup.edges[b].path = withEnds(cup.edges[b].path, cup.edges[a].path.end(), cup.edges[b].path.end());
    };
    for (size_t i = 0; i + 1 < cup.edges.size(); ++i) meet(i, i + 1);
    meet(cup.edges.size() - 1, 0);
    spanLevels();
    replace(std::move(cup));
    const auto onEdge = [&](double f) { return onLowerOf(onLowerEdge(f), slashes, gap) * sl; };
    planInner(from_ > kFromEnds ? std::optional(from_) : std::nullopt, onEdge(from_) - pl);
    planOuter(to_ < l1_ + l2_ - kFromEnds ? std::optional(to_ - l1_) : std::nullopt, onEdge(to_));
    if (whole_) return;
    for (const char* id : {"band-1", "band-2"}) planBand(id, !fanned);
  }

  // Lower towards the centre, nothing at both ends.
  Path dipped(const Path& path) const {
    const double dip = rules_.length(key::kGatherDip);
    std::vector<Cubic> cubics = path.cubics();
    const double left = path.start().x, wide = path.end().x - left;
    const auto lowered = [&](Vec2 p) {
      constexpr double kDeepest = 0.35;  // of the way across
      const double t = std::clamp((p.x - left) / wide, 0.0, 1.0), peak = std::log(0.5) / std::log(kDeepest);
      const double s = std::sin(std::numbers::pi * std::pow(t, peak));
      return Vec2{p.x, p.y + dip * s * s};
    };
    // Through the lowered joints, then smooth again.
    std::vector<Vec2> points{lowered(cubics.front().p0)};
    for (const Cubic& c : cubics) points.push_back(lowered(c.p3));
    const Path polyline = Path::polyline(points);
    std::vector<double> at{0};
    for (const Cubic& c : polyline.cubics()) at.push_back(at.back() + c.length());
    return smoothThrough(polyline, at, path.startTangent(), path.endTangent());
  }

  // What the flat pieces spanned on the levels counts with their openings from here on.
  void spanLevels() {
    for (PatternLevel& l : pattern_.levels)
      for (size_t i : {inner_, outer_})
        for (const LevelLine& m : pattern_.pieces[i].levelLines())
          if (m.level == l.id && l.ring) l.gaps.gathers += m.width() * pattern_.pieces[i].girthWeight();
  }

  void replace(Piece cup) {
    pattern_.pieces[inner_] = std::move(cup);
    pattern_.pieces.erase(pattern_.pieces.begin() + static_cast<std::ptrdiff_t>(outer_));
    std::erase_if(pattern_.seams, [](const Seam& s) { return s.id == "princess-cup"; });
    const auto moved = [&](size_t i) { return i == outer_ ? inner_ : i > outer_ ? i - 1 : i; };
    for (Seam& s : pattern_.seams)
      for (SeamSide* side : {&s.a, &s.b}) side->piece = moved(side->piece);
    for (Trim& t : pattern_.trims) t.piece = moved(t.piece);
  }

  Seam& seam(std::string_view id) {
    for (Seam& s : pattern_.seams)
      if (s.id == id) return s;
    throw std::out_of_range("gathered cup: no seam " + std::string(id));
  }

  // Old notches are gone on the gathered side, so they go on the other one too.
  void clearNotches(Seam& s) {
    for (const SeamSide* side : {&s.a, &s.b})
      std::erase_if(pattern_.pieces[side->piece].marks,
                    [&](const Mark& n) { return n.isNotch() && side->uses(n.a.edge); });
    s.notches.clear();
  }

  // The frame is side a, walked from the centre out. `at` is where the gathers begin or end along it, if not at the end
  // of the seam, and `onGathered` the same place on the edge of the gathered piece.
  SeamNotch notched(Seam& s, const std::string& edge, const std::string& id, double at, double onGathered) {
    pattern_.pieces[s.a.piece].marks.push_back(notchMark(id, pattern_.placeOnSide(s.a, at)));
    pattern_.pieces[s.b.piece].marks.push_back(notchMark(id, {edge, onGathered, {}}));
    s.notches.push_back({id, at, pattern_.pieces[s.b.piece].edge(edge).path.length() - onGathered});
    return s.notches.back();
  }
  void gatherBetween(Seam& s, const SeamNotch& from, const SeamNotch& to) {
    s.eases = {{from.id, to.id, (to.a - from.a) - (to.b - from.b)}};
  }
  SeamNotch endOf(const Seam& s) const {
    return {"hem", pattern_.sidePath(s.a).length(), pattern_.sidePath(s.b).length()};
  }
  void planInner(std::optional<double> at, double onGathered) {
    Seam& s = seam("cup-1");
    clearNotches(s);
    const SeamNotch from = at ? notched(s, "cup-1", "gather-1", *at, onGathered) : SeamNotch{"top", 0, 0};
    gatherBetween(s, from, endOf(s));
  }
  void planOuter(std::optional<double> at, double onGathered) {
    Seam& s = seam("cup-2");
    clearNotches(s);
    gatherBetween(s, {"top", 0, 0}, at ? notched(s, "cup-2", "gather-2", *at, onGathered) : endOf(s));
  }

  void planBand(const std::string& id, bool gathered) {
    Seam& s = seam(id);
    clearNotches(s);
    const double surplus = pattern_.sidePath(s.a).length() - pattern_.sidePath(s.b).length();
    if (gathered) s.eases = {{"top", "hem", surplus}};
  }

  void tell(size_t slashes, double gap, const SpreadPiece& spread) {
    const auto count = static_cast<double>(slashes);
    pattern_.workings.push_back({"gather.lower",
                                 "Gathered cup, its lower edge",
                                 {{'+', "cup line of the flat pieces", l1_ + l2_, Source::Computed},
                                  {'+', "left open below the bust point", wedge_, Source::Computed},
                                  {'+', msg("{} slashes, spread apart", slashes), count * gap, Source::Computed}},
                                 spread.lower.length(),
                                 msg("gathered {:.2f} to 1 into the cup line; common practice",
                                     (to_ - from_ + wedge_ + count * gap) / (to_ - from_))});
    pattern_.workings.push_back(
        {"gather.upper",
         "Gathered cup, its upper edge",
         {{'+', whole_ ? "upper edge of the flat pieces" : "edge of the band", upper_.length(), Source::Computed},
          {'+', "spread apart", spread.upper.length() - upper_.length(), Source::Computed}},
         spread.upper.length(),
         "straight strips are spread above as below, fanned ones below only; common practice"});
  }

  Pattern& pattern_;
  const Rules& rules_;
  const bool whole_;  // without a band, up to the garment's upper edge
  size_t inner_ = 0, outer_ = 0;
  Path upper_, lower_;
  double princessUpper_ = 0, l1_ = 0, l2_ = 0, wedge_ = 0, from_ = 0, to_ = 0;
};

}  // namespace

SpreadPiece slashAndSpread(const Path& upper, const Path& lower, const std::vector<Slash>& slashes, double gap,
                           bool fanned) {
  std::vector<Motion> motions{Motion()};
  for (const Slash& s : slashes) {
    const Vec2 top = motions.back().apply(upper.pointAt(s.upper)),
               bottom = motions.back().apply(lower.pointAt(s.lower));
    const double length = distance(top, bottom);
    if (length < gap / 2) throw std::invalid_argument("slashAndSpread: a slash is shorter than half the gap");
    const Vec2 down = unit(bottom - top), aside{down.y, -down.x};
    motions.push_back(motions.back().then(fanned ? Motion::rotationAbout(top, -2 * std::asin(gap / (2 * length)))
                                                 : Motion::translation(gap * aside)));
  }
  SpreadPiece out;
  const auto append = [](Path& to, const Path& part) {
    if (!to.empty() && distance(to.end(), part.start()) > 1e-9) to = to + Path::line(to.end(), part.start());
    to = to.empty() ? part : to + part;
  };
  double from = 0;
  for (size_t k = 0; k <= slashes.size(); ++k) {
    const double to = k < slashes.size() ? slashes[k].upper : upper.length();
    append(out.upper, upper.sub(from, to).transformed(motions[k]));
    from = to;
  }
  from = 0;
  for (size_t k = slashes.size() + 1; k-- > 0;) {
    const double to = k > 0 ? slashes[k - 1].lower : lower.length();
    append(out.lower, lower.sub(from, to).transformed(motions[k]));
    from = to;
  }
  return out;
}

std::optional<Problem> gatherCup(Pattern& pattern, const Rules& rules) { return Gatherer(pattern, rules).gather(); }

}  // namespace armure
