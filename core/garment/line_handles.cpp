#include "garment/line_handles.h"

#include <algorithm>
#include <optional>

#include "garment/dart_dial.h"

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
  // A place on an edge, as a part of its length from its start.
  std::optional<Place> on(std::string_view id, std::string_view edge, double part) const {
    for (size_t i = 0; i < pattern_.pieces.size(); ++i) {
      if (pattern_.pieces[i].id != id) continue;
      for (const Edge& e : pattern_.pieces[i].edges)
        if (e.id == edge) return Place{i, part <= 0 ? e.path.start() : e.path.pointAt(part * e.path.length())};
    }
    return std::nullopt;
  }
  // The same on the first of these pieces that has it.
  std::optional<Place> onAny(std::initializer_list<std::string_view> ids, std::string_view edge, double part) const {
    for (std::string_view id : ids)
      if (const auto place = on(id, edge, part)) return place;
    return std::nullopt;
  }
  // Where the yoke's edge meets the armhole.
  std::optional<Place> yokeAtArmhole(std::string_view id, bool atStart) const {
    for (size_t i = 0; i < pattern_.pieces.size(); ++i)
      if (pattern_.pieces[i].id == id)
        for (const Edge& e : pattern_.pieces[i].edges)
          if (e.role == EdgeRole::Armhole) return Place{i, atStart ? e.path.start() : e.path.end()};
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
      if (!(p.id.starts_with("front") || p.id.starts_with("cup") || p.id.starts_with("band")) || p.layer != "shell")
        continue;
      for (const Edge& e : p.edges)
        if (e.role == EdgeRole::Top || e.role == EdgeRole::Yoke)
          for (const Cubic& c : e.path.cubics())
            for (const Vec2 corner : {c.p0, c.p3})
              if (!best || corner.y < best->at.y) best = Place{i, corner};
    }
    return best;
  }
  // The corner of hem and side seam on the front, wherever the panels were parted.
  std::optional<Place> hemCorner() const {
    for (const char* id : {"side-waist", "side"})
      if (const Seam* seam = pattern_.seam(id)) return Place{seam->a.piece, pattern_.sidePath(seam->a).end()};
    return std::nullopt;
  }
  // Square to the side seam there, outwards.
  Vec2 awayFromHemCorner() const {
    for (const char* id : {"side-waist", "side"})
      if (const Seam* seam = pattern_.seam(id)) {
        const Vec2 down = pattern_.sidePath(seam->a).endTangent();
        return {down.y, -down.x};
      }
    return kOut;
  }
  // A joint inside the top edge of the piece: where a plunge bends at the bust line.
  std::optional<Place> joint(std::string_view id) const {
    for (size_t i = 0; i < pattern_.pieces.size(); ++i) {
      if (pattern_.pieces[i].id != id) continue;
      for (const Edge& e : pattern_.pieces[i].edges)
        if ((e.role == EdgeRole::Top || e.role == EdgeRole::Yoke) && e.path.cubics().size() > 1)
          return Place{i, e.path.cubics().front().p3};
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
    const bool isNeck = key.starts_with("neck.") && stage == "Lines";  // chosen with the block, drawn with the lines
    if (!place || (rule->stage != stage && !isNeck)) return;
    if (!ruleCounts(*rule, [&](std::string_view other) { return rules.option(other); })) return;
    for (const LineHandle& h : handles)
      if (h.key == "cup.side" && key == h.key) return;
    for (const LineHandle& h : handles)
      if (h.piece == place->piece && distance(h.at, place->at) < 1) return;  // one place, one handle
    handles.push_back({std::string(key), place->piece, place->at, axis, rules.length(key)});
  };
  if (const auto centre = dialCentre(pattern); centre && stage == "Cups" && rules.option("cup.kind") == "princess")
    for (const char* part : {"side", "ease", "centre", "top"}) {
      const std::string key = std::string("dial.") + part;
      const Vec2 way = dialDirection(part);
      const double mm = rules.share(key) * kDialReach;
      handles.push_back({key, centre->piece, centre->at + (kDialHandle + mm) * way, way, mm, 1 / kDialReach});
    }
  const std::initializer_list<std::string_view> fronts{"yoke-front", "front-1", "front-2"},
      backs{"yoke-back", "back-1"};
  const bool yokeFront = places.on("front-1", "yoke-front-1", 0).has_value(),
             yokeBack = places.end("back-1", EdgeRole::Yoke, false).has_value();
  const bool goesUp = places.onAny(fronts, "neck", 0).has_value();
  const std::string_view cover = rules.option("cover.kind");
  if (cover == "covered" || cover == "halter") {
    add("neck.depth_front", places.onAny(fronts, "neck", 0), kDown);
    add("neck.width", places.onAny(fronts, "neck", 1), kOut);
    add("halter.width", places.onAny(fronts, "shoulder", 1), kOut);
  }
  add("cover.strap_width", places.onAny({"front-2", "front-1"}, "shoulder", 0), kIn);
  if (rules.option("yoke.front") != "none") add("yoke.armhole", places.yokeAtArmhole("yoke-front", false), kUp);
  if (rules.option("yoke.back") != "none") add("yoke.armhole", places.yokeAtArmhole("yoke-back", true), kUp);
  add("off.depth", places.on("shoulder-band", "front", 0), kDown);
  const bool keyholeBehind = rules.option("keyhole.kind") == "back";
  add("keyhole.width", places.onAny(keyholeBehind ? backs : fronts, "keyhole", 0.5), keyholeBehind ? kIn : kOut);
  add("keyhole.from", places.onAny(keyholeBehind ? backs : fronts, "keyhole", keyholeBehind ? 0 : 1), kDown);
  add("insert.top", places.on("insert-centre", "insert-centre", 0), kOut);
  add("insert.hem", places.on("insert-centre", "insert-centre", 1), kOut);
  add("insert.shoulder", places.on("insert-shoulder-front", "insert-shoulder-front", 1), kIn);
  add("waist.point", places.end("skirt-front-1", EdgeRole::Fold, false), kDown);
  const Vec2 swing = places.awayFromHemCorner();
  add("skirt.flare", places.hemCorner(), swing);
  add("skirt.gore", places.hemCorner(), swing);
  add("skirt.peg", places.hemCorner(), -swing);
  const auto front = places.end("front-1", yokeFront ? EdgeRole::Yoke : EdgeRole::Top, true);
  if (!goesUp || yokeFront || cover == "straps") {
    add("top.dip", front, kDown);
    add("top.plunge", front, kDown);
  }
  add("top.plunge_beside", places.joint("front-1"), kOut);
  add("top.rise", places.crest(), kUp);
  add("top.above_chest", places.crest(), kUp);
  add("top.side", places.side(true), kUp);
  const std::string_view back = rules.option("back.shape");
  if (cover != "covered" || yokeBack || back == "scoop" || back == "v")
    add("back.slope", places.end("back-1", yokeBack ? EdgeRole::Yoke : EdgeRole::Top, false), kDown);
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
