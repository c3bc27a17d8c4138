#include "tracing/outline_guess.h"

#include <fmt/format.h>

#include <algorithm>
#include <array>
#include <cmath>
#include <numbers>
#include <set>

#include "geometry/path_distance.h"
#include "pattern/outline_parts.h"

namespace armure {
namespace {

constexpr double kLongestNotch = 45, kLeastNotch = 2;  // mm

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

// What an editor calls a line by itself: "path1234", "polyline-7".
bool isCounted(std::string_view id) {
  for (const std::string_view kind : {"path", "polygon", "polyline", "rect", "line", "circle", "ellipse", "g"})
    if (id.starts_with(kind) && id.find_first_not_of("0123456789-_", kind.size()) == std::string_view::npos)
      return true;
  return false;
}

// One outline read.
class OutlineReader {
 public:
  OutlineReader(const LineDrawing& drawing, const TracedOutline& outline) : drawing_(drawing), outline_(outline) {
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

  // "front-1" where the file calls every line of it "front-1" or "front-1.something".
  std::string ownName() const {
    std::string name;
    for (const std::string& id : outline_.ids) {
      const std::string mine = id.substr(0, id.find('.'));
      if (mine.empty() || (!name.empty() && mine != name) || isCounted(mine)) return {};
      name = mine;
    }
    return name;
  }

  bool saysFold(size_t k) const { return lower(outline_.layers[k]) == "fold" || outline_.layers[k] == "6"; }

  TracedStretch stretch(size_t k) const {
    const double from = outline_.corners[k];
    const double to = k + 1 < outline_.corners.size() ? outline_.corners[k + 1] : outline_.path.length();
    TracedStretch s;
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

}  // namespace

OutlineGuess guessOutline(const LineDrawing& drawing, const TracedOutline& outline, size_t number) {
  OutlineReader reader(drawing, outline);
  OutlineGuess guess;
  guess.piece = reader.guessed(asId(reader.ownName(), fmt::format("piece-{}", number)));
  for (NamedLevel& l : guess.piece.levels) l.id = wordNear(drawing, l);
  for (size_t k = 0; k < outline.corners.size(); ++k) {
    guess.stretches.push_back(reader.stretch(k));
    guess.stretches.back().edge = k;
    guess.isFold.push_back(reader.saysFold(k));
  }
  return guess;
}

}  // namespace armure
