#include "garment/line_handles.h"

#include <algorithm>
#include <array>
#include <optional>
#include <span>

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
  std::optional<Place> onAny(std::span<const std::string_view> ids, std::string_view edge, double part) const {
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
      if (!isCup(p) && !(p.part == Part::Panel && p.half == Half::Front)) continue;
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

// Where to look for the upper edge of either half, in this order.
constexpr std::array<std::string_view, 3> kFronts{"yoke-front", "front-1", "front-2"};
constexpr std::array<std::string_view, 2> kBacks{"yoke-back", "back-1"}, kStrapFronts{"front-2", "front-1"};

// The handles of one stage, from the shoulder down.
class HandleMaker {
 public:
  HandleMaker(const Pattern& pattern, const Rules& rules, std::string_view stage)
      : pattern_(pattern), rules_(rules), stage_(stage), places_(pattern) {}

  std::vector<LineHandle> make() && {
    dial();
    shoulders();
    inserts();
    skirt();
    topEdge();
    hem();
    cups();
    return std::move(handles_);
  }

 private:
  void add(std::string_view key, const std::optional<Place>& place, Vec2 axis) {
    const RuleInfo* rule = findRule(key);
    const bool isNeck = key.starts_with("neck.") && stage_ == "Lines";  // chosen with the block, drawn with the lines
    if (!place || (rule->stage != stage_ && !isNeck)) return;
    if (!ruleCounts(*rule, [&](std::string_view other) { return rules_.option(other); })) return;
    for (const LineHandle& h : handles_) {
      if (h.key == "cup.side" && key == h.key) return;
      if (h.piece == place->piece && distance(h.at, place->at) < 1) return;  // one place, one handle
    }
    handles_.push_back({std::string(key), place->piece, place->at, axis, rules_.length(key)});
  }

  void dial() {
    const auto centre = dialCentre(pattern_);
    if (!centre || stage_ != "Cups" || rules_.option("cup.kind") != "princess") return;
    for (const char* part : {"side", "ease", "centre", "top"}) {
      const std::string key = std::string("dial.") + part;
      const Vec2 way = dialDirection(part);
      const double mm = rules_.share(key) * kDialReach;
      handles_.push_back({key, centre->piece, centre->at + (kDialHandle + mm) * way, way, mm, 1 / kDialReach});
    }
  }

  std::string_view cover() const { return rules_.option("cover.kind"); }
  bool yokeFront() const { return places_.on("front-1", "yoke-front-1", 0).has_value(); }
  bool yokeBack() const { return places_.end("back-1", EdgeRole::Yoke, false).has_value(); }

  void shoulders() {
    if (cover() == "covered" || cover() == "halter") {
      add("neck.depth_front", places_.onAny(kFronts, "neck", 0), kDown);
      add("neck.width", places_.onAny(kFronts, "neck", 1), kOut);
      add("halter.width", places_.onAny(kFronts, "shoulder", 1), kOut);
    }
    add("cover.strap_width", places_.onAny(kStrapFronts, "shoulder", 0), kIn);
    if (rules_.option("yoke.front") != "none") add("yoke.armhole", places_.yokeAtArmhole("yoke-front", false), kUp);
    if (rules_.option("yoke.back") != "none") add("yoke.armhole", places_.yokeAtArmhole("yoke-back", true), kUp);
    add("off.depth", places_.on("shoulder-band", "front", 0), kDown);
    const bool behind = rules_.option("keyhole.kind") == "back";
    const std::span<const std::string_view> upper = behind ? std::span<const std::string_view>(kBacks) : kFronts;
    add("keyhole.width", places_.onAny(upper, "keyhole", 0.5), behind ? kIn : kOut);
    add("keyhole.from", places_.onAny(upper, "keyhole", behind ? 0 : 1), kDown);
  }

  void inserts() {
    add("insert.top", places_.on("insert-centre", "insert-centre", 0), kOut);
    add("insert.hem", places_.on("insert-centre", "insert-centre", 1), kOut);
    add("insert.shoulder", places_.on("insert-shoulder-front", "insert-shoulder-front", 1), kIn);
  }

  void skirt() {
    add("waist.point", places_.end("skirt-front-1", EdgeRole::Fold, false), kDown);
    const Vec2 swing = places_.awayFromHemCorner();
    add("skirt.flare", places_.hemCorner(), swing);
    add("skirt.gore", places_.hemCorner(), swing);
    add("skirt.peg", places_.hemCorner(), -swing);
  }

  void topEdge() {
    const auto front = places_.end("front-1", yokeFront() ? EdgeRole::Yoke : EdgeRole::Top, true);
    const bool goesUp = places_.onAny(kFronts, "neck", 0).has_value();
    if (!goesUp || yokeFront() || cover() == "straps") {
      add("top.dip", front, kDown);
      add("top.plunge", front, kDown);
    }
    add("top.plunge_beside", places_.joint("front-1"), kOut);
    add("top.rise", places_.crest(), kUp);
    add("top.above_chest", places_.crest(), kUp);
    add("top.side", places_.side(true), kUp);
    const std::string_view back = rules_.option("back.shape");
    if (cover() != "covered" || yokeBack() || back == "scoop" || back == "v")
      add("back.slope", places_.end("back-1", yokeBack() ? EdgeRole::Yoke : EdgeRole::Top, false), kDown);
  }

  void hem() {
    add("hem.dip", places_.end("front-1", EdgeRole::Hem, false), kDown);
    add("hem.length", places_.end("front-1", EdgeRole::Hem, false), kDown);
    add("hem.length", places_.end("back-1", EdgeRole::Hem, true), kDown);
    add("hem.raise", places_.side(false), kUp);
  }

  void cups() {
    add("cup.bridge", places_.notch("cup-1", "bust"), kOut);
    add("cup.bridge", places_.notch("cup", "bust"), kOut);
    add("cup.outer_extra", places_.notch("cup-2", "bust"), kOut);
    for (const char* upper : {"cup-2-band", "cup-2-cross", "cup-2"}) add("cup.side", places_.seamEnd(upper), kIn);
  }

  const Pattern& pattern_;
  const Rules& rules_;
  const std::string_view stage_;
  const Places places_;
  std::vector<LineHandle> handles_;
};

}  // namespace

std::vector<LineHandle> lineHandles(const Pattern& pattern, const Rules& rules, std::string_view stage) {
  return HandleMaker(pattern, rules, stage).make();
}

}  // namespace armure
