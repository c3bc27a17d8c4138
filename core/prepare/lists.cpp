#include "prepare/lists.h"

#include <algorithm>
#include <array>
#include <tuple>

#include "layers/recipe.h"
#include "parts/bones/eyelets.h"
#include "parts/straps/rules.h"
#include "parts/trims/sewn_on.h"
#include "pattern/outline_parts.h"
#include "rules/prepare_rules.h"
#include "units/length.h"

namespace armure {
namespace {

constexpr double kCasingEnds = inches(1);                            // a casing is turned in at both ends by half of it
constexpr double kBindingEnds = inches(4), kPipingEnds = inches(1);  // to turn in and join
constexpr double kStayEnds = inches(2);  // a waist stay is turned back at both ends by half of it

double allowanceOf(const Edge& e) { return e.allowance + e.onCloth; }

// Whether the seam's allowance, pressed to the side of the channel, reaches under all of it.
bool isCarried(const Pattern& pattern, const Channel& c) {
  const Seam* seam = c.seam.empty() ? nullptr : pattern.seam(c.seam);
  if (!seam) return false;
  double least = HUGE_VAL;
  for (const SeamSide* side : {&seam->a, &seam->b})
    for (const EdgeUse& use : side->chain)
      least = std::min(least, allowanceOf(pattern.pieces[side->piece].edge(use.edge)));
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

// As long as its longer side.
double openingLength(const Pattern& pattern, Half half) {
  std::array<double, 2> length{};
  for (size_t i = 0; i < pattern.shellPieces(); ++i)
    for (const Edge& e : pattern.pieces[i].edges)
      if (const Piece& p = pattern.pieces[i]; p.half == half && e.role == EdgeRole::Opening)
        for (const bool right : {false, true})
          if (isOn(right ? BodySide::Right : BodySide::Left, p, e)) length[right] += e.path.length();
  return std::max(length[0], length[1]);
}

class NotionList {
 public:
  NotionList(const Pattern& pattern, const Block& block, const Rules& rules)
      : pattern_(pattern), block_(block), rules_(rules) {}

  std::vector<Notion> make(const std::vector<BoneLine>& bones) && {
    closing(Half::Back, block_.back.opening.kind);
    closing(Half::Front, block_.front.opening.kind);
    lacings();
    wires();
    casings(bones);
    waistStay();
    bindings();
    piping();
    straps();
    elastic();
    for (const Supply& s : pattern_.supplies) all_.push_back({s.id, s.name, s.count, s.length, s.note});
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

  // One for each opening: both edges are alike, or there is a row for either.
  void lacings() {
    const std::vector<EyeletRow> rows = eyeletsOf(pattern_, block_, rules_);
    for (const EyeletRow& row : rows) {
      const Piece& p = pattern_.pieces[row.piece];
      if (p.side == BodySide::Right) continue;
      const auto other = std::ranges::find_if(rows, [&](const EyeletRow& r) {
        const Piece& q = pattern_.pieces[r.piece];
        return q.side == BodySide::Right && q.splitOf == p.splitOf;
      });
      lacing(row, static_cast<int>((p.side == BodySide::Left && other != rows.end() ? *other : row).places.size()));
    }
  }

  void lacing(const EyeletRow& row, int across) {
    const auto rows = static_cast<int>(row.places.size());
    all_.push_back({row.loops ? "loops" : "eyelets", row.loops ? Message("Loops") : Message("Eyelets"), rows + across,
                    0, msg("{} on either edge of {}", rows, Length{row.length})});
    all_.push_back({"lace", "Lace", 1, laceLength(row, rules_),
                    msg("for {} rows, opened to {} for getting in, with {} for the bow", rows,
                        Length{rules_.length(key::kLaceOpened)}, Length{rules_.length(key::kLaceEnds)})});
  }

  // In the cup line of a cut cup, on either side of the garment.
  void wires() {
    if (!isSplit(pattern_)) return wire(BodySide::Both, 2);
    wire(BodySide::Left, 1);
    wire(BodySide::Right, 1);
  }

  void wire(BodySide side, int count) {
    double length = 0;
    for (size_t i = 0; i < pattern_.shellPieces(); ++i)
      if (const Piece& p = pattern_.pieces[i]; !isCup(p))
        for (const Edge& e : p.edges)
          if (e.role == EdgeRole::Cup && isOn(side, p, e)) length += e.path.length();
    if (length <= 0) return;
    const double end = rules_.length(key::kBonesEnd);
    all_.push_back({"wire", onSide("Cup wire", side), count, std::max(0.0, length - 2 * end),
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

  // All round the garment, of the edges of a role; each half twice.
  double edgesAllRound(std::initializer_list<EdgeRole> roles) const {
    double length = 0;
    for (size_t i = 0; i < pattern_.shellPieces(); ++i) {
      const Piece& p = pattern_.pieces[i];
      if (p.part == Part::Strap) continue;
      for (const Edge& e : p.edges)
        if (std::ranges::find(roles, e.role) != roles.end()) length += p.girthWeight() * e.path.length();
    }
    return length;
  }

  // Edges that are bound: cut on the bias, as long as they are, with a turning for each join and end.
  void bindings() {
    const auto bound = rules_.option(key::kBinding);
    if (bound == Binding::None) return;
    const double top = bound == Binding::Hem ? 0 : edgesAllRound({EdgeRole::Top, EdgeRole::Armhole});
    const double hem = bound == Binding::Top ? 0 : edgesAllRound({EdgeRole::Hem});
    if (top + hem <= 0) return;
    all_.push_back({"binding", "Bias binding", 1, top + hem + kBindingEnds,
                    msg("{} along the upper edges, {} along the hem, cut {} wide, and {} to turn in and join",
                        Length{top}, Length{hem}, Length{4 * rules_.length(key::kBindingWide)}, Length{kBindingEnds})});
  }

  // Along the panel seams of the shell, on either side of the garment.
  void piping() {
    if (rules_.option(key::kPiping) == Piping::None) return;
    double length = 0;
    int seams = 0;
    for (const Seam& s : pattern_.seams) {
      const size_t count = pattern_.shellPieces();
      if (s.kind != SeamKind::Plain || s.a.piece >= count || s.b.piece >= count || isSideSeam(pattern_, s)) continue;
      const Piece& p = pattern_.pieces[s.a.piece];
      const int times = p.symmetry == Symmetry::Once ? 1 : 2;
      length += times * (pattern_.sidePath(s.a).length() + kPipingEnds);
      seams += times;
    }
    if (seams > 0)
      all_.push_back(
          {"piping", "Piping", 1, length, msg("in {} seams, each with {} to spare", seams, Length{kPipingEnds})});
  }

  // Straps are cut of cloth; what is bought for them is what stiffens or adjusts them.
  void straps() {
    int count = 0;
    double longest = 0;
    for (const Piece& p : pattern_.pieces) {
      if (p.part != Part::Strap) continue;
      count += p.copies;
      for (const Edge& e : p.edges) longest = std::max(longest, e.path.length());
    }
    if (count > 0)
      all_.push_back(
          {"strap-tape", "Stay tape in the straps", std::min(2, count), longest, "so that they do not stretch"});
  }

  // In an edge that lies free on the shoulders.
  void elastic() {
    double edge = 0;
    for (size_t i = 0; i < pattern_.shellPieces(); ++i)
      if (pattern_.pieces[i].part == Part::ShoulderBand)
        for (const Edge& e : pattern_.pieces[i].edges)
          if (e.role == EdgeRole::Top || e.role == EdgeRole::Strap)
            edge += pattern_.pieces[i].girthWeight() * e.path.length();
    constexpr double kDrawnIn = 0.9;  // of the edge; common practice, no source
    if (edge > 0)
      all_.push_back({"elastic", "Elastic in the band off the shoulders", 1, kDrawnIn * edge,
                      msg("nine tenths of {}, the band's upper edge", Length{edge})});
  }

  const Pattern& pattern_;
  const Block& block_;
  const Rules& rules_;
  std::vector<Notion> all_;
};

}  // namespace

bool isMirrored(const Piece& piece) { return piece.symmetry == Symmetry::Pair && piece.part != Part::Strap; }

std::string clothOf(const Piece& piece, std::string_view layer, const Rules& rules) {
  if (rules.option(key::kCutFor) == CutFor::Toile) return rules.chosenCloth("toile").value_or("calico");
  if (piece.part == Part::Trim && layer == piece.layer && !findLayer(layer)) return trimCloth(chosenAs(piece), rules);
  if (layer == "shell")
    if (auto chosen = rules.chosenCloth(chosenAs(piece))) return *chosen;
  if (!piece.cloth.empty() && layer == piece.layer) return piece.cloth;
  if (auto chosen = rules.chosenCloth(layer)) return *chosen;
  const LayerRecipe* recipe = findLayer(layer);
  if (recipe) return std::string(recipe->cloth);
  return rules.chosenCloth("shell").value_or("satin");
}

namespace {

class PieceList {
 public:
  PieceList(const Pattern& pattern, const Rules& rules) : pattern_(pattern), rules_(rules) {}

  void into(CutList& list) && {
    std::vector<std::string> layers;
    for (const LayerRecipe* recipe : layersOf(rules_)) layers.emplace_back(recipe ? recipe->id : "shell");
    for (const std::string& layer : layers) {
      for (size_t i = 0; i < pattern_.pieces.size(); ++i) {
        const Piece& p = pattern_.pieces[i];
        if (p.layer == layer) add(list, i, layer, p.id, p.name, p.copies);
        for (const AlsoCut& again : p.alsoCut)
          if (again.layer == layer)
            add(list, i, layer, layer + "-" + p.id, msg("{}, {}", known(findLayer(layer)->name), p.name), again.copies);
      }
    }
    for (size_t i = 0; i < pattern_.pieces.size(); ++i)  // panels behind an opening, and whatever is of no recipe
      if (const Piece& p = pattern_.pieces[i]; std::ranges::find(layers, p.layer) == layers.end())
        add(list, i, p.layer, p.id, p.name, p.copies);
  }

 private:
  void add(CutList& list, size_t i, const std::string& layer, std::string id, Message name, int copies) {
    const Piece& p = pattern_.pieces[i];
    const std::string cloth = clothOf(p, layer, rules_);
    list.pieces.push_back(
        {i, std::move(id), std::move(name), layer, cloth, copies, isMirrored(p), p.symmetry == Symmetry::OnFold});
    if (std::ranges::find(list.cloths, cloth, &ClothLine::cloth) != list.cloths.end()) return;
    ListedCloth as{cloth, cloth, rules_.length(key::kClothWidth), true, false, 0, 0, {}};
    if (const ListedCloth* listed = rules_.cloth(cloth)) as = *listed;
    if (layer == "shell" && p.cloth.empty() && !rules_.isDefault(key::kClothWidth))
      as.width = rules_.length(key::kClothWidth);
    list.cloths.push_back({cloth, as.width, as});
  }

  const Pattern& pattern_;
  const Rules& rules_;
};

}  // namespace

CutList pieceList(const Pattern& pattern, const Rules& rules) {
  CutList list;
  PieceList(pattern, rules).into(list);
  return list;
}

CutList cutList(const Pattern& pattern, const Block& block, const Rules& rules) {
  CutList list = pieceList(pattern, rules);
  list.bones = bonesOf(pattern, channelsOf(pattern, block, rules), rules);
  list.notions = NotionList(pattern, block, rules).make(list.bones);
  return list;
}

}  // namespace armure
