#include "parts/bones/bones.h"

#include <fmt/format.h>

#include <algorithm>
#include <cmath>
#include <optional>
#include <stdexcept>

#include "geometry/tolerances.h"
#include "parts/bones/eyelets.h"
#include "pattern/outline_parts.h"
#include "units/length.h"

namespace armure {
namespace {

constexpr std::string_view kIdBegins = "bone-";
constexpr double kPointsApart = 2;                 // mm between the points of a channel
constexpr double kRoom = kMmPerInch / 16;          // a channel is so much wider than its bone
constexpr double kBesideEyelets = kMmPerInch / 4;  // from the middle of the eyelets to the channel beyond
constexpr double kShortestChannel = 30;            // mm: what is shorter needs no bone

// Without the points that lie on the line between those that are kept, to `off` mm.
Polyline withoutIdlePoints(const Polyline& points, double off) {
  Polyline kept{points.front()};
  for (size_t i = 0; i + 1 < points.size();) {
    const auto straightTo = [&](size_t to) {
      const Vec2 along = unit(points[to] - points[i]);
      for (size_t k = i + 1; k < to; ++k)
        if (std::abs(cross(along, points[k] - points[i])) > off) return false;
      return true;
    };
    size_t next = i + 1;
    while (next + 1 < points.size() && straightTo(next + 1)) ++next;
    kept.push_back(points[next]);
    i = next;
  }
  return kept;
}

// One piece, and where a channel finds room on it.
class Ground {
 public:
  Ground(const Piece& piece, const Rules& rules)
      : piece_(piece), outline_(piece.outline(kFlatness)), width_(channelWidth(rules)) {
    lowest_ = piece.level(hasSkirt(rules) ? level::kHighHip : level::kHip);
    for (const Dart& d : piece.darts) {
      darts_.push_back(d.legs[0].path.flattened(kFlatness));
      for (const Vec2 p : d.legs[1].path.flattened(kFlatness)) darts_.back().push_back(p);
    }
  }
  double width() const { return width_; }

  // Beside a path that runs down: the near line of stitches `aside` from it, the other beyond.
  Polyline beside(const Path& path, bool clothOnRight, double aside) const {
    const double side = clothOnRight ? 1 : -1;
    Polyline middle;
    for (const auto& [at, t] : path.placesEvery(kPointsApart))
      middle.push_back(at + (aside + width_ / 2) * side * Vec2{-t.y, t.x});
    return longestWithin(middle, {});
  }

  // At the same part of the piece's width all the way down, between the edges that run down; on straight beyond them.
  Polyline within(double share) const {
    constexpr double kOn = 400, kEndRun = 30;  // mm: how far beyond, and along what the way on is taken from
    std::vector<Polyline> sides;
    for (const Edge& e : piece_.edges)
      if (!isFree(e.role)) sides.push_back(e.path.flattened(kFlatness));
    Polyline middle;
    for (double y = piece_.grainTop.y - kOn; y <= piece_.grainBottom.y + kOn; y += kPointsApart) {
      std::vector<double> met;
      for (const Polyline& side : sides)
        for (size_t i = 0; i + 1 < side.size(); ++i)
          if (const Vec2 a = side[i], b = side[i + 1]; (a.y > y) != (b.y > y))
            met.push_back(a.x + (y - a.y) * (b.x - a.x) / (b.y - a.y));
      if (met.size() < 2) continue;
      const auto [left, right] = std::ranges::minmax(met);
      middle.push_back({left + share * (right - left), y});
    }
    const auto run = static_cast<size_t>(kEndRun / kPointsApart);
    if (middle.size() <= run) return {};
    const Vec2 up = unit(middle.front() - middle[run]), down = unit(middle.back() - middle[middle.size() - 1 - run]);
    Polyline all;
    for (double s = kOn; s > 0; s -= kPointsApart) all.push_back(middle.front() + s * up);
    all.insert(all.end(), middle.begin(), middle.end());
    for (double s = kPointsApart; s <= kOn; s += kPointsApart) all.push_back(middle.back() + s * down);
    return longestWithin(all, {});
  }

  // Along the grain through a point; on a fold, whose cloth lies towards `inner`, with half of its width.
  Polyline upright(Vec2 through, Vec2 inner) const {
    constexpr double kFar = 800;  // mm up and down
    const Vec2 down = unit(piece_.grainBottom - piece_.grainTop);
    Polyline middle;
    for (double s = -kFar; s <= kFar; s += kPointsApart) middle.push_back(through + s * down);
    return longestWithin(middle, inner);
  }

 private:
  // The longest stretch of it that lies within the piece with all of its width, clear of its darts.
  Polyline longestWithin(const Polyline& middle, Vec2 inner) const {
    size_t best = 0, most = 0;
    for (size_t i = 0, run = 0; i < middle.size(); ++i) {
      run = fits(middle, i, inner) ? run + 1 : 0;
      if (run > most) most = run, best = i + 1 - run;
    }
    if (static_cast<double>(most) * kPointsApart < kShortestChannel) return {};
    const auto from = middle.begin() + static_cast<std::ptrdiff_t>(best);
    return withoutIdlePoints({from, from + static_cast<std::ptrdiff_t>(most)}, tolerance::kFileFlatness);
  }

  bool fits(const Polyline& middle, size_t i, Vec2 inner) const {
    const Vec2 from = middle[i > 0 ? i - 1 : i], to = middle[std::min(i + 1, middle.size() - 1)];
    const Vec2 t = unit(to - from), across = (width_ / 2 - kTouching) * Vec2{-t.y, t.x};
    const bool folded = dot(inner, inner) > 0;
    const Vec2 left = folded ? middle[i] + kTouching * inner : middle[i] - across,
               right = folded ? middle[i] + (width_ / 2) * inner : middle[i] + across;
    return holds(left) && holds(right);
  }
  bool holds(Vec2 p) const {
    if (lowest_ && cross(unit(lowest_->b - lowest_->a), p - lowest_->a) > 0) return false;
    return contains(outline_, p) && std::ranges::none_of(darts_, [&](const Polyline& d) { return contains(d, p); });
  }

  static constexpr double kFlatness = 0.1, kTouching = 0.15;  // mm
  const Piece& piece_;
  const Polyline outline_;
  std::vector<Polyline> darts_;
  double width_ = 0;
  std::optional<LevelLine> lowest_;  // nothing below it is boned
};

bool runsDown(const Path& path) {
  const Vec2 along = path.end() - path.start();
  return along.y > std::abs(along.x);
}

class Boner {
 public:
  Boner(const Pattern& pattern, const Block& block, const Rules& rules)
      : pattern_(pattern), block_(block), rules_(rules) {
    for (size_t i = 0; i < pattern.shellPieces(); ++i) grounds_.emplace_back(pattern.pieces[i], rules);
  }

  std::vector<Channel> lay() && {
    for (const Seam& s : pattern_.seams) besideSeam(s);
    for (size_t i = 0; i < pattern_.shellPieces(); ++i) {
      if (!isPanel(i)) continue;
      atCentre(i);
      alongDarts(i);
      between(i);
      byHand(i);
    }
    return std::move(channels_);
  }

 private:
  bool isPanel(size_t i) const { return i < grounds_.size() && pattern_.pieces[i].part == Part::Panel; }
  int onBothHalves(size_t i) const { return pattern_.pieces[i].symmetry == Symmetry::Once ? 1 : 2; }

  // `chosenId`: by which it is switched off, the id it has where both halves are alike.
  void add(std::string id, const std::string& chosenId, size_t piece, std::string seam, Polyline middle, int count) {
    if (middle.empty() || rules_.isBoneOff(chosenId)) return;
    const bool straight = strayOf(middle) <= rules_.length(key::kBonesStraight);
    const std::string_view kind = std::ranges::find_if(kBoneKinds, [&](const BoneKind& k) {
                                    return k.of == rules_.option(key::kBonesAre) && (straight || k.bendsAside);
                                  })->id;
    channels_.push_back(
        {std::move(id), piece, std::move(seam), std::move(middle), grounds_[piece].width(), kind, count, chosenId});
  }
  void add(const std::string& name, size_t piece, Polyline middle, int count) {
    add(name, name, piece, std::move(middle), count);
  }
  void add(const std::string& name, const std::string& chosenName, size_t piece, Polyline middle, int count) {
    const Piece& p = pattern_.pieces[piece];
    add(fmt::format("{}{}-{}", kIdBegins, p.id, name), fmt::format("{}{}-{}", kIdBegins, chosenAs(p), chosenName),
        piece, "", std::move(middle), count);
  }

  OpeningKind openingOn(const Piece& p) const {
    return p.half == Half::Front ? block_.front.opening.kind : block_.back.opening.kind;
  }
  double beyondEyelets(OpeningKind kind) const { return eyeletsFromEdge(kind, rules_) + kBesideEyelets; }
  // How far in from an end of a level the last bone beside it lies.
  double boned(const Piece& p, const Anchor& end) const {
    const bool laced = p.edge(end.edge).role == EdgeRole::Opening && isLaced(openingOn(p));
    return laced ? beyondEyelets(openingOn(p)) + channelWidth(rules_) / 2 : 0;
  }

  void besideSeam(const Seam& s) {
    if (s.kind != SeamKind::Plain || !isPanel(s.a.piece) || !isPanel(s.b.piece)) return;
    const Path path = pattern_.sidePath(s.a);
    if (!runsDown(path)) return;
    add(std::string(kIdBegins) + s.id, std::string(kIdBegins) + chosenAs(s), s.a.piece, s.id,
        grounds_[s.a.piece].beside(path, !s.a.chain.front().reversed, 0), onBothHalves(s.a.piece));
  }

  // Beside the edges of an opening, and on a centre seam. The centre of a back runs down, that of a front up.
  void atCentre(size_t i) {
    const Piece& p = pattern_.pieces[i];
    const OpeningKind kind = openingOn(p);
    for (const Edge& e : p.edges) {
      if (e.role != EdgeRole::Opening && e.role != EdgeRole::Centre) continue;
      const bool down = e.path.end().y > e.path.start().y;
      const Path path = down ? e.path : e.path.reversed();
      if (e.role == EdgeRole::Centre) {
        add(e.id, i, grounds_[i].beside(path, down, 0), 1);
        continue;
      }
      add(e.id, i, grounds_[i].beside(path, down, firstChannelFromEdge(kind)), onBothHalves(i));
      if (isLaced(kind)) add(e.id + "-2", i, grounds_[i].beside(path, down, beyondEyelets(kind)), onBothHalves(i));
    }
  }

  // On the cloth beside the first leg.
  void alongDarts(size_t i) {
    for (const Dart& d : pattern_.pieces[i].darts) {
      const Path& leg = d.legs[0].path;
      const bool down = leg.end().y > leg.start().y;
      const Path path = down ? leg : leg.reversed();
      if (runsDown(path)) add(d.id, chosenAs(d), i, grounds_[i].beside(path, down, 0), onBothHalves(i));
    }
  }

  // What lies between two lines at the waist, or where a piece does not reach it at the underbust, and is too wide.
  // Beside a fold the other half goes on.
  void between(size_t i) {
    const Piece& p = pattern_.pieces[i];
    const Mark* mark = p.levelMark(level::kWaist);
    if (!mark) mark = p.levelMark(level::kUnderbust);
    if (!mark) return;
    const LevelLine line = p.line(*mark);
    const bool foldAtA = !p.onFold.empty() && mark->a.edge == p.onFold, foldAtB = !p.onFold.empty() && !foldAtA;
    std::vector<double> stops{foldAtA ? -line.width() : boned(p, mark->a)};
    for (const Dart& d : p.darts)
      if (const auto c = Piece::crossing(d, line))
        for (const double at : c->along) {
          stops.push_back(at);
          if (foldAtA) stops.push_back(-at);
          if (foldAtB) stops.push_back(2 * line.width() - at);
        }
    stops.push_back(foldAtB ? 2 * line.width() : line.width() - boned(p, mark->b));
    std::sort(stops.begin(), stops.end());
    const Vec2 along = unit(line.b - line.a);
    struct Upright {
      double at = 0;
      bool onFold = false;
    };
    std::vector<Upright> uprights;
    for (size_t k = 0; k + 1 < stops.size(); k += 2) {
      const double from = stops[k], to = stops[k + 1];
      const auto n = static_cast<int>(std::ceil((to - from) / rules_.length(key::kBonesApart) - 1e-9)) - 1;
      for (int j = 1; j <= n; ++j) {
        const double at = from + (to - from) * j / (n + 1);
        if (at < -kOnFold || at > line.width() + kOnFold) continue;  // on the other half
        const bool onFold = (foldAtA && at < kOnFold) || (foldAtB && at > line.width() - kOnFold);
        uprights.push_back({at, onFold});
      }
    }
    for (size_t n = 0; n < uprights.size(); ++n) {
      const auto [at, onFold] = uprights[n];
      const Vec2 inner = onFold ? (foldAtA ? along : -along) : Vec2{};
      add(fmt::format("{}", n + 1), fmt::format("{}", numberOnHalf(p, n, uprights.size()) + 1), i,
          grounds_[i].upright(line.a + at * along, inner), onFold ? 1 : onBothHalves(i));
      if (onFold && !channels_.empty() && channels_.back().piece == i) channels_.back().drawnAside = foldAtA ? 1 : -1;
    }
  }

  // Which of the uprights of the piece that stands for both halves one of `count` is, both from 0: a right piece is
  // turned over, an unfolded one has them from its middle outwards.
  static size_t numberOnHalf(const Piece& p, size_t number, size_t count) {
    if (p.side == BodySide::Right) return count - 1 - number;
    if (!isUnfolded(p)) return number;
    const size_t half = (count + 1) / 2, outwards = number >= count / 2 ? number - count / 2 : half - 1 - number;
    return p.half == Half::Back ? half - 1 - outwards : outwards;
  }

  // Where the maker put one. The back's edge nearer the centre is its right one.
  void byHand(size_t i) {
    const Piece& p = pattern_.pieces[i];
    for (const auto& [number, part] : rules_.bonesAt(chosenAs(p))) {
      const std::string name = fmt::format("own-{}", number);
      if (isUnfolded(p)) {  // the left half is the right part of it
        add(name, i, grounds_[i].within((1 + part) / 2), 1);
        add(name + "-right", name, i, grounds_[i].within((1 - part) / 2), 1);
      } else {
        add(name, i, grounds_[i].within(hasCentreOnRight(p) ? 1 - part : part), onBothHalves(i));
      }
    }
  }

  static constexpr double kOnFold = 0.5;  // mm
  const Pattern& pattern_;
  const Block& block_;
  const Rules& rules_;
  std::vector<Ground> grounds_;
  std::vector<Channel> channels_;
};

}  // namespace

double Channel::length() const {
  double sum = 0;
  for (size_t i = 0; i + 1 < middle.size(); ++i) sum += distance(middle[i], middle[i + 1]);
  return sum;
}

Polyline Channel::line(double aside) const {
  Polyline out;
  for (size_t i = 0; i < middle.size(); ++i) {
    const Vec2 t = unit(middle[std::min(i + 1, middle.size() - 1)] - middle[i > 0 ? i - 1 : 0]);
    out.push_back(middle[i] + aside * Vec2{t.y, -t.x});
  }
  return out;
}

std::vector<Channel> channelsOf(const Pattern& pattern, const Block& block, const Rules& rules) {
  if (rules.option(key::kBonesAre) == BonesAre::None) return {};
  return Boner(pattern, block, rules).lay();
}

double channelWidth(const Rules& rules) { return rules.length(key::kBonesWidth) + kRoom; }

double strayOf(const Polyline& line) {
  double most = 0;
  const Vec2 along = unit(line.back() - line.front());
  for (const Vec2 p : line) most = std::max(most, std::abs(cross(along, p - line.front())));
  return most;
}

double cutLength(const Channel& channel, const Rules& rules) {
  return std::max(0.0, channel.length() - 2 * rules.length(key::kBonesEnd));
}

bool isBoneId(std::string_view id) { return id.starts_with(kIdBegins); }

std::optional<Working> boneWorking(const Pattern& pattern, const Block& block, const Rules& rules,
                                   std::string_view id) {
  if (!isBoneId(id)) return std::nullopt;
  for (const Channel& c : channelsOf(pattern, block, rules)) {
    if (c.id != id) continue;
    const BoneKind& kind = boneKind(c.kind);
    const Message where = c.seam.empty() ? pattern.pieces[c.piece].name : pattern.seam(c.seam)->name;
    Working w{c.id,
              msg("{}, {}: cut to", where, known(kind.name)),
              {{'+', "channel, along its middle", c.length(), Source::Computed}},
              cutLength(c, rules),
              {}};
    w.terms.push_back(rules.term(key::kBonesEnd, '-', 2));
    w.note = kind.stockStep > 0 ? msg("ready-made, the longest that goes in is {}; {} of them in the garment",
                                      Length{stockLength(kind, w.result)}, c.count)
                                : msg("from the metre; {} of them in the garment", c.count);
    return w;
  }
  return std::nullopt;
}

double stockLength(const BoneKind& kind, double length) {
  return kind.stockStep > 0 ? std::floor(length / kind.stockStep + 1e-9) * kind.stockStep : length;
}

const BoneKind& boneKind(std::string_view id) {
  const auto found = std::ranges::find(kBoneKinds, id, &BoneKind::id);
  if (found == kBoneKinds.end()) throw std::out_of_range(fmt::format("no bone {}", id));
  return *found;
}

}  // namespace armure
