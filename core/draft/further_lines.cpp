#include "draft/further_lines.h"

#include <numeric>

#include "draft/line_paths.h"

namespace armure {

std::vector<EdgePair> furtherEdges(const std::vector<double>& at, const std::vector<double>& takings, double firstShare,
                                   double side, bool evenly) {
  const double first = at.front() + firstShare * takings.front();
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

std::vector<LevelBelow> levelsBelow(const Levels& levels, const std::vector<LineTaking>& takings, bool front,
                                    bool withHighHip, const std::function<double(double)>& centreIntake) {
  const auto depth = [&](std::string_view id) { return front ? levels.at(id).front : levels.at(id).back; };
  const auto share = [&](std::string_view id) { return front ? levels.at(id).frontShare : levels.at(id).backShare; };
  std::vector<LevelBelow> out;
  const auto add = [&](double y, double shareThere, double LineTaking::*taking) {
    std::vector<double> all;
    for (const LineTaking& t : takings) all.push_back(t.*taking);
    const double side = shareThere + centreIntake(y) + std::accumulate(all.begin(), all.end(), 0.0);
    out.push_back({y, std::move(all), side, false, false});
  };
  const double hem = depth(level::kHem), highHip = depth(level::kHighHip);
  add(depth(level::kUnderbust), share(level::kUnderbust), &LineTaking::under);
  add(depth(level::kWaist), share(level::kWaist), &LineTaking::waist);
  out.back().isWaist = true;
  if (withHighHip && highHip < hem - kLeastApart) add(highHip, share(level::kHighHip), &LineTaking::highHip);
  // No girth is prescribed at the hem: it lies between two measured levels.
  const std::string_view upper = hem < highHip ? level::kWaist : level::kHighHip;
  const std::string_view lower = hem < highHip ? level::kHighHip : level::kHip;
  const double part = (hem - depth(upper)) / (depth(lower) - depth(upper));
  add(hem, share(upper) + part * (share(lower) - share(upper)), &LineTaking::hem);
  out.back().isHem = true;
  return out;
}

std::pair<Path, Path> sweptEdges(std::vector<Station> middle, std::vector<Station> gap,
                                 const std::vector<LevelBelow>& below, const std::vector<EdgePair>& edges, double topY,
                                 double bottomY) {
  std::vector<double> depths;
  for (size_t k = 0; k < below.size(); ++k) {
    const LevelBelow& b = below[k];
    if (b.isWaist || b.isHem) {
      middle.push_back({b.y, (edges[k].toCentre + edges[k].toSide) / 2});
    } else {
      depths.push_back(b.y);
    }
    gap.push_back({b.y, edges[k].toSide - edges[k].toCentre, 0, b.isHem});
  }
  std::vector<Station> swept = withStationsAt(middle, depths);
  extend(swept, topY, bottomY);
  extend(gap, topY, bottomY);
  return edgesAbout(swept, gap);
}

}  // namespace armure
