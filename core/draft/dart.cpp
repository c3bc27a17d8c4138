#include "draft/dart.h"

#include <cmath>
#include <stdexcept>

namespace armure {

std::pair<Path, Path> splitAtDepth(const Path& path, double y) {
  constexpr double kOnJoint = 1e-9;
  const auto& cubics = path.cubics();
  for (size_t i = 1; i < cubics.size(); ++i) {
    if (std::abs(cubics[i].p0.y - y) > kOnJoint) continue;
    const auto joint = cubics.begin() + static_cast<std::ptrdiff_t>(i);
    return {Path(std::vector<Cubic>(cubics.begin(), joint)), Path(std::vector<Cubic>(joint, cubics.end()))};
  }
  const auto at = path.crossings({0, y}, {1, 0});
  if (at.empty()) throw std::invalid_argument("splitAtDepth: the path does not reach this depth");
  return {path.sub(0, at.front()), path.sub(at.front(), path.length())};
}

ClosedFront closeSideDart(const Block& block) {
  const SideDart& dart = block.dart;
  ClosedFront closed;
  closed.turn = Motion::rotationAbout(dart.apex, -dart.angle);
  for (const PanelLine& line : block.front.lines) {
    if (line.toSideBelow.empty()) {  // through the bust point itself
      const auto [above, below] = splitAtDepth(line.toSide, dart.apex.y);
      closed.toCentre.push_back(line.toCentre);
      closed.toSide.push_back(above + below.transformed(closed.turn));
    } else {
      closed.toCentre.push_back(line.toCentre + line.toCentreBelow.transformed(closed.turn));
      closed.toSide.push_back(line.toSide + line.toSideBelow.transformed(closed.turn));
    }
  }
  closed.side = block.front.side + block.sideBelowDart.transformed(closed.turn);
  return closed;
}

}  // namespace armure
