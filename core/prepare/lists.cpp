#include "prepare/lists.h"

#include <algorithm>
#include <tuple>

#include "parts/bones/eyelets.h"
#include "rules/prepare_rules.h"
#include "units/length.h"

namespace armure {
namespace {

constexpr double kCasingEnds = inches(1);  // a casing is turned in at both ends by half of it
constexpr double kStayEnds = inches(2);    // a waist stay is turned back at both ends by half of it

// Whether the seam's allowance, pressed to the side of the channel, reaches under all of it.
bool isCarried(const Pattern& pattern, const Channel& c) {
  const Seam* seam = c.seam.empty() ? nullptr : pattern.seam(c.seam);
  if (!seam) return false;
  double least = HUGE_VAL;
  for (const SeamSide* side : {&seam->a, &seam->b})
    for (const EdgeUse& use : side->chain)
      least = std::min(least, pattern.pieces[side->piece].edge(use.edge).allowance);
  constexpr double kStitchedDown = 1;  // mm beyond the far line of stitches
  return least >= c.width + kStitchedDown;
}

std::vector<BoneLine> bonesOf(const Pattern& pattern, const std::vector<Channel>& channels, const Rules& rules) {
  std::vector<BoneLine> bones;
  for (const Channel& c : channels) {
    BoneLine b;
    b.kind = &boneKind(c.kind);
    b.width = rules.length(key::kBonesWidth);
    b.channelLength = c.length();
    b.cutLength = cutLength(c, rules);
    b.stockLength = stockLength(*b.kind, b.cutLength);
    b.count = c.count;
    b.seam = c.seam;
    if (c.seam.empty()) b.piece = pattern.pieces[c.piece].id;
    b.inAllowance = isCarried(pattern, c);
    bones.push_back(std::move(b));
  }
  std::ranges::stable_sort(bones, [](const BoneLine& a, const BoneLine& b) {
    return std::tuple(a.kind->id, -a.cutLength) < std::tuple(b.kind->id, -b.cutLength);
  });
  return bones;
}

double openingLength(const Pattern& pattern, Half half) {
  double length = 0;
  for (size_t i = 0; i < pattern.shellPieces(); ++i)
    for (const Edge& e : pattern.pieces[i].edges)
      if (pattern.pieces[i].half == half && e.role == EdgeRole::Opening) length += e.path.length();
  return length;
}

class NotionList {
 public:
  NotionList(const Pattern& pattern, const Block& block, const Rules& rules)
      : pattern_(pattern), block_(block), rules_(rules) {}

  std::vector<Notion> make(const std::vector<BoneLine>& bones) && {
    closing(Half::Back, block_.back.opening.kind);
    closing(Half::Front, block_.front.opening.kind);
    for (const EyeletRow& row : eyeletsOf(pattern_, block_, rules_)) lacing(row);
    wires();
    casings(bones);
    waistStay();
    return std::move(all_);
  }

 private:
  void closing(Half half, OpeningKind kind) {
    const double length = openingLength(pattern_, half);
    if (length <= 0) return;
    const Message where = half == Half::Back ? Message("behind") : Message("in front");
    const Message note = msg("as long as the opening {}", where);
    if (kind == OpeningKind::Zip || kind == OpeningKind::ZipLaced)
      all_.push_back({"zip", msg("Zip, {}", where), 1, length, note});
    if (kind == OpeningKind::Busk) all_.push_back({"busk", msg("Busk, {}", where), 1, length, note});
    if (kind == OpeningKind::Hooks) all_.push_back({"hook-tape", msg("Hook and eye tape, {}", where), 1, length, note});
  }

  void lacing(const EyeletRow& row) {
    const auto rows = static_cast<int>(row.places.size());
    all_.push_back({row.loops ? "loops" : "eyelets", row.loops ? Message("Loops") : Message("Eyelets"), 2 * rows, 0,
                    msg("{} on either edge of {}", rows, Length{row.length})});
    all_.push_back({"lace", "Lace", 1, laceLength(row, rules_),
                    msg("for {} rows, opened to {} for getting in, with {} for the bow", rows,
                        Length{rules_.length(key::kLaceOpened)}, Length{rules_.length(key::kLaceEnds)})});
  }

  // In the cup line of a cut cup, on either side of the garment.
  void wires() {
    double length = 0;
    for (size_t i = 0; i < pattern_.shellPieces(); ++i)
      if (!isCup(pattern_.pieces[i]))
        for (const Edge& e : pattern_.pieces[i].edges)
          if (e.role == EdgeRole::Cup) length += e.path.length();
    if (length <= 0) return;
    const double end = rules_.length(key::kBonesEnd);
    all_.push_back({"wire", "Cup wire", 2, std::max(0.0, length - 2 * end),
                    msg("the cup line of {}, less {} at each end", Length{length}, Length{end})});
  }

  void casings(const std::vector<BoneLine>& bones) {
    if (rules_.option(key::kBonesAre) != BonesAre::Steel) return;
    double length = 0;
    int count = 0;
    for (const BoneLine& b : bones)
      if (!b.inAllowance) length += b.count * (b.channelLength + kCasingEnds), count += b.count;
    if (count > 0)
      all_.push_back({"casing", "Boning casing", 1, length,
                      msg("for {} bones that no seam allowance carries, each {} longer than its channel", count,
                          Length{kCasingEnds})});
  }

  void waistStay() {
    const PatternLevel* waist = pattern_.level(level::kWaist);
    if (!waist || !waist->ring) return;
    const double length = waist->finishedGirth - waist->gaps.opening;
    all_.push_back({"waist-stay", "Waist stay, ribbon", 1, length + kStayEnds,
                    msg("the closed waist less the gap, and {} to turn back", Length{kStayEnds})});
  }

  const Pattern& pattern_;
  const Block& block_;
  const Rules& rules_;
  std::vector<Notion> all_;
};

}  // namespace

std::string clothOf(const Piece& piece) {
  if (!piece.cloth.empty()) return piece.cloth;
  return piece.layer == "pad" ? "wadding" : piece.layer;
}

CutList cutList(const Pattern& pattern, const Block& block, const Rules& rules) {
  CutList list;
  for (size_t i = 0; i < pattern.pieces.size(); ++i) {
    const Piece& p = pattern.pieces[i];
    list.pieces.push_back({i, clothOf(p), p.copies, p.symmetry == Symmetry::Pair, p.symmetry == Symmetry::OnFold});
    const std::string& cloth = list.pieces.back().cloth;
    if (std::ranges::find(list.cloths, cloth, &ClothLine::cloth) == list.cloths.end())
      list.cloths.push_back({cloth, rules.length(key::kClothWidth)});
  }
  list.bones = bonesOf(pattern, channelsOf(pattern, block, rules), rules);
  list.notions = NotionList(pattern, block, rules).make(list.bones);
  return list;
}

}  // namespace armure
