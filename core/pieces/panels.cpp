#include "pieces/panels.h"

#include <fmt/format.h>

#include <algorithm>

#include "draft/dart.h"

namespace armure {
namespace {

constexpr double kBetweenHalves = 60;  // mm between front and back as they lie side by side

class PanelMaker {
 public:
  PanelMaker(const Block& block, const Rules& rules, const UpperOutlines& upper)
      : block_(block), rules_(rules), upper_(upper) {}

  std::vector<Panel> make() && {
    const ClosedFront closed = closeSideDart(block_);
    const Motion still;
    const double side = rules_.length("allowance.side");
    double right = 0, backWidth = 0;
    for (const HalfLevel& l : block_.front.levels) right = std::max(right, l.side);
    for (const HalfLevel& l : block_.back.levels) backWidth = std::max(backWidth, l.side);
    const Motion back = Motion::mirrorX().then(Motion::translation({right + kBetweenHalves + backWidth, 0}));
    const HalfBlock &f = block_.front, &b = block_.back;
    const size_t nf = f.lines.size(), nb = b.lines.size();

    for (size_t i = 0; i <= nf; ++i) {
      DraftedEdge left = i == 0 ? centreEdge(f, f.centre) : seamEdge(f.lines[i - 1], closed.toSide[i - 1]);
      DraftedEdge outer =
          i == nf ? DraftedEdge{"side", EdgeRole::Seam, side, closed.side} : seamEdge(f.lines[i], closed.toCentre[i]);
      panels_.push_back(Panel{fmt::format("front-{}", i + 1),
                              panelName("front", i, nf),
                              &f,
                              i,
                              i + 1,
                              still,
                              i == 0 ? still : closed.turn,
                              std::move(left),
                              std::move(outer),
                              {}});
      addUpper(panels_.back(), true, i, still);
    }
    for (size_t i = nb + 1; i-- > 0;) {
      DraftedEdge left = i == nb ? DraftedEdge{"side", EdgeRole::Seam, side, b.side.transformed(back)}
                                 : seamEdge(b.lines[i], b.lines[i].toCentre.transformed(back));
      DraftedEdge inner = i == 0 ? centreEdge(b, b.centre.transformed(back))
                                 : seamEdge(b.lines[i - 1], b.lines[i - 1].toSide.transformed(back));
      const size_t boundary = panels_.size();
      panels_.push_back(Panel{fmt::format("back-{}", i + 1),
                              panelName("back", i, nb),
                              &b,
                              boundary,
                              boundary + 1,
                              back,
                              back,
                              std::move(left),
                              std::move(inner),
                              {}});
      addUpper(panels_.back(), false, i, back);
    }
    return std::move(panels_);
  }

 private:
  // The upper outline as the panel sees it that lies behind `lines` lines from the centre.
  void addUpper(Panel& p, bool front, size_t lines, const Motion& toPaper) const {
    const std::optional<UpperOutline>& outline = front ? upper_.front : upper_.back;
    if (!outline) return;
    p.upper = opened(*outline, *p.half, lines);
    for (UpperStretch& s : p.upper) s.path = s.path.transformed(toPaper);
  }

  DraftedEdge seamEdge(const PanelLine& line, Path path) const {
    return {line.id, EdgeRole::Seam, rules_.length("allowance.seam"), std::move(path)};
  }

  // The edge at the centre of a half: the fold, a seam with the mirrored piece, or the edge of the opening.
  DraftedEdge centreEdge(const HalfBlock& half, Path path) const {
    const Opening& o = half.opening;
    if (o.isFold()) return {"fold", EdgeRole::Fold, 0, std::move(path)};
    if (o.isSeam()) return {"centre-" + half.id, EdgeRole::Centre, rules_.length("allowance.seam"), std::move(path)};
    const std::string_view allowance = o.kind == "zip"     ? "allowance.zip"
                                       : o.kind == "loops" ? "allowance.loops"
                                       : o.isLaced()       ? "allowance.lacing"
                                                           : "allowance.busk";
    return {"opening", EdgeRole::Opening, rules_.length(allowance), std::move(path)};
  }

  // "Centre front", "Side front"; between them "Front 2", "Front 3", counted from the centre.
  static std::string panelName(const std::string& half, size_t place, size_t lines) {
    if (place == 0) return "Centre " + half;
    if (place == lines) return "Side " + half;
    return fmt::format("{} {}", half == "front" ? "Front" : "Back", place + 1);
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
