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

ClosedSideFront closeSideDart(const Block& block) {
  const SideDart& dart = block.dart;
  ClosedSideFront closed;
  closed.turn = Motion::rotationAbout(dart.apex, -dart.angle);

  const auto [above, below] = splitAtDepth(block.front.line.toSide, dart.apex.y);
  closed.princess = above + below.transformed(closed.turn);
  closed.side = block.front.side + block.sideBelowDart.transformed(closed.turn);
  return closed;
}

}  // namespace armure
