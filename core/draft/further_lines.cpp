#include "draft/further_lines.h"

#include <numeric>

#include "draft/line_paths.h"

namespace armure {

std::vector<EdgePair> furtherEdges(const std::vector<double>& at, const std::vector<double>& takings, double first,
                                   double side, bool evenly) {
  const double taken = std::accumulate(takings.begin() + 1, takings.end(), 0.0);
  const double width = (side - first - taken) / static_cast<double>(at.size());
  std::vector<EdgePair> edges;
  double x = first;
  for (size_t i = 1; i < at.size(); ++i) {
    const double toCentre = evenly ? x + width : at[i] - takings[i] / 2;
    edges.push_back({toCentre, toCentre + takings[i]});
    x = edges.back().toSide;
  }
  return edges;
}

double shareBelow(const Levels& levels, bool front, std::string_view id) {
  const auto depth = [&](std::string_view l) { return front ? levels.at(l).front : levels.at(l).back; };
  const auto share = [&](std::string_view l) { return front ? levels.at(l).frontShare : levels.at(l).backShare; };
  if (id != level::kHem) return share(id);
  const double hem = depth(level::kHem), highHip = depth(level::kHighHip);
  const std::string_view upper = hem < highHip ? level::kWaist : level::kHighHip;
  const std::string_view lower = hem < highHip ? level::kHighHip : level::kHip;
  const double part = (hem - depth(upper)) / (depth(lower) - depth(upper));
  return share(upper) + part * (share(lower) - share(upper));
}

std::vector<LevelBelow> levelsBelow(const Levels& levels, const Shaping& shaping, bool front,
                                    const std::function<double(double)>& centreIntake) {
  std::vector<LevelBelow> out;
  for (const ShapedLevel& l : shaping.levels) {
    if (l.id == level::kTop || !l.drawn) continue;
    const double side =
        shareBelow(levels, front, l.id) + centreIntake(l.y) + std::accumulate(l.taken.begin(), l.taken.end(), 0.0);
    out.push_back({l.id, l.y, l.taken, side});
  }
  return out;
}

std::pair<Path, Path> sweptEdges(std::vector<Station> middle, std::vector<Station> gap,
                                 const std::vector<LevelBelow>& below, const std::vector<EdgePair>& edges,
                                 const std::vector<bool>& placed, double topY, double bottomY, bool straight) {
  std::vector<double> depths;
  for (size_t k = 0; k < below.size(); ++k) {
    const LevelBelow& b = below[k];
    const bool isHem = b.id == level::kHem;
    if ((b.id == level::kWaist && !straight) || isHem || placed[k]) {
      middle.push_back({b.y, (edges[k].toCentre + edges[k].toSide) / 2});
    } else {
      depths.push_back(b.y);
    }
    gap.push_back({b.y, edges[k].toSide - edges[k].toCentre, 0, isHem});
  }
  std::vector<Station> swept = withStationsAt(middle, depths);
  extend(swept, topY, bottomY);
  extend(gap, topY, bottomY);
  return edgesAbout(swept, gap);
}

}  // namespace armure
