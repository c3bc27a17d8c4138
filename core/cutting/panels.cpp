#include "cutting/panels.h"

#include <fmt/format.h>

#include <algorithm>

#include "draft/dart.h"
#include "parts/opening/rules.h"
#include "rules/prepare_rules.h"

namespace armure {
namespace {

constexpr double kBetweenHalves = 60;  // mm between front and back as they lie side by side

class PanelMaker {
 public:
  PanelMaker(const Block& block, const Rules& rules, const UpperOutlines& upper)
      : block_(block), rules_(rules), upper_(upper) {}

  std::vector<Panel> make() && {
    layFront();
    layBack();
    return std::move(panels_);
  }

 private:
  void layFront() {
    const ClosedFront closed = closeSideDart(block_);
    const Motion still;
    const HalfBlock& f = block_.front;
    const size_t n = f.lines.size();
    for (size_t i = 0; i <= n; ++i) {
      DraftedEdge left = i == 0 ? centreEdge(f, f.centre) : seamEdge(f.lines[i - 1], closed.toSide[i - 1]);
      DraftedEdge right = i == n ? sideEdge(closed.side) : seamEdge(f.lines[i], closed.toCentre[i]);
      add(f, i, still, i == 0 ? still : closed.turn, std::move(left), std::move(right));
    }
  }

  // Mirrored, so that the side comes first.
  void layBack() {
    double front = 0, back = 0;
    for (const HalfLevel& l : block_.front.levels) front = std::max(front, l.side);
    for (const HalfLevel& l : block_.back.levels) back = std::max(back, l.side);
    const Motion aside = Motion::mirrorX().then(Motion::translation({front + kBetweenHalves + back, 0}));
    const HalfBlock& b = block_.back;
    const size_t n = b.lines.size();
    for (size_t i = n + 1; i-- > 0;) {
      DraftedEdge left =
          i == n ? sideEdge(b.side.transformed(aside)) : seamEdge(b.lines[i], b.lines[i].toCentre.transformed(aside));
      DraftedEdge right = i == 0 ? centreEdge(b, b.centre.transformed(aside))
                                 : seamEdge(b.lines[i - 1], b.lines[i - 1].toSide.transformed(aside));
      add(b, i, aside, aside, std::move(left), std::move(right));
    }
  }

  // The panel behind `lines` lines from the centre, with the upper outline as it sees it.
  void add(const HalfBlock& half, size_t lines, const Motion& still, const Motion& lower, DraftedEdge left,
           DraftedEdge right) {
    Panel p{fmt::format("{}-{}", half.id, lines + 1),
            panelName(half.front, lines, half.lines.size()),
            &half,
            static_cast<int>(lines) + 1,
            panels_.size(),
            panels_.size() + 1,
            still,
            lower,
            std::move(left),
            std::move(right),
            {}};
    const std::optional<UpperOutline>& outline = &half == &block_.front ? upper_.front : upper_.back;
    if (outline) p.upper = opened(*outline, half, lines);
    for (UpperStretch& s : p.upper) s.path = s.path.transformed(still);
    panels_.push_back(std::move(p));
  }

  DraftedEdge sideEdge(Path path) const {
    return {"side", EdgeRole::Seam, rules_.length(key::kAllowanceSide), std::move(path)};
  }

  DraftedEdge seamEdge(const PanelLine& line, Path path) const {
    return {line.id, EdgeRole::Seam, rules_.length(key::kAllowanceSeam), std::move(path)};
  }

  // The edge at the centre of a half: the fold, a seam with the mirrored piece, or the edge of the opening.
  DraftedEdge centreEdge(const HalfBlock& half, Path path) const {
    const Opening& o = half.opening;
    if (o.isFold()) return {"fold", EdgeRole::Fold, 0, std::move(path)};
    if (o.isSeam()) return {"centre-" + half.id, EdgeRole::Centre, rules_.length(key::kAllowanceSeam), std::move(path)};
    return {"opening", EdgeRole::Opening, rules_.length(allowanceOf(o.kind)), std::move(path)};
  }

  static LengthKey allowanceOf(OpeningKind kind) {
    switch (kind) {
      case OpeningKind::Zip:
      case OpeningKind::ZipLaced:
        return key::kAllowanceZip;
      case OpeningKind::Lacing:
      case OpeningKind::VLacing:
        return key::kAllowanceLacing;
      case OpeningKind::Loops:
      case OpeningKind::VLoops:
        return key::kAllowanceLoops;
      case OpeningKind::Busk:
      case OpeningKind::Hooks:
        return key::kAllowanceBusk;
      case OpeningKind::Fold:
      case OpeningKind::Seam:
        break;
    }
    return key::kAllowanceSeam;
  }

  // "Centre front", "Side front"; between them "Front 2", "Front 3", counted from the centre.
  static Message panelName(bool front, size_t place, size_t lines) {
    if (place == 0) return front ? "Centre front" : "Centre back";
    if (place == lines) return front ? "Side front" : "Side back";
    return front ? msg("Front {}", place + 1) : msg("Back {}", place + 1);
  }

  const Block& block_;
  const Rules& rules_;
  const UpperOutlines& upper_;
  std::vector<Panel> panels_;
};

}  // namespace

std::vector<Panel> layOutPanels(const Block& block, const Rules& rules, const UpperOutlines& upper) {
  return PanelMaker(block, rules, upper).make();
}

}  // namespace armure
