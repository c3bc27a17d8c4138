#include "tracing/guess.h"

#include <fmt/format.h>

#include <algorithm>
#include <array>
#include <cmath>
#include <map>
#include <numbers>
#include <optional>
#include <set>
#include <tuple>

#include "geometry/path_distance.h"
#include "pattern/outline_parts.h"

namespace armure {
namespace {

constexpr double kTouches = 0.5;                       // mm: a line ends on the outline
constexpr double kAlongGrain = 0.1;                    // radians
constexpr double kLongestNotch = 45, kLeastNotch = 2;  // mm
constexpr double kSameNotch = 2;                       // mm: notches that meet when sewn

std::string lower(std::string text) {
  std::ranges::transform(text, text.begin(),
                         [](char c) { return c >= 'A' && c <= 'Z' ? static_cast<char>(c + 32) : c; });
  return text;
}

// Letters, figures and hyphens of a text, or what else there is.
std::string asId(const std::string& text, const std::string& otherwise) {
  std::string id;
  for (const char c : lower(text)) {
    const bool plain = (c >= 'a' && c <= 'z') || (c >= '0' && c <= '9');
    if (plain) id += c;
    if (!plain && !id.empty() && id.back() != '-') id += '-';
    if (id.size() > 40) break;
  }
  while (!id.empty() && id.back() == '-') id.pop_back();
  return id.empty() ? otherwise : id;
}

// A part of the outline between corners, as it may be an edge.
struct Stretch {
  size_t piece = 0, edge = 0;  // in the names
  Path path;
  std::vector<double> notches;   // along it
  std::optional<double> beyond;  // to the line to cut, mm, from its middle
  double straight = 0;           // radians it turns from along the grain; HUGE_VAL where it is no straight line
};

// One outline read.
class OutlineGuess {
 public:
  OutlineGuess(const LineDrawing& drawing, const TracedOutline& outline) : drawing_(drawing), outline_(outline) {
    for (const size_t i : outline.inside)
      if (!drawing.shapes[i].closed) lines_.push_back(&drawing.shapes[i]);
  }

  NamedPiece guessed(const std::string& id) {
    NamedPiece p;
    p.id = p.name = id;
    p.at = inside();
    grain(p);
    for (size_t k = 0; k < outline_.corners.size(); ++k)
      p.edges.push_back({edgeId(k), outline_.path.pointAt(outline_.corners[k])});
    unique(p.edges);
    levels(p);
    notches(p);
    p.half = lower(id).find("back") != std::string::npos ? Half::Back : Half::Front;
    return p;
  }

  // "front-1" where the file calls every line of it "front-1.something".
  std::string ownName() const {
    std::string name;
    for (const std::string& id : outline_.ids) {
      const size_t dot = id.find('.');
      const std::string mine = dot == std::string::npos ? "" : id.substr(0, dot);
      if (mine.empty() || (!name.empty() && mine != name)) return {};
      name = mine;
    }
    return name;
  }

  bool saysFold(size_t k) const { return lower(outline_.layers[k]) == "fold" || outline_.layers[k] == "6"; }

  Stretch stretch(size_t k) const {
    const double from = outline_.corners[k];
    const double to = k + 1 < outline_.corners.size() ? outline_.corners[k + 1] : outline_.path.length();
    Stretch s;
    s.path = outline_.path.sub(from, to);
    for (const double n : notchesAt_)
      if (n > from + kLeastNotch && n < to - kLeastNotch) s.notches.push_back(n - from);
    if (outline_.cutting) {
      const Vec2 middle = s.path.pointAt(s.path.length() / 2);
      s.beyond = distance(outline_.cutting->pointAt(nearestPlace(*outline_.cutting, middle)), middle);
    }
    s.straight = HUGE_VAL;
    const Vec2 chord = s.path.end() - s.path.start();
    double off = 0;
    for (const Vec2 q : s.path.flattened(0.05)) off = std::max(off, std::abs(cross(unit(chord), q - s.path.start())));
    if (off < 0.5) s.straight = std::abs(std::remainder(angleBetween(chord, grain_), std::numbers::pi));
    return s;
  }

 private:
  std::string edgeId(size_t k) const {
    const std::string& id = outline_.ids[k];
    const size_t dot = id.find('.');
    return asId(dot == std::string::npos ? "" : id.substr(dot + 1), fmt::format("edge-{}", k + 1));
  }
  static void unique(std::vector<NamedEdge>& edges) {
    std::set<std::string> known;
    for (NamedEdge& e : edges) {
      const std::string id = e.id;
      for (int n = 2; !known.insert(e.id).second; ++n) e.id = fmt::format("{}-{}", id, n);
    }
  }

  // Furthest from the outline of a grid of places.
  Vec2 inside() const {
    const Polyline polygon = outline_.polygon();
    Polyline ring = polygon;
    ring.push_back(ring.front());
    Vec2 low = polygon.front(), high = low;
    for (const Vec2 p : polygon) {
      low = {std::min(low.x, p.x), std::min(low.y, p.y)};
      high = {std::max(high.x, p.x), std::max(high.y, p.y)};
    }
    Vec2 best = lerp(low, high, 0.5);
    double most = 0;
    constexpr int kGrid = 16;
    for (int i = 1; i < kGrid; ++i)
      for (int k = 1; k < kGrid; ++k) {
        const Vec2 p{low.x + (high.x - low.x) * i / kGrid, low.y + (high.y - low.y) * k / kGrid};
        if (!contains(polygon, p)) continue;
        if (const double d = distanceToPolyline(p, ring); d > most) most = d, best = p;
      }
    return best;
  }

  double offOutline(Vec2 p) const { return distance(outline_.path.pointAt(nearestPlace(outline_.path, p)), p); }

  // The longest straight line inside that touches the outline nowhere; else upright.
  void grain(NamedPiece& p) {
    const DrawnShape* best = nullptr;
    for (const DrawnShape* s : lines_) {
      if (s->path.cubics().size() != 1 || !isStraight(s->path.cubics().front())) continue;
      const bool named = s->layer == "7" || lower(s->layer).find("grain") != std::string::npos;
      if (!named && (offOutline(s->path.start()) < 3 || offOutline(s->path.end()) < 3)) continue;
      if (!best || s->path.length() > best->path.length()) best = s;
    }
    p.grainTop = best ? best->path.end() : p.at - Vec2{0, 60};
    p.grainBottom = best ? best->path.start() : p.at + Vec2{0, 60};
    if (p.grainTop.y > p.grainBottom.y) std::swap(p.grainTop, p.grainBottom);
    grain_ = p.grainBottom - p.grainTop;
  }

  // Lines from edge to edge, more across the grain than along it, longer than a notch.
  void levels(NamedPiece& p) const {
    for (const DrawnShape* s : lines_) {
      const Vec2 a = s->path.start(), b = s->path.end();
      if (distance(a, b) < kLongestNotch || std::abs(cross(unit(b - a), unit(grain_))) < 0.8) continue;
      if (offOutline(a) > kTouches || offOutline(b) > kTouches || isOutline(*s)) continue;
      p.levels.push_back({"", a, b});
    }
    std::ranges::sort(p.levels, {}, [&](const NamedLevel& l) { return dot(l.a, unit(grain_)); });
  }
  bool isOutline(const DrawnShape& s) const { return offOutline(s.path.pointAt(s.path.length() / 2)) < kTouches; }

  // Strokes that begin on the outline: into the piece, or out of it to the line to cut.
  void notches(NamedPiece& p) {
    for (const DrawnShape& s : drawing_.shapes) {
      const double length = s.path.length();
      if (s.closed || length < kLeastNotch || length > kLongestNotch) continue;
      if (s.path.cubics().size() != 1 || !isStraight(s.path.cubics().front())) continue;
      const Vec2 a = s.path.start(), b = s.path.end();
      const bool isA = offOutline(a) < kTouches, isB = offOutline(b) < kTouches;
      if (isA == isB) continue;
      const double at = nearestPlace(outline_.path, isA ? a : b);
      const Vec2 along = outline_.path.tangentAt(at);
      if (std::abs(cross(along, unit(b - a))) < 0.8) continue;
      addNotch(at);
    }
    for (size_t i = 0; i < notchesAt_.size(); ++i)
      p.notches.push_back({fmt::format("n{}", i + 1), outline_.path.pointAt(notchesAt_[i]), doubled_[i]});
  }
  // Two strokes beside each other are one double notch between them.
  void addNotch(double at) {
    constexpr double kPair = 6;  // mm
    for (size_t i = 0; i < notchesAt_.size(); ++i)
      if (const double d = std::abs(notchesAt_[i] - at); d < kPair) {
        if (d > 0.5 && !doubled_[i]) notchesAt_[i] = (notchesAt_[i] + at) / 2, doubled_[i] = true;
        return;
      }
    notchesAt_.push_back(at);
    doubled_.push_back(false);
  }

  const LineDrawing& drawing_;
  const TracedOutline& outline_;
  std::vector<const DrawnShape*> lines_;
  Vec2 grain_{0, 1};
  std::vector<double> notchesAt_;
  std::vector<bool> doubled_;
};

// What a level is called by a word beside it.
std::string wordNear(const LineDrawing& drawing, const NamedLevel& l) {
  constexpr std::array<std::pair<std::string_view, std::string_view>, 9> kWords{{{"high hip", "high_hip"},
                                                                                 {"upper bust", "chest"},
                                                                                 {"underbust", "underbust"},
                                                                                 {"under bust", "underbust"},
                                                                                 {"bust", "bust"},
                                                                                 {"waist", "waist"},
                                                                                 {"chest", "chest"},
                                                                                 {"hip", "hip"},
                                                                                 {"knee", "knee"}}};
  constexpr double kNear = 12;  // mm
  for (const DrawnWord& w : drawing.words) {
    if (distanceToPolyline(w.at, {l.a, l.b}) > kNear) continue;
    for (const auto& [word, id] : kWords)
      if (lower(w.text).find(word) != std::string::npos) return std::string(id);
  }
  return {};
}

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
std::optional<double> misfit(const Stretch& a, const Stretch& b) {
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

// Seams by id, with the stretches they join.
using Joined = std::vector<std::pair<std::string, std::pair<Stretch, Stretch>>>;

// Calls levels alike where they meet across the seams, and gives those that no word names the names of the body, from
// the top down: those that go through most pieces first.
class LevelNames {
 public:
  LevelNames(TracingNames& names, const Joined& joined) : names_(names), joined_(joined) {
    for (size_t i = 0; i < names.pieces.size(); ++i)
      for (size_t k = 0; k < names.pieces[i].levels.size(); ++k) levels_.push_back({i, k});
    for (size_t i = 0; i < levels_.size(); ++i) group_.push_back(i);
  }

  void give() {
    for (const auto& [seam, sides] : joined_) meet(sides.first, sides.second);
    const std::vector<size_t> order = fromTheTop();
    size_t most = 0;
    for (const size_t g : order) most = std::max(most, members(g).size());
    std::vector<size_t> through;  // groups without a word that go through most pieces
    std::set<std::string> known;
    for (const size_t g : order) {
      const std::string word = wordOf(g);
      if (!word.empty()) {
        call(g, word);
        known.insert(word);
      } else if (2 * members(g).size() > most) {
        through.push_back(g);
      }
    }
    static const std::array<std::vector<std::string>, 6> kByCount{{{},
                                                                   {"waist"},
                                                                   {"bust", "waist"},
                                                                   {"bust", "underbust", "waist"},
                                                                   {"bust", "underbust", "waist", "high_hip"},
                                                                   {"bust", "underbust", "waist", "high_hip", "hip"}}};
    const auto& wanted = kByCount[std::min(through.size(), kByCount.size() - 1)];
    size_t next = 0, extra = 0;
    for (const size_t g : order) {
      if (!wordOf(g).empty()) continue;
      std::string id;
      if (std::ranges::find(through, g) != through.end())
        while (next < wanted.size() && id.empty())
          if (!known.contains(wanted[next++])) id = wanted[next - 1];
      if (id.empty()) id = next == 0 && known.insert("chest").second ? "chest" : fmt::format("level-{}", ++extra);
      call(g, id);
    }
  }

 private:
  struct Level {
    size_t piece, number;
  };
  NamedLevel& at(const Level& l) { return names_.pieces[l.piece].levels[l.number]; }
  const NamedLevel& at(const Level& l) const { return names_.pieces[l.piece].levels[l.number]; }

  std::vector<size_t> members(size_t group) const {
    std::vector<size_t> all;
    for (size_t i = 0; i < levels_.size(); ++i)
      if (group_[i] == group) all.push_back(i);
    return all;
  }

  // Where a level ends on a stretch, along it.
  std::optional<double> placeOn(const Stretch& s, const Level& l) const {
    if (l.piece != s.piece) return std::nullopt;
    for (const Vec2 end : {at(l).a, at(l).b}) {
      const double place = nearestPlace(s.path, end);
      if (distance(s.path.pointAt(place), end) < 2 * kTouches) return place;
    }
    return std::nullopt;
  }

  // Of two levels that are each other's next across a seam each is the other's continuation.
  void meet(const Stretch& a, const Stretch& b) {
    constexpr double kMeet = 15;  // mm: sides that are not balanced yet
    struct End {
      size_t level;
      double at;
    };
    std::vector<End> mine, others;
    for (size_t i = 0; i < levels_.size(); ++i) {
      if (const auto x = placeOn(a, levels_[i])) mine.push_back({i, *x});
      if (const auto y = placeOn(b, levels_[i])) others.push_back({i, b.path.length() - *y});
    }
    const auto next = [](const std::vector<End>& ends, double to) {
      return std::ranges::min_element(ends, {}, [&](const End& e) { return std::abs(e.at - to); });
    };
    if (mine.empty() || others.empty()) return;
    for (const End& e : mine) {
      const auto other = next(others, e.at);
      if (std::abs(other->at - e.at) > kMeet || next(mine, other->at)->level != e.level) continue;
      std::ranges::replace(group_, size_t{group_[other->level]}, size_t{group_[e.level]});
    }
  }

  std::string wordOf(size_t group) const {
    for (const size_t i : members(group))
      if (!at(levels_[i]).id.empty()) return at(levels_[i]).id;
    return {};
  }
  void call(size_t group, const std::string& id) {
    for (const size_t i : members(group)) at(levels_[i]).id = id;
  }

  // Groups so that in every piece what lies above comes before.
  std::vector<size_t> fromTheTop() const {
    std::vector<size_t> left, order;
    for (const size_t g : group_)
      if (std::ranges::find(left, g) == left.end()) left.push_back(g);
    const auto isBelowAnother = [&](size_t g) {
      for (const size_t i : members(g))
        for (size_t k = 0; k < levels_.size(); ++k)
          if (levels_[k].piece == levels_[i].piece && levels_[k].number < levels_[i].number && group_[k] != g &&
              std::ranges::find(left, group_[k]) != left.end())
            return true;
      return false;
    };
    while (!left.empty()) {
      auto next = std::ranges::find_if_not(left, isBelowAnother);
      if (next == left.end()) next = left.begin();  // they cross each other: as drawn
      order.push_back(*next);
      left.erase(next);
    }
    return order;
  }

  TracingNames& names_;
  const Joined& joined_;
  std::vector<Level> levels_;
  std::vector<size_t> group_;  // by level: the first of those it is one with
};

class Guess {
 public:
  Guess(const LineDrawing& drawing, const GuessOptions& options) : drawing_(drawing), options_(options) {}

  TracingNames made() {
    for (const TracedOutline& o : outlinesOf(drawing_)) {
      if (o.isTestSquare) continue;
      OutlineGuess guess(drawing_, o);
      const std::string own = guess.ownName();
      names_.pieces.push_back(guess.guessed(asId(own, fmt::format("piece-{}", names_.pieces.size() + 1))));
      for (NamedLevel& l : names_.pieces.back().levels) l.id = wordNear(drawing_, l);
      for (size_t k = 0; k < o.corners.size(); ++k) {
        stretches_.push_back(guess.stretch(k));
        stretches_.back().piece = names_.pieces.size() - 1;
        stretches_.back().edge = k;
        if (guess.saysFold(k)) makeFold(names_.pieces.back(), k);
      }
    }
    uniquePieces();
    sew();
    LevelNames(names_, joined_).give();
    for (NamedPiece& p : names_.pieces) nameNotches(p);
    for (const auto& [seam, sides] : joined_) shareNotches(seam, sides.first, sides.second);
    finishRest();
    number();
    return std::move(names_);
  }

 private:
  NamedEdge& edgeOf(const Stretch& s) { return names_.pieces[s.piece].edges[s.edge]; }

  // As drawn, where the line to cut is, to a tenth of a millimetre.
  double allowanceOf(const Stretch& s) const { return s.beyond ? std::round(*s.beyond * 10) / 10 : options_.allowance; }

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

  void join(const Stretch& a, const Stretch& b) {
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
  void shareNotches(const std::string& seam, const Stretch& a, const Stretch& b) {
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
      const Stretch& s = stretches_[i];
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
  std::vector<Stretch> stretches_;
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
