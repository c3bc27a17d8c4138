#include "garment/line_handles.h"

#include <algorithm>
#include <optional>

namespace armure {
namespace {

constexpr Vec2 kUp{0, -1}, kDown{0, 1}, kOut{1, 0}, kIn{-1, 0};

struct Place {
  size_t piece = 0;
  Vec2 at;
};

// Looks for places on a pattern by what they are.
class Places {
 public:
  explicit Places(const Pattern& pattern) : pattern_(pattern) {}

  // Where an edge of a role begins or ends on the piece of this id.
  std::optional<Place> end(std::string_view id, EdgeRole role, bool atStart) const {
    for (size_t i = 0; i < pattern_.pieces.size(); ++i) {
      if (pattern_.pieces[i].id != id) continue;
      for (const Edge& e : pattern_.pieces[i].edges)
        if (e.role == role) return Place{i, atStart ? e.path.start() : e.path.end()};
    }
    return std::nullopt;
  }
  // The end of the side seam on the front.
  std::optional<Place> side(bool atTop) const {
    const Seam* seam = pattern_.seam("side");
    if (!seam) return std::nullopt;
    const Path path = pattern_.sidePath(seam->a);
    return Place{seam->a.piece, atTop ? path.start() : path.end()};
  }
  // The highest corner of the front's top edge.
  std::optional<Place> crest() const {
    std::optional<Place> best;
    for (size_t i = 0; i < pattern_.pieces.size(); ++i) {
      const Piece& p = pattern_.pieces[i];
      if (p.id.starts_with("back") || p.layer != "shell") continue;
      for (const Edge& e : p.edges)
        if (e.role == EdgeRole::Top)
          for (const Cubic& c : e.path.cubics())
            for (const Vec2 corner : {c.p0, c.p3})
              if (!best || corner.y < best->at.y) best = Place{i, corner};
    }
    return best;
  }
  // A joint inside the top edge of the piece: where a plunge bends at the bust line.
  std::optional<Place> joint(std::string_view id) const {
    for (size_t i = 0; i < pattern_.pieces.size(); ++i) {
      if (pattern_.pieces[i].id != id) continue;
      for (const Edge& e : pattern_.pieces[i].edges)
        if (e.role == EdgeRole::Top && e.path.cubics().size() > 1) return Place{i, e.path.cubics().front().p3};
    }
    return std::nullopt;
  }
  // Where a notch or an end lies along a side of a seam.
  std::optional<Place> notch(std::string_view seamId, std::string_view notchId) const {
    const Seam* seam = pattern_.seam(seamId);
    if (!seam) return std::nullopt;
    const Path path = pattern_.sidePath(seam->a);
    for (const SeamNotch& n : seam->notches)
      if (n.id == notchId) return Place{seam->a.piece, path.pointAt(n.a)};
    return std::nullopt;
  }
  std::optional<Place> seamEnd(std::string_view seamId) const {
    const Seam* seam = pattern_.seam(seamId);
    if (!seam) return std::nullopt;
    return Place{seam->a.piece, pattern_.sidePath(seam->a).end()};
  }

 private:
  const Pattern& pattern_;
};

}  // namespace

std::vector<LineHandle> lineHandles(const Pattern& pattern, const Rules& rules, std::string_view stage) {
  const Places places(pattern);
  std::vector<LineHandle> handles;
  const auto add = [&](std::string_view key, const std::optional<Place>& place, Vec2 axis) {
    const RuleInfo* rule = findRule(key);
    if (!place || rule->stage != stage) return;
    if (!ruleCounts(*rule, [&](std::string_view other) { return rules.option(other); })) return;
    for (const LineHandle& h : handles)
      if (h.key == "cup.side" && key == h.key) return;
    for (const LineHandle& h : handles)
      if (h.piece == place->piece && distance(h.at, place->at) < 1) return;  // one place, one handle
    handles.push_back({std::string(key), place->piece, place->at, axis, rules.length(key)});
  };
  const auto front = places.end("front-1", EdgeRole::Top, true);
  add("top.dip", front, kDown);
  add("top.plunge", front, kDown);
  add("top.plunge_beside", places.joint("front-1"), kOut);
  add("top.rise", places.crest(), kUp);
  add("top.above_chest", places.crest(), kUp);
  add("top.side", places.side(true), kUp);
  add("back.slope", places.end("back-1", EdgeRole::Top, false), kDown);
  add("hem.dip", places.end("front-1", EdgeRole::Hem, false), kDown);
  add("hem.length", places.end("front-1", EdgeRole::Hem, false), kDown);
  add("hem.length", places.end("back-1", EdgeRole::Hem, true), kDown);
  add("hem.raise", places.side(false), kUp);
  add("cup.bridge", places.notch("cup-1", "bust"), kOut);
  add("cup.bridge", places.notch("cup", "bust"), kOut);
  add("cup.outer_extra", places.notch("cup-2", "bust"), kOut);
  for (const char* upper : {"cup-2-band", "cup-2-cross", "cup-2"}) add("cup.side", places.seamEnd(upper), kIn);
  return handles;
}

}  // namespace armure
