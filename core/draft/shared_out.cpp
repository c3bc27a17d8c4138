#include "draft/shared_out.h"

#include <fmt/format.h>

#include <algorithm>
#include <array>
#include <cctype>
#include <numeric>

#include "distribute/distribution.h"

namespace armure {
namespace {

constexpr double kNoBound = 1e6;  // mm: the side may stand out as far as it must
constexpr std::array<std::string_view, 3> kSharedLevels{level::kUnderbust, level::kWaist, level::kHighHip};

// What part of the drop each line and, last, the side is wished to take. Common practice, no source.
std::vector<double> schoolParts(std::string_view school, bool front, size_t lines) {
  std::vector<double> parts(lines + 1, 1);
  if (school == "side-weighted") std::iota(parts.begin(), parts.end(), 1.0);
  if (school == "flat-front" && front) {
    parts.front() = 0.4;
    parts.back() = 2;
  }
  const double sum = std::accumulate(parts.begin(), parts.end(), 0.0);
  for (double& part : parts) part /= sum;
  return parts;
}

std::string lowered(std::string name) {
  name[0] = static_cast<char>(std::tolower(static_cast<unsigned char>(name[0])));
  return name;
}

std::string curesText(const Miss& miss) {
  return fmt::format(
      "the caps leave {:.0f} mm to the side: {} more line{}, or {:.0f} mm more for every cap, or {:.0f} mm less "
      "reduction",
      miss.amount, miss.cures.moreLines, miss.cures.moreLines == 1 ? "" : "s", miss.cures.higherCap,
      miss.cures.lessReduction);
}

DistributionProblem problemFor(const Levels& levels, const Rules& rules, bool front,
                               const std::vector<std::string>& lineIds, double width, double sideFrom,
                               const std::function<double(double)>& centreIntake) {
  const std::vector<double> parts = schoolParts(rules.option("distribution.school"), front, lineIds.size());
  DistributionProblem p;
  for (const std::string& id : lineIds) p.lines.push_back({id, 1});
  p.lines.push_back({"side", 1});
  for (std::string_view id : kSharedLevels) {
    const Level& l = levels.at(id);
    const double y = front ? l.front : l.back, share = front ? l.frontShare : l.backShare;
    const double drop = width - share - centreIntake(y);
    p.levels.push_back({std::string(id), y, drop});
    for (size_t i = 0; i < p.lines.size(); ++i) {
      const bool side = i + 1 == p.lines.size();
      const double cap = rules.length(side ? "cap.side" : front && i == 0 ? "cap.princess" : "cap.other");
      p.cells.push_back({drop * parts[i], side ? -kNoBound : 0, cap});
    }
  }
  // On the underbust the side would run straight from the bust to where it is wished at the waist; the lines share the
  // rest. Else the side hooks in below a full bust.
  const size_t lines = p.lines.size();
  const double down = (p.levels[0].y - sideFrom) / (p.levels[1].y - sideFrom);
  const double side = std::min(p.levels[0].drop, down * p.cells[2 * lines - 1].wish);
  for (size_t i = 0; i + 1 < lines; ++i) p.cells[i].wish = (p.levels[0].drop - side) * parts[i] / (1 - parts.back());
  p.cells[lines - 1].wish = side;
  return p;
}

}  // namespace

SharedOut shareOut(const Levels& levels, const Rules& rules, bool front, const std::vector<std::string>& lineIds,
                   double width, double sideFrom, const std::function<double(double)>& centreIntake) {
  const DistributionProblem p = problemFor(levels, rules, front, lineIds, width, sideFrom, centreIntake);
  const Distribution d = distribute(p);
  const size_t lines = p.lines.size();
  SharedOut out;
  for (size_t i = 0; i < lineIds.size(); ++i) {
    const double highHip = d.intakes[2 * lines + i];
    out.takings.push_back({0, d.intakes[i], d.intakes[lines + i], highHip, highHip});
  }
  if (front) out.takings.front().top = rules.length("intake.top");

  const std::string half = front ? "front" : "back", named = front ? "Front" : "Back";
  for (size_t l = 0; l < p.levels.size(); ++l) {
    const Level& level = levels.at(p.levels[l].id);
    out.workings.push_back({fmt::format("{}.{}.intake", half, level.id),
                            fmt::format("{}, {}: to be taken in", named, lowered(level.name)),
                            {{'+', "width of the block, as at the bust", width, Source::Computed},
                             {'-', "finished share and centre", width - p.levels[l].drop, Source::Computed}},
                            p.levels[l].drop,
                            "shared out among the lines and the side by the school chosen; what each line takes stands "
                            "in the working of the side; common practice"});
    double side = d.intakes[l * lines + lines - 1];
    std::string cures;
    for (const Miss& miss : d.misses) {
      if (miss.level != l) continue;
      side += miss.amount;  // the girth is kept; the sheet says that the side takes too much
      cures = curesText(miss);
    }
    if (side > 0 && !level.beyondHem)
      out.atSide.push_back(
          {half, "side", level.id, side, rules.length("cap.side"), fmt::format("Side, {} half", half), cures});
  }
  return out;
}

}  // namespace armure
