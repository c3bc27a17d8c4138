#include "tracing/guess.h"

#include <fmt/format.h>

#include <algorithm>
#include <cmath>
#include <optional>
#include <set>
#include <tuple>

#include "geometry/path_distance.h"
#include "tracing/level_names.h"
#include "tracing/outline_guess.h"

namespace armure {
namespace {

constexpr double kAlongGrain = 0.1;  // radians
constexpr double kSameNotch = 2;     // mm: notches that meet when sewn

// A notch where a level meets the outline is that level's.
void nameNotches(NamedPiece& p) {
  constexpr double kThere = 1.5;  // mm
  for (NamedNotch& n : p.notches)
    for (const NamedLevel& l : p.levels)
      if (std::min(distance(n.at, l.a), distance(n.at, l.b)) < kThere) n.id = l.id;
}

bool isLevelOf(const NamedPiece& p, const std::string& id) {
  return std::ranges::any_of(p.levels, [&](const NamedLevel& l) { return l.id == id; });
}

// How badly two stretches fit, sewn together: the one runs against the other.
std::optional<double> misfit(const TracedStretch& a, const TracedStretch& b) {
  if (a.piece == b.piece) return std::nullopt;
  const double la = a.path.length(), lb = b.path.length(), most = std::max(1.0, 0.006 * std::max(la, lb));
  if (std::abs(la - lb) > most || a.notches.size() != b.notches.size()) return std::nullopt;
  double worst = std::abs(la - lb);
  std::vector<double> mine = a.notches, other;
  for (const double n : b.notches) other.push_back(lb - n);
  std::ranges::sort(mine);
  std::ranges::sort(other);
  for (size_t i = 0; i < mine.size(); ++i) {
    if (std::abs(mine[i] - other[i]) > kSameNotch + most) return std::nullopt;
    worst = std::max(worst, std::abs(mine[i] - other[i]));
  }
  // Notches that meet say more than a length that is the same by chance; of equals those drawn next to each other.
  const double apart = distance(a.path.pointAt(la / 2), b.path.pointAt(lb / 2));
  return worst - 2.0 * static_cast<double>(mine.size()) + 1e-4 * apart;
}

class Guess {
 public:
  Guess(const LineDrawing& drawing, const GuessOptions& options) : drawing_(drawing), options_(options) {}

  TracingNames made() {
    for (const TracedOutline& o : outlinesOf(drawing_)) {
      if (o.isTestSquare) continue;
      OutlineGuess guess = guessOutline(drawing_, o, names_.pieces.size() + 1);
      names_.pieces.push_back(std::move(guess.piece));
      for (size_t k = 0; k < guess.stretches.size(); ++k) {
        stretches_.push_back(std::move(guess.stretches[k]));
        stretches_.back().piece = names_.pieces.size() - 1;
        if (guess.isFold[k]) makeFold(names_.pieces.back(), k);
      }
    }
    uniquePieces();
    sew();
    nameLevels(names_, joined_);
    for (NamedPiece& p : names_.pieces) nameNotches(p);
    for (const auto& [seam, sides] : joined_) shareNotches(seam, sides.first, sides.second);
    finishRest();
    number();
    return std::move(names_);
  }

 private:
  NamedEdge& edgeOf(const TracedStretch& s) { return names_.pieces[s.piece].edges[s.edge]; }

  // As drawn, where the line to cut is, to a tenth of a millimetre.
  double allowanceOf(const TracedStretch& s) const {
    return s.beyond ? std::round(*s.beyond * 10) / 10 : options_.allowance;
  }

  void makeFold(NamedPiece& p, size_t k) {
    p.edges[k].role = EdgeRole::Fold;
    p.edges[k].allowance = 0;
    p.copies = 1;
  }

  void uniquePieces() {
    std::set<std::string> known;
    for (NamedPiece& p : names_.pieces) {
      const std::string id = p.id;
      for (int n = 2; !known.insert(p.id).second; ++n) p.id = fmt::format("{}-{}", id, n);
    }
  }

  // The best pairs first, each stretch once.
  void sew() {
    struct Pair {
      double misfit;
      size_t a, b;
    };
    std::vector<Pair> pairs;
    for (size_t i = 0; i < stretches_.size(); ++i)
      for (size_t k = i + 1; k < stretches_.size(); ++k) {
        if (edgeOf(stretches_[i]).role == EdgeRole::Fold || edgeOf(stretches_[k]).role == EdgeRole::Fold) continue;
        if (const auto m = misfit(stretches_[i], stretches_[k])) pairs.push_back({*m, i, k});
      }
    std::ranges::sort(pairs, [](const Pair& x, const Pair& y) {
      return std::tuple(x.misfit, x.a, x.b) < std::tuple(y.misfit, y.a, y.b);
    });
    std::set<size_t> sewn;
    for (const Pair& p : pairs) {
      if (sewn.contains(p.a) || sewn.contains(p.b)) continue;
      sewn.insert(p.a);
      sewn.insert(p.b);
      join(stretches_[p.a], stretches_[p.b]);
    }
    for (size_t i = 0; i < stretches_.size(); ++i)
      if (!sewn.contains(i)) unsewn_.push_back(i);
  }

  void join(const TracedStretch& a, const TracedStretch& b) {
    NamedEdge &x = edgeOf(a), &y = edgeOf(b);
    x.role = y.role = EdgeRole::Seam;
    x.allowance = allowanceOf(a);
    y.allowance = allowanceOf(b);
    NamedSeam s;
    s.id = x.id == y.id ? x.id : fmt::format("seam-{}", names_.seams.size() + 1);
    std::set<std::string> known;
    for (const NamedSeam& other : names_.seams) known.insert(other.id);
    for (int n = 2; known.contains(s.id); ++n) s.id = fmt::format("seam-{}-{}", names_.seams.size() + 1, n);
    s.name = s.id;
    s.a = {names_.pieces[a.piece].id, {x.id}};
    s.b = {names_.pieces[b.piece].id, {y.id}};
    names_.seams.push_back(std::move(s));
    joined_.emplace_back(names_.seams.back().id, std::pair{a, b});
  }

  // Notches that meet are called alike.
  void shareNotches(const std::string& seam, const TracedStretch& a, const TracedStretch& b) {
    const double lb = b.path.length();
    for (NamedNotch& n : names_.pieces[a.piece].notches) {
      const double at = nearestPlace(a.path, n.at);
      if (distance(a.path.pointAt(at), n.at) > kTouches) continue;
      for (NamedNotch& m : names_.pieces[b.piece].notches) {
        const double other = nearestPlace(b.path, m.at);
        if (distance(b.path.pointAt(other), m.at) > kTouches || std::abs(at - (lb - other)) > 2 * kSameNotch) continue;
        if (isLevelOf(names_.pieces[a.piece], n.id)) {
          m.id = n.id;
        } else if (isLevelOf(names_.pieces[b.piece], m.id)) {
          n.id = m.id;
        } else {
          n.id = m.id = fmt::format("{}-{}", seam, ++notches_);
        }
      }
    }
  }

  // What has no partner: a fold or an opening along the grain, else a finished edge, by where it lies.
  void finishRest() {
    for (const size_t i : unsewn_) {
      const TracedStretch& s = stretches_[i];
      NamedPiece& p = names_.pieces[s.piece];
      NamedEdge& e = p.edges[s.edge];
      if (e.role == EdgeRole::Fold) continue;
      const Vec2 down = unit(p.grainBottom - p.grainTop);
      double top = HUGE_VAL, bottom = -HUGE_VAL;
      for (const NamedEdge& other : p.edges) {
        top = std::min(top, dot(other.from, down));
        bottom = std::max(bottom, dot(other.from, down));
      }
      const double middle = dot(s.path.pointAt(s.path.length() / 2), down), height = bottom - top;
      const bool hasFold = std::ranges::any_of(p.edges, [](const NamedEdge& x) { return x.role == EdgeRole::Fold; });
      if (s.straight < kAlongGrain && s.path.length() > 0.4 * height && !hasFold) {
        // Beyond a fold nothing is cut; an opening is turned in.
        if (s.beyond.value_or(0) < kTouches) {
          makeFold(p, s.edge);
        } else {
          e.role = EdgeRole::Opening;
          e.allowance = allowanceOf(s);
        }
        continue;
      }
      const bool across = std::abs(dot(unit(s.path.end() - s.path.start()), down)) < 0.7;
      e.role = !across && middle < top + 0.5 * height ? EdgeRole::Armhole
               : middle < top + 0.5 * height          ? EdgeRole::Top
                                                      : EdgeRole::Hem;
      e.allowance = allowanceOf(s);
    }
  }

  // Ordinals in the order they are drawn, from the centre of each half.
  void number() {
    int front = 0;
    std::vector<NamedPiece*> back;
    for (NamedPiece& p : names_.pieces) {
      if (p.half == Half::Back) {
        back.push_back(&p);
      } else {
        p.ordinal = ++front;
      }
    }
    for (size_t i = 0; i < back.size(); ++i) back[i]->ordinal = static_cast<int>(back.size() - i);
  }

  const LineDrawing& drawing_;
  const GuessOptions options_;
  TracingNames names_;
  std::vector<TracedStretch> stretches_;
  std::vector<size_t> unsewn_;
  Joined joined_;
  int notches_ = 0;
};

}  // namespace

TracingNames guessedNames(const LineDrawing& drawing, const GuessOptions& options) {
  if (options.scale == 1) return Guess(drawing, options).made();
  const TracingNames real = Guess(scaled(drawing, options.scale), options).made();
  TracingNames names = scaledNames(real, 1 / options.scale);
  names.scale = options.scale;
  return names;
}

}  // namespace armure
